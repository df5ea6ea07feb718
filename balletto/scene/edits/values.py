"""Edits of single values, plain or keyed."""

from typing import Any

import numpy as np
from pydantic import TypeAdapter

from ..changes import Change, Pointer, apply_changes
from ..colors import hex_of
from ..errors import SceneError
from ..model import Frames
from ..motion_path import PathTrack
from ..tracks import Track, is_color, is_track
from .base import Document, Edit, edit
from .paths import find, owner_of, pointer_to, title_of, with_parents

_TRACK = TypeAdapter(Track[float | tuple[float, ...] | str])
_PATH_TRACK = TypeAdapter(PathTrack)


def _put(document: Document, pointer: Pointer, value: Any) -> list[Change]:
    return [Change("put", *with_parents(document, pointer, value))]


def _value_now(track: dict[str, Any], at: float) -> Any:
    """The value of a keyed number, vector or colour at a frame."""
    is_way = any(handle in key for key in track["keys"] for handle in ("in", "out"))
    made = (_PATH_TRACK if is_way else _TRACK).validate_python(track, strict=False)
    value = made.at_times(np.array(at))
    return hex_of(value) if is_color(made) else value.tolist()


def _with_key(track: dict[str, Any], at: float, value: Any) -> dict[str, Any]:
    """The track with a key of `value` at `at`: the one there changed, or a new one.

    A new key leaves with the ease of the stretch that it cuts.
    """
    keys = [dict(key) for key in track["keys"]]
    for key in keys:
        if key["at"] == at:
            key["value"] = value
            return {**track, "keys": keys}
    before = [key for key in keys if key["at"] < at]
    new = {"at": at, "value": value}
    if before and "ease" in before[-1]:
        new["ease"] = before[-1]["ease"]
    return {**track, "keys": sorted([*keys, new], key=lambda key: key["at"])}


@edit("set-value")
class SetValue(Edit):
    """Sets the value at a path. A keyed value gets it as a key at the frame `at`.

    `keyed` names a value without keyframes, at the path or above it, that is to have its first one
    there.
    """

    path: str
    value: Any
    at: Frames | None = None
    keyed: str | None = None

    def changes(self, document: Document) -> list[Change]:
        if self.keyed is not None:
            return self._first_key(document)
        return self._value(document)

    def _first_key(self, document: Document) -> list[Change]:
        pointer = pointer_to(document, self.keyed or "")
        old = find(document, pointer)
        if is_track(old) or (isinstance(old, dict) and "tie" in old):
            return self._value(document)
        plain = self._value(document)
        value = find(apply_changes(document, plain)[0], pointer)
        key = {"keys": [{"at": self._time(), "value": value}]}
        return [*plain, Change("put", pointer, key)]

    def _value(self, document: Document) -> list[Change]:
        pointer = pointer_to(document, self.path)
        holder = find(document, pointer[:-1])
        if is_track(holder) and isinstance(pointer[-1], int):
            vector = _value_now(holder, self._time())
            vector[pointer[-1]] = self.value
            return _put(document, pointer[:-1], _with_key(holder, self._time(), vector))
        old = find(document, pointer)
        is_whole = is_track(self.value) or (isinstance(self.value, dict) and "tie" in self.value)
        if is_track(old) and not is_whole:
            return _put(document, pointer, _with_key(old, self._time(), self.value))
        return _put(document, pointer, self.value)

    def _time(self) -> float:
        if self.at is None:
            raise SceneError.at(self.path, "this value is keyed: say at which frame to set it")
        return self.at

    def label(self, document: Document) -> str:
        if self.path.endswith(".on") and isinstance(self.value, bool):
            return f"{owner_of(document, self.path)} turned {_plain(self.value)}"
        old = find(document, pointer_to(document, self.path))
        said = f"{title_of(self.path)} of {owner_of(document, self.path)}"
        if isinstance(old, dict | list | None) or isinstance(self.value, dict | list):
            return said if isinstance(self.value, dict | list) else f"{said}: {_plain(self.value)}"
        return f"{said}: {_plain(old)} to {_plain(self.value)}"


def _plain(value: Any) -> str:
    if isinstance(value, bool):
        return "on" if value else "off"
    return f"{value:g}" if isinstance(value, int | float) else str(value)[:40]


@edit("clear-value")
class ClearValue(Edit):
    """Takes the value at a path away: back to rest, or to what holds when nothing is said.

    `also` are paths of values that mean nothing without it.
    """

    path: str
    also: tuple[str, ...] = ()

    def changes(self, document: Document) -> list[Change]:
        pointers = [pointer_to(document, path) for path in (self.path, *self.also)]
        return [
            Change("remove", pointer) for pointer in pointers if find(document, pointer) is not None
        ]

    def label(self, document: Document) -> str:
        return f"{title_of(self.path)} of {owner_of(document, self.path)} back to rest"


@edit("add-key")
class AddKey(Edit):
    """Sets a keyframe at the frame `at`, with the value that holds there.

    `value` is needed where nothing was said yet, or to key another value.
    """

    path: str
    at: Frames
    value: Any = None

    def changes(self, document: Document) -> list[Change]:
        pointer = pointer_to(document, self.path)
        old = find(document, pointer)
        if is_track(old):
            value = _value_now(old, self.at) if self.value is None else self.value
            return _put(document, pointer, _with_key(old, self.at, value))
        value = old if self.value is None else self.value
        if value is None:
            raise SceneError.at(self.path, "there is no value here yet to make a keyframe of")
        return _put(document, pointer, {"keys": [{"at": self.at, "value": value}]})

    def label(self, document: Document) -> str:
        said = f"{title_of(self.path)} of {owner_of(document, self.path)}"
        return f"Keyframe at {self.at:g} for {said}"


@edit("remove-key")
class RemoveKey(Edit):
    """Takes the keyframe at the frame `at` away; the last one leaves its value behind."""

    path: str
    at: Frames

    def changes(self, document: Document) -> list[Change]:
        pointer = pointer_to(document, self.path)
        track = find(document, pointer)
        if not is_track(track):
            raise SceneError.at(self.path, "this value has no keyframes")
        kept = [key for key in track["keys"] if key["at"] != self.at]
        if len(kept) == len(track["keys"]):
            raise SceneError.at(self.path, f"there is no keyframe at frame {self.at:g}")
        left = {**track, "keys": kept} if kept else track["keys"][0]["value"]
        return _put(document, pointer, left)

    def label(self, document: Document) -> str:
        said = f"{title_of(self.path)} of {owner_of(document, self.path)}"
        return f"Keyframe at {self.at:g} removed from {said}"
