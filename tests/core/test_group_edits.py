"""Edits of groups and of what layers wear: done, refused, and taken back."""

import numpy as np

from balletto.picture.frame import Picture, draw_frame
from balletto.scene import files
from balletto.scene.edits import apply

from .scenes import scene_data
from .test_edits import EditTest
from .test_pictures import shape, title

BAR = {"kind": "rectangle", "size": [20, 60]}


def grouped():
    """A title, a star and a bar cut by the title, of which the first two are in a group."""
    group = {"id": "g1", "kind": "group", "name": "Moons", "span": [0, 90]}
    star = shape(shape={"kind": "star"}, group="g1")
    bar = shape(id="s2", shape=BAR, matte={"layer": "t1"})
    return scene_data(layers=[title(group="g1"), star, group, bar], size=[160, 90])


def ids(data):
    return [layer["id"] for layer in data["layers"]]


class GroupEditTest(EditTest):
    source = staticmethod(grouped)

    def test_layers_are_grouped_and_taken_apart(self):
        self.done(name="ungroup-layers", layer="g1")
        apart = self.whole
        self.assertEqual(ids(apart), ["t1", "s1", "s2"])
        self.assertNotIn("group", apart["layers"][0])
        again = apply(apart, {"name": "group-layers", "layers": ["t1", "s1"], "pivot": [80, 45]})
        self.assertEqual(ids(again.document), ["t1", "s1", "g1", "s2"])
        self.assertEqual(
            [x.get("group") for x in again.document["layers"]], ["g1", "g1", None, None]
        )
        self.assertEqual(again.label, "2 layers grouped")
        pictures = [
            draw_frame(Picture(files.from_data(data)), 5)
            for data in (grouped(), apart, again.document)
        ]
        for made in pictures[1:]:
            np.testing.assert_array_equal(made, pictures[0])

    def test_a_group_in_a_group(self):
        self.done(name="group-layers", layers=["t1"])
        inner = next(layer for layer in self.whole["layers"] if layer["id"] == "g2")
        self.assertEqual(inner["group"], "g1")
        out = apply(self.whole, {"name": "ungroup-layers", "layer": "g2"}).document
        self.assertEqual(out["layers"][0]["group"], "g1")

    def test_layers_of_different_groups_are_refused(self):
        told = self.refused(name="group-layers", layers=["t1", "s2"])
        self.assertIn("layers of different groups", told)
        self.assertIn("is no group", self.refused(name="ungroup-layers", layer="t1"))

    def test_a_group_goes_with_all_in_it_and_mattes_with_their_layer(self):
        self.done(name="remove-layer", layer="g1")
        self.assertEqual(ids(self.whole), ["s2"])
        self.assertNotIn("matte", self.whole["layers"][0])

    def test_a_copy_of_a_group_has_copies_in_it(self):
        self.done(name="duplicate-layer", layer="g1")
        self.assertEqual(ids(self.whole), ["t1", "s1", "g1", "t2", "s3", "g2", "s2"])
        copies = self.whole["layers"][3:6]
        self.assertEqual([copy.get("group") for copy in copies], ["g2", "g2", None])
        self.assertEqual(copies[2]["name"], "Moons 2")

    def test_a_group_is_split_and_shifted_with_all_in_it(self):
        self.done(name="split-layer", layer="g1", at=30)
        spans = {layer["id"]: layer["span"] for layer in self.whole["layers"]}
        self.assertEqual((spans["g1"], spans["g2"]), ([0, 30], [30, 90]))
        self.done(name="shift-layer", layer="g1", by=10)
        spans = {layer["id"]: layer["span"] for layer in self.whole["layers"]}
        self.assertEqual(
            [spans[name] for name in ("g1", "t1", "s1", "s2")], [[10, 100]] * 3 + [[0, 90]]
        )

    def test_layers_pasted_elsewhere_leave_behind_what_they_need(self):
        from balletto.scene.edits.structure.copies import copied_layers

        copied = copied_layers(grouped(), ["g1"], same_scene=False)
        self.assertEqual([layer["id"] for layer in copied], ["t1", "s1", "g1"])
        alone = copied_layers(grouped(), ["s2", "s1"], same_scene=False)
        self.assertTrue(all("group" not in layer and "matte" not in layer for layer in alone))
        pasted = apply(grouped(), {"name": "paste-layers", "layers": copied}).document
        self.assertEqual(ids(pasted)[4:], ["t2", "s3", "g2"])
        self.assertEqual(pasted["layers"][4]["group"], "g2")


class DressEditTest(EditTest):
    source = staticmethod(grouped)

    def test_effects_are_added_ordered_and_removed(self):
        for kind in ("blur", "glow"):
            self.done(name="add-effect", layer="t1", effect={"kind": kind})
            self.assertEqual(self.label, f"{kind.capitalize()} added to “Orb”")
        both = apply(self.whole, {"name": "add-effect", "layer": "t1", "effect": {"kind": "blur"}})
        moved = apply(both.document, {"name": "move-effect", "layer": "t1", "index": 1, "to": 0})
        kinds = [effect["kind"] for effect in moved.document["layers"][0]["effects"]]
        self.assertEqual(kinds, ["blur", "glow"])
        self.assertEqual(moved.label, "Blur of “Orb” earlier")
        left = apply(both.document, {"name": "remove-effect", "layer": "t1", "index": 0})
        self.assertEqual(left.document["layers"][0]["effects"], [{"kind": "blur"}])
        none = apply(left.document, {"name": "remove-effect", "layer": "t1", "index": 0})
        self.assertNotIn("effects", none.document["layers"][0])
        told = self.refused(name="add-effect", layer="t1", effect={"kind": "sparkle"})
        self.assertIn("effects[0]", told)

    def test_masks_are_added_and_removed(self):
        mask = {"kind": "ellipse", "size": [90, 40]}
        self.done(name="add-mask", layer="s1", mask=mask)
        self.assertEqual(self.whole["layers"][1]["masks"], [mask])
        self.assertEqual(self.label, "Ellipse mask added to “s1”")
        left = apply(self.whole, {"name": "remove-mask", "layer": "s1", "index": 0})
        self.assertNotIn("masks", left.document["layers"][1])

    def test_values_of_effects_are_set_and_keyed_like_any_other(self):
        self.done(name="add-effect", layer="t1", effect={"kind": "blur"})
        at = {"path": "t1.effects.0.x", "at": 10}
        first = apply(self.whole, {"name": "set-value", "value": 4, "keyed": at["path"], **at})
        keys = first.document["layers"][0]["effects"][0]["x"]["keys"]
        self.assertEqual([(key["at"], key["value"]) for key in keys], [(10, 4)])
        later = apply(first.document, {"name": "shift-layer", "layer": "t1", "by": 5}).document
        self.assertEqual(later["layers"][0]["effects"][0]["x"]["keys"][0]["at"], 15)
        twice = apply(first.document, {"name": "set-rate", "value": "60"}).document
        self.assertEqual(twice["layers"][0]["effects"][0]["x"]["keys"][0]["at"], 20)

    def test_another_rate_leaves_angles_and_lengths_alone(self):
        """What counts no frames keeps its number, whatever it is called."""
        arc = {"kind": "arc", "angle": 30, "sweep": 90}
        stroke = {"width": 4, "from": 10, "to": 60, "travel": 5}
        trail = {"kind": "trail", "gap": 0.5}
        layer = shape(shape=arc, stroke=stroke, effects=[trail])
        twice = apply(scene_data(layers=[layer]), {"name": "set-rate", "value": "60"}).document
        made = twice["layers"][0]
        self.assertEqual((made["shape"], made["stroke"]), (arc, stroke))
        self.assertEqual(made["effects"][0]["gap"], 1)
