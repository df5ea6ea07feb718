"""Clips: the right frames at the right rate, in pieces or whole, in steady memory."""

import itertools
import subprocess
import sys
import tempfile
import zipfile
from fractions import Fraction
from pathlib import Path
from unittest import TestCase, mock

import av
import numpy as np

from balletto.clip import render as clips
from balletto.clip.convert import Converter
from balletto.clip.export_settings import usual_settings
from balletto.picture.frame import Picture, draw_frame
from balletto.scene import files

from .scenes import small_scene

# Renders the scene and prints how many KiB the process needed at the most.
_MEASURE = """
import re, sys
from pathlib import Path
from balletto.clip.export_settings import usual_settings
from balletto.clip.render import render
from tests.core.scenes import small_scene
scene = small_scene(length=int(sys.argv[1]))
render(scene, usual_settings(scene), Path(sys.argv[2]))
print(re.search(r"VmHWM:\\s+(\\d+)", Path("/proc/self/status").read_text())[1])
"""


class ClipTest(TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.path = Path(folder.name) / "clip.mp4"

    def frames(self, path=None):
        with av.open(str(path or self.path)) as clip:
            self.stream = clip.streams.video[0]
            self.about = (
                self.stream.codec_context.name,
                self.stream.average_rate,
                self.stream.frames,
            )
            context = self.stream.codec_context
            self.colors = (context.color_primaries, context.color_trc, context.colorspace)
            return [(frame.pts, frame.to_ndarray(format="bgra")) for frame in clip.decode(video=0)]

    def render(self, scene, frames, segment=240):
        with mock.patch.object(clips, "SEGMENT_FRAMES", segment):
            clips.render(scene, usual_settings(scene, frames=frames), self.path)
        return self.frames()

    def test_every_frame_is_there_and_is_what_is_drawn(self):
        scene = small_scene(length=30)
        got = self.render(scene, range(30))
        self.assertEqual(self.about, ("h264", 30, 30))
        self.assertEqual(self.colors, (1, 1, 1))
        picture = Picture(scene)
        for number, (_, pixels) in enumerate(got):
            difference = np.abs(pixels.astype(int) - draw_frame(picture, number))[..., :3]
            self.assertLess(difference.mean(), 2.5, f"frame {number}")

    def test_a_known_colour_comes_back(self):
        data = files.to_data(small_scene())
        data["layers"] = []
        for color in ("#F2B705", "#C8402C", "#101428", "#FFFFFF"):
            data["background"]["color"] = color
            pixels = self.render(files.from_data(data), range(2))[1][1]
            blue, green, red = pixels[90, 160, :3].tolist()
            wanted = [int(color[at : at + 2], 16) for at in (1, 3, 5)]
            for got, want in zip((red, green, blue), wanted, strict=True):
                self.assertLessEqual(abs(got - want), 2, color)

    def test_pieces_joined_are_the_whole(self):
        scene = small_scene(length=25)
        whole = self.render(scene, range(25))
        joined = self.render(scene, range(25), segment=8)
        self.assertEqual([pts for pts, _ in joined], [pts for pts, _ in whole])
        for (_, one), (_, other) in zip(whole, joined, strict=True):
            self.assertLess(np.abs(one.astype(int) - other).mean(), 1.0)

    def test_a_range_at_a_1001_rate(self):
        data = {**files.to_data(small_scene()), "rate": "30000/1001"}
        got = self.render(files.from_data(data), range(5, 12))
        self.assertEqual(self.about, ("h264", Fraction(30000, 1001), 7))
        self.assertEqual(len({b - a for (a, _), (b, _) in itertools.pairwise(got)}), 1)

    def test_progress_counts_on_and_may_stop_the_render(self):
        done, scene = [], small_scene()
        export = usual_settings(scene, frames=range(10))
        with mock.patch.object(clips, "SEGMENT_FRAMES", 4):
            clips.render(scene, export, self.path, done.append)
        self.assertEqual(done, list(range(1, 11)))

        def stop(count):
            if count == 3:
                raise InterruptedError

        self.path.unlink()
        with self.assertRaises(InterruptedError):
            clips.render(scene, export, self.path, stop)
        self.assertEqual(list(self.path.parent.iterdir()), [], "half a clip was left behind")

    def test_slow_scenes_are_drawn_by_several_processes(self):
        """As one piece would be, to the last bit, where nothing is lost in encoding."""
        scene = small_scene(length=20)
        export = usual_settings(scene, "pngs")
        alone = self.path.with_name("alone.zip")
        clips.render(scene, export, alone)
        told, together = [], self.path.with_name("together.zip")
        with mock.patch.object(clips, "SLOW_FRAME_MS", 0):
            clips.render(scene, export, together, told.append)
        self.assertEqual((len(told), told[-1]), (3, 20))
        with zipfile.ZipFile(alone) as one, zipfile.ZipFile(together) as other:
            self.assertEqual(one.namelist(), other.namelist())
            for name in one.namelist():
                self.assertEqual(one.read(name), other.read(name), name)

    def test_segments_are_even_enough_for_all_workers(self):
        for count, workers in ((1, 2), (20, 2), (150, 2), (900, 4), (5000, 2)):
            parts = clips.segments(count, workers)
            self.assertEqual([n for part in parts for n in part], list(range(count)))
            self.assertLessEqual(max(map(len, parts)), clips.SEGMENT_FRAMES)
            if count >= 64 * workers:
                self.assertGreaterEqual(len(parts), 4 * workers)

    def test_what_cannot_be_a_clip_is_said(self):
        data = {**files.to_data(small_scene()), "size": [321, 180]}
        with self.assertRaisesRegex(clips.ClipError, "Make it 322 × 180"):
            clips.check(scene := files.from_data(data), usual_settings(scene))
        with self.assertRaisesRegex(clips.ClipError, "0 to 29"):
            clips.check(scene := small_scene(), usual_settings(scene, frames=range(20, 40)))
        # Pillow keeps all frames of a WebP until it writes them.
        long = small_scene(length=1000)
        with self.assertRaisesRegex(
            clips.ClipError, "room for 258 frames of 1920 × 1080.*has 1000"
        ):
            clips.check(long, usual_settings(long, "webp", size=(1920, 1080)))
        clips.check(long, usual_settings(long, "webp"))
        clips.check(long, usual_settings(long, "apng", size=(1920, 1080)))

    def test_memory_does_not_grow_with_the_length(self):
        needed = {}
        for length in (90, 1800):
            words = [sys.executable, "-c", _MEASURE, str(length), str(self.path)]
            done = subprocess.run(words, capture_output=True, text=True, check=True)
            needed[length] = int(done.stdout)
        # 1710 frames of 320 x 180 would be 384 MiB as pixels, 150 MiB as YUV.
        self.assertLess(needed[1800] - needed[90], 24 * 1024, needed)


class ProcessTest(TestCase):
    def test_what_draws_has_no_threads_beside_it(self):
        """They would wait for work on the cores that draw other frames; and a process that has
        threads should not be forked."""
        script = "import balletto.clip.render, os; print(len(os.listdir('/proc/self/task')))"
        words = [sys.executable, "-c", script]
        done = subprocess.run(words, capture_output=True, text=True, check=True)
        self.assertEqual(int(done.stdout), 1)


class ConverterTest(TestCase):
    def test_only_what_changed_is_converted_and_nothing_is_missed(self):
        chance = np.random.default_rng(4)
        partly, pixels = Converter(320, 180), np.full((180, 320, 4), 255, np.uint8)
        partly.convert(pixels)
        for _ in range(12):
            top, left = chance.integers(0, 170), chance.integers(0, 300)
            pixels[top : top + 9, left : left + 15, :3] = chance.integers(0, 256, 3)
            edges = (int(left), int(top), int(left) + 15, int(top) + 9)
            got = partly.convert(pixels, edges).to_ndarray()
            # The dither of the conversion counts rows from where it starts: one step of 255.
            whole = Converter(320, 180).convert(pixels).to_ndarray()
            np.testing.assert_allclose(got.astype(int), whole.astype(int), atol=1)
