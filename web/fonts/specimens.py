"""Specimens: families as the page of fonts shows them."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field, replace
from functools import lru_cache

from balletto.lettering.faces import axes_of, covered_by, features_of, resting_axes
from balletto.lettering.families import FAMILIES, Families, Family
from balletto.lettering.font_files import scripts_of
from balletto.scene.letters.features import FEATURES, SET, is_set
from balletto.scene.values.value_names import axis_name
from web.library.models import FontFile
from web.projects.font_rules import css_name

SAMPLE = "The Quiet Orbit, 1924"
# What fonts are shown with that are for other letters, until words are typed.
_SAMPLES = {
    "Noto Sans Hebrew": "המסלול השקט, 1924",
    "Noto Sans Arabic": "المدار الهادئ، ١٩٢٤",
    "Noto Sans Thai": "วงโคจรอันเงียบสงบ",
    "Noto Sans Devanagari": "शांत कक्षा, १९२४",
    "Noto Sans Bengali": "শান্ত কক্ষপথ, ১৯২৪",
    "Noto Sans Tamil": "அமைதியான சுற்றுப்பாதை",
    "Noto Sans JP": "静かな軌道、1924",
    "Noto Sans KR": "고요한 궤도, 1924",
    "Noto Sans SC": "静静的轨道，1924",
    "Twemoji": "🌙🪐🚀⭐☄️",
    "Noto Emoji": "🌙🪐🚀⭐☄",
}
_LICENCES = {"Twemoji": "SIL Open Font License 1.1, pictures CC BY 4.0"}
_LICENCE = "SIL Open Font License 1.1"
SHOWN_SIZE = 52  # px, to begin with
_EMBEDDING = {
    "installable": "may travel with a scene",
    "editable": "may travel with a scene",
    "preview": "may travel with a scene, to be looked at",
    "restricted": "stays here: its maker does not let it travel with a scene",
}


@dataclass(frozen=True)
class Scrub:
    """An axis that can be moved on the page."""

    tag: str
    name: str
    low: float
    value: float
    high: float

    @property
    def step(self) -> float:
        return (self.high - self.low) / 200 if self.high - self.low < 20 else 1


@dataclass(frozen=True)
class Specimen:
    """A family as the page shows it."""

    name: str
    kind: str
    note: str = ""
    scrubs: tuple[Scrub, ...] = ()
    scripts: tuple[str, ...] = ()
    features: tuple[str, ...] = ()
    styles: tuple[str, ...] = ()
    licence: str = ""
    embedding: str = ""
    glyphs: int = 0
    is_own: bool = False
    is_colored: bool = False
    used_by: list[str] = field(default_factory=list)

    @property
    def css_name(self) -> str:
        return css_name(self.name)

    @property
    def sample(self) -> str:
        """What it is shown with, until words are typed."""
        return _SAMPLES.get(self.name, SAMPLE)

    @property
    def told_features(self) -> list[str]:
        """What can be chosen of it, in words; stylistic sets are counted."""
        found = [words for tag, words in FEATURES.items() if tag in self.features]
        sets = sum(is_set(tag) for tag in self.features)
        return found + ([f"{sets} {SET}{'s' if sets > 1 else ''}"] if sets else [])

    @property
    def found_by(self) -> str:
        """What it is found by, typed."""
        words = (self.name, self.kind, self.note, *self.scripts, *self.styles)
        return " ".join(words).casefold()


def _scrubs(family: Family) -> tuple[Scrub, ...]:
    resting = resting_axes(family, SHOWN_SIZE)
    return tuple(
        Scrub(axis.tag, axis_name(axis.tag, axis.name), axis.low, resting[axis.tag], axis.high)
        for axis in axes_of(family)
    )


def choice(family: Family) -> Specimen:
    """A family as it is chosen from a list: no more of it is looked at than its index says."""
    return Specimen(family.name, family.kind, family.note, is_own=family.name not in FAMILIES)


@lru_cache(maxsize=1)
def choices() -> tuple[Specimen, ...]:
    """The families that ship, as they are chosen from a list; found by their scripts, too."""
    return tuple(replace(choice(FAMILIES[each.name]), scripts=each.scripts) for each in shipped())


@lru_cache(maxsize=1)
def shipped() -> tuple[Specimen, ...]:
    """The families that ship."""
    return tuple(_shipped(family) for family in FAMILIES.values())


def _shipped(family: Family) -> Specimen:
    covers = frozenset().union(*(covered_by(path) for path in family.files))
    return Specimen(
        family.name, family.kind, family.note, _scrubs(family), scripts_of(covers),
        tuple(features_of(family)),
        licence=_LICENCES.get(family.name, _LICENCE), embedding=_EMBEDDING["installable"],
        glyphs=len(covers),
    )  # fmt: skip


def own(
    fonts: Iterable[FontFile], families: Families, used: dict[str, list[str]]
) -> Iterator[Specimen]:
    """A person's own families, of their files; `used` tells which scenes name them."""
    by_family: dict[str, list[FontFile]] = {}
    for font in fonts:
        by_family.setdefault(font.family, []).append(font)
    for name, files in by_family.items():
        first = files[0]
        yield Specimen(
            name, first.kind, "yours", _scrubs(families[name]) if name in families else (),
            tuple(dict.fromkeys(each for font in files for each in font.scripts)),
            tuple(dict.fromkeys(each for font in files for each in font.features)),
            tuple(font.style for font in files), first.licence, _EMBEDDING[first.embedding],
            max(font.glyphs for font in files), is_own=True,
            is_colored=any(font.is_colored for font in files), used_by=used.get(name, []),
        )  # fmt: skip
