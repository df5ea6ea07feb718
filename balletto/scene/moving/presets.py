"""Ready-made moves, in the scene's own format: data in presets.json beside this file.

They are made for type of 120 px in a picture of 1920 x 1080 at 30 frames a second; `fitted` makes
one suit the title that it is given to.
"""

import json
from collections.abc import Collection
from functools import lru_cache
from pathlib import Path
from typing import Any

from ..document import rate_of
from ..edits.times.rate import InRate
from ..layers.title import Title
from ..model import Counts
from ..pose import PROPERTIES
from ..rewriting import Mark, Rewriter, Where
from ..starts import color_of, new_caret, new_clicks
from .moves import Move

_SIZE, _WIDTH, _HEIGHT, _RATE = 120, 1920, 1080, 30


@lru_cache(maxsize=1)
def presets() -> dict[str, dict[str, Any]]:
    """The presets by id, in the order of the gallery: {"id", "group", "name", "move"}.

    Some have a "title" too: what else the title needs. The lengths of one with the "measure"
    "picture" belong to the picture, not to the type.
    """
    text = Path(__file__).with_suffix(".json").read_text(encoding="utf-8")
    return {preset["id"]: preset for preset in json.loads(text)}


# What each part of a preset's pose is called on its own.
PARTS: dict[str, str] = {
    **{name: each.preset_part for name, each in PROPERTIES.items()},
    "off": "off the picture",
    "axes.wght": "weight",
}


# What comes with some presets, as it is told.
_BESIDE = {"caret": "caret", "clicks": "sound of keys"}


def parts_of(preset: dict[str, Any]) -> list[tuple[str, str]]:
    """What a preset does, part by part, each of which can be left out: names and words."""
    pose = preset["move"]["pose"]
    axes = [f"axes.{tag}" for tag in pose.get("axes", {})]
    names = [name for name in pose if name not in ("axes", "off_of")] + axes
    return [(name, PARTS[name]) for name in names] + [
        (name, _BESIDE[name]) for name in preset.get("with", ())
    ]


def without(preset: dict[str, Any], parts: Collection[str]) -> dict[str, Any]:
    """A preset that leaves out parts of its pose, but not all of them."""
    beside = preset.get("with", ())
    kept = [name for name, _ in parts_of(preset) if name not in parts and name not in beside]
    if "with" in preset:
        preset = {**preset, "with": [name for name in beside if name not in parts]}
    if not kept:
        return preset
    pose = {name: value for name, value in preset["move"]["pose"].items() if name in kept}
    axes = preset["move"]["pose"].get("axes", {})
    left = {tag: value for tag, value in axes.items() if f"axes.{tag}" in kept}
    if left:
        pose["axes"] = left
    if "off" in kept and "off_of" in preset["move"]["pose"]:
        pose["off_of"] = preset["move"]["pose"]["off_of"]
    return {**preset, "move": {**preset["move"], "pose": pose}}


def fitted(preset: dict[str, Any], document: dict[str, Any], layer: dict[str, Any]) -> Any:
    """The move of a preset as plain data for a layer of a scene: in its frames, as large as its
    type, and an exit at the end of the layer as far as its own course is long."""
    sized = _sized_for(preset, document, layer)
    factor = float(rate_of(document["rate"])) / _RATE
    move = preset["move"]
    if factor != 1:
        move = _OnWholeFrames().part(Move, InRate(factor).part(Move, move))
        move = _in_order(move)
    move = sized.part(Move, move)
    if layer["kind"] != "title":
        move = _for_whole_layer(move, layer)
    if preset["group"] == "Exits":
        late = move["amount"]["keys"][-1]["at"] + _spread(move, layer)
        move["start"] = max(layer["span"][0], round(layer["span"][1] - late))
    return move


def fits(preset: dict[str, Any], kind: str) -> bool:
    """Whether the move of a preset has anything to do for a kind of layer."""
    if kind == "title":
        return True
    pose = preset["move"].get("pose", {})
    return not pose or any(name in pose for name in set(pose) - _OF_LETTERS)


# What has a meaning for letters alone.
_OF_LETTERS = {
    *(name for name, each in PROPERTIES.items() if each.is_of_letters),
    "axes", "off", "off_of",
}  # fmt: skip


def _for_whole_layer(move: dict[str, Any], layer: dict[str, Any]) -> dict[str, Any]:
    """The move for a layer that is no title: as a whole, or by the members of a group."""
    kept = {
        name: value for name, value in move.items() if name not in ("spaces", "pivot", "pivot_of")
    }
    pose = {n: value for n, value in move.get("pose", {}).items() if n not in _OF_LETTERS}
    unit = "copy" if layer.get("formation") else "layer"
    if unit == "layer" and layer["kind"] == "group" and move.get("unit", "character") != "title":
        unit = "member"
    stagger = {n: v for n, v in move.get("stagger", {}).items() if n != "groups"}
    kept |= {"unit": unit, "pose": pose, **({"stagger": stagger} if stagger else {})}
    return kept if unit != "layer" else {n: v for n, v in kept.items() if n != "stagger"}


def needed_of(
    preset: dict[str, Any], document: dict[str, Any], layer: dict[str, Any]
) -> dict[str, Any]:
    """What else a layer needs for the move of a preset, as large as its type. A window that it has
    stays as it is."""
    needed = _sized_for(preset, document, layer).part(Title, preset.get("title", {}))
    if preset.get("title_outline") and not layer["style"].get("outline"):
        needed["style"] = {**layer["style"], **_outline_of(layer["style"])}
        return needed
    return {name: value for name, value in needed.items() if not isinstance(layer.get(name), dict)}


def _outline_of(style: dict[str, Any]) -> dict[str, Any]:
    """An outline that suits a title: thin, and of the colour of its fill."""
    width = _rounded(style.get("size", _SIZE) / 50)
    return {"outline": width, "outline_color": color_of(style)}


def beside(preset: dict[str, Any], layer: dict[str, Any], move: str) -> dict[str, Any]:
    """What comes with the move of a preset, once it has an id: the caret of its title, and a layer
    of clicks."""
    made = {"caret": new_caret(layer, move), "clicks": new_clicks(layer, move)}
    return {name: made[name] for name in preset.get("with", ())}


def _sized_for(
    preset: dict[str, Any], document: dict[str, Any], layer: dict[str, Any]
) -> "_SizedForPreset":
    width, height = document["size"]
    in_picture = (width / _WIDTH, height / _HEIGHT)
    size = layer.get("style", {}).get("size", _SIZE) / _SIZE
    return _SizedForPreset(
        min(in_picture) if preset.get("measure") == "picture" else size, in_picture
    )


class _OnWholeFrames(Rewriter):
    """Moments on whole frames, gaps on halves: what another rate makes of round numbers is not."""

    def number(self, value: float, mark: Mark, where: Where) -> float:
        if mark.counts is Counts.MOMENT:
            return round(value)
        if mark.counts is not Counts.DURATION:
            return value
        if where.name == "gap":
            return max(0.5, round(value * 2) / 2)
        # What lasts may not last for nothing; a delay may be none.
        return max(1, round(value)) if getattr(mark, "gt", None) == 0 else round(value)


def _in_order(data: Any) -> Any:
    """Keys each at least one frame after the last, however few frames a second has."""
    if isinstance(data, list):
        return [_in_order(item) for item in data]
    if not isinstance(data, dict):
        return data
    ordered = {name: _in_order(value) for name, value in data.items()}
    if "keys" in data:
        earliest = ordered["keys"][0]["at"]
        for key in ordered["keys"]:
            key["at"] = earliest = max(earliest, key["at"])
            earliest += 1
    return ordered


def _rounded(value: float) -> float:
    return round(value, 0 if abs(value) >= 10 else 1)


class _SizedForPreset(Rewriter):
    """Lengths of the pose as large as the type, points and radii of the picture at its size."""

    def __init__(self, scale: float, in_picture: tuple[float, float]):
        self._scale, self._in_picture = scale, in_picture

    def number(self, value: Any, mark: Mark, where: Where) -> Any:
        if mark.counts is Counts.LENGTH:
            return _rounded(value * self._scale)
        if mark.counts is Counts.PICTURE_POINT:
            both = zip(value, self._in_picture, strict=True)
            return [round(part * by, 1) for part, by in both]
        if mark.counts is Counts.PICTURE_LENGTH:
            return round(value * self._in_picture[0], 1)
        return value


def _spread(move: dict[str, Any], layer: dict[str, Any]) -> float:
    """About how long a stagger takes from its first unit to its last."""
    stagger = move.get("stagger", {})
    if layer["kind"] != "title":
        return 0.0
    words = layer["text"].split()
    counts = {
        "character": sum(map(len, words)),
        "word": len(words),
        "line": len(layer["text"].splitlines()),
    }
    return stagger.get("span", stagger.get("gap", 0) * max(0, counts.get(move["unit"], 1) - 1))
