"""Text along a path: where letters stand, what moves do along it, and what edits make of it."""

import math
import tracemalloc
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from balletto.lettering.layout import lay_out
from balletto.motion.evaluate import compose
from balletto.motion.spaces.along import text_path
from balletto.motion.spaces.matrices import place
from balletto.motion.warnings import warnings_of
from balletto.picture.bounds import places, rest_box
from balletto.picture.frame import Picture, draw_frame
from balletto.picture.overlays import handles
from balletto.scene import files
from balletto.scene.edits import apply
from balletto.scene.errors import SceneError
from balletto.scene.fits import fitted
from balletto.scene.forms.outlines import commands_of
from balletto.scene.values.bezier_path import BezierPath, path_of
from balletto.sentences.language.completions import complete
from balletto.sentences.layers.places import place_text
from balletto.sentences.reader import context_of, read
from balletto.sentences.scenes.text import scene_as_text

from .scenes import scene_data

RADIUS = 200
LINE = {"kind": "line", "from": [-300, 0], "to": [300, 0]}


def scene_along(shape=None, text="ORBIT", moves=(), along=None, shape_place=None, **title):
    """A title that stands along a circle of 200 px about the middle of a picture of 1280 x 720."""
    data = scene_data(text, size=[1280, 720])
    own = data["layers"][0]
    middle = [640, 360, 0]
    own["style"] = {**own["style"], "size": 60, "align": "center"}
    own |= {"moves": list(moves), "transform": {"position": middle}, **title}
    own["along"] = {"layer": "s1", **(along or {})}
    circle = {"kind": "ellipse", "size": [2 * RADIUS, 2 * RADIUS]}
    data["layers"].insert(0, {
        "id": "s1", "kind": "shape", "name": "Orbit", "span": [0, 90], "shape": shape or circle,
        "transform": {"position": middle, **(shape_place or {})},
    })  # fmt: skip
    return files.from_data(data)


def placed_middles(scene, frame=0.0):
    """Where the middles of the letters' boxes, and a px to the right of each, are seen."""
    title = scene.layer("t1")
    layout = lay_out(scene, title)
    times = np.array([frame])
    matrices = place(scene, title, layout, compose(scene, title, layout, times), times).matrices[0]
    middles = layout.centers["character"]

    def seen(points):
        full = np.column_stack([points, np.ones(len(points))])
        found = np.einsum("nij,nj->ni", matrices, full)
        return found[:, :2] / found[:, 2:]

    return seen(middles), seen(middles + np.array([1, 0])) - seen(middles), layout


class PathTest(TestCase):
    def test_a_circle_is_as_long_as_it_is_and_comes_round(self):
        scene = scene_along()
        path = text_path(scene, scene.layer("t1"), lay_out(scene, scene.layer("t1"))).at(0)
        self.assertAlmostEqual(path.length / (2 * math.pi * RADIUS), 1, 3)
        self.assertTrue(path.is_closed)
        quarter = path.at(np.array([0.0, path.length / 4, path.length * 1.25, -path.length / 4]))
        np.testing.assert_allclose(quarter, [[0, -200], [200, 0], [200, 0], [-200, 0]], atol=0.01)

    def test_an_open_path_goes_straight_on_past_its_ends(self):
        path = path_of(commands_of("M0 0 Q50 0 100 100"), (1.0, 1.0), (0.0, 0.0))
        before, directions = path.at_with_directions(np.array([-10.0]))
        np.testing.assert_allclose(before, [[-10, 0]], atol=1e-6)
        np.testing.assert_allclose(directions, [[1, 0]], atol=1e-6)
        beyond, way = path.at_with_directions(np.array([path.length + 10]))
        np.testing.assert_allclose(beyond, [np.array([100, 100]) + 10 * way[0]], atol=1e-6)

    def test_the_longest_contour_counts(self):
        path = path_of(commands_of("M0 0H10M0 50H100V60"), (1.0, 1.0), (0.0, 0.0))
        self.assertAlmostEqual(path.length, 110)

    def test_drawings_of_very_many_parts_take_little_memory(self):
        """As many as the longest path data of SVG can say."""
        points = "".join(f"l{n % 3} {(n * 7) % 3 - 1}" for n in range(40_000))
        for drawing in (f"M0 0{points}", "".join(f"M{n} 0h1" for n in range(20_000))):
            commands = commands_of(drawing[:200_000].rpartition("l" if "l" in drawing else "M")[0])
            tracemalloc.start()
            path = path_of(commands, (1.0, 1.0), (0.0, 0.0))
            path.at_with_directions(np.linspace(0, path.length, 200))
            _, most = tracemalloc.get_traced_memory()
            tracemalloc.stop()
            self.assertLess(most, 200 * 2**20)
            self.assertTrue(np.isfinite(path.box).all())

    def test_what_has_no_length_is_a_point(self):
        path = path_of(commands_of("M5 5L5 5"), (1.0, 1.0), (0.0, 0.0))
        self.assertEqual(path.length, 0)
        np.testing.assert_allclose(path.at(np.zeros(2)), [[5, 5], [5, 5]])
        self.assertTrue(np.isfinite(path.at_with_directions(np.array([3.0]))[0]).all())

    @settings(max_examples=60, deadline=None)
    @given(
        points=st.lists(st.integers(-500, 500), min_size=8, max_size=8),
        shares=st.lists(st.floats(0, 1), min_size=2, max_size=6),
    )
    def test_lengths_along_a_curve_are_lengths(self, points, shares):
        """Between any two places the way measured in small steps is the difference of lengths."""
        path = BezierPath(np.array(points, dtype=float).reshape(1, 4, 2))
        start, end = min(shares) * path.length, max(shares) * path.length
        steps = path.at(np.linspace(start, end, 2000))
        measured = np.hypot(*np.diff(steps, axis=0).T).sum()
        self.assertAlmostEqual(measured, end - start, delta=0.002 * path.length + 1e-6)


class StandingTest(TestCase):
    def test_letters_stand_on_a_circle_turned_with_it(self):
        middles, rights, layout = placed_middles(scene_along())
        off = layout.baseline - layout.centers["character"][:, 1]
        angles = layout.centers["character"][:, 0] / RADIUS  # from the top, clockwise
        wanted = np.stack([np.sin(angles), -np.cos(angles)], axis=1) * (RADIUS + off)[:, None]
        np.testing.assert_allclose(middles - (640, 360), wanted, atol=0.1)
        np.testing.assert_allclose(
            rights, np.stack([np.cos(angles), np.sin(angles)], axis=1), atol=2e-3
        )

    def test_offset_rise_reverse_and_upright(self):
        at_right, _, _ = placed_middles(scene_along(text="O", along={"offset": 25}))
        self.assertGreater(at_right[0, 0], 640 + RADIUS)
        self.assertAlmostEqual(at_right[0, 1], 360, 0)
        raised, _, _ = placed_middles(scene_along(text="O", along={"offset": 25, "rise": 30}))
        np.testing.assert_allclose(raised - at_right, [[30, 0]], atol=0.01)
        inside, rights, _ = placed_middles(scene_along(text="O", along={"reverse": True}))
        self.assertGreater(inside[0, 1], 360 - RADIUS)
        np.testing.assert_allclose(rights, [[-1, 0]], atol=1e-3)
        _, rights, _ = placed_middles(scene_along(along={"upright": True, "offset": 40}))
        np.testing.assert_allclose(rights, np.tile([1.0, 0.0], (5, 1)), atol=1e-9)

    def test_along_a_line_letters_stand_as_they_are_set(self):
        straight, _, _ = placed_middles(files.from_data(self._straight()))
        along, _, layout = placed_middles(
            scene_along(shape=LINE, along={"offset": 50})
        )  # fmt: skip
        np.testing.assert_allclose(along, straight - (0, layout.baseline), atol=1e-6)

    def _straight(self):
        data = scene_along().model_dump(by_alias=True, mode="json", exclude_unset=True)
        del data["layers"][1]["along"]
        return data

    def test_the_size_of_the_shape_is_that_of_the_path_not_of_the_letters(self):
        middles, rights, _ = placed_middles(
            scene_along(text="O", along={"offset": 25}, shape_place={"scale": [2, 0.5]})
        )
        self.assertGreater(middles[0, 0], 640 + 2 * RADIUS)
        self.assertAlmostEqual(float(np.hypot(*rights[0])), 1, 6)

    def test_the_scale_of_the_title_is_that_of_its_letters_not_of_the_path(self):
        place = {"position": [640, 360, 0], "scale": [2, 2]}
        middles, rights, layout = placed_middles(
            scene_along(text="O", along={"offset": 25}, transform=place)
        )
        self.assertAlmostEqual(float(np.hypot(*rights[0])), 2, 6)
        off = 2 * (layout.baseline - layout.centers["character"][0, 1])
        np.testing.assert_allclose(middles, [[640 + RADIUS + off, 360]], atol=0.1)

    def test_in_a_picture_of_another_size_it_looks_the_same(self):
        scene = scene_along(along={"offset": 10, "rise": 12})
        data = scene.model_dump(by_alias=True, mode="json", exclude_unset=True)
        data = apply(data, {"name": "stand-along", "layer": "t1", "value": "s1"}).document
        half = apply(data, {"name": "set-size", "size": [640, 360], "fit": "whole"}).document
        before, after = (placed_middles(files.from_data(each))[0] for each in (data, half))
        np.testing.assert_allclose(after, before / 2, atol=0.01)

    def test_where_a_shape_has_a_place_of_its_own_the_title_goes_with_it(self):
        fit = {"shape": "1:1", "by": "placed", "places": [
            {"layer": "s1", "shift": [0, 100], "scale": 0.5}]}  # fmt: skip
        scene = scene_along(text="O", along={"offset": 25})
        data = scene.model_dump(by_alias=True, mode="json", exclude_unset=True)
        data = apply(data, {"name": "stand-along", "layer": "t1", "value": "s1"}).document
        scene = fitted(files.from_data({**data, "fits": [fit]}), (720, 720))
        middles, rights, _ = placed_middles(scene)
        middle_of_shape = np.array([360, 360 + 100])
        self.assertAlmostEqual(float(np.hypot(*rights[0])), 0.5, 6)
        away = middles[0] - middle_of_shape
        self.assertLess(abs(np.hypot(*away) - RADIUS / 2), 30)

    def test_letters_that_become_others_stand_where_those_do(self):
        turn = {**move(), "becomes": {"text": "WIDER WORDS"}}
        scene = scene_along(text="NARROW", moves=[turn])
        whole = scene_along(text="WIDER WORDS")
        there, wanted = (draw_frame(Picture(each), 0.0) for each in (scene, whole))
        self.assertLess(np.abs(there.astype(int) - wanted).mean(), 0.8)

    def test_an_offset_with_keys_leads_round_and_a_growing_shape_leads_out(self):
        keys = {"keys": [{"at": 0, "value": 0}, {"at": 40, "value": 100}]}
        scene = scene_along(text="O", along={"offset": keys})
        there = [placed_middles(scene, frame)[0][0] for frame in (0.0, 10.0, 40.0)]
        np.testing.assert_allclose(there[0], there[2], atol=1e-6)
        self.assertGreater(there[1][0], 640 + RADIUS)
        grown = {
            "kind": "ellipse",
            "size": {"keys": [{"at": 0, "value": [400, 400]}, {"at": 10, "value": [600, 600]}]},
        }
        scene = scene_along(text="O", shape=grown)
        early, late = (placed_middles(scene, frame)[0][0] for frame in (0.0, 10.0))
        np.testing.assert_allclose(early - late, [0, 100], atol=0.01)

    def test_the_place_is_that_of_the_title(self):
        """Which is tied to the shape where it was put there by an edit."""
        scene = scene_along()
        data = scene.model_dump(by_alias=True, mode="json", exclude_unset=True)
        done = apply(data, {"name": "stand-along", "layer": "t1", "value": "s1"}).document
        done["layers"][0]["transform"] |= {"position": [300, 300, 0], "rotation": [0, 0, 90]}
        middles, rights, _ = placed_middles(files.from_data(done))
        self.assertGreater(middles[2, 0], 300 + RADIUS)
        np.testing.assert_allclose(rights[2], [0, 1], atol=0.1)


def move(**pose):
    unit = pose.pop("unit", "character")
    return {"id": "m1", "unit": unit, "start": 0, "pose": pose, "amount": 1}


class MovesTest(TestCase):
    def moved(self, **pose):
        rest, _, layout = placed_middles(scene_along())
        moved, rights, _ = placed_middles(scene_along(moves=[move(**pose)]))
        return rest - (640, 360), moved - (640, 360), rights, layout

    def test_across_is_along_the_path_and_up_is_off_it(self):
        rest, moved, _, _ = self.moved(x=RADIUS * math.pi / 2)
        np.testing.assert_allclose(moved, np.stack([-rest[:, 1], rest[:, 0]], axis=1), atol=0.2)
        rest, moved, _, _ = self.moved(y=-50)
        out = rest / np.linalg.norm(rest, axis=1, keepdims=True)
        np.testing.assert_allclose(moved, rest + 50 * out, atol=0.2)

    def test_tracking_and_words_go_along_it(self):
        rest, moved, rights, _ = self.moved(tracking=500)
        angles = np.arctan2(moved[:, 0], -moved[:, 1])
        off = np.linalg.norm(moved, axis=1)
        np.testing.assert_allclose(off, np.linalg.norm(rest, axis=1), atol=0.1)
        self.assertGreater(np.ptp(angles), 1.3 * np.ptp(np.arctan2(rest[:, 0], -rest[:, 1])))
        np.testing.assert_allclose(np.arctan2(rights[:, 1], rights[:, 0]), angles, atol=0.01)
        _, moved, _, _ = self.moved(unit="word", scale=1.5)
        self.assertGreater(np.ptp(np.arctan2(moved[:, 0], -moved[:, 1])), 1.3 * 0.5)

    def test_what_a_title_does_is_done_about_its_path(self):
        rest, moved, _, _ = self.moved(unit="title", rotation=90)
        np.testing.assert_allclose(moved, np.stack([-rest[:, 1], rest[:, 0]], axis=1), atol=1e-6)

    def test_off_the_picture_leads_out_of_it_wherever_a_letter_stands(self):
        for side, axis, beyond in (("left", 0, -1), ("right", 0, 1), ("below", 1, 1)):
            scene = scene_along(moves=[move(off=side, off_of="unit")], text="ROUND THE MOON AGAIN")
            middles, _, _ = placed_middles(scene)
            edge = scene.size[axis] if beyond > 0 else 0
            self.assertTrue(((middles[:, axis] - edge) * beyond > 0).all(), side)

    def test_where_letters_are_seen_is_what_spots_reach(self):
        """A spot over the right half of the picture takes the letters that stand there."""
        spot = {"kind": "spot", "shape": "round", "center": [900, 360], "inner": 100, "outer": 110}
        dim = {**move(opacity=0), "reach": [spot]}
        scene = scene_along(text="ROUND THE MOON AND BACK TO ME", moves=[dim])
        title = scene.layer("t1")
        layout, times = lay_out(scene, title), np.array([0.0])
        placed = place(scene, title, layout, compose(scene, title, layout, times), times)
        middles, _, _ = placed_middles(scene)
        near = np.hypot(*(middles - (900, 360)).T) < 100
        self.assertTrue(near.any() and not near.all())
        self.assertTrue((placed.opacities[0][near] == 0).all())

    def test_windows_and_carets_go_with_the_path(self):
        window = {"of": "line"}
        scene = scene_along(moves=[move(y=-400)], window=window)
        hidden = draw_frame(Picture(scene), 0.0)
        without = scene_along(moves=[move(opacity=0)])
        np.testing.assert_array_equal(hidden, draw_frame(Picture(without), 0.0))
        seen = draw_frame(Picture(scene_along(window=window)), 0.0)
        plain = draw_frame(Picture(scene_along()), 0.0)
        self.assertLess(np.abs(seen.astype(int) - plain).mean(), 0.05)
        typed = {**move(opacity=1), "until_turn": "hidden"}
        caret = {"move": "m1", "width": 20}
        with_caret = draw_frame(Picture(scene_along(moves=[typed], caret=caret)), 0.0)
        rows, columns = np.nonzero(np.abs(with_caret.astype(int) - plain).sum(axis=2))
        self.assertGreater(len(rows), 100)
        distance = np.hypot(rows - 360, columns - 640)
        self.assertTrue(((distance > RADIUS - 40) & (distance < RADIUS + 90)).all())


class LookTest(TestCase):
    def test_boxes_handles_and_warnings(self):
        scene = scene_along()
        left, top, right, bottom = rest_box(scene, scene.layer("t1"), 0)
        self.assertLess(top, -RADIUS)
        self.assertLess(bottom, 0)
        self.assertAlmostEqual(left, -right, delta=8)
        bent = np.array(places(scene, 0, "t1")["layers"]["t1"]["bent"])
        distances = np.hypot(*(bent - (640, 360)).T)
        self.assertTrue(((distances > RADIUS - 30) & (distances < RADIUS + 90)).all())
        found = handles.along(scene, scene.layer("t1"), 0)
        np.testing.assert_allclose(found["foot"], [640, 160], atol=0.01)
        np.testing.assert_allclose(found["up"], [0, -1], atol=1e-6)
        self.assertEqual((found["percents"][0], found["percents"][-1]), (0, 100))
        distances = np.hypot(*(np.array(found["points"]) - (640, 360)).T)
        np.testing.assert_allclose(distances, RADIUS, atol=0.1)
        sweep = {"kind": "sweep", "low": 0, "high": 50}
        scene = scene_along(moves=[{**move(y=-20), "reach": [sweep]}])
        (band,) = handles.sweeps(scene, scene.layer("t1"), scene.layer("t1").moves[0], 0)
        for edge in band["edges"]:
            self.assertTrue(all(math.hypot(x - 640, y - 360) > 170 for x, y in edge), edge)

    def test_text_that_meets_itself_again_is_told(self):
        for text, told in (("ORBIT", []), ("ROUND AND ROUND THE MOON " * 3, ["t1.transform"])):
            scene = scene_along(text=text)
            found = [w for w in warnings_of(scene, scene.layer("t1")) if "its path" in w.text]
            self.assertEqual([each.path for each in found], told)
        line = scene_along(shape=LINE, text="ROUND AND ROUND THE MOON " * 3)
        found = [w for w in warnings_of(line, line.layer("t1")) if "its path" in w.text]
        self.assertEqual(found, [])

    def test_said_and_read(self):
        scene = scene_along(along={"offset": 25, "rise": 12, "upright": True})
        told = "Stands along “s1” at 25 %, raised by 12 px, letters upright, running its own way."
        self.assertIn(told, scene_as_text(scene))
        told = told.replace("s1", "Orbit")
        wanted = {"layer": "Orbit", "offset": 25, "rise": 12, "upright": True, "reverse": False}
        self.assertEqual(read(told), ("along", wanted))
        self.assertEqual(read("along “Orbit”, upright").data, {"layer": "Orbit", "upright": True})

    def test_the_shapes_that_there_are_are_offered_by_name(self):
        context = context_of(scene_along(), "t1")
        self.assertIn("“Orbit”", [each.text for each in complete("along ", context)])

    def test_what_a_place_follows_is_said_as_a_whole_and_read(self):
        data = scene_along().model_dump(by_alias=True, mode="json", exclude_unset=True)
        scene = apply(data, {"name": "stand-along", "layer": "t1", "value": "s1"}).scene
        told = place_text(scene.layer("t1"))
        self.assertIn("Stands at (tied to “s1.transform.position”), turned as (tied to", told)
        said = read(told).data
        for name in ("position", "rotation"):
            self.assertEqual(said[name], {"tie": {"to": f"s1.transform.{name}"}})

    def test_a_path_that_is_not_there_is_told(self):
        with self.assertRaisesRegex(SceneError, r"layers\[1\].along.layer.*no shape"):
            scene_along(along={"layer": "t1"})


class EditTest(TestCase):
    def setUp(self):
        data = scene_along().model_dump(by_alias=True, mode="json", exclude_unset=True)
        del data["layers"][1]["along"]
        self.data = data

    def edited(self, data, **edit):
        before = files.from_data(data)
        applied = apply(data, edit)
        back = apply(applied.document, applied.inverse)
        self.assertEqual(back.scene, before)
        self.assertTrue(applied.label)
        return applied.document

    def along(self, **more):
        return self.edited(self.data, name="stand-along", layer="t1", value="s1", **more)

    def test_a_title_goes_with_its_shape(self):
        done = self.along()
        title = done["layers"][1]
        self.assertEqual(title["along"], {"layer": "s1", "offset": 0})
        self.assertEqual(title["transform"]["position"], {"tie": {"to": "s1.transform.position"}})
        self.assertEqual(title["transform"]["rotation"], {"tie": {"to": "s1.transform.rotation"}})

    def test_along_an_open_path_it_stands_as_it_is_aligned(self):
        self.data["layers"][0]["shape"] = LINE
        self.assertEqual(self.along()["layers"][1]["along"]["offset"], 50)
        self.data["layers"][1]["style"]["align"] = "right"
        self.assertEqual(self.along()["layers"][1]["along"]["offset"], 100)

    def test_keys_of_its_place_are_kept(self):
        keys = {"keys": [{"at": 0, "value": [0, 0, 0]}]}
        self.data["layers"][1]["transform"]["position"] = keys
        self.assertEqual(self.along()["layers"][1]["transform"]["position"], keys)

    def test_it_stands_straight_again_where_the_path_is(self):
        straight = self.edited(self.along(), name="straighten", layer="t1")["layers"][1]
        self.assertNotIn("along", straight)
        self.assertEqual(straight["transform"]["position"], [640, 360, 0])
        with self.assertRaisesRegex(SceneError, "stands straight already"):
            apply(self.data, {"name": "straighten", "layer": "t1"})

    def test_both_are_in_one_group(self):
        grouped = self.edited(self.data, name="group-layers", layers=["s1"])
        title = apply(grouped, {"name": "stand-along", "layer": "t1", "value": "s1"}).scene
        self.assertEqual(title.layer("t1").group, title.layer("s1").group)
        other = self.edited(self.data, name="group-layers", layers=["t1"])
        with self.assertRaisesRegex(SceneError, "in another group than the shape"):
            apply(other, {"name": "stand-along", "layer": "t1", "value": "s1"})

    def test_only_titles_stand_along_only_shapes(self):
        for layer, value, told in (("s1", "s1", "no title"), ("t1", "t1", "a shape of this scene")):
            with self.assertRaisesRegex(SceneError, told):
                apply(self.data, {"name": "stand-along", "layer": layer, "value": value})

    def test_a_shape_that_is_removed_leaves_the_title_in_its_place(self):
        left = self.edited(self.along(), name="remove-layer", layer="s1")["layers"]
        self.assertEqual([layer["id"] for layer in left], ["t1"])
        self.assertNotIn("along", left[0])
        self.assertEqual(left[0]["transform"]["position"], [640, 360, 0])

    def test_a_group_that_is_taken_apart_loosens_what_was_tied_to_it(self):
        done = self.edited(self.data, name="group-layers", layers=["s1"])
        (group,) = (layer["id"] for layer in done["layers"] if layer["kind"] == "group")
        title = next(layer for layer in done["layers"] if layer["id"] == "t1")
        title["transform"]["rotation"] = {"tie": {"to": f"{group}.transform.rotation"}}
        left = self.edited(done, name="ungroup-layers", layer=group)["layers"]
        title = next(layer for layer in left if layer["id"] == "t1")
        self.assertEqual(title["transform"]["rotation"], [0, 0, 0])

    def test_copies_stand_along_copies(self):
        grouped = self.edited(self.along(), name="group-layers", layers=["s1", "t1"])
        (group,) = (layer["id"] for layer in grouped["layers"] if layer["kind"] == "group")
        copied = self.edited(grouped, name="duplicate-layer", layer=group)["layers"]
        titles = [layer for layer in copied if layer["kind"] == "title"]
        self.assertEqual(len({title["along"]["layer"] for title in titles}), 2)
