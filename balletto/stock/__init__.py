"""What ships to make scenes with: backgrounds that move, sounds, shapes. All of it is made by the
modules of this package, from nothing but numbers, and is under the licence of Balletto."""

from pathlib import Path
from typing import NamedTuple

FOLDER = Path(__file__).parent / "files"


SIZE = (1280, 720)  # px, of the backgrounds


class StockFile(NamedTuple):
    """A file that ships.

    name: what scenes call it; title: what people do; kind: video or sound; size in px
    """

    name: str
    title: str
    kind: str
    size: tuple[int, int] = (0, 0)


# Clicks by what layers of clicks call them: the names of their files.
CLICKS = ("key", "typewriter", "tick", "wood", "drop")
_BACKGROUNDS = (
    ("drifting-colour", "Drifting colour"),
    ("soft-lights", "Soft lights"),
    ("stars", "Stars"),
    ("waves", "Waves"),
    ("stripes", "Stripes"),
    ("halftone", "Halftone"),
    ("paper", "Paper"),
    ("grain", "Grain"),
)
_SOUNDS = (
    ("whoosh", "Whoosh"),
    ("swish", "Swish"),
    ("chime", "Chime"),
    ("chimes", "Chimes, rising"),
    ("beat", "Beat, 120 a minute"),
)
STOCK: dict[str, StockFile] = {
    file.name: file
    for file in (
        *(StockFile(f"stock-{name}.mp4", title, "video", SIZE) for name, title in _BACKGROUNDS),
        *(StockFile(f"stock-{name}.wav", title, "sound") for name, title in _SOUNDS),
        *(StockFile(f"click-{name}.wav", f"Click: {name}", "sound") for name in CLICKS),
    )
}


def stock_path(name: str) -> Path | None:
    """Where the file lies that scenes call so; None if none ships under that name."""
    return FOLDER / name if name in STOCK else None


def click_file(name: str) -> Path:
    """The file of a click that ships."""
    return FOLDER / f"click-{name}.wav"
