"""Font families: those that Balletto ships, and those at hand in a scene.

A family has one or more cuts, each with files that cover a part of the characters. The page is
served these same files, so what is typed there looks as it is drawn here.
"""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from pathlib import Path

FOLDER = Path(__file__).parent / "fonts"
_LATIN = ("latin", "latin-ext")
_MOST_PARTS = 20  # of a family that is not in slices


@dataclass(frozen=True)
class Cut:
    """A style of a family: its files, in the order in which a character is looked for, and, where
    the family has several, which of them it is: a weight from 1 to 1000, a width in percent, and
    whether it is italic; and whether its maker lets it travel with a scene."""

    files: tuple[Path, ...]
    weight: float = 400.0
    width: float = 100.0
    is_italic: bool = False
    style: str = ""
    may_travel: bool = True
    kind: str = "sans"  # as FontAbout tells it


@dataclass(frozen=True)
class Family:
    """A family: its name, its cuts, and what it is good for."""

    name: str
    cuts: tuple[Cut, ...]
    note: str = ""

    @property
    def kind(self) -> str:
        """Serif, sans ...: as its first cut is."""
        return self.cuts[0].kind

    @property
    def is_sliced(self) -> bool:
        """Whether it comes in many small files, of which a text needs few."""
        return len(self.files) > _MOST_PARTS

    @property
    def files(self) -> tuple[Path, ...]:
        """The files of its first cut."""
        return self.cuts[0].files


class Families(Mapping[str, Family]):
    """The families at hand, by their names: the shipped ones and some more.

    state: tells them from others, where the files or the names are not the same
    """

    __eq__, __hash__ = object.__eq__, object.__hash__  # two are the same if `state` is

    def __init__(self, own: Iterable[Family] = (), state: str = ""):
        self.own = {family.name: family for family in own}
        self.state = state

    def __getitem__(self, name: str) -> Family:
        return FAMILIES[name] if name in FAMILIES else self.own[name]

    def __iter__(self) -> Iterator[str]:
        yield from FAMILIES
        yield from self.own

    def __len__(self) -> int:
        return len(FAMILIES) + len(self.own)

    def or_stand_in(self, name: str) -> Family:
        """The family of a name, or what stands in for one that is not there."""
        return self[name] if name in self else FAMILIES[STAND_IN]


def _shipped(
    name: str, folder: str, note: str, parts: tuple[str, ...] = _LATIN, kind: str = "sans"
) -> Family:
    files = tuple(FOLDER / folder / f"{part}.woff2" for part in parts)
    return Family(name, (Cut(files, kind=kind),), note)


# In a folder of many small files: which code points each of them covers.
COVERS = "covers.txt"


def _sliced(name: str, folder: str, note: str) -> Family:
    """A family of so many letters that it comes in slices, of which those are opened that have
    letters of a text. The first one has Latin letters."""
    names = sorted(path.stem for path in (FOLDER / folder).glob("*.woff2"))
    return _shipped(name, folder, note, ("latin", *(each for each in names if each != "latin")))


_SANS_PARTS = (*_LATIN, "vietnamese", "greek", "greek-ext", "cyrillic", "cyrillic-ext")
FAMILIES: dict[str, Family] = {
    family.name: family
    for family in (
        _shipped("Anybody", "anybody", "wide to narrow, for loud titles", kind="display"),
        _shipped("Bricolage Grotesque", "bricolage-grotesque", "a grotesque with a hand in it"),
        _shipped("Fraunces", "fraunces", "a soft old-style serif", kind="serif"),
        _shipped("Recursive", "recursive", "from sans to mono, from sober to casual"),
        _shipped("Figtree", "figtree", "clean and friendly, for captions"),
        _shipped("Unbounded", "unbounded", "broad and round", kind="display"),
        _shipped("Caveat", "caveat", "a quick hand", kind="script"),
        _shipped("Limelight", "limelight", "a marquee of the twenties, one weight", kind="display"),
        _shipped("Noto Sans", "noto-sans", "Latin, Greek and Cyrillic, plain", _SANS_PARTS),
        _shipped("Noto Sans Hebrew", "noto-sans-hebrew", "Hebrew, plain", ("hebrew", *_LATIN)),
        _shipped("Noto Sans Arabic", "noto-sans-arabic", "Arabic, plain", ("arabic", *_LATIN)),
        _shipped("Noto Sans Thai", "noto-sans-thai", "Thai, plain", ("thai", *_LATIN)),
        _shipped(
            "Noto Sans Devanagari",
            "noto-sans-devanagari",
            "Hindi, Marathi, Nepali, plain",
            ("devanagari", *_LATIN),
        ),
        _shipped("Noto Sans Bengali", "noto-sans-bengali", "Bengali, plain", ("bengali", *_LATIN)),
        _shipped("Noto Sans Tamil", "noto-sans-tamil", "Tamil, plain", ("tamil", *_LATIN)),
        _sliced("Noto Sans JP", "noto-sans-jp", "Japanese: kana and kanji"),
        _sliced("Noto Sans KR", "noto-sans-kr", "Korean: Hangul"),
        _sliced("Noto Sans SC", "noto-sans-sc", "Chinese, in simplified letters"),
        _shipped("Twemoji", "twemoji", "emoji in colour", ("emoji",)),
        _shipped("Noto Emoji", "noto-emoji", "emoji in outline, one weight", ("emoji",)),
    )
}

STAND_IN = "Figtree"
EMOJI = "Twemoji"  # where a character is meant to be seen in colour, and the font has none
# Where a character is looked for that the chosen font does not have, in this order.
FALLBACKS = (
    "Noto Sans",
    "Noto Sans Hebrew",
    "Noto Sans Arabic",
    "Noto Sans Thai",
    "Noto Sans Devanagari",
    "Noto Sans Bengali",
    "Noto Sans Tamil",
    "Noto Emoji",
)
# Behind those, for Han, Kana and Hangul, by the language of the text: letters that many languages
# share look otherwise in each.
HAN_FALLBACKS = {
    "ja": ("Noto Sans JP", "Noto Sans SC", "Noto Sans KR"),
    "ko": ("Noto Sans KR", "Noto Sans JP", "Noto Sans SC"),
    "zh": ("Noto Sans SC", "Noto Sans JP", "Noto Sans KR"),
}
HAN_USUALLY = "zh"

SHIPPED = Families()
