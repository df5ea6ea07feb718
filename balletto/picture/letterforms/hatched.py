"""What is drawn with strokes in place of its fill."""

from collections.abc import Callable, Sequence
from functools import lru_cache
from typing import Any, NamedTuple

from ...scene.document import Scene
from ...scene.effects.hatch import Hatch
from ...scene.layers import Layer
from ..canvases.canvas import DrawItem, DrawnLine
from ..composing.effect_values import one_color, plain_at, tick_at
from .hatching import HatchValues, Strokes, strokes_of
from .outlines import Commands


class Hatching(NamedTuple):
    """A hatching at a time: its strokes, their colour (None: that of the fill), and from which
    share of their length to which they are drawn."""

    strokes: HatchValues
    color: str | None
    first: float
    last: float

    @property
    def margin(self) -> float:
        """How far it reaches beyond outlines, in px of the layer."""
        strokes = self.strokes
        return 0.0 if strokes.overshoot <= 0 else strokes.overshoot + strokes.wobble + strokes.width


def hatching_at(scene: Scene, layer: Layer, time: float) -> Hatching | None:
    """The hatching of a layer; of several the first."""
    found = next((e for e in layer.effects if e.on and isinstance(e, Hatch)), None)
    if found is None:
        return None
    values = {
        name: plain_at(value, time)
        for name, value in found
        if name not in ("kind", "on", "style", "every", "seed") and value is not None
    }
    for name, (low, high) in found.limits.items():
        values[name] = min(max(values[name], low), high)
    color, first, last = (values.pop(name, None) for name in ("color", "first", "last"))
    tick = 0 if found.every is None else tick_at(scene, found.every, time)
    strokes = HatchValues(found.style, seed=found.seed, tick=tick, **values)
    return Hatching(strokes, color, first, last)


def hatched(
    items: Sequence[DrawItem],
    commands: Sequence[Commands],
    shares: Sequence[float],
    hatching: Hatching,
    prepare: Callable[[Commands], Any],
) -> list[list[DrawItem]]:
    """Items with strokes in place of their fills, each as one or two; `commands` are those of their
    outlines, of the strokes of each only a share is drawn."""
    every = iter(
        strokes_of(
            tuple(c for i, c in zip(items, commands, strict=True) if i.fill is not None),
            hatching.strokes,
        )
    )
    found = [None if item.fill is None else next(every) for item in items]
    whole = sum(strokes.length for strokes in found if strokes)
    first, last = sorted((hatching.first * whole, hatching.last * whole))
    passed = 0.0
    made = []
    for item, strokes, share in zip(items, found, shares, strict=True):
        if strokes is None:
            made.append([item])
            continue
        low = min(max(first - passed, 0.0), strokes.length)
        high = min(max(last - passed, 0.0), strokes.length)
        passed += strokes.length
        made.append(_hatched(item, strokes, low, low + (high - low) * share, hatching, prepare))
    return made


def _hatched(
    item: DrawItem,
    strokes: Strokes,
    first: float,
    last: float,
    hatching: Hatching,
    prepare: Callable[[Commands], Any],
) -> list[DrawItem]:
    items = [item._replace(fill=None)] if item.line else []
    width = hatching.strokes.width
    if first < last and width > 0 and item.filled > 0:
        is_whole = first <= 0 and last >= strokes.length
        drawn = _prepared(strokes, prepare) if is_whole else prepare(strokes.between(first, last))
        color = hatching.color or one_color(item)
        # The points of a stroke stand close: rounded corners would cost much and show nowhere.
        ends = "flat" if is_whole else "round"
        line = DrawnLine(width, color, ends, "cut", whole=True)
        within = None if hatching.strokes.overshoot > 0 else item.outline
        opacity = item.opacity * item.filled
        items.insert(
            0, item._replace(outline=drawn, fill=None, line=line, opacity=opacity, within=within)
        )
    return items


@lru_cache(maxsize=256)
def _prepared(strokes: Strokes, prepare: Callable[[Commands], Any]) -> Any:
    """All strokes of an outline, prepared once while they stay."""
    return prepare(strokes.between(0.0, strokes.length))
