"""Each effect, mask, blend and shape drawn small, and held against the picture that is kept of it.

BALLETTO_UPDATE_GOLDEN=1 draws the kept pictures anew; look at them before they are committed.
"""

import os
from pathlib import Path
from unittest import TestCase

import numpy as np
from PIL import Image

from balletto.picture.frame import Picture, draw_frame
from balletto.picture.incremental_renderer import IncrementalRenderer
from balletto.scene import files
from balletto.scene.effects import EFFECT_KINDS
from balletto.scene.layers.base import BLENDS
from balletto.scene.masks import MASK_KINDS
from balletto.scene.shapes import SHAPE_KINDS

from .drawing import psnr
from .media import media_folder
from .scenes import scene_data

FOLDER = Path(__file__).parents[1] / "golden" / "pictures"
# Edges may come out by a step of grey otherwise on another machine; a wrong place or colour of
# anything brings the ratio below 30.
PSNR_MIN_DB = 40
SIZE = (160, 90)


def title(**changes):
    made = {
        "id": "t1",
        "kind": "title",
        "span": [0, 90],
        "text": "Orb",
        "style": {"font": "Anybody", "axes": {"wght": 800}, "size": 52, "fill": "#F2B705"},
        "transform": {"position": [80, 62, 0]},
    }
    return {**made, **changes}


def shape(**changes):
    made = {"id": "s1", "kind": "shape", "span": [0, 90], "transform": {"position": [80, 45, 0]}}
    return {**made, "fill": "#2BB5A0", "stroke": {"width": 4, "color": "#FFFFFF"}, **changes}


SLIDE = {
    "id": "m1",
    "pose": {"x": -120},
    "amount": {"keys": [{"at": 0, "value": 1}, {"at": 20, "value": 0}]},
}
EFFECTS = {
    "blur": {"x": 5, "y": 1},
    "directional-blur": {"length": 24, "angle": 30},
    "zoom-blur": {"amount": 40, "y": 80},
    "glow": {"radius": 8, "strength": 150, "color": "#E0523A"},
    "shadow": {"x": 6, "y": 5, "softness": 2, "color": "#2BB5A0", "opacity": 0.9},
    "tint": {"color": "#2BB5A0", "amount": 80},
    "hue": {"turn": 120, "saturation": 70},
    "light": {"brightness": 60, "contrast": 140},
    "outline": {"width": 5, "color": "#FFFFFF"},
    "trail": {"copies": 5, "gap": 2, "fade": 0.7, "shrink": 0.95},
    "hatch": {"spacing": 5, "width": 2, "style": "zigzag", "to": 0.8},
    "displace": {"size": 12, "amount": 5, "seed": 3},
}
MASKS = {
    "rectangle": {"size": [90, 30], "center": [0, -18], "corner": 8, "feather": 2},
    "ellipse": {"size": [80, 40], "center": [0, -18], "invert": True, "expand": -4},
    "path": {"path": "M-60 10L0 -50L60 10Z", "rotation": 20, "opacity": 0.8},
}
SHAPES = {
    "line": {"from": [-50, 20], "to": [50, -20]},
    "rectangle": {"size": [100, 50], "corner": 14},
    "ellipse": {"size": [110, 60]},
    "arc": {"size": [70, 70], "angle": -90, "sweep": 200},
    "polygon": {"corners": 5, "radius": 36},
    "star": {"corners": 6, "outer": 38, "inner": 18},
    "path": {"path": "M-50 0C-20 -60 20 60 50 0"},
}
WAY = [{"at": 0, "value": [60, 30, 0]}, {"at": 20, "value": [90, 60, 0]}]
FORM = {"kind": "rectangle", "size": [100, 50]}


def cases():
    """Name and layers of each small picture."""
    for kind, values in EFFECTS.items():
        moves = [SLIDE] if kind == "trail" else []
        yield f"effect-{kind}", [title(effects=[{"kind": kind, **values}], moves=moves)]
    for kind, values in MASKS.items():
        yield f"mask-{kind}", [title(masks=[{"kind": kind, **values}])]
    for kind, values in SHAPES.items():
        yield f"shape-{kind}", [shape(shape={"kind": kind, **values})]
    ground = shape(id="s0", shape=FORM, fill="#7B4FD0")
    for blend in BLENDS:
        yield f"blend-{blend}", [ground, title(blend=blend)]
    yield (
        "stroke-dashes",
        [
            shape(
                shape=FORM, stroke={"width": 4, "dashes": [10, 6], "ends": "flat", "joins": "sharp"}
            )
        ],
    )
    yield (
        "stroke-drawn-on",
        [shape(shape=FORM, stroke={"width": 6, "from": 10, "to": 60, "travel": 55})],
    )
    yield "motion-blur", [title(moves=[SLIDE], motion_blur={"angle": 360})]
    yield "matte-alpha", [title(), shape(shape=FORM, matte={"layer": "t1"})]
    light = {"layer": "t1", "by": "luminance", "invert": True, "visible": True}
    yield "matte-luminance", [title(), shape(shape=FORM, matte=light)]
    group = {"id": "g1", "kind": "group", "span": [0, 90]}
    turned = {"position": [10, 10, 0], "rotation": [0, 0, 15], "opacity": 0.5}
    yield (
        "group",
        [{**group, "transform": turned}, shape(shape=FORM, group="g1"), title(group="g1")],
    )
    half = {"kind": "rectangle", "size": [80, 90], "center": [40, 45], "fixed": True}
    adjusted = {"id": "a1", "kind": "adjustment", "span": [0, 90], "masks": [half]}
    hue = {"kind": "hue", "turn": 180}
    yield "adjustment", [shape(shape=FORM), title(), {**adjusted, "effects": [hue]}]
    soft = {"kind": "blur", "x": 6, "y": 6}
    whole = {**adjusted, "masks": [], "effects": [soft]}
    yield "adjustment-to-the-edge", [shape(shape={**FORM, "size": [150, 20]}), whole]
    first = {"kind": "sweep", "low": 0, "high": 50}
    bent = {"id": "m1", "pose": {"displace": 5}, "amount": 1, "reach": [first]}
    yield "pose-displace", [title(moves=[bent])]
    rise = {"id": "m1", "pose": {"y": 40}, "stagger": {"gap": 2}}
    rise["amount"] = {"keys": [{"at": 0, "value": 1}, {"at": 20, "value": 0}]}
    half = {"id": "m1", "pose": {"drawn": 0.6, "filled": 0.3}, "amount": 1}
    lined = {**title()["style"], "outline": 3, "outline_color": "#FFFFFF"}
    yield "pose-drawn", [title(moves=[half], style=lined)]
    edge = {"of": "line", "soft": [0, 3, 0, 14]}
    turned = {"position": [80, 45, 0], "rotation": [0, 0, -12]}
    yield "window", [title(moves=[rise], window=edge, transform=turned)]
    off = {"id": "m1", "pose": {"off": "left"}, "amount": {"keys": rise["amount"]["keys"]}}
    yield "off-picture", [title(moves=[{**off, "eases": {"x": "soft-landing"}}])]
    cast = {"kind": "shadow", "x": 6, "y": 8, "softness": 2}
    turned = {"position": [80, 45, 0], "rotation": [0, 30, 12], "scale": [0.9, 0.9]}
    shown = {"id": "p1", "span": [0, 90], "transform": turned, "effects": [cast]}
    yield "picture", [{**shown, "kind": "picture", "file": "moon.png"}]
    yield "drawing", [{**shown, "kind": "picture", "file": "spark.svg"}]
    yield "video", [{**shown, "kind": "video", "file": "orbit.mp4"}]
    tinted = {"effects": [{"kind": "tint", "color": "#D1495B"}]}
    yield "nested-scene", [{**shown, "kind": "scene", "scene": "inner", **tinted}]


INNER = {
    "format": "balletto-scene",
    "version": 1,
    "size": [120, 70],
    "rate": "30",
    "length": 30,
    "background": {"kind": "color", "color": "#24406B"},
    "layers": [title(transform={"position": [60, 52, 0], "scale": [0.7, 0.7]})],
}


def pictured(layers):
    """A small scene of some layers, with files and a scene to show."""
    used = [{"id": "inner", "scene": INNER}]
    data = scene_data(layers=layers, size=list(SIZE), scenes=used)
    return files.from_data(data).in_folder(media_folder())


class PicturesTest(TestCase):
    def test_every_kind_has_a_picture(self):
        self.assertEqual(set(EFFECTS), set(EFFECT_KINDS))
        self.assertEqual(set(MASKS), set(MASK_KINDS))
        self.assertEqual(set(SHAPES), set(SHAPE_KINDS))

    def test_pictures_are_as_they_are_kept(self):
        for name, layers in cases():
            with self.subTest(name):
                pixels = draw_frame(Picture(pictured(layers)), 12)[..., 2::-1]
                path = FOLDER / f"{name}.png"
                if os.environ.get("BALLETTO_UPDATE_GOLDEN"):
                    Image.fromarray(np.ascontiguousarray(pixels)).save(path, optimize=True)
                kept = np.asarray(Image.open(path).convert("RGB"))
                self.assertGreaterEqual(psnr(pixels, kept), PSNR_MIN_DB)


class ReelTest(TestCase):
    def test_rows_that_are_not_drawn_anew_are_as_they_would_be(self):
        """Whatever a layer wears, at the scene's own size and another."""
        for name, layers in cases():
            with self.subTest(name):
                moving = [{**layer} for layer in layers]
                moving[-1]["transform"] = {"position": {"keys": WAY}}
                picture = Picture(pictured(moving))
                for size in (None, (107, 60)):
                    renderer = IncrementalRenderer(picture, size)
                    for frame in (0, 4, 12, 12, 20):
                        renderer.draw(frame)
                        wanted = draw_frame(picture, frame, size)
                        np.testing.assert_array_equal(renderer.pixels, wanted)
