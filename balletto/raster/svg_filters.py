"""What is done to pixels, as SVG's `filter` says it: W3C Filter Effects 1."""

from collections.abc import Sequence


def number(value: float) -> str:
    """A number as SVG reads it, to six digits."""
    return f"{value:.6g}"


def color_matrix(rows: Sequence[Sequence[float]]) -> str:
    """Rows for red, green, blue and alpha, of five numbers each."""
    told = " ".join(number(each) for row in rows for each in row)
    return f'<feColorMatrix values="{told}"/>'


def gaussian_blur(x: float, y: float | None = None) -> str:
    """A blur by deviations across and down; by one both ways."""
    told = number(x) if y is None else f"{number(x)} {number(y)}"
    return f'<feGaussianBlur stdDeviation="{told}"/>'


def flooded(color: str) -> str:
    """All of what is there in one colour, as opaque as it was."""
    return f'<feFlood flood-color="{color}"/><feComposite in2="SourceAlpha" operator="in"/>'
