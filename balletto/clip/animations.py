"""Animated pictures: GIF and WebP, written by Pillow."""

from collections.abc import Iterator
from fractions import Fraction
from pathlib import Path
from typing import Any

import numpy as np
from PIL import Image

from ..picture.stills import straight_rgba
from ..raster.pixel_buffer import Edges

_COLORS = 255  # of a palette; the last place is for what is transparent
_EXACT = 96  # of them the most frequent colours as they are, so that flat ones come back exactly
_MOST_SAMPLED = 400_000  # pixels from which a palette is made


def durations(rate: Fraction, step_ms: int) -> Iterator[int]:
    """Milliseconds of one frame after another in whole steps: each ends as near as can be to
    where it should, so that they add up."""
    shown, number = 0, 0
    while True:
        number += 1
        until = round(number * 1000 / rate / step_ms) * step_ms
        yield until - shown
        shown = until


class _AnimationWriter:
    """Collects frames as Pillow's images, and saves them all at the end."""

    kind: str
    step_ms: int

    def __init__(self, path: Path, rate: Fraction, loops: int):
        self._path, self._loops = path, loops
        self._durations = durations(rate, self.step_ms)
        self._images: list[Image.Image] = []
        self._shown_ms: list[int] = []

    def __enter__(self) -> Any:
        return self

    def __exit__(self, kind: type | None, *_: object) -> None:
        if kind is None and self._images:
            first, *rest = self._images
            first.save(
                self._path,
                self.kind,
                save_all=True,
                append_images=rest,
                duration=self._shown_ms,
                loop=self._loops,
                **self._options(),
            )

    def add(self, pixels: np.ndarray, changed: Edges | None = None) -> None:
        """Adds a frame."""
        self._images.append(self._image(pixels))
        self._shown_ms.append(next(self._durations))

    def _image(self, pixels: np.ndarray) -> Image.Image:
        raise NotImplementedError

    def _options(self) -> dict[str, Any]:
        raise NotImplementedError


class WebpWriter(_AnimationWriter):
    """An animated WebP; `quality` in percent, 100 without loss."""

    kind, step_ms = "WEBP", 1

    def __init__(self, path: Path, rate: Fraction, loops: int, quality: int):
        super().__init__(path, rate, loops)
        self._quality = quality

    def _image(self, pixels: np.ndarray) -> Image.Image:
        return Image.fromarray(straight_rgba(pixels))

    def _options(self) -> dict[str, Any]:
        return {"quality": self._quality, "lossless": self._quality == 100, "method": 3}


class GifWriter(_AnimationWriter):
    """A GIF with one palette for all frames, made from samples of them, and dithered to it.

    Its times are in hundredths of a second, and its pixels are there or not there at all.
    """

    kind, step_ms = "GIF", 10

    def __init__(self, path: Path, rate: Fraction, loops: int, samples: list[np.ndarray]):
        super().__init__(path, rate, loops)
        self._palette = Image.new("P", (1, 1))
        self._palette.putpalette(palette_of(samples).reshape(-1).tolist())

    def _image(self, pixels: np.ndarray) -> Image.Image:
        straight = straight_rgba(pixels)
        opaque = Image.fromarray(np.ascontiguousarray(straight[..., :3]))
        made = opaque.quantize(palette=self._palette, dither=Image.Dither.FLOYDSTEINBERG)
        is_clear = straight[..., 3] < 128
        if is_clear.any():
            indices = np.asarray(made).copy()
            indices[is_clear] = _COLORS
            clear = Image.fromarray(indices)
            clear.putpalette(made.getpalette() or [])
            clear.info["transparency"] = _COLORS
            return clear
        return made

    def _options(self) -> dict[str, Any]:
        has_clear = any("transparency" in image.info for image in self._images)
        clear = {"transparency": _COLORS, "disposal": 2} if has_clear else {}
        return {"optimize": False, **clear}


def palette_of(samples: list[np.ndarray]) -> np.ndarray:
    """255 colours (255, 3) for frames (BGRA premultiplied): all there are, if they are so few;
    else the most frequent ones, and a median cut of the others."""
    seen = [straight_rgba(pixels).reshape(-1, 4) for pixels in samples]
    pixels = np.concatenate(seen) if seen else np.zeros((1, 4), dtype=np.uint8)
    pixels = pixels[pixels[:, 3] >= 128][:, :3]
    pixels = pixels[:: max(1, len(pixels) // _MOST_SAMPLED)]
    found, counts = np.unique(pixels, axis=0, return_counts=True)
    found = found[np.argsort(-counts, kind="stable")]
    if len(found) > _COLORS:
        rest = Image.fromarray(found[None, _EXACT:].astype(np.uint8))
        cut = rest.quantize(_COLORS - _EXACT, method=Image.Quantize.MEDIANCUT).getpalette()
        found = np.concatenate([found[:_EXACT], np.array(cut, dtype=np.uint8).reshape(-1, 3)])
    palette = np.zeros((_COLORS, 3), dtype=np.uint8)
    palette[: len(found)] = found[:_COLORS]
    palette[len(found) :] = found[0] if len(found) else 0
    return palette
