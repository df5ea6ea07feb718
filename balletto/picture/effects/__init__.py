"""Effects on what is drawn, each kind a module with a function: (buffer, values, scale) -> buffer.

`values` are those of balletto.scene.effects at the time, lengths in px of the scene's picture, of
which `scale` pixels in memory make one, across and down. A kind that reaches beyond what it is
given says so in MARGINS, in px of the picture: more than that is never needed from outside.
"""

from collections.abc import Callable
from typing import Any

from ..pixel_buffer import PixelBuffer, Scale
from .blur import blur
from .colors import hue, light, tint
from .directional_blurs import directional_blur, zoom_blur
from .glow import glow
from .outline import outline

Values = dict[str, Any]
EFFECTS: dict[str, Callable[[PixelBuffer, Values, Scale], PixelBuffer]] = {
    "blur": blur,
    "directional-blur": directional_blur,
    "zoom-blur": zoom_blur,
    "glow": glow,
    "outline": outline,
    "tint": tint,
    "hue": hue,
    "light": light,
}
MARGINS: dict[str, Callable[[Values], float]] = {
    "blur": lambda values: 3 * max(values["x"], values["y"]),
    "directional-blur": lambda values: values["length"] / 2,
    "glow": lambda values: 3 * values["radius"],
    "outline": lambda values: values["width"],
}


def margin_of(kind: str, values: Values) -> float:
    """How far an effect reaches, in px of the picture."""
    return MARGINS[kind](values) if kind in MARGINS else 0.0
