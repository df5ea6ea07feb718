"""The caret of a title that is typed, and its clicks: at the very frames where letters appear."""

import json
from unittest import TestCase

import numpy as np

from balletto.clip.mixing import has_sound
from balletto.hearing.samples import RATE
from balletto.lettering.layout import lay_out
from balletto.motion.evaluate import trace
from balletto.motion.poses import poses
from balletto.motion.turns import caret_at, clicks_of
from balletto.motion.units import units_for
from balletto.picture.frame import Picture, draw_frame
from balletto.scene import files
from balletto.scene.edits import apply
from balletto.scene.moving.presets import beside, fitted, presets, without
from balletto.sentences.reader import read

from .media import mix
from .scenes import scene_data


def data_of(text="Ab cd", stagger=None, clicks=None, caret=None, **move):
    moves = [
        {
            "id": "m1", "unit": "character", "start": 6, "pose": {"opacity": 0},
            "amount": {"keys": [{"at": 0, "value": 1, "ease": "hold"}, {"at": 1, "value": 0}]},
            "stagger": stagger or {"gap": 5}, **move,
        }
    ]  # fmt: skip
    title = {
        "kind": "title", "id": "t1", "span": [0, 90], "text": text, "moves": moves,
        "style": {"font": "Anybody", "size": 60, "fill": "#FFFFFF"},
        "transform": {"position": [160, 110, 0]},
        "caret": {"move": "m1", "width": 4, "color": "#FF0000", **(caret or {})},
    }  # fmt: skip
    layer = {"kind": "clicks", "id": "c1", "span": [0, 90], "title": "t1", "move": "m1"}
    black = {"kind": "color", "color": "#000000"}
    layers = [title, {**layer, **(clicks or {})}]
    return scene_data(layers=layers, size=[320, 180], length=90, background=black, rate="30")


def scene_of(*args, **more):
    return files.from_data(data_of(*args, **more))


class ClicksTest(TestCase):
    def test_they_are_the_turns_of_the_units(self):
        scene = scene_of()
        title = scene.layers[0]
        units = units_for(scene, title, lay_out(scene, title), title.moves[0])
        delays = trace(title.moves[0], units, np.zeros(1)).delays
        np.testing.assert_array_equal(clicks_of(scene, scene.layers[1]).frames, 6 + delays)
        self.assertEqual(poses(scene, "c1", [0])["clicks"], [6, 11, 16, 21])

    def test_those_at_one_moment_are_one(self):
        scene = scene_of("abcde", stagger={"order": "center-out", "gap": 4})
        self.assertEqual(clicks_of(scene, scene.layers[1]).frames.tolist(), [6, 10, 14])

    def test_white_space_clicks_if_it_is_typed_and_meant(self):
        for spaces, count in ((True, 5), (False, 4)):
            scene = scene_of(clicks={"spaces": spaces}, spaces=True)
            self.assertEqual(len(clicks_of(scene, scene.layers[1]).frames), count)

    def test_they_are_heard_at_their_very_frames(self):
        scene = scene_of(clicks={"gain_chance": 0, "pitch_chance": 0, "sound": "tick"})
        self.assertTrue(has_sound(scene))
        loud = np.abs(mix(scene)[0])
        for frame in (6, 11, 16, 21):
            at = round(frame / 30 * RATE)
            self.assertEqual(loud[at - 400 : at - 2].max(), 0)
            self.assertGreater(loud[at : at + 400].max(), 0.3)
        shorter = scene_of(clicks={"span": [0, 10]})
        self.assertEqual(np.abs(mix(shorter)[0][round(10 / 30 * RATE) :]).max(), 0)

    def test_chance_makes_each_another_and_all_the_same_again(self):
        one, other = (mix(scene_of(clicks={"pitch_chance": 0.2, "gain_chance": 6})) for _ in "12")
        np.testing.assert_array_equal(one, other)
        parts = [one[0][round(f / 30 * RATE) :][:2000] for f in (6, 11, 16)]
        self.assertGreater(np.abs(parts[0] - parts[1]).max(), 0.01)
        self.assertGreater(np.abs(parts[1] - parts[2]).max(), 0.01)

    def test_without_their_title_or_move_they_are_silent(self):
        for changed in ({"title": "t9"}, {"move": "m9"}):
            scene = scene_of(clicks=changed)
            self.assertEqual(len(clicks_of(scene, scene.layers[1]).frames), 0)
            self.assertEqual(np.abs(mix(scene)).max(), 0)

    def test_they_go_with_their_title_and_its_copies(self):
        data = data_of()
        gone = apply(data, {"name": "remove-layer", "layer": "t1"}).document
        self.assertEqual(gone["layers"], [])


class CaretTest(TestCase):
    def place(self, scene, time):
        title = scene.layers[0]
        return caret_at(scene, title, lay_out(scene, title), title.caret, time)

    def test_it_stands_behind_the_last_letter_that_has_come(self):
        scene = scene_of()
        boxes = lay_out(scene, scene.layers[0]).boxes["character"]
        ends = [boxes[0][0], *boxes[:, 2]]
        for time, place in ((0, 0), (5.9, 0), (6, 1), (10, 1), (11, 2), (16, 3), (21, 4), (22, 4)):
            self.assertEqual(self.place(scene, time).x, ends[place], time)

    def test_it_is_never_between_two_letters(self):
        scene = scene_of(caret={"blink": 60})
        boxes = lay_out(scene, scene.layers[0]).boxes["character"]
        ends = {boxes[0][0], *boxes[:, 2].tolist()}
        for time in np.arange(0, 40, 0.37):
            self.assertIn(self.place(scene, float(time)).x, ends)

    def test_it_blinks_once_it_rests(self):
        scene = scene_of(caret={"blink": 1})
        seen = [
            self.place(scene, time) is not None for time in (21, 40, 50.9, 51, 60, 66, 80.9, 81)
        ]
        self.assertEqual(seen, [True, True, True, False, False, True, True, False])

    def test_it_is_there_from_and_to_a_frame(self):
        scene = scene_of(caret={"from": 8, "to": 12, "blink": 60})
        seen = [self.place(scene, time) is not None for time in (7, 8, 11.9, 12)]
        self.assertEqual(seen, [False, True, True, False])

    def test_it_is_drawn_as_wide_as_it_is_and_turns_with_its_title(self):
        data = data_of()
        red = self.red(data)
        rows, columns = np.nonzero(red > 100)
        self.assertIn(np.ptp(columns) + 1, (4, 5))
        self.assertGreater(np.ptp(rows), 30)
        data["layers"][0]["transform"]["rotation"] = [0, 0, 90]
        rows, columns = np.nonzero(self.red(data) > 200)
        self.assertGreater(np.ptp(columns), 30)
        data["layers"][0]["caret"]["move"] = "m9"
        self.assertEqual(self.red(data).max(), 0)

    @staticmethod
    def red(data):
        pixels = draw_frame(Picture(files.from_data(data)), 12).astype(int)
        return pixels[..., 2] - pixels[..., 1]


class PresetTest(TestCase):
    def test_a_typewriter_comes_with_both_and_without_either(self):
        preset = presets()["typed"]
        layer = data_of()["layers"][0]
        self.assertEqual(set(beside(preset, layer, "m1")), {"caret", "clicks"})
        self.assertEqual(set(beside(without(preset, ["clicks"]), layer, "m1")), {"caret"})
        json.dumps(beside(preset, layer, "m1"))


class SaidTest(TestCase):
    """A caret as it is typed."""

    def test_it_is_read_without_its_move(self):
        for text, data in (
            ("a caret of 8 px", {"width": 8}),
            ("a caret", {}),
            (
                "A caret of 6 px, #FFCC00, blinking every 0.5 s.",
                {"width": 6, "color": "#FFCC00", "blink": 0.5},
            ),
        ):
            self.assertEqual(read(text)[:2], ("caret", data))


class PresetInTimeTest(TestCase):
    def test_clicks_are_heard_as_their_letters_are_seen(self):
        data = data_of()
        layer = data["layers"][0]
        layer["moves"] = [{**fitted(presets()["typed"], data, layer), "id": "m1"}]
        clicks = beside(presets()["typed"], layer, "m1")["clicks"]
        data["layers"] = [layer, {**clicks, "id": "c1"}]
        scene = files.from_data(data)
        heard = clicks_of(scene, scene.layers[1])
        opacity = np.array(poses(scene, "t1", range(90))["values"]["opacity"])
        for frame, letter in zip(heard.frames.astype(int), heard.units, strict=True):
            self.assertEqual(opacity[frame, letter], 1)
            self.assertTrue(frame == 0 or opacity[frame - 1, letter] == 0)
