"""Keyframes, layers and markers edited together: where they stand after, and what comes of it."""

import copy
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from balletto.scene import files
from balletto.scene.eases import ease_function
from balletto.scene.edits import apply
from balletto.scene.edits.structure.copies import copied_keys, copied_layers
from balletto.scene.edits.times.keyframes import _EASE, turned_round
from balletto.scene.errors import SceneError
from balletto.scene.values.ties import find_value
from balletto.scene.values.tracks import value_at

from .scenes import scene_data
from .test_edits import EditTest

OPACITY = "t1.transform.opacity"
PLACE = "t1.transform.position"
AMOUNT = "t1.moves.m1.amount"
FADE = [
    {"at": 10, "value": 0, "ease": "soft-start"},
    {"at": 20, "value": 1},
    {"at": 40, "value": 0.5, "ease": "hold"},
    {"at": 50, "value": 0},
]


def document():
    data = scene_data()
    title = data["layers"][0]
    title["transform"]["opacity"] = {"keys": FADE}
    title["transform"]["position"] = {
        "keys": [
            {"at": 0, "value": [100, 100, 0], "out": [50, 0], "ease": "soft-landing"},
            {"at": 30, "value": [200, 300, 0], "in": [0, -80]},
        ]
    }
    # Counts from frame 12: its keys stand at 12 and 32 of the scene.
    title["moves"][0]["start"] = 12
    title["moves"][0]["amount"] = {"keys": [{"at": 0, "value": 1}, {"at": 20, "value": 0}]}
    data["layers"].append({**copy.deepcopy(title), "id": "t2", "text": "Second", "span": [20, 90]})
    return data


class KeysTest(EditTest):
    source = staticmethod(document)

    def times(self, path=OPACITY, **edit):
        """Where the keys of a value stand after an edit."""
        self.done(**edit)
        return [key["at"] for key in self.keys(path)]

    def keys(self, path):
        layer, *rest = path.split(".")
        part = next(each for each in self.whole["layers"] if each["id"] == layer)
        if rest[0] == "moves":
            part, rest = part["moves"][0], rest[2:]
        for name in rest:
            part = part[name]
        return part["keys"]

    def test_shift(self):
        self.assertEqual(
            self.times(name="shift-keys", keys={OPACITY: [1, 2]}, by=-2), [10, 18, 38, 50]
        )
        self.assertEqual(self.label, "2 keyframes of Opacity of “Title” 2 frames earlier")

    def test_shift_over_others(self):
        self.assertEqual(
            self.times(name="shift-keys", keys={OPACITY: [0]}, by=35), [20, 40, 45, 50]
        )
        self.assertEqual(self.keys(OPACITY)[2]["value"], 0)
        self.assertEqual(self.times(name="shift-keys", keys={OPACITY: [0]}, by=10), [20, 40, 50])
        self.assertEqual(self.keys(OPACITY)[0]["value"], 0, "the moved key takes the place")

    def test_shift_of_several_values(self):
        self.done(name="shift-keys", keys={OPACITY: [0], AMOUNT: [0, 1]}, by=3)
        self.assertEqual([key["at"] for key in self.keys(AMOUNT)], [3, 23])
        self.assertEqual(self.label, "3 keyframes of 2 values 3 frames later")

    def test_one_frame_is_said_as_one(self):
        self.done(name="shift-keys", keys={OPACITY: [0]}, by=-1)
        self.assertEqual(self.label, "1 keyframe of Opacity of “Title” 1 frame earlier")

    def test_stretch_counts_in_frames_of_the_scene(self):
        edit = {"name": "stretch-keys", "about": 12, "factor": 1.5}
        self.assertEqual(self.times(AMOUNT, keys={AMOUNT: [0, 1]}, **edit), [0, 30])
        self.assertEqual(self.times(keys={OPACITY: [1, 2, 3]}, **edit), [10, 24, 54, 69])

    def test_align(self):
        self.done(name="align-keys", keys={OPACITY: [1, 2], AMOUNT: [0, 1]}, at=15)
        self.assertEqual([key["at"] for key in self.keys(OPACITY)], [10, 15, 35, 50])
        self.assertEqual([key["at"] for key in self.keys(AMOUNT)], [3, 23])

    def test_reverse_plays_backwards(self):
        def course(data, times):
            return value_at(find_value(files.from_data(data), OPACITY)[0], times)

        times = np.linspace(10.01, 49.99, 200)
        before = course(document(), times)
        self.done(name="reverse-keys", keys={OPACITY: [0, 1, 2, 3]})
        np.testing.assert_allclose(course(self.whole, 60 - times), before, atol=1e-9)

    def test_reverse_turns_the_way_round(self):
        self.done(name="reverse-keys", keys={PLACE: [0, 1]})
        first, last = self.keys(PLACE)
        self.assertEqual(
            (first["value"], first["out"], first["ease"]), ([200, 300, 0], [0, -80], "soft-start")
        )
        self.assertEqual((last["at"], last["in"]), (30, [50, 0]))

    def test_remove(self):
        self.assertEqual(self.times(name="remove-keys", keys={OPACITY: [0, 3]}), [20, 40])
        title = self.done(name="remove-keys", keys={OPACITY: [0, 1, 2, 3]})
        self.assertEqual(title["transform"]["opacity"], 0)

    def test_ease_many(self):
        self.done(name="ease-keys", keys={OPACITY: [0, 1, 2], AMOUNT: [1]}, ease="overshoot")
        eases = [key.get("ease") for key in self.keys(OPACITY)]
        self.assertEqual(eases, ["overshoot", "overshoot", "hold", None])
        self.assertEqual(self.keys(AMOUNT)[0]["ease"], "overshoot")
        self.done(name="ease-keys", keys={OPACITY: [2]}, ease={"bezier": [0.1, 0, 0.9, 1]})
        self.assertEqual(self.keys(OPACITY)[2]["ease"], {"bezier": [0.1, 0, 0.9, 1]})

    def test_flatten(self):
        self.done(name="flatten-keys", keys={OPACITY: [1]})
        keys = self.keys(OPACITY)
        self.assertEqual(keys[0]["ease"], {"bezier": [0.32, 0, 0.67, 1]})
        self.assertEqual(keys[1]["ease"]["bezier"][:2], [round(1 / 3, 6), 0])

    def test_copied_keys_come_back(self):
        rows = copied_keys(document(), {OPACITY: (0, 1), AMOUNT: (0,)})
        self.assertEqual([key["at"] for key in rows[AMOUNT]], [2])
        self.done(name="paste-keys", rows=rows, at=60)
        times = [key["at"] for key in self.keys(OPACITY)]
        self.assertEqual(times, [10, 20, 40, 50, 60, 70])
        self.assertEqual([key["at"] for key in self.keys(AMOUNT)], [0, 20, 50])

    def test_pasted_on_a_value_without_keys(self):
        rows = {"t1.transform.rotation": [{"at": 0, "value": [0, 0, 9]}]}
        self.done(name="paste-keys", rows=rows, at=7)
        self.assertEqual(self.keys("t1.transform.rotation"), [{"at": 7, "value": [0, 0, 9]}])

    def test_keys_that_are_not_there(self):
        said = self.refused(name="shift-keys", keys={OPACITY: [7]}, by=1)
        self.assertIn("not there any more", said)
        self.assertIn("no keyframes", self.refused(name="remove-keys", keys={"t1.span": [0]}))

    def test_distribute_keys_of_one_value(self):
        edit = {"name": "distribute-keys", "keys": {OPACITY: [0, 1, 2, 3]}, "span": 60}
        self.assertEqual(self.times(**edit), [10, 30, 50, 70])
        self.assertEqual(self.times(**edit, curve={"points": [[0, 0], [0.5, 0.1], [1, 1]]}),
                         [10, 14, 34, 70])  # fmt: skip
        self.times(**edit, descending=True)
        self.assertEqual(self.keys(OPACITY)[0]["value"], 0)
        self.assertEqual(self.keys(OPACITY)[2]["value"], 1)

    def test_distribute_keys_of_several_values(self):
        rows = {OPACITY: [0, 1], AMOUNT: [0, 1], PLACE: [0, 1]}
        self.done(name="distribute-keys", keys=rows, span=30)
        self.assertEqual([key["at"] for key in self.keys(OPACITY)][:2], [0, 10])
        self.assertEqual([key["at"] for key in self.keys(AMOUNT)], [3, 23])
        self.assertEqual([key["at"] for key in self.keys(PLACE)], [30, 60])

    def test_distribute_needs_a_curve(self):
        edit = {"name": "distribute-keys", "keys": {OPACITY: [0, 1]}, "span": 6, "curve": "wobbly"}
        self.assertIn("an ease is needed", self.refused(**edit))

    def test_distribute_layers(self):
        edit = {"name": "distribute-layers", "layers": ["t1", "t2"], "span": 12}
        self.done(**edit)
        spans = [layer["span"] for layer in self.whole["layers"]]
        self.assertEqual(spans, [[0, 90], [12, 82]])
        self.assertEqual([layer["moves"][0]["start"] for layer in self.whole["layers"]], [12, 4])
        self.done(**edit, descending=True)
        self.assertEqual([layer["span"][0] for layer in self.whole["layers"]], [12, 0])

    def test_split(self):
        self.done(name="split-layer", layer="t1", at=40)
        spans = [(layer["id"], layer["span"]) for layer in self.whole["layers"]]
        self.assertEqual(spans, [("t1", [0, 40]), ("t3", [40, 90]), ("t2", [20, 90])])
        self.assertIn("from frame 0 to 90", self.refused(name="split-layer", layer="t1", at=90))

    def test_ties_within_a_copy_stay_within_it(self):
        data = document()
        data["layers"][0]["transform"]["rotation"] = {"tie": {"to": "t1.transform.position"}}
        copied = apply(data, {"name": "duplicate-layer", "layer": "t1"}).document["layers"][1]
        self.assertEqual(copied["transform"]["rotation"]["tie"]["to"], "t3.transform.position")

    def test_layers_for_another_scene(self):
        data = document()
        data["layers"][1]["transform"]["position"] = {"tie": {"to": PLACE}}
        data["layers"][1]["transform"]["rotation"] = {"tie": {"to": "t2.transform.position"}}
        kept = copied_layers(data, ["t2"], same_scene=True)[0]["transform"]
        self.assertEqual(kept["position"]["tie"]["to"], PLACE)
        copied = copied_layers(data, ["t2"], same_scene=False)
        self.assertEqual(copied[0]["transform"]["position"], [100, 100, 0])
        pasted = apply(scene_data(), {"name": "paste-layers", "layers": copied}).document
        self.assertEqual([layer["id"] for layer in pasted["layers"]], ["t1", "t2"])
        self.assertEqual(
            pasted["layers"][1]["transform"]["rotation"]["tie"]["to"], "t2.transform.position"
        )

    def test_paste_layers(self):
        copied = copied_layers(document(), ["t2", "t1"], same_scene=True)
        self.done(name="paste-layers", layers=copied)
        self.assertEqual([layer["id"] for layer in self.whole["layers"]], ["t1", "t2", "t3", "t4"])
        self.assertEqual(self.whole["layers"][3]["text"], "Second")

    def test_paste_style(self):
        title = self.done(name="paste-style", layer="t1", style={"font": "Fraunces", "size": 80})
        self.assertEqual(title["style"], {"font": "Fraunces", "size": 80})
        self.assertNotIn("runs", title)

    def test_paste_moves(self):
        move = {"id": "m1", "name": "Rise", "pose": {"y": 9}}
        title = self.done(name="paste-moves", layer="t1", moves=[move, {**move, "name": "Again"}])
        self.assertEqual([move["id"] for move in title["moves"]], ["m1", "m2", "m3"])
        self.assertEqual(self.label, "2 moves pasted on “Title”")

    def test_markers(self):
        self.done(name="add-marker", at=30)
        self.assertEqual(self.whole["markers"], [{"at": 30, "name": "Marker 1"}])
        data = {**document(), "markers": [{"at": 9, "name": "In"}, {"at": 30, "name": "Out"}]}
        moved = apply(data, {"name": "change-marker", "index": 1, "at": 3})
        self.assertEqual([each["name"] for each in moved.document["markers"]], ["Out", "In"])
        self.assertEqual(moved.label, "Marker “Out” moved to frame 3")
        named = apply(data, {"name": "change-marker", "index": 0, "marker_name": "Doors"})
        self.assertEqual(named.document["markers"][0], {"at": 9, "name": "Doors"})
        left = apply(data, {"name": "remove-marker", "index": 0}).document
        self.assertEqual(left["markers"], [{"at": 30, "name": "Out"}])
        self.assertEqual(apply(left, {"name": "set-rate", "value": "60"}).document["markers"][0],
                         {"at": 60, "name": "Out"})  # fmt: skip
        self.assertIn("not there", self.refused(name="remove-marker", index=0))
        self.assertIn("not there", self.refused(name="change-marker", index=0, at=1))

    def test_markers_need_no_name(self):
        data = {**document(), "markers": [{"at": 9}, {"at": 30, "name": "Out"}]}
        data["layers"][0]["moves"][0] |= {"marker": "Out"}
        data["layers"][0]["moves"][0].pop("start", None)
        move = {"name": "set-value", "path": "t1.moves.m1.marker", "value": None}
        for edit in (
            {"name": "change-marker", "index": 0, "at": 3},
            {"name": "change-marker", "index": 0, "marker_name": "In"},
            {"name": "remove-marker", "index": 0},
            {"name": "set-beats", "times": [5, 10]},
            {"name": "add-marker", "at": 50},
            {**move, "name": "clear-value"},
        ):
            with self.subTest(edit["name"]):
                edit.pop("value", None)
                applied = apply(data, edit)
                self.assertEqual(apply(applied.document, applied.inverse).document, data)

    def test_several(self):
        edits = [
            {"name": "set-value", "path": "t1.transform.rotation", "value": [0, 0, 5]},
            {"name": "add-move", "layer": "t1", "move": {"name": "New"}},
            {"name": "remove-layer", "layer": "t2"},
        ]
        title = self.done(name="several", edits=edits, said="Three things")
        self.assertEqual((self.label, len(title["moves"])), ("Three things", 2))
        self.assertEqual(len(self.whole["layers"]), 1)

    def test_locked_layers_are_left_alone(self):
        data = document()
        data["layers"][0]["locked"] = True
        for edit in (
            {"name": "set-value", "path": OPACITY, "value": 0.5, "at": 3},
            {"name": "remove-layer", "layer": "t1"},
            {"name": "shift-layer", "layer": "t1", "by": 4},
        ):
            with self.assertRaisesRegex(SceneError, "is locked: unlock it"):
                apply(data, edit)
        apply(data, {"name": "set-value", "path": "t2.transform.opacity", "value": 1, "at": 1})
        apply(data, {"name": "move-layer", "layer": "t1", "to": 1})
        apply(data, {"name": "set-rate", "value": "60"})
        unlocked = apply(data, {"name": "set-value", "path": "t1.locked", "value": False})
        self.assertFalse(unlocked.document["layers"][0]["locked"])

    def test_solo(self):
        data = document()
        self.assertEqual(files.from_data(data).shown, {"t1", "t2"})
        data["layers"][1]["solo"] = True
        self.assertEqual(files.from_data(data).shown, {"t2"})
        data["layers"][1]["on"] = False
        self.assertEqual(files.from_data(data).shown, set())


class TurnedRoundTest(TestCase):
    @given(
        st.sampled_from(
            [
                "linear", "soft-start", "overshoot", "quick-landing", "hold",
                {"bezier": [0.1, 0.9, 0.2, -0.5]}, {"steps": 4}, {"steps": 3, "jump": "both"},
                {"steps": 3, "jump": "none"}, {"steps": 1, "jump": "start"},
                {"points": [[0, 0], [0.5, 0.2], [1, 1]]}, {"spring": 0.5}, {"bounce": 2},
            ]
        ),
        st.floats(0.001, 0.999),
    )  # fmt: skip
    def test_runs_backwards(self, ease, s):
        def value(data, at):
            return ease_function(_EASE.validate_python(data, strict=False))(np.array([at]))[0]

        # A sampled curve is straight between its samples.
        within = 0.02 if isinstance(ease, dict) and {"spring", "bounce"} & set(ease) else 1e-6
        if isinstance(ease, dict) and "steps" in ease and abs(s * 12 - round(s * 12)) < 0.01:
            return  # at a jump both sides are right
        self.assertAlmostEqual(value(turned_round(ease), s), 1 - value(ease, 1 - s), delta=within)
