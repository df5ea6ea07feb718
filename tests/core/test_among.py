"""Moves of some letters alone: their own ranks, boxes and pivots, kept over retyping."""

from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from balletto.lettering.layout import lay_out
from balletto.motion.evaluate import compose
from balletto.motion.poses import poses
from balletto.motion.spaces.matrices import place
from balletto.motion.units import part_of, unit_texts
from balletto.scene import files
from balletto.scene.edits import apply

from .scenes import scene_data

FRAMES = np.arange(0, 60, 7.0)
RISE = {"amount": {"keys": [{"at": 0, "value": 1}, {"at": 20, "value": 0}]}, "pose": {"y": 100}}


def scene(text, *moves):
    data = scene_data(text)
    data["layers"][0]["runs"] = []
    data["layers"][0]["moves"] = [{"id": f"m{n}", **move} for n, move in enumerate(moves, 1)]
    return files.from_data(data)


def placed(made):
    title = made.layers[0]
    layout = lay_out(made, title)
    return place(made, title, layout, compose(made, title, layout, FRAMES), FRAMES).matrices


class AmongTest(TestCase):
    def test_letters_have_ranks_of_their_own(self):
        """The stagger counted letters that were not moved: the first chosen one waited 8 frames."""
        stagger = {"order": "forward", "gap": 2}
        made = scene("The Quiet Orbit", {**RISE, "stagger": stagger, "among": [[4, 9]]})
        told = poses(made, "t1", [0])
        self.assertEqual(told["moves"]["m1"]["units"], list("Quiet"))
        self.assertEqual(told["moves"]["m1"]["delays"], [0, 2, 4, 6, 8])
        away = [y != 0 for y in told["values"]["y"][0]]
        self.assertEqual(away, [False] * 3 + [True] * 5 + [False] * 5)

    def test_a_word_move_takes_the_letters_and_not_the_whole_word(self):
        made = scene("The Quiet Orbit", {**RISE, "unit": "word", "among": [[5, 7]]})
        rest = scene("The Quiet Orbit")
        moved = np.abs(placed(made) - placed(rest)).max(axis=(0, 2, 3)) > 1e-6
        self.assertEqual(moved.tolist(), [False] * 4 + [True] * 2 + [False] * 7)
        layout = lay_out(made, made.layers[0])
        self.assertEqual(unit_texts(layout, made.layers[0].moves[0]), ["ui"])

    def test_the_pivot_is_the_middle_of_what_moves(self):
        """Turned by half, the outer letters of a part change places."""
        made = scene("mmmm", {"unit": "title", "pose": {"rotation": 180}, "among": [[1, 3]]})
        layout = lay_out(made, made.layers[0])
        centers = layout.centers["character"]
        points = np.concatenate([centers, np.ones((4, 1))], axis=1)
        there = np.einsum("nij,nj->ni", placed(made)[0], points)
        before = np.einsum("nij,nj->ni", placed(scene("mmmm"))[0], points)
        np.testing.assert_allclose(there[[1, 2]], before[[2, 1]], atol=1e-6)
        np.testing.assert_allclose(there[[0, 3]], before[[0, 3]], atol=1e-6)

    def test_moves_of_letters_still_add_up_with_those_of_all(self):
        turn, shift = {"pose": {"rotation": 90}}, {"pose": {"x": 10}, "among": [[0, 2]]}
        values = compose(made := scene("ABCD", turn, shift), made.layers[0],
                         lay_out(made, made.layers[0]), FRAMES)["character"]  # fmt: skip
        self.assertEqual(values.full("x")[0].tolist(), [10, 10, 0, 0])
        self.assertEqual(values.full("rotation")[0].tolist(), [90] * 4)
        # Added up, not nested: the shift is not turned.
        moved = placed(made)[0] - placed(scene("ABCD", turn))[0]
        np.testing.assert_allclose(moved[0, :2, 2], [10, 0], atol=1e-9)

    def test_white_space_takes_part_within_its_letters_only(self):
        stagger = {"order": "forward", "gap": 1}
        move = {**RISE, "stagger": stagger, "spaces": True, "among": [[2, 7]]}
        told = poses(scene("The Quiet", move), "t1", [0])
        self.assertEqual(told["moves"]["m1"]["units"], ["e", " ", "Q", "u", "i"])
        self.assertEqual([y != 0 for y in told["values"]["y"][0]], [0, 0, 1, 1, 1, 1, 0, 0])

    def test_ranges_are_kept_over_retyping(self):
        data = scene_data("The Quiet Orbit")
        data["layers"][0]["moves"][0]["among"] = [[4, 9]]
        for text, words in (
            ("In The Quiet Orbit", "Quiet"), ("Quiet", "Quiet"), ("The Silent Orbit", "Silent"),
            ("The Quieter Orbit", "Quieter"), ("The Orbit", ""),
        ):  # fmt: skip
            with self.subTest(text):
                made = apply(data, {"name": "set-text", "layer": "t1", "text": text}).scene
                kept = made.layers[0].moves[0].among
                self.assertEqual("".join(text[a:b] for a, b in kept), words)

    def test_letters_that_are_gone_move_nothing(self):
        for unit in ("character", "word", "line", "title"):
            for among in ([], [[40, 50]], [[3, 4]]):
                with self.subTest(unit, among=among):
                    made = scene("The Quiet", {**RISE, "unit": unit, "among": among})
                    np.testing.assert_array_equal(placed(made), placed(scene("The Quiet")))

    @given(st.integers(0, 13), st.integers(1, 8), st.sampled_from(["word", "line", "title"]))
    def test_parts_lie_within_the_units_that_they_are_of(self, first, count, unit):
        made = scene("The Quiet\nOrbit")
        layout = lay_out(made, made.layers[0])
        part = part_of(layout, unit, ((first, first + count),))
        whole = layout.boxes[unit][layout.member[unit][part.letters]]
        own = part.boxes[part.member]
        assert (own[:, 0] >= whole[:, 0] - 1e-9).all()
        assert (own[:, 2] <= whole[:, 2] + 1e-9).all()
        assert len(part.boxes) == len(set(part.member.tolist()))
