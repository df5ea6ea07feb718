"""Copies of layers: the worked numbers, and what is drawn of them."""

import json
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from balletto.motion.poses import poses
from balletto.motion.spaces.formations import copies_at
from balletto.motion.spaces.layer_motion import unit_words, units_of_move
from balletto.motion.warnings import layer_warnings_of, warnings_of
from balletto.picture.frame import Picture, draw_frame
from balletto.scene import files
from balletto.scene.errors import SceneError
from balletto.scene.formations import FORMATION_KINDS, MOST_COPIES
from balletto.sentences.layers.formations import formation_text
from balletto.sentences.moves.wording import move_text
from balletto.sentences.reader import read

from .random_scenes import RULES, RandomScenes
from .scenes import GOLDEN, scene_data


def bar(**more):
    """A red bar of 4 x 20 px in the middle of a small picture."""
    return {
        "kind": "shape", "id": "s1", "span": [0, 90], "fill": "#FF0000", "stroke": None,
        "shape": {"kind": "rectangle", "size": [4, 20]}, "transform": {"position": [80, 60, 0]},
        **more,
    }  # fmt: skip


def scene_of(*layers):
    ground = {"kind": "color", "color": "#000000"}
    return files.from_data(scene_data(size=[160, 120], layers=list(layers), background=ground))


def drawn(*layers, frame=0):
    """A frame as the red of its pixels."""
    return draw_frame(Picture(scene_of(*layers)), frame)[..., 2].astype(int)


class NumbersTest(TestCase):
    def test_worked_numbers(self):
        for entry in (*GOLDEN["14_formations"], *GOLDEN["14_formations_with_a_move"]):
            layer = bar(formation=entry["formation"], moves=entry.get("moves", []))
            scene = scene_of(layer)
            got = copies_at(scene, scene.layers[0], np.array(entry["at"], dtype=float))
            for name, expected in entry["expect"].items():
                with self.subTest(entry["formation"], name=name):
                    np.testing.assert_allclose(getattr(got, name), expected, atol=1e-6)

    def test_the_command_tells_them(self):
        formation = GOLDEN["14_formations"][2]["formation"]
        told = poses(scene_of(bar(formation=formation)), "s1", [0, 7])
        self.assertEqual(told["copies"]["x"][0], [-120, -60, 0, 60, 120])
        self.assertEqual(told["copies"]["time"][1], [1, 4, 7, 4, 1])
        title = {**scene_data("Orbit")["layers"][0], "formation": formation}
        self.assertIn("values", poses(scene_of(title), "t1", [0]))
        self.assertIn("copies", poses(scene_of(title), "t1", [0]))
        with self.assertRaisesRegex(KeyError, "only titles"):
            poses(scene_of(bar()), "s1", [0])

    def test_rows_and_columns_move_as_one(self):
        moves = [
            {"id": "m1", "unit": "row", "pose": {"x": 100}, "stagger": {"gap": 5},
             "amount": {"keys": [{"at": 0, "value": 0}, {"at": 1, "value": 1}]}},
            {"id": "m2", "unit": "column", "pose": {"y": 10}},
        ]  # fmt: skip
        grid = {"kind": "grid", "columns": 3, "rows": 2, "step": [20, 20]}
        scene = scene_of(bar(formation=grid, moves=moves))
        got = copies_at(scene, scene.layers[0], np.array([2.0]))
        self.assertEqual(got.x[0].tolist(), [80, 100, 120, -20, 0, 20])
        self.assertEqual(got.y[0].tolist(), [0, 0, 0, 20, 20, 20])

    def test_rows_fade_and_are_tinted_with_their_copies(self):
        fade = {"keys": [{"at": 0, "value": 1}, {"at": 10, "value": 0}]}
        moves = [
            {"id": "m1", "unit": "row", "pose": {"opacity": 0}, "amount": fade,
             "stagger": {"gap": 10}},
            {"id": "m2", "unit": "copy", "pose": {"opacity": 0.5, "fill": "#00FF00"}},
        ]  # fmt: skip
        grid = {"kind": "grid", "columns": 2, "rows": 2, "step": [20, 40]}
        scene = scene_of(bar(formation=grid, moves=moves))
        got = copies_at(scene, scene.layers[0], np.array([10.0]))
        np.testing.assert_allclose(got.opacity[0], [0.5, 0.5, 0, 0])
        pixels = draw_frame(Picture(scene), 10)
        self.assertEqual(pixels[40, 70, 2], 0)  # nothing is left of the red
        self.assertAlmostEqual(int(pixels[40, 70, 1]), 128, delta=2)
        self.assertEqual(pixels[80, 70, 1], 0)

    def test_what_is_no_grid_is_one_row(self):
        """And a layer without copies is told of moves of copies."""
        move = {"id": "m1", "name": "In", "unit": "row", "pose": {"x": 7}}
        scene = scene_of(bar(formation={"kind": "line", "count": 2, "step": [10, 0]}, moves=[move]))
        got = copies_at(scene, scene.layers[0], np.zeros(1))
        self.assertEqual(got.x[0].tolist(), [2, 12])
        (warning,) = layer_warnings_of(scene_of(bar(moves=[move])).layers[0])
        self.assertIn("“In” moves copies, of which there are none", warning.text)

    def test_there_are_limits(self):
        for formation, told in (
            ({"kind": "line", "count": MOST_COPIES + 1}, "formation.count"),
            ({"kind": "grid", "columns": 40, "rows": 40}, f"at most {MOST_COPIES} copies"),
        ):
            with self.subTest(formation), self.assertRaisesRegex(SceneError, told):
                scene_of(bar(formation=formation))
        many = {"kind": "line", "count": 200}
        group = {"kind": "group", "id": "g1", "span": [0, 9], "formation": many}
        with self.assertRaisesRegex(SceneError, "at most 10,000 copies within copies"):
            scene_of(group, bar(group="g1", formation=many))
        title = {**scene_data("long " * 120)["layers"][0], "formation": many}
        trail = {"kind": "trail", "copies": 200}
        for layers in (
            [title],
            [bar(formation={**many, "count": 600}, effects=[trail])],
        ):
            with self.assertRaisesRegex(SceneError, "at most 100,000 things can be drawn"):
                scene_of(*layers)
        sound = {"kind": "adjustment", "id": "a1", "span": [0, 9], "formation": {"kind": "ring"}}
        with self.assertRaisesRegex(SceneError, "what stands in the picture alone"):
            scene_of(sound)

    def test_copies_of_titles_move_like_all_copies_and_letters_stay(self):
        keys = {"keys": [{"at": 0, "value": 1}, {"at": 10, "value": 0}]}
        move = {"id": "m1", "unit": "copy", "pose": {"y": 30, "opacity": 0}, "amount": keys,
                "stagger": {"gap": 4}}  # fmt: skip
        letters = {"id": "m2", "pose": {"x": 5}}
        row = {"kind": "line", "count": 3, "step": [40, 0]}
        title = {**scene_data("Hi")["layers"][0], "formation": row, "moves": [move, letters]}
        scene = scene_of(title)
        got = copies_at(scene, scene.layers[0], np.array([0.0, 5.0, 30.0]))
        np.testing.assert_allclose(got.y[:, 1], [30, 27, 0], atol=1e-6)
        told = poses(scene, "t1", [0])
        np.testing.assert_allclose(np.array(told["values"]["x"]), 5)
        self.assertEqual(unit_words(scene, scene.layers[0], scene.layers[0].moves[0]), list("123"))
        told_of = [each.path for each in warnings_of(scene, scene.layers[0])]
        self.assertFalse([path for path in told_of if "moves" in path])
        self.assertIn("Each copy", move_text(scene.layers[0].moves[0]))
        without = scene_of({**title, "formation": None})
        move = without.layers[0].moves[0]
        self.assertEqual(len(units_of_move(without, without.layers[0], move)), 1)
        draw_frame(Picture(without), 3)


class ShutterTest(TestCase):
    """Copies of a group that move while the shutter is open."""

    def test_they_are_blurred_as_copies_of_a_shape_are(self):
        move = {"id": "m1", "unit": "copy", "pose": {"x": 60},
                "amount": {"keys": [{"at": 0, "value": 0}, {"at": 10, "value": 1}]}}  # fmt: skip
        row = {"kind": "line", "count": 2, "step": [0, 40]}
        shutter = {"angle": 360, "samples": 8}
        plain = bar(formation=row, moves=[move], motion_blur=shutter)
        place = {"position": [80, 60, 0]}
        group = {"kind": "group", "id": "g1", "span": [0, 90], "formation": row, "moves": [move],
                 "motion_blur": shutter, "transform": place}  # fmt: skip
        inner = bar(group="g1", transform={})
        blurred, grouped = drawn(plain, frame=5), drawn(inner, group, frame=5)
        self.assertLess(np.abs(blurred - grouped).max(), 6)
        sharp = drawn(inner, {**group, "motion_blur": None}, frame=5)
        self.assertGreater(np.abs(sharp - grouped).max(), 60)


class DrawnTest(TestCase):
    def test_one_copy_is_the_layer(self):
        for formation in ({"kind": "line", "count": 1}, {"kind": "grid", "columns": 1, "rows": 1}):
            turned = {"transform": {"position": [80, 60, 30], "rotation": [20, 30, 40]}}
            np.testing.assert_array_equal(
                drawn(bar(formation=formation, **turned)), drawn(bar(**turned))
            )

    def test_each_is_drawn_in_its_place(self):
        pixels = drawn(bar(formation={"kind": "line", "count": 3, "step": [30, 0]}))
        self.assertEqual(pixels[60, [50, 80, 110]].tolist(), [255] * 3)
        self.assertEqual(int((pixels > 128).sum()), 3 * 4 * 20)
        ring = drawn(bar(formation={"kind": "ring", "count": 4, "radius": 40}))
        self.assertEqual(ring[[20, 100, 60, 60], [80, 80, 40, 120]].tolist(), [255] * 4)
        self.assertEqual(ring[60, 45], 255)  # at the side it lies, as it faces out
        last = drawn(bar(formation={"kind": "line", "count": 2, "step": [30, 0],
                                    "last": {"opacity": 0.5}}))  # fmt: skip
        self.assertAlmostEqual(int(last[60, 95]), 128, delta=2)

    def test_copies_show_earlier_frames(self):
        """A bar that goes red at frame 10 does so ten frames later in the second copy."""
        drawn_on = {"keys": [{"at": 0, "value": 0}, {"at": 10, "value": 100}]}
        stroke = {"width": 4, "color": "#FF0000", "to": drawn_on}
        line = bar(shape={"kind": "line", "from": [0, -20], "to": [0, 20]}, fill="none",
                   stroke=stroke, formation={"kind": "line", "count": 2, "step": [40, 0],
                                             "delay": {"gap": 10}})  # fmt: skip
        ink = [[int((drawn(line, frame=n)[:, half] > 128).sum()) for half in
                (slice(0, 80), slice(80, 160))] for n in (5, 15, 25)]  # fmt: skip
        self.assertGreater(ink[0][0], 40)
        self.assertEqual(ink[0][1], 0)
        self.assertGreater(ink[1][0], ink[1][1])
        self.assertEqual(ink[2][0], ink[2][1])

    def test_the_layer_moves_at_its_own_time(self):
        """Its place is that of now for all copies, whatever frame they show."""
        place = {
            "position": {
                "keys": [{"at": 0, "value": [40, 60, 0]}, {"at": 20, "value": [80, 60, 0]}]
            }
        }
        row = {"kind": "line", "count": 2, "step": [0, 40], "delay": {"gap": 10}}
        pixels = drawn(bar(transform=place, formation=row), frame=20)
        self.assertEqual(pixels[[40, 80], [80, 80]].tolist(), [255] * 2)

    def test_shadows_of_all_fall_the_same_way(self):
        shadow = {"kind": "shadow", "x": 0, "y": 30, "softness": 0, "color": "#FF0000"}
        ring = {"kind": "ring", "count": 2, "radius": 20, "first": 90}
        pixels = drawn(bar(fill="#00FF00", effects=[shadow], formation=ring))
        self.assertGreater(pixels[90, 100], 60)
        self.assertGreater(pixels[90, 60], 60)
        self.assertEqual(pixels[30].max(), 0)

    def test_groups_and_what_is_in_them(self):
        half = {"kind": "line", "count": 2, "step": [60, 0], "last": {"opacity": 0.5}}
        group = {
            "kind": "group", "id": "g1", "span": [0, 90], "formation": half,
            "transform": {"position": [80, 60, 0]},
        }  # fmt: skip
        inside = bar(group="g1", transform={"position": [0, 0, 0]},
                     formation={"kind": "line", "count": 2, "step": [0, 40]})  # fmt: skip
        pixels = drawn(group, inside)
        self.assertEqual(pixels[[40, 80], [50, 50]].tolist(), [255] * 2)
        for at in (40, 80):
            self.assertAlmostEqual(int(pixels[at, 110]), 128, delta=2)

    def test_a_title_with_copies_of_its_own(self):
        title = {**scene_data("O")["layers"][0], "runs": [], "moves": []}
        title |= {"style": {"size": 30, "fill": "#FF0000"}, "transform": {"position": [80, 40, 0]}}
        row = {"kind": "line", "count": 2, "step": [0, 50], "anchor": 0}
        one = int((drawn(title) > 128).sum())
        self.assertEqual(int((drawn({**title, "formation": row}) > 128).sum()), 2 * one)

    @settings(max_examples=25, deadline=None)
    @given(st.integers(0, 10_000), st.floats(-50, 200))
    def test_any_formation_is_drawn(self, seed, frame):
        """Whatever it says, nothing but a picture comes of it."""
        made = RandomScenes(seed)
        rules = RULES[made.random.choice(list(FORMATION_KINDS.values())).__name__]
        data = made.part(rules)
        try:
            scene = scene_of(bar(formation=data))
        except SceneError:
            return  # too many copies
        draw_frame(Picture(scene), frame)


class SaidTest(TestCase):
    def test_what_is_said_is_read(self):
        for formation in (
            {"kind": "ring", "count": 32, "radius": 180, "facing": "still", "delay": {"gap": 0.5},
             "cut": [[350, 10], [80, 130]]},
            {"kind": "line", "count": 5, "step": [60, -20], "anchor": 0,
             "last": {"scale": 2, "turn": 40, "opacity": 0.2},
             "delay": {"order": "center-out", "span": 24, "curve": "soft-start"}},
            {"kind": "grid", "columns": 4, "rows": 3, "step": [200, 150], "shift": 0.5,
             "chance": {"x": 10, "y": 20, "scale": 0.4, "seed": 9, "turn": 5}},
            {"kind": "ring", "radius": {"keys": [{"at": 0, "value": 0}, {"at": 40, "value": 200}]}},
        ):  # fmt: skip
            model = scene_of(bar(formation=formation)).layers[0].formation
            text = formation_text(model)
            with self.subTest(text):
                said = read(text)
                self.assertEqual(said.what, "formation")
                back = scene_of(bar(formation=json.loads(json.dumps(said.data)))).layers[0]
                self.assertEqual(back.formation.model_dump(), model.model_dump())

    def test_it_is_said_with_a_new_layer(self):
        said = read(
            "a star, red, 12 copies in a ring of 200 px, each 2 frames after the one before"
        )
        ring = {"kind": "ring", "count": 12, "radius": 200, "delay": {"gap": 2}}
        self.assertEqual(said.data["formation"], ring)
