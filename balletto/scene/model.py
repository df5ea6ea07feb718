"""The ground for every part of the document: strict, frozen models and the values in them.

Numbers say in plain words what they are, so that a refusal reads "a number of frames is needed,
got "two"". Unions are told apart by one look at the data, so that a fault is reported once, for
the kind that was meant. Their tags stand in parentheses to keep them out of the reported path.
"""

import json
from collections.abc import Callable
from typing import Annotated, Any, Union

from pydantic import (
    BaseModel,
    ConfigDict,
    Discriminator,
    Field,
    StringConstraints,
    Tag,
    ValidationError,
    WrapValidator,
)
from pydantic_core import PydanticCustomError


class Model(BaseModel):
    """A part of the document: unknown keys and wrong types are refused; never changed in place."""

    model_config = ConfigDict(
        extra="forbid",
        frozen=True,
        strict=True,
        allow_inf_nan=False,
        populate_by_name=True,
    )


def shown(value: Any) -> str:
    """The value as JSON, shortened, for the end of a message."""
    text = json.dumps(value, ensure_ascii=False, default=str)
    return text if len(text) <= 60 else text[:57] + "..."


def needs(what: str, limits: str = "") -> WrapValidator:
    """Replaces what the inner check says by "<what> is needed, got <value>".

    `limits` ("at least 1") is added when the value is a number, which then must be out of them.
    """

    verb = "are" if what.startswith(("two ", "three ")) else "is"

    def check(value: Any, inner: Callable[[Any], Any]) -> Any:
        try:
            return inner(value)
        except ValidationError:
            is_number = isinstance(value, int | float) and not isinstance(value, bool)
            wanted = f"{what} {limits}" if limits and is_number else what
            raise PydanticCustomError(
                "needs",
                "{wanted} {verb} needed, got {got}",
                {"wanted": wanted, "verb": verb, "got": shown(value)},
            ) from None

    return WrapValidator(check)


def number(what: str, kind: type = float, **limits: float) -> Any:
    """A finite number described by `what`, within `limits` (ge, gt, le, lt)."""
    words = {"ge": "at least", "gt": "above", "le": "at most", "lt": "below"}
    said = " and ".join(f"{words[limit]} {value:,}" for limit, value in limits.items())
    return Annotated[kind, Field(**limits), needs(what, said)]


def one_of(pick: Callable[[Any], str], what: str, **kinds: Any) -> Any:
    """A union of `kinds`; `pick` looks at the data and names the kind that is meant."""
    tagged = [Annotated[kind, Tag(f"({name})")] for name, kind in kinds.items()]
    return Annotated[
        Union[tuple(tagged)] if len(tagged) > 1 else tagged[0],  # noqa: UP007 - made at run time
        Discriminator(
            lambda data: f"({pick(data)})",
            custom_error_type="needs",
            custom_error_message=f"{what} is needed",
        ),
    ]


def kind_of(data: Any) -> str:
    """Names a part by its "kind", whether it is still plain data or already a model."""
    kind = data.get("kind") if isinstance(data, dict) else getattr(data, "kind", None)
    return str(kind)


MAX_NAME = 200
Name = Annotated[
    str, StringConstraints(max_length=MAX_NAME), needs(f"a text of at most {MAX_NAME} letters")
]
Identifier = Annotated[
    str,
    StringConstraints(pattern=r"^[A-Za-z][A-Za-z0-9_-]{0,39}$"),
    needs("an id (a letter, then letters, digits, - or _, 40 at most)"),
]
Color = Annotated[
    str,
    StringConstraints(pattern=r"^#[0-9A-Fa-f]{6}$"),
    needs('a colour as "#RRGGBB"'),
]
AxisTag = Annotated[str, Field(pattern=r"^[A-Za-z0-9]{4}$")]
AxisValue = number("a number", ge=-10_000, le=10_000)
Frames = number("a number of frames", ge=-1_000_000, le=1_000_000)
Pixels = number("a number of pixels", ge=-1_000_000, le=1_000_000)
Degrees = number("a number of degrees", ge=-1_000_000, le=1_000_000)
Percent = number("a number of percent", ge=-1_000_000, le=1_000_000)
Thousandths = number("a number of thousandths", ge=-10_000, le=10_000)
Factor = number("a factor", ge=-10_000, le=10_000)
Opacity = number("an opacity", ge=0, le=1)
Seed = number("a whole number", int, ge=0, le=2**32 - 1)
