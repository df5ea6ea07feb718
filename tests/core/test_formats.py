"""Every format opened again: size, rate, frames, duration, transparency, colours, loops."""

import io
import json
import tempfile
import zipfile
from fractions import Fraction
from pathlib import Path
from unittest import TestCase, mock
from xml.etree import ElementTree

import av
import numpy as np
from PIL import Image, ImageSequence

from balletto.clip import render as clips
from balletto.clip.animations import durations, palette_of
from balletto.clip.drawings import svg
from balletto.clip.errors import ClipError
from balletto.clip.export_settings import ExportSettings, clip_times, export_settings_of
from balletto.clip.formats import FORMATS, check_settings, format_for
from balletto.clip.render import render
from balletto.picture.frame import Picture, draw_frame
from balletto.picture.stills import straight_rgba
from balletto.scene import files

from .scenes import scene_data, small_scene
from .test_pictures import SLIDE, shape, title

RATE = Fraction(30)
RED, TEAL = (200, 64, 44), (43, 181, 160)


def colored(background="#2BB5A0"):
    """A red square in the middle of a ground, or of nothing, for 12 frames."""
    square = shape(
        shape={"kind": "rectangle", "size": [80, 80]},
        fill="#C8402C",
        stroke=None,
        transform={"position": [160, 90, 0]},
    )
    ground = {"kind": "color", "color": background} if background else {"kind": "none"}
    data = scene_data(layers=[square], size=[320, 180], length=12, background=ground)
    return files.from_data(data)


def _pixels(file):
    return np.asarray(Image.open(file).convert("RGBA"))


class FormatTest(TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def made(self, name, scene, size=(320, 180), rate=RATE, **more):
        self.path = self.folder / f"clip-{name}{FORMATS[name].suffix}"
        frames = more.pop("frames", range(scene.length))
        self.count = render(scene, ExportSettings(name, size, rate, frames, **more), self.path)
        self.assertEqual([each.name for each in self.folder.iterdir() if each.name[0] == "."], [])
        return self.path

    def video(self, path):
        """All frames as RGBA, and what the file says of them."""
        with av.open(str(path)) as clip:
            stream = clip.streams.video[0]
            if {key.lower() for key in stream.metadata} & {"alpha_mode"}:
                # The decoder that is chosen by itself leaves the transparency out.
                context = av.CodecContext.create("libvpx-vp9", "r")
                frames = [f for packet in clip.demux(stream) for f in context.decode(packet)]
            else:
                frames = list(clip.decode(stream))
            about = (
                stream.average_rate,
                stream.codec_context.colorspace,
                stream.width,
                stream.height,
            )
            return [frame.to_ndarray(format="rgba") for frame in frames], about

    def near(self, pixels, wanted, name):
        np.testing.assert_allclose(pixels[90, 160, :3].astype(int), wanted, atol=2, err_msg=name)

    def test_videos_have_their_frames_rate_size_and_colours(self):
        for name in ("mp4", "webm", "webm-alpha", "webm-av1", "prores"):
            with self.subTest(name):
                frames, about = self.video(self.made(name, colored(), quality=95))
                self.assertEqual(len(frames), 12)
                self.assertEqual(about, (30, 1, 320, 180))
                self.near(frames[6], RED, name)
                np.testing.assert_allclose(frames[6][20, 20, :3].astype(int), TEAL, atol=2)

    def test_what_is_transparent_stays_so_where_the_format_can(self):
        for name in ("webm-alpha", "prores", "apng"):
            with self.subTest(name):
                frames, _ = self.video(self.made(name, colored(None), quality=95))
                self.assertEqual(frames[3][20, 20, 3], 0)
                self.assertGreaterEqual(frames[3][90, 160, 3], 254)
                self.near(frames[3], RED, name)

    def test_animated_pictures(self):
        for name, loops in (("gif", 0), ("webp", 3), ("apng", 2)):
            for ground in ("#2BB5A0", None):
                with self.subTest(name, ground=ground):
                    path = self.made(name, self.moving(ground), loops=loops, quality=100)
                    image = Image.open(path)
                    self.addCleanup(image.close)
                    self.assertEqual((image.size, image.n_frames), ((320, 180), 12))
                    self.assertEqual(image.info.get("loop"), loops)
                    total = 0
                    for number in range(12):
                        image.seek(number)
                        image.load()
                        total += image.info["duration"]
                        pixels = np.asarray(image.convert("RGBA"))
                        self.near(pixels, RED, name)
                        self.assertEqual(pixels[20, 20, 3], 255 if ground else 0)
                    self.assertAlmostEqual(total, 400, delta=10)

    def moving(self, ground):
        """The square growing, so that no two frames are alike."""
        data = files.to_data(colored(ground))
        keys = [{"at": 0, "value": [60, 60]}, {"at": 12, "value": [160, 100]}]
        data["layers"][0]["shape"]["size"] = {"keys": keys}
        return files.from_data(data)

    def test_numbered_stills(self):
        with zipfile.ZipFile(self.made("pngs", colored(None))) as stills:
            names = stills.namelist()
            self.assertEqual(names, [f"frame-{number:05d}.png" for number in range(12)])
            image = Image.open(io.BytesIO(stills.read(names[5])))
            pixels = np.asarray(image.convert("RGBA"))
            self.assertEqual(pixels[90, 160].tolist(), [*RED, 255])
            self.assertEqual(pixels[20, 20, 3], 0)

    def test_another_size_and_rate(self):
        scene = small_scene(length=30)
        frames, about = self.video(self.made("webm", scene, (640, 360), Fraction(24), quality=90))
        self.assertEqual((len(frames), about[0], about[2:]), (24, 24, (640, 360)))
        times = clip_times(scene, ExportSettings("webm", (640, 360), Fraction(24), range(30)))
        self.assertEqual(times[:3], [0, 1.25, 2.5])
        picture = Picture(scene)
        for number in (4, 11, 20):
            wanted = draw_frame(picture, times[number], (640, 360))[..., 2::-1]
            difference = np.abs(frames[number][..., :3].astype(int) - wanted)
            self.assertLess(difference.mean(), 3)

    def test_what_does_not_fit_is_told_before(self):
        odd = ExportSettings("mp4", (321, 180), RATE, range(12))
        with self.assertRaisesRegex(ClipError, "even width and height.*Make it 322 × 180"):
            check_settings(odd)
        check_settings(odd._replace(format="gif"))
        with self.assertRaisesRegex(ClipError, "GIF plays at most 50 frames a second.*has 60"):
            check_settings(ExportSettings("gif", (320, 180), Fraction(60), range(12)))
        with self.assertRaisesRegex(ClipError, "PNG still holds one frame, not 12"):
            check_settings(odd._replace(format="png"))
        with self.assertRaisesRegex(ClipError, "“.avi”. There are: mp4"):
            format_for(Path("clip.avi"))
        self.assertEqual(format_for(Path("a.webm"), "webm-av1"), "webm-av1")

    def test_how_a_clip_is_made_is_kept_as_plain_data(self):
        export = ExportSettings(
            "webp", (320, 180), Fraction(30000, 1001), range(3, 9), "filled", 60, 2
        )
        self.assertEqual(export_settings_of(json.loads(json.dumps(export.to_data()))), export)

    def test_pieces_put_together_are_the_whole(self):
        for name in FORMATS.keys() - {"mp4", "png", "svg"}:  # mp4: see test_clip
            with self.subTest(name):
                scene = self.moving(None if FORMATS[name].has_alpha else "#2BB5A0")
                whole = self.read(self.made(name, scene, quality=95))
                with mock.patch.object(clips, "SEGMENT_FRAMES", 5):
                    pieces = self.read(self.made(name, scene, quality=95))
                self.assertEqual(len(pieces), 12)
                for one, other in zip(whole, pieces, strict=True):
                    self.assertLess(np.abs(one.astype(int) - other).mean(), 1.0)

    def read(self, path):
        """All frames of a file, whatever it is."""
        if path.suffix == ".zip":
            with zipfile.ZipFile(path) as stills:
                return [_pixels(io.BytesIO(stills.read(name))) for name in stills.namelist()]
        if path.suffix in (".gif", ".webp"):
            with Image.open(path) as image:
                return [np.asarray(f.convert("RGBA")) for f in ImageSequence.Iterator(image)]
        return self.video(path)[0]

    def test_a_still(self):
        pixels = _pixels(self.made("png", self.moving(None), frames=range(7, 8)))
        self.assertEqual(pixels.shape, (180, 320, 4))
        wanted = straight_rgba(draw_frame(Picture(self.moving(None)), 7))
        np.testing.assert_array_equal(pixels, wanted)

    def test_a_render_that_stops_leaves_no_file(self):
        def stop(done):
            raise KeyboardInterrupt

        path = self.folder / "clip.webm"
        with self.assertRaises(KeyboardInterrupt):
            render(colored(), ExportSettings("webm", (320, 180), RATE, range(12)), path, stop)
        self.assertEqual(list(self.folder.iterdir()), [])


class TimesAndColoursTest(TestCase):
    def test_times_add_up_whatever_the_rate(self):
        for rate in (Fraction(30), Fraction(24), Fraction(30000, 1001), Fraction(50)):
            for step in (1, 10):
                shown = durations(rate, step)
                passed = 0
                for number in range(1, 200):
                    passed += next(shown)
                    self.assertLessEqual(abs(passed - number * 1000 / rate), step / 2 + 1e-9)

    def test_few_colours_are_all_in_the_palette(self):
        pixels = np.zeros((20, 20, 4), dtype=np.uint8)
        pixels[..., 3] = 255
        pixels[:5, :, :3] = (44, 64, 200)
        palette = palette_of([pixels])
        self.assertEqual(palette.shape, (255, 3))
        for color in (RED, (0, 0, 0)):
            self.assertIn(list(color), palette.tolist())

    def test_many_colours_keep_the_most_frequent_exactly(self):
        ramp = np.arange(256 * 256, dtype=np.uint32)
        pixels = np.full((300, 300, 4), 255, dtype=np.uint8)
        pixels[:200, :, :3] = (44, 64, 200)
        flat = pixels[200:].reshape(-1, 4)
        flat[:, 0], flat[:, 1] = ramp[: len(flat)] % 256, ramp[: len(flat)] // 256
        palette = palette_of([pixels])
        self.assertEqual(palette[0].tolist(), list(RED))
        self.assertGreater(len(np.unique(palette, axis=0)), 200)


class DrawingTest(TestCase):
    """SVG stills: what is in them, and what is said where they cannot be. That they look as the
    frame does is seen in a browser, see tests.browser.test_drawings."""

    def svg(self, *layers, frame=0, **more):
        data = scene_data(size=[160, 90], length=30, layers=list(layers), **more)
        return svg(Picture(files.from_data(data)), frame, (320, 180))

    def test_letters_are_paths_in_the_place_of_the_scene(self):
        text = self.svg(title())
        root = ElementTree.fromstring(text)
        self.assertEqual((root.get("width"), root.get("viewBox")), ("320", "0 0 160 90"))
        paths = root.findall(".//{http://www.w3.org/2000/svg}path")
        self.assertEqual(len(paths), 3)
        self.assertEqual({path.get("fill") for path in paths}, {"#F2B705"})

    def test_what_dresses_them_is_in_it(self):
        mask = {"kind": "ellipse", "size": [60, 40], "feather": 4}
        effects = [{"kind": "glow"}, {"kind": "tint"}]
        text = self.svg(title(effects=effects, masks=[mask], blend="screen"))
        for told in ("feGaussianBlur", "feColorMatrix", "<mask", "mix-blend-mode: screen"):
            self.assertIn(told, text)

    def test_what_cannot_be_said_is_refused_with_what_would_do(self):
        moving = {**SLIDE, "id": "m1"}
        for told, layer in (
            ("what motion blurs", title(moves=[moving], motion_blur={"angle": 180})),
            ("“directional blur”", title(effects=[{"kind": "directional-blur"}])),
            ("made narrower", title(masks=[{"kind": "ellipse", "expand": -4}])),
        ):
            with self.assertRaisesRegex(ClipError, f"{told}.*Choose a PNG still"):
                self.svg(layer, frame=8)
        # What does nothing at that frame needs not be said.
        still = {"kind": "directional-blur", "length": 0}
        self.assertIn("<path", self.svg(title(effects=[still])))
