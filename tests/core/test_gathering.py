"""Gathering: at its end the middles of all units stand at one point."""

from unittest import TestCase

import numpy as np

from balletto.lettering.layout import lay_out
from balletto.motion.poses import poses
from balletto.scene import files

from .scenes import scene_data


def middles(text, gather, unit="character", **move):
    """The middles of the units of a title, as far gathered as is said."""
    data = scene_data(text)
    title = data["layers"][0]
    title["moves"] = [{"id": "m1", "unit": unit, "pose": {"gather": gather}, "amount": 1, **move}]
    scene = files.from_data(data)
    values = poses(scene, "t1", [0])["values"]
    layout = lay_out(scene, scene.layers[0])
    shifts = np.array([values["x"][0], values["y"][0]]).T
    first = [np.flatnonzero(layout.member[unit] == n)[0] for n in range(layout.count(unit))]
    return layout.centers[unit] + shifts[first], layout


class GatheringTest(TestCase):
    def test_all_stand_at_the_middle_whatever_their_widths(self):
        found, layout = middles("Wide iii mW\nllll", 1)
        np.testing.assert_allclose(
            found, np.broadcast_to(layout.centers["title"][0], found.shape), atol=1e-9
        )

    def test_in_the_middle_of_their_line_or_word(self):
        for by in ("line", "word"):
            found, layout = middles("Wide iii\nllll mW", 1, pivot_of=by)
            wanted = layout.centers[by][layout.member[by]]
            np.testing.assert_allclose(found, wanted, atol=1e-9)

    def test_half_way_they_are_half_as_far_apart(self):
        rest, _ = middles("Wide iii", 0)
        half, _ = middles("Wide iii", 0.5)
        whole, _ = middles("Wide iii", 1)
        np.testing.assert_allclose(half, (rest + whole) / 2, atol=1e-9)

    def test_white_space_and_some_letters_alone(self):
        middles("Wide iii", 1, spaces=True)
        found, layout = middles("Wide iii", 1, among=[[0, 4]])
        moved = np.abs(found - layout.centers["character"]).max(axis=1) > 1
        self.assertEqual(moved.tolist(), [True] * 4 + [False] * 3)
