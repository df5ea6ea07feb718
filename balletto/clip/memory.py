"""Giving back the memory of encoders, so that long clips need no more of it than short ones."""

import ctypes
import gc


def give_back() -> None:
    """Gives back what encoders that are closed still hold. Their objects refer to each other, so
    that only the collector finds them; and the C library keeps what was given back to it."""
    gc.collect()
    trim = getattr(ctypes.CDLL(None), "malloc_trim", None)  # of glibc
    if trim is not None:
        trim(0)
