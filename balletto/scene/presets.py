"""Ready-made moves, in the scene's own format: data in presets.json beside this file.

They are made for type of 120 px in a picture of 1920 x 1080 at 30 frames a second; `fitted` makes
one suit the title that it is given to.
"""

import json
from functools import lru_cache
from pathlib import Path
from typing import Any

from .document import rate_of
from .edits.rate import in_rate

_SIZE, _WIDTH, _HEIGHT, _RATE = 120, 1920, 1080, 30
_LENGTHS = ("x", "y", "blur", "outline", "displace")
_RADII = ("inner", "outer", "width")
_POINTS = ("center", "from", "to", "point")


@lru_cache(maxsize=1)
def presets() -> dict[str, dict[str, Any]]:
    """The presets by id, in the order of the gallery: {"id", "group", "name", "move"}.

    Some have a "title" too: what else the title needs. The lengths of one with the "measure"
    "picture" belong to the picture, not to the type.
    """
    text = Path(__file__).with_suffix(".json").read_text(encoding="utf-8")
    return {preset["id"]: preset for preset in json.loads(text)}


def fitted(preset: dict[str, Any], document: dict[str, Any], layer: dict[str, Any]) -> Any:
    """The move of a preset as plain data for a layer of a scene: in its frames, as large as its
    type, and an exit at the end of the layer as far as its own course is long."""
    width, height = document["size"]
    in_picture = (width / _WIDTH, height / _HEIGHT)
    size = layer.get("style", {}).get("size", _SIZE) / _SIZE
    scale = min(in_picture) if preset.get("measure") == "picture" else size
    factor = float(rate_of(document["rate"])) / _RATE
    move = preset["move"] if factor == 1 else _in_whole_frames(in_rate(preset["move"], factor))
    pose = {
        name: _rounded(value * scale) if name in _LENGTHS else value
        for name, value in move["pose"].items()
    }
    move = _in_picture({**move, "pose": pose}, in_picture)
    if preset["group"] == "Exits":
        late = move["amount"]["keys"][-1]["at"] + _spread(move, layer)
        move["start"] = max(layer["span"][0], round(layer["span"][1] - late))
    return move


def _in_whole_frames(data: Any) -> Any:
    """Moments on whole frames, gaps on halves: what another rate makes of round numbers is not."""
    if isinstance(data, list):
        return [_in_whole_frames(item) for item in data]
    if not isinstance(data, dict):
        return data
    whole = {}
    for name, value in data.items():
        if name == "gap":
            whole[name] = max(0.5, round(value * 2) / 2)
        elif name in ("start", "span") and isinstance(value, int | float):
            whole[name] = round(value)
        elif name in ("period", "hold") and isinstance(value, int | float):
            whole[name] = max(1, round(value))
        elif name == "keys":
            whole[name] = _keys_on_frames(value)
        else:
            whole[name] = _in_whole_frames(value)
    return whole


def _keys_on_frames(keys: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """Keys on whole frames, each at least one after the last, however few frames a second has."""
    whole: list[dict[str, Any]] = []
    for key in keys:
        earliest = whole[-1]["at"] + 1 if whole else round(key["at"])
        whole.append({**key, "at": max(earliest, round(key["at"]))})
    return whole


def _rounded(value: float) -> float:
    return round(value, 0 if abs(value) >= 10 else 1)


def _in_picture(data: Any, scale: tuple[float, float]) -> Any:
    """Points and radii of the picture at its size."""
    if not isinstance(data, dict):
        return [_in_picture(item, scale) for item in data] if isinstance(data, list) else data
    fitted = {}
    for name, value in data.items():
        if name in _POINTS and isinstance(value, list):
            fitted[name] = [round(part * by, 1) for part, by in zip(value, scale, strict=True)]
        elif name in _POINTS and isinstance(value, dict) and "keys" in value:
            keys = [
                {
                    **key,
                    "value": [round(p * by, 1) for p, by in zip(key["value"], scale, strict=True)],
                }
                for key in value["keys"]
            ]
            fitted[name] = {**value, "keys": keys}
        elif name in _RADII and isinstance(value, int | float):
            fitted[name] = round(value * scale[0], 1)
        else:
            fitted[name] = _in_picture(value, scale)
    return fitted


def _spread(move: dict[str, Any], layer: dict[str, Any]) -> float:
    """About how long a stagger takes from its first unit to its last."""
    stagger = move.get("stagger", {})
    words = layer["text"].split()
    counts = {
        "character": sum(map(len, words)),
        "word": len(words),
        "line": len(layer["text"].splitlines()),
    }
    return stagger.get("span", stagger.get("gap", 0) * max(0, counts.get(move["unit"], 1) - 1))
