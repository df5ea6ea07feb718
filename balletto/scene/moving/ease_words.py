"""What eases are called in sentences, and how a name that is typed is read."""

import re
from typing import Any

from ..eases import EASE_KINDS, EASE_NAMES

EASES: list[tuple[Any, str]] = [
    *((name, name.replace("-", " ")) for name in EASE_NAMES),
    *((kind.start, kind.title) for kind in EASE_KINDS.values()),
]
TRACK_EASES: list[tuple[Any, str]] = [*EASES, ("auto", "no overshoot"), ("flow", "a round flow")]

# Other words for the same, as people type them.
_ALSO = {
    "even": "linear", "evenly": "linear", "straight": "linear", "flow": "flow",
    "windup": "wind-up", "soft": "soft-both", "smooth": "soft-both", "smoothly": "soft-both",
}  # fmt: skip
_PLAIN = re.compile(r"\d+(\.\d+)?")
_BEZIER = re.compile(r"(?:cubic-)?bezier\s*\(([^()]*)\)")


def read_ease(text: str) -> Any | None:
    """The ease of a name that is typed ("soft landing", "spring 0.3"); None if it is none."""
    name = re.sub(r"^(?:with|a|an)\s+", "", text.strip().lower())
    if found := _BEZIER.fullmatch(name):
        return _bezier(found[1])
    name = re.sub(r"[\s-]+", " ", name)
    for ease, said in TRACK_EASES:
        if name in (said, said.removeprefix("a ")) and not _is_curve(ease):
            return ease
    kind, _, number = name.partition(" ")
    if kind in EASE_KINDS and not EASE_KINDS[kind].is_drawn and _PLAIN.fullmatch(number):
        return {kind: type(EASE_KINDS[kind].start[kind])(float(number))}
    return _ALSO.get(name)


def _is_curve(ease: Any) -> bool:
    return isinstance(ease, dict) and any(EASE_KINDS[key].is_drawn for key in ease)


def _bezier(inside: str) -> Any | None:
    try:
        numbers = [float(part) for part in inside.split(",")]
    except ValueError:
        return None
    return {"bezier": numbers} if len(numbers) == 4 else None
