"""Font files, as they say of themselves: names, place in a family, axes, features, licence."""

import io
from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from fontTools.ttLib import TTCollection, TTFont
from fontTools.unicodedata import script, script_name

SUFFIXES = (".ttf", ".otf", ".ttc", ".otc", ".woff", ".woff2")
_COLLECTIONS = (".ttc", ".otc")
# By usWidthClass of the OS/2 table, in percent (OpenType 1.9).
_WIDTHS = {1: 50.0, 2: 62.5, 3: 75.0, 4: 87.5, 5: 100.0, 6: 112.5, 7: 125.0, 8: 150.0, 9: 200.0}
_ITALIC = 1  # a bit of fsSelection
# Names of the name table, by their numbers.
_FAMILY, _STYLE, _LICENCE, _LICENCE_AT = (16, 1), (17, 2), 13, 14
_MOST_NAME = 80  # letters
_MOST_AXES = 64
MOST_BYTES = 100 * 2**20  # of a file, and of what it unpacks to
# What may be done with it, by the bits of fsType, the strictest first.
RESTRICTED = "restricted"
_EMBEDDING = ((0x0002, RESTRICTED), (0x0004, "preview"), (0x0008, "editable"))


class FontFileError(Exception):
    """A file is no font that can be used; the message says why."""


@dataclass(frozen=True)
class Axis:
    """A design axis of a variable font: tag, name, and its range."""

    tag: str
    name: str
    low: float
    default: float
    high: float


@dataclass(frozen=True)
class FontAbout:
    """What a font says of itself.

    weight, width: 1 to 1000, and percent; features: tags of what can be chosen, as "smcp"
    kind: "serif", "sans", "slab", "script", "mono" or "display", as far as it says so
    scripts: those that it has letters of, the most of them first
    licence: in its own words, or where they stand; embedding: "installable", or what else the
    maker allows; is_colored: whether its glyphs have colours of their own
    """

    family: str
    style: str
    weight: float
    width: float
    is_italic: bool
    axes: tuple[Axis, ...]
    features: tuple[str, ...]
    glyphs: int
    kind: str
    scripts: tuple[str, ...]
    licence: str
    embedding: str
    is_colored: bool

    @property
    def may_travel(self) -> bool:
        """Whether it may be handed on with a scene."""
        return self.embedding != RESTRICTED


def fonts_in(path: Path) -> Iterator[TTFont]:
    """The fonts of a file, each open until the next is asked for: one, or those of a collection.
    FontFileError if it is none."""
    if path.stat().st_size > MOST_BYTES:
        raise FontFileError(f"{path.name} has more than {MOST_BYTES // 2**20} MB.")
    opened = TTCollection if path.suffix.lower() in _COLLECTIONS else TTFont
    try:
        # What is written of it again is the same, whenever that is.
        with opened(io.BytesIO(path.read_bytes()), recalcTimestamp=False) as file:
            yield from file if isinstance(file, TTCollection) else (file,)
    except FontFileError:
        raise
    except Exception as error:  # what reads damaged bytes raises whatever comes
        raise FontFileError(f"{path.name} is no font that can be read: {error}") from None


def about(font: TTFont) -> FontAbout:
    """What a font says of itself. FontFileError if it lacks what any font has."""
    try:
        return _about(font)
    except FontFileError:
        raise
    except Exception as error:
        told = str(error) or type(error).__name__
        raise FontFileError(f"its tables are damaged: {told}") from None


def _about(font: TTFont) -> FontAbout:
    names, metrics = font["name"], font["OS/2"]
    family = _first_name(names, _FAMILY)
    if not family:
        raise FontFileError("it has no name")
    covers = frozenset(font.getBestCmap() or ())
    return FontAbout(
        family,
        _first_name(names, _STYLE) or "Regular",
        float(min(max(metrics.usWeightClass, 1), 1000)),
        _WIDTHS.get(metrics.usWidthClass, 100.0),
        bool(metrics.fsSelection & _ITALIC) or bool(font["head"].macStyle & 2),
        tuple(_axes(font, names)),
        _features(font),
        font["maxp"].numGlyphs,
        _kind_of(font, family),
        scripts_of(covers),
        _first_name(names, (_LICENCE,), 400) or _first_name(names, (_LICENCE_AT,), 400),
        next((told for bit, told in _EMBEDDING if metrics.fsType & bit), "installable"),
        any(tag in font for tag in ("COLR", "CBDT", "sbix", "SVG ")),
    )


KINDS = ("sans", "serif", "slab", "display", "script", "mono")
# By the class of sFamilyClass, then by PANOSE (OpenType 1.9, OS/2).
_CLASSES = {1: "serif", 2: "serif", 3: "serif", 4: "serif", 5: "slab", 7: "serif", 8: "sans",
            9: "display", 10: "script"}  # fmt: skip
_PANOSE_FAMILIES = {3: "script", 4: "display"}
_MONOSPACED = 9
_SLABS, _SERIFS, _SANS = (4, 5), range(2, 11), range(11, 16)


def _kind_of(font: TTFont, family: str) -> str:
    metrics = font["OS/2"]
    panose = metrics.panose
    if font["post"].isFixedPitch or panose.bProportion == _MONOSPACED:
        return "mono"
    if kind := _CLASSES.get(metrics.sFamilyClass >> 8) or _PANOSE_FAMILIES.get(panose.bFamilyType):
        return kind
    if panose.bFamilyType == 2 and panose.bSerifStyle:
        style = panose.bSerifStyle
        return "slab" if style in _SLABS else "serif" if style in _SERIFS else "sans"
    words = family.casefold()
    said = (kind for kind in ("slab", "sans", "serif", "mono", "script") if kind in words)
    return next(said, "sans")


_LEAST_LETTERS = 12  # of a script that a font is said to have
_NO_SCRIPTS = ("Zyyy", "Zinh", "Zzzz")


def scripts_of(covers: frozenset[int]) -> tuple[str, ...]:
    """The scripts that these code points are letters of, by name, the most of them first."""
    counts = Counter(script(chr(point)) for point in covers)
    found = [(code, count) for code, count in counts.most_common() if code not in _NO_SCRIPTS]
    return tuple(script_name(code, code) for code, count in found if count >= _LEAST_LETTERS)


def _first_name(names: Any, numbers: tuple[int, ...], most: int = _MOST_NAME) -> str:
    for number in numbers:
        said = names.getDebugName(number)
        if said and said.strip():
            return " ".join("".join(c for c in said if c.isprintable()).split())[:most]
    return ""


def _axes(font: TTFont, names: Any) -> Iterator[Axis]:
    axes = font["fvar"].axes if "fvar" in font else ()
    if len(axes) > _MOST_AXES:
        raise FontFileError(f"it has more than {_MOST_AXES} axes")
    for axis in axes:
        tag = axis.axisTag
        if not (tag.isascii() and tag.isalnum()):
            raise FontFileError(f"it has an axis that cannot be named, “{tag}”")
        name = _first_name(names, (axis.axisNameID,)) or tag
        yield Axis(tag, name, axis.minValue, axis.defaultValue, axis.maxValue)


def _features(font: TTFont) -> tuple[str, ...]:
    found = set()
    for tag in ("GSUB", "GPOS"):
        if tag in font and font[tag].table.FeatureList:
            found |= {record.FeatureTag for record in font[tag].table.FeatureList.FeatureRecord}
    return tuple(sorted(found))
