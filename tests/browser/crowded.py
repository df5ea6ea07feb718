"""Scenes that are hard on the workbench: long names, many layers, long titles, nothing at all."""

from typing import Any

from tests.core.scenes import scene_data

LONG_NAME = "The programme of the winter season with all its nine moons, second draft"


def crowded_scene(layers: int = 30, letters: int = 300) -> dict[str, Any]:
    """Many layers with long names; the front one is long, keyed and moves."""
    title = scene_data()["layers"][0]
    keys = [{"at": 0, "value": [960, 700, 0]}, {"at": 40, "value": [960, 540, 0]}]
    words = "Nine moons over the winter domes "
    long = (words * (letters // len(words) + 1))[:letters]
    many = [
        {**title, "id": f"t{number}", "name": f"{LONG_NAME} {number}", "span": [number, 90]}
        for number in range(2, layers + 1)
    ]
    front = {
        **title,
        "text": long,
        "runs": [],
        "style": {**title["style"], "size": 60, "wrap": 1600},
        "transform": {"position": {"keys": keys}},
    }
    return {"name": LONG_NAME, "length": 600, "layers": [*many, front]}


def empty_scene() -> dict[str, Any]:
    """A scene without any layer."""
    return scene_data(layers=[])
