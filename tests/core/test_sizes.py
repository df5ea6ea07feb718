"""Another size of the picture: what is seen in it is the same, only larger."""

from unittest import TestCase

import numpy as np

from balletto.picture.frame import Picture, draw_frame
from balletto.picture.overlays.mask_handles import mask_elsewhere
from balletto.scene import files
from balletto.scene.edits import apply
from balletto.scene.effects import EFFECT_KINDS
from balletto.scene.masks import MASK_KINDS

from .scenes import scene_data

_HOME = {"keys": [{"at": 0, "value": 1}, {"at": 20, "value": 0}]}


def scene(size=(640, 360), **title):
    data = scene_data()
    plain = {"moves": [], "runs": [], "transform": {"position": [320, 180, 0]}}
    data["layers"][0] |= {**plain, **title}
    data["layers"][0]["style"]["size"] = 40
    return {**data, "size": list(size)}


def moving(**move):
    return {"moves": [{"id": "m1", "unit": "character", "pose": {"y": 30}, **move}]}


def drawn(data, frame=12):
    return np.asarray(draw_frame(Picture(files.from_data(data)), frame, (640, 360)), dtype=float)


class SizesTest(TestCase):
    def alike(self, told, seen, **title):
        """What is seen in a picture twice as large is the same as in this one, and not nothing."""
        data = scene(**title)
        larger = apply(data, {"name": "set-size", "size": [1280, 720], "fit": "whole"}).document
        with self.subTest(told):
            before = drawn(data)
            self.assertLess(np.abs(before - drawn(larger)).mean(), 0.02)
            if seen:
                self.assertGreater(np.abs(before - drawn(scene())).mean(), 0.05)

    def test_the_title_itself(self):
        self.alike("plain", False)
        self.alike("moved", True, **moving())

    def test_effects_as_they_are_and_as_they_are_usually(self):
        own = {
            "blur": {"x": 8, "y": 3}, "directional-blur": {"length": 40, "angle": 20},
            "glow": {"radius": 20}, "shadow": {"x": 12, "y": 8, "softness": 3},
            "outline": {"width": 8}, "displace": {"amount": 8, "size": 24},
            "trail": {"copies": 4, "outline": 3}, "light": {"brightness": 60},
        }  # fmt: skip
        for kind in EFFECT_KINDS:
            for values in ({}, own.get(kind, {})):
                # Light as it is usually, hues that are not turned, white on black: nothing is seen.
                seen = bool(values) and kind != "trail"
                self.alike((kind, values), seen, effects=[{"kind": kind, **values}])

    def test_masks_of_all_kinds_in_the_layer_and_in_the_picture(self):
        path = {"path": "M-100 -30L100 -30L0 40Z"}
        for kind in MASK_KINDS:
            mask = {
                "kind": kind,
                "center": [120, 0],
                "feather": 5,
                **(path if kind == "path" else {}),
            }
            self.alike((kind, "usual"), True, masks=[mask])
            placed = {"center": [440, 180], "expand": 4, "fixed": True}
            self.alike((kind, "fixed"), True, masks=[{**mask, **placed}])

    def test_orders_from_a_point_and_spots(self):
        order = {"order": "from-point", "point": [140, 180]}
        sweep = {"kind": "sweep", "low": 0, "high": 30, **order}
        self.alike("sweep", True, **moving(reach=[sweep]))
        self.alike("stagger", True, **moving(amount=_HOME, stagger={"gap": 2, **order}))
        groups = {"by": "word", "gap": 4, **order}
        self.alike("groups", True, **moving(amount=_HOME, stagger={"gap": 1, "groups": groups}))
        for shape in ({"shape": "round", "center": [200, 180]},
                      {"shape": "band", "center": [200, 180], "width": 90},
                      {"shape": "slope", "from": [100, 180], "to": [500, 180]}):  # fmt: skip
            self.alike(shape, True, **moving(reach=[{"kind": "spot", **shape}]))

    def test_lengths_stay_within_their_limits(self):
        data = scene(effects=[{"kind": "outline", "width": 300}])
        edit = {"name": "set-size", "size": [6400, 3600], "fit": "whole"}
        made = apply(data, edit).document["layers"][0]["effects"][0]
        self.assertEqual(made["width"], EFFECT_KINDS["outline"].limits["width"][1])

    def test_a_mask_stays_where_it_is_seen_when_it_leaves_its_layer(self):
        mask = {"kind": "ellipse", "size": [200, 60], "center": [20, 5], "feather": 6, "expand": 3}
        place = {"position": [300, 190, 0], "rotation": [0, 0, 20], "scale": [1.5, 1.5]}
        data = scene(masks=[mask], transform=place)
        found = mask_elsewhere(files.from_data(data), "t1", 0, 12, fixed=True)
        fixed = scene(masks=[{**mask, **found, "fixed": True}], transform=place)
        self.assertLess(np.abs(drawn(data) - drawn(fixed)).mean(), 0.05)
        self.assertGreater(np.abs(drawn(data) - drawn(scene(transform=place))).mean(), 0.5)
