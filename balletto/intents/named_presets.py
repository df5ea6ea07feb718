"""Presets that are called by their names, as they stand in the gallery: "Slow drift"."""

import re

from ..scene.document import Scene
from ..scene.errors import SceneError
from ..scene.files import to_data
from ..scene.moving.presets import fits, fitted, presets
from ..sentences.language.tokens import SayingError
from ..sentences.moves.wording import move_text
from ..sentences.reader import move_of, read
from .adding import ADDING
from .situation import Data, Situation

_AROUND = re.compile(r"^(?:add |use |apply )?(?:the |a )?(?:preset )?(.*?)(?: preset| tile)?[.!]?$")
_BRINGS = {"caret": "a caret", "clicks": "the sound of keys"}


def _called(line: str) -> Data | None:
    """The preset of that name; None if there is none, or the words are a sentence of ours."""
    name = _AROUND.sub(r"\1", " ".join(line.lower().split())).replace("“", "").replace("”", "")
    found = next((each for each in presets().values() if each["name"].lower() == name), None)
    if found is None:
        return None
    try:
        read(line)
    except SayingError:
        return found
    return None


def says_preset(document: Scene, line: str, layer: str) -> Data | None:
    """What a line does that is the name of a preset, as the line tells it; else None."""
    preset = _called(line)
    owner = next((each for each in document.layers if each.id == layer), None)
    if preset is None or owner is None or not fits(preset, owner.kind):
        return None
    data = to_data(document)
    own = next(each for each in data["layers"] if each["id"] == layer)
    move = move_of(fitted(preset, data, own))
    told = [preset["name"] + ":", move_text(move, own.get("text"))]
    if brings := [_BRINGS[name] for name in preset.get("with", ()) if name in _BRINGS]:
        told.append(f"With {' and '.join(brings)}.")
    said = " ".join(told)
    told_of = {"what": "move", "said": said, "in_our_words": said, "assumed": ()}
    return {"next": [], "values": [], **told_of}


def typed_preset(situation: Situation, line: str, layers: list[str]) -> list[Data]:
    """The edits for the name of a preset; none, if the line is none."""
    preset = _called(line)
    if preset is None:
        return []
    if not layers:
        raise SceneError.at("", "there is no layer to move: say “a title “Hello”” first")
    wanted = {"name": "add-move", "preset": preset["id"], "layer": layers[0], "layers": layers}
    made = ADDING["add-move"](situation, wanted)
    edits: list[Data] = made["edits"] if made["name"] == "several" else [made]
    return edits
