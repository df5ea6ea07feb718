"""Edits of keyframes that are selected together, of one value or of many.

They are named by their places in the keys of each path: {"t1.transform.opacity": [0, 2]}. Frames
are those of the scene, whatever the values themselves count in. A key that comes to stand where
another is takes its place.
"""

from itertools import pairwise
from typing import Any

import numpy as np
from pydantic import Field, TypeAdapter

from ..changes import Change
from ..eases import NAMED_BEZIERS, Ease, ease_function
from ..errors import SceneError
from ..model import Frames
from ..tracks import is_track
from .base import Document, Edit, edit
from .paths import find, frames, frames_said, owner_of, pointer_to, start_of, title_of

Key = dict[str, Any]
Rows = dict[str, tuple[int, ...]]

_EASE: TypeAdapter[Any] = TypeAdapter(Ease)
_SAMPLES = 161  # of an ease that is turned round and has no other form
_THIRDS = (1 / 3, 1 / 3, 2 / 3, 2 / 3)  # the Bezier that is linear


class KeysEdit(Edit):
    """An edit of selected keys, row by row."""

    keys: Rows = Field(min_length=1)

    def changes(self, document: Document) -> list[Change]:
        changes = []
        for path, places in self.keys.items():
            pointer, track = track_of(document, path, places)
            left = self.edited(document, path, track["keys"], sorted(set(places)))
            # The last key that goes leaves its value behind.
            kept = {**track, "keys": left} if left else track["keys"][0]["value"]
            changes.append(Change("put", pointer, kept))
        return changes

    def edited(self, document: Document, path: str, keys: list[Key], places: list[int]) -> list:
        """The keys of a row after the edit; `places` are those selected, in order."""
        raise NotImplementedError

    def said(self, document: Document) -> str:
        """What is selected: "2 keyframes of Opacity of “The Quiet Orbit”"."""
        number = sum(len(set(places)) for places in self.keys.values())
        counted = f"{number} keyframe{'s' if number != 1 else ''}"
        paths = list(self.keys)
        if len(paths) > 1:
            return f"{counted} of {len(paths)} values"
        return f"{counted} of {title_of(document, paths[0])} of {owner_of(document, paths[0])}"

    def times(self, document: Document) -> list[float]:
        """The frames of the scene at which the selected keys stand."""
        return [
            track_of(document, path, places)[1]["keys"][place]["at"] + start_of(document, path)
            for path, places in self.keys.items()
            for place in places
        ]


def track_of(document: Document, path: str, places: tuple[int, ...]) -> tuple[Any, dict[str, Any]]:
    pointer = pointer_to(document, path)
    track = find(document, pointer)
    if not is_track(track):
        raise SceneError.at(path, "this value has no keyframes")
    if not places or not all(0 <= place < len(track["keys"]) for place in places):
        raise SceneError.at(path, "these keyframes are not there any more")
    return pointer, track


def retimed(keys: list[Key], times: dict[int, float]) -> list[Key]:
    """The keys with those at the given places at other times, in order of time."""
    moved = [{**keys[place], "at": frames(at)} for place, at in times.items()]
    taken = {key["at"] for key in moved}
    stayed = [
        key for place, key in enumerate(keys) if place not in times and key["at"] not in taken
    ]
    if len(taken) < len(moved):
        raise SceneError.at("keys", "two of the keyframes would stand at the same frame")
    return sorted([*stayed, *moved], key=lambda key: key["at"])


@edit("shift-keys")
class ShiftKeys(KeysEdit):
    """Moves keys in time by a number of frames."""

    by: Frames

    def edited(self, document: Document, path: str, keys: list[Key], places: list[int]) -> list:
        return retimed(keys, {place: keys[place]["at"] + self.by for place in places})

    def label(self, document: Document) -> str:
        way = "later" if self.by > 0 else "earlier"
        return f"{self.said(document)} {frames_said(abs(self.by))} {way}"


@edit("stretch-keys")
class StretchKeys(KeysEdit):
    """Makes a stretch of keys slower or faster: they stand `factor` times as far from `about`."""

    about: Frames
    factor: float = Field(gt=0, le=1000)

    def edited(self, document: Document, path: str, keys: list[Key], places: list[int]) -> list:
        about = self.about - start_of(document, path)
        times = {place: about + (keys[place]["at"] - about) * self.factor for place in places}
        return retimed(keys, times)

    def label(self, document: Document) -> str:
        return f"{self.said(document)}: {self.factor * 100:.4g} % of the time"


@edit("align-keys")
class AlignKeys(KeysEdit):
    """Moves the keys of each row so that the first selected one stands at the frame `at`."""

    at: Frames

    def edited(self, document: Document, path: str, keys: list[Key], places: list[int]) -> list:
        by = self.at - start_of(document, path) - keys[places[0]]["at"]
        return retimed(keys, {place: keys[place]["at"] + by for place in places})

    def label(self, document: Document) -> str:
        return f"{self.said(document)} aligned to frame {self.at:g}"


@edit("reverse-keys")
class ReverseKeys(KeysEdit):
    """Turns keys round in time: the last comes first, and the way between them runs backwards."""

    def edited(self, document: Document, path: str, keys: list[Key], places: list[int]) -> list:
        times, start = self.times(document), start_of(document, path)
        total = min(times) + max(times) - 2 * start
        turned = list(keys)
        for earlier, later in pairwise(places):
            turned[later] = _eased(keys[later], turned_round(keys[earlier].get("ease", "linear")))
        turned[places[0]] = _eased(keys[places[0]], keys[places[-1]].get("ease", "linear"))
        for place in places:
            turned[place] = _handles_swapped(turned[place])
        return retimed(turned, {place: total - keys[place]["at"] for place in places})

    def label(self, document: Document) -> str:
        return f"{self.said(document)} reversed"


def _eased(key: Key, ease: Any) -> Key:
    plain = {name: value for name, value in key.items() if name != "ease"}
    return plain if ease == "linear" else {**plain, "ease": ease}


def _handles_swapped(key: Key) -> Key:
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

    def edited(self, document: Document, path: str, keys: list[Key], places: list[int]) -> list:
        return [key for place, key in enumerate(keys) if place not in places]

    def label(self, document: Document) -> str:
        return f"{self.said(document)} removed"


@edit("ease-keys")
class EaseKeys(KeysEdit):
    """Sets the ease of the stretches between selected keys.

    A key that is selected alone in its row means the stretch that leaves it; the last of all, the
    one that comes to it.
    """

    ease: Any

    def edited(self, document: Document, path: str, keys: list[Key], places: list[int]) -> list:
        eased = stretches(len(keys), places)
        return [_eased(key, self.ease) if place in eased else key for place, key in enumerate(keys)]

    def label(self, document: Document) -> str:
        named = self.ease if isinstance(self.ease, str) else next(iter(self.ease), "a curve")
        return f"{self.said(document)}: {named.replace('-', ' ')}"


def stretches(count: int, places: list[int]) -> list[int]:
    """The places of the keys that those stretches leave which a selection of keys means."""
    inner = places[:-1] if len(places) > 1 else places
    return [min(place, count - 2) for place in inner if count > 1]


@edit("flatten-keys")
class FlattenKeys(KeysEdit):
    """Lets the curve come to the selected keys and leave them level, so that none is passed."""

    def edited(self, document: Document, path: str, keys: list[Key], places: list[int]) -> list:
        flat = [dict(key) for key in keys]
        for place, (key, _) in enumerate(pairwise(keys)):
            handles = handles_of(key.get("ease", "linear"))
            if handles is None or not {place, place + 1} & set(places):
                continue
            x1, y1, x2, y2 = handles
            level = [x1, 0 if place in places else y1, x2, 1 if place + 1 in places else y2]
            flat[place] = _eased(key, _named(level))
        return flat

    def label(self, document: Document) -> str:
        return f"{self.said(document)} flattened"
