"""Fonts that do not ship: families put together of the files in a folder.

An index beside the files says what they are, so that they need not be read for that. Where there
is none, as in a folder that somebody named, they are read.
"""

import hashlib
import json
from collections.abc import Iterable, Iterator
from functools import lru_cache
from pathlib import Path
from typing import Any

from ..scene.document import Scene
from ..scene.forms.flurry import TextSource
from ..scene.layers import Layer
from ..scene.layers.flurry import FlurryLayer
from ..scene.layers.title import Title
from ..scene.letters.style import RunStyle, Style
from ..scene.moving.moves import Becoming
from .families import FAMILIES, SHIPPED, Cut, Families, Family
from .font_files import SUFFIXES, FontFileError, about, fonts_in

INDEX = "fonts.json"
_VERSION = 1  # of what an index says
_MOST_FILES = 2_000  # that are looked at in a folder


def families_of(scene: Scene) -> Families:
    """The families at hand in a scene."""
    return families_in(scene.fonts_folder)


def families_in(folder: Path | None) -> Families:
    """The families at hand where the fonts of a folder are."""
    if folder is None:
        return SHIPPED
    for place in (folder / INDEX, folder):
        try:
            found = place.stat()
        except OSError:
            continue
        # Of two that are written within one tick of the clock the times are the same.
        return _read(folder, (found.st_mtime_ns, found.st_ino, found.st_size))
    return SHIPPED


def fonts_named(scene: Scene) -> Iterator[tuple[str, str]]:
    """The fonts that a scene names, and those in it: where, as faults say it, and which."""
    for index, layer in enumerate(scene.layers):
        for path, style in _styles_of(layer):
            if style.font is not None:
                yield f"layers[{index}].{path}.font", style.font
    for number, used in enumerate(scene.scenes):
        for path, name in fonts_named(used.scene):
            yield f"scenes[{number}].scene.{path}", name


def _styles_of(layer: Layer) -> Iterator[tuple[str, Style | RunStyle]]:
    if isinstance(layer, FlurryLayer):
        for number, source in enumerate(layer.flurry.source):
            if isinstance(source, TextSource):
                yield f"flurry.source[{number}].style", source.style
    if not isinstance(layer, Title):
        return
    yield "style", layer.style
    for number, run in enumerate(layer.runs):
        yield f"runs[{number}].style", run.style
    for number, move in enumerate(layer.moves):
        if isinstance(move.becomes, Becoming):
            yield f"moves[{number}].becomes.style", move.becomes.style


def missing_fonts(scene: Scene) -> list[tuple[str, str]]:
    """The fonts that a scene names and that are not at hand: where, and which."""
    families = families_of(scene)
    return [(path, name) for path, name in fonts_named(scene) if name not in families]


@lru_cache(maxsize=64)
def _read(folder: Path, changed: tuple[int, int, int]) -> Families:
    entries = _indexed(folder / INDEX)
    if entries is None:
        entries = list(_looked_at(folder))
    entries = [entry for entry in entries if (folder / entry["file"]).is_file()]
    if not entries:
        return SHIPPED
    said = json.dumps([*entries, _stamps(folder, entries)], sort_keys=True)
    state = hashlib.sha256(said.encode()).hexdigest()[:16]
    return Families(_families(folder, entries), state)


def _indexed(index: Path) -> list[dict[str, Any]] | None:
    """What an index says; None if there is none, or it is of another version."""
    try:
        told = json.loads(index.read_text())
        return told["fonts"] if told["version"] == _VERSION else None
    except (OSError, ValueError, LookupError, TypeError):
        return None


def index_of(entries: Iterable[dict[str, Any]]) -> str:
    """The text of an index."""
    return json.dumps({"version": _VERSION, "fonts": list(entries)}, ensure_ascii=False)


def _stamps(folder: Path, entries: Iterable[dict[str, Any]]) -> list[list[int]]:
    found = [(folder / entry["file"]).stat() for entry in entries]
    return [[each.st_size, each.st_mtime_ns] for each in found]


def _looked_at(folder: Path) -> Iterable[dict[str, Any]]:
    """An index of the files that are fonts; what cannot be read is none."""
    paths = sorted(path for path in folder.iterdir() if path.suffix.lower() in SUFFIXES)
    for path in paths[:_MOST_FILES]:
        try:
            first, *others = (about(font) for font in fonts_in(path))
        except FontFileError:
            continue
        if not others:
            yield entry_of(path.name, first.family, first)


def entry_of(file: str, family: str, font: Any) -> dict[str, Any]:
    """What an index says of a font that lies in a file, as one of a family; `font` is a FontAbout,
    a Cut, or what else tells as much."""
    return {
        "file": file,
        "family": family,
        "style": font.style,
        "weight": font.weight,
        "width": font.width,
        "italic": font.is_italic,
        "kind": font.kind,
        "travels": font.may_travel,
    }


def _order(cut: Cut) -> tuple[bool, float, float]:
    return cut.is_italic, cut.width, cut.weight


def _families(folder: Path, entries: Iterable[dict[str, Any]]) -> list[Family]:
    cuts: dict[str, list[Cut]] = {}
    for entry in entries:
        cut = Cut((folder / entry["file"],), entry["weight"], entry["width"], entry["italic"],
                  entry["style"], entry["travels"], entry["kind"])  # fmt: skip
        cuts.setdefault(entry["family"], []).append(cut)
    return [
        Family(name, tuple(sorted(found, key=_order)))
        for name, found in sorted(cuts.items(), key=lambda pair: pair[0].casefold())
        if name not in FAMILIES
    ]
