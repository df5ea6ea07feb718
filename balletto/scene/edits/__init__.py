"""Edits: every change that a person can make to a scene, as a small named operation.

    applied = apply(document, {"name": "set-value", "path": "t1.style.size", "value": 140})

`document` is plain scene data and stays as it was. The result holds the new document, checked as a
whole, a sentence for the history, and the inverse: an edit that leads back exactly.

A new edit is a class with the decorator `edit`, in the module of what it changes, or in a new one.
"""

import logging
from importlib import import_module
from pkgutil import walk_packages
from typing import Any, NamedTuple

from .. import files
from ..changes import apply_changes
from ..document import Scene
from ..errors import SceneError
from .base import EDITS, parse_edit
from .paths import name_of

__all__ = ["EDITS", "Applied", "apply"]

# Every module of the folder and its rooms is imported for the edits that are in it.
for _module in walk_packages(__path__, f"{__name__}."):
    import_module(_module.name)


_log = logging.getLogger(__name__)


class Applied(NamedTuple):
    """What an edit gave: `inverse` is an edit too; `label` a sentence part for the history."""

    document: dict[str, Any]
    scene: Scene
    label: str
    inverse: dict[str, Any]


def apply(document: dict[str, Any], data: dict[str, Any]) -> Applied:
    """Does one edit. SceneError says what is wrong with the edit or with what it would make."""
    edit = parse_edit(data)
    try:
        label = edit.label(document)
        changed, back = apply_changes(document, edit.changes(document))
    except (KeyError, IndexError, TypeError, AttributeError, ValueError) as error:
        if isinstance(error, SceneError):
            raise
        # As a rule what it is about is gone; if not, someone has to be able to find out.
        _log.warning("An edit failed: %s", edit.edit_name, exc_info=error)
        raise SceneError.at(
            str(getattr(edit, "path", "")), f"there is nothing here to change ({error})"
        ) from None
    scene = files.from_data(changed)
    if not edit.passes_locks:
        _keep_locked(document, changed)
    inverse = {"name": "changes", "changes": [[c.verb, list(c.pointer), c.value] for c in back]}
    return Applied(changed, scene, label, inverse)


def _keep_locked(document: dict[str, Any], changed: dict[str, Any]) -> None:
    """SceneError if a locked layer has become another; to unlock it is the one thing allowed."""
    after = {layer["id"]: layer for layer in changed.get("layers", [])}
    for layer in document.get("layers", []):
        left = after.get(layer["id"])
        if layer.get("locked") and left is not layer and _unlocked(left) != _unlocked(layer):
            told = f"{name_of(layer)} is locked: unlock it to change it"
            raise SceneError.at(layer["id"], told)


def _unlocked(layer: dict[str, Any] | None) -> dict[str, Any] | None:
    return layer and {name: value for name, value in layer.items() if name != "locked"}
