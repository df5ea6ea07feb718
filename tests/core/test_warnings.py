"""Warnings: each is given when it is due, about what it is due to, and not otherwise."""

from unittest import TestCase

from balletto.motion.warnings import CHECKS, warnings_of
from balletto.scene import files
from balletto.scene.moving.presets import presets

from .scenes import scene_data

COURSE = {"keys": [{"at": 0, "value": 1}, {"at": 20, "value": 0}]}


def warned(*moves, text="Orbit", style=(), transform=(), **title):
    """Warnings of a title as pairs of path and text."""
    data = scene_data(text, length=240)
    layer = data["layers"][0]
    layer["moves"] = [{"id": f"m{number + 1}", **move} for number, move in enumerate(moves)]
    layer["style"].update(style)
    layer["transform"].update(transform)
    layer.update(title)
    scene = files.from_data(data)
    return [(warning.path, warning.text) for warning in warnings_of(scene, scene.layers[0])]


class WarningsTest(TestCase):
    def assert_warned(self, got, path, *parts):
        found = [text for where, text in got if where == path]
        self.assertEqual(len(found), 1, got)
        for part in parts:
            self.assertIn(part, found[0])

    def test_nothing_is_said_of_what_is_well(self):
        move = {"pose": {"y": 100, "opacity": 0}, "amount": COURSE, "stagger": {"gap": 2}}
        self.assertEqual(warned(move), [])
        self.assertEqual(warned(text=""), [])

    def test_letters_that_do_not_land(self):
        move = {"pose": {"y": 100}, "amount": COURSE, "stagger": {"gap": 20}}
        got = warned(move)
        self.assert_warned(
            got, "t1.moves.m1", "1 of 5 letters is still moving", "frame 90", "frame 100"
        )
        self.assertEqual(warned({**move, "stagger": {"gap": 17.5}}), [])
        self.assert_warned(warned({**move, "start": 80}), "t1.moves.m1", "All letters are still")

    def test_what_follows_needs_time_to_settle(self):
        follow = {"frequency": 1, "damping": 0.1}
        move = {"pose": {"y": 100}, "amount": COURSE, "start": 40, "follow": follow}
        self.assert_warned(warned(move), "t1.moves.m1", "are still moving")
        self.assertEqual(warned({**move, "follow": {"frequency": 4, "damping": 0.7}}), [])

    def test_a_course_that_goes_on_is_not_expected_to_land(self):
        amount = {**COURSE, "after": "mirror"}
        self.assertEqual(warned({"pose": {"y": 100}, "amount": amount, "start": 80}), [])

    def test_values_without_effect(self):
        for move, told in (
            ({}, "nothing moves"),
            ({"pose": {"y": 9}, "amount": 0}, "amount is 0"),
            ({"pose": {"y": 9}, "start": 95}, "the layer has gone"),
            ({"pose": {"y": 9}, "unit": "word", "stagger": {"gap": 2}}, "only one word"),
            ({"pose": {"y": 9}, "unit": "line", "spaces": True}, "letters only"),
            ({"pose": {"y": 9}, "pivot": [0, 0]}, "the pivot does nothing"),
            ({"pose": {"outline_color": "#FF0000"}}, "no outline"),
            ({"pose": {"axes": {"CASL": 1}}}, "Anybody has no axis “CASL”"),
        ):
            with self.subTest(told):
                self.assert_warned(warned(move), "t1.moves.m1", told)

    def test_a_move_that_is_off_is_left_alone(self):
        self.assertEqual(warned({"on": False}), [])

    def test_letters_that_cannot_be_seen(self):
        self.assert_warned(warned(style={"fill": "none"}), "t1.style", "cannot be seen")
        self.assertEqual(warned(style={"fill": "none", "outline": 3}), [])
        self.assert_warned(warned(style={"axes": {"SOFT": 50}}), "t1.style", "no axis “SOFT”")

    def test_emoji_are_missed_nowhere(self):
        self.assertEqual([path for path, _ in warned(text="Orbit 🌙") if path == "t1"], [])

    def test_missing_glyphs(self):
        got = warned(text="Orbit שלום \U00012000")
        self.assertEqual(
            [text for path, text in got if path == "t1"],
            [
                "Anybody has no “שלום”: set in Noto Sans Hebrew instead.",
                "No font here has “\U00012000”. Without a glyph a box stands for it: write it "
                "another way.",
            ],
        )

    def test_outside_the_safe_margins(self):
        got = warned(transform={"position": [200, 40, 0]})
        self.assert_warned(got, "t1.transform", "at the left", "at the top")
        away = {"pose": {"x": -4000}, "amount": COURSE}
        self.assertEqual(warned(away), [])
        # What comes from outside and lands inside is meant to.
        way = {"keys": [{"at": 0, "value": [-900, 540, 0]}, {"at": 40, "value": [960, 540, 0]}]}
        self.assertEqual(warned(transform={"position": way}), [])

    def test_letters_that_begin_before_their_layer(self):
        move = {"pose": {"y": 9}, "amount": COURSE, "stagger": {"gap": -2}}
        self.assert_warned(warned(move), "t1.moves.m1", "begin before the layer does")
        self.assertEqual(warned({**move, "start": 60}), [])

    def test_every_check_can_speak(self):
        """Each has a test here, but for that of paths, in `test_along`."""
        self.assertEqual(len(CHECKS), 9)

    def test_presets_give_no_warnings(self):
        for name, preset in presets().items():
            with self.subTest(name):
                if not preset["move"].get("pose"):
                    continue  # the one to begin from nothing
                got = warned(preset["move"], text="The Quiet\nOrbit now", span=[0, 240])
                got = [text for path, text in got if path.startswith("t1.moves")]
                self.assertEqual(got, [])
