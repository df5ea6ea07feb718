"""Files are what they say: looked at with ffprobe and mediainfo, which had no part in them."""

import json
import subprocess
import tempfile
import wave
import zipfile
from fractions import Fraction
from pathlib import Path
from unittest import TestCase

import numpy as np

from balletto.clip.export_settings import usual_settings
from balletto.clip.formats import FORMATS
from balletto.clip.render import render
from balletto.hearing.samples import RATE
from balletto.scene import files

from .scenes import scene_data, small_scene

FRAMES = 30

# What each file must say of itself: ffprobe's names.
VIDEOS = {
    "mp4": {"codec_name": "h264", "profile": "High", "codec_tag_string": "avc1"},
    "webm": {"codec_name": "vp9", "profile": "Profile 0"},
    "webm-alpha": {"codec_name": "vp9", "profile": "Profile 0"},
    "webm-av1": {"codec_name": "av1", "profile": "Main"},
    "prores": {"codec_name": "prores", "profile": "4444", "codec_tag_string": "ap4h"},
}
COLORS = {
    "color_range": "tv", "color_space": "bt709", "color_primaries": "bt709",
    "color_transfer": "bt709",
}  # fmt: skip


def ffprobe(path, *more):
    words = ["ffprobe", "-v", "error", "-show_streams", "-show_format", "-of", "json", *more]
    done = subprocess.run([*words, path], capture_output=True, text=True, check=True)
    return json.loads(done.stdout)


def mediainfo(path):
    done = subprocess.run(
        ["mediainfo", "--Output=JSON", path], capture_output=True, text=True, check=True
    )
    tracks = json.loads(done.stdout)["media"]["track"]
    return {track["@type"]: track for track in tracks}


class OtherProgramsTest(TestCase):
    @classmethod
    def setUpClass(cls):
        folder = tempfile.TemporaryDirectory()
        cls.addClassCleanup(folder.cleanup)
        cls.folder = Path(folder.name)

    def made(self, format, scene=None, **more):
        scene = scene or small_scene(length=FRAMES)
        export = usual_settings(scene, format, **more)
        if FORMATS[format].is_still:
            export = export._replace(frames=range(5, 6))
        path = self.folder / f"{format}{FORMATS[format].suffix}"
        render(scene, export, path)
        return path

    def transparent(self):
        data = files.to_data(small_scene(length=FRAMES))
        return files.from_data({**data, "background": {"kind": "none"}})

    def test_videos_tell_codec_profile_label_colours_size_rate_and_length(self):
        for format, said in VIDEOS.items():
            with self.subTest(format):
                told = ffprobe(self.made(format), "-count_frames")
                stream = told["streams"][0]
                wanted = {**said, **COLORS, "width": 320, "height": 180}
                self.assertEqual({name: stream.get(name) for name in wanted}, wanted)
                self.assertEqual(Fraction(stream["avg_frame_rate"]), 30)
                self.assertEqual(int(stream["nb_read_frames"]), FRAMES)
                self.assertAlmostEqual(float(told["format"]["duration"]), FRAMES / 30, places=2)
                self.assertEqual(float(stream["start_time"]), 0)

    def test_mediainfo_says_the_same(self):
        for format, name, profile in (
            ("mp4", "AVC", "High"), ("webm", "VP9", "0"), ("webm-av1", "AV1", "Main"),
            ("prores", "ProRes", "4444"),
        ):  # fmt: skip
            with self.subTest(format):
                video = mediainfo(self.made(format))["Video"]
                self.assertEqual(video["Format"], name)
                self.assertIn(profile, video["Format_Profile"])
                for key in ("colour_primaries", "transfer_characteristics", "matrix_coefficients"):
                    self.assertEqual(video[key], "BT.709")
                if format in ("mp4", "prores"):  # in WebM it reckons the rate from the times
                    self.assertEqual(float(video["FrameRate"]), 30)

    def test_transparency_is_told_and_there(self):
        """A cutting program took the MOV, labelled 422 HQ, for opaque."""
        path = self.made("prores", self.transparent())
        self.assertIn("yuva444p", ffprobe(path)["streams"][0]["pix_fmt"])
        self.assertEqual(self.corner_alpha(path), 0)
        path = self.made("webm-alpha", self.transparent())
        self.assertEqual(ffprobe(path)["streams"][0]["tags"]["ALPHA_MODE"], "1")
        self.assertEqual(self.corner_alpha(path, "-c:v", "libvpx-vp9"), 0)
        for format in ("gif", "apng", "png"):
            with self.subTest(format):
                self.assertEqual(self.corner_alpha(self.made(format, self.transparent())), 0)

    def corner_alpha(self, path, *decoder):
        words = ["ffmpeg", "-v", "error", *decoder, "-i", path, "-frames:v", "1"]
        words += ["-f", "rawvideo", "-pix_fmt", "rgba", "-"]
        done = subprocess.run(words, capture_output=True, check=True)
        return done.stdout[3]

    def test_animated_pictures_and_stills(self):
        gif = ffprobe(self.made("gif"))
        self.assertEqual(gif["format"]["format_name"], "gif")
        self.assertAlmostEqual(float(gif["format"]["duration"]), FRAMES / 30, delta=0.05)
        apng = ffprobe(self.made("apng"), "-count_frames")["streams"][0]
        self.assertEqual(apng["codec_name"], "apng")
        self.assertEqual(Fraction(apng["avg_frame_rate"]), 30)
        self.assertEqual(int(apng["nb_read_frames"]), FRAMES)
        webp = mediainfo(self.made("webp"))
        self.assertEqual(webp["General"]["Format"], "WebP")
        still = ffprobe(self.made("png"))["streams"][0]
        self.assertEqual((still["codec_name"], still["width"], still["height"]), ("png", 320, 180))
        with zipfile.ZipFile(self.made("pngs")) as archive:
            self.assertEqual(len(archive.namelist()), FRAMES)
            inside = self.folder / "inside.png"
            inside.write_bytes(archive.read(archive.namelist()[0]))
        self.assertEqual(ffprobe(inside)["streams"][0]["codec_name"], "png")
        svg = self.made("svg").read_text()
        self.assertTrue(svg.startswith(("<?xml", "<svg")))

    def test_odd_rates_are_told(self):
        scene = files.from_data({**files.to_data(small_scene(length=30)), "rate": "30000/1001"})
        for format in ("mp4", "prores"):
            with self.subTest(format):
                stream = ffprobe(self.made(format, scene))["streams"][0]
                self.assertEqual(Fraction(stream["avg_frame_rate"]), Fraction(30000, 1001))

    def test_sound_and_picture_start_together(self):
        """A click at half a second is heard there, within a millisecond, and the track is told."""
        folder = self.folder / "files"
        folder.mkdir()
        samples = np.zeros((RATE, 2), dtype="<i2")
        click = RATE // 2
        samples[click : click + 48] = (24_000 * np.hanning(48))[:, None]
        with wave.open(str(folder / "click.wav"), "wb") as file:
            file.setnchannels(2)
            file.setsampwidth(2)
            file.setframerate(RATE)
            file.writeframes(samples.tobytes())
        sound = {"id": "a1", "kind": "sound", "file": "click.wav", "span": [0, 30]}
        data = scene_data(size=[64, 36], length=30, rate="30", layers=[sound])
        scene = files.from_data(data).in_folder(folder)
        for format, codec in (("mp4", "aac"), ("webm", "opus"), ("prores", "pcm_s16le")):
            with self.subTest(format):
                path = self.made(format, scene)
                told = {each["codec_type"]: each for each in ffprobe(path)["streams"]}
                self.assertEqual(told["audio"]["codec_name"], codec)
                self.assertEqual(int(told["audio"]["sample_rate"]), RATE)
                self.assertEqual(told["audio"]["channels"], 2)
                words = ["ffmpeg", "-v", "error", "-i", path, "-vn", "-f", "f32le", "-"]
                heard = subprocess.run(words, capture_output=True, check=True).stdout
                mono = np.frombuffer(heard, dtype="<f4").reshape(-1, 2).mean(axis=1)
                late_ms = (int(np.abs(mono).argmax()) - (click + 24)) / RATE * 1000
                self.assertLess(abs(late_ms), 1.0)
                # What a codec needs to start with is told, and left out by players.
                self.assertLessEqual(float(told["audio"]["start_time"]), 0)
