"""The parts of a layer that have sentences of their own, as text: effects, masks, a window, an open
shutter."""

from ...scene.effects import Effect
from ...scene.letters.windows import WINDOW, Window
from ...scene.masks import Mask
from ...scene.moving.motion_blur import SHUTTER, MotionBlur
from ..language.letters import quoted
from ..moves.wording import OFF
from .parts import say_part
from .texts import text_of

DRAWN_AS = "drawn as {}"


def effect_text(effect: Effect) -> str:
    """An effect as plain text."""
    return _switched(text_of(say_part("", effect, effect.said)), effect.on)


def mask_text(mask: Mask) -> str:
    """A mask as plain text, with its path where it has one."""
    text = text_of(say_part("", mask, mask.wording))
    path = getattr(mask, "path", None)
    if path:
        text = f"{text.removesuffix('.')}, {DRAWN_AS.format(quoted(path))}."
    return _switched(text, mask.on)


def window_text(window: Window) -> str:
    """A window as plain text."""
    return text_of(say_part("", window, WINDOW))


def shutter_text(shutter: MotionBlur) -> str:
    """An open shutter as plain text."""
    return _switched(text_of(say_part("", shutter, SHUTTER)), shutter.on)


def _switched(text: str, on: bool) -> str:
    return text if on else f"{text.removesuffix('.')}, {OFF}."
