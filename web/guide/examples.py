"""The examples of the guide, and each as a scene that shows it."""

from functools import cache
from itertools import pairwise
from typing import Any

from balletto.intents.saying import say
from balletto.intents.situation import Selection, Situation
from balletto.scene.edits import apply
from balletto.scene.errors import SceneError
from balletto.scene.starts import new_scene, new_shape, new_title

from .passages import parsed

# What stands there is typed into values, fields, and on the command line.
_NOT_SAID = ("Values", "Keys", "Clips", "Time", "Scenes")
_LENGTH = 72
_MOON = "#39305A"
_SIZE = 260  # px, of the words that examples are shown on


@cache
def examples() -> tuple[str, ...]:
    """All sentences of the guide that can be tried on a title, in the order in which they stand."""
    codes, section = dict[str, None](), ""
    for before, token in pairwise(parsed()):
        section = token.content if before.type == "heading_open" else section
        if section not in _NOT_SAID:
            inner = token.children or ()
            codes |= dict.fromkeys(each.content for each in inner if each.type == "code_inline")
    return tuple(code for code in codes if shown(code) is not None)


@cache
def shown(example: str) -> dict[str, Any] | None:
    """The scene that shows a sentence on a title, which rises as most do where the sentence changes
    a move; None if it says nothing of a title."""
    for moves in ((), ("letters rise 100, fade, every 2",)):
        situation = _stage()
        try:
            for line in moves:
                situation = situation.after([_said(situation, line)])
            situation = situation.after([_said(situation, example)])
        except SceneError:
            continue
        return situation.data
    return None


def _said(situation: Situation, line: str) -> dict[str, Any]:
    moves = situation.layer("t1").get("moves") or [{"id": ""}]
    return say(situation, {"text": line, "layer": "t1", "current": moves[-1]["id"]})


def _stage() -> Situation:
    document = new_scene("Example", (1920, 1080), "30", _LENGTH)
    title = new_title(document)
    title = {**title, "text": "Orbit", "style": {**title["style"], "size": _SIZE}}
    moon = {**new_shape(document, "ellipse"), "name": "Moon", "fill": _MOON}
    for layer in moon, title:  # so that it can be seen what is in front
        document = apply(document, {"name": "add-layer", "layer": layer}).document
    return Situation(document, Selection(layer="t1"))
