"""Sound layers: what is heard, how loud and when; and that it is in the clip."""

import tempfile
import tracemalloc
from pathlib import Path
from unittest import TestCase, mock

import av
import numpy as np

from balletto.clip import mixing
from balletto.clip.errors import ClipError
from balletto.clip.export_settings import usual_settings
from balletto.clip.mixing import mixed
from balletto.clip.render import render
from balletto.clip.sound import write_wav
from balletto.hearing.samples import RATE, SoundError, read
from balletto.scene import files

from .media import media_folder, mix
from .scenes import scene_data

PEAK = 0.5  # of bell.wav, a tone of one second


def sound(**changes):
    return {"id": "a1", "kind": "sound", "file": "bell.wav", "span": [0, 60], **changes}


def scene(*layers, **more):
    data = scene_data(size=[64, 36], length=60, rate="30", layers=list(layers), **more)
    return files.from_data(data).in_folder(media_folder())


def loudest(samples, first, end):
    """The highest peak between two frames, at 30 a second."""
    return float(np.abs(samples[:, int(first * RATE / 30) : int(end * RATE / 30)]).max(initial=0))


class MixTest(TestCase):
    def test_it_is_heard_in_its_span(self):
        heard = mix(scene(sound(span=[15, 30])))
        self.assertEqual(heard.shape, (2, 2 * RATE))
        self.assertEqual(loudest(heard, 0, 15), 0)
        self.assertAlmostEqual(loudest(heard, 15, 30), PEAK, places=3)
        self.assertEqual(loudest(heard, 30, 60), 0)

    def test_gain_in_decibels_and_keyed(self):
        self.assertAlmostEqual(loudest(mix(scene(sound(gain=-20))), 0, 30), PEAK / 10, places=3)
        keys = {"keys": [{"at": 0, "value": -60}, {"at": 30, "value": 0}]}
        heard = mix(scene(sound(gain=keys)))
        self.assertLess(loudest(heard, 0, 3), 0.01)
        self.assertAlmostEqual(loudest(heard, 28, 30), PEAK, delta=0.06)

    def test_fades(self):
        heard = mix(scene(sound(fade_in=0.5, fade_out=0.5)))
        self.assertAlmostEqual(loudest(heard, 7, 8), PEAK * 0.5, delta=0.03)
        self.assertAlmostEqual(loudest(heard, 22, 23), PEAK * 0.5, delta=0.03)
        self.assertLess(loudest(heard, 29.8, 30), 0.02)

    def test_a_later_start_and_several_at_once(self):
        short = mix(scene(sound(start=0.9)))
        self.assertAlmostEqual(loudest(short, 0, 2.9), PEAK, places=2)
        self.assertEqual(loudest(short, 3.1, 60), 0)
        both = mix(scene(sound(gain=-6), sound(id="a2", gain=-6)))
        self.assertAlmostEqual(loudest(both, 0, 30), PEAK * 2 * 10 ** (-6 / 20), places=2)
        loud = mix(scene(sound(gain=20)))
        self.assertEqual(loudest(loud, 0, 30), 1.0)

    def test_only_what_is_on_is_heard(self):
        self.assertEqual(loudest(mix(scene(sound(on=False))), 0, 60), 0)

    def test_what_a_nested_scene_sounds_is_heard_with_it(self):
        inner = scene_data(size=[64, 36], length=30, rate="30", layers=[sound(span=[10, 30])])
        used = [{"id": "bell", "scene": inner}]
        uses = {"id": "n1", "kind": "scene", "scene": "bell", "span": [20, 60]}
        heard = mix(scene(uses, scenes=used))
        self.assertEqual(loudest(heard, 0, 30), 0)
        self.assertAlmostEqual(loudest(heard, 30, 40), PEAK, places=2)
        self.assertEqual(loudest(heard, 50.1, 60), 0)
        again = mix(scene({**uses, "after": "loop"}, scenes=used))
        self.assertAlmostEqual(loudest(again, 60 - 1, 60), 0, places=3)
        shifted = mix(scene({**uses, "shift": 10}, scenes=used))
        self.assertAlmostEqual(loudest(shifted, 20, 21), PEAK, places=2)

    def test_blocks_of_any_length_make_the_same(self):
        inner = scene_data(size=[64, 36], length=40, rate="25", layers=[sound(span=[5, 30])])
        more = {"scenes": [{"id": "bell", "scene": inner}]}
        uses = {"id": "n1", "kind": "scene", "scene": "bell", "span": [-4, 55], "after": "loop"}
        made = scene(sound(span=[-7, 40], start=0.2, fade_out=0.3), {**uses, "shift": -9}, **more)
        whole = mix(made)
        for length in (1, 777, RATE):
            frames = range(10, 11) if length == 1 else range(13, 50)
            first, end = (round(frame / 30 * RATE) for frame in (frames.start, frames.stop))
            with mock.patch.object(mixing, "BLOCK", length):
                np.testing.assert_array_equal(mix(made, frames), whole[:, first:end])

    def test_a_long_scene_takes_no_more_memory(self):
        inner = scene_data(size=[64, 36], length=30, rate="30", layers=[sound(span=[0, 30])])
        uses = {"id": "n1", "kind": "scene", "scene": "bell", "span": [0, 9000], "after": "loop"}
        made = scene(uses, scenes=[{"id": "bell", "scene": inner}])
        made = made.model_copy(update={"length": 9000})
        tracemalloc.start()
        self.addCleanup(tracemalloc.stop)
        count = sum(block.shape[1] for block in mixed(made))
        self.assertEqual(count, 300 * RATE)
        self.assertLess(tracemalloc.get_traced_memory()[1], 20 * 2**20)


class TrackTest(TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def test_it_is_in_the_clip(self):
        for name, suffix, codec in (
            ("mp4", "mp4", "aac"),
            ("webm", "webm", "opus"),
            ("prores", "mov", "pcm_s16le"),
        ):
            with self.subTest(name):
                path = self.folder / f"clip.{suffix}"
                made = scene(sound(span=[30, 60]))
                render(made, usual_settings(made, name, frames=range(15, 60)), path)
                with av.open(str(path)) as clip:
                    self.assertEqual(clip.streams.audio[0].codec_context.name, codec)
                    self.assertEqual(sum(1 for _ in clip.decode(video=0)), 45)
                heard = read(path)
                self.assertLess(loudest(heard, 0, 13), 0.01)
                self.assertAlmostEqual(loudest(heard, 18, 40), PEAK, delta=0.03)

    def test_a_silent_scene_has_no_track(self):
        path = self.folder / "clip.mp4"
        render(made := scene(), usual_settings(made), path)
        with av.open(str(path)) as clip:
            self.assertEqual(len(clip.streams.audio), 0)

    def test_formats_that_are_read(self):
        samples = read(media_folder() / "bell.wav")
        for suffix, codec in (("flac", "flac"), ("mp3", "mp3"), ("ogg", "libopus")):
            with self.subTest(suffix):
                path = self.folder / f"bell.{suffix}"
                with av.open(str(path), "w") as file:
                    stream = file.add_stream(codec, rate=RATE)
                    stream.layout = "stereo"
                    kind = stream.codec_context.format.name
                    resampler = av.AudioResampler(kind, "stereo", RATE, frame_size=1152)
                    frame = av.AudioFrame.from_ndarray(samples, format="fltp", layout="stereo")
                    frame.sample_rate = RATE
                    for ready in (*resampler.resample(frame), *resampler.resample(None)):
                        file.mux(stream.encode(ready))
                    file.mux(stream.encode(None))
                self.assertAlmostEqual(loudest(read(path), 3, 25), PEAK, delta=0.05)

        self.assertIn("vorbis", av.codecs_available)  # of older OGG files

    def test_a_broken_file_is_said(self):
        path = self.folder / "bell.wav"
        path.write_bytes(b"no sound")
        with self.assertRaisesRegex(SoundError, "bell.wav cannot be read"):
            read(path)
        with self.assertRaisesRegex(ClipError, "bell.wav cannot be read"):
            mix(scene(sound(file="bell.wav")).in_folder(self.folder))

    def test_samples_are_kept_as_they_are(self):
        samples = read(media_folder() / "bell.wav")
        path = self.folder / "again.wav"
        write_wav(path, [samples])
        np.testing.assert_allclose(read(path), samples, atol=1e-4)
