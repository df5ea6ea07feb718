"""What is done to pixels, as SVG's `filter` says it: W3C Filter Effects 1."""

from collections.abc import Sequence

import numpy as np

# How colours turn round the grey axis: feColorMatrix, hueRotate and saturate.
_GREY = np.tile([0.213, 0.715, 0.072], (3, 1))
_COLOR = np.eye(3) - _GREY
_SIN = np.array([[-0.213, -0.715, 0.928], [0.143, 0.140, -0.283], [-0.787, 0.715, 0.072]])


def hues_turned(degrees: np.ndarray | float) -> np.ndarray:
    """Matrices (..., 3, 3) on red, green and blue that turn hues by degrees (...)."""
    angle = np.radians(degrees)[..., None, None]
    turned: np.ndarray = _GREY + np.cos(angle) * _COLOR + np.sin(angle) * _SIN
    return turned


def saturated(factor: np.ndarray | float) -> np.ndarray:
    """Matrices (..., 3, 3) on red, green and blue that make colours fuller, or at 0 grey."""
    fuller: np.ndarray = _GREY + np.asarray(factor)[..., None, None] * _COLOR
    return fuller


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
