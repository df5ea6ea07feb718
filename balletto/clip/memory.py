"""The memory of a process that draws clips: what it keeps at hand, and what it gives back."""

import ctypes
import gc
from functools import cache

_C_LIBRARY = ctypes.CDLL(None)
_TRIM_THRESHOLD, _MMAP_THRESHOLD = -1, -3  # as mallopt(3) of glibc numbers them
_AT_HAND, _LARGEST = 128 * 2**20, 32 * 2**20  # bytes


@cache
def keep_at_hand() -> None:
    """Has a process that draws frame after frame keep what each of them needs; once for all.

    The buffers of a frame are given back and asked for again: as long as they do not go back to
    the system, this need not clear and map their pages again. And what is there by now, modules
    and settings, is not looked through any more for what nobody uses.
    """
    gc.freeze()
    set_option = getattr(_C_LIBRARY, "mallopt", None)
    if set_option is not None:
        set_option(_TRIM_THRESHOLD, _AT_HAND)
        set_option(_MMAP_THRESHOLD, _LARGEST)


def give_back() -> None:
    """Gives back what encoders that are closed still hold, so that long clips need no more of it
    than short ones. Their objects refer to each other, so that only the collector finds them; and
    the C library keeps what was given back to it."""
    gc.collect()
    trim = getattr(_C_LIBRARY, "malloc_trim", None)  # of glibc
    if trim is not None:
        trim(0)
