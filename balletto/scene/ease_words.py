"""What eases are called in sentences, and how a name that is typed is read."""

import re
from typing import Any

from .eases import EASE_NAMES

EASES: list[tuple[Any, str]] = [
    *((name, name.replace("-", " ")) for name in EASE_NAMES),
    ({"spring": 0.4}, "spring"),
    ({"bounce": 3}, "bounce"),
    ({"steps": 4}, "steps"),
    ({"bezier": [0.3, 0, 0.3, 1]}, "a curve of its own"),
    ({"points": [[0, 0], [0.5, 0.8], [1, 1]]}, "straight pieces"),
]
TRACK_EASES: list[tuple[Any, str]] = [*EASES, ("auto", "no overshoot"), ("flow", "a round flow")]

# Other words for the same, as people type them.
_ALSO = {
    "even": "linear", "evenly": "linear", "straight": "linear", "flow": "flow",
    "windup": "wind-up", "soft": "soft-both", "smooth": "soft-both", "smoothly": "soft-both",
}  # fmt: skip
_NUMBERED = {"spring": float, "bounce": int, "steps": int}
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
    if kind in _NUMBERED and re.fullmatch(r"\d+(\.\d+)?", number):
        value = float(number)
        return {kind: value if _NUMBERED[kind] is float else int(value)}
    return _ALSO.get(name)


def _is_curve(ease: Any) -> bool:
    return isinstance(ease, dict) and bool({"bezier", "points"} & set(ease))


def _bezier(inside: str) -> Any | None:
    try:
        numbers = [float(part) for part in inside.split(",")]
    except ValueError:
        return None
    return {"bezier": numbers} if len(numbers) == 4 else None
