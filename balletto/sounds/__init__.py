"""Sounds that ship with Balletto: made by `make`, and under the same licence."""

from pathlib import Path

FOLDER = Path(__file__).parent
# By what they are called in a scene: the names of their files.
CLICKS = ("key", "typewriter", "tick", "wood", "drop")


def click_file(name: str) -> Path:
    """The file of a click that ships."""
    return FOLDER / f"click-{name}.wav"
