"""Samples of a picture in which a shutter is open, and how many of them look like all.

Letters that fly need every sample of a shutter, those that have nearly come to rest just a few, and
where nothing moves one is enough.
"""

from collections.abc import Sequence
from functools import lru_cache

import numpy as np

from ...raster.pixel_buffer import Scale
from ...scene.values.colors import light_of
from ..canvases.canvas import UNSEEN, DrawItem, DrawnLine

Samples = Sequence[Sequence[DrawItem]]

_NEXT = 2 / 3  # px: a smoothed edge is a px wide, so samples nearer than that look like a smear
# Of its deviation, for what is soft: so near to each other Gaussians add up to a smear without
# waves, whose deviation is right within a hundredth.
_SOFT_NEXT = 1 / 2
_FEWEST = 2
_HARDLY = 1 / 2  # of such a step: so far all samples together may be from the one in the middle
_SAME_LOOK = 1 / 128  # by which the mean of some samples may have another opacity or colour


def some_of(count: int, number: int) -> list[int]:
    """The numbers of so many of `count` samples, evenly among all."""
    return [int((each + 0.5) * count / number) for each in range(number)]


def where_they_jump(samples: Samples) -> Samples:
    """Samples in which what jumps stands where it stands in the middle one, so that it is seen once
    and whole: it goes along with what moves it, but is nowhere between two places."""
    middle = samples[len(samples) // 2]
    if not any(item.jumps for items in samples for item in items):
        return samples
    made = []
    for items in samples:
        glide = iter([item for item in items if not item.jumps])
        matrix = next((item.matrix for item in items if item.jumps), None)
        own = [
            (item._replace(matrix=matrix or item.matrix) if item.jumps else next(glide, None))
            for item in middle
        ]
        made.append([*filter(None, own), *glide])
    return made


def evened(samples: Samples) -> Samples | None:
    """Samples with as many items each, alike from sample to sample: what is not there in one is
    there without being seen. None, if that cannot be told."""
    most = max(samples, key=len)
    if all(len(items) == len(most) for items in samples):
        return samples
    found = [_evened(items, most) for items in samples]
    return None if None in found else found  # type: ignore[return-value]


def _evened(items: Sequence[DrawItem], most: Sequence[DrawItem]) -> Sequence[DrawItem] | None:
    left = iter(items)
    following = next(left, None)
    made = []
    for item in most:
        if following is not None and following.outline == item.outline:
            made.append(following)
            following = next(left, None)
        else:
            made.append(item._replace(opacity=0.0))
    return made if following is None else None


def needed_samples(samples: Samples, matrices: np.ndarray, scale: Scale) -> np.ndarray:
    """How many samples, evenly among all, look like all of them, for each item: what moves by two
    pixels while the shutter is open needs no sixteen, and what hardly moves just the one in the
    middle. All, if more than place, line and looks change, or the mean of the looks would be
    another: what appears at once while it is open. matrices: (samples, items, 9)"""
    count = len(samples)
    needed = needed_for(count * steps_of(samples, matrices, scale), count)
    looks = np.array([[look_of(item) for item in items] for items in samples])
    mean = looks.mean(axis=0)
    for number in set(needed.tolist()):
        few = looks[some_of(count, number)].mean(axis=0)
        needed[(needed == number) & (np.abs(few - mean).max(axis=1) > _SAME_LOOK)] = count
    for number, item in enumerate(samples[0]):
        if not all(differs_gradually(items[number], item) for items in samples[1:]):
            needed[number] = count
    return needed


def needed_for(way: np.ndarray, count: int) -> np.ndarray:
    """How many of so many samples look like all, of what goes a way in steps that look like a
    smear, while the shutter is open."""
    return np.where(way <= _HARDLY, 1, np.clip(np.ceil(way), _FEWEST, count)).astype(int)


def steps_of(samples: Samples, matrices: np.ndarray, scale: Scale) -> np.ndarray:
    """The longest steps that items make from sample to sample, (items,), as shares of one that
    looks like a smear; without end, for what comes to the camera."""
    extents = [item.outline.extent for item in samples[0]]
    corners = np.array(
        [[(x, y, 1.0) for x in extent[::2] for y in extent[1::2]] for extent in extents]
    )
    seen = np.einsum("snij,ncj->snci", matrices.reshape(*matrices.shape[:2], 3, 3), corners)
    depths = seen[..., 2:]
    places = seen[..., :2] / np.maximum(depths, UNSEEN) * (scale.across, scale.down)
    steps = np.linalg.norm(np.diff(places, axis=0), axis=-1).max(axis=(0, 2))
    blurs = np.array([[item.blur for item in items] for items in samples]).min(axis=0)
    a, b, c, d = np.moveaxis(matrices[..., [0, 1, 3, 4]], -1, 0)
    growth = np.sqrt(np.abs(a * d - b * c) * (scale.across * scale.down))
    changes = _steps_of_lines(samples) + _steps_of_outlines(samples)
    steps += growth.max(axis=0) * np.where(np.isinf(changes), 0, changes)
    steps[np.isinf(changes)] = np.inf
    steps[depths.min(axis=(0, 2, 3)) <= UNSEEN] = np.inf
    is_flat = (np.abs(matrices[..., 6:] - (0, 0, 1)) <= UNSEEN).all(axis=(0, 2))
    soft: np.ndarray = np.where(is_flat, blurs * growth.min(axis=0) * _SOFT_NEXT, 0)
    return steps / np.maximum(soft, _NEXT)


def _steps_of_lines(samples: Samples) -> np.ndarray:
    """How far lines go along their outlines, or to their sides, from sample to sample at the most,
    (items,), in px of the items."""
    steps = np.zeros(len(samples[0]))
    for number, item in enumerate(samples[0]):
        lines = [items[number].line for items in samples]
        numbers = [_numbers_of(line, item) for line in lines if line is not None]
        # Lines of other parts do not differ gradually.
        if len({len(each) for each in numbers}) == 1:
            steps[number] = np.abs(np.diff(numbers, axis=0)).max(initial=0.0)
    return steps


def _steps_of_outlines(samples: Samples) -> np.ndarray:
    """How far points of outlines go from sample to sample at the most, (items,), in px of the
    items; without end, where these are of another build."""
    steps = np.zeros(len(samples[0]))
    for number, every in enumerate(zip(*samples, strict=True)):
        outlines = [item.outline for item in every]
        if all(outline == outlines[0] for outline in outlines):
            continue
        if not all(outline.is_of_one_build(outlines[0]) for outline in outlines):
            steps[number] = np.inf
            continue
        ways = np.diff([outline.points for outline in outlines], axis=0)
        steps[number] = np.linalg.norm(ways, axis=-1).max(initial=0.0)
    return steps


def _numbers_of(line: DrawnLine, item: DrawItem) -> list[float]:
    """What may change gradually of a line, in px."""
    ends = [end for part in line.seen or () for end in part]
    length = item.outline.length if ends else 0.0
    return [line.width / 2, line.dashes[1] if line.dashes else 0.0, *(end * length for end in ends)]


def differs_gradually(item: DrawItem, other: DrawItem) -> bool:
    """Whether items only differ in place, outline, colour, softness and opacity, and in how far
    their lines go."""
    _, _, fill, _, line, _, is_copy, window, _, within, _ = item
    # Told field by field: there may be a thousand items, and each copy of one would tell.
    is_alike = (is_copy, window, within) == (other.is_copy, other.window, other.within)
    return (
        is_alike
        and (line == other.line or _are_of_one_kind(line, other.line))
        and (fill == other.fill or (type(fill) is str and type(other.fill) is str))
    )


def _are_of_one_kind(line: DrawnLine | None, other: DrawnLine | None) -> bool:
    if line is None or other is None:
        return False
    return (
        line._replace(width=other.width, seen=other.seen, dashes=other.dashes) == other
        and len(line.seen or ()) == len(other.seen or ())
        and (line.dashes or ((), 0))[0] == (other.dashes or ((), 0))[0]
    )


def look_of(item: DrawItem) -> tuple[float, ...]:
    """What changes gradually of an item besides its place, each number by how much it is seen."""
    light = _light_at_hand(item.fill) if isinstance(item.fill, str) else (0.0, 0.0, 0.0)
    return (item.opacity, item.filled, item.blur / 16, *light)


@lru_cache(maxsize=4096)
def _light_at_hand(color: str) -> tuple[float, ...]:
    return tuple(light_of(color).tolist())
