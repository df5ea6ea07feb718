"""What is asked to be done with layers, effects and keys, in words of one's own."""

import unittest

import numpy as np

from balletto.intents.asking.asks import ASKS
from balletto.intents.saying import say
from balletto.intents.situation import Selection, Situation
from balletto.picture.bounds import places
from balletto.scene.edits import apply
from balletto.scene.errors import SceneError
from balletto.scene.files import from_data
from balletto.sentences.reader import Context
from balletto.understanding.asked import asks
from balletto.understanding.understand import understand_line
from balletto.understanding.ways import ASK_TABLES, table

from .scenes import scene_data
from .test_understanding import example_of

KEYS = {
    "keys": [
        {"at": 10, "value": 0},
        {"at": 20, "value": 1, "ease": "linear"},
        {"at": 40, "value": 0.5},
    ]
}
KEYS = [{"at": 10, "value": 0}, {"at": 20, "value": 1, "ease": "linear"}, {"at": 40, "value": 0.5}]
EFFECTS = [{"kind": "glow", "radius": 24}, {"kind": "shadow", "softness": 8}]


def three_titles():
    """Titles “One”, “Two”, “Three”, from the back to the front, with keys and effects."""
    first = scene_data("One")["layers"][0]
    layers = [
        {**first, "id": f"t{n}", "text": word, "name": word, "span": [0, 90], "effects": EFFECTS,
         "runs": [], "moves": [], "style": {**first["style"], "outline": 4},
         "transform": {"position": [100 * n, 500, 0], "opacity": {"keys": KEYS}}}
        for n, word in enumerate(("One", "Two", "Three"), 1)
    ]  # fmt: skip
    return scene_data(layers=layers)


class AsksTest(unittest.TestCase):
    def said(self, line, *layers, frame=24):
        """The layers by their ids as they are after a line was said of some, in their order."""
        layers = layers or ("t1",)
        situation = Situation(
            three_titles(), Selection(layer=layers[0], also=layers[1:], frame=frame)
        )
        edit = say(situation, {"text": line, "layer": layers[0], "layers": list(layers)})
        made = apply(situation.data, edit)
        return {layer["id"]: layer for layer in made.document["layers"]}

    def test_each_way_of_asking_is_understood_and_has_its_edits(self):
        self.assertEqual(set(asks()), set(ASKS))
        for name in (name for tables in ASK_TABLES for name in tables):
            context = Context(text="One", kind="title", several=name == "asks.several")
            for way in table(name):
                with self.subTest(way=way.words):
                    found = understand_line(example_of(way.words), context)
                    self.assertEqual(found.meaning.what, "ask")
                    again = understand_line(found.sentence, context)
                    self.assertEqual(again.meaning, found.meaning)

    def test_what_is_asked_is_done(self):
        def of(*path, layer="t1"):
            def value(layers):
                found = layers[layer]
                for name in path:
                    found = found[name]
                return found

            return value

        order = lambda layers: "".join(layer["text"][0] for layer in layers.values())  # noqa: E731
        keys = of("transform", "opacity", "keys")
        times = lambda layers: [key["at"] for key in keys(layers)]  # noqa: E731
        for line, value, wanted in (
            ("hide it for now", of("on"), False),
            ("duplicate it three times", order, "OOOOTT"),
            ("split it at frame 30", of("span"), [0, 30]),
            ("split here", of("span"), [0, 24]),
            ("bring to front", order, "TTO"),
            ("send it one layer forward", order, "TOT"),
            ("put it in front of “Two”", order, "TOT"),
            ("delete it", order, "TT"),
            ("delay the layer by 12 frames", of("span"), [12, 102]),
            ("cut ten frames off the end", of("span"), [0, 80]),
            ("set the in point to the playhead", of("span"), [24, 90]),
            ("change the words to “Good night”", of("text"), "Good night"),
            ("call it “Lead”", of("name"), "Lead"),
            ("all caps", of("text"), "ONE"),
            ("a bit bigger", of("style", "size"), 150),
            ("lose the glow", lambda layers: len(layers["t1"]["effects"]), 1),
            ("no effects", of("effects"), []),
            ("double the radius of the glow", of("effects", 0, "radius"), 48),
            ("softer shadow", of("effects", 1, "softness"), 16),
            ("make the outline 2 px thinner", of("style", "outline"), 2),
            ("50 px up", of("transform", "position"), [100, 450, 0]),
            ("move it 30 px to the left", of("transform", "position"), [70, 500, 0]),
            ("all keys +5", times, [15, 25, 45]),
            ("stretch the keys to twice the time", times, [10, 30, 70]),
            ("ease out all keys", lambda layers: keys(layers)[0]["ease"], "soft-landing"),
            ("remove all keys", of("transform", "opacity"), 0),
        ):  # fmt: skip
            with self.subTest(line):
                self.assertEqual(value(self.said(line)), wanted)

    def test_what_is_asked_of_several_is_done_with_all(self):
        def firsts(layers):
            return [layer["span"][0] for layer in layers.values()]

        every = ("t1", "t2", "t3")
        self.assertEqual(firsts(self.said("one every 6 frames", *every)), [0, 6, 12])
        self.assertEqual(firsts(self.said("spread them over 30 frames", *every)), [0, 15, 30])
        grouped = self.said("group these and call it “Lockup”", *every)
        self.assertEqual(grouped["g1"]["name"], "Lockup")
        self.assertEqual({grouped[each]["group"] for each in every}, {"g1"})
        self.assertTrue(all(not layer["on"] for layer in self.said("hide them", *every).values()))
        front = self.said("bring them to the front", "t1", "t2")
        self.assertEqual([*front], ["t3", "t1", "t2"])
        self.assertEqual([*self.said("move them backward", "t3", "t2")], ["t2", "t3", "t1"])
        self.assertEqual([*self.said("bring them forward", "t2", "t1")], ["t3", "t1", "t2"])
        aligned = self.said("align left", *every)
        places = {layer["transform"]["position"][1] for layer in aligned.values()}
        self.assertEqual(places, {500})

    def test_where_things_stand_is_told_by_others(self):
        def box(layers, layer):
            scene = from_data({**three_titles(), "layers": list(layers.values())})
            corners = np.array(places(scene, 24)["layers"][layer]["corners"])
            return corners.min(axis=0), corners.max(axis=0)

        below = self.said("a rectangle of 400 px by 4 px, white, 24 px below “One”")
        (left, top), (right, _) = box(below, "s1")
        (own_left, _), (own_right, bottom) = box(below, "t1")
        np.testing.assert_allclose([top - bottom, left + right], [24, own_left + own_right], 1e-3)
        beside = self.said("put it 30 px to the right of “three”")
        self.assertAlmostEqual(box(beside, "t1")[0][0] - box(beside, "t3")[1][0], 30, 2)
        corner = self.said("put it in the lower left corner, 60 px from the edges")
        (left, _), (_, bottom) = box(corner, "t1")
        np.testing.assert_allclose([left, bottom], [60, 1020], atol=0.01)
        for line, wanted in (
            ("a half transparent black box behind the text", ["s1", "t1", "t2", "t3"]),
            ("a yellow circle behind everything", ["s1", "t1", "t2", "t3"]),
            ("a red dot in front of “Two”", ["t1", "t2", "s1", "t3"]),
        ):
            with self.subTest(line):
                self.assertEqual([*self.said(line)], wanted)

    def test_sounds_need_not_be_selected(self):
        sound = {"id": "m1", "kind": "sound", "file": "orbit.wav", "span": [0, 90]}
        data = three_titles()
        situation = Situation({**data, "layers": [*data["layers"], sound]}, Selection(layer="t1"))
        for line, name, value in (
            ("lower the music to 40 %", "gain", -7.96),
            ("fade the music out at the end", "fade_out", 2),
            ("fade in the sound over 15 frames", "fade_in", 0.5),
            ("mute the music", "on", False),
            ("turn the music up", "gain", 6),
        ):
            with self.subTest(line):
                edit = say(situation, {"text": line, "layer": "t1"})
                made = apply(situation.data, edit).document["layers"][-1]
                self.assertEqual(made[name], value)
        with self.assertRaisesRegex(SceneError, "no sound in this scene"):
            self.said("mute the music")

    def test_what_cannot_be_done_is_told(self):
        for line, told in (
            ("put it behind “Nobody”", "no other layer “Nobody”"),
            ("cut 200 frames off the end", "nothing of it would be left"),
            ("duplicate it 900 times", "between 1 and 50"),
            ("bring it to the back", "as it is already"),
            ("no trail", "nothing of what is selected"),
            ("60 px from the edge", "say from which edge"),
            ("trim it to 0 frames", "nothing of it would be left"),
            ("put it below “Nobody”", "no other layer “Nobody”"),
            ("split it at frame 300", "from frame 0 to 90"),
        ):
            with self.subTest(line), self.assertRaisesRegex(SceneError, told):
                self.said(line)
