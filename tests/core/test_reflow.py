"""Letters that shift along their lines: tracking, moved font axes, and a centre that is held."""

from unittest import TestCase

import numpy as np

from balletto.lettering.layout import lay_out
from balletto.motion.evaluate import compose
from balletto.motion.reflow import reflow
from balletto.motion.spaces.matrices import place
from balletto.scene import files

from .scenes import scene_data

AWAY = {"keys": [{"at": 0, "value": 1}, {"at": 10, "value": 0}]}


def flow(text, move, frames=(0, 10), **title):
    """The shifts of the letters' left edges at frames, and the layout at rest."""
    made = files.from_data(titled(text, move, **title))
    layout = lay_out(made, made.layers[0])
    times = np.array(frames, dtype=float)
    composites = compose(made, made.layers[0], layout, times)
    return reflow(made.layers[0], layout, composites), layout


def titled(text, *moves, style=(), **title):
    data = scene_data(text)
    layer = data["layers"][0]
    layer["style"].update(style)
    layer["moves"] = [{"id": f"m{n}", "amount": AWAY, **move} for n, move in enumerate(moves)]
    layer.update(title)
    return data


class TrackingTest(TestCase):
    def test_letters_spread_and_the_alignment_holds(self):
        for align, share in (("left", 0), ("center", 0.5), ("right", 1)):
            with self.subTest(align):
                got, _ = flow("ABC", {"pose": {"tracking": 500}}, style={"align": align})
                step = 0.5 * 120
                expected = step * np.arange(3) - share * 2 * step
                np.testing.assert_allclose(got.left[0], expected)
                np.testing.assert_allclose(got.left[1], 0)

    def test_a_line_is_as_wide_as_if_it_were_set_so(self):
        got, layout = flow("AV To", {"unit": "line", "pose": {"tracking": 250}})
        spread = layout.boxes["character"][:, 0] + got.left[0]
        made = files.from_data(titled("AV To", style={"tracking": 250}))
        np.testing.assert_allclose(spread, lay_out(made, made.layers[0]).boxes["character"][:, 0])

    def test_white_space_takes_part_only_if_it_is_said(self):
        shut, _ = flow("A B", {"pose": {"tracking": 100}})
        wide, _ = flow("A B", {"pose": {"tracking": 100}, "spaces": True})
        self.assertAlmostEqual(np.ptp(shut.left[0]), 12)
        self.assertAlmostEqual(np.ptp(wide.left[0]), 24)

    def test_nothing_shifts_without_need(self):
        self.assertIsNone(flow("ABC", {"pose": {"y": 100}})[0])


class AxesTest(TestCase):
    def test_a_line_whose_letters_all_change_is_as_if_set_so(self):
        got, layout = flow("Orbit", {"pose": {"axes": {"wght": -400}}})
        made = files.from_data(titled("Orbit", style={"axes": {"wght": 400}}))
        light = lay_out(made, made.layers[0]).boxes["character"]
        # The kerning is that of the letters at rest, hence not to the pixel.
        np.testing.assert_allclose(
            layout.boxes["character"][:, 0] + got.left[0], light[:, 0], atol=4
        )
        np.testing.assert_allclose(np.ptp(got.right[0] - got.left[0]) > 0, True)

    def test_an_axis_ends_where_its_range_does(self):
        far, _ = flow("Orbit", {"pose": {"axes": {"wdth": 10_000}}})
        farther, _ = flow("Orbit", {"pose": {"axes": {"wdth": 5_000}}})
        np.testing.assert_allclose(far.left, farther.left)


class HoldCenterTest(TestCase):
    def middles(self, text, frames, **title):
        """The middle of what is seen, where letters appear one by one at once."""
        move = {"pose": {}, "until_turn": "hidden", "stagger": {"gap": 5}, "unit": "character"}
        got, layout = flow(text, move, frames, hold_center=True, **title)
        boxes = layout.boxes["character"]
        middles = []
        for row, frame in enumerate(frames):
            seen = slice(0, frame // 5 + 1)
            left = (boxes[seen, 0] + got.left[row, seen]).min()
            right = (boxes[seen, 2] + got.left[row, seen]).max()
            middles.append((left + right) / 2)
        return middles

    def test_what_is_seen_stays_in_the_middle(self):
        for text in ("Orbit", "One two", "A  b c"):
            with self.subTest(text):
                frames = [0, 5, 10, 15, 20]
                np.testing.assert_allclose(self.middles(text, frames), 0, atol=1e-6)

    def test_a_line_that_runs_to_the_left_too(self):
        middles = self.middles("שלום", [0, 5, 10, 15])
        np.testing.assert_allclose(middles, 0, atol=1e-6)

    def test_words_count_and_fading_as_a_whole_does_not(self):
        words, layout = flow(
            "One two",
            {"unit": "word", "pose": {"opacity": 0}, "stagger": {"gap": 100}, "amount": AWAY},
            (50,),
            hold_center=True,
        )
        left = layout.boxes["word"][0, 0] + words.left[0, 0]
        self.assertAlmostEqual(left + np.ptp(layout.boxes["word"][0, [0, 2]]) / 2, 0)
        title, _ = flow("One", {"unit": "title", "pose": {"opacity": 0}}, (0,), hold_center=True)
        np.testing.assert_allclose(title.left, 0)


class PivotTest(TestCase):
    def matrices(self, *moves, text="Orbit by"):
        made = files.from_data(titled(text, *moves))
        title = made.layers[0]
        layout = lay_out(made, title)
        times = np.zeros(1)
        placed = place(made, title, layout, compose(made, title, layout, times), times)
        return placed.matrices[0], layout

    def assert_fixed(self, matrix, point):
        x, y, w = matrix @ [*point, 1]
        np.testing.assert_allclose([x / w - 960, y / w - 540], point, atol=1e-6)

    def test_a_unit_turns_about_its_pivot(self):
        for whose, across, down in (("unit", 0.5, 1), ("word", 0, 0), ("line", 1, 0.5),
                                    ("title", 0.25, 0.75)):  # fmt: skip
            move = {"pose": {"rotation": 70, "scale": 2}, "pivot": [across, down],
                    "pivot_of": whose}  # fmt: skip
            matrices, layout = self.matrices(move)
            kind = "character" if whose == "unit" else whose
            for number, matrix in enumerate(matrices):
                box = layout.boxes[kind][layout.member[kind][number]]
                point = box[:2] + (box[2:] - box[:2]) * [across, down]
                with self.subTest(whose, letter=number):
                    self.assert_fixed(matrix, point)

    def test_moves_with_pivots_of_their_own(self):
        """Each turns about its own, and shifts still add up."""
        foot = {"pose": {"scale_y": 0, "x": 30}, "pivot": [0.5, 1]}
        matrices, layout = self.matrices(foot, {"pose": {"rotation": 0, "x": 12}})
        left, top, right, bottom = layout.boxes["character"][0]
        x, y, _ = matrices[0] @ [(left + right) / 2, top, 1]
        np.testing.assert_allclose([x, y], [960 + (left + right) / 2 + 42, 540 + bottom])

    def test_a_skew_leans_clockwise(self):
        matrices, layout = self.matrices({"pose": {"skew": 45}})
        left, top, right, bottom = layout.boxes["character"][0]
        x, y, _ = matrices[0] @ [(left + right) / 2, top, 1]
        half = (bottom - top) / 2
        np.testing.assert_allclose([x - 960, y - 540], [(left + right) / 2 + half, top])
