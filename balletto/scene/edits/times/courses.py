"""Edits of the course of a value as a whole: loosening a tie, bending the way between keys."""

from itertools import pairwise
from typing import Any

import numpy as np

from ... import files
from ...changes import Change, get
from ...errors import SceneError
from ...model import Frames
from ...values.colors import hex_of
from ...values.ties import find_value
from ...values.tracks import Tied, value_at
from ..base import Document, Edit, edit
from ..paths import owner_of, pointer_to, title_of
from ..values import within_limits

_BULGE = 0.3  # how far a way is bent sideways, as a share of its length


@edit("untie")
class Untie(Edit):
    """Loosens a tie: the value stays as it is at the frame `at`."""

    path: str
    at: Frames = 0

    def changes(self, document: Document) -> list[Change]:
        tied, _ = find_value(files.from_data(document), self.path)
        if not isinstance(tied, Tied):
            raise SceneError.at(self.path, "this value is not tied to another")
        value, pointer = value_at(tied, np.array(self.at)), pointer_to(document, self.path)
        if tied.is_color:
            return [Change("put", pointer, hex_of(value))]
        plain = within_limits(document, pointer, np.round(value, 6)).tolist()
        return [Change("put", pointer, plain)]

    def label(self, document: Document) -> str:
        return f"{title_of(document, self.path)} of {owner_of(document, self.path)} untied"


@edit("bend-way")
class BendWay(Edit):
    """Gives the keys of a position handles that bend the way between them, or takes them away."""

    path: str
    bent: bool = True

    def changes(self, document: Document) -> list[Change]:
        pointer = pointer_to(document, self.path)
        track = get(document, pointer)
        keys: list[dict[str, Any]] = [
            {name: value for name, value in key.items() if name not in ("in", "out")}
            for key in track["keys"]
        ]
        if self.bent:
            for key, following in pairwise(keys):
                across, down = (following["value"][n] - key["value"][n] for n in (0, 1))
                side = (-down * _BULGE, across * _BULGE)
                key["out"] = [round(across / 3 - side[0], 3), round(down / 3 - side[1], 3)]
                following["in"] = [round(-across / 3 - side[0], 3), round(-down / 3 - side[1], 3)]
        return [Change("put", pointer, {**track, "keys": keys})]

    def label(self, document: Document) -> str:
        way = "bent" if self.bent else "straightened"
        return f"Way of {owner_of(document, self.path)} {way}"
