"""Ties and bent paths: values that follow others, and ways that are travelled by their length."""

from itertools import pairwise
from unittest import TestCase, mock

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from balletto.motion.poses import poses
from balletto.scene import files
from balletto.scene.errors import SceneError
from balletto.scene.values import ties
from balletto.scene.values.motion_path import PathTrack
from balletto.scene.values.tracks import value_at

from .scenes import scene_data

TIMES = np.array([0.0, 3.0, 11.5, 40.0])


def tied(to, **more):
    return {"tie": {"to": to, **more}}


def scene_with(**paths):
    """The usual scene with values put at paths of its title: `moves_0_pose_x`."""
    data = scene_data()
    for path, value in paths.items():
        *way, last = [int(part) if part.isdigit() else part for part in path.split("__")]
        place = data["layers"][0]
        for part in way:
            place = place[part]
        place[last] = value
    return data


class TieTest(TestCase):
    def test_gain_plus_and_delay(self):
        made = files.from_data(
            scene_with(moves__0__pose__x=tied("t1.moves.m1.amount", gain=-40, plus=5, delay=3))
        )
        move = made.layers[0].moves[0]
        expected = -40 * value_at(move.amount, TIMES - 3) + 5
        np.testing.assert_allclose(value_at(move.pose.x, TIMES), expected)

    def test_what_a_kind_of_value_takes_is_worked_out_once(self):
        """Scenes are read anew for each edit; a hundred ties took a tenth of a second more."""
        data = scene_with(transform__opacity=tied("t1.moves.m1.amount"))
        files.from_data(data)
        with mock.patch.object(ties, "TypeAdapter", side_effect=AssertionError):
            files.from_data(data)

    def test_a_part_of_a_vector_a_vector_and_a_colour(self):
        position = {"keys": [{"at": 0, "value": [0, 10, 0]}, {"at": 40, "value": [80, 90, 0]}]}
        made = files.from_data(
            scene_with(
                transform__position=position,
                transform__rotation=tied("t1.transform.position", gain=0.5),
                moves__0__pose__y=tied("t1.transform.position.1"),
                moves__0__pose__fill=tied("t1.style.fill"),
            )
        ).layers[0]
        np.testing.assert_allclose(value_at(made.transform.rotation, TIMES)[-1], [40, 45, 0])
        np.testing.assert_allclose(value_at(made.moves[0].pose.y, TIMES)[-1], 90)
        np.testing.assert_allclose(
            value_at(made.moves[0].pose.fill, TIMES), value_at("#FFFFFF", TIMES)
        )

    def test_the_order_of_ties_does_not_matter(self):
        """A chain gives the same whether a link stands before or after what it follows."""
        values = []
        for names in (("x", "y", "z"), ("z", "y", "x"), ("y", "z", "x")):
            first, second, third = names
            pose = {
                first: tied("t1.moves.m1.amount", gain=100),
                second: tied(f"t1.moves.m1.pose.{first}", gain=2),
                third: tied(f"t1.moves.m1.pose.{second}", plus=1),
            }
            shown = poses(files.from_data(scene_with(moves__0__pose=pose)), "t1", [4, 9])["values"]
            values.append([shown[name] for name in names])
        self.assertEqual(values[0], values[1])
        self.assertEqual(values[0], values[2])

    def test_a_circle_is_refused_by_name(self):
        with self.assertRaises(SceneError) as caught:
            files.from_data(
                scene_with(
                    moves__0__pose={
                        "x": tied("t1.moves.m1.pose.y"),
                        "y": tied("t1.transform.opacity"),
                    },
                    transform__opacity=tied("t1.moves.m1.pose.x"),
                )
            )
        said = str(caught.exception)
        self.assertIn("layers[0].moves[0].pose.x: a circle of ties", said)
        self.assertIn(
            "t1.moves.m1.pose.x → t1.moves.m1.pose.y → t1.transform.opacity → t1.moves.m1.pose.x",
            said,
        )

    def test_what_cannot_be_followed_is_said(self):
        for to, told in (
            ("t9.transform.opacity", 'there is no layer "t9"'),
            ("t1.moves.m7.amount", 'there is no move in t1 "m7"'),
            ("t1.moves.m1.pose.z", 'there is no "z"'),
            ("t1.transform", "is no value that could be followed"),
            ("t1.text", "is no value that could be followed"),
            ("t1.transform.position", "one number is needed to follow"),
            ("t1.style.fill", 'one number is needed to follow, "t1.style.fill" is a colour'),
            ("t1.moves.m1.amount", "a circle of ties"),
        ):
            with self.subTest(to):
                with self.assertRaises(SceneError) as caught:
                    files.from_data(scene_with(moves__0__amount=tied(to)))
                self.assertIn("layers[0].moves[0].amount: ", str(caught.exception))
                self.assertIn(told, str(caught.exception))

    def test_a_text_is_no_colour(self):
        """One that begins with # was taken for one, and broke the drawing."""
        data = scene_with(text="#hello", moves__0__pose__fill=tied("t1.text"))
        with self.assertRaises(SceneError):
            files.from_data(data)

    def test_ties_in_a_row_have_an_end(self):
        """Hundreds of them broke the evaluation by their depth."""

        def chained(count):
            """A scene in which each of so many moves follows the next one's x."""
            ends = [f"t{n // 60 + 1}.moves.m{n % 60}" for n in range(count + 1)]
            moves = [
                {"id": here.split(".")[-1], "pose": {"x": tied(f"{there}.pose.x")}}
                for here, there in pairwise(ends)
            ]
            moves.append({"id": ends[-1].split(".")[-1], "pose": {"x": 7}})
            data = scene_data()
            title = data["layers"][0]
            data["layers"] = [
                {**title, "id": f"t{n // 60 + 1}", "moves": moves[n : n + 60]}
                for n in range(0, len(moves), 60)
            ]
            return data

        values = poses(files.from_data(chained(100)), "t1", [0])["values"]["x"]
        self.assertEqual(values[0][0], 7 * 60)
        with self.assertRaises(SceneError) as caught:
            files.from_data(chained(101))
        self.assertIn("more than 100 ties in a row", str(caught.exception))

    def test_a_tie_is_kept_in_the_file(self):
        data = scene_with(moves__0__pose__x=tied("t1.moves.m1.amount", gain=2))
        self.assertEqual(files.to_data(files.from_data(data)), data)


def path(out=None, coming=None, ease="linear", **more):
    first = {"at": 0, "value": [0, 0, 0], "ease": ease}
    last = {"at": 10, "value": [100, 0, 0]}
    if out:
        first["out"] = out
    if coming:
        last["in"] = coming
    return PathTrack.model_validate({"keys": [first, last], **more}, strict=False)


handles = st.tuples(st.floats(-200, 200), st.floats(-200, 200))


class MotionPathTest(TestCase):
    @given(handles, handles)
    def test_even_time_is_even_way(self, out, coming):
        """With a linear ease as much way is made in each frame; the ends are exact."""
        track = path(list(out), list(coming))
        fine = track.at_times(np.linspace(0, 10, 2001))
        steps = np.linalg.norm(np.diff(fine, axis=0), axis=1)
        if steps.sum() > 1:
            # The chord over a cusp is shorter than the way: few are.
            self.assertLess(np.median(np.abs(steps / steps.mean() - 1)), 0.02)
        self.assertEqual(track.at_times(np.array([0.0, 10.0]))[:, 0].tolist(), [0, 100])

    def test_a_quarter_circle_is_half_way_at_its_middle(self):
        """The usual handles of a quarter circle: by its parameter, the middle is the middle too;
        at a quarter of the way only the length tells 22.5 degrees (the parameter gives 22.9)."""
        k = 0.5522847498
        keys = [{"at": 0, "value": [1, 0, 0], "out": [0, k]},
                {"at": 4, "value": [0, 1, 0], "in": [k, 0]}]  # fmt: skip
        track = PathTrack.model_validate({"keys": keys}, strict=False)
        x, y, _ = track.at_times(np.array(1.0))
        self.assertAlmostEqual(np.degrees(np.arctan2(y, x)), 22.5, delta=0.05)

    def test_past_the_end_it_goes_straight_on(self):
        track = path([0, 50], [-50, 0], {"bezier": [0.3, 0, 0.7, 1.8]})
        far = track.at_times(np.linspace(0, 10, 101))
        past = far[far[:, 0] > 100]
        self.assertTrue(len(past))
        np.testing.assert_allclose(past[:, 1], 0, atol=0.05)

    def test_smooth_eases_run_along_the_way(self):
        keys = [{"at": 0, "value": [0, 0, 0], "out": [0, 80], "ease": "auto"},
                {"at": 10, "value": [100, 0, 0], "in": [0, 80], "ease": "auto"},
                {"at": 20, "value": [300, 0, 0]}]  # fmt: skip
        track = PathTrack.model_validate({"keys": keys}, strict=False)
        got = track.at_times(np.array([0, 5, 10, 15, 20.0]))
        self.assertGreater(got[1, 1], 40)
        np.testing.assert_allclose(got[[0, 2, 4], 0], [0, 100, 300], atol=1e-9)

    def test_without_handles_it_is_straight(self):
        track = path(ease="soft-both")
        np.testing.assert_allclose(track.at_times(np.arange(11.0))[:, 1], 0)
