"""A scene in other shapes: whole, filled, or with places of its own for its layers."""

from unittest import TestCase

import numpy as np

from balletto.picture.frame import Picture, draw_frame
from balletto.scene import files
from balletto.scene.errors import SceneError
from balletto.scene.fits import fitted

from .scenes import scene_data
from .test_pictures import shape

RED = [0x2C, 0x40, 0xC8]


def square(layer_id, x, y, **more):
    return shape(
        id=layer_id,
        shape={"kind": "rectangle", "size": [40, 40]},
        fill="#C8402C",
        stroke=None,
        transform={"position": [x, y, 0]},
        **more,
    )


def scene(**more):
    """Two red squares in a wide picture of 320 x 180: one in the middle, one at its left edge."""
    ground = {"kind": "color", "color": "#101428"}
    layers = [square("s1", 160, 90), square("s2", 20, 90)]
    return files.from_data(
        scene_data(layers=layers, size=[320, 180], length=4, background=ground, **more)
    )


def red_box(pixels):
    """Left, top, right, bottom of what is red."""
    rows, columns = np.nonzero((np.abs(pixels[..., :3].astype(int) - RED) < 30).all(-1))
    return [int(n) for n in (columns.min(), rows.min(), columns.max() + 1, rows.max() + 1)]


class FitTest(TestCase):
    def drawn(self, of, size, by=None):
        made = fitted(of, size, by)
        return draw_frame(Picture(made), 0, size)

    def test_whole_shows_all_with_more_background(self):
        pixels = self.drawn(scene(), (160, 320), "whole")
        self.assertEqual(pixels.shape[:2], (320, 160))
        # Half as large, in the middle: from the left edge to the right end of the middle square.
        self.assertEqual(red_box(pixels), [0, 150, 90, 170])
        self.assertEqual(pixels[5, 80, :3].tolist(), [0x28, 0x14, 0x10])

    def test_filled_cuts_sides_off(self):
        pixels = self.drawn(scene(), (180, 180), "filled")
        self.assertEqual(red_box(pixels), [70, 70, 110, 110])

    def test_own_places(self):
        places = [{"layer": "s1", "shift": [0, -40], "scale": 2}]
        tall = {"shape": "9:16", "by": "placed", "places": places}
        pixels = self.drawn(scene(fits=[tall]), (180, 320))
        # The shorter side keeps its length; the middle is the middle.
        self.assertEqual(red_box(pixels), [50, 80, 130, 160])

    def test_the_scene_says_how_it_fits_and_can_be_overruled(self):
        own = scene(fits=[{"shape": "1:1", "by": "filled"}])
        self.assertEqual(fitted(own, (500, 500)).size, (180, 180))
        self.assertEqual(fitted(own, (500, 500), "whole").size, (320, 320))
        self.assertIs(fitted(own, (640, 360)), own)

    def test_fixed_masks_move_along(self):
        mask = {"kind": "rectangle", "center": [150, 90], "size": [40, 200], "fixed": True}
        data = files.to_data(scene())
        data["layers"] = [square("s1", 160, 90, masks=[mask])]
        pixels = self.drawn(files.from_data(data), (180, 180), "filled")
        self.assertEqual(red_box(pixels), [70, 70, 100, 110])

    def test_letters_are_chosen_as_in_the_scene_itself(self):
        """A spot takes in what it takes in, wherever the scene is seen from."""
        spot = {"kind": "spot", "shape": "round", "center": [60, 90], "inner": 40, "outer": 50}
        move = {"id": "m1", "unit": "character", "start": 0, "pose": {"opacity": 0},
                "amount": 1, "reach": [spot]}  # fmt: skip
        title = {**scene_data()["layers"][0], "text": "MMMMMM", "moves": [move]}
        title["transform"] = {"position": [160, 90, 0]}
        title["style"] = {**title["style"], "size": 40, "align": "center"}
        own = files.from_data(scene_data(layers=[title], size=[320, 180], length=4))
        alone = draw_frame(Picture(own), 0, (320, 180))
        seen = draw_frame(Picture(fitted(own, (320, 320), "whole")), 0, (320, 320))
        self.assertLess(np.abs(seen[70:250].astype(int) - alone).max(), 30)
        self.assertGreater(np.ptp(alone[..., :3].max(axis=(0, 2)).astype(int)), 100)

    def test_what_is_no_shape_is_said(self):
        for wrong in ("tall", "0:1", "9:", "16:999"):
            with self.assertRaisesRegex(SceneError, "a shape as"):
                scene(fits=[{"shape": wrong}])
