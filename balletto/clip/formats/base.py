"""What all formats have: what a clip can be written as."""

from dataclasses import dataclass

from ..pieces import ClipPieces


@dataclass(frozen=True)
class Format:
    """A kind of file.

    title, about: its name, and what it is good for, for people
    needs_even: whether its sides must be even; most_rate: the most frames a second that it plays
    bytes_a_pixel: of a frame in the file, as a rule, on a moving title at the usual quality
    shown_as: how browsers show it: "video", "picture", or "" if they do not
    bytes_kept: of each pixel of all frames in memory, until the file is written
    has_sound: whether sound layers are heard
    has_alpha: whether it keeps what is transparent; else that is on black
    """

    title: str
    about: str
    suffix: str
    pieces: ClipPieces
    bytes_a_pixel: float
    shown_as: str = "picture"
    needs_even: bool = False
    most_rate: int = 240
    has_alpha: bool = False
    has_quality: bool = False
    has_loops: bool = False
    has_sound: bool = False
    is_still: bool = False
    bytes_kept: int = 0


# By the name of a format: where it stands among those that are offered, and the format.
FOUND: dict[str, tuple[int, Format]] = {}


def offered(name: str, rank: int, made: Format) -> None:
    """Registers a format by its name."""
    FOUND[name] = (rank, made)
