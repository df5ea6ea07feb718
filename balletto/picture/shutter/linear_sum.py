"""Adding up pictures in linear light, by tables: exact to less than a step of 8 bits."""

from functools import lru_cache

import cv2
import numpy as np

from ...scene.values.colors import coded, light_in

_UNIT = 4095  # what is fully bright, or opaque: 12 bits tell the darkest colours of 8 bits apart
_ROOM = 65535 // _UNIT  # pictures that can be added up in 16 bits


class LinearSum:
    """The sum of `count` pictures (height, width, 4) of uint8, BGRA premultiplied."""

    def __init__(self, shape: tuple[int, ...], count: int):
        self._count = count
        self._total = np.zeros(shape, dtype=np.uint16 if count <= _ROOM else np.uint32)
        self._light = np.empty(shape, dtype=np.uint16)

    def add(self, pixels: np.ndarray) -> None:
        """Adds one of the pictures."""
        alpha = cv2.extractChannel(pixels, 3)
        if alpha.min() == 255:
            cv2.LUT(pixels, _light_of_bytes()[-1], dst=self._light)
        else:
            # Of each number a table can be asked with the alpha that it is multiplied by.
            numbers = cv2.merge([pixels.reshape(-1, 1), cv2.merge([alpha] * 4).reshape(-1, 1)])
            table = _light_of_bytes().reshape(-1)
            cv2.LUT(numbers.view("<u2").reshape(pixels.shape), table, dst=self._light)
        np.add(self._total, self._light, out=self._total)

    def mean(self) -> np.ndarray:
        """The mean of all pictures, as new pixels of uint8, BGRA premultiplied."""
        total, count = self._total, self._count
        if count > _ROOM:
            total, count = (total * np.float32(_ROOM / count)).astype(np.uint16), _ROOM
        made: np.ndarray = cv2.LUT(total, _codes_of_sums(count))
        alpha = cv2.extractChannel(total, 3)
        made[..., 3] = cv2.convertScaleAbs(alpha, alpha=255 / (count * _UNIT))
        if alpha.min() < count * _UNIT:
            shines_through = (alpha > 0) & (made[..., 3] < 255)
            sums = total[shines_through].astype(np.float32)
            light = np.minimum(sums[:, :3] / sums[:, 3:], 1)
            colors = coded(light) * sums[:, 3:]
            made[shines_through, :3] = np.rint(colors * (255 / (count * _UNIT)))
        return made


@lru_cache(maxsize=1)
def _light_of_bytes() -> np.ndarray:
    """What light is in each number, premultiplied by each alpha, in units: (256 alphas, 256)."""
    opacity = np.arange(256)[:, None] / 255
    colors = np.minimum(np.arange(256) / np.maximum(np.arange(256)[:, None], 1), 1)
    return np.round(light_in(colors) * opacity * _UNIT).astype(np.uint16)


@lru_cache(maxsize=_ROOM)
def _codes_of_sums(count: int) -> np.ndarray:
    """What the sum of so many pictures is coded as, where it is opaque: (65536,)"""
    light = np.minimum(np.arange(65536) / (count * _UNIT), 1)
    return np.round(coded(light) * 255).astype(np.uint8)
