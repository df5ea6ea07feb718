"""Strokes in place of fills, and outlines that are drawn: their laws."""

from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from balletto.picture.canvases.canvas import DrawItem, DrawnLine, RecordingCanvas
from balletto.picture.canvases.svg_canvas import SvgCanvas
from balletto.picture.frame import Picture, draw_frame
from balletto.picture.letterforms.hatching import HatchValues, strokes_of
from balletto.scene import files
from balletto.scene.forms.outlines import commands_of

from .scenes import scene_data

PLAIN = {"wobble": 0, "overshoot": 0, "spacing": 8, "width": 3}
LAST = {"keys": [{"at": 0, "value": 0}, {"at": 20, "value": 1}]}


def data_of(text="Go", effects=(), moves=(), **more):
    style = {"font": "Anybody", "axes": {"wght": 900}, "size": 200, "fill": "#FFFFFF"}
    title = {
        "kind": "title", "id": "t1", "name": "", "span": [0, 60], "text": text,
        "style": {**style, **more.pop("style", {})}, "transform": {"position": [320, 180, 0]},
        "effects": list(effects), "moves": list(moves), **more,
    }  # fmt: skip
    black = {"kind": "color", "color": "#000000"}
    return scene_data(layers=[title], size=[640, 360], length=60, background=black)


def drawn(data, frame=30):
    """How white each pixel is."""
    return draw_frame(Picture(files.from_data(data)), frame)[..., 0] / 255


def hatch(**values):
    return {"kind": "hatch", **PLAIN, **values}


class CoverageTest(TestCase):
    def test_strokes_cover_width_over_spacing(self):
        whole = drawn(data_of()).sum()
        for style in ("parallel", "zigzag", "crossed"):
            for width, spacing, angle in ((3, 8, -45), (4, 10, 20), (2, 9, 90), (5, 14, 0)):
                with self.subTest(style=style, width=width, spacing=spacing):
                    values = {"width": width, "spacing": spacing, "angle": angle}
                    share = drawn(data_of(effects=[hatch(style=style, **values)])).sum() / whole
                    wanted = width / spacing
                    if style == "crossed":
                        wanted = 1 - (1 - wanted) ** 2
                    self.assertLess(abs(share / wanted - 1), 0.05)

    def test_nothing_is_drawn_outside_the_outline(self):
        outside = drawn(data_of()) == 0
        for style in ("parallel", "zigzag", "crossed"):
            self.assertEqual(drawn(data_of(effects=[hatch(style=style)]))[outside].max(), 0)
        self.assertGreater(drawn(data_of(effects=[hatch(overshoot=9)]))[outside].max(), 0.9)

    def test_it_is_drawn_from_nothing_to_all_letter_by_letter(self):
        data = data_of("Go", [hatch(to=LAST)])
        whole = drawn(data_of("Go", [hatch()]))
        inks = [drawn(data, frame).sum() for frame in (0, 5, 10, 15, 20)]
        self.assertEqual(inks[0], 0)
        self.assertEqual(inks, sorted(inks))
        np.testing.assert_allclose(drawn(data, 20), whole)
        half = drawn(data, 10)
        self.assertEqual(half[:, 420:].max(), 0)  # the second letter comes after the first
        for values in ({"to": 0}, {"from": 1}, {"width": 0}):
            self.assertEqual(drawn(data_of("Go", [hatch(**values)])).max(), 0)

    def test_a_move_hatches_letter_by_letter(self):
        amount = {"keys": [{"at": 0, "value": 1}, {"at": 10, "value": 0}]}
        move = {"id": "m1", "pose": {"hatched": 0}, "amount": amount, "stagger": {"gap": 10}}
        data = data_of("Go", [hatch()], [move])
        self.assertEqual(drawn(data, 0).max(), 0)
        first = drawn(data, 10)
        self.assertGreater(first[:, :320].max(), 0.9)
        self.assertEqual(first[:, 420:].max(), 0)
        np.testing.assert_allclose(drawn(data, 20), drawn(data_of("Go", [hatch()])))

    def test_it_is_new_as_often_as_it_says(self):
        data = data_of("Go", [{"kind": "hatch", "wobble": 6, "every": "10/s"}])
        pictures = [drawn(data, frame) for frame in (0, 2, 3, 5)]
        np.testing.assert_array_equal(pictures[0], pictures[1])
        np.testing.assert_array_equal(pictures[2], pictures[3])
        self.assertGreater(np.abs(pictures[1] - pictures[2]).max(), 0.5)

    def test_lines_of_letters_go_on_in_one_another(self):
        """A line at one height is at that height in every letter."""
        values = HatchValues("parallel", 2, 10, 0, 0, 40, 0, 0, 0)
        for left in (0, 333):
            box = [("move", (left, 3)), ("line", (left + 50, 3)), ("line", (left + 50, 41))]
            (strokes,) = strokes_of(((*box, ("line", (left, 41)), ("close", ())),), values)
            self.assertEqual([float(line[0, 1]) for line in strokes.lines], [5, 15, 25, 35])

    def test_the_outline_of_a_letter_is_kept_and_the_shadow_falls_of_the_strokes(self):
        shadow = {"kind": "shadow", "x": 4, "y": 4, "softness": 0}
        data = data_of("G", [hatch(), shadow], style={"outline": 3})
        canvas = RecordingCanvas()
        Picture(files.from_data(data)).draw(canvas, 0)
        items = [DrawItem(*call[1:]) for call in canvas.calls if call[0] == "draw"]
        self.assertEqual([item.within is not None for item in items], [True, True, False, False])
        self.assertEqual([item.line.width for item in items], [3, 3, 3, 3])

    def test_drawings_that_nobody_hatches_by_hand_have_a_bound(self):
        values = HatchValues("zigzag", 1, 1, 30, 2, 40, 0, 0, 0)
        dots = "".join(f"M{x} {y}h3v3h-3Z" for x in range(0, 500, 5) for y in range(0, 500, 5))
        (strokes,) = strokes_of((commands_of(dots),), values)
        self.assertGreater(len(strokes.lines), 100)
        self.assertLess(sum(map(len, strokes.lines)), 200_000)

    def test_an_svg_holds_it(self):
        canvas = SvgCanvas((640, 360), (640, 360))
        Picture(files.from_data(data_of("G", [hatch()]))).draw(canvas, 0)
        self.assertIn("clipPath", canvas.text())


class DrawnTest(TestCase):
    WRITTEN = {"outline": 4, "outline_color": "#FFFFFF"}

    def pose(self, **pose):
        return [{"id": "m1", "pose": pose, "amount": 1}]

    def test_an_outline_is_seen_between_two_shares(self):
        style = {**self.WRITTEN, "fill": "none"}
        whole = drawn(data_of("l", style=style))
        np.testing.assert_array_equal(
            drawn(data_of("l", moves=self.pose(drawn=1), style=style)), whole
        )
        self.assertEqual(drawn(data_of("l", moves=self.pose(drawn=0), style=style)).max(), 0)
        low, high = (
            drawn(data_of("l", moves=self.pose(**pose), style=style))
            for pose in ({"drawn": 0.4}, {"drawn_from": 0.4})
        )
        self.assertAlmostEqual((low.sum() + high.sum()) / whole.sum(), 1, delta=0.02)

    def test_contours_come_one_after_another_or_all_at_once(self):
        style = {**self.WRITTEN, "fill": "none"}
        for is_each, count in ((False, 1), (True, 2)):
            data = data_of("o", moves=self.pose(drawn=0.3), style=style, drawn_each=is_each)
            canvas = SvgCanvas((640, 360), (640, 360))
            Picture(files.from_data(data)).draw(canvas, 0)
            (path,) = [line for line in canvas.text().splitlines() if "stroke=" in line]
            self.assertEqual(path.count("M"), count)

    def test_a_fill_is_as_opaque_as_it_is_filled_and_the_line_stays(self):
        half = drawn(data_of("l", moves=self.pose(filled=0.5), style=self.WRITTEN))
        self.assertAlmostEqual(half[180, 320], 0.5, delta=0.01)
        self.assertGreater(half.max(), 0.99)
        alone = drawn(data_of("l", moves=self.pose(filled=0)))
        self.assertEqual(alone.max(), 0)

    def test_a_shape_is_drawn_and_filled_by_moves(self):
        (move,) = self.pose(filled=0, drawn=0.5)
        shape = {
            "kind": "shape", "id": "s1", "span": [0, 60], "fill": "#FFFFFF",
            "shape": {"kind": "rectangle", "size": [100, 100]},
            "stroke": {"width": 6, "from": 0, "to": 50},
            "transform": {"position": [320, 180, 0]},
            "moves": [{**move, "unit": "layer"}],
        }  # fmt: skip
        canvas = RecordingCanvas()
        data = {**data_of(), "layers": [shape]}
        Picture(files.from_data(data)).draw(canvas, 0)
        (item,) = [DrawItem(*call[1:]) for call in canvas.calls if call[0] == "draw"]
        self.assertEqual((item.filled, item.line.seen), (0, ((0.0, 0.25),)))

    @given(st.floats(0, 1), st.floats(0, 1), st.floats(0, 1), st.floats(0, 1))
    def test_what_is_seen_of_a_line_is_that_share_of_it(self, start, end, first, last):
        low, high = sorted((start, end))
        if high - low < 1e-3:
            return
        line = DrawnLine(2, "#FFFFFF", seen=((low, high),)).within(first, last)
        parts = line.seen if line else ()
        wanted = abs(last - first) * (high - low)
        self.assertAlmostEqual(sum(b - a for a, b in parts), wanted, delta=1e-9)
