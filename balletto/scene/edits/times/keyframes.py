"""Edits of keyframes that are selected together, of one value or of many.

They are named by their indices in the keys of each path: {"t1.transform.opacity": [0, 2]}. Frames
are those of the scene, whatever the values themselves count in. A key that comes to stand where
another is takes its place.
"""

from itertools import pairwise
from typing import Any

import numpy as np
from pydantic import Field, TypeAdapter

from ...changes import Change
from ...eases import NAMED_BEZIERS, Ease, ease_function
from ...errors import SceneError
from ...model import Frames
from ...values.tracks import is_track
from ..base import Document, Edit, edit
from ..paths import find, frames, frames_said, owner_of, pointer_to, start_of, title_of

KeyData = dict[str, Any]
Rows = dict[str, tuple[int, ...]]

_EASE: TypeAdapter[Any] = TypeAdapter(Ease)
_SAMPLES = 161  # of an ease that is turned round and has no other form
_THIRDS = (1 / 3, 1 / 3, 2 / 3, 2 / 3)  # the Bezier that is linear


class KeysEdit(Edit):
    """An edit of selected keys, row by row."""

    keys: Rows = Field(min_length=1)

    def changes(self, document: Document) -> list[Change]:
        changes = []
        for path, indices in self.keys.items():
            pointer, track = track_of(document, path, indices)
            left = self.edited(document, path, track["keys"], sorted(set(indices)))
            # The last key that goes leaves its value behind.
            kept = {**track, "keys": left} if left else track["keys"][0]["value"]
            changes.append(Change("put", pointer, kept))
        return changes

    def edited(
        self, document: Document, path: str, keys: list[KeyData], indices: list[int]
    ) -> list[KeyData]:
        """The keys of a row after the edit; `indices` are those selected, in order."""
        raise NotImplementedError

    def said(self, document: Document) -> str:
        """What is selected: "2 keyframes of Opacity of “The Quiet Orbit”"."""
        number = sum(len(set(indices)) for indices in self.keys.values())
        counted = f"{number} keyframe{'s' if number != 1 else ''}"
        paths = list(self.keys)
        if len(paths) > 1:
            return f"{counted} of {len(paths)} values"
        return f"{counted} of {title_of(document, paths[0])} of {owner_of(document, paths[0])}"

    def times(self, document: Document) -> list[float]:
        """The frames of the scene at which the selected keys stand."""
        return [
            track_of(document, path, indices)[1]["keys"][index]["at"] + start_of(document, path)
            for path, indices in self.keys.items()
            for index in indices
        ]


def track_of(document: Document, path: str, indices: tuple[int, ...]) -> tuple[Any, dict[str, Any]]:
    pointer = pointer_to(document, path)
    track = find(document, pointer)
    if not is_track(track):
        raise SceneError.at(path, "this value has no keyframes")
    if not indices or not all(0 <= index < len(track["keys"]) for index in indices):
        raise SceneError.at(path, "these keyframes are not there any more")
    return pointer, track


def retimed(keys: list[KeyData], times: dict[int, float]) -> list[KeyData]:
    """The keys with those at the given indices at other times, in order of time."""
    moved = [{**keys[index], "at": frames(at)} for index, at in times.items()]
    taken = {key["at"] for key in moved}
    stayed = [
        key for index, key in enumerate(keys) if index not in times and key["at"] not in taken
    ]
    if len(taken) < len(moved):
        raise SceneError.at("keys", "two of the keyframes would stand at the same frame")
    return sorted([*stayed, *moved], key=lambda key: key["at"])


@edit("shift-keys")
class ShiftKeys(KeysEdit):
    """Moves keys in time by a number of frames."""

    by: Frames

    def edited(
        self, document: Document, path: str, keys: list[KeyData], indices: list[int]
    ) -> list[KeyData]:
        return retimed(keys, {index: keys[index]["at"] + self.by for index in indices})

    def label(self, document: Document) -> str:
        way = "later" if self.by > 0 else "earlier"
        return f"{self.said(document)} {frames_said(abs(self.by))} {way}"


@edit("stretch-keys")
class StretchKeys(KeysEdit):
    """Makes a stretch of keys slower or faster: they stand `factor` times as far from `about`."""

    about: Frames
    factor: float = Field(gt=0, le=1000)

    def edited(
        self, document: Document, path: str, keys: list[KeyData], indices: list[int]
    ) -> list[KeyData]:
        about = self.about - start_of(document, path)
        times = {index: about + (keys[index]["at"] - about) * self.factor for index in indices}
        return retimed(keys, times)

    def label(self, document: Document) -> str:
        return f"{self.said(document)}: {self.factor * 100:.4g} % of the time"


@edit("align-keys")
class AlignKeys(KeysEdit):
    """Moves the keys of each row so that the first selected one stands at the frame `at`."""

    at: Frames

    def edited(
        self, document: Document, path: str, keys: list[KeyData], indices: list[int]
    ) -> list[KeyData]:
        by = self.at - start_of(document, path) - keys[indices[0]]["at"]
        return retimed(keys, {index: keys[index]["at"] + by for index in indices})

    def label(self, document: Document) -> str:
        return f"{self.said(document)} aligned to frame {self.at:g}"


@edit("reverse-keys")
class ReverseKeys(KeysEdit):
    """Turns keys round in time: the last comes first, and the way between them runs backwards."""

    def edited(
        self, document: Document, path: str, keys: list[KeyData], indices: list[int]
    ) -> list[KeyData]:
        times, start = self.times(document), start_of(document, path)
        total = min(times) + max(times) - 2 * start
        turned = list(keys)
        for earlier, later in pairwise(indices):
            turned[later] = _eased(keys[later], turned_round(keys[earlier].get("ease", "linear")))
        turned[indices[0]] = _eased(keys[indices[0]], keys[indices[-1]].get("ease", "linear"))
        for index in indices:
            turned[index] = _handles_swapped(turned[index])
        return retimed(turned, {index: total - keys[index]["at"] for index in indices})

    def label(self, document: Document) -> str:
        return f"{self.said(document)} reversed"


def backwards(track: dict[str, Any], total: float | None = None) -> dict[str, Any]:
    """A track that is run through from its end: at the same times, or mirrored between 0 and
    `total`."""
    keys = track["keys"]
    total = keys[0]["at"] + keys[-1]["at"] if total is None else total
    eases = [turned_round(key.get("ease", "linear")) for key in keys[:-1]]
    turned = [
        _eased(_handles_swapped({**key, "at": frames(total - key["at"])}), ease)
        for key, ease in zip(keys[::-1], [*eases[::-1], "linear"], strict=True)
    ]
    ends = {"before": track.get("after"), "after": track.get("before")}
    return {"keys": turned, **{name: way for name, way in ends.items() if way}}


def _eased(key: KeyData, ease: Any) -> KeyData:
    plain = {name: value for name, value in key.items() if name != "ease"}
    return plain if ease == "linear" else {**plain, "ease": ease}


def _handles_swapped(key: KeyData) -> KeyData:
    swapped = {"in": "out", "out": "in"}
    return {swapped.get(name, name): value for name, value in key.items()}


def turned_round(ease: Any) -> Any:
    """The ease that goes the same way backwards: s becomes 1 - ease(1 - s)."""
    bezier = handles_of(ease)
    if ease in ("linear", "auto", "flow"):
        return ease
    if bezier:
        x1, y1, x2, y2 = bezier
        return _named([1 - x2, 1 - y2, 1 - x1, 1 - y1])
    if ease == "hold":
        return {"steps": 1, "jump": "start"}
    if "steps" in ease:
        ends = {"start": "end", "end": "start"}
        jump = ease.get("jump", "end")
        turned = {**ease, "jump": ends.get(jump, jump)}
        return "hold" if turned == {"steps": 1, "jump": "end"} else turned
    s = np.linspace(0, 1, _SAMPLES)
    values = 1 - ease_function(_EASE.validate_python(ease, strict=False))(1 - s)
    values[[0, -1]] = 0, 1
    return {"points": [[float(p), float(v)] for p, v in zip(s, values.round(6), strict=True)]}


def handles_of(ease: Any) -> tuple[float, ...] | None:
    """The four numbers of an ease that is a Bezier curve; None for any other."""
    if isinstance(ease, str):
        return _THIRDS if ease == "linear" else NAMED_BEZIERS.get(ease)
    return tuple(ease["bezier"]) if "bezier" in ease else None


def _named(bezier: list[float]) -> Any:
    """A Bezier ease, by its name if it has one."""
    rounded = [round(number, 6) + 0.0 for number in bezier]  # + 0: no -0
    named = (name for name, known in NAMED_BEZIERS.items() if list(known) == rounded)
    return next(named, {"bezier": rounded})


@edit("remove-keys")
class RemoveKeys(KeysEdit):
    """Takes keys away; where none is left, the value of the first stays."""

    def edited(
        self, document: Document, path: str, keys: list[KeyData], indices: list[int]
    ) -> list[KeyData]:
        return [key for index, key in enumerate(keys) if index not in indices]

    def label(self, document: Document) -> str:
        return f"{self.said(document)} removed"


@edit("ease-keys")
class EaseKeys(KeysEdit):
    """Sets the ease of the stretches between selected keys.

    A key that is selected alone in its row means the stretch that leaves it; the last of all, the
    one that comes to it.
    """

    ease: Any

    def edited(
        self, document: Document, path: str, keys: list[KeyData], indices: list[int]
    ) -> list[KeyData]:
        eased = stretches(len(keys), indices)
        return [_eased(key, self.ease) if index in eased else key for index, key in enumerate(keys)]

    def label(self, document: Document) -> str:
        named = self.ease if isinstance(self.ease, str) else next(iter(self.ease), "a curve")
        return f"{self.said(document)}: {named.replace('-', ' ')}"


def stretches(count: int, indices: list[int]) -> list[int]:
    """The indices of the keys that those stretches leave which a selection of keys means."""
    inner = indices[:-1] if len(indices) > 1 else indices
    return [min(index, count - 2) for index in inner if count > 1]


@edit("flatten-keys")
class FlattenKeys(KeysEdit):
    """Lets the curve come to the selected keys and leave them level, so that none is passed."""

    def edited(
        self, document: Document, path: str, keys: list[KeyData], indices: list[int]
    ) -> list[KeyData]:
        flat = [dict(key) for key in keys]
        for index, (key, _) in enumerate(pairwise(keys)):
            handles = handles_of(key.get("ease", "linear"))
            if handles is None or not {index, index + 1} & set(indices):
                continue
            x1, y1, x2, y2 = handles
            level = [x1, 0 if index in indices else y1, x2, 1 if index + 1 in indices else y2]
            flat[index] = _eased(key, _named(level))
        return flat

    def label(self, document: Document) -> str:
        return f"{self.said(document)} flattened"
