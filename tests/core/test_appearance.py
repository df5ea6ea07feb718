"""What letters wear: fills, lines, tints, blurs and other axes, down to the pixels."""

from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from balletto.picture.canvases.canvas import DrawItem, Gradient, RecordingCanvas
from balletto.picture.frame import Picture, draw_frame
from balletto.picture.incremental_renderer import IncrementalRenderer
from balletto.scene import files
from balletto.scene.values.colors import hex_of, oklab

from .scenes import scene_data


def dressed(text="Ho", moves=(), **style):
    """A small picture of a title on black."""
    data = scene_data(text, size=[240, 120], background={"kind": "color", "color": "#000000"})
    title = data["layers"][0]
    title["style"] |= {"size": 80, **style}
    title["transform"]["position"] = [120, 60, 0]
    title["moves"] = [{"id": f"m{number}", **move} for number, move in enumerate(moves)]
    return files.from_data(data)


def pixels(scene, frame=0):
    return draw_frame(Picture(scene), frame)[..., 2::-1].astype(int)  # as red, green, blue


def letters(scene, frame=0):
    canvas = RecordingCanvas()
    Picture(scene).draw(canvas, frame)
    return [DrawItem(*call[1:]) for call in canvas.calls if call[0] == "draw"]


class ColorsTest(TestCase):
    @given(st.integers(0, 2**24 - 1))
    def test_bytes_come_back_unchanged(self, number):
        color = f"#{number:06X}"
        self.assertEqual(hex_of(oklab(color)), color)

    def test_known_values(self):
        """Worked out by the author of OKLab for the red of sRGB."""
        np.testing.assert_allclose(oklab("#FF0000"), [0.62796, 0.22486, 0.12585], atol=1e-4)
        np.testing.assert_allclose(oklab("#FFFFFF"), [1, 0, 0], atol=1e-4)

    def test_blue_and_yellow_meet_in_a_clear_grey_not_in_mud(self):
        middle = hex_of((oklab("#0000FF") + oklab("#FFFF00")) / 2)
        self.assertGreater(int(middle[1:3], 16), 100)


class FillTest(TestCase):
    def test_outline_only_has_no_fringe_of_the_fill(self):
        seen = pixels(dressed(fill="none", outline=6, outline_color="#00FF00"))
        self.assertGreater(seen[..., 1].max(), 250)
        self.assertEqual(seen[..., 0].max(), 0)
        self.assertEqual(seen[..., 2].max(), 0)

    def test_an_outline_runs_round_letters_of_overlapping_contours_once(self):
        """The E is put together of three bars; where they meet there is no line."""
        still = {"font": "Recursive", "axes": {"wght": 900}}
        inside = pixels(dressed("E", **still))[..., 0] > 250
        lined = pixels(dressed("E", fill="none", outline=2, outline_color="#FFFFFF", **still))
        shifts = [(across, down) for across in (-5, 0, 5) for down in (-5, 0, 5)]
        core = np.all([np.roll(inside, shift, (0, 1)) for shift in shifts], axis=0)
        self.assertGreater(core.sum(), 50)
        self.assertEqual(lined[core].max(), 0)

    def test_half_opaque_letters_do_not_show_the_fill_below_the_line(self):
        fade = {"pose": {"opacity": 0.5}}
        style = {"fill": "#FFFFFF", "outline": 10, "outline_color": "#FFFFFF"}
        seen = pixels(dressed("H", [fade], **style))
        self.assertAlmostEqual(seen.max(), 128, delta=1)

    def test_a_gradient_runs_over_its_box(self):
        colors = {"kind": "linear", "angle": 0, "colors": ["#FF0000", "#0000FF"]}
        seen = pixels(dressed("HH", fill=colors))
        inked = seen.sum(axis=2) > 200
        columns = np.flatnonzero(inked.any(axis=0))
        left, right = (seen[:, column][inked[:, column]] for column in columns[[3, -4]])
        self.assertGreater(left[0, 0], 150)
        self.assertGreater(right[0, 2], 150)
        each = letters(dressed("HH", fill={**colors, "over": "character"}))
        self.assertIsInstance(each[0].fill, Gradient)
        self.assertNotEqual(each[0].fill.start, each[1].fill.start)

    def test_a_tint_is_mixed_by_the_weight(self):
        for amount, expected in ((0, "#204060"), (1, "#FF8000"), (7, "#FF8000"), (-1, "#204060")):
            move = {"pose": {"fill": "#FF8000"}, "amount": amount}
            self.assertEqual(letters(dressed(moves=[move], fill="#204060"))[0].fill, expected)
        half = letters(
            dressed(moves=[{"pose": {"fill": "#FF8000"}, "amount": 0.5}], fill="#204060")
        )
        middle = hex_of((oklab("#204060") + oklab("#FF8000")) / 2)
        self.assertEqual(half[0].fill, middle)

    def test_tints_go_from_outer_to_inner(self):
        """What the letter's own move says counts last, wherever it stands in the list."""
        inner = {"pose": {"fill": "#00FF00"}, "unit": "character"}
        outer = {"pose": {"fill": "#FF0000"}, "unit": "title"}
        for moves in ([inner, outer], [outer, inner]):
            self.assertEqual(letters(dressed(moves=moves))[0].fill, "#00FF00")

    def test_a_gradient_is_tinted_stop_by_stop(self):
        fill = {"kind": "round", "colors": ["#FFFFFF", "#0000FF"]}
        got = letters(dressed(moves=[{"pose": {"fill": "#FF0000"}}], fill=fill))[0].fill
        self.assertEqual(set(got.colors), {"#FF0000"})


class LineAndBlurTest(TestCase):
    def test_moves_add_to_the_outline_and_colour_it(self):
        move = {"pose": {"outline": 4, "outline_color": "#FF0000"}, "amount": 1}
        drawn = letters(dressed(moves=[move], outline=2))[0]
        self.assertEqual(drawn.line[:2], (6, "#FF0000"))
        self.assertIsNone(letters(dressed())[0].line)

    def test_an_outline_is_never_thinner_than_nothing(self):
        self.assertIsNone(letters(dressed(moves=[{"pose": {"outline": -9}}], outline=2))[0].line)

    def test_blur_spreads_the_ink_and_keeps_most_of_it(self):
        sharp = pixels(dressed())[..., 0]
        soft = pixels(dressed(moves=[{"pose": {"blur": 6}}]))[..., 0]
        self.assertLess(soft.max(), sharp.max())
        self.assertGreater((soft > 3).sum(), (sharp > 3).sum() * 1.3)
        self.assertAlmostEqual(soft.sum() / sharp.sum(), 1, delta=0.05)

    def test_rows_reach_as_far_as_what_is_drawn(self):
        """What a renderer redraws by rows is what is drawn anew, whatever the letters wear."""
        sweep = {"keys": [{"at": 0, "value": -40}, {"at": 20, "value": 100}]}
        reach = [{"kind": "sweep", "low": 0, "high": 40, "travel": sweep}]
        pose = {"outline": 30, "blur": 5, "axes": {"wght": 200}, "fill": "#FF0000", "y": 30}
        picture = Picture(dressed("Ink", [{"pose": pose, "reach": reach}]))
        renderer = IncrementalRenderer(picture)
        for frame in range(0, 22, 3):
            renderer.draw(frame)
            self.assertTrue((renderer.pixels == draw_frame(picture, frame)).all(), frame)

    def test_axes_change_the_outline_of_single_letters(self):
        move = {"pose": {"axes": {"wght": -500}}, "reach": [{"kind": "sweep", "high": 50}]}
        still, moved = letters(dressed("HH")), letters(dressed("HH", [move]))
        self.assertNotEqual(still[0].outline, moved[0].outline)
        self.assertEqual(still[1].outline, moved[1].outline)
