"""Edits of single values, plain or keyed."""

from balletto.scene.edits import apply

from .test_edits import EditTest, document


class ValueTest(EditTest):
    def test_set_value(self):
        title = self.done(name="set-value", path="t1.moves.m1.stagger.gap", value=3)
        self.assertEqual(title["moves"][0]["stagger"]["gap"], 3)
        self.assertEqual(self.label, "Gap of “Rise”: 2 to 3")

    def test_set_value_with_its_first_key(self):
        path = "t1.transform.position"
        edit = {"name": "set-value", "path": f"{path}.0", "value": 400, "at": 9, "keyed": path}
        title = self.done(**edit)
        key = {"at": 9, "value": [400, 540, 0]}
        self.assertEqual(title["transform"]["position"], {"keys": [key]})
        more = apply(self.whole, {**edit, "value": 500, "at": 20}).document["layers"][0]
        self.assertEqual([k["at"] for k in more["transform"]["position"]["keys"]], [9, 20])

    def test_a_layer_is_shifted_with_its_whole_way(self):
        edit = {"name": "shift-place", "layer": "t1", "by": [10, -20, 0]}
        self.assertEqual(self.done(**edit)["transform"]["position"], [970, 520, 0])
        self.assertEqual(self.label, "“Title” moved by 10 px across, -20 px down")
        keys = [{"at": 0, "value": [1, 2, 3], "out": [5, 5]}, {"at": 9, "value": [4, 5, 6]}]
        path = "t1.transform.position"
        keyed = {"name": "set-value", "path": path, "value": {"keys": keys}}
        moved = apply(apply(document(), keyed).document, edit).document["layers"][0]
        values = [key["value"] for key in moved["transform"]["position"]["keys"]]
        self.assertEqual(values, [[11, -18, 3], [14, -15, 6]])
        self.assertEqual(moved["transform"]["position"]["keys"][0]["out"], [5, 5])

    def test_set_value_in_a_vector(self):
        title = self.done(name="set-value", path="t1.transform.position.0", value=400)
        self.assertEqual(title["transform"]["position"], [400, 540, 0])

    def test_a_number_of_a_vector_that_is_tied_follows_no_more(self):
        data = document()
        other = {**data["layers"][0], "id": "t2", "moves": []}
        data["layers"].append(other)
        tie = {"tie": {"to": "t2.transform.position"}}
        data["layers"][0]["transform"] = {"position": tie}
        other["transform"] = {"position": [100, 200, 5]}
        edit = {"name": "set-value", "path": "t1.transform.position.0", "value": 7}
        moved = apply(data, edit).document["layers"][0]
        self.assertEqual(moved["transform"]["position"], [7, 200, 5])

    def test_set_value_makes_what_was_left_out(self):
        title = self.done(name="set-value", path="t1.moves.m1.pose.scale", value=0.5)
        self.assertEqual(title["moves"][0]["pose"]["scale"], 0.5)

    def test_set_value_in_a_vector_that_was_left_out(self):
        before = document()
        del before["layers"][0]["transform"]
        edit = {"name": "set-value", "path": "t1.transform.scale.1", "value": 2}
        applied = apply(before, edit)
        self.assertEqual(applied.document["layers"][0]["transform"], {"scale": [1, 2]})
        self.assertEqual(apply(applied.document, applied.inverse).document, before)

    def test_set_value_of_a_keyed_value(self):
        path = "t1.moves.m1.reach.0.travel"
        travel = self.done(name="set-value", path=path, value=20, at=10)["moves"][0]["reach"][0]
        self.assertEqual(travel["travel"]["keys"][1], {"at": 10, "value": 20})
        self.assertIn("keyed", self.refused(name="set-value", path=path, value=20))

    def test_set_scene_value(self):
        self.done(name="set-value", path="scene.background", value={"kind": "none"})
        self.assertEqual(self.whole["background"], {"kind": "none"})

    def test_set_value_is_checked(self):
        message = self.refused(name="set-value", path="t1.style.size", value="big")
        self.assertEqual(message, 'layers[0].style.size: a size in pixels is needed, got "big"')
        self.assertIn("no layer 't9'", self.refused(name="set-value", path="t9.text", value=""))
        self.assertIn("no move", self.refused(name="set-value", path="t1.moves.m7.on", value=1))

    def test_clear_value_with_what_means_nothing_without_it(self):
        path = "t1.moves.m1"
        made = apply(document(), {"name": "set-value", "path": f"{path}.pivot_of", "value": "word"})
        made = apply(made.document, {"name": "set-value", "path": f"{path}.pivot", "value": [0, 1]})
        edit = {"name": "clear-value", "path": f"{path}.pivot", "also": [f"{path}.pivot_of"]}
        self.assertEqual(apply(made.document, edit).document, document())

    def test_clear_value(self):
        title = self.done(name="clear-value", path="t1.moves.m1.pose.y")
        self.assertEqual(title["moves"][0]["pose"], {"opacity": 0})

    def test_keys(self):
        path = "t1.moves.m1.reach.0.high"
        title = self.done(name="add-key", path=path, at=12, value=80)
        keyed = title["moves"][0]["reach"][0]["high"]
        self.assertEqual(keyed, {"keys": [{"at": 12, "value": 80}]})

    def test_add_key_takes_the_value_that_holds(self):
        path = "t1.moves.m1.reach.0.travel"
        keys = self.done(name="add-key", path=path, at=15)["moves"][0]["reach"][0]["travel"]["keys"]
        self.assertEqual([key["value"] for key in keys], [-100, 0, 100])

    def test_a_key_is_set_and_taken_away_by_the_same(self):
        path = "t1.moves.m1.reach.0.travel"
        with_key = apply(document(), {"name": "toggle-key", "path": path, "at": 15})
        self.assertEqual(with_key.label, "Keyframe at 15 for Travel of the sweep of “Rise”")
        without = apply(with_key.document, {"name": "toggle-key", "path": path, "at": 15})
        self.assertEqual(without.label, "Keyframe at 15 removed from Travel of the sweep of “Rise”")
        self.assertEqual(without.document, document())

    def test_a_value_that_was_left_out_is_keyed_as_it_is(self):
        title = self.done(name="toggle-key", path="t1.moves.m1.reach.0.strength", at=7)
        keys = title["moves"][0]["reach"][0]["strength"]["keys"]
        self.assertEqual(keys, [{"at": 7, "value": 100}])

    def test_what_cannot_be_keyed_says_why(self):
        told = self.refused(name="add-key", path="t1.style.size", at=0)
        self.assertIn("size: this value holds for the whole time, so it takes no keyframes", told)
        self.assertIn("“Title”", told)
        told = self.refused(name="add-key", path="t1.moves.m1.pose.blur", at=0)
        self.assertIn("there is no blur here yet to make a keyframe of: add it first", told)

    def test_hold_to_repeats_the_last_value(self):
        path = "t1.moves.m1.reach.0.travel"
        keys = self.done(name="hold-to", path=path, at=15)["moves"][0]["reach"][0]["travel"]["keys"]
        self.assertEqual(
            [(key["at"], key["value"]) for key in keys], [(0, -100), (15, -100), (30, 100)]
        )
        self.assertEqual(self.label, "Travel of the sweep of “Rise” held to 15")
        first = self.done(name="hold-to", path="t1.transform.opacity", at=4)
        self.assertEqual(first["transform"]["opacity"], {"keys": [{"at": 4, "value": 1}]})

    def test_keying_keys_what_stays_the_same(self):
        path = "t1.moves.m1.reach.0.travel"
        same = {"name": "set-value", "path": path, "value": 100, "at": 44, "keyed": path}
        keys = self.done(**same)["moves"][0]["reach"][0]["travel"]["keys"]
        self.assertEqual(keys[-1], {"at": 44, "value": 100})
        opacity = "t1.transform.opacity"
        once = self.done(name="set-value", path=opacity, value=1, at=3, keyed=opacity)
        self.assertEqual(once["transform"]["opacity"], {"keys": [{"at": 3, "value": 1}]})

    def test_a_course_takes_the_place_of_a_value_or_of_one_number_of_it(self):
        keys = [{"at": 0, "value": 0, "ease": "soft-both"}, {"at": 10, "value": 1}]
        title = self.done(name="set-course", path="t1.transform.opacity", keys=keys)
        self.assertEqual(title["transform"]["opacity"], {"keys": keys})
        place = "t1.transform.position"
        across = [{"at": 0, "value": -300}, {"at": 20, "value": 960}]
        title = self.done(name="set-course", path=f"{place}.0", keys=across)
        stood = document()["layers"][0]["transform"]["position"]
        self.assertEqual(
            title["transform"]["position"]["keys"],
            [{"at": 0, "value": [-300, *stood[1:]]}, {"at": 20, "value": [960, *stood[1:]]}],
        )

    def test_another_size_fits_what_stands_in_the_picture(self):
        data = document()
        title = data["layers"][0]
        title["transform"]["position"] = {"keys": [{"at": 0, "value": [0, 0, 10], "out": [8, 4]}]}
        title["masks"] = [{"kind": "ellipse", "fixed": True, "center": [960, 0], "feather": 8}]
        title["effects"] = [{"kind": "blur"}, {"kind": "glow", "radius": 20}]
        spot = {"kind": "spot", "shape": "round", "center": [1920, 540], "outer": 400}
        title["moves"][0]["reach"] = [spot]
        half = apply(data, {"name": "set-size", "size": [960, 1080]})
        made = half.document["layers"][0]
        self.assertEqual(half.document["camera"]["distance"], 1000)
        key = made["transform"]["position"]["keys"][0]
        self.assertEqual((key["value"], key["out"]), ([0, 270, 5], [4, 2]))
        self.assertEqual(made["transform"]["scale"], [0.5, 0.5])
        self.assertEqual(made["masks"][0]["center"], [480, 270])
        self.assertEqual(made["effects"][1]["radius"], 10)
        self.assertEqual(made["moves"][0]["reach"][0], {**spot, "center": [960, 540], "outer": 200})
        self.assertEqual(apply(half.document, half.inverse).document, data)
        stay = apply(data, {"name": "set-size", "size": [960, 1080], "fit": "stay"}).document
        self.assertEqual(
            stay["layers"][0]["transform"]["position"]["keys"][0]["value"][:2], [-480, 0]
        )
        self.assertEqual(stay["layers"][0]["transform"]["scale"], [1, 1])

    def test_remove_key(self):
        path = "t1.moves.m1.reach.0.travel"
        title = self.done(name="remove-key", path=path, at=0)
        self.assertEqual(title["moves"][0]["reach"][0]["travel"]["keys"][0]["at"], 30)
        once = apply(document(), {"name": "remove-key", "path": path, "at": 0}).document
        twice = apply(once, {"name": "remove-key", "path": path, "at": 30}).document
        self.assertEqual(twice["layers"][0]["moves"][0]["reach"][0]["travel"], 100)
        self.assertIn("frame 7", self.refused(name="remove-key", path=path, at=7))

    def test_a_key_where_an_ease_overshoots_keeps_its_limits(self):
        """Of a size whose height swings below nothing, and of a share that goes beyond all."""
        data = document()
        swing = {
            "keys": [{"at": 0, "value": [100, 0], "ease": "wind-up"}, {"at": 20, "value": [0, 90]}]
        }
        data["layers"][0]["masks"] = [{"kind": "ellipse", "size": swing}]
        self.source = lambda: data
        path = "t1.masks.0.size"
        keys = self.done(name="set-value", path=f"{path}.0", value=50, at=4)["masks"][0]["size"][
            "keys"
        ]
        self.assertEqual(keys[1], {"at": 4, "value": [50, 0], "ease": "wind-up"})
        for ease, at in (("overshoot", 15), ("linear", 40)):
            keys = [{"at": 0, "value": 0.2, "ease": ease}, {"at": 20, "value": 1}]
            data["layers"][0]["transform"]["opacity"] = {"keys": keys, "after": "continue"}
            made = self.done(name="add-key", path="t1.transform.opacity", at=at)
            key = next(key for key in made["transform"]["opacity"]["keys"] if key["at"] == at)
            self.assertEqual(key["value"], 1)
