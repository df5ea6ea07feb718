"""Follow: exact, from whatever frame it is asked, and landing where what it follows lands."""

from fractions import Fraction
from functools import partial
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from balletto.motion.follow import followed, followed_alike
from balletto.motion.poses import poses
from balletto.scene import files
from balletto.scene.moving.moves import Follow
from balletto.scene.values.tracks import Track, value_at

from .scenes import scene_data

RATE = Fraction(30)
springs = st.builds(Follow, frequency=st.floats(0.1, 15), damping=st.floats(0.05, 4))


def course(weights, follow, times, count=1):
    return followed(weights, follow, RATE, np.array(times, dtype=float), count)


def fine_steps(weights, follow, frames, parts=500):
    """The same by many small steps, each exact for a weight that stays: (frames,)."""
    k, z, step = 2 * np.pi * follow.frequency / float(RATE), follow.damping, 1 / parts
    change = np.array([[0, 1], [-k * k, -2 * z * k]]) * step
    over, term = np.eye(2), np.eye(2)
    for power in range(1, 25):
        term = term @ change / power
        over = over + term
    state, rows = np.array([weights(np.zeros((1, 1)))[0, 0], 0.0]), []
    for frame in range(frames):
        rows.append(state[0])
        for weight in weights(frame + (np.arange(parts)[:, None] + 0.5) / parts)[:, 0]:
            state = over @ (state - [weight, 0]) + [weight, 0]
    return np.array(rows)


class FollowLaws(TestCase):
    @given(springs)
    def test_a_fall_at_once_is_answered_by_the_formula(self, follow):
        """A weight that drops from 1 to 0 at frame 2.3 leaves the textbook's free oscillation."""
        got = course(lambda t: (t < 2.3) * 1.0, follow, [0, 2, 5, 20])[:, 0]
        k, z = 2 * np.pi * follow.frequency / 30, follow.damping
        past = np.maximum(np.array([0, 2, 5, 20]) - 2.3, 0)
        split = k * np.emath.sqrt(1 - z * z)
        if abs(split) < 1e-6:
            return
        swing = np.cos(split * past) + z * k / split * np.sin(split * past)
        np.testing.assert_allclose(got, np.real(np.exp(-z * k * past) * swing), atol=1e-4)

    @given(springs, st.lists(st.floats(0, 80), min_size=1, max_size=5))
    def test_any_time_is_the_same_whatever_else_is_asked(self, follow, times):
        def weights(at):
            return np.cos(at / 7) + (at > 11.5)

        together = course(weights, follow, [*times, 60, 3])
        for time, row in zip(times, together, strict=False):
            np.testing.assert_allclose(course(weights, follow, [time])[0], row, atol=1e-9)
        backwards = course(weights, follow, [3, 60, *times[::-1]])[::-1]
        np.testing.assert_allclose(backwards, together, atol=1e-9)

    def test_ticks_and_swings_are_followed(self):
        def weights(at):
            return np.sin(np.floor(at / 2.5) * 17.3) + np.sin(at / 2)

        for follow in (Follow(frequency=2.5, damping=0.3), Follow(frequency=6, damping=2)):
            with self.subTest(follow):
                got = course(weights, follow, range(40))[:, 0]
                np.testing.assert_allclose(got, fine_steps(weights, follow, 40), atol=1e-4)

    def test_what_turns_fast_is_followed(self):
        """Halved only as long as few pieces were left, it was off by a thousandth."""

        def weights(at):
            return np.sin(at * np.pi / 2) * np.sin(np.floor(at / 2.5) * 17.3) + np.cos(at * 2.5)

        follow = Follow(frequency=1, damping=1)
        got = course(weights, follow, range(40))[:, 0]
        np.testing.assert_allclose(got, fine_steps(weights, follow, 40, 2000), atol=1e-5)

    def test_a_unit_is_followed_the_same_whatever_stands_beside_it(self):
        def shaky(at):
            return np.sign(np.sin(1900 * at)) + np.sin(at)

        def calm(at):
            return np.cos(at / 2) + (at > 11.37)

        def both(at):
            wide = np.broadcast_to(at, (len(at), 2))
            return np.stack([calm(wide[:, 0]), shaky(wide[:, 1])], axis=1)

        follow = Follow(frequency=2, damping=0.4)
        beside = course(both, follow, range(40), 2)[:, 0]
        np.testing.assert_allclose(beside, course(calm, follow, range(40))[:, 0], atol=1e-12)

    def test_it_starts_on_the_amount_before_an_ease_that_jumps(self):
        """Steps that jump at their start were followed as if they had stood there all the time."""
        keys = [{"at": 0, "value": 1, "ease": {"steps": 1, "jump": "start"}}, {"at": 8, "value": 0}]
        for start in (0, 6):
            for reach in ([], [{"kind": "sweep"}]):
                with self.subTest(start=start, reach=reach):
                    move = {"start": start, "amount": {"keys": keys}, "reach": reach}
                    move |= {"pose": {"x": 100}, "follow": {"frequency": 2, "damping": 0.5}}
                    data = scene_data("A")
                    data["layers"][0]["moves"] = [{"id": "m1", **move}]
                    told = poses(files.from_data(data), "t1", [start, start + 3, start + 60])
                    first, later, last = (row[0] for row in told["moves"]["m1"]["weights"])
                    self.assertAlmostEqual(first, 1, 4)
                    self.assertTrue(0.2 < later < 0.95, later)
                    self.assertAlmostEqual(last, 0, 3)

    def test_one_course_read_off_for_all_is_the_same_as_each_followed_alone(self):
        delays, times = np.array([0, 1.37, 5.5, 20.01]), np.arange(80.0)
        for ease in ("hold", "soft-both", {"steps": 3}, {"bounce": 3}):
            keys = [{"at": 0, "value": 1, "ease": ease}, {"at": 9.7, "value": -0.5, "ease": "hold"},
                    {"at": 17.3, "value": 0}]  # fmt: skip
            amount = Track[float].model_validate({"keys": keys}, strict=False)
            for frequency, damping in ((0.3, 1), (2.5, 0.35), (12, 0.1), (30, 0.5)):
                follow = Follow(frequency=frequency, damping=damping)
                with self.subTest(ease, follow=follow):
                    alone = course(
                        lambda at, amount=amount: value_at(amount, at - delays), follow, times, 4
                    )
                    local = times[:, None] - delays
                    read = followed_alike(partial(value_at, amount), follow, RATE, 0.0, local)
                    np.testing.assert_allclose(read, alone, atol=1e-4)

    def test_what_does_not_change_is_not_left(self):
        got = course(lambda at: np.full(np.shape(at), 0.7), Follow(frequency=3), [-5, 0, 50.5])
        np.testing.assert_allclose(got, 0.7, atol=1e-9)

    def test_nothing_shakes_too_fast_to_end(self):
        """A wave of hundreds of turns a frame took 18 seconds before the halving was bounded."""
        got = course(lambda at: np.sign(np.sin(1900 * at)), Follow(frequency=2), range(100))
        self.assertLess(np.abs(got).max(), 1.5)


class FollowOfMovesTest(TestCase):
    def weights(self, frames, **move):
        data = scene_data()
        data["layers"][0]["moves"][0].update(move)
        return np.array(poses(files.from_data(data), "t1", frames)["moves"]["m1"]["weights"])

    def test_it_swings_past_home_and_lands(self):
        follow = {"frequency": 2.5, "damping": 0.35}
        got = self.weights(list(range(150)), follow=follow)
        self.assertLess(got.min(), -0.005)
        np.testing.assert_allclose(got[-1], 0, atol=1e-4)

    def test_each_letter_swings_alike_and_later(self):
        got = self.weights(list(range(60)), follow={"frequency": 2, "damping": 0.5})
        np.testing.assert_allclose(got[:40, 0], got[10:50, 5], atol=1e-6)

    def test_chance_keeps_each_property_apart(self):
        data = scene_data()
        move = data["layers"][0]["moves"][0]
        move |= {"pose": {"x": 1, "y": 1}, "reach": [{"kind": "scatter", "seed": 4}],
                 "follow": {"frequency": 2}}  # fmt: skip
        values = poses(files.from_data(data), "t1", [4])["values"]
        self.assertNotEqual(values["x"], values["y"])
