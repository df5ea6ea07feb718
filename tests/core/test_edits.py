"""Edits: each does what it says, refuses what it cannot do, and can be taken back exactly."""

import copy
import re
from pathlib import Path
from unittest import TestCase

import numpy as np

from balletto.motion.poses import poses
from balletto.scene import files
from balletto.scene.eases import ease_function
from balletto.scene.eases.bezier import Bezier
from balletto.scene.edits import EDITS, apply
from balletto.scene.errors import SceneError
from balletto.scene.moving.presets import presets
from balletto.scene.values.tracks import Track, value_at

from .scenes import scene_data

SWEEP = {"kind": "sweep", "travel": {"keys": [{"at": 0, "value": -100}, {"at": 30, "value": 100}]}}


def document():
    data = scene_data()
    data["layers"][0]["runs"] = [{"from": 4, "to": 9, "style": {"fill": "#F2B705"}}]
    data["layers"][0]["moves"][0]["reach"] = [SWEEP]
    return data


class EditTest(TestCase):
    """What every edit must keep; tests of edits are made of this."""

    source = staticmethod(document)

    def done(self, **edit):
        """The title after an edit, whose inverse and harmlessness are checked on the way."""
        before = self.source()
        kept = copy.deepcopy(before)
        applied = apply(before, edit)
        self.assertEqual(before, kept, "an edit changed the document that it was given")
        self.assertEqual(apply(applied.document, applied.inverse).document, kept)
        self.label = applied.label
        self.whole = applied.document
        return applied.document["layers"][0] if applied.document["layers"] else None

    def refused(self, **edit):
        with self.assertRaises(SceneError) as caught:
            apply(self.source(), edit)
        return str(caught.exception)


class TitleTest(EditTest):
    def test_every_edit_is_tested(self):
        """Each is made by name in one of the modules here."""
        modules = (path.read_text() for path in Path(__file__).parent.glob("test_*.py"))
        made = set(re.findall(r'name="([a-z-]+)"|"name": "([a-z-]+)"', "\n".join(modules)))
        self.assertEqual(set(EDITS) - {name for names in made for name in names}, set())

    def test_set_text_keeps_the_style_of_letters_that_stay(self):
        title = self.done(name="set-text", layer="t1", text="The Very Quiet Orbit")
        # "Quiet" moved by five, and is still what is coloured.
        self.assertEqual(title["runs"], [{"from": 9, "to": 14, "style": {"fill": "#F2B705"}}])

    def test_a_word_keeps_its_style_whatever_is_typed_around_it(self):
        for text, styled in (
            ("A Quiet Moon Rises", "Quiet"),
            ("Quiet", "Quiet"),
            ("Orbit: The Quiet One", "Quiet"),
            ("The Silent Orbit", "Silent"),
            ("The Quieter Orbit", "Quieter"),
            ("The Orbit", ""),
            ("The Quiet Orbit tonight", "Quiet"),
        ):
            with self.subTest(text):
                title = self.done(name="set-text", layer="t1", text=text)
                runs = title["runs"]
                self.assertEqual("".join(text[run["from"] : run["to"]] for run in runs), styled)

    def test_text_that_is_too_long_to_compare_keeps_its_ends(self):
        """Comparing all words with all took 18 seconds for a text of ten thousand letters."""
        data = document()
        words = [f"w{n}" for n in range(800)]
        data["layers"][0] |= {
            "text": " ".join(words),
            "runs": [
                {"from": 0, "to": 2, "style": {"fill": "#F2B705"}},
                {
                    "from": len(" ".join(words)) - 4,
                    "to": len(" ".join(words)),
                    "style": {"size": 9},
                },
            ],
        }
        text = " ".join([words[0], *(f"v{n}" for n in range(700)), words[-1]])
        edit = {"name": "set-text", "layer": "t1", "text": text}
        first, last = apply(data, edit).document["layers"][0]["runs"]
        self.assertEqual(
            (text[first["from"] : first["to"]], first["style"]["fill"]), ("w0", "#F2B705")
        )
        self.assertEqual((text[last["from"] : last["to"]], last["style"]["size"]), ("w799", 9))

    def test_set_text_counts_what_a_reader_calls_a_character(self):
        self.done(name="set-text", layer="t1", text="👩‍🚀he Quiet Orbit")
        self.assertEqual(self.whole["layers"][0]["runs"][0]["from"], 4)

    def test_style_letters(self):
        title = self.done(
            name="style-letters", layer="t1", first=0, end=6, property="axes.wght", value=300
        )
        light, yellow = {"axes": {"wght": 300}}, {"fill": "#F2B705"}
        self.assertEqual(
            title["runs"],
            [
                {"from": 0, "to": 4, "style": light},
                {"from": 4, "to": 6, "style": {**yellow, **light}},
                {"from": 6, "to": 9, "style": yellow},
            ],
        )
        title = self.done(name="style-letters", layer="t1", first=0, end=15, property="fill")
        self.assertEqual(title["runs"], [])

    def test_layers(self):
        layer = {"kind": "title", "text": "Doors 19:30", "span": [0, 90]}
        self.done(name="add-layer", layer=layer)
        self.assertEqual([layer["id"] for layer in self.whole["layers"]], ["t1", "t2"])
        self.assertIsNone(self.done(name="remove-layer", layer="t1"))

    def test_moves(self):
        for preset in presets().values():
            with self.subTest(preset["id"]):
                title = self.done(name="add-move", layer="t1", move=preset["move"])
                self.assertEqual(title["moves"][1]["id"], "m2")
        self.assertEqual(self.done(name="remove-move", layer="t1", move="m1")["moves"], [])

    def test_a_move_is_duplicated_and_put_elsewhere(self):
        title = self.done(name="duplicate-move", layer="t1", move="m1")
        self.assertEqual([move["id"] for move in title["moves"]], ["m1", "m2"])
        self.assertEqual({**title["moves"][1], "id": "m1"}, title["moves"][0])
        made = self.whole
        self.source = lambda: made
        title = self.done(name="order-move", layer="t1", move="m2", to=0)
        self.assertEqual([move["id"] for move in title["moves"]], ["m2", "m1"])
        self.assertIn("earlier", self.label)
        title = self.done(name="order-move", layer="t1", move="m1", to=9)
        self.assertEqual([move["id"] for move in title["moves"]], ["m2", "m1"])
        self.assertIn("move", self.refused(name="order-move", layer="t1", move="gone", to=0))

    def test_a_move_turned_round_runs_backwards_to_the_end_of_its_layer(self):
        """At mirrored times units are as far away as they were, each in its own time."""
        data = document()
        move = data["layers"][0]["moves"][0]
        move.pop("reach")
        move["until_turn"] = "hidden"
        move["eases"] = {"y": "soft-landing"}
        self.source = lambda: data
        amount = move["amount"]
        turned = self.done(name="turn-move-round", layer="t1", move="m1", spread=24)["moves"][0]
        self.assertEqual(
            turned["start"], data["layers"][0]["span"][1] - 24 - amount["keys"][-1]["at"]
        )
        self.assertNotIn("until_turn", turned)
        self.assertEqual(turned["eases"], {"y": "soft-start"})
        whole = amount["keys"][0]["at"] + amount["keys"][-1]["at"]
        times = np.linspace(0, whole, 9)
        there, back = (
            value_at(Track[float].model_validate(each, strict=False), at)
            for each, at in ((amount, times), (turned["amount"], whole - times))
        )
        np.testing.assert_allclose(there, back, atol=1e-6)
        again = self.whole
        self.source = lambda: again
        home = self.done(name="turn-move-round", layer="t1", move="m1", spread=24)["moves"][0]
        self.assertEqual(home["amount"], amount)
        self.assertEqual(home["start"], data["layers"][0]["span"][0])

    def test_a_course_of_the_pose_runs_backwards_too(self):
        data = document()
        course = {"keys": [{"at": 0, "value": 100, "ease": "soft-both"}, {"at": 15, "value": 0}]}
        short = {"keys": [{"at": 0, "value": 0}, {"at": 5, "value": 1}]}
        data["layers"][0]["moves"] = [{"id": "m1", "pose": {"y": course, "opacity": short}}]
        self.source = lambda: data
        turned = self.done(name="turn-move-round", layer="t1", move="m1", spread=6)["moves"][0]
        keys = [
            [(key["at"], key["value"]) for key in turned["pose"][name]["keys"]]
            for name in ("y", "opacity")
        ]
        self.assertEqual(keys, [[(0, 0), (15, 100)], [(10, 1), (15, 0)]])
        self.assertEqual(turned["start"], data["layers"][0]["span"][1] - 21)
        data["layers"][0]["moves"] = [{"id": "m1", "pose": {"y": 3}}]
        told = self.refused(name="turn-move-round", layer="t1", move="m1")
        self.assertIn("nothing of this move changes", told)

    def test_a_move_without_a_length_turns_its_sweep_round(self):
        data = document()
        move = data["layers"][0]["moves"][0]
        move.pop("amount")
        self.source = lambda: data
        turned = self.done(name="turn-move-round", layer="t1", move="m1")["moves"][0]
        keys = turned["reach"][0]["travel"]["keys"]
        self.assertEqual([(key["at"], key["value"]) for key in keys], [(0, 100), (30, -100)])

    def test_selectors(self):
        scatter = {"kind": "scatter", "seed": 4}
        title = self.done(name="add-selector", layer="t1", move="m1", selector=scatter)
        self.assertEqual(title["moves"][0]["reach"], [SWEEP, scatter])
        self.assertEqual(self.label, "Chance added to “Rise”")
        title = self.done(name="remove-selector", layer="t1", move="m1", index=0)
        self.assertNotIn("reach", title["moves"][0])
        self.refused(name="remove-selector", layer="t1", move="m1", index=1)
        self.refused(name="add-selector", layer="t1", move="m1", selector={"kind": "swoop"})

    def test_set_order_brings_what_the_order_needs(self):
        path = "t1.moves.m1.stagger"
        stagger = self.done(name="set-order", path=path, value="from-point")["moves"][0]["stagger"]
        self.assertEqual(stagger, {"order": "from-point", "gap": 2, "point": [960, 540]})
        edit = {"name": "set-order", "path": path, "value": "from-point"}
        there = apply(document(), edit).document
        back = apply(there, {**edit, "value": "backward"}).document
        self.assertEqual(back["layers"][0]["moves"][0]["stagger"], {"order": "backward", "gap": 2})
        self.assertIn("one of", self.refused(name="set-order", path=path, value="sideways"))

    def test_set_length_takes_along_what_lasted_to_the_end(self):
        title = self.done(name="set-length", length=120)
        self.assertEqual((self.whole["length"], title["span"]), (120, [0, 120]))

    def test_untie(self):
        path = "t1.moves.m1.pose.x"
        tie = {"tie": {"to": "t1.moves.m1.amount", "gain": 40}}
        tied = apply(document(), {"name": "set-value", "path": path, "value": tie}).document
        loose = apply(tied, {"name": "untie", "path": path, "at": 0})
        self.assertEqual(loose.document["layers"][0]["moves"][0]["pose"]["x"], 40)
        self.assertEqual(apply(loose.document, loose.inverse).document, tied)
        fill = {"name": "set-value", "path": "t1.moves.m1.pose.fill"}
        tied = apply(document(), {**fill, "value": {"tie": {"to": "t1.style.fill"}}}).document
        loose = apply(tied, {"name": "untie", "path": "t1.moves.m1.pose.fill"}).document
        self.assertEqual(loose["layers"][0]["moves"][0]["pose"]["fill"], "#FFFFFF")
        self.assertIn("not tied", self.refused(name="untie", path="t1.moves.m1.pose.y"))

    def test_a_keyed_value_can_be_tied(self):
        """It was refused as a key without a frame."""
        tie = {"tie": {"to": "t1.moves.m1.pose.y"}}
        title = self.done(name="set-value", path="t1.moves.m1.amount", value=tie)
        self.assertEqual(title["moves"][0]["amount"], tie)

    def test_scale_keys(self):
        path = "t1.moves.m1.reach.0.travel"
        title = self.done(name="scale-keys", path=path, factor=1.5)
        keys = title["moves"][0]["reach"][0]["travel"]["keys"]
        self.assertEqual([key["at"] for key in keys], [0, 45])
        self.assertEqual(self.label, "Slower: “Rise”")
        self.assertIn(
            "no keyframes", self.refused(name="scale-keys", path="t1.style.size", factor=2)
        )

    def test_bend_stagger(self):
        path = "t1.moves.m1.stagger"
        title = self.done(name="bend-stagger", path=path, middle=0.25)
        curve = title["moves"][0]["stagger"]["curve"]
        self.assertAlmostEqual(
            float(ease_function(Bezier(bezier=tuple(curve["bezier"])))(np.array(0.5))),
            0.25,
            places=3,
        )
        bent = apply(document(), {"name": "bend-stagger", "path": path, "middle": 0.25}).document
        even = apply(bent, {"name": "bend-stagger", "path": path, "middle": 0.5}).document
        self.assertEqual(even["layers"][0]["moves"][0]["stagger"]["curve"], "linear")

    def test_layers_are_duplicated_and_put_in_another_order(self):
        self.done(name="duplicate-layer", layer="t1")
        twice = self.whole
        self.assertEqual([layer["id"] for layer in twice["layers"]], ["t1", "t2"])
        self.assertEqual(twice["layers"][1]["moves"], twice["layers"][0]["moves"])
        for layer, to, order in (
            ("t1", 1, ["t2", "t1"]),
            ("t2", 0, ["t2", "t1"]),
            ("t1", 9, ["t2", "t1"]),
        ):
            moved = apply(twice, {"name": "move-layer", "layer": layer, "to": to})
            self.assertEqual([each["id"] for each in moved.document["layers"]], order)
            self.assertEqual(apply(moved.document, moved.inverse).document, twice)

    def test_a_layer_is_shifted_with_all_that_moves_it(self):
        """Each frame looks as the one ten frames before did."""
        start = document()
        keys = [{"at": 0, "value": [0, 0, 0]}, {"at": 30, "value": [90, 0, 0]}]
        start["layers"][0]["transform"]["position"] = {"keys": keys}
        later = apply(start, {"name": "shift-layer", "layer": "t1", "by": 10})
        title = later.document["layers"][0]
        self.assertEqual(title["span"], [10, 100])
        self.assertEqual([key["at"] for key in title["transform"]["position"]["keys"]], [10, 40])
        one = poses(files.from_data(start), "t1", [0, 7, 20])["values"]
        self.assertEqual(poses(later.scene, "t1", [10, 17, 30])["values"], one)
        self.assertEqual(apply(later.document, later.inverse).document, start)

    def test_bend_way(self):
        keys = [{"at": 0, "value": [0, 0, 0]}, {"at": 9, "value": [90, 0, 0]}]
        path = "t1.transform.position"
        made = apply(document(), {"name": "set-value", "path": path, "value": {"keys": keys}})
        bent = apply(made.document, {"name": "bend-way", "path": path})
        first, last = bent.document["layers"][0]["transform"]["position"]["keys"]
        self.assertEqual((first["out"], last["in"]), ([30, -27], [-30, -27]))
        straight = apply(bent.document, {"name": "bend-way", "path": path, "bent": False})
        self.assertEqual(straight.document, made.document)

    def test_part_of_the_gradient_of_single_letters(self):
        fill = {"kind": "linear", "colors": ["#111111", "#222222"]}
        whole = apply(document(), {"name": "set-value", "path": "t1.style.fill", "value": fill})
        edit = {"name": "style-letters", "layer": "t1", "first": 0, "end": 2}
        part = apply(whole.document, {**edit, "property": "fill.colors.1", "value": "#333333"})
        run = part.document["layers"][0]["runs"][0]
        self.assertEqual(run["style"]["fill"], {**fill, "colors": ["#111111", "#333333"]})

    def test_replace_scene(self):
        other = scene_data("Nine Winter Moons", name="Moons")
        title = self.done(name="replace-scene", document=other, file="moons.balletto.json")
        self.assertEqual(title["text"], "Nine Winter Moons")

    def test_bad_edits(self):
        for edit in (
            {"name": "explode"},
            {"name": "set-value"},
            {"name": "set-value", "path": "t1", "value": 3},
            {"name": "set-value", "path": "t1.style.size.deep", "value": 3},
            {"name": "remove-move", "layer": "t1", "move": "m9"},
            {"name": "changes", "changes": [["burn", ["layers"], None]]},
            {"name": "changes", "changes": [["remove", ["nothing"], None]]},
        ):
            with self.subTest(edit):
                self.assertTrue(self.refused(**edit))


class RateTest(TestCase):
    """Under another rate everything keeps its seconds."""

    MOVES = [
        {
            "id": "m1",
            "pose": {"y": {"keys": [{"at": 3, "value": 1}, {"at": 30, "value": 90}]}, "x": 40},
            "amount": {"keys": [{"at": 0, "value": 1, "ease": "auto"}, {"at": 20, "value": 0}]},
            "start": 6,
            "stagger": {"order": "center-out", "gap": 2,
                        "groups": {"by": "word", "order": "forward", "span": 21}},
            "follow": {"frequency": 2, "damping": 0.4},
        },
        {
            "id": "m2",
            "pose": {"rotation": 10, "z": {"tie": {"to": "t1.moves.m1.pose.y", "delay": 4}}},
            "reach": [{"kind": "wave"}, {"kind": "jitter", "combine": "add"},
                      {"kind": "wave", "period": {"keys": [{"at": 0, "value": 10},
                                                           {"at": 90, "value": 40}]}}],
        },
        {"id": "m3", "pose": {"scale": 2}, "stagger": {"times": [0, 4, 9]},
         "amount": {"keys": [{"at": 0, "value": 0}, {"at": 5, "value": 1}], "after": "mirror"},
         "reach": [{"kind": "wave", "shape": "saw",
                    "period": {"tie": {"to": "t1.moves.m1.pose.x", "gain": 0.5, "plus": 3}}},
                   {"kind": "jitter", "every": "9/s", "smooth": True}]},
    ]  # fmt: skip

    def test_the_same_second_has_the_same_values(self):
        before = scene_data(length=120)
        before["layers"][0] |= {"moves": self.MOVES, "span": [10, 120]}
        for rate, factor in (("60", 2), ("15", 0.5), ("30000/1001", 1000 / 1001)):
            with self.subTest(rate):
                after = apply(before, {"name": "set-rate", "value": rate}).document
                times = list(range(0, 120, 8))
                one = poses(files.from_data(before), "t1", times)
                other = poses(files.from_data(after), "t1", [time * factor for time in times])
                for name, rows in one["values"].items():
                    np.testing.assert_allclose(other["values"][name], rows, atol=2e-3)
                self.assertEqual(after["length"], round(120 * factor))
                self.assertEqual(after["layers"][0]["span"][1], after["length"])
                back = apply(after, {"name": "set-rate", "value": "30"}).document
                self.assertEqual(back["layers"][0]["moves"][0]["stagger"]["gap"], 2)

    def test_ties_from_and_to_numbers_of_frames(self):
        """What follows a period in frames stays what it is, under any rate."""
        reach = [{"kind": "wave", "period": 30}]
        to_period = {"tie": {"to": "t1.moves.m1.reach.0.period", "gain": 2, "plus": 5}}
        before = scene_data()
        before["layers"][0]["moves"] = [
            {"id": "m1", "pose": {"y": 10}, "reach": reach},
            {"id": "m2", "pose": {"x": to_period}, "reach": [
                {"kind": "wave", "period": {"tie": {"to": "t1.moves.m1.reach.0.period"}}}]},
        ]  # fmt: skip
        after = apply(before, {"name": "set-rate", "value": "60"})
        one = poses(files.from_data(before), "t1", [0, 7])["values"]["x"]
        np.testing.assert_allclose(poses(after.scene, "t1", [0, 14])["values"]["x"], one)

    def test_a_rate_that_is_none_is_refused(self):
        for rate in ("0", "fast", "1/0", "1000"):
            with self.assertRaises(SceneError):
                apply(document(), {"name": "set-rate", "value": rate})
