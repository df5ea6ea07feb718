"""The mean of several drawings in linear light: the blur of motion (model, section 9).

What covers what, and by how much, does not depend on the colours. So where few colours meet, the
samples are drawn in plain numbers with black, red, green and blue in their stead, as if they were
inks: the mean says how much is seen of each, and the colours are mixed of that in linear light.
Whatever else is drawn is drawn as always, and added up in linear light.
"""

from collections.abc import Callable, Iterator
from functools import lru_cache, partial, reduce
from itertools import compress
from typing import Any, NamedTuple

import cv2
import numpy as np
import skia
from scipy.optimize import nnls

from ...raster.pixel_buffer import PixelBuffer, Scale
from ...scene.values.colors import coded, light_of
from ..canvases.canvas import UNSEEN, DrawItem
from ..composing.item_boxes import boxes_of_items, meeting
from .linear_sum import LinearSum
from .shutter_samples import Samples, evened, needed_samples, some_of, where_they_jump
from .shutter_strips import strips_of

# Draws samples on a canvas that shows the place of a buffer, one more each time that it is asked.
DrawSamples = Callable[[PixelBuffer, Samples, skia.Canvas], Iterator[None]]
HexColor = str  # "#RRGGBB"
Mean = Callable[[PixelBuffer, Samples, DrawSamples], PixelBuffer]

_MANY = 6  # samples: of so many each may be a fraction of a pixel off
_LINEAR = [0, 1, 3, 4, 6, 7]  # the numbers of a matrix that do not just move
_MOST_PASSES = 2
# How far a mixture of inks may be from a colour, as these are coded and as bright as they look.
_NEAR = 2.5 / 255
_SEEN = np.sqrt([0.2126, 0.7152, 0.0722])  # of red, green and blue, by the luma of BT.709
_STEPS = 2**12  # of linear light, that are told apart


def mean_in_linear_light(
    buffer: PixelBuffer, samples: Samples, draw: DrawSamples, scale: Scale
) -> PixelBuffer:
    """An empty buffer, filled with the mean of what samples of items make, premultiplied. Where
    nothing moves the middle one is drawn, and elsewhere as many as look like all."""
    even = evened(where_they_jump(samples))
    if even is None:
        return _mean_for(_colors_of(samples))(buffer, samples, draw)
    matrices = np.array([[item.matrix for item in items] for items in even])
    needed = needed_samples(even, matrices, scale)
    boxes = boxes_of_items([item for items in even for item in items], scale)
    boxes = boxes.reshape(len(even), -1, 4)
    still = list(compress(even[len(even) // 2], (needed == 1).tolist()))
    # Of one item alone there is nothing to mix.
    is_alone = len(needed) == len(still) == 1
    make_mean = _mean_of_one_color if is_alone else _mean_for(_colors_of(even))
    mean = make_mean(buffer, [still], draw) if still else buffer
    even = _with_copies(even, matrices, needed > 1)
    for edges, count in strips_of(boxes, needed, buffer):
        chosen = some_of(len(even), count)
        near = [
            [item for item in compress(even[number], met) if item.opacity > 0]
            for number, met in zip(chosen, meeting(boxes[chosen], edges).tolist(), strict=True)
        ]
        mean.part(*edges)[:] = make_mean(PixelBuffer.empty(*edges), near, draw).pixels
    return mean


def _with_copies(samples: Samples, matrices: np.ndarray, is_moving: np.ndarray) -> Samples:
    """Samples whose items are copies where these just move: many alike, and a little apart."""
    if len(samples) < _MANY:
        return samples
    turns = np.ptp(matrices[..., _LINEAR], axis=0).max(axis=-1, initial=0) > UNSEEN
    # A sprite of a line that goes on, or of an outline that changes, would serve once.
    goes_on = [
        any((item.outline, item.line) != (every[0].outline, every[0].line) for item in every)
        for every in zip(*samples, strict=True)
    ]
    glides = (is_moving & ~turns & ~np.array(goes_on)).tolist()
    return [
        [
            item.as_copy() if just_moves else item
            for item, just_moves in zip(items, glides, strict=True)
        ]
        for items in samples
    ]


def _mean_for(colors: frozenset[HexColor] | None) -> Mean:
    """The quickest way to a mean in linear light of items of these colours."""
    if colors is not None and len(colors) <= 1:
        return _mean_of_one_color
    inks = _inks_for(colors) if colors is not None else None
    return partial(_mean_of_inks, inks) if inks else _linear_mean


def _mean_of_one_color(buffer: PixelBuffer, samples: Samples, draw: DrawSamples) -> PixelBuffer:
    # It keeps its colour, so the mean of plain numbers is the mean in linear light as well.
    total, count = _plain_sum(buffer, samples, draw)
    return buffer.like(cv2.convertScaleAbs(total, alpha=1 / count))


def _colors_of(samples: Samples) -> frozenset[HexColor] | None:
    """The colours of all items; None if some of these have more than plain colours."""
    found: set[Any] = set()
    for items in samples:
        for item in items:
            found.add(item.fill)
            found.add(item.line.color if item.line else item.fill)
    found.discard(None)
    return frozenset(found) if all(isinstance(color, str) for color in found) else None


def _plain_sum(buffer: PixelBuffer, samples: Samples, draw: DrawSamples) -> tuple[np.ndarray, int]:
    """The sum of the plain numbers, (height, width, 4), and of how many samples it is."""
    one = PixelBuffer.empty(buffer.left, buffer.top, buffer.right, buffer.bottom)
    drawing = draw(one, samples, one.canvas)
    if len(samples) == 1:
        next(drawing)
        return one.pixels, 1
    # Of whole numbers, which have room for 257 samples: four times as fast as with fractions.
    total = np.zeros(buffer.pixels.shape, dtype=np.uint16)
    for _ in drawing:
        np.add(total, one.pixels, out=total)
        one.pixels.fill(0)
    return total, len(samples)


class _Inks(NamedTuple):
    """Colours in linear light, from which others are mixed: (1 + 3 passes, 3). The first is printed
    as black, the others as red, green and blue of a pass each.

    primaries: what to print for each colour, in each pass
    """

    linear: np.ndarray
    primaries: tuple[dict[HexColor, HexColor], ...]


@lru_cache(maxsize=256)
def _inks_for(colors: frozenset[HexColor]) -> _Inks | None:
    """Inks from which all of these colours can be mixed; None if not a few passes do."""
    names = sorted(colors)
    light = np.array([light_of(name) for name in names])
    chosen = _farthest(light)
    while True:
        shares, far = _mixtures(light, light[chosen])
        if far.max() <= _NEAR:
            break
        if len(chosen) == 1 + 3 * _MOST_PASSES:
            return None
        chosen.append(int(np.argmax(far)))
    passes = max(1, -(-(len(chosen) - 1) // 3))
    linear = np.zeros((1 + 3 * passes, 3))
    linear[: len(chosen)] = light[chosen]
    printed = np.zeros((len(names), passes * 3), dtype=int)
    printed[:, : len(chosen) - 1] = np.round(shares[:, 1:] * 255)
    primaries = [
        {name: "#{:02X}{:02X}{:02X}".format(*row) for name, row in zip(names, each, strict=True)}
        for each in np.split(printed, passes, axis=1)
    ]
    return _Inks(linear, tuple(primaries))


def _farthest(light: np.ndarray) -> list[int]:
    """The numbers of up to three colours to begin with: the darkest, what is farthest from it, and
    what is farthest from the line between these."""
    # Shadows are black whatever colours letters have, so that sprites of them serve for long.
    chosen = [int(np.argmin(light.sum(axis=1)))]
    away = light - light[chosen[0]]
    for _ in range(2):
        far = np.linalg.norm(away, axis=1)
        farthest = int(np.argmax(far))
        if far[farthest] <= _NEAR:
            break
        chosen.append(farthest)
        along = away[farthest] / far[farthest]
        away = away - np.outer(away @ along, along)
    return chosen


def _mixtures(light: np.ndarray, inks: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """How much of each ink colours take, all in all one, and how far from them that is."""
    # The row of ones, weighed so much, makes the shares add up.
    weighed = np.vstack([inks.T, np.full(len(inks), 100.0)])
    shares = np.array([nnls(weighed, np.append(color, 100.0))[0] for color in light])
    return shares, np.linalg.norm((coded(shares @ inks) - coded(light)) * _SEEN, axis=1)


def _mean_of_inks(
    inks: _Inks, buffer: PixelBuffer, samples: Samples, draw: DrawSamples
) -> PixelBuffer:
    planes: list[np.ndarray] = []  # how much is seen of each ink but black, (height, width), summed
    for primaries in inks.primaries:
        printed = [[_printed(item, primaries) for item in items] for items in samples]
        total, count = _plain_sum(buffer, printed, draw)
        blue, green, red, alpha = cv2.split(total)
        planes += (red, green, blue)
    # As a rule much of it is a shadow, of which only the opacity needs to be worked out.
    black = (*coded(inks.linear[0])[::-1], 1)
    made = [cv2.convertScaleAbs(alpha, alpha=part / count) for part in black]
    is_mixed = reduce(cv2.max, planes) > 0
    opaque = alpha[is_mixed].astype(np.float32)
    shares = np.stack([plane[is_mixed] for plane in planes]) / opaque
    light = (inks.linear[1:] - inks.linear[0]).T.astype(np.float32) @ shares
    light += inks.linear[0][:, None].astype(np.float32)
    colors = np.take(_CODED, (light * _STEPS).astype(np.int16), mode="clip") * (opaque / count)
    for channel, plane in zip(made, colors[::-1], strict=False):
        channel[is_mixed] = plane + np.float32(0.5)
    return buffer.like(cv2.merge(made))


def _printed(item: DrawItem, primaries: dict[HexColor, HexColor]) -> DrawItem:
    """An item in the colours of a pass."""
    fill: str | None = item.fill  # type: ignore[assignment]  # _colors_of has seen to it
    line = item.line and item.line._replace(color=primaries[item.line.color])
    outline, matrix, _, opacity, _, *others = item
    return DrawItem(outline, matrix, fill and primaries[fill], opacity, line, *others)


_CODED = coded((np.arange(_STEPS) + 0.5) / _STEPS).astype(np.float32)


def _linear_mean(buffer: PixelBuffer, samples: Samples, draw: DrawSamples) -> PixelBuffer:
    """As right whatever is drawn, in a few times as long."""
    one = PixelBuffer.empty(buffer.left, buffer.top, buffer.right, buffer.bottom)
    drawing = draw(one, samples, one.canvas)
    if len(samples) == 1:
        next(drawing)
        return one
    total = LinearSum(one.pixels.shape, len(samples))
    for _ in drawing:
        total.add(one.pixels)
        one.pixels.fill(0)
    return buffer.like(total.mean())
