"""Edits of timing as a whole: longer or shorter courses, and delays bent along a curve."""

from pydantic import Field

from ...changes import Change, get
from ...errors import SceneError
from ...values.tracks import is_track
from ..base import Document, Edit, edit
from ..paths import find, owner_of, pointer_to

_DIGITS = 3  # a thousandth of a frame is no longer seen
_BEND = 1.5  # how far the middle may be bent, as a share of the whole


@edit("scale-keys")
class ScaleKeys(Edit):
    """Makes a keyed value slower or faster: its keys stand `factor` times as far from the first."""

    path: str
    factor: float = Field(gt=0.001, lt=1000)

    def changes(self, document: Document) -> list[Change]:
        pointer = pointer_to(document, self.path)
        track = find(document, pointer)
        if not is_track(track):
            raise SceneError.at(self.path, "this value has no keyframes")
        first = track["keys"][0]["at"]
        keys = [
            {**key, "at": round(first + (key["at"] - first) * self.factor, _DIGITS)}
            for key in track["keys"]
        ]
        return [Change("put", pointer, {**track, "keys": keys})]

    def label(self, document: Document) -> str:
        what = "Slower" if self.factor > 1 else "Faster"
        return f"{what}: {owner_of(document, self.path)}"


@edit("bend-stagger")
class BendStagger(Edit):
    """Bends the distribution of delays so that the middle rank is at a share of the whole time.

    0.5 is even; less bunches the first units, more the last. The curve is the cubic Bezier whose
    handles stand at thirds across, both shifted alike: its value at 0.5 is 0.125 + 0.375 (y1 + y2).
    """

    path: str
    middle: float = Field(ge=0.5 - _BEND, le=0.5 + _BEND)

    def changes(self, document: Document) -> list[Change]:
        pointer = pointer_to(document, self.path)
        stagger = get(document, pointer)
        if "times" in stagger:
            raise SceneError.at(self.path, "each unit has a time of its own here")
        shift = ((self.middle - 0.125) / 0.375 - 1) / 2
        handles = [1 / 3, 1 / 3 + shift, 2 / 3, 2 / 3 + shift]
        curve = {"bezier": [round(number, _DIGITS) + 0.0 for number in handles]}  # + 0: no -0
        even = abs(shift) < 10**-_DIGITS
        return [Change("put", (*pointer, "curve"), "linear" if even else curve)]

    def label(self, document: Document) -> str:
        return f"Distribution of {owner_of(document, self.path)} bent"
