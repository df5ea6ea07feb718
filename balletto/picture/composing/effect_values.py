"""Effects at a time: those of a layer that are on, with their values, and those among them that
are drawn with its letters."""

import math
from typing import Any, NamedTuple

import numpy as np

from ...scene.document import Scene
from ...scene.effects import Effect
from ...scene.effects.displace import Displace
from ...scene.effects.shadow import Shadow
from ...scene.effects.trail import Trail
from ...scene.layers import Layer
from ...scene.values.colors import hex_of
from ...scene.values.pace import times_a_second
from ...scene.values.tracks import changes_over_time, is_color, value_at
from ..canvases.canvas import DrawItem, DrawnLine, EffectValues, Gradient, Matrix
from ..pixels.bitmaps import Photo

_FAINTEST = 0.5 / 255  # what is less opaque changes no pixel


def effects_at(layer: Layer, frame: float, size: tuple[int, int]) -> tuple[EffectValues, ...]:
    """The effects on the picture of a layer, in a frame of a scene of that size."""
    on = [each for each in layer.effects if each.on and each.works_on == "picture"]
    values = [effect.in_px(values_of(effect, frame), size) for effect in on]
    return tuple(
        EffectValues(effect.kind, tuple(each.items()))
        for effect, each in zip(on, values, strict=True)
    )


def values_of(effect: Effect, frame: float) -> dict[str, Any]:
    """All that an effect says, at a frame."""
    values: dict[str, Any] = {
        name: value if isinstance(value, bool | None) else plain_at(value, frame)
        for name, value in effect
        if name not in ("kind", "on")
    }
    for name, (low, high) in effect.limits.items():
        values[name] = min(max(values[name], low), high)
    return values


def plain_at(value: Any, frame: float) -> Any:
    """A number or a colour ("#RRGGBB") at a frame."""
    if isinstance(value, float | int):
        return float(value)
    at = np.array(float(frame))
    if is_color(value):
        return value if isinstance(value, str) else hex_of(value_at(value, at))
    return float(value_at(value, at))


def plain_over(value: Any, times: np.ndarray) -> list[Any]:
    """The same at each of some times, worked out together."""
    if not changes_over_time(value):
        return [plain_at(value, 0.0)] * len(times)
    values = value_at(value, times)
    return [hex_of(row) for row in values] if is_color(value) else values.tolist()


def _enlargement(matrix: Matrix) -> float:
    """How many px of the picture one of an item's own space is, taken across and down together."""
    a, b, _, c, d, _, _, _, depth = matrix
    return max(math.sqrt(abs(a * d - b * c)) / max(abs(depth), 1e-6), 1e-3)


class ShadowValues(NamedTuple):
    """A shadow at a time."""

    x: float
    y: float
    softness: float
    color: str
    opacity: float

    def of(self, item: DrawItem) -> DrawItem:
        """What an item casts: as opaque as it is, times the shadow's own opacity."""
        matrix = list(item.matrix)
        for row, by in ((0, self.x), (1, self.y)):
            for column in range(3):
                matrix[3 * row + column] += by * item.matrix[6 + column]
        line = item.line
        return item._replace(
            matrix=matrix,
            fill=self._fill(item.fill),
            opacity=item.opacity * self.opacity,
            line=line and line._replace(color=self.color),
            blur=math.hypot(item.blur, self.softness / _enlargement(item.matrix)),
            is_copy=False,
        )

    def _fill(self, fill: Any) -> Any:
        """A shadow has one colour, and the form of what casts it."""
        if isinstance(fill, Photo):
            return Photo(fill.bitmap, fill.box, self.color)
        return None if fill is None else self.color

    @property
    def margin(self) -> float:
        """How far beyond an item it falls, in px."""
        return max(abs(self.x), abs(self.y)) + 3 * self.softness


def shadow_at(layer: Layer, frame: float) -> ShadowValues | None:
    """The shadow of the letters of a layer; of several the first."""
    found = next((e for e in layer.effects if e.on and isinstance(e, Shadow)), None)
    return ShadowValues(**values_of(found, frame)) if found else None


def with_shadows(
    items: list[DrawItem], shadow: ShadowValues | None, shares: list[float] | None = None
) -> list[DrawItem]:
    """Each item after its shadow, which so falls on the items before it; of the shadow of each
    only a share is left."""
    if shadow is None:
        return items
    if shares is None or all(share == 1 for share in shares):
        return [each for item in items for each in (shadow.of(item), item)]
    return [
        each
        for item, share in zip(items, shares, strict=True)
        for each in (shadow._replace(opacity=shadow.opacity * share).of(item), item)
    ]


def trail_of(layer: Layer) -> Trail | None:
    """The trail of a layer; of several the first."""
    return next((e for e in layer.effects if e.on and isinstance(e, Trail)), None)


class DisplacementValues(NamedTuple):
    """How outlines are displaced at a time: what `outlines.displaced` takes."""

    size: float
    amount: float
    seed: int
    tick: int


def displacement_at(
    scene: Scene, layer: Layer, time: float, is_moved: bool = False
) -> DisplacementValues | None:
    """The displacement of the outlines of a layer; of several the first. Where only moves displace
    them, in bumps and at a pace that are usual, by nothing more."""
    found = next((e for e in layer.effects if e.on and isinstance(e, Displace)), None)
    if found is None and is_moved:
        found = Displace(kind="displace", amount=0)
    if found is None:
        return None
    at = np.array(time)
    tick = tick_at(scene, found.every, time)
    size, amount = float(value_at(found.size, at)), float(value_at(found.amount, at))
    return DisplacementValues(size, amount, found.seed, tick)


def tick_at(scene: Scene, pace: str, time: float) -> int:
    """How many times something that is new at a pace has been so, with the first."""
    # A hair before a tick counts as on it, as for the jitter of moves.
    return int(np.floor(time * times_a_second(pace) / float(scene.frames_a_second) + 1e-9)) + 1


def as_copies(items: list[DrawItem], width: float) -> list[DrawItem]:
    """Items as copies in a trail, with a width as outlines alone; those too faint to see go."""
    seen = [item for item in items if item.opacity >= _FAINTEST]
    if not width:
        return [item if item.is_copy else item.as_copy() for item in seen]
    return [
        item._replace(fill=None, line=DrawnLine(width, one_color(item)), is_copy=True)
        for item in seen
    ]


def one_color(item: DrawItem) -> str:
    """What colour stands for an item: that of its fill, or the first of a gradient."""
    if item.fill is None and item.line is not None:
        return item.line.color
    if isinstance(item.fill, str):
        return item.fill
    return item.fill.colors[0] if isinstance(item.fill, Gradient) else "#FFFFFF"


_DISPLACEMENT_DIGITS = 1  # of px, by which outlines that moves displace are told apart


def further(displacement: DisplacementValues | None, by: float) -> DisplacementValues | None:
    """A displacement that is so much stronger; None if it displaces nothing."""
    if displacement is None:
        return None
    amount = round(displacement.amount + by, _DISPLACEMENT_DIGITS)
    return displacement._replace(amount=amount) if amount else None
