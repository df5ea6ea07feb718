"""Colours: sRGB as "#RRGGBB" in files, OKLab wherever they are mixed.

OKLab and its matrices: Björn Ottosson, "A perceptual color space for image processing" (2020).
"""

import numpy as np

_LINEAR_TO_CONES = np.array(
    [
        [0.4122214708, 0.5363325363, 0.0514459929],
        [0.2119034982, 0.6806995451, 0.1073969566],
        [0.0883024619, 0.2817188376, 0.6299787005],
    ]
)
_CONES_TO_LAB = np.array(
    [
        [0.2104542553, 0.7936177850, -0.0040720468],
        [1.9779984951, -2.4285922050, 0.4505937099],
        [0.0259040371, 0.7827717662, -0.8086757660],
    ]
)
# Inverted here rather than typed off, so that there and back is exact to rounding.
_CONES_TO_LINEAR = np.linalg.inv(_LINEAR_TO_CONES)
_LAB_TO_CONES = np.linalg.inv(_CONES_TO_LAB)


def oklab(color: str) -> np.ndarray:
    """A colour "#RRGGBB" as OKLab, (3,): lightness 0..1, green to red, blue to yellow."""
    return _CONES_TO_LAB @ np.cbrt(_LINEAR_TO_CONES @ light_of(color))


def light_of(color: str) -> np.ndarray:
    """A colour "#RRGGBB" in linear light, (3,), 0..1."""
    return light_in(np.array([int(color[start : start + 2], 16) for start in (1, 3, 5)]) / 255)


def light_in(srgb: np.ndarray) -> np.ndarray:
    """Linear light of what sRGB codes, 0..1 (IEC 61966-2-1)."""
    light: np.ndarray = np.where(srgb <= 0.04045, srgb / 12.92, ((srgb + 0.055) / 1.055) ** 2.4)
    return light


def coded(light: np.ndarray) -> np.ndarray:
    """Linear light as sRGB codes it, 0..1."""
    srgb: np.ndarray = np.where(
        light <= 0.0031308, light * 12.92, 1.055 * light ** (1 / 2.4) - 0.055
    )
    return srgb


def srgb_bytes(lab: np.ndarray) -> np.ndarray:
    """OKLab (..., 3) as sRGB, new (..., 3) of uint8; what no screen shows is cut to what one does.

    Whole bytes come back unchanged from `oklab`.
    """
    linear = np.clip((lab @ _LAB_TO_CONES.T) ** 3 @ _CONES_TO_LINEAR.T, 0.0, 1.0)
    return np.round(coded(linear) * 255).astype(np.uint8)


def hex_of(lab: np.ndarray) -> str:
    """One OKLab colour (3,) as "#RRGGBB"."""
    return hex_of_bytes(srgb_bytes(lab))


def hex_of_bytes(srgb: np.ndarray) -> str:
    """One colour (3,) of bytes as "#RRGGBB"."""
    return f"#{srgb.tobytes().hex().upper()}"
