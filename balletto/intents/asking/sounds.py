"""The edits for what is asked of sounds: "the sound at {n} % of its loudness"."""

import math
from collections.abc import Callable
from typing import Any

from ...scene.errors import SceneError
from ..situation import Data, Situation

Ask = Callable[[Situation, list[str], list[Any]], list[Data]]
_SOFTEST = 0.001  # of its loudness: 60 dB softer is not heard


def _sounds(situation: Situation, layers: list[str]) -> list[Data]:
    """The sounds that are selected, or all that there are."""
    sounds = [each for each in situation.data["layers"] if each["kind"] == "sound"]
    found = [each for each in sounds if each["id"] in layers] or sounds
    if not found:
        raise SceneError.at("", "there is no sound in this scene: add one first")
    return found


def _set(name: str, value_of: Callable[[Situation, Data, list[Any]], Any]) -> Ask:
    """Sets a value of sounds, worked out for each."""
    return lambda situation, layers, values: [
        {
            "name": "set-value", "path": f"{sound['id']}.{name}",
            "value": value_of(situation, sound, values),
        }
        for sound in _sounds(situation, layers)
    ]  # fmt: skip


def _decibels(situation: Situation, sound: Data, values: list[Any]) -> float:
    return round(20 * math.log10(max(values[0] / 100, _SOFTEST)), 2)


def _louder(by: int) -> Callable[[Situation, Data, list[Any]], float]:
    def gain(situation: Situation, sound: Data, values: list[Any]) -> float:
        now = sound.get("gain", 0)
        if not isinstance(now, int | float):
            raise SceneError.at(sound["id"], "its loudness has keys: change them where they are")
        return round(now + by * values[0], 2)

    return gain


def _as_said(situation: Situation, sound: Data, values: list[Any]) -> float:
    return float(values[0])


def _seconds(situation: Situation, sound: Data, values: list[Any]) -> float:
    return round(values[0] / float(situation.document.frames_a_second), 3)


SOUND_ASKS: dict[str, Ask] = {
    "the sound at {n} % of its loudness": _set("gain", _decibels),
    "the sound {n} dB louder": _set("gain", _louder(1)),
    "the sound {n} dB softer": _set("gain", _louder(-1)),
    "the sound fading in for {n} s": _set("fade_in", _as_said),
    "the sound fading in for {t}": _set("fade_in", _seconds),
    "the sound fading out for {n} s": _set("fade_out", _as_said),
    "the sound fading out for {t}": _set("fade_out", _seconds),
    "the sound off": _set("on", lambda *_: False),
    "the sound on": _set("on", lambda *_: True),
}
