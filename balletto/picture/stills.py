"""Frames as picture files: PNG to keep, JPEG, PNG and WebP for the page."""

import io

import numpy as np
import simplejpeg
from PIL import Image


def png(pixels: np.ndarray, compression: int = 6) -> bytes:
    """A PNG with straight alpha of pixels (height, width, 4), BGRA premultiplied."""
    image = Image.fromarray(straight_rgba(pixels))
    file = io.BytesIO()
    if (pixels[..., 3] == 255).all():
        image = image.convert("RGB")
    image.save(file, "PNG", compress_level=compression)
    return file.getvalue()


def jpeg(pixels: np.ndarray, quality: int = 85) -> bytes:
    """A JPEG of opaque pixels (height, width, 4), BGRA."""
    return simplejpeg.encode_jpeg(
        np.ascontiguousarray(pixels), quality, colorspace="BGRA", colorsubsampling="444"
    )


def thumbnail(pixels: np.ndarray, side: int) -> bytes:
    """A WebP of pixels (height, width, 4), BGRA premultiplied, at most `side` px either way."""
    image = Image.fromarray(straight_rgba(pixels))
    image.thumbnail((side, side))
    file = io.BytesIO()
    image.save(file, "WEBP")
    return file.getvalue()


def straight_bgra(pixels: np.ndarray) -> np.ndarray:
    """Pixels (height, width, 4), BGRA premultiplied, as new ones with straight alpha."""
    return np.ascontiguousarray(straight_rgba(pixels)[..., [2, 1, 0, 3]])


def straight_rgba(pixels: np.ndarray) -> np.ndarray:
    """Pixels (height, width, 4), BGRA premultiplied, as new RGBA ones with straight alpha."""
    alpha = pixels[..., 3:].astype(np.uint16)
    color = pixels[..., 2::-1].astype(np.uint16)
    straight = (color * 255 + alpha // 2) // np.maximum(alpha, 1)
    return np.concatenate([np.minimum(straight, 255), alpha], axis=-1).astype(np.uint8)
