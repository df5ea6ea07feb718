"""Looks: what a picture of a scene depends on besides its document.

The address of a picture names the digest of the document and, behind it, its look: which of the
files that it shows are there, in which state, and which version of the drawing draws it. So an
address never comes to mean another picture, and browsers may keep what it gave.
"""

import hashlib
from collections.abc import Callable, Iterable
from functools import lru_cache
from typing import Any

from django.core.cache import cache

from balletto.lettering.families import FAMILIES
from balletto.lettering.own_fonts import families_in
from balletto.picture.version import drawing_version
from balletto.scene.media import NAMING
from balletto.scene.naming import FONTS, named
from web.library.font_store import fonts_folder_of
from web.library.store import folder_of

_LETTERS = 12
_OWN_FONTS = "/fonts"  # among the names of files, none of which has such a sign
_KEEP_NAMES_S = 24 * 60 * 60


def files_in(document: dict[str, Any]) -> tuple[str, ...]:
    """The names of all files that a document shows or plays, in nested scenes too; and that it is
    set in fonts of a person's own, if it is."""
    names = {name for _, name in named(document, NAMING)}
    if any(name not in FAMILIES for _, name in named(document, FONTS)):
        names.add(_OWN_FONTS)
    return tuple(sorted(names))


def look_of(names: Iterable[str], owner_id: int) -> str:
    """The look of a document that shows files of those names of a person."""
    told = [drawing_version(), *(_state(owner_id, name) for name in names)]
    return hashlib.sha256("\n".join(told).encode()).hexdigest()[:_LETTERS]


def _state(owner_id: int, name: str) -> str:
    if name == _OWN_FONTS:
        return f"fonts {families_in(fonts_folder_of(owner_id)).state}"
    try:
        found = (folder_of(owner_id) / name).stat()
    except (OSError, ValueError):
        return f"{name}: not there"
    return f"{name}: {found.st_size} bytes of {found.st_mtime_ns}"


def address(digest: str, owner_id: int, find: Callable[[], dict[str, Any]]) -> str:
    """How pictures of a document of a person are asked for: its digest and its look. `find` gives
    the document if its files are not known."""
    kept = _names_here(digest)
    if not kept:
        names = cache.get(f"files-in:{digest}")
        if names is None:
            names = files_in(find())
            cache.set(f"files-in:{digest}", names, _KEEP_NAMES_S)
        kept.append(tuple(names))
    return f"{digest}-{look_of(kept[0], owner_id)}"


@lru_cache(maxsize=256)
def _names_here(digest: str) -> list[tuple[str, ...]]:
    """A place for the names of the files of a document, which a digest never changes."""
    return []


def address_at(scene: Any, digest: str, document: Any = None) -> str:
    """The same for a state of a scene; `document()` is asked for it if its files are not known."""
    find = document or (lambda: scene.revisions.filter(digest=digest)[0].document)
    return address(digest, scene.project.owner_id, find)
