"""Figures of dress: frames with motion blur, a trail, a keyed blur, against the plain frame."""

from typing import Any

from balletto.picture.canvases.skia_canvas import SkiaCanvas
from balletto.picture.frame import Picture
from balletto.scene import files

from .core import SIZE, title_scene
from .timing import interleaved

FOURTEEN = "The Quiet Orbits"  # 14 letters, white space left out
FRAMES = range(10, 26)
ROUNDS = 12


def appearance() -> dict[str, float]:
    """Sixteen frames of fourteen moving letters at 1080p, dressed, against the same undressed."""
    keyed = {"keys": [{"at": 0, "value": 30}, {"at": 30, "value": 2}]}
    kinds = {
        "motion_blur_ratio": {"motion_blur": {"angle": 180, "samples": 16}},
        "trail_ratio": {"effects": [{"kind": "trail", "copies": 50, "gap": 0.25, "fade": 0.97}]},
        "blur_ratio": {"effects": [{"kind": "blur", "x": keyed, "y": keyed}]},
        "glow_ratio": {"effects": [{"kind": "glow"}]},
        "shadow_ratio": {"effects": [{"kind": "shadow"}]},
    }
    plain, *dressed = interleaved(ROUNDS, *[_drawing(more) for more in ({}, *kinds.values())])
    ratios = {name: time / plain for name, time in zip(kinds, dressed, strict=True)}
    return {"plain_frame_ms": plain / len(FRAMES), **ratios}


def _drawing(more: dict[str, Any]) -> Any:
    """What draws the frames of a title with more said of it."""
    data = files.to_data(title_scene(FOURTEEN, size=120))
    title = data["layers"][0]
    title |= more
    # All letters are on their way in all frames.
    title["moves"] = [
        {
            "id": "m1",
            "pose": {"x": -400, "y": 60},
            "amount": {"keys": [{"at": 0, "value": 1}, {"at": 60, "value": 0}]},
        }
    ]
    picture, canvas = Picture(files.from_data(data)), SkiaCanvas(*SIZE)

    def draw() -> None:
        for frame in FRAMES:
            picture.draw(canvas, frame)

    return draw
