"""Pictures, videos, nested scenes and grounds: which pixels are seen where and when."""

import os
import shutil
import tempfile
from pathlib import Path
from unittest import TestCase, mock

import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image

from balletto.clip.errors import ClipError
from balletto.clip.export_settings import usual_settings
from balletto.clip.render import check
from balletto.picture import frame as nesting
from balletto.picture.frame import Picture, draw_frame
from balletto.picture.incremental_renderer import IncrementalRenderer
from balletto.picture.pixels.media import MediaError, Video, about, video
from balletto.picture.pixels.played import time_in
from balletto.scene import files
from balletto.scene.errors import SceneError

from .drawing import psnr
from .media import GREY_STEP, media_folder
from .scenes import scene_data

SIZE = (160, 90)
GOLD = [5, 183, 242, 255]


def layer(**changes):
    made = {"id": "l1", "span": [0, 90], "transform": {"position": [80, 45, 0]}}
    return {**made, **changes}


def scene(*layers, length=90, rate="30", **more):
    data = scene_data(size=list(SIZE), length=length, rate=rate, layers=list(layers), **more)
    return files.from_data({"background": {"kind": "none"}, **data}).in_folder(media_folder())


def bare(*layers, **more):
    return scene(*layers, background={"kind": "none"}, **more)


def grey_at(of, frame, x=80, y=45):
    return int(draw_frame(Picture(of), frame)[y, x, 1])


class PictureTest(TestCase):
    def test_a_picture_stands_with_its_middle_at_the_origin(self):
        pixels = draw_frame(Picture(bare(layer(kind="picture", file="moon.png"))), 0)
        self.assertEqual(pixels[45, 80].tolist(), GOLD)
        rows, columns = np.nonzero(pixels[..., 3])
        # 40 x 40 px, 20 to the right and 10 down in a picture of 80 x 60.
        self.assertEqual([columns.min(), columns.max() + 1], [60, 100])
        self.assertEqual([rows.min(), rows.max() + 1], [25, 65])

    def test_it_is_turned_scaled_and_let_through_as_all_layers(self):
        half = {
            "position": [80, 45, 0],
            "scale": [0.5, 0.25],
            "rotation": [0, 0, 90],
            "opacity": 0.5,
        }
        made = bare(layer(kind="picture", file="moon.png", transform=half))
        pixels = draw_frame(Picture(made), 0)
        rows, columns = np.nonzero(pixels[..., 3] > 60)
        self.assertEqual([columns.min(), columns.max() + 1], [75, 85])
        self.assertEqual([rows.min(), rows.max() + 1], [35, 55])
        self.assertAlmostEqual(int(pixels[45, 80, 3]), 128, delta=1)

    def test_its_shadow_has_its_form(self):
        cast = {"kind": "shadow", "x": 30, "y": 0, "softness": 0, "color": "#FF0000", "opacity": 1}
        made = bare(layer(kind="picture", file="moon.png", effects=[cast]))
        pixels = draw_frame(Picture(made), 0)
        self.assertEqual(pixels[45, 120].tolist(), [0, 0, 255, 255])
        self.assertEqual(int(pixels[45, 135, 3]), 0, "a shadow of what is transparent")

    def test_drawings_stay_sharp_when_they_grow(self):
        big = {"position": [80, 45, 0], "scale": [2, 2]}
        pixels = draw_frame(
            Picture(bare(layer(kind="picture", file="spark.svg", transform=big))), 0
        )
        # 40 x 40 px, twice as large.
        columns = np.nonzero(pixels[..., 3].max(axis=0) > 128)[0]
        self.assertLess(abs(int(np.ptp(columns)) - 80), 6)
        edge = pixels[25, :, 3].astype(int)
        self.assertLessEqual(np.count_nonzero((edge > 8) & (edge < 247)), 4)

    def test_nothing_is_drawn_of_what_is_not_there_and_no_clip_made(self):
        made = bare(layer(kind="picture", file="gone.png", name="Moon"))
        self.assertFalse(draw_frame(Picture(made), 0).any())
        with self.assertRaisesRegex(ClipError, "“gone.png” of “Moon” is not there"):
            check(made, usual_settings(made))

    def test_files_lie_beside_the_scene(self):
        for name in ("../moon.png", "/etc/moon.png", ".hidden", "a/b.png", ""):
            with self.assertRaisesRegex(SceneError, "lies beside the scene"):
                bare(layer(kind="picture", file=name))


class VideoTest(TestCase):
    def video(self, **more):
        return layer(kind="video", file="orbit.mp4", **more)

    def test_each_frame_is_seen_at_its_time(self):
        made = bare(self.video())
        for frame in (0, 1, 7, 29, 28, 3):  # going back as well
            self.assertAlmostEqual(grey_at(made, frame), frame * GREY_STEP, delta=3)

    def test_speed_trim_and_another_rate(self):
        for told, of, frame, wanted in (
            ("half speed", bare(self.video(speed=0.5)), 20, 10),
            ("twice", bare(self.video(speed=2)), 7, 14),
            ("from a later start", bare(self.video(start=0.5)), 3, 18),
            ("25 frames a second", bare(self.video(), rate="25"), 20, 24),
            ("begun later", bare(self.video(span=[10, 90])), 14, 4),
        ):
            with self.subTest(told):
                self.assertAlmostEqual(grey_at(of, frame), wanted * GREY_STEP, delta=3)

    def test_what_comes_after_its_end(self):
        held = bare(self.video(end=0.5))
        self.assertAlmostEqual(grey_at(held, 60), 15 * GREY_STEP, delta=3)
        again = bare(self.video(end=0.5, after="loop"))
        self.assertAlmostEqual(grey_at(again, 19), 4 * GREY_STEP, delta=3)
        gone = bare(self.video(end=0.5, after="gone"))
        self.assertFalse(draw_frame(Picture(gone), 15).any())

    @given(
        shown=st.floats(-50, 200, allow_nan=False),
        length=st.floats(0, 60, allow_nan=False),
        after=st.sampled_from(["hold", "loop", "gone"]),
    )
    def test_the_time_within_is_within(self, shown, length, after):
        within = time_in(shown, length, after)
        if within is None:
            self.assertEqual(after, "gone")
        else:
            self.assertTrue(0 <= within <= length or length <= 0)
            if 0 <= shown < length:
                self.assertAlmostEqual(within, shown)

    def test_a_reel_is_frames_alone(self):
        made = bare(self.video(transform={"position": [60, 30, 0], "rotation": [0, 0, 20]}))
        renderer, picture = IncrementalRenderer(Picture(made)), Picture(made)
        for frame in (0, 1, 2, 35, 36):
            renderer.draw(frame)
            np.testing.assert_array_equal(renderer.pixels, draw_frame(picture, frame))


class NestedTest(TestCase):
    def inner(self, **more):
        """A white square that is at the left for ten frames, then at the right."""
        keys = [{"at": 0, "value": [-20, 0, 0], "ease": "hold"}, {"at": 10, "value": [20, 0, 0]}]
        keys = [{**key, "value": [key["value"][0] + 40, 20, 0]} for key in keys]
        square = {
            **layer(kind="shape", fill="#FFFFFF", stroke=None),
            "shape": {"kind": "rectangle", "size": [20, 20]},
            "transform": {"position": {"keys": keys}},
        }
        return {"format": "balletto-scene", "version": 1, "size": [80, 40], "rate": "30",
                "length": 20, "layers": [square], **more}  # fmt: skip

    def scene(self, *layers, inner=None, **more):
        used = [{"id": "moon", "scene": inner or self.inner()}]
        return bare(*layers, scenes=used, **more)

    def seen(self, of, frame):
        """The columns between which something is seen."""
        columns = np.nonzero(draw_frame(Picture(of), frame)[..., 3].max(axis=0) > 128)[0]
        return [int(columns.min()), int(columns.max()) + 1] if len(columns) else []

    def test_a_scene_in_a_scene_at_its_time(self):
        made = self.scene(layer(kind="scene", scene="moon"))
        self.assertEqual(self.seen(made, 3), [50, 70])
        self.assertEqual(self.seen(made, 12), [90, 110])

    def under_shutter(self, keys, more=None):
        """How many pictures are drawn of a square in a scene that goes by keys, seen while a
        shutter is open; and how far that is from all of its moments, in dB."""
        square = {**self.inner()["layers"][0], "transform": {"position": {"keys": keys}}}
        square |= more or {}
        shutter = {"angle": 180, "samples": 12}
        inner = self.inner(layers=[square], length=30)
        made = self.scene(layer(kind="scene", scene="moon"), inner=inner, motion_blur=shutter)
        draw = nesting._NestedPicture.draw
        counting = mock.Mock(side_effect=draw)
        with mock.patch.object(nesting._NestedPicture, "draw", lambda *values: counting(*values)):
            few = draw_frame(Picture(made), 12)
        with mock.patch.object(nesting, "moments_for", lambda frames, *_: frames):
            every = draw_frame(Picture(made), 12)
        return counting.call_count, psnr(few, every)

    def test_under_a_shutter_it_is_drawn_as_often_as_its_motion_needs(self):
        ways = [{"at": 0, "value": [20, 20, 0]}, {"at": 24, "value": [0, 20, 0]}]
        for far, count in ((0, 1), (8, 1), (60, 2), (200, 12)):
            ways[1]["value"][0] = 20 + far
            with self.subTest(far):
                drawn, near = self.under_shutter(ways)
                self.assertEqual(drawn, count)
                self.assertGreater(near, 40)

    def test_what_appears_in_it_at_once_is_seen_for_a_part_of_the_time(self):
        """All its moments are drawn: those before and those after."""
        seen = [{"at": 0, "value": 0, "ease": "hold"}, {"at": 12, "value": 1}]
        more = {"transform": {"position": [40, 20, 0], "opacity": {"keys": seen}}}
        self.assertEqual(self.under_shutter([], more), (12, float("inf")))

    def test_time_shift_and_what_comes_after(self):
        later = self.scene(layer(kind="scene", scene="moon", shift=9))
        self.assertEqual(self.seen(later, 0), [50, 70])
        self.assertEqual(self.seen(later, 1), [90, 110])
        looped = self.scene(layer(kind="scene", scene="moon", after="loop"))
        self.assertEqual(self.seen(looped, 25), [50, 70])
        gone = self.scene(layer(kind="scene", scene="moon", after="gone"))
        self.assertEqual(self.seen(gone, 20), [])
        slow = self.scene(layer(kind="scene", scene="moon"), inner=self.inner(rate="15"))
        self.assertEqual((self.seen(slow, 19), self.seen(slow, 20)), ([50, 70], [90, 110]))

    def test_it_is_drawn_as_large_as_it_is_seen_within_bounds(self):
        def pixels(size, scale):
            inner = self.inner(size=size, layers=[])
            place = {"transform": {"scale": [scale, scale]}}
            made = self.scene(layer(kind="scene", scene="moon", **place), inner=inner)
            ready = Picture(made)._prepared[made.layers[0].id]
            return ready.form(0).fill.bitmap.pixels.shape[:2]

        self.assertEqual(pixels([80, 40], 1), (40, 80))
        self.assertEqual(pixels([80, 40], 8), (320, 640))
        height, width = pixels([1920, 1080], 8)
        self.assertGreater(width, 3840)
        self.assertLessEqual(width * height, 2**24)
        self.assertEqual(pixels([8192, 2160], 2), (2160, 8192))

    def test_used_many_times_each_in_its_own_way(self):
        uses = [
            layer(
                id=f"n{number}",
                kind="scene",
                scene="moon",
                transform={"position": [30 + 50 * number, 45, 0], "rotation": [0, 0, 90 * number]},
                effects=[{"kind": "tint", "color": color}],
            )
            for number, color in enumerate(("#FF0000", "#00FF00", "#0000FF"))
        ]
        pixels = draw_frame(Picture(self.scene(*uses)), 0)
        self.assertEqual(pixels[45, 10].tolist(), [0, 0, 255, 255])
        self.assertEqual(pixels[25, 80].tolist(), [0, 255, 0, 255])
        self.assertEqual(pixels[45, 150].tolist(), [255, 0, 0, 255])

    def test_it_is_drawn_as_large_as_it_is_seen(self):
        large = {"position": [80, 45, 0], "scale": [4, 4]}
        made = self.scene(layer(kind="scene", scene="moon", transform=large))
        row = draw_frame(Picture(made), 0)[45, :, 3].astype(int)
        self.assertLessEqual(np.count_nonzero((row > 8) & (row < 247)), 3, "it is blurred")

    def test_faults_inside_are_told_with_their_path(self):
        inner = self.inner()
        inner["layers"][0]["matte"] = {"layer": "x9"}
        with self.assertRaisesRegex(
            SceneError, r"scenes\[0\].scene.layers\[0\].matte.layer: there"
        ):
            self.scene(layer(kind="scene", scene="moon"), inner=inner)
        with self.assertRaisesRegex(SceneError, 'there is no scene "sun" in scenes'):
            self.scene(layer(kind="scene", scene="sun"))
        deep = self.inner()
        for _ in range(6):
            deep = self.inner(scenes=[{"id": "moon", "scene": deep}])
        with self.assertRaisesRegex(SceneError, "5 deep at the most"):
            self.scene(layer(kind="scene", scene="moon"), inner=deep)


class GroundTest(TestCase):
    def ground(self, **background):
        return scene(background=background)

    def test_a_gradient(self):
        fill = {"kind": "linear", "angle": 90, "colors": ["#000000", "#FFFFFF"]}
        made = self.ground(kind="gradient", fill=fill)
        column = draw_frame(Picture(made), 0)[:, 80, 1].astype(int)
        self.assertLess(column[0], 8)
        self.assertGreater(column[-1], 247)
        self.assertTrue((np.diff(column) >= 0).all())

    def test_a_still_fills_or_is_seen_whole(self):
        filled = draw_frame(Picture(self.ground(kind="still", file="photo.jpg")), 0)
        for x, y in ((1, 1), (158, 88)):
            np.testing.assert_allclose(filled[y, x, 2::-1].astype(int), [200, 64, 44], atol=3)
        whole = draw_frame(Picture(self.ground(kind="still", file="photo.jpg", fill="whole")), 0)
        self.assertEqual(whole[45, 5].tolist(), [0, 0, 0, 255])
        np.testing.assert_allclose(whole[45, 80, 2::-1].astype(int), [200, 64, 44], atol=3)

    def test_a_clip_plays_behind(self):
        made = self.ground(kind="clip", file="orbit.mp4", speed=0.5)
        self.assertAlmostEqual(grey_at(made, 20, 3, 3), 10 * GREY_STEP, delta=3)

    def test_a_reel_over_a_ground_is_frames_alone(self):
        square = layer(
            kind="shape",
            shape={"kind": "rectangle", "size": [20, 20]},
            transform={"position": {"keys": [{"at": 0, "value": [20, 20, 0]},
                                             {"at": 9, "value": [140, 70, 0]}]}},
        )  # fmt: skip
        for background in (
            {"kind": "gradient", "fill": {"kind": "round", "colors": ["#FF0000", "#0000FF"]}},
            {"kind": "clip", "file": "orbit.mp4", "after": "loop"},
            {"kind": "still", "file": "moon.png", "fill": "whole"},
        ):
            made = scene(square, background=background)
            renderer, picture = IncrementalRenderer(Picture(made)), Picture(made)
            for frame in (0, 1, 5, 9, 10, 11):
                renderer.draw(frame)
                np.testing.assert_array_equal(renderer.pixels, draw_frame(picture, frame))


class AboutTest(TestCase):
    def test_what_files_hold(self):
        folder = media_folder()
        self.assertEqual(about(folder / "moon.png")[:2], ("still", (80, 60)))
        self.assertEqual(about(folder / "spark.svg")[:2], ("still", (40, 40)))
        film = about(folder / "orbit.mp4")
        self.assertEqual((film.kind, film.size, film.rate), ("video", (64, 36), 30))
        self.assertAlmostEqual(film.seconds, 1, delta=0.05)
        self.assertAlmostEqual(about(folder / "bell.wav").seconds, 1, delta=0.01)

    def test_what_cannot_be_read_is_said(self):
        with tempfile.TemporaryDirectory() as name:
            for file, content, told in (
                ("a.png", b"no picture", "a.png cannot be read"),
                ("a.mp4", b"\0" * 2000, "a.mp4 cannot be read"),
                ("a.wav", b"RIFF", "a.wav cannot be read"),
                ("a.svg", b"<html></html>", "a.svg"),
                ("a.doc", b"", "is of no kind that is read here"),
            ):
                path = Path(name) / file
                path.write_bytes(content)
                with self.assertRaisesRegex(MediaError, told):
                    about(path)

    def test_photos_stand_as_they_were_taken(self):
        with tempfile.TemporaryDirectory() as name:
            path = Path(name) / "turned.jpg"
            exif = Image.Exif()
            exif[0x0112] = 6  # taken with the camera turned
            Image.new("RGB", (40, 20)).save(path, exif=exif)
            self.assertEqual(about(path).size, (20, 40))

    def test_what_takes_the_place_of_a_file_is_seen(self):
        """However often the one before was drawn: as it was turned it was kept."""
        with tempfile.TemporaryDirectory() as name:
            folder = Path(name)
            for number, color in enumerate(((255, 0, 0), (0, 255, 0))):
                Image.new("RGB", (400, 300), color).save(folder / "a.png")
                os.utime(folder / "a.png", (number, number))
                made = bare(layer(kind="picture", file="a.png")).in_folder(folder)
                for _ in range(3):
                    seen = draw_frame(Picture(made), 0.0, (640, 360))[180, 320]
                    self.assertEqual(seen.tolist(), [*color[::-1], 255])
            film = Path(shutil.copy(media_folder() / "orbit.mp4", folder))
            first = video(film)
            self.assertIs(video(film), first)
            os.utime(film, (9, 9))
            self.assertIsNot(video(film), first)
            self.assertNotEqual(video(film).at(0.0), first.at(0.0))

    def test_a_video_is_read_from_any_place(self):
        film = Video(media_folder() / "orbit.mp4")
        for seconds, number in ((0.9, 27), (0.1, 3), (5, 29), (0.0, 0), (-1, 0), (0.5, 15)):
            got = int(film.at(seconds).pixels[18, 32, 1])
            self.assertAlmostEqual(got, number * GREY_STEP, delta=3)
