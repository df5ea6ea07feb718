"""Fitting: a title set as large as rules let it: not wider than so much, in so many lines, at least
so large."""

import math
from collections.abc import Callable

from ..scene.layers.title import Title
from .families import Families
from .lines import SetLine, set_lines
from .units import is_blank

_STEPS = 12  # halvings: the size is found to a four thousandth of what it may change by


def fitted(title: Title, families: Families, characters: tuple[str, ...]) -> Title:
    """A title at the largest size, up to that of its style, at which it keeps the rules; at the
    least size, its lines broken, if it keeps them at none."""
    style = title.style
    if style.widest is None:
        return title
    widest, wrap = style.widest, style.widest if style.most_lines else style.wrap
    most = lines_allowed(title)

    def keeps(factor: float) -> bool:
        lines = set_lines(_sized(title, factor, wrap), families, characters)
        shown = [line for line in lines if any(not is_blank(cell.text) for cell in line.cells)]
        return len(shown) <= most and all(_width(line) <= widest + 1e-6 for line in shown)

    least = min(1.0, (style.least_size or 0.0) / style.size)
    if keeps(1.0):
        return _sized(title, 1.0, wrap)
    if least > 0 and not keeps(least):
        return _sized(title, least, widest)
    return _sized(title, _largest(least, keeps), wrap)


def lines_allowed(title: Title) -> float:
    """How many lines a title that fits may have: as many as are said, or typed; as many as it takes
    where these are broken at a width of their own."""
    typed = title.text.count("\n") + 1 if title.style.wrap is None else math.inf
    return title.style.most_lines or typed


def _largest(least: float, keeps: Callable[[float], bool]) -> float:
    """The largest factor from the least one to 1 that keeps the rules, as nearly as it is worth."""
    low, high = least, 1.0
    for _ in range(_STEPS):
        middle = (low + high) / 2
        low, high = (middle, high) if keeps(middle) else (low, middle)
    return low or high


def _sized(title: Title, factor: float, wrap: float | None) -> Title:
    """A title with all its sizes times a factor, its lines broken at a width."""

    def larger(size: float | None) -> float | None:
        return None if size is None else size * factor

    style = title.style.model_copy(update={"size": larger(title.style.size), "wrap": wrap})
    runs = tuple(
        run.model_copy(
            update={"style": run.style.model_copy(update={"size": larger(run.style.size)})}
        )
        for run in title.runs
    )
    return title.model_copy(update={"style": style, "runs": runs})


def _width(line: SetLine) -> float:
    """How wide a line is, without the white space at its ends."""
    cells = [line.cells[index] for index in line.order]
    seen = [cell for cell in cells if not is_blank(cell.text)]
    return max(cell.x + cell.advance for cell in seen) - min(cell.x for cell in seen)
