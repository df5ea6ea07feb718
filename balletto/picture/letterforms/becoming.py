"""Letters on their way to other letters: their outlines and fills."""

from collections.abc import Sequence
from functools import lru_cache
from typing import Any

import numpy as np

from ...lettering.layout import Layout
from ...motion.becoming import Ways
from ...scene.values.colors import hex_of, oklab
from .appearance import plain_fills
from .outlines import Commands, of_glyphs
from .passages import partners, passage


def becoming(layout: Layout, ways: Ways, row: int, own: Sequence[Commands]) -> list[Commands]:
    """The outlines of all letters of a title at one of the times of its ways; `own` are those that
    it has by itself. Those that are not on their way yet are these very ones."""
    count = len(own)
    legs, shares = ways.leg[row].tolist(), ways.share[row].tolist()
    found = []
    for number, (leg, share) in enumerate(zip(legs, shares, strict=True)):
        if not leg and not share:
            found.append(own[number])
            continue
        starts = _letters_of(ways, leg - 1, count, number) if leg else (own[number],)
        ends = _letters_of(ways, leg, count, number)
        is_over = share == 1.0 and not _is_first(ways.targets[leg], count, number)
        if is_over and _is_first_there(ways, leg, row, count, number):
            found.append(())  # several letters have become one, which is drawn once
        else:
            found.append(passage(starts, ends).at(share))
    return found


def middles_on_the_way(layout: Layout, ways: Ways) -> np.ndarray:
    """The middles of letters between those of their own boxes and of those of the letters that they
    become, (times, characters, 2)."""
    own = layout.centers["character"]
    places = [own]
    for target in ways.targets:
        centers = target.centers["character"]
        those = _partners(len(own), len(centers))
        found = [
            centers[list(each)].mean(axis=0) if each else at
            for each, at in zip(those, own, strict=True)
        ]
        places.append(np.array(found).reshape(-1, 2))
    every, letters = np.stack(places), np.arange(len(own))
    start, end = every[ways.leg, letters], every[ways.leg + 1, letters]
    return start + (end - start) * ways.share[..., None]


@lru_cache(maxsize=256)
def _partners(count: int, others: int) -> tuple[tuple[int, ...], ...]:
    """For each of `count` letters those of the others that it becomes."""
    found: list[list[int]] = [[] for _ in range(count)]
    for here, there in partners(count, others):
        found[here].append(there)
    return tuple(map(tuple, found))


def _letters_of(ways: Ways, target: int, count: int, number: int) -> tuple[Commands, ...]:
    """The outlines of a target that one of `count` letters becomes."""
    outlines = _outlines_of(ways.targets[target])
    return tuple(outlines[there] for there in _partners(count, len(outlines))[number])


def _is_first(target: Layout, count: int, number: int) -> bool:
    """Whether no letter before it becomes the same one."""
    those = _partners(count, len(target.characters))
    return not number or those[number] != those[number - 1]


def _is_first_there(ways: Ways, leg: int, row: int, count: int, number: int) -> bool:
    """Whether the first of those that become the same letter has become it."""
    first = number
    while not _is_first(ways.targets[leg], count, first):
        first -= 1
    return bool(ways.leg[row, first] == leg and ways.share[row, first] == 1.0)


@lru_cache(maxsize=64)
def _outlines_of(layout: Layout) -> tuple[Commands, ...]:
    return tuple(of_glyphs(character.glyphs) for character in layout.characters)


def fills_on_the_way(layout: Layout, ways: Ways, row: int, fills: list[Any]) -> list[Any]:
    """The fills of letters, mixed in OKLab with those of the letters that they become, where both
    are plain colours."""
    count = len(fills)
    found = list(fills)
    for number in range(count):
        leg, share = int(ways.leg[row, number]), float(ways.share[row, number])
        if not leg and share <= 0:
            continue
        before = _fill_of(ways, leg - 1, count, number) if leg else fills[number]
        after = _fill_of(ways, leg, count, number)
        found[number] = _mixed(before, after, min(max(share, 0.0), 1.0))
    return found


def _fill_of(ways: Ways, target: int, count: int, number: int) -> Any:
    fills = plain_fills(ways.targets[target])
    those = _partners(count, len(fills))[number]
    return fills[those[0]] if those else None


def _mixed(before: Any, after: Any, share: float) -> Any:
    if before == after or share <= 0:
        return before
    if share >= 1:
        return after
    if not isinstance(before, str) or not isinstance(after, str):
        return before if share < 0.5 else after
    return hex_of((1 - share) * oklab(before) + share * oklab(after))
