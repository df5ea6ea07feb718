"""Paces: how often something is new, as a number of times a second."""

from typing import Annotated

from pydantic import AfterValidator, Field
from pydantic_core import PydanticCustomError

from ..model import shown

_PACE = Field(json_schema_extra={"pattern": r"^[0-9.]+/s$"})


def times_a_second(pace: str) -> float:
    """9 of "9/s"."""
    return float(pace.removesuffix("/s"))


def _known_pace(text: str) -> str:
    """Ticks a second as "9/s"."""
    try:
        if not text.endswith("/s") or not 0 < times_a_second(text) <= 1000:
            raise ValueError
    except ValueError:
        raise PydanticCustomError(
            "needs",
            'a number of times a second as "9/s" is needed, got {got}',
            {"got": shown(text)},
        ) from None
    return text


Pace = Annotated[str, _PACE, AfterValidator(_known_pace)]
