"""Out from behind: in one action a layer is seen on one side of another alone."""

import numpy as np

from balletto.picture.frame import Picture, draw_frame
from balletto.scene import files
from tests.core.scenes import scene_data

from .base import PageTest


class BehindTest(PageTest):
    """A row of letters beside an upright bar."""

    def setUp(self):
        super().setUp()
        title = {**scene_data("OOOOOO", size=[640, 360])["layers"][0], "runs": [], "moves": []}
        title |= {"style": {"size": 60, "fill": "#FF0000"}, "effects": []}
        title["transform"] = {"position": [440, 180, 0]}
        bar = {
            "kind": "shape", "id": "s1", "name": "The bar", "span": [0, 90], "fill": "#00FF00",
            "stroke": None, "shape": {"kind": "rectangle", "size": [20, 300]},
            "transform": {"position": [380, 180, 0]},
        }  # fmt: skip
        ground = {"kind": "color", "color": "#000000"}
        data = scene_data(size=[640, 360], layers=[title, bar], background=ground)
        self.edit(name="replace-scene", document=data)

    def red(self):
        """The columns in which letters are seen."""
        pixels = draw_frame(Picture(files.from_data(self.document)), 0)
        return np.unique(np.nonzero(pixels[..., 2] > 100)[1])

    def test_what_would_show_on_the_other_side_is_not_seen(self):
        before = self.red()
        self.assertLess(before.min(), 360)  # it stands out on the left too
        self.edit(name="behind", layer="t1", other="s1")
        after = self.red()
        self.assertGreaterEqual(after.min(), 380)
        self.assertEqual(after.max(), before.max())
        mask = self.document["layers"][0]["masks"][0]
        self.assertTrue(mask["fixed"])

    def test_it_is_said_too(self):
        for text in ("from behind the bar", "comes out from behind “The bar”", "behind The Bar"):
            with self.subTest(text):
                self.edit(name="say", text=text, layer="t1", layers=["t1"])
                self.assertGreaterEqual(self.red().min(), 380)
                self.edit(name="remove-mask", layer="t1", index=0)

    def test_what_does_not_show_hides_nothing(self):
        self.edit(name="set-value", path="s1.span", value=[50, 90])
        response = self.edit(expect=422, name="behind", layer="t1", other="s1")
        self.assertIn("does not show at this frame", response.json()["message"])
