"""Scenes and golden data for the tests of the core."""

import copy
import json
from pathlib import Path
from typing import Any

from balletto.scene import files
from balletto.scene.document import Scene

_FOLDER = Path(__file__).parents[1] / "golden"
GOLDEN = json.loads((_FOLDER / "motion.json").read_text())
GOLDEN |= json.loads((_FOLDER / "motion-more.json").read_text())


# A value with keyframes that go up and down.
OPACITY = {
    "keys": [
        {"at": 0, "value": 0},
        {"at": 20, "value": 1},
        {"at": 40, "value": 0.5},
        {"at": 60, "value": 1},
    ]
}


def scene_data(text: str = "The Quiet Orbit", **changes: Any) -> dict[str, Any]:
    """A scene of one title that rises letter by letter, as plain data; `changes` at its top."""
    data = copy.deepcopy(GOLDEN["10_poses"][0]["scene"])
    data["layers"][0]["text"] = text
    return {**data, **changes}


def scene(text: str = "The Quiet Orbit", **changes: Any) -> Scene:
    """The same as a Scene."""
    return files.from_data(scene_data(text, **changes))


def small_scene(text: str = "Orbit", length: int = 30) -> Scene:
    """A picture of 320 x 180, quick to draw and encode."""
    data = scene_data(text, size=[320, 180], length=length)
    title = data["layers"][0]
    title["span"] = [0, length]
    title["style"]["size"] = 48
    title["transform"]["position"] = [160, 90, 0]
    return files.from_data(data)
