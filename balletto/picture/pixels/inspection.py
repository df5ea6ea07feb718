"""Looking into files that people send, apart from everything else: decoders are large programs
that read what anybody may have written."""

import time
from pathlib import Path

import av

from ...apart import LostProcess, apart
from .media import SOUNDS, VIDEOS, About, MediaError, about

_LOOKED_AT_S = 4.0  # of a processor, that a video or a sound is decoded for


def inspected(path: Path) -> About:
    """What a file holds, read by a process of its own. MediaError if it is none of what is read, is
    broken, or takes more memory or time than there is for it."""
    try:
        return apart(_looked_into, path)
    except LostProcess as lost:
        told = f"{path.name} cannot be read: {lost}. It seems to be broken."
        raise MediaError(told) from None


def _looked_into(path: Path) -> About:
    found = about(path)
    if path.suffix.lower() in (*VIDEOS, *SOUNDS):
        _decode(path)
    return found


def _decode(path: Path) -> None:
    """Decodes as much of a file as there is time for. What is faulty later on is no reason to
    refuse it: it is played up to there."""
    until = time.process_time() + _LOOKED_AT_S
    try:
        with av.open(str(path)) as file:
            for _ in file.decode(*file.streams.video[:1], *file.streams.audio[:1]):
                if time.process_time() > until:
                    return
    except (av.FFmpegError, ValueError):
        return
