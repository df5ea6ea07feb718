"""Where a layer stands, said in words: at a side of the picture, beside another layer, behind
it."""

from typing import Any

from ..picture.bounds import position_at_sides, position_beside
from ..scene.errors import SceneError
from .layer_names import layer_called
from .situation import Data, Situation
from .stacking import at_an_end, at_another

_BETWEEN = 0.03  # of the picture's shorter side, between what stands beside each other
_IN_WORDS = ("side", "margin", "beside.", "order")


def in_words(place: Data) -> tuple[Data, Data]:
    """What is said of a place: in words, and in numbers."""
    words = {name: value for name, value in place.items() if name.startswith(_IN_WORDS)}
    return words, {name: value for name, value in place.items() if name not in words}


def stood(situation: Situation, layer: str, said: Data, is_new: bool = False) -> list[Data]:
    """The edits for where a layer stands as it is said in words. What is new has its middle in line
    with what it stands beside."""
    edits: list[Data] = []
    for stand in (_at_side, _beside, _in_stack):
        made = stand(situation, layer, said, is_new)
        if made:
            edits += made
            situation = situation.after(made)
    return edits


_NO_ROOM = "this takes up no room, so it can stand at no side"
_UNSEEN = "both must take up room and show at this frame: go to a frame where they do"


def _put(layer: str, position: Any, told: str) -> list[Data]:
    if position is None:
        raise SceneError.at(layer, told)
    return [{"name": "set-value", "path": f"{layer}.transform.position", "value": position}]


def _at_side(situation: Situation, layer: str, said: Data, _: bool) -> list[Data]:
    if "side" not in said:
        if "margin" in said:
            told = "say from which edge: “at the lower left, 60 px from the edge”"
            raise SceneError.at(layer, told)
        return []
    frame, margin = situation.selection.frame, said.get("margin")
    scene, sides = situation.document, said["side"]
    return _put(layer, position_at_sides(scene, layer, frame, sides, margin), _NO_ROOM)


# By where a layer is beside another: along which axis that is, and to which side.
_SIDES = {"below": ("y", 1), "above": ("y", -1), "left": ("x", -1), "right": ("x", 1)}


def _beside(situation: Situation, layer: str, said: Data, is_new: bool) -> list[Data]:
    if "beside.of" not in said:
        return []
    scene, selected = situation.document, [situation.selection.layer or ""]
    other = layer_called(scene, said["beside.of"], [layer], selected).id
    axis, sign = _SIDES[said.get("beside.at", "below")]
    usual = round(_BETWEEN * min(scene.size))
    by = said.get("beside.y", sign * said.get("beside.by", usual))
    frame = situation.selection.frame
    how = ("xy".index(axis), by, is_new)
    return _put(layer, position_beside(scene, layer, other, frame, how), _UNSEEN)


def _in_stack(situation: Situation, layer: str, said: Data, _: bool) -> list[Data]:
    if end := said.get("order"):
        return at_an_end(situation, [layer], end == "front")
    if "order.at" not in said:
        return []
    selected = [situation.selection.layer or ""]
    other = layer_called(situation.document, said["order.of"], [layer], selected).id
    return at_another(situation, [layer], other, said["order.at"] == "front")
