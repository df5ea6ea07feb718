"""Effects at a time: those of a layer that are on, with their values, and those among them that
are drawn with its letters."""

from typing import Any, NamedTuple

import numpy as np

from ..scene.colors import hex_of
from ..scene.document import Scene
from ..scene.effects import Displace, Effect, Shadow, Trail
from ..scene.layers import Layer
from ..scene.tracks import is_color, value_at
from .bitmaps import Photo
from .canvas import Gradient, Letter, Line, Matrix, Step

_FAINTEST = 0.5 / 255  # what is less opaque changes no pixel

# What is drawn with the letters, not done to the picture of them.
DRAWN_WITH_LETTERS = (Shadow, Trail, Displace)


def steps_of(layer: Layer, frame: float, size: tuple[int, int]) -> tuple[Step, ...]:
    """The effects on the picture of a layer, in a frame of a scene of that size."""
    on = [each for each in layer.effects if each.on and not isinstance(each, DRAWN_WITH_LETTERS)]
    return tuple(Step(effect.kind, _in_px(values_of(effect, frame), effect, size)) for effect in on)


def values_of(effect: Effect, frame: float) -> dict[str, Any]:
    """All that an effect says, at a frame."""
    at = np.array(float(frame))
    values = {
        name: value if isinstance(value, bool | None) else _plain(value, at)
        for name, value in effect
        if name not in ("kind", "on")
    }
    for name, (low, high) in effect.limits.items():
        values[name] = min(max(values[name], low), high)
    return values


def _plain(value: Any, at: np.ndarray) -> Any:
    if is_color(value):
        return value if isinstance(value, str) else hex_of(value_at(value, at))
    return float(value_at(value, at))


def _in_px(
    values: dict[str, Any], effect: Effect, size: tuple[int, int]
) -> tuple[tuple[str, Any], ...]:
    """Values in order; a point in percent of the picture becomes one in px."""
    if effect.kind == "zoom-blur":
        values = {
            **values,
            "x": values["x"] / 100 * size[0],
            "y": values["y"] / 100 * size[1],
        }
    return tuple(values.items())


def _enlargement(matrix: Matrix) -> float:
    """How many px of the picture one of a letter's own space is, taken across and down together."""
    a, b, _, c, d, _, _, _, depth = matrix
    return max(float(np.sqrt(abs(a * d - b * c))) / max(abs(depth), 1e-6), 1e-3)


class Cast(NamedTuple):
    """A shadow at a time."""

    x: float
    y: float
    softness: float
    color: str
    opacity: float

    def of(self, letter: Letter) -> Letter:
        """What a letter casts: as opaque as it is, times the shadow's own opacity."""
        matrix = list(letter.matrix)
        for row, by in ((0, self.x), (1, self.y)):
            for column in range(3):
                matrix[3 * row + column] += by * letter.matrix[6 + column]
        line = letter.line
        return Letter(
            letter.outline,
            matrix,
            self._fill(letter.fill),
            letter.opacity * self.opacity,
            line and line._replace(color=self.color),
            float(np.hypot(letter.blur, self.softness / _enlargement(letter.matrix))),
        )

    def _fill(self, fill: Any) -> Any:
        """A shadow has one colour, and the form of what casts it."""
        if isinstance(fill, Photo):
            return Photo(fill.bitmap, fill.box, self.color)
        return None if fill is None else self.color

    @property
    def reach(self) -> float:
        """How far beyond a letter it falls, in px."""
        return max(abs(self.x), abs(self.y)) + 3 * self.softness


def cast_of(layer: Layer, frame: float) -> Cast | None:
    """The shadow of the letters of a layer; of several the first."""
    found = next((e for e in layer.effects if e.on and isinstance(e, Shadow)), None)
    return found and Cast(**values_of(found, frame))


def with_shadows(
    letters: list[Letter], cast: Cast | None, shares: list[float] | None = None
) -> list[Letter]:
    """Each letter after its shadow, which so falls on the letters before it; of the shadow of each
    only a share is left."""
    if cast is None:
        return letters
    shares = shares or [1.0] * len(letters)
    return [
        each
        for letter, share in zip(letters, shares, strict=True)
        for each in (cast._replace(opacity=cast.opacity * share).of(letter), letter)
    ]


def trail_of(layer: Layer) -> Trail | None:
    """The trail of a layer; of several the first."""
    return next((e for e in layer.effects if e.on and isinstance(e, Trail)), None)


class Push(NamedTuple):
    """How outlines are displaced at a time: what `outlines.displaced` takes."""

    size: float
    amount: float
    seed: int
    tick: int


def push_of(scene: Scene, layer: Layer, time: float, is_moved: bool = False) -> Push | None:
    """The displacement of the outlines of a layer; of several the first. Where only moves displace
    them, in bumps and at a pace that are usual, by nothing more."""
    found = next((e for e in layer.effects if e.on and isinstance(e, Displace)), None)
    if found is None and is_moved:
        found = Displace(kind="displace", amount=0)
    if found is None:
        return None
    at = np.array(time)
    pace = float(found.every.removesuffix("/s")) / float(scene.frames_a_second)
    # A hair before a tick counts as on it, as for the jitter of moves.
    tick = int(np.floor(time * pace + 1e-9)) + 1
    size, amount = float(value_at(found.size, at)), float(value_at(found.amount, at))
    return Push(size, amount, found.seed, tick)


def as_copies(letters: list[Letter], width: float) -> list[Letter]:
    """Letters as copies in a trail, with a width as outlines alone; those too faint to see go."""
    seen = [letter for letter in letters if letter.opacity >= _FAINTEST]
    if not width:
        return [letter._replace(is_copy=True) for letter in seen]
    return [
        letter._replace(fill=None, line=Line(width, _one_color(letter)), is_copy=True)
        for letter in seen
    ]


def _one_color(letter: Letter) -> str:
    """What colour stands for a letter: that of its fill, or the first of a gradient."""
    if isinstance(letter.fill, str):
        return letter.fill
    return letter.fill.colors[0] if isinstance(letter.fill, Gradient) else "#FFFFFF"
