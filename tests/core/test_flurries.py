"""Many small things thrown: the worked numbers, their laws, and what is drawn."""

from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from balletto.motion.poses import poses
from balletto.motion.spaces.flurries import births_of, looks_of, pieces_at
from balletto.picture.frame import Picture, draw_frame
from balletto.picture.overlays.flurry_handles import flurry_handles
from balletto.scene import files
from balletto.scene.edits import apply
from balletto.scene.edits.structure.copies import copied_layers
from balletto.scene.errors import SceneError
from balletto.scene.forms.flurry import Flurry
from balletto.scene.forms.flurry_starts import STARTS, THINGS
from balletto.scene.starts import new_flurry, new_scene
from balletto.sentences.layers.flurries import flurry_text
from balletto.sentences.reader import read

from .random_scenes import RULES, RandomScenes
from .scenes import GOLDEN, scene_data

EMPTY = new_scene("", (1920, 1080), "30", 90)
DOT = {"shape": {"kind": "ellipse", "size": [12, 12]}, "fill": "#FF0000"}


def scene_of(*flurries, **more):
    layers = [
        {"kind": "flurry", "id": f"f{n}", "name": "", "span": [0, 90],
         "flurry": {"source": [DOT], **flurry}, "transform": {"position": [160, 90, 0]}}
        for n, flurry in enumerate(flurries)
    ]  # fmt: skip
    black = {"kind": "color", "color": "#000000"}
    whole = {"size": [320, 180], "length": 90, "background": black, "layers": layers}
    return files.from_data(scene_data(**{**whole, **more}))


def drawn(scene, frame):
    return draw_frame(Picture(scene), frame)[..., 2].astype(int)


class NumbersTest(TestCase):
    def test_worked_numbers(self):
        for entry in GOLDEN["15_flurries"]:
            scene = scene_of(entry["flurry"], length=entry["length"], rate=entry["rate"])
            flurry, expected = scene.layers[0].flurry, entry["expect"]
            times = np.array(entry["at"], dtype=float)
            got = pieces_at(scene, flurry, len(flurry.source), times)
            for name in ("born", "x", "y", "rotation", "size", "opacity"):
                with self.subTest(entry["flurry"], name=name):
                    np.testing.assert_allclose(getattr(got, name), expected[name], atol=1e-6)
            self.assertEqual([got.source.tolist()] * len(times), expected["source"])
            none = [None] * flurry.count
            colors = none if got.color is None else got.color.tolist()
            self.assertEqual([colors] * len(times), expected["color"])

    def test_the_command_tells_them(self):
        scene = scene_of(GOLDEN["15_flurries"][0]["flurry"])
        told = poses(scene, "f0", [0, 7])["pieces"]
        self.assertEqual(told["born"], [5.0] * 12)
        self.assertAlmostEqual(told["x"][1][0], 23.526739151, places=6)
        self.assertEqual(told["opacity"][0], [0.0] * 12)


class LawTest(TestCase):
    @settings(max_examples=25)
    @given(st.integers(0, 10_000), st.floats(0, 89))
    def test_a_frame_alone_is_the_frame_in_a_range(self, seed, frame):
        flurry = {**STARTS["confetti"]["flurry"], "seed": seed, "count": 20}
        scene = scene_of(flurry)
        times = np.array([0.0, 30.0, frame, 89.0])
        together = pieces_at(scene, scene.layers[0].flurry, 1, times)
        alone = pieces_at(scene, scene.layers[0].flurry, 1, times[2:3])
        for name in ("x", "y", "rotation", "size", "opacity"):
            np.testing.assert_array_equal(getattr(together, name)[2], getattr(alone, name)[0])

    def test_a_loop_leads_into_itself(self):
        for name in ("snowfall", "rising letters"):
            layer = new_flurry(EMPTY, {"start": name})
            scene = files.from_data({**EMPTY, "layers": [{**layer, "id": "f"}]})
            flurry = scene.layers[0].flurry
            got = pieces_at(scene, flurry, 1, np.array([0.0, 1, 89, 90]))
            for values in (got.x, got.y, got.opacity, got.size):
                np.testing.assert_allclose(values[0], values[3], atol=1e-9)
            # Nobody turns up or goes away at once, and those who stay fly on.
            self.assertLess(np.abs(np.diff(got.opacity * got.size, axis=0)).max(), 0.25)

    def test_births_follow_their_curve(self):
        flurry = scene_of({"count": 5, "births": {"from": 10, "over": 40}}).layers[0].flurry
        np.testing.assert_allclose(births_of(flurry), [10, 20, 30, 40, 50])

    def test_a_flight_with_hardly_any_drag_is_one_without(self):
        one, other = (
            pieces_at(scene, scene.layers[0].flurry, 1, np.array([40.0]))
            for scene in (
                scene_of({"speed": 300, "gravity": 200, "drag": drag, "life": 80})
                for drag in (0, 1e-6)
            )
        )
        np.testing.assert_allclose(one.y, other.y, atol=1e-2)

    def test_what_is_said_is_what_is_read(self):
        for start in STARTS:
            layer = new_flurry(EMPTY, {"start": start})
            flurry = Flurry.model_validate(layer["flurry"], strict=False)
            with self.subTest(flurry_text(flurry)):
                said = read(flurry_text(flurry)).data["flurry"]
                again = new_flurry(EMPTY, {"start": start, **said})["flurry"]
                self.assertEqual(Flurry.model_validate(again, strict=False), flurry)

    def test_the_same_of_any_flurry(self):
        rules = RULES["Flurry"]
        tried = 0
        for seed in range(200):
            made = RandomScenes(seed)
            data = {**made.part(rules), "source": THINGS[made.random.choice(list(THINGS))]}
            data |= {"size": 1, "opacity": 1}
            try:
                flurry = Flurry.model_validate(data, strict=False)
            except ValueError:
                continue
            tried += 1
            with self.subTest(seed, text=flurry_text(flurry)):
                said = read(flurry_text(flurry)).data["flurry"]
                said["source"] = THINGS[said.pop("things")]
                self.assertEqual(Flurry.model_validate(said, strict=False), flurry)
            if tried == 40:
                break
        self.assertEqual(tried, 40)


class HandlesTest(TestCase):
    """What hands take hold of, by where it is seen."""

    def handles(self, **flurry):
        scene = scene_of(flurry)
        return flurry_handles(scene, scene.layers[0], 0)

    def test_the_fan_is_what_is_said(self):
        told = self.handles(direction=90, spread=40, speed=800, place={"kind": "point"})
        grips = {grip["name"]: grip for grip in told["grips"]}
        np.testing.assert_allclose(grips["direction"]["at"], [200, 0], atol=1e-6)
        np.testing.assert_allclose(np.hypot(*grips["speed"]["at"]), 200)
        self.assertEqual(grips["spread"]["value"] * grips["spread"]["factor"], 40)
        self.assertTrue(all(len(way) > 1 for way in told["ways"]))

    def test_places_have_grips_of_their_own(self):
        for place, at in (
            ({"kind": "line", "length": 400, "angle": 90}, [0, 200]),
            ({"kind": "box", "width": 300, "height": 100}, [150, 0]),
            ({"kind": "ring", "radius": 80}, [80, 0]),
        ):
            found = [g for g in self.handles(place=place)["grips"] if g["name"].startswith("place")]
            np.testing.assert_allclose(found[0]["at"], at, atol=1e-6)

    def test_ways_go_where_pieces_fly(self):
        told = self.handles(direction=90, spread=0, speed=600, gravity=0, place={"kind": "point"},
                            speed_chance=0, drag=0, wind=0)  # fmt: skip
        for way in told["ways"]:
            self.assertGreater(way[-1][0], way[0][0])
            self.assertAlmostEqual(way[-1][1], way[0][1], delta=0.1)


class LayersThrownTest(TestCase):
    """Layers of the scene as what is thrown."""

    def scene(self, **shape):
        thrown = {
            "kind": "shape", "id": "s1", "span": [0, 90], "on": False, "fill": "#FF0000",
            "shape": {"kind": "ellipse", "size": [12, 12]}, "stroke": None, **shape,
        }  # fmt: skip
        flurry = {"kind": "flurry", "id": "f1", "span": [0, 90],
                  "flurry": {"count": 8, "speed": 200, "spread": 360, "source": [{"layer": "s1"}]},
                  "transform": {"position": [160, 90, 0]}}  # fmt: skip
        black = {"kind": "color", "color": "#000000"}
        return scene_data(size=[320, 180], length=90, background=black, layers=[thrown, flurry])

    def test_it_looks_like_the_shape_wherever_that_stands(self):
        place = {"position": [30, 40, 0], "rotation": [0, 0, 30], "scale": [2, 0.5]}
        plain = drawn(scene_of({"count": 8, "speed": 200, "spread": 360}), 20)
        for transform in ({}, place):
            found = drawn(files.from_data(self.scene(transform=transform)), 20)
            self.assertLess(np.abs(found - plain).max(), 12)

    def test_words_and_colours(self):
        data = self.scene()
        data["layers"][0] = {**scene_data("Hi")["layers"][0], "id": "s1", "on": False}
        white = drawn(files.from_data(data), 10)
        self.assertGreater(white.max(), 200)
        data["layers"][1]["flurry"]["colors"] = ["#000000"]
        self.assertEqual(drawn(files.from_data(data), 10).max(), 0)

    def test_what_cannot_be_thrown_is_told(self):
        for thrown, told in (("f1", '"f1" is a flurry, which cannot be thrown'),
                             ("s9", 'there is no layer "s9"')):  # fmt: skip
            data = self.scene()
            data["layers"][1]["flurry"]["source"] = [{"layer": thrown}]
            with self.assertRaisesRegex(SceneError, told):
                files.from_data(data)

    def test_links_follow_copies_and_end_with_the_layer(self):
        data = self.scene()
        gone = apply(data, {"name": "remove-layer", "layer": "s1"}).document
        self.assertEqual(gone["layers"][0]["flurry"]["source"], THINGS["circles"])
        both = copied_layers(data, ["s1", "f1"], same_scene=False)
        pasted = apply(data, {"name": "paste-layers", "layers": both}).document["layers"]
        self.assertEqual(pasted[-1]["flurry"]["source"], [{"layer": pasted[-2]["id"]}])
        alone = copied_layers(data, ["f1"], same_scene=False)
        self.assertEqual(alone[0]["flurry"]["source"], THINGS["circles"])

    def test_it_is_said_and_read(self):
        data = self.scene()
        text = flurry_text(files.from_data(data).layers[1].flurry)
        self.assertIn("8 copies of “s1”", text)
        self.assertEqual(read(text).data["flurry"]["layer"], "s1")
        made = new_flurry(data, {"layer": "s1", "count": 3})
        self.assertEqual(made["flurry"]["source"], [{"layer": "s1"}])
        with self.assertRaisesRegex(SceneError, "there is no layer “Moon”"):
            new_flurry(data, {"layer": "Moon"})

    def test_letters_are_counted_as_they_are_drawn(self):
        scene = scene_of({"source": [{"text": "e\u0301 🚀"}], "count": 30})
        self.assertEqual(looks_of(scene, scene.layers[0].flurry), 2)
        told = poses(scene, "f0", [0])["pieces"]["source"][0]
        self.assertEqual(set(told), {0, 1})


class DrawnTest(TestCase):
    def test_pieces_fly_from_where_they_are_born(self):
        scene = scene_of({"count": 1, "speed": 120, "direction": 90, "life": 60})
        for frame, x in ((0, 160), (15, 220), (30, 280)):
            rows, columns = np.nonzero(drawn(scene, frame) > 128)
            self.assertAlmostEqual(columns.mean(), x, delta=1)
            self.assertAlmostEqual(rows.mean(), 90, delta=1)
        self.assertEqual(drawn(scene, 60).max(), 0)

    def test_a_picture_of_frames_is_the_same_whichever_came_before(self):
        scene = scene_of({**STARTS["burst"]["flurry"], "count": 30})
        picture = Picture(scene)
        for frame in (3, 40, 12):
            np.testing.assert_array_equal(
                draw_frame(picture, frame), draw_frame(Picture(scene), frame)
            )

    def test_letters_and_colours_and_shadows(self):
        text = {"text": "Ab", "style": {"size": 40}}
        shadow = [{"kind": "shadow", "x": 5, "y": 5, "softness": 0, "color": "#00FF00"}]
        scene = scene_of({"source": [text], "spread": 360, "speed": 100, "colors": ["#FF0000"]})
        data = files.to_data(scene)
        data["layers"][0]["effects"] = shadow
        pixels = draw_frame(Picture(files.from_data(data)), 20)
        self.assertGreater(pixels[..., 2].max(), 250)
        self.assertGreater(pixels[..., 1].max(), 100)

    def test_it_turns_and_grows_with_its_layer(self):
        scene = scene_of({"count": 1, "speed": 120, "direction": 90, "life": 60})
        data = files.to_data(scene)
        data["layers"][0]["transform"] |= {"rotation": [0, 0, 90], "scale": [0.5, 0.5]}
        rows, _ = np.nonzero(drawn(files.from_data(data), 30) > 128)
        self.assertAlmostEqual(rows.mean(), 150, delta=1)


class EditsTest(TestCase):
    def test_another_rate_leaves_it_as_it_looks(self):
        data = files.to_data(scene_of({**STARTS["fountain"]["flurry"], "count": 20}))
        before = poses(files.from_data(data), "f0", [30])["pieces"]
        rate = apply(data, {"name": "set-rate", "value": "60"}).document
        after = poses(files.from_data(rate), "f0", [60])["pieces"]
        np.testing.assert_allclose(before["y"], after["y"], atol=1e-6)

    def test_pieces_of_copies_and_trails_are_bounded_together(self):
        data = files.to_data(scene_of({"count": 5000}))
        layer = data["layers"][0]
        for more in (
            {"effects": [{"kind": "trail", "copies": 50}]},
            {"formation": {"kind": "ring", "count": 30}},
        ):
            with self.assertRaises(SceneError) as caught:
                files.from_data({**data, "layers": [{**layer, **more}]})
            self.assertIn("at most 100,000 things", str(caught.exception))

    def test_too_many_and_none_at_all_are_refused(self):
        for wrong in ({"count": 0}, {"count": 9999}, {"source": []}, {"life": 0}, {"place": {}}):
            with self.subTest(wrong), self.assertRaises(SceneError) as caught:
                scene_of(wrong)
            self.assertIn("layers[0].flurry", str(caught.exception))
