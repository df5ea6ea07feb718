"""Processes that end when those that started them do, however that is."""

import ctypes
import signal

_PR_SET_PDEATHSIG = 1  # linux/prctl.h: the signal that a process gets when its parent dies


def end_with_parent(number: int = signal.SIGTERM) -> None:
    """Has this process get a signal when the one that started it dies."""
    ctypes.CDLL("libc.so.6").prctl(_PR_SET_PDEATHSIG, number)
