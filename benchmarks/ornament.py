"""Figures of ornament: copies and flurries against bare drawing, becoming and hatching."""

from collections.abc import Callable
from typing import Any

import numpy as np
import skia

from balletto.motion.spaces.flurries import pieces_at
from balletto.motion.spaces.formations import copies_at
from balletto.picture.canvases.skia_canvas import SkiaCanvas
from balletto.picture.frame import Picture
from balletto.scene import files
from balletto.scene.document import Scene

from .core import SIZE, title_scene
from .timing import interleaved

ROUNDS = 12


def ornament() -> dict[str, float]:
    """Frames at 1080p that are drawn for the first time, milliseconds each or against bare Skia."""
    formation, flurry = _formation(), _flurry()
    plain, becoming = _title({}), _title({"moves": [_BECOMES]}, "HELLOGOODBYE")
    still, hatched = _title({}, "Star atlas many"), _title(_HATCHED, "Star atlas many")
    copies, bare_copies, pieces, bare_pieces = interleaved(
        ROUNDS, _drawing(formation), _bare_copies(formation), _drawing(flurry), _bare_pieces(flurry)
    )
    before, on_the_way, smooth, strokes = interleaved(
        ROUNDS, *map(_drawing, (plain, becoming, still, hatched))
    )
    return {
        "formation_ratio": copies / bare_copies,
        "flurry_ratio": pieces / bare_pieces,
        "morph_ms": on_the_way - before,
        "hatch_ms": strokes - smooth,
    }


def _drawing(scene: Scene) -> Callable[[], None]:
    """What draws another frame of a scene each time."""
    picture, canvas = Picture(scene), SkiaCanvas(*SIZE)
    frames = iter(np.arange(10, 80, 0.73))

    def draw() -> None:
        canvas.clear("#000000")
        picture.draw(canvas, float(next(frames)))

    return draw


def _scene(layer: dict[str, Any]) -> Scene:
    data = files.to_data(title_scene("A", size=120))
    placed = {"id": "s1", "span": [0, 90], "transform": {"position": [960, 540, 0]}}
    return files.from_data({**data, "length": 90, "layers": [{**placed, **layer}]})


_TURNING = {"keys": [{"at": 0, "value": 0}, {"at": 90, "value": 90}]}


def _formation() -> Scene:
    """200 copies of a stroked arc in a ring that turns."""
    ring = {"kind": "ring", "count": 200, "radius": 380, "first": _TURNING}
    return _scene(
        {
            "kind": "shape",
            "fill": "none",
            "shape": {"kind": "arc", "size": [120, 120], "angle": -90, "sweep": 200},
            "stroke": {"width": 3, "color": "#FFFFFF"},
            "formation": ring,
        }
    )


def _flurry() -> Scene:
    """500 stars in flight."""
    star = {"shape": {"kind": "star", "corners": 5, "outer": 16, "inner": 7}, "fill": "#FFFFFF"}
    flurry = {
        "count": 500,
        "life": 200,
        "spread": 360,
        "speed": 240,
        "speed_chance": 0.9,
        "spin": 90,
    }
    return _scene({"kind": "flurry", "flurry": {**flurry, "opacity": 1, "source": [star]}})


def _bare_copies(scene: Scene) -> Callable[[], None]:
    layer = scene.layers[0]
    copies = copies_at(scene, layer, np.array([30.0]))
    places = zip(copies.x[0], copies.y[0], copies.rotation[0], strict=True)
    line = skia.Paint(AntiAlias=True, Color=0xFFFFFFFF, Style=skia.Paint.kStroke_Style)
    line.setStrokeWidth(3)
    line.setStrokeCap(skia.Paint.kRound_Cap)
    line.setStrokeJoin(skia.Paint.kRound_Join)
    return _bare(layer, [(float(x), float(y), float(turn)) for x, y, turn in places], line)


def _bare_pieces(scene: Scene) -> Callable[[], None]:
    layer: Any = scene.layers[0]
    pieces = pieces_at(scene, layer.flurry, 1, np.array([30.0]))
    places = zip(pieces.x[0], pieces.y[0], pieces.rotation[0], strict=True)
    fill = skia.Paint(AntiAlias=True, Color=0xFFFFFFFF)
    shape = layer.flurry.source[0]
    return _bare(shape, [(float(x), float(y), float(turn)) for x, y, turn in places], fill)


def _bare(
    holder: Any, places: list[tuple[float, float, float]], paint: skia.Paint
) -> Callable[[], None]:
    """The same paths at the same places by Skia alone."""
    path = SkiaCanvas.outline(holder.shape.outline(np.array(0.0))).path
    canvas = SkiaCanvas(*SIZE)
    surface = skia.Surface(canvas.pixels, colorType=skia.kBGRA_8888_ColorType)

    def draw() -> None:
        canvas.clear("#000000")
        with surface as bare:
            for x, y, turn in places:
                bare.save()
                bare.translate(960 + x, 540 + y)
                bare.rotate(turn)
                bare.drawPath(path, paint)
                bare.restore()

    return draw


_BECOMES = {
    "id": "m1",
    "becomes": {"text": "OTHERLETTERS"},
    "amount": {"keys": [{"at": 0, "value": 0.05}, {"at": 90, "value": 0.95}]},
}
_HATCHED: dict[str, Any] = {
    "effects": [{"kind": "hatch", "spacing": 8, "width": 3, "wobble": 2, "every": "30/s"}]
}


def _title(more: dict[str, Any], text: str = "HELLOGOODBYE") -> Scene:
    data = files.to_data(title_scene(text, size=200))
    data["layers"][0] |= {"moves": [], **more}
    return files.from_data({**data, "length": 90})
