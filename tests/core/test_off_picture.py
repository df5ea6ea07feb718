"""Off the picture: at the away end of a move nothing is seen, and it is no farther than needed."""

from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from balletto.motion.poses import poses
from balletto.picture.frame import Picture, draw_frame
from balletto.scene import files

from .scenes import scene_data

SIZE = (240, 136)
SIDES = ("left", "right", "above", "below")


def scene_of(pose, amount=1.0, unit="character", style=None, transform=None, **layer):
    """A scene of one title of two lines, no ground, with a move that is `amount` of the way."""
    data = scene_data("Fly\nhome now", size=list(SIZE), background={"kind": "none"})
    title = data["layers"][0]
    title["style"] |= {"size": 30, **(style or {})}
    title["transform"] = {"position": [120, 68, 0], **(transform or {})}
    title["moves"] = [{"id": "m1", "unit": unit, "pose": pose, "amount": amount}]
    return files.from_data({**data, "layers": [{**title, **layer}]})


def ink(scene, frame=0):
    """How opaque the picture is, in all."""
    return draw_frame(Picture(scene), frame)[..., 3].sum(dtype=float)


class OffPictureTest(TestCase):
    @settings(max_examples=40, deadline=None)
    @given(
        side=st.sampled_from(SIDES),
        alone=st.sampled_from([{}, {"off_of": "unit"}]),
        unit=st.sampled_from(["character", "word", "line", "title"]),
        style=st.fixed_dictionaries(
            {"align": st.sampled_from(["left", "center", "right"]), "outline": st.integers(0, 6)}
        ),
        place=st.tuples(st.integers(-40, 280), st.integers(-20, 150)),
        turn=st.tuples(st.integers(-50, 50), st.integers(-50, 50), st.integers(-180, 180)),
        scale=st.floats(0.4, 1.6),
        effects=st.sampled_from(
            [
                [],
                [{"kind": "shadow", "x": -20, "y": 12, "softness": 4}],
                [{"kind": "blur", "x": 5, "y": 3}, {"kind": "displace", "amount": 5}],
                [{"kind": "glow", "radius": 6}, {"kind": "outline", "width": 5}],
            ]
        ),
    )
    def test_nothing_is_seen_at_the_away_end(
        self, side, alone, unit, style, place, turn, scale, effects
    ):
        transform = {
            "position": [*place, 0],
            "rotation": list(turn),
            "scale": [scale, scale * 0.8],
        }
        scene = scene_of({"off": side, **alone}, 1, unit, style, transform, effects=effects)
        self.assertEqual(ink(scene), 0)

    def test_it_is_just_out(self):
        """A few px less, and something is seen."""
        for side in SIDES:
            for alone in ({}, {"off_of": "unit"}):
                back = {"left": ("x", 6), "right": ("x", -6), "above": ("y", 6), "below": ("y", -6)}
                name, by = back[side]
                with self.subTest(side, **alone):
                    self.assertEqual(ink(scene_of({"off": side, **alone})), 0)
                    self.assertGreater(ink(scene_of({"off": side, **alone, name: by})), 0)

    def test_the_whole_goes_as_one_and_each_by_itself(self):
        """Together the letters keep their places to each other, alone each goes its own way."""
        for alone, is_alone in (({}, False), ({"off_of": "unit"}, True)):
            scene = scene_of({"off": "left", **alone}, style={"align": "left"})
            shifts = poses(scene, "t1", [0])["values"]["x"][0]
            self.assertEqual(np.ptp(shifts) > 1, is_alone)

    def test_half_way_it_is_half_as_far(self):
        whole, half = (
            poses(scene_of({"off": "right"}, amount), "t1", [0])["values"]["x"][0][0]
            for amount in (1, 0.5)
        )
        self.assertAlmostEqual(half, whole / 2)

    def test_a_layer_on_its_way_is_out_all_the_time(self):
        keys = [{"at": 0, "value": [20, 40, 0]}, {"at": 20, "value": [220, 100, -300]}]
        scene = scene_of({"off": "above", "off_of": "unit"}, transform={"position": {"keys": keys}})
        for frame in (0, 7, 20):
            self.assertEqual(ink(scene, frame), 0)

    def test_at_the_camera_and_behind_it_nothing_fails(self):
        distance = scene_data()["camera"]["distance"]
        for depth in (-distance, -distance - 5):
            self.assertEqual(
                ink(scene_of({"off": "left"}, transform={"position": [9, 9, depth]})), 0
            )

    def test_white_space_takes_part(self):
        for alone in ({}, {"off_of": "unit"}):
            scene = scene_of({"off": "left", **alone})
            data = files.to_data(scene)
            data["layers"][0]["moves"][0]["spaces"] = True
            self.assertEqual(ink(files.from_data(data)), 0)

    def test_a_title_without_letters_goes_nowhere(self):
        scene = scene_of({"off": "left"}, text=" ")
        self.assertEqual(ink(scene), 0)
