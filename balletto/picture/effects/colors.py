"""Effects on colours, each a matrix on red, green, blue and alpha (not premultiplied)."""

from typing import Any

import numpy as np
import skia

from ..pane import Pane, Scale

_LUMA = np.array([0.2126, 0.7152, 0.0722])  # of BT.709
# How colours turn round the grey axis: W3C Filter Effects 1, feColorMatrix, hueRotate.
_GREY = np.tile([0.213, 0.715, 0.072], (3, 1))
_COS = np.eye(3) - _GREY
_SIN = np.array([[-0.213, -0.715, 0.928], [0.143, 0.140, -0.283], [-0.787, 0.715, 0.072]])


def _mixed(pane: Pane, linear: np.ndarray, plus: np.ndarray | float = 0.0) -> Pane:
    matrix = np.zeros((4, 5))
    matrix[:3, :3], matrix[:3, 4], matrix[3, 3] = linear, plus, 1
    return pane.filtered(skia.ColorFilters.Matrix(matrix.reshape(-1).tolist()))


def _rgb(color: str) -> np.ndarray:
    return np.array([int(color[at : at + 2], 16) for at in (1, 3, 5)]) / 255


def colored(pane: Pane, color: str) -> Pane:
    """All of a pane in one colour, as opaque as it was."""
    return _mixed(pane, np.zeros((3, 3)), _rgb(color))


def tint(pane: Pane, values: dict[str, Any], scale: Scale) -> Pane:
    """Toward `color` times the luma, `amount` percent of the way."""
    share = values["amount"] / 100
    return _mixed(pane, (1 - share) * np.eye(3) + share * np.outer(_rgb(values["color"]), _LUMA))


def hue(pane: Pane, values: dict[str, Any], scale: Scale) -> Pane:
    """Turned by `turn` degrees, at `saturation` percent."""
    angle = np.radians(values["turn"])
    full = values["saturation"] / 100
    turned = _GREY + np.cos(angle) * _COS + np.sin(angle) * _SIN
    saturated = _GREY + full * _COS
    return _mixed(pane, saturated @ turned)


def light(pane: Pane, values: dict[str, Any], scale: Scale) -> Pane:
    """`brightness` percent of what it was, then `contrast` percent of the distance from grey."""
    bright, contrast = values["brightness"] / 100, values["contrast"] / 100
    return _mixed(pane, bright * contrast * np.eye(3), 0.5 - 0.5 * contrast)
