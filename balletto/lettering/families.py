"""The font families that Balletto ships, and the files of each.

A family is one or more files with the same axes; each file covers a part of the characters. The
page is served these same files, so what is typed there looks as it is drawn here.
"""

from dataclasses import dataclass
from pathlib import Path

FOLDER = Path(__file__).parent / "fonts"


@dataclass(frozen=True)
class Family:
    """A shipped family: its name, its folder below fonts/, and what it is good for."""

    name: str
    folder: str
    note: str

    @property
    def files(self) -> tuple[Path, ...]:
        """The files in the order in which a character is looked for."""
        return (FOLDER / self.folder / "latin.woff2", FOLDER / self.folder / "latin-ext.woff2")


FAMILIES: dict[str, Family] = {
    family.name: family
    for family in (
        Family("Anybody", "anybody", "wide to narrow, for loud titles"),
        Family("Bricolage Grotesque", "bricolage-grotesque", "a grotesque with a hand in it"),
        Family("Fraunces", "fraunces", "a soft old-style serif"),
        Family("Recursive", "recursive", "from sans to mono, from sober to casual"),
        Family("Figtree", "figtree", "clean and friendly, for captions"),
        Family("Unbounded", "unbounded", "broad and round"),
        Family("Caveat", "caveat", "a quick hand"),
        Family("Limelight", "limelight", "a marquee of the twenties, one weight"),
    )
}
