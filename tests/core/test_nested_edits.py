"""Edits of what is played and shown from elsewhere: nested scenes, videos, sound."""

from balletto.scene import files
from balletto.scene.edits import apply
from balletto.scene.edits.structure.copies import copied_layers, copied_scenes
from balletto.scene.edits.structure.nested import sources_of

from .scenes import scene_data
from .test_edits import EditTest

VIDEO = {"id": "v1", "kind": "video", "file": "orbit.mp4", "span": [0, 90], "speed": 2}
SOUND = {"id": "a1", "kind": "sound", "file": "bell.wav", "span": [0, 90], "start": 1,
         "gain": {"keys": [{"at": 0, "value": -6}, {"at": 30, "value": 0}]}}  # fmt: skip
MOON = scene_data("Moon", name="Moon", rate="15", length=40)


def playing():
    data = scene_data()
    return {**data, "layers": [*data["layers"], VIDEO, SOUND]}


class NestedEditTest(EditTest):
    source = staticmethod(playing)

    def use(self, document, source="7", inner=MOON, **layer):
        edit = {"name": "use-scene", "source": source, "document": inner}
        return apply(document, {**edit, "layer": {"span": [0, 90], **layer}})

    def test_a_scene_is_used_once_however_often_it_is_shown(self):
        self.done(name="use-scene", source="7", document=MOON, layer={"span": [0, 90]})
        self.assertEqual(self.label, "Scene “Moon” used")
        again = self.use(self.whole, shift=5).document
        self.assertEqual([used["source"] for used in again["scenes"]], ["7"])
        shown = [layer for layer in again["layers"] if layer["kind"] == "scene"]
        self.assertEqual([layer["id"] for layer in shown], ["n1", "n2"])
        self.assertEqual({layer["scene"] for layer in shown}, {again["scenes"][0]["id"]})

    def test_it_is_brought_up_to_date(self):
        used = self.use(playing()).document
        newer = {**MOON, "length": 60}
        renewed = apply(used, {"name": "renew-scene", "source": "7", "document": newer})
        self.assertEqual(renewed.document["scenes"][0]["scene"]["length"], 60)
        self.assertEqual(renewed.label, "Scene “Moon” as it is now")
        self.assertEqual(apply(renewed.document, renewed.inverse).document, used)
        told = self.refused(name="renew-scene", source="8", document=MOON)
        self.assertIn("no scene of that source", told)

    def test_where_scenes_come_from_is_known_through_all(self):
        inner = self.use(MOON, source="9", inner=scene_data(name="Star")).document
        outer = self.use(playing(), inner=inner).document
        self.assertEqual(sources_of(outer), {"7": "Moon", "9": "Moon” which uses “Star"})

    def test_a_scene_that_is_shown_no_more_goes(self):
        two = self.use(self.use(playing()).document).document
        one = apply(two, {"name": "remove-layer", "layer": "n1"})
        self.assertEqual(len(one.document["scenes"]), 1)
        none = apply(one.document, {"name": "remove-layer", "layer": "n2"})
        self.assertEqual(none.document["scenes"], [])
        self.assertEqual(apply(none.document, none.inverse).document, one.document)
        # What is kept without being shown is no reason for a circle.
        self.assertEqual(sources_of({**one.document, "layers": []}), {})

    def test_layers_pasted_elsewhere_bring_their_scene(self):
        used = self.use(playing()).document
        layers = copied_layers(used, ["n1"], same_scene=False)
        edit = {"name": "paste-layers", "layers": layers, "scenes": copied_scenes(used, layers)}
        there = apply(scene_data(), edit).document
        self.assertEqual(there["layers"][-1]["scene"], there["scenes"][0]["id"])
        twice = apply(there, edit).document
        self.assertEqual(len(twice["scenes"]), 1)
        other = self.use(scene_data(), source="8", inner=scene_data(name="Other")).document
        both = apply(other, edit).document
        self.assertEqual([each["source"] for each in both["scenes"]], ["8", "7"])
        self.assertNotEqual(both["layers"][-1]["scene"], both["layers"][-2]["scene"])

    def split(self, document, layer):
        layers = apply(document, {"name": "split-layer", "layer": layer, "at": 30}).document
        return next(each for each in layers["layers"] if each["span"] == [30, 90])

    def test_what_is_split_plays_on(self):
        self.assertEqual(self.split(playing(), "v1")["start"], 2)
        self.assertEqual(self.split(playing(), "a1")["start"], 2)
        self.assertEqual(self.split(self.use(playing(), shift=3).document, "n1")["shift"], 18)

    def test_times_in_files_stay_at_another_rate(self):
        self.done(name="set-rate", value="60")
        video, sound = self.whole["layers"][1:3]
        self.assertEqual((video["speed"], video["span"]), (2, [0, 180]))
        self.assertEqual((sound["start"], sound["gain"]["keys"][1]["at"]), (1, 60))

    def test_keys_of_a_gain_go_with_their_layer(self):
        self.done(name="shift-layer", layer="a1", by=10)
        self.assertEqual(self.whole["layers"][2]["gain"]["keys"][1]["at"], 40)
        self.assertEqual(self.whole["layers"][2]["start"], 1)

    def test_a_document_with_all_of_this_is_read_as_it_is_written(self):
        used = self.use(playing(), shift=3, after="loop").document
        self.assertEqual(files.to_data(files.from_data(used)), used)
