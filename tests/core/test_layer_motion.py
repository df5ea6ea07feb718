"""Moves of layers that are no titles: shapes, pictures, groups and their members."""

import sys
from concurrent.futures import ThreadPoolExecutor
from unittest import TestCase

import numpy as np

from balletto.motion.recent import Recent
from balletto.motion.spaces.layer_motion import (
    moved_matrices,
    moved_values,
    unit_words,
    units_of_move,
)
from balletto.motion.warnings import layer_warnings_of
from balletto.picture.frame import Picture, draw_frame
from balletto.scene import files
from balletto.scene.errors import SceneError
from balletto.scene.moving.presets import fits, fitted, presets
from balletto.sentences.moves.wording import move_text
from balletto.sentences.reader import read

from .scenes import scene_data

HOME = {"keys": [{"at": 0, "value": 1}, {"at": 10, "value": 0}]}
RED, GREEN, BLUE = "#FF0000", "#00FF00", "#0000FF"


def block(layer, x, color, **more):
    return {
        "kind": "shape", "id": layer, "name": layer.upper(), "span": [0, 60],
        "shape": {"kind": "rectangle", "size": [20, 20]}, "fill": color, "stroke": None,
        "transform": {"position": [x, 0, 0]}, **more,
    }  # fmt: skip


def scene_of(*layers):
    ground = {"kind": "color", "color": "#000000"}
    data = scene_data(size=[320, 180], background=ground, layers=list(layers))
    return files.from_data(data)


def group(*moves, **more):
    return {
        "kind": "group", "id": "g", "span": [0, 60], "moves": list(moves),
        "transform": {"position": [160, 90, 0], **more},
    }  # fmt: skip


def middles(scene, frame):
    """Where the red, green and blue blocks are seen: [x, y], or None."""
    pixels = draw_frame(Picture(scene), frame)
    found = []
    for channel in (2, 1, 0):
        rows, columns = np.nonzero(pixels[..., channel] > 40)
        found.append([round(columns.mean() + 0.5), round(rows.mean() + 0.5)] if len(rows) else None)
    return found


class LayerTest(TestCase):
    def test_a_layer_as_a_whole_leaves_rest_as_a_letter_does(self):
        move = {"id": "m1", "pose": {"x": 40, "y": -30, "scale": 2}, "amount": HOME}
        scene = scene_of(block("a", 160, RED, moves=[move]))
        shape = scene.layers[0]
        # Twice as large and away at first, half of that at half of the time, home at last.
        for frame, (size, x, y) in {0: (2, 200, -30), 5: (1.5, 180, -15), 10: (1, 160, 0)}.items():
            matrix = moved_matrices(scene, shape, np.array([float(frame)]))[0]
            np.testing.assert_allclose(matrix[:2], [[size, 0, x], [0, size, y]], atol=1e-9)

    def test_it_turns_about_its_pivot(self):
        move = {"id": "m1", "pose": {"rotation": 90}}
        place = {"position": [100, 50, 0], "pivot": [10, 0]}
        scene = scene_of({**block("a", 0, RED, moves=[move]), "transform": place})
        matrix = moved_matrices(scene, scene.layers[0], np.zeros(1))[0]
        np.testing.assert_allclose(matrix @ [10, 0, 1], [110, 50, 1], atol=1e-9)
        np.testing.assert_allclose(matrix @ [20, 0, 1], [110, 60, 1], atol=1e-9)

    def test_its_look_changes_too(self):
        pose = {"opacity": 0.5, "fill": BLUE, "blur": 3}
        scene = scene_of(block("a", 160, RED, moves=[{"id": "m1", "pose": pose}]))
        values = moved_values(scene, scene.layers[0], np.zeros(1))
        self.assertEqual((values["opacity"][0], values["blur"][0]), (0.5, 3))
        still = scene_of({**block("a", 160, RED), "transform": {"position": [160, 90, 0]}})
        moved = {**block("a", 160, RED, moves=[{"id": "m1", "pose": pose}])}
        moved["transform"] = {"position": [160, 90, 0]}
        plain, seen = (draw_frame(Picture(s), 0) for s in (still, scene_of(moved)))
        self.assertEqual(plain[90, 160].tolist(), [0, 0, 255, 255])
        self.assertGreater(seen[90, 160, 0], 90)  # blue by half
        self.assertEqual(seen[90, 160, 2], 0)
        self.assertEqual(plain[90, 174].tolist(), [0, 0, 0, 255])
        self.assertGreater(seen[90, 173, 0], 2)  # soft beyond its edge

    def test_what_is_for_letters_alone_is_warned_of(self):
        pose = {"y": 20, "tracking": 300, "off": "left"}
        scene = scene_of(block("a", 160, RED, moves=[{"id": "m1", "name": "In", "pose": pose}]))
        (warning,) = layer_warnings_of(scene.layers[0])
        self.assertEqual(warning.path, "a.moves.m1")
        self.assertIn("tracking and off the picture of “In” does nothing here", warning.text)
        self.assertEqual(layer_warnings_of(scene_of(block("a", 160, RED)).layers[0]), [])

    def test_a_move_of_letters_is_none_of_a_shape(self):
        with self.assertRaisesRegex(SceneError, r"layers\[0\].moves\[0\].unit"):
            scene_of(block("a", 160, RED, moves=[{"id": "m1", "unit": "character"}]))


class MembersTest(TestCase):
    def blocks(self, *moves, **more):
        layers = [block("a", -60, RED), block("b", 0, GREEN), block("c", 60, BLUE)]
        return scene_of(*({**each, "group": "g"} for each in layers), group(*moves, **more))

    def test_members_come_one_after_another_from_the_rear(self):
        pose = {"y": -50, "opacity": 0}
        scene = self.blocks(
            {"id": "m1", "unit": "member", "pose": pose, "stagger": {"gap": 10}, "amount": HOME}
        )
        self.assertEqual(middles(scene, 5), [[100, 65], None, None])
        self.assertEqual(middles(scene, 15), [[100, 90], [160, 65], None])
        self.assertEqual(middles(scene, 40), [[100, 90], [160, 90], [220, 90]])

    def test_orders_go_by_where_members_stand(self):
        stagger = {"gap": 4, "order": "center-out"}
        scene = self.blocks({"id": "m1", "unit": "member", "stagger": stagger, "pose": {"y": 1}})
        group = scene.layers[-1]
        units = units_of_move(scene, group, group.moves[0])
        np.testing.assert_array_equal(units.centers, [[-60, 0], [0, 0], [60, 0]])
        self.assertEqual(unit_words(scene, group, group.moves[0]), ["A", "B", "C"])

    def test_the_group_turns_as_a_whole_with_what_is_in_it(self):
        scene = self.blocks({"id": "m1", "pose": {"rotation": 90}})
        self.assertEqual(middles(scene, 0), [[160, 30], [160, 90], [160, 150]])

    def test_moves_of_member_and_group_nest(self):
        scene = self.blocks(
            {"id": "m1", "pose": {"scale": 0.5}}, {"id": "m2", "unit": "member", "pose": {"y": 40}}
        )
        self.assertEqual(middles(scene, 0), [[130, 110], [160, 110], [190, 110]])

    def test_a_title_in_a_group_is_a_member(self):
        title = {**scene_data("O")["layers"][0], "moves": [], "group": "g"}
        move = {"id": "m1", "unit": "member", "pose": {"opacity": 0}}
        scene = scene_of(title, group(move))
        self.assertEqual(draw_frame(Picture(scene), 0)[..., :3].max(), 0)


class SentencesTest(TestCase):
    def test_they_are_said_and_read(self):
        scene = MembersTest().blocks(
            {"id": "m1", "unit": "member", "pose": {"y": -50}, "amount": HOME}
        )
        text = move_text(scene.layers[-1].moves[0])
        self.assertTrue(text.startswith("Each member comes from 50 px above"), text)
        self.assertEqual(read(text).data["unit"], "member")
        self.assertEqual(read("members rise 100, every 3").data["unit"], "member")
        self.assertEqual(read("the whole layer fades").data["unit"], "layer")

    def test_presets_fit_what_they_are_offered_for(self):
        shape, members = scene_of(block("a", 160, RED)), MembersTest().blocks()
        for scene, layer in ((shape, "a"), (members, "g")):
            data = files.to_data(scene)
            kind = next(each for each in data["layers"] if each["id"] == layer)
            for preset in presets().values():
                if fits(preset, kind["kind"]):
                    kind["moves"] = [{**fitted(preset, data, kind), "id": "m1"}]
                    with self.subTest(preset["name"], layer=layer):
                        draw_frame(Picture(files.from_data(data)), 5, (64, 36))


class RecentTest(TestCase):
    """What is asked for again and again is made once."""

    def test_each_is_made_once_while_it_is_new(self):
        recent, made = Recent(most=2, objects=2), []

        def ask(whole, key):
            def make():
                made.append(key)
                return [whole[0], key]

            return recent.of(whole, key, make)

        one, same, third = [1], [1], [3]
        self.assertEqual(
            [ask(one, "a"), ask(one, "b"), ask(one, "a")], [[1, "a"], [1, "b"], [1, "a"]]
        )
        self.assertEqual(made, ["a", "b"])
        ask(one, "c")  # the oldest goes
        ask(one, "a")
        self.assertEqual(made, ["a", "b", "c", "a"])
        ask(same, "a")  # an equal one is another
        self.assertEqual(len(made), 5)
        ask(third, "a")
        ask(one, "a")
        self.assertEqual(len(made), 7)

    def test_threads_may_share_it(self):
        recent, wholes = Recent(most=3, objects=2), [[n] for n in range(5)]

        def ask(number):
            whole, key = wholes[number % 5], number % 7
            return recent.of(whole, key, lambda: (whole[0], key)) == (number % 5, number % 7)

        before = sys.getswitchinterval()
        sys.setswitchinterval(1e-6)
        self.addCleanup(sys.setswitchinterval, before)
        with ThreadPoolExecutor(8) as threads:
            self.assertTrue(all(threads.map(ask, range(20_000))))

    def test_members_of_two_scenes_are_not_mistaken(self):
        """The same group at the same time, in another version of the scene."""

        def at_start(away):
            moves = [{"id": "m1", "unit": "member", "pose": {"x": away}}]
            group = {"kind": "group", "id": "g1", "span": [0, 9], "moves": moves}
            scene = scene_of(group, {**block("a", 160, RED), "group": "g1"})
            return moved_matrices(scene, scene.layer("a"), np.zeros(1))[0, 0, 2]

        self.assertEqual(at_start(30) - at_start(10), 20)
        self.assertEqual(at_start(30) - at_start(10), 20)
