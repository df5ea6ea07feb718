"""Edits of single values, plain or keyed."""

from typing import Any, ClassVar

import numpy as np
from pydantic import Field, TypeAdapter

from .. import files
from ..changes import Change, Pointer, apply_changes
from ..document import Scene
from ..errors import SceneError
from ..model import Frames, Number
from ..rewriting import mark_at
from ..values.colors import hex_of
from ..values.keyable import keyable
from ..values.motion_path import PathTrack
from ..values.tracks import TANGENTS, Track, is_color, is_track, value_at
from .base import Document, Edit, edit
from .paths import find, owner_of, pointer_to, title_of, with_parents

_DIGITS = 6  # of a number that followed another

_TRACK = TypeAdapter(Track[float | tuple[float, ...] | str])
_PATH_TRACK = TypeAdapter(PathTrack)


def _put(document: Document, pointer: Pointer, value: Any) -> list[Change]:
    return [Change("put", *with_parents(document, pointer, value))]


def _value_now(document: Document, pointer: Pointer, at: float) -> Any:
    """The value of a keyed number, vector or colour at a frame. Where an ease overshoots, or the
    keys go straight on, it is kept within what a key may say."""
    track = find(document, pointer)
    is_way = any(handle in key for key in track["keys"] for handle in ("in", "out"))
    made = (_PATH_TRACK if is_way else _TRACK).validate_python(track, strict=False)
    value = made.at_times(np.array(at))
    if is_color(made):
        return hex_of(value)
    return within_limits(document, pointer, value).tolist()


def within_limits(document: Document, pointer: Pointer, value: np.ndarray) -> np.ndarray:
    """A value kept within what may be said where the pointer leads."""
    mark = mark_at(Scene, document, pointer)
    return mark.clipped(value) if isinstance(mark, Number) else value


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

    `keyed` names a value, at the path or above it, that is to have a keyframe there in any case:
    its first one, or another, be the value the same or not.
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
        pointer = _holder(document, self.keyed or "")
        old = find(document, pointer)
        if is_track(old):
            return self._value(document)
        if old is None:  # left out: it begins where it is by default
            start = _put(document, pointer, _now(document, pointer, self.keyed or "", 0))
            document = apply_changes(document, start)[0]
        else:
            start = []
        plain = self._value(document)
        value = find(apply_changes(document, plain)[0], pointer)
        key = {"keys": [{"at": self._time(), "value": value}]}
        return [*start, *plain, Change("put", pointer, key)]

    def _value(self, document: Document) -> list[Change]:
        pointer = pointer_to(document, self.path)
        holder = find(document, pointer[:-1])
        if is_track(holder) and isinstance(pointer[-1], int):
            vector = _value_now(document, pointer[:-1], self._time())
            vector[pointer[-1]] = self.value
            return _put(document, pointer[:-1], _with_key(holder, self._time(), vector))
        if isinstance(holder, dict) and "tie" in holder and isinstance(pointer[-1], int):
            # One number of what follows another as a whole: it follows no more.
            tied = keyable(files.from_data(document), self.path)
            now = value_at(tied.value, np.array(float(self.at or 0))) if tied else np.zeros(3)
            vector = np.round(now, _DIGITS).tolist()
            vector[pointer[-1]] = self.value
            return _put(document, pointer[:-1], vector)
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
        said = f"{title_of(document, self.path)} of {owner_of(document, self.path)}"
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
        return f"{title_of(document, self.path)} of {owner_of(document, self.path)} back to rest"


class KeyEdit(Edit):
    """An edit of the keyframe of one value at the frame `at`, in which the value itself counts."""

    path: str
    at: Frames

    def label(self, document: Document) -> str:
        said = f"{title_of(document, self.path)} of {owner_of(document, self.path)}"
        return self._said.format(at=f"{self.at:g}", value=said)

    _said: ClassVar[str] = "Keyframe at {at} for {value}"


def _holder(document: Document, path: str) -> Pointer:
    """Where the value stands that can have keyframes, at a path or around it; SceneError, saying
    why, if there is none."""
    scene = files.from_data(document)
    pointer_to(document, path)  # the layer or move may be gone
    found = keyable(scene, path)
    if found is None:
        told = "this value holds for the whole time, so it takes no keyframes"
        raise SceneError.at(owner_of(document, path), f"{title_of(document, path).lower()}: {told}")
    if found.is_tied:
        told = "this value follows another: untie it to give it keyframes"
        raise SceneError.at(owner_of(document, path), f"{title_of(document, path).lower()}: {told}")
    return pointer_to(document, found.path)


def _now(document: Document, pointer: Pointer, path: str, at: float) -> Any:
    """The value at a frame, in which it counts; what was left out is at its usual value."""
    old = find(document, pointer)
    if is_track(old):
        return _value_now(document, pointer, at)
    if old is not None:
        return old
    found = keyable(files.from_data(document), path)
    value = found.value if found else None
    if value is None:
        name = title_of(document, path).lower()
        told = f"there is no {name} here yet to make a keyframe of: add it first"
        raise SceneError.at(owner_of(document, path), told)
    return list(value) if isinstance(value, tuple) else value


@edit("add-key")
class AddKey(KeyEdit):
    """Sets a keyframe at the frame `at`, with the value that holds there, or with `value`."""

    value: Any = None

    def changes(self, document: Document) -> list[Change]:
        pointer = _holder(document, self.path)
        return _keyed(document, pointer, self.path, self.at, self.value)


def _keyed(
    document: Document, pointer: Pointer, path: str, at: float, value: Any = None
) -> list[Change]:
    value = _now(document, pointer, path, at) if value is None else value
    old = find(document, pointer)
    track = _with_key(old, at, value) if is_track(old) else {"keys": [{"at": at, "value": value}]}
    return _put(document, pointer, track)


@edit("toggle-key")
class ToggleKey(KeyEdit):
    """Sets a keyframe at the frame `at`, or takes the one away that stands there; the last one
    leaves its value behind."""

    def changes(self, document: Document) -> list[Change]:
        pointer = _holder(document, self.path)
        if _has_key(document, pointer, self.at):
            return _without_key(document, pointer, self.path, self.at)
        return _keyed(document, pointer, self.path, self.at)

    def label(self, document: Document) -> str:
        said = f"{title_of(document, self.path)} of {owner_of(document, self.path)}"
        if _has_key(document, _holder(document, self.path), self.at):
            return f"Keyframe at {self.at:g} removed from {said}"
        return f"Keyframe at {self.at:g} for {said}"


def _has_key(document: Document, pointer: Pointer, at: float) -> bool:
    track = find(document, pointer)
    return is_track(track) and any(key["at"] == at for key in track["keys"])


@edit("hold-to")
class HoldTo(KeyEdit):
    """Holds the value of the last keyframe before the frame `at` up to it, by a keyframe there."""

    _said: ClassVar[str] = "{value} held to {at}"

    def changes(self, document: Document) -> list[Change]:
        pointer = _holder(document, self.path)
        track = find(document, pointer)
        before = [key for key in track["keys"] if key["at"] < self.at] if is_track(track) else []
        if not before:
            return _keyed(document, pointer, self.path, self.at)
        held = _with_key(track, self.at, before[-1]["value"])
        # An ease that looks at its neighbours would leave the value on its way.
        keys = [
            {name: value for name, value in key.items() if name != "ease"}
            if key["at"] == before[-1]["at"] and key.get("ease") in TANGENTS
            else key
            for key in held["keys"]
        ]
        return _put(document, pointer, {**held, "keys": keys})


@edit("set-course")
class SetCourse(Edit):
    """Gives a value keyframes in place of those it has: [{"at", "value", "ease"}, ...].

    Of a vector, one number may be meant: the others stay as they are, at the frames of both.
    """

    path: str
    keys: list[dict[str, Any]] = Field(min_length=1, max_length=1000)

    def changes(self, document: Document) -> list[Change]:
        pointer = _holder(document, self.path)
        found = keyable(files.from_data(document), self.path)
        old = find(document, pointer)
        keys = self.keys
        if found is not None and found.part is not None:
            keys = self._merged(document, pointer, found.part)
        beyond = {n: old[n] for n in ("before", "after") if n in old} if is_track(old) else {}
        return _put(document, pointer, {"keys": keys, **beyond})

    def _merged(self, document: Document, pointer: Pointer, part: int) -> list[dict[str, Any]]:
        """The keys of the vector, one number of which takes the course."""
        old = find(document, pointer)
        theirs = {key["at"]: key for key in old["keys"]} if is_track(old) else {}
        ours = {key["at"]: key for key in self.keys}
        course = _TRACK.validate_python({"keys": self.keys}, strict=False)
        merged = []
        for at in sorted({*theirs, *ours}):
            vector = list(_now(document, pointer, self.path, at))
            vector[part] = course.at_times(np.array(float(at))).tolist()
            ease = (ours.get(at) or theirs[at]).get("ease")
            merged.append({"at": at, "value": vector, **({"ease": ease} if ease else {})})
        return merged

    def label(self, document: Document) -> str:
        said = f"{title_of(document, self.path)} of {owner_of(document, self.path)}"
        return f"{said}: {len(self.keys)} keyframes"


@edit("remove-key")
class RemoveKey(KeyEdit):
    """Takes the keyframe at the frame `at` away; the last one leaves its value behind."""

    _said: ClassVar[str] = "Keyframe at {at} removed from {value}"

    def changes(self, document: Document) -> list[Change]:
        return _without_key(document, pointer_to(document, self.path), self.path, self.at)


def _without_key(document: Document, pointer: Pointer, path: str, at: float) -> list[Change]:
    track = find(document, pointer)
    if not is_track(track):
        raise SceneError.at(path, "this value has no keyframes")
    kept = [key for key in track["keys"] if key["at"] != at]
    if len(kept) == len(track["keys"]):
        raise SceneError.at(path, f"there is no keyframe at frame {at:g}")
    return _put(document, pointer, {**track, "keys": kept} if kept else track["keys"][0]["value"])
