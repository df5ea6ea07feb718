"""The edit of the frame rate, under which everything keeps its seconds."""

from typing import Any

from ..changes import Change
from ..document import rate_of
from ..errors import SceneError
from .base import Document, Edit, edit

# The names under which numbers of frames stand. Keys of a track that changes one of _LASTING hold
# frames as values as well.
_MOMENTS = ("at", "start", "gap", "span", "times", "delay")
_LASTING = ("period", "hold")
# What counts where a selector says nothing: to be said once frames are others.
_SAID_BY_NONE = {"wave": ("period", 30), "jitter": ("hold", 3)}
_DIGITS = 12  # so many that a tick of a shake stays on its frame


@edit("set-rate")
class SetRate(Edit):
    """Sets the frame rate, as "25" or "30000/1001": every frame moves to where its second is."""

    passes_locks = True

    value: str

    def changes(self, document: Document) -> list[Change]:
        try:
            factor = float(rate_of(self.value) / rate_of(document["rate"]))
        except (ValueError, ZeroDivisionError):
            told = 'a rate from 1 to 240 frames a second is needed, as "30" or "30000/1001"'
            raise SceneError.at("rate", told) from None
        length = max(1, round(document["length"] * factor))
        changes = [Change("put", ("rate",), self.value), Change("put", ("length",), length)]
        for index, layer in enumerate(document.get("layers", [])):
            first, end = layer["span"]
            is_whole = end == document["length"]
            scaled = {
                **in_rate(layer, factor),
                "span": [_times(first, factor), length if is_whole else _times(end, factor)],
            }
            changes.append(Change("put", ("layers", index), scaled))
        if "markers" in document:
            changes.append(Change("put", ("markers",), in_rate(document["markers"], factor)))
        return changes

    def label(self, document: Document) -> str:
        return f"Rate: {_said(document['rate'])} to {_said(self.value)} frames a second"


def _said(rate: str) -> str:
    try:
        return f"{float(rate_of(rate)):.6g}"
    except (ValueError, ZeroDivisionError):
        return rate


def _times(frames: float, factor: float) -> float:
    scaled = round(frames * factor, _DIGITS)
    return int(scaled) if scaled == int(scaled) else scaled


def in_rate(data: Any, factor: float) -> Any:
    """Plain data of a scene with all its frames `factor` times as many, new."""
    if isinstance(data, list):
        return [in_rate(item, factor) for item in data]
    if not isinstance(data, dict):
        return data
    scaled = {}
    for name, value in data.items():
        if name == "start" and "file" in data:
            scaled[name] = value  # what is played counts in seconds
        elif name in _MOMENTS and isinstance(value, int | float):
            scaled[name] = _times(value, factor)
        elif name in _MOMENTS and isinstance(value, list):
            scaled[name] = [_times(item, factor) for item in value]
        elif name in _LASTING:
            scaled[name] = _lasting(value, factor)
        elif name == "tie":
            scaled[name] = _tie(value, 1.0, factor)
        else:
            scaled[name] = in_rate(value, factor)
    name, frames = _SAID_BY_NONE.get(data.get("kind", ""), ("", 0))
    if name and name not in data and "every" not in data:
        scaled[name] = _times(frames, factor)
    return scaled


def _lasting(value: Any, factor: float) -> Any:
    """A number of frames that may itself be keyed or tied."""
    if not isinstance(value, dict):
        return _times(value, factor)
    if "tie" in value:
        return {"tie": _tie(value["tie"], factor, factor)}
    keys = [{**key, "value": _times(key["value"], factor)} for key in value["keys"]]
    return in_rate({**value, "keys": keys}, factor)


def _tie(tie: dict[str, Any], own: float, factor: float) -> dict[str, Any]:
    """A tie whose own value becomes `own` times as large. What it follows has become larger by
    `factor` if its path names a number of frames."""
    names = [name for name in tie["to"].split(".") if not name.isdigit()]
    followed = factor if names[-1] in (*_MOMENTS, *_LASTING, "length") else 1.0
    scaled = {**tie}
    if own != followed:
        scaled["gain"] = tie.get("gain", 1) * own / followed
    for name, times in (("plus", own), ("delay", factor)):
        if name in tie:
            scaled[name] = _times(tie[name], times)
    return scaled
