"""Laws of the motion model, for any values."""

import itertools
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from balletto.lettering.layout import lay_out
from balletto.motion.evaluate import compose
from balletto.motion.poses import poses
from balletto.motion.reach import JOINS, reach_of
from balletto.motion.spaces.matrices import place
from balletto.motion.stagger import delays_of
from balletto.motion.timing import timing
from balletto.motion.units import Units, units_of
from balletto.scene import files
from balletto.scene.eases import EASE_NAMES, ease_function
from balletto.scene.eases.bezier import bezier_ease
from balletto.scene.edits import apply
from balletto.scene.moving.moves import Stagger
from balletto.scene.orders import ORDERS, Ordered, ranks_of
from balletto.scene.selectors.sweep import Sweep
from balletto.scene.values.tracks import Track, mix

from .scenes import scene_data

counts = st.integers(0, 40)
percents = st.floats(-300, 300)
unit = st.floats(0, 1)


def units(count):
    return Units(np.stack([np.arange(count, dtype=float), np.zeros(count)], axis=1))


class EaseLaws(TestCase):
    def test_ends_are_exact(self):
        for name in EASE_NAMES:
            with self.subTest(name):
                ends = ease_function(name)(np.array([0.0, 1.0]))
                self.assertEqual(ends[0], 0.0)
                if name != "hold":
                    self.assertEqual(ends[1], 1.0)

    @given(unit, st.floats(-3, 3), unit, st.floats(-3, 3), st.lists(unit, min_size=1))
    def test_beziers_lie_on_their_curve(self, x1, y1, x2, y2, s):
        """The value at s is the curve's y where its x is s."""
        s = np.array(s)
        value = bezier_ease(x1, y1, x2, y2)(s)
        t = np.linspace(0, 1, 20_001)
        curve_x = 3 * (1 - t) ** 2 * t * x1 + 3 * (1 - t) * t**2 * x2 + t**3
        curve_y = 3 * (1 - t) ** 2 * t * y1 + 3 * (1 - t) * t**2 * y2 + t**3
        for got, at in zip(value, s, strict=True):
            near = np.abs(curve_x - at) <= 1e-4
            self.assertGreaterEqual(got, curve_y[near].min() - 1e-2)
            self.assertLessEqual(got, curve_y[near].max() + 1e-2)

    def test_a_vertical_tangent_converges(self):
        value = bezier_ease(1, 0, 0, 1)(np.array([0.25, 0.4999, 0.5001, 0.75]))
        self.assertTrue((np.diff(value) > 0).all())
        np.testing.assert_allclose(value + value[::-1], 1, atol=1e-6)


class TrackLaws(TestCase):
    @given(
        st.lists(st.tuples(st.integers(-99, 99), percents), min_size=1, unique_by=lambda k: k[0])
    )
    def test_a_key_has_its_value_and_the_ends_hold(self, keys):
        keys.sort()
        track = Track[float](keys=tuple({"at": at, "value": value} for at, value in keys))
        at = np.array([key[0] for key in keys], dtype=float)
        np.testing.assert_array_equal(track.at_times(at), [key[1] for key in keys])
        outside = track.at_times(np.array([at[0] - 7, at[-1] + 7]))
        np.testing.assert_array_equal(outside, [keys[0][1], keys[-1][1]])

    @given(percents, unit)
    def test_equal_ends_never_wobble(self, value, share):
        self.assertEqual(mix(np.array(value), np.array(value), np.array(share)), value)

    def test_hold_stays_until_the_next_key(self):
        keys = ({"at": 0, "value": 1, "ease": "hold"}, {"at": 10, "value": 5})
        track = Track[float](keys=keys)
        np.testing.assert_array_equal(track.at_times(np.array([0, 9.99, 10, 11])), [1, 1, 5, 5])

    @given(
        st.lists(st.tuples(st.integers(-99, 99), percents), min_size=2, unique_by=lambda k: k[0]),
        st.integers(1, 3),
    )
    def test_auto_never_passes_its_keys(self, keys, width):
        """Between two keys the value stays between theirs, in every part of a vector."""
        keys.sort()
        made = tuple(
            {"at": at, "value": tuple([value, -value, 1.0][:width]), "ease": "auto"}
            for at, value in keys
        )
        track = Track[tuple[float, ...]](keys=made)
        for (start, one), (end, other) in itertools.pairwise(keys):
            course = track.at_times(np.linspace(start, end, 33))[:, 0]
            room = 1e-9 * (1 + abs(one) + abs(other))
            self.assertGreaterEqual(course.min(), min(one, other) - room)
            self.assertLessEqual(course.max(), max(one, other) + room)

    def test_beyond_the_ends(self):
        """0 to 10 over ten frames, then one stretch on and one back."""
        keys = ({"at": 0, "value": 0}, {"at": 10, "value": 10})
        for mode, before, after in (
            ("hold", 0, 10), ("cycle", 7, 3), ("mirror", 3, 7), ("continue", -3, 13)
        ):  # fmt: skip
            with self.subTest(mode):
                track = Track[float](keys=keys, before=mode, after=mode)
                np.testing.assert_allclose(track.at_times(np.array([-3, 13])), [before, after])

    def test_continue_goes_on_as_fast_as_it_ended(self):
        keys = ({"at": 0, "value": (0, 5), "ease": {"bezier": (0.5, 0, 1, 1)}},
                {"at": 10, "value": (20, 5)})  # fmt: skip
        track = Track[tuple[float, float]](keys=keys, after="continue")
        got = track.at_times(np.array([10.0, 11.0, 12.0]))
        np.testing.assert_allclose(np.diff(got[:, 0]), 1e-9 + np.diff(got[:, 0])[0])
        np.testing.assert_allclose(got[:, 1], 5)
        fast = track.at_times(np.array([9.999, 10.0]))[:, 0]
        np.testing.assert_allclose(got[1, 0] - got[0, 0], np.diff(fast)[0] * 1000, rtol=1e-2)

    def test_vectors(self):
        keys = ({"at": 0, "value": (0, 0)}, {"at": 10, "value": (10, -20)})
        track = Track[tuple[float, float]](keys=keys)
        np.testing.assert_array_equal(track.at_times(np.array([5.0])), [[5, -10]])


class StaggerLaws(TestCase):
    @given(counts, st.integers(0, 2**32 - 1))
    def test_a_shuffle_is_a_permutation(self, count, seed):
        ranks = ranks_of(Ordered(order="shuffle", seed=seed), units(count))
        self.assertEqual(sorted(ranks), list(range(count)))

    @given(counts)
    def test_every_order_takes_any_number_of_units(self, count):
        for order in ORDERS:
            more = {"by-hand": {"ranks": (0.0, 2.0)}, "from-point": {"point": (3.0, 4.0)}}
            ranks = ranks_of(Ordered(order=order, **more.get(order, {})), units(count))
            self.assertEqual(len(ranks), count)
            self.assertTrue(np.isfinite(ranks).all())

    @given(st.integers(2, 40), st.floats(-50, 50))
    def test_a_span_is_the_time_from_first_to_last(self, count, span):
        delays = delays_of(Stagger(order="center-out", span=span), units(count))
        largest = abs(span) if np.ptp(ranks_of(Ordered(order="center-out"), units(count))) else 0
        self.assertAlmostEqual(np.ptp(delays), largest, places=9)

    def test_by_hand_repeats_its_last_rank(self):
        ranks = ranks_of(Ordered(order="by-hand", ranks=(3.0, 1.0)), units(4))
        self.assertEqual(ranks.tolist(), [3, 1, 1, 1])


class ReachLaws(TestCase):
    @settings(max_examples=200)
    @given(counts, percents, percents, percents, st.floats(0, 300), st.floats(0, 300), percents)
    def test_weights_of_a_sweep_stay_within_its_strength(
        self, count, low, high, travel, soft_low, soft_high, strength
    ):
        sweep = Sweep(
            kind="sweep", low=low, high=high, travel=travel, soft_low=soft_low,
            soft_high=soft_high, strength=strength,
        )  # fmt: skip
        weights = reach_of((sweep,), units(count), np.array([0.0]))
        ends = sorted((0, strength / 100))
        self.assertTrue((weights >= ends[0] - 1e-9).all())
        self.assertTrue((weights <= ends[1] + 1e-9).all())

    def test_joins(self):
        one, other = np.array([0.75]), np.array([0.5])
        got = {name: float(join(one, other)[0]) for name, join in JOINS.items()}
        self.assertEqual(
            got,
            {"multiply": 0.375, "add": 1.25, "subtract": 0.25, "min": 0.5, "max": 0.75,
             "difference": 0.25},
        )  # fmt: skip


poses_given = st.dictionaries(
    st.sampled_from(["x", "y", "z", "rotation", "rotation_x", "scale", "scale_y", "skew"]),
    st.floats(-500, 500),
)
selectors = st.lists(
    st.one_of(
        st.builds(lambda seed: {"kind": "scatter", "seed": seed}, st.integers(0, 99)),
        st.builds(lambda period: {"kind": "wave", "period": period}, st.floats(2, 90)),
        st.builds(lambda seed: {"kind": "jitter", "seed": seed}, st.integers(0, 99)),
        st.builds(lambda low: {"kind": "sweep", "low": low, "soft_low": 30}, percents),
    ),
    max_size=3,
)
follows = st.none() | st.builds(
    lambda f, z: {"frequency": f, "damping": z}, st.floats(0.5, 8), st.floats(0.1, 2)
)


def one_move(text="The Quiet Orbit", **move):
    """A scene whose title has this one move."""
    data = scene_data(text)
    data["layers"][0]["moves"] = [{"id": "m1", **move}]
    return files.from_data(data)


class PoseLaws(TestCase):
    @given(poses_given, selectors, follows, st.sampled_from(["character", "word", "line"]))
    def test_at_amount_zero_everything_is_at_rest(self, pose, reach, follow, kind):
        pose = {**pose, "opacity": 0.3}
        move = {"pose": pose, "reach": reach, "unit": kind, "amount": 0}
        move |= {"follow": follow} if follow else {}
        made = one_move(**move)
        rest = {"scale_x": 1, "scale_y": 1, "opacity": 1}
        layout = lay_out(made, made.layers[0])
        composite = compose(made, made.layers[0], layout, np.array([0.0, 17.0]))[kind]
        for name, values in composite.values.items():
            self.assertTrue((values == rest.get(name, 0)).all(), name)

    @given(selectors, follows, st.permutations([0, 7, 39, 80]))
    def test_a_frame_alone_is_the_frame_in_a_range(self, reach, follow, frames):
        move = {"pose": {"x": 10, "scale": 2}, "reach": reach, "stagger": {"gap": 1.5}}
        move |= {"follow": follow} if follow else {}
        amount = {"keys": [{"at": 0, "value": 1, "ease": "hold"}, {"at": 30, "value": 0}]}
        made = one_move(**move, amount=amount)
        together = poses(made, "t1", list(range(81)))["values"]
        shuffled = poses(made, "t1", frames)["values"]
        for row, frame in enumerate(frames):
            alone = poses(made, "t1", [frame])["values"]
            for name, rows in together.items():
                np.testing.assert_allclose(alone[name][0], rows[frame], atol=1e-9)
                np.testing.assert_allclose(shuffled[name][row], rows[frame], atol=1e-9)

    def test_an_alternation_takes_every_other_unit_each_way(self):
        reach = [{"kind": "alternation", "odd": 1, "even": {"keys": [
            {"at": 0, "value": 0}, {"at": 10, "value": -1, "ease": "linear"}]}}]  # fmt: skip
        move = one_move("Orbit", pose={"y": 100}, amount=1, reach=reach)
        self.assertEqual(poses(move, "t1", [10])["values"]["y"], [[100, -100] * 2 + [100]])

    @given(st.integers(0, 2**32 - 1), st.text("abc", max_size=8))
    def test_letters_added_at_the_end_change_no_other_letters_chance(self, seed, more):
        for kind in ("scatter", "jitter"):
            reach = [{"kind": kind, "seed": seed}]
            pose = {"x": 100, "rotation": 30, "scale": 2}
            short = poses(one_move("Orbit", pose=pose, reach=reach), "t1", [0, 9])["values"]
            longer = poses(one_move(f"Orbit{more}", pose=pose, reach=reach), "t1", [0, 9])["values"]
            for name, rows in short.items():
                self.assertEqual(rows, [row[:5] for row in longer[name]])

    @given(st.floats(3, 200), st.floats(0.2, 4), st.sampled_from(["sine", "triangle", "pulse"]))
    def test_a_loop_leads_from_its_last_frame_into_its_first(self, period, cycles, shape):
        """The frame after the last is the first again, at any fraction of a frame."""
        wave = {"kind": "wave", "period": period, "cycles": cycles, "shape": shape,
                "soft": 0.3, "loop": True}  # fmt: skip
        made = one_move(pose={"y": 10}, reach=[wave])
        units = units_of(made, made.layers[0], lay_out(made, made.layers[0]), "character")
        times = np.array([0.0, 0.5, 10.0])
        reach = made.layers[0].moves[0].reach
        first, again = (reach_of(reach, units, times + turn) for turn in (0, made.length))
        np.testing.assert_allclose(again, first, atol=1e-6)

    def test_a_style_survives_the_retyping_of_what_is_around_it(self):
        """As does the choreography: the move has as many units as there are letters."""
        before = one_move(pose={"y": 100}, stagger={"gap": 2})
        data = files.to_data(before)
        data["layers"][0]["runs"] = [{"from": 4, "to": 9, "style": {"fill": "#F2B705"}}]
        changed = apply(data, {"name": "set-text", "layer": "t1", "text": "A Quiet Moon Rises"})
        layout = lay_out(changed.scene, changed.scene.layers[0])
        yellow = "".join(c.text for c in layout.characters if c.fill == "#F2B705")
        self.assertEqual(yellow, "Quiet")
        delays = poses(changed.scene, "t1", [0])["moves"]["m1"]["delays"]
        self.assertEqual(delays, [2.0 * unit for unit in range(15)])

    def test_moves_add_up(self):
        data = scene_data()
        move = data["layers"][0]["moves"][0]
        move["pose"] = {"y": 100, "scale": 0.5, "opacity": 0.5}
        data["layers"][0]["moves"].append({**move, "id": "m2"})
        values = poses(files.from_data(data), "t1", [0])["values"]
        got = [values[name][0][0] for name in ("y", "scale_x", "scale_y", "opacity")]
        self.assertEqual(got, [200, 0.25, 0.25, 0.25])

    def test_a_unit_may_be_hidden_until_its_turn(self):
        data = scene_data()
        move = data["layers"][0]["moves"][0]
        del move["pose"]["opacity"]
        move["until_turn"] = "hidden"
        opacity = np.array(poses(files.from_data(data), "t1", list(range(30)))["values"]["opacity"])
        turn = np.argmax(opacity == 1, axis=0)
        self.assertEqual(turn.tolist(), [2 * unit for unit in range(13)])
        self.assertEqual(set(opacity.ravel().tolist()), {0, 1})

    def test_a_move_that_is_off_does_nothing(self):
        data = scene_data()
        data["layers"][0]["moves"][0]["on"] = False
        self.assertEqual(set(poses(files.from_data(data), "t1", [0])["values"]["y"][0]), {0})

    def corners(self, **pose):
        """The corners of the first character, away by `pose`, in the picture."""
        data = scene_data()
        data["layers"][0]["moves"][0]["pose"] = pose
        made = files.from_data(data)
        title = made.layers[0]
        layout = lay_out(made, title)
        times = np.array([0.0])
        placed = place(made, title, layout, compose(made, title, layout, times), times)
        left, top, right, bottom = layout.boxes["character"][0]
        points = np.array([[left, top, 1], [right, top, 1], [right, bottom, 1], [left, bottom, 1]])
        seen = placed.matrices[0, 0] @ points.T
        with np.errstate(divide="ignore"):  # behind the camera there is no such place
            return (seen[:2] / seen[2]).T, placed

    def test_a_turn_is_clockwise_about_the_middle_of_the_letter(self):
        rest, _ = self.corners()
        turned, _ = self.corners(rotation=90)
        np.testing.assert_allclose(turned.mean(axis=0), rest.mean(axis=0), atol=1e-6)
        # What was at the top left is at the top right: y grows downwards.
        offset = rest[0] - rest.mean(axis=0)
        np.testing.assert_allclose(
            turned[0] - rest.mean(axis=0), [-offset[1], offset[0]], atol=1e-6
        )

    def test_depth_is_seen_through_the_camera(self):
        rest, _ = self.corners()
        deep, _ = self.corners(z=2000)
        np.testing.assert_allclose(deep, (rest + np.array([960, 540])) / 2, atol=1e-6)
        _, behind = self.corners(z=-2000)
        self.assertFalse(behind.before_camera.any())

    def test_a_turn_about_an_upright_axis_is_in_perspective(self):
        swung, _ = self.corners(rotation_y=60)
        heights = swung[3, 1] - swung[0, 1], swung[2, 1] - swung[1, 1]
        self.assertNotAlmostEqual(*heights, places=1)

    def test_kinds_nest(self):
        """A word that moves takes its letters along, wherever these are."""
        data = scene_data()
        letters = data["layers"][0]["moves"][0]
        letters["stagger"] = None
        del letters["stagger"]
        alone = self.place_all(data)
        data["layers"][0]["moves"].append(
            {"id": "w", "unit": "word", "pose": {"x": 50}, "amount": letters["amount"]}
        )
        np.testing.assert_allclose(self.place_all(data) - alone, np.tile([50.0, 0], (13, 1)))

    def place_all(self, data):
        made = files.from_data(data)
        title, times = made.layers[0], np.array([0.0])
        layout = lay_out(made, title)
        placed = place(made, title, layout, compose(made, title, layout, times), times)
        return placed.matrices[0, :, :2, 2] / placed.matrices[0, :, 2, 2:]

    def timing(self, made):
        title = made.layers[0]
        return timing(
            title.moves[0], units_of(made, title, lay_out(made, title), title.moves[0].unit)
        )

    def test_timing_of_a_sweep_is_where_it_is_felt(self):
        data = scene_data()
        move = data["layers"][0]["moves"][0]
        del move["amount"], move["stagger"]
        travel = {"keys": [{"at": 10, "value": -100}, {"at": 50, "value": 100}]}
        move["reach"] = [{"kind": "sweep", "travel": travel}]
        made = files.from_data(data)
        got = self.timing(made)
        self.assertTrue((np.diff(got.starts) >= 0).all())
        self.assertGreaterEqual(got.starts[0], 10)
        self.assertLessEqual(got.ends[-1], 51)
        self.assertEqual(got.weights.shape, (90, 13))
