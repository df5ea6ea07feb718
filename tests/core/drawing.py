"""Drawing a few items on a small picture, and how near one is to another."""

import numpy as np

from balletto.picture.canvases.canvas import DrawItem
from balletto.picture.canvases.skia_canvas import SkiaCanvas
from balletto.picture.composing.compositing import CompositeNode, draw_node
from balletto.scene.forms.primitives import ellipse

SIZE = (480, 270)
NEAR_DB = 45


def psnr(one: np.ndarray, other: np.ndarray) -> float:
    """Peak signal to noise, in dB."""
    error = np.mean((one.astype(float) - other) ** 2)
    return float("inf") if error == 0 else float(10 * np.log10(255**2 / error))


def placed(across: float, down: float, turn: float = 0.0, size: float = 1.0) -> list[float]:
    """A matrix that turns, scales and moves."""
    a, b = size * np.cos(np.radians(turn)), size * np.sin(np.radians(turn))
    return [float(a), float(-b), across, float(b), float(a), down, 0.0, 0.0, 1.0]


def drawn(*items: DrawItem, samples: int = 1, **more: object) -> np.ndarray:
    """Items on a blue picture; several samples of one item each are averaged."""
    canvas = SkiaCanvas(*SIZE)
    canvas.clear("#204080")
    each = tuple([item] for item in items) if samples > 1 else (list(items),)
    draw_node(canvas, CompositeNode(each, **more))
    return canvas.pixels.copy()


def star(width: float = 90, height: float = 60) -> object:
    return SkiaCanvas.outline(ellipse(width, height))
