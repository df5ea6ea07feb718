"""Effects on colours, each a matrix on red, green, blue and alpha (not premultiplied)."""

from collections.abc import Callable
from typing import Any

import numpy as np
import skia

from ..pixel_buffer import PixelBuffer, Scale

# A matrix (3, 3) on red, green and blue, and what is added to all of them.
Mixing = tuple[np.ndarray, float]
_LUMA = np.array([0.2126, 0.7152, 0.0722])  # of BT.709
# How colours turn round the grey axis: W3C Filter Effects 1, feColorMatrix, hueRotate.
_GREY = np.tile([0.213, 0.715, 0.072], (3, 1))
_COS = np.eye(3) - _GREY
_SIN = np.array([[-0.213, -0.715, 0.928], [0.143, 0.140, -0.283], [-0.787, 0.715, 0.072]])


def _mixed(buffer: PixelBuffer, linear: np.ndarray, plus: np.ndarray | float = 0.0) -> PixelBuffer:
    matrix = np.zeros((4, 5))
    matrix[:3, :3], matrix[:3, 4], matrix[3, 3] = linear, plus, 1
    return buffer.filtered(skia.ColorFilters.Matrix(matrix.reshape(-1).tolist()))


def _rgb(color: str) -> np.ndarray:
    return np.array([int(color[at : at + 2], 16) for at in (1, 3, 5)]) / 255


def colored(buffer: PixelBuffer, color: str) -> PixelBuffer:
    """All of a buffer in one colour, as opaque as it was."""
    return _mixed(buffer, np.zeros((3, 3)), _rgb(color))


def tint_matrix(values: dict[str, Any]) -> Mixing:
    """Toward `color` times the luma, `amount` percent of the way."""
    share = values["amount"] / 100
    return (1 - share) * np.eye(3) + share * np.outer(_rgb(values["color"]), _LUMA), 0.0


def hue_matrix(values: dict[str, Any]) -> Mixing:
    """Turned by `turn` degrees, at `saturation` percent."""
    angle = np.radians(values["turn"])
    full = values["saturation"] / 100
    turned = _GREY + np.cos(angle) * _COS + np.sin(angle) * _SIN
    saturated = _GREY + full * _COS
    return saturated @ turned, 0.0


def light_matrix(values: dict[str, Any]) -> Mixing:
    """`brightness` percent of what it was, then `contrast` percent of the distance from grey."""
    bright, contrast = values["brightness"] / 100, values["contrast"] / 100
    return bright * contrast * np.eye(3), 0.5 - 0.5 * contrast


# How each kind mixes red, green and blue.
MATRICES: dict[str, Callable[[dict[str, Any]], Mixing]] = {
    "tint": tint_matrix,
    "hue": hue_matrix,
    "light": light_matrix,
}


def tint(buffer: PixelBuffer, values: dict[str, Any], scale: Scale) -> PixelBuffer:
    """See tint_matrix."""
    return _mixed(buffer, *tint_matrix(values))


def hue(buffer: PixelBuffer, values: dict[str, Any], scale: Scale) -> PixelBuffer:
    """See hue_matrix."""
    return _mixed(buffer, *hue_matrix(values))


def light(buffer: PixelBuffer, values: dict[str, Any], scale: Scale) -> PixelBuffer:
    """See light_matrix."""
    return _mixed(buffer, *light_matrix(values))
