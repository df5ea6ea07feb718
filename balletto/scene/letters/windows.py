"""Windows: the letters of a title are seen only within the boxes of their lines, of their words, of
themselves or of the title, as these stand at rest. The data only; balletto.picture draws them.

A window goes with its layer, but with no move: letters that rise come from behind an edge.
"""

from typing import Annotated, Any, Literal

from pydantic import Field

from ..model import Counts, Model, Number, one_of
from ..values import measures
from ..values.measures import Measure
from ..values.wording import Said, Wording

Growth = Annotated[float, Number("a number of pixels", Counts.LENGTH, ge=-10_000, le=10_000)]
Softness = Annotated[float, Number("a number of pixels", Counts.LENGTH, ge=0, le=10_000)]
_LIST = Field(strict=False)


def _kind(data: Any) -> str:
    return "each" if isinstance(data, list | tuple) else "all"


def _sides(of: Any) -> Any:
    """One number for all four sides, or one for each: left, above, right, below."""
    four = Annotated[tuple[of, of, of, of], _LIST]
    return one_of(_kind, "a number, or four for left, above, right and below,", all=of, each=four)


class Window(Model):
    """Each letter is seen within the box `of` its line, its word, itself or the title, grown
    outward by `grow`; at its edges it fades in straight over `soft` px inward."""

    of: Literal["line", "word", "unit", "title"] = "line"
    grow: _sides(Growth) = 0  # type: ignore[valid-type]
    soft: _sides(Softness) = 0  # type: ignore[valid-type]

    @property
    def grown(self) -> tuple[float, float, float, float]:
        """How far it is grown on the left, above, on the right and below."""
        return _four(self.grow)

    @property
    def softened(self) -> tuple[float, float, float, float]:
        """Over how much it fades there."""
        return _four(self.soft)


def _four(value: Any) -> Any:
    return value if isinstance(value, tuple) else (value,) * 4


_OF = (
    ("line", "its line"),
    ("word", "its word"),
    ("unit", "its own box"),
    ("title", "the title"),
)


def _each(what: str, measure: Measure) -> Said:
    """One number, or one for each side with its name."""
    sides = (
        ("left", "on the left"),
        ("above", "above"),
        ("right", "on the right"),
        ("below", "below"),
    )
    parts = tuple(Said(f"{what}, {side}", measure, 0, after=after) for side, after in sides)
    return Said(what, measure, 0, parts=parts, after="all round")


WINDOW = Wording(
    "Window",
    "Each letter is seen within {of}, soft by {soft}, and larger by {grow}.",
    {
        "of": Said("Box of the window", options=_OF),
        "soft": _each("Softness of the window", measures.LENGTH_PX),
        "grow": _each("Growth of the window", measures.PIXELS),
    },
)
