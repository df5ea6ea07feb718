"""Frames: what is filled, where, and how the pixels come out."""

import io
from unittest import TestCase

import numpy as np
from PIL import Image

from balletto.picture.bounds import centered_position, places
from balletto.picture.canvases.canvas import RecordingCanvas
from balletto.picture.canvases.skia_canvas import BLEND_MODES
from balletto.picture.frame import Picture, draw_frame
from balletto.picture.incremental_renderer import IncrementalRenderer
from balletto.picture.stills import jpeg, png
from balletto.scene import files
from balletto.scene.layers.base import BLENDS

from .scenes import scene, scene_data, small_scene


def drawn(made, frame):
    canvas = RecordingCanvas()
    Picture(made).draw(canvas, frame)
    return canvas.calls


def with_title(**changes):
    data = scene_data()
    data["layers"][0].update(changes)
    return files.from_data(data)


class FrameTest(TestCase):
    def test_the_ground_comes_first_and_hidden_letters_not_at_all(self):
        self.assertEqual(drawn(scene(), 0), [("clear", "#101428")])
        self.assertEqual(len(drawn(scene(), 89)), 1 + 13)

    def test_letters_are_filled_where_they_are(self):
        _, outline, matrix, color, opacity, *_ = drawn(scene(), 89)[1]
        self.assertEqual(matrix, [1, 0, 960, 0, 1, 540, 0, 0, 1])
        self.assertEqual((color, opacity), ("#FFFFFF", 1))
        self.assertEqual(outline[0][0], "move")

    def test_a_layer_shows_within_its_span(self):
        made = with_title(span=[10, 20], moves=[])
        self.assertEqual(
            [len(drawn(made, n)) > 1 for n in (9, 10, 19, 20)], [False, True, True, False]
        )

    def test_layers_are_drawn_from_the_back(self):
        data = scene_data()
        back = {**data["layers"][0], "moves": []}
        front = {**back, "id": "t2", "style": {**back["style"], "fill": "#00FF00"}}
        data["layers"] = [back, front]
        colors = [call[3] for call in drawn(files.from_data(data), 0)[1:]]
        self.assertEqual(colors, ["#FFFFFF"] * 13 + ["#00FF00"] * 13)

    def test_a_hidden_layer_is_not_drawn(self):
        data = scene_data()
        data["layers"][0]["on"] = False
        self.assertEqual(len(drawn(files.from_data(data), 89)), 1)

    def test_the_layers_own_place_and_opacity(self):
        keys = {"keys": [{"at": 0, "value": 0}, {"at": 10, "value": 1}]}
        position = {"keys": [{"at": 0, "value": [0, 0, 0]}, {"at": 10, "value": [100, 200, 0]}]}
        made = with_title(
            moves=[], transform={"position": position, "opacity": keys, "scale": [2, 3]}
        )
        _, _, matrix, _, opacity, *_ = drawn(made, 5)[1]
        self.assertEqual(matrix, [2, 0, 50, 0, 3, 100, 0, 0, 1])
        self.assertEqual(opacity, 0.5)

    def test_pixels(self):
        pixels = draw_frame(Picture(small_scene()), 29)
        self.assertEqual(pixels.shape, (180, 320, 4))
        self.assertEqual(pixels[2, 2].tolist(), [0x28, 0x14, 0x10, 255])
        bright = (pixels[..., :3].min(axis=2) > 200).nonzero()
        # "Orbit" stands in the middle, as high as its letters.
        self.assertAlmostEqual(bright[1].mean(), 160, delta=8)
        self.assertAlmostEqual(bright[0].mean(), 90, delta=8)

    def test_any_frame_in_any_order_gives_the_same_pixels(self):
        picture = Picture(small_scene())
        forwards = [draw_frame(picture, n) for n in (3, 12, 20)]
        backwards = [draw_frame(picture, n) for n in (20, 12, 3)]
        for one, other in zip(forwards, reversed(backwards), strict=True):
            np.testing.assert_array_equal(one, other)

    def test_another_size_shows_the_same_picture(self):
        picture = Picture(small_scene())
        small, large = draw_frame(picture, 29), draw_frame(picture, 29, (640, 360))
        halved = large.reshape(180, 2, 320, 2, 4).mean(axis=(1, 3))
        self.assertLess(np.abs(halved - small).mean(), 1.5)

    def test_opacity_is_mixed_over_the_ground(self):
        data = files.to_data(small_scene())
        data["layers"][0]["moves"] = []
        data["layers"][0]["transform"]["opacity"] = 0.5
        pixels = draw_frame(Picture(files.from_data(data)), 0)
        self.assertAlmostEqual(int(pixels[..., 2].max()), (255 + 0x10) / 2, delta=2)


class ReelTest(TestCase):
    def test_frames_one_after_another_are_the_frames_alone(self):
        """Only what changed is drawn anew, and all of that is told."""
        data = files.to_data(small_scene())
        pose = {"y": -60, "rotation_x": 80, "z": -300, "opacity": 0.2}
        data["layers"][0]["moves"][0]["pose"] = pose
        data["layers"][0]["span"] = [2, 27]
        picture = Picture(files.from_data(data))
        renderer, before = IncrementalRenderer(picture), None
        for frame in range(30):
            left, top, right, bottom = renderer.draw(frame)
            np.testing.assert_array_equal(
                renderer.pixels, draw_frame(picture, frame), f"frame {frame}"
            )
            if before is not None:
                differs = (before != renderer.pixels).any(axis=2)
                differs[top:bottom, left:right] = False
                self.assertFalse(differs.any(), f"frame {frame}")
            before = renderer.pixels.copy()

    def test_a_frame_like_the_one_before_changes_nothing(self):
        renderer = IncrementalRenderer(Picture(small_scene()))
        renderer.draw(28)
        self.assertEqual(renderer.draw(29), (0, 0, 0, 0))


class StillsTest(TestCase):
    def test_png_has_straight_alpha(self):
        data = files.to_data(small_scene())
        data["background"] = {"kind": "none"}
        data["layers"][0]["moves"] = []
        data["layers"][0]["transform"]["opacity"] = 0.5
        picture = Image.open(io.BytesIO(png(draw_frame(Picture(files.from_data(data)), 0))))
        values = np.asarray(picture)
        self.assertEqual(picture.mode, "RGBA")
        inside = values[values[..., 3] >= 127]
        self.assertGreater(len(inside), 100)
        self.assertTrue((inside[:, :3] == 255).all())

    def test_jpeg_keeps_colours(self):
        pixels = draw_frame(Picture(small_scene()), 29)
        picture = np.asarray(Image.open(io.BytesIO(jpeg(pixels)))).astype(int)
        self.assertLess(np.abs(picture - pixels[..., 2::-1]).mean(), 1)


class PlacesTest(TestCase):
    def test_corners_of_titles_and_letters(self):
        found = places(scene(), 89, "t1")
        self.assertEqual(len(found["characters"]), 13)
        corners = np.array(found["layers"]["t1"]["corners"])
        np.testing.assert_allclose(corners.mean(axis=0), [960, 540], atol=0.01)
        first = np.array(found["characters"][0]["corners"])
        self.assertAlmostEqual(first[:, 0].min(), corners[:, 0].min(), places=1)

    def test_centre_of_a_title_that_is_set_to_the_left_turned_and_deep(self):
        data = scene_data()
        data["layers"][0]["style"]["align"] = "left"
        data["layers"][0]["transform"] = {
            "position": [30, 40, 900],
            "rotation": [0, 0, 20],
            "scale": [2, 1],
        }
        position = centered_position(files.from_data(data), "t1", 0, "xy")
        data["layers"][0]["transform"]["position"] = position
        corners = places(files.from_data(data), 0)["layers"]["t1"]["corners"]
        np.testing.assert_allclose(np.mean(corners, axis=0), [960, 540], atol=0.05)
        self.assertEqual(centered_position(scene(), "t1", 0, "x")[1], 540)


class BlendTest(TestCase):
    def drawn(self, blend, background):
        """The colour of the stem of a heavy I over a background."""
        data = scene_data("I", size=[64, 64], background={"kind": "color", "color": background})
        title = data["layers"][0]
        title.update(blend=blend, moves=[], runs=[])
        title["style"] = {"font": "Anybody", "axes": {"wght": 900}, "size": 80, "fill": "#804020"}
        title["transform"]["position"] = [32, 32, 0]
        pixels = draw_frame(Picture(files.from_data(data)), 40)
        return pixels[32, 32, 2::-1].tolist()

    def test_blends_by_the_formulas_of_the_standard(self):
        source, background = np.array([0x80, 0x40, 0x20]) / 255, np.array([0x40, 0x80, 0xC0]) / 255
        formulas = {
            "normal": source,
            "multiply": source * background,
            "screen": source + background - source * background,
            "darken": np.minimum(source, background),
            "lighten": np.maximum(source, background),
            "difference": np.abs(source - background),
            "exclusion": source + background - 2 * source * background,
        }
        for blend, wanted in formulas.items():
            with self.subTest(blend):
                found = self.drawn(blend, "#4080C0")
                np.testing.assert_allclose(found, wanted * 255, atol=2)

    def test_every_blend_is_drawn(self):
        self.assertEqual({*BLEND_MODES, "normal"}, set(BLENDS))
        drawn = {blend: tuple(self.drawn(blend, "#4080C0")) for blend in BLENDS}
        self.assertGreater(len(set(drawn.values())), 12)
