"""The font families that Balletto ships, and the files of each.

A family is one or more files with the same axes; each file covers a part of the characters. The
page is served these same files, so what is typed there looks as it is drawn here.
"""

from dataclasses import dataclass
from pathlib import Path

FOLDER = Path(__file__).parent / "fonts"
_LATIN = ("latin", "latin-ext")


@dataclass(frozen=True)
class Family:
    """A shipped family: its name, its folder below fonts/, what it is good for, and its files in
    the order in which a character is looked for."""

    name: str
    folder: str
    note: str
    parts: tuple[str, ...] = _LATIN

    @property
    def files(self) -> tuple[Path, ...]:
        return tuple(FOLDER / self.folder / f"{part}.woff2" for part in self.parts)


_SANS_PARTS = (*_LATIN, "vietnamese", "greek", "greek-ext", "cyrillic", "cyrillic-ext")
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
        Family("Noto Sans", "noto-sans", "Latin, Greek and Cyrillic, plain", _SANS_PARTS),
        Family("Noto Sans Hebrew", "noto-sans-hebrew", "Hebrew, plain", ("hebrew", *_LATIN)),
        Family("Noto Sans Arabic", "noto-sans-arabic", "Arabic, plain", ("arabic", *_LATIN)),
        Family("Noto Sans Thai", "noto-sans-thai", "Thai, plain", ("thai", *_LATIN)),
        Family("Noto Emoji", "noto-emoji", "emoji in outline, one weight", ("emoji",)),
    )
}

# Where a character is looked for that the chosen font does not have, in this order.
FALLBACKS = (
    "Noto Sans",
    "Noto Sans Hebrew",
    "Noto Sans Arabic",
    "Noto Sans Thai",
    "Noto Emoji",
)
