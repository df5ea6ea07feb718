"""The bitmaps that a process keeps, all together no more bytes than it may.

Pictures from files, frames of videos and nested scenes are asked for again and again; what was
asked for last stays, whatever it is of.
"""

import threading
from collections import OrderedDict
from collections.abc import Callable, Hashable

from .bitmaps import Bitmap

USUAL_BYTES = 512 * 1024**2
_TWICE = 2  # the pixels, and those that are made of them to be drawn smaller


class BitmapStore:
    """Keeps bitmaps by their keys; threads may share it."""

    def __init__(self, most_bytes: int = USUAL_BYTES):
        self._most, self._bytes = most_bytes, 0
        self._kept: OrderedDict[Hashable, Bitmap] = OrderedDict()
        self._lock = threading.Lock()

    @property
    def bytes(self) -> int:
        """How many bytes are kept."""
        return self._bytes

    def limit(self, most_bytes: int) -> None:
        """Has it keep no more bytes than that from now on."""
        with self._lock:
            self._most = most_bytes
            self._let_go()

    def get(self, key: Hashable, make: Callable[[], Bitmap]) -> Bitmap:
        """The bitmap of a key, made now if it is not kept. What is larger than all that may be kept
        is not kept."""
        with self._lock:
            if key in self._kept:
                self._kept.move_to_end(key)
                return self._kept[key]
        made = make()
        if _size_of(made) > self._most:
            return made
        with self._lock:
            if key not in self._kept:
                self._bytes += _size_of(made)
            self._kept[key] = made
            self._kept.move_to_end(key)
            self._let_go()
        return made

    def _let_go(self) -> None:
        while self._bytes > self._most:
            _, oldest = self._kept.popitem(last=False)
            self._bytes -= _size_of(oldest)


def _size_of(bitmap: Bitmap) -> int:
    return bitmap.pixels.nbytes * _TWICE


BITMAPS = BitmapStore()
