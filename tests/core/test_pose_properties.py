"""Properties of a pose: one table says all of each, and all that goes by it does so for each."""

from unittest import TestCase

import numpy as np

from balletto.lettering.layout import lay_out
from balletto.motion.evaluate import compose
from balletto.picture.canvases.canvas import DrawItem, DrawnLine, SeenWindow
from balletto.picture.composing.effect_values import ShadowValues
from balletto.picture.composing.look import Look, mixed_photo
from balletto.picture.frame import Picture, draw_frame
from balletto.picture.pixels.bitmaps import Bitmap, Photo
from balletto.scene import files
from balletto.scene.edits import apply
from balletto.scene.pose import PROPERTIES
from balletto.scene.values.keyable import rest_of
from balletto.sentences.moves.wording import move_text
from balletto.sentences.reader import move_of, read

from .scenes import scene_data
from .test_color_glyphs import drawn, scene_of

NUMBERS = {name: known for name, known in PROPERTIES.items() if not known.is_color}
MOVE = {"id": "m1", "unit": "character", "start": 0}


def said(known, value):
    return known.words.format(known.measure.say(value))


class TableTest(TestCase):
    def test_no_two_draw_the_same_chances(self):
        numbers = [known.chance for name, known in PROPERTIES.items() if name != "scale"]
        self.assertEqual(len(set(numbers)), len(numbers))
        self.assertFalse(set(numbers) & set(range(20, 30)), "those are the axes'")

    def test_each_is_home_at_its_rest(self):
        for name, known in NUMBERS.items():
            with self.subTest(name):
                text = f"letters {said(known, known.start)} at 0, home at 20"
                keys = read(text).data["pose"][name]["keys"]
                self.assertEqual([key["value"] for key in keys], [known.start, known.rest])
                self.assertEqual(rest_of(f"t1.moves.m1.pose.{name}"), known.rest)
        self.assertIsNone(rest_of("t1.moves.m1.pose.fill"))

    def test_a_course_of_each_turned_round_leads_the_other_way(self):
        for name, known in NUMBERS.items():
            with self.subTest(name):
                keys = [{"at": 0, "value": known.start}, {"at": 20, "value": known.rest}]
                move = {**MOVE, "pose": {name: {"keys": keys}}}
                data = scene_data(length=90)
                data["layers"][0] |= {"moves": [move], "span": [0, 90]}
                edit = {"name": "turn-move-round", "layer": "t1", "move": "m1", "spread": 0}
                turned = apply(data, edit).document["layers"][0]["moves"][0]
                self.assertEqual(turned["start"], 70)  # it ends where the layer does

    def test_each_is_said_and_read_plain_keyed_and_by_chance(self):
        for name, known in NUMBERS.items():
            for text in (
                f"letters from {said(known, known.start)}",
                f"letters ({said(known, known.start)} at 0, {said(known, known.rest)} at 9)"
                if known.words == "{}"
                else "letters is "
                + known.words.format(f"({known.measure.say(known.start)} at 0, 1 at 9)"),
                f"letters is {said(known, known.start)} by chance 3, "
                f"for {known.noun or known.label} alone",
            ):
                with self.subTest(text):
                    move = move_of(read(text).data)
                    self.assertIn(name, move.pose.given)
                    again = move_of(read(move_text(move)).data)
                    self.assertEqual(again.pose, move.pose)
                    self.assertEqual(again.reach, move.reach)

    def test_at_rest_each_changes_nothing(self):
        plain = draw_frame(Picture(self._scene({})), 0)
        pose = {name: known.rest for name, known in NUMBERS.items()}
        np.testing.assert_array_equal(draw_frame(Picture(self._scene(pose)), 0), plain)

    def test_each_is_kept_within_its_limits(self):
        for name, known in NUMBERS.items():
            scene = self._scene({name: known.start}, amount=-50)
            title = scene.layers[0]
            layout = lay_out(scene, title)
            values = compose(scene, title, layout, np.zeros(1)).get("character")
            if known.low is not None:
                look = known.limited(values.of_characters(known.parts[0]))
                self.assertGreaterEqual(look.min(), known.low)

    @staticmethod
    def _scene(pose, **more):
        data = scene_data("Ab", size=[200, 100])
        data["layers"][0] |= {"moves": [{**MOVE, "pose": pose, **more}], "runs": []}
        return files.from_data(data)


class HueTest(TestCase):
    """Hue and saturation of letters, drawn as the effect of the same name has them."""

    def test_letters_are_drawn_as_under_the_effect(self):
        style = {"font": "Figtree", "fill": "#C04020"}
        for turn, saturation in ((120, 1), (0, 0), (-70, 0.5), (200, 1.5)):
            pose = {"hue": turn, "saturation": saturation}
            moved = drawn(scene_of("I", style=style, moves=[{**MOVE, "pose": pose}]))
            effect = {"kind": "hue", "turn": turn, "saturation": saturation * 100}
            wanted = drawn(scene_of("I", style=style, effects=[effect]))
            np.testing.assert_allclose(moved, wanted, atol=2)

    def test_gradients_outlines_and_emoji_too(self):
        gradient = {"kind": "linear", "colors": ["#C04020", "#2040C0"]}
        for text, style in (
            ("I", {"font": "Figtree", "fill": gradient}),
            ("I", {"font": "Figtree", "outline": 8, "outline_color": "#C04020"}),
            ("🌙", {}),
        ):
            pose = {"hue": 120}
            plain = drawn(scene_of(text, style=style))
            moved = drawn(scene_of(text, style=style, moves=[{**MOVE, "pose": pose}]))
            effect = {"kind": "hue", "turn": 120}
            wanted = drawn(scene_of(text, style=style, effects=[effect]))
            self.assertGreater(np.abs(moved.astype(int) - plain).max(), 60)
            np.testing.assert_allclose(moved, wanted, atol=4)

    def test_half_of_the_way_is_half_a_turn_and_each_letter_goes_by_itself(self):
        move = read("letters is hues turned by 180°, 0 % full, over 20 linear, every 10").data
        scene = scene_of("II", style={"font": "Figtree"}, moves=[{"id": "m1", **move}])
        title = scene.layers[0]
        values = compose(scene, title, lay_out(scene, title), np.array([10.0]))["character"]
        self.assertEqual(values["hue"][0].tolist(), [90, 180])
        self.assertEqual(values["saturation"][0].tolist(), [0.5, 0])

    def test_a_shape_and_its_copies_too(self):
        data = scene_data("A", size=[100, 100], background={"kind": "none"})
        shape = {"kind": "shape", "id": "s", "span": [0, 9], "fill": "#C04020",
                 "shape": {"kind": "rectangle", "size": [60, 60]},
                 "transform": {"position": [50, 50, 0]},
                 "moves": [{"id": "m1", "unit": "layer", "pose": {"saturation": 0}}]}  # fmt: skip
        copies = {"kind": "line", "count": 1}
        for more in ({}, {"formation": copies, "moves": [{**shape["moves"][0], "unit": "copy"}]}):
            scene = files.from_data({**data, "layers": [{**shape, **more}]})
            blue, green, red, _ = draw_frame(Picture(scene), 0)[50, 50].tolist()
            self.assertEqual(len({blue, green, red}), 1)

    def test_a_photo_that_is_not_changed_stays(self):
        photo = Photo(Bitmap("p", np.full((2, 2, 4), 200, np.uint8)), (0, 0, 2, 2))
        self.assertIs(mixed_photo(photo, np.eye(3)), photo)
        self.assertIsNot(mixed_photo(photo, np.eye(3) * 0.5), photo)


class ItemsTest(TestCase):
    """What is drawn is made anew from what it was: no field of it is lost on the way."""

    def test_all_fields_are_taken_along(self):
        window = SeenWindow((0, 0, 1, 1), (0, 0, 0, 0), [1.0] * 9)
        line = DrawnLine(2, "#445566")
        matrix = [1.0, 0, 0, 0, 1, 0, 0, 0, 1]
        item = DrawItem("o", matrix, "#112233", 0.5, line, 3.0, True, window, 0.25, "within", True)
        usual = DrawItem("x", [], None, 1.0)
        for name in DrawItem._fields[4:]:
            self.assertNotEqual(getattr(item, name), getattr(usual, name), f"not tried: {name}")
        ways = {
            "a shadow": (ShadowValues(1, 1, 0, "#000000", 1).of(item), {"is_copy"}),
            "elsewhere": (item.moved([0.0] * 9, 0.1), {"window"}),
            "a copy": (item.as_copy(), set()),
            "as moves have it": (Look.of({"blur": np.ones(1)}).dressed(item), set()),
        }
        own = {"matrix", "fill", "opacity", "line", "blur"}
        for what, (made, changed) in ways.items():
            for name in set(DrawItem._fields) - own - changed:
                self.assertEqual(getattr(made, name), getattr(item, name), f"{name} of {what}")
