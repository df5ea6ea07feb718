"""Loudness and beats of sounds, the moves that go by them, and markers that moves start at."""

import tempfile
from pathlib import Path
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from balletto.clip.sound import write_wav
from balletto.hearing.beats import beats
from balletto.hearing.loudness import STEP, loudness
from balletto.hearing.samples import RATE, SoundError
from balletto.motion.reach import reach_of
from balletto.motion.spaces.layer_motion import units_of_move
from balletto.scene.document import Scene
from balletto.scene.edits import apply
from balletto.scene.edits.paths import start_of
from balletto.scene.edits.structure.copies import copied_layers
from balletto.scene.errors import SceneError
from balletto.scene.files import from_data
from balletto.scene.selectors.loudness import LoudnessSelector
from balletto.sentences.moves.wording import move_text
from balletto.sentences.reader import read

from .scenes import scene_data


def tone(seconds: float, hertz: float, level: float = 0.5) -> np.ndarray:
    wave = level * np.sin(2 * np.pi * hertz * np.arange(round(seconds * RATE)) / RATE)
    return np.stack([wave, wave]).astype(np.float32)


def drums(at: list[float], seconds: float) -> np.ndarray:
    """Short thuds at some times, over a soft tone."""
    samples = tone(seconds, 330, 0.02)
    thud = tone(0.3, 90, 0.8) * np.exp2(-np.arange(round(0.3 * RATE)) / RATE / 0.02)
    for each in at:
        first = round(each * RATE)
        part = thud[:, : samples.shape[1] - first]
        samples[:, first : first + part.shape[1]] += part.astype(np.float32)
    return samples


class HearingTest(TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def file(self, samples: np.ndarray, name: str = "sound.wav") -> Path:
        path = self.folder / name
        write_wav(path, [samples])
        return path

    def scene(self, *layers: dict, **move: object) -> Scene:
        data = scene_data("AB", length=120, rate="30")
        data["layers"][0]["moves"] = [
            {"id": "m1", "pose": {"scale": 2}, "reach": [{"kind": "loudness", "smooth": 0}], **move}
        ]
        data["layers"] += layers
        return from_data(data).in_folder(self.folder)

    def weights(self, scene: Scene, times: list[float]) -> np.ndarray:
        title = scene.titles[0]
        move = title.moves[0]
        return reach_of(move.reach, units_of_move(scene, title, move), np.array(times))


class LoudnessTest(HearingTest):
    def test_steps_of_level_are_followed_in_shares_of_the_loudest(self) -> None:
        levels = [0.1, 0.8, 0.4]
        path = self.file(np.concatenate([tone(1, 440, level) for level in levels], axis=1))
        heard = loudness(path).at(np.array([0.5, 1.5, 2.5]), "all", 0.1)
        np.testing.assert_allclose(heard, np.array(levels) / 0.8, atol=0.01)

    def test_bands_hear_their_own_tones(self) -> None:
        path = self.file(np.concatenate([tone(1, hertz) for hertz in (80, 700, 6000)], axis=1))
        measured = loudness(path)
        for band, at in (("low", 0.5), ("middle", 1.5), ("high", 2.5)):
            there = measured.at(np.array([0.5, 1.5, 2.5]), band, 0.1)
            self.assertEqual([0.5, 1.5, 2.5][int(there.argmax())], at)
            self.assertGreater(there.max(), 0.9)
            self.assertLess(np.sort(there)[1], 0.1)

    def test_silence_is_nothing_and_lasts_as_long(self) -> None:
        path = self.file(np.zeros((2, RATE), dtype=np.float32))
        measured = loudness(path)
        self.assertAlmostEqual(measured.seconds, 1, delta=2 * STEP)
        self.assertEqual(measured.at(np.array([0.5]), "all", 0.1)[0], 0)

    def test_a_file_that_changed_is_measured_anew(self) -> None:
        self.assertGreater(
            loudness(self.file(tone(1, 440))).at(np.array([0.5]), "all", 0.1)[0], 0.9
        )
        path = self.file(np.zeros((2, 2 * RATE), dtype=np.float32))
        self.assertEqual(loudness(path).at(np.array([0.5]), "all", 0.1)[0], 0)

    def test_what_is_no_sound_is_told(self) -> None:
        path = self.folder / "no.wav"
        path.write_bytes(b"nothing")
        with self.assertRaisesRegex(SoundError, "no.wav cannot be read"):
            loudness(path)

    @settings(max_examples=10, deadline=None)
    @given(st.floats(0, 3), st.floats(0.05, 1), st.integers(1, 5))
    def test_smoothing_gives_the_mean_about_a_time(self, at: float, over: float, seed: int) -> None:
        noise = np.random.default_rng(seed).normal(0, 0.2, (2, 3 * RATE)).astype(np.float32)
        measured = loudness(self.file(noise * np.linspace(0, 1, 3 * RATE, dtype=np.float32)))
        fine = np.linspace(at - over / 2, at + over / 2, 400)
        mean = measured.at(fine, "all", STEP).mean()
        self.assertAlmostEqual(float(measured.at(np.array(at), "all", over)), mean, delta=0.03)


class BeatsTest(HearingTest):
    def test_thuds_are_found_where_they_are(self) -> None:
        at = [0.3, 0.8, 1.3, 1.55, 2.3]
        found = beats(self.file(drums(at, 3)))
        self.assertEqual(len(found), len(at), found)
        np.testing.assert_allclose(found, at, atol=0.03)

    def test_an_even_tone_and_silence_have_none_on_the_way(self) -> None:
        even = beats(self.file(tone(3, 440)))
        self.assertFalse([at for at in even if 0.1 < at < 2.9], even)
        self.assertEqual(len(beats(self.file(np.zeros((2, RATE), dtype=np.float32)))), 0)


class SelectorTest(HearingTest):
    def test_letters_go_with_a_sound_layer_in_its_span(self) -> None:
        self.file(np.concatenate([tone(1, 440, 0), tone(1, 440, 0.5)], axis=1))
        sound = {"kind": "sound", "id": "s1", "file": "sound.wav", "span": [30, 90]}
        found = self.weights(self.scene(sound), [15, 45, 75, 100])
        np.testing.assert_allclose(found[:, 0], [0, 0, 1, 0], atol=0.02)
        np.testing.assert_array_equal(found[:, 0], found[:, 1])

    def test_gain_fades_and_where_it_begins_count(self) -> None:
        self.file(np.concatenate([tone(1, 440, 0.25), tone(3, 440, 0.5)], axis=1))
        sound = {"kind": "sound", "id": "s1", "file": "sound.wav", "span": [0, 90], "start": 1,
                 "gain": -6, "fade_in": 2}  # fmt: skip
        found = self.weights(self.scene(sound), [30, 75])[:, 0]
        np.testing.assert_allclose(found, np.array([0.5, 1]) * 10 ** (-6 / 20), atol=0.01)

    def test_one_sound_of_several_or_all_together(self) -> None:
        self.file(tone(4, 440), "one.wav")
        self.file(np.zeros((2, 4 * RATE), dtype=np.float32), "other.wav")
        layers = [
            {"kind": "sound", "id": f"s{n}", "file": name, "span": [0, 120]}
            for n, name in enumerate(("one.wav", "other.wav"))
        ]
        for sound, loud in ((None, 1), ("s0", 1), ("s1", 0), ("one.wav", 1), ("gone.wav", 0)):
            reach = {"kind": "loudness", **({"sound": sound} if sound else {})}
            scene = self.scene(*layers, reach=[reach])
            self.assertAlmostEqual(self.weights(scene, [60])[0, 0], loud, delta=0.02, msg=sound)

    def test_a_sound_that_goes_is_let_go(self) -> None:
        self.file(tone(4, 440))
        data = scene_data("AB")
        data["layers"][0]["moves"] = [
            {"id": "m1", "reach": [{"kind": "loudness", "sound": "s1", "band": "low"}]}
        ]
        data["layers"].append({"kind": "sound", "id": "s1", "file": "sound.wav", "span": [0, 9]})
        without, *_ = apply(data, {"name": "remove-layer", "layer": "s1"})
        self.assertEqual(
            without["layers"][0]["moves"][0]["reach"], [{"kind": "loudness", "band": "low"}]
        )
        alone = copied_layers(data, ["t1"], same_scene=False)
        self.assertNotIn("sound", alone[0]["moves"][0]["reach"][0])

    def test_it_is_said_and_read(self) -> None:
        for reach in (
            {"kind": "loudness"},
            {"kind": "loudness", "sound": "s1", "band": "low", "smooth": 8},
            {"kind": "loudness", "sound": "a song.mp3", "gain": 1.5},
        ):
            move = self.scene(reach=[reach]).titles[0].moves[0]
            made = LoudnessSelector.model_validate(read(move_text(move)).data["reach"][0])
            self.assertEqual(made, move.reach[0])

    def test_pulsing_with_the_music_is_one_phrase(self) -> None:
        move = read("letters pulse with the music").data
        self.assertEqual(move["pose"], {"scale": 1.2})
        self.assertEqual(move["reach"], [{"kind": "loudness", "band": "low"}])
        self.assertNotIn("amount", move)


class MarkerTest(TestCase):
    def data(self, **move: object) -> dict:
        data = scene_data("AB")
        data["markers"] = [{"at": 24, "name": "Drop"}, {"at": 40, "name": "Beat 1"}]
        data["layers"][0]["moves"] = [{"id": "m1", "pose": {"y": 9}, "marker": "Drop", **move}]
        return data

    def start(self, data: dict) -> float:
        return from_data(data).titles[0].moves[0].start

    def test_a_move_starts_at_its_marker_and_goes_along(self) -> None:
        for move, start in (({}, 24), ({"start": 30}, 30)):
            data = self.data(**move)
            self.assertEqual(self.start(data), start)
            moved, *_ = apply(data, {"name": "change-marker", "index": 0, "at": 28})
            self.assertEqual(self.start(moved), start + 4)
            named, *_ = apply(data, {"name": "change-marker", "index": 0, "marker_name": "Bang"})
            self.assertEqual(self.start(named), start)
            self.assertEqual(named["layers"][0]["moves"][0]["marker"], "Bang")
            gone, *_ = apply(data, {"name": "remove-marker", "index": 0})
            self.assertEqual(self.start(gone), start)
            self.assertNotIn("marker", gone["layers"][0]["moves"][0])
            alone = copied_layers(data, ["t1"], same_scene=False)[0]["moves"][0]
            self.assertEqual((alone["start"], "marker" in alone), (start, False))

    def test_a_marker_that_is_not_there_is_told(self) -> None:
        with self.assertRaisesRegex(SceneError, "there is no marker “Boom”"):
            from_data(self.data(marker="Boom"))

    def test_keys_count_from_the_marker_on(self) -> None:
        self.assertEqual(start_of(self.data(), "t1.moves.m1.amount"), 24)

    def test_beats_are_set_again_in_place_of_those_before(self) -> None:
        data = self.data()
        beats, *_ = apply(data, {"name": "set-beats", "times": [10, 5.5, 20]})
        found = [(each["name"], each["at"]) for each in beats["markers"]]
        self.assertEqual(found, [("Beat 1", 5.5), ("Beat 2", 10), ("Beat 3", 20), ("Drop", 24)])
        beats["layers"][0]["moves"][0]["marker"] = "Beat 3"
        fewer, *_ = apply(beats, {"name": "set-beats", "times": [7]})
        self.assertEqual(self.start(fewer), 20)

    def test_it_is_said_and_read(self) -> None:
        for move, words in (
            ({}, "at marker “Drop”"),
            ({"start": 30}, "from frame 30 on, along with"),
        ):
            model = from_data(self.data(**move)).titles[0].moves[0]
            text = move_text(model)
            self.assertIn(words, text)
            made = read(text).data
            self.assertEqual((made["marker"], made.get("start")), ("Drop", move.get("start")))

    def test_starting_at_a_marker_is_an_edit(self) -> None:
        edit = {"name": "start-at-marker", "path": "t1.moves.m1"}
        at, *_ = apply(self.data(start=3), {**edit, "value": "Beat 1"})
        self.assertEqual(self.start(at), 40)
        off, *_ = apply(at, {**edit, "value": None})
        self.assertEqual(off["layers"][0]["moves"][0].get("start"), 40)
        self.assertNotIn("marker", off["layers"][0]["moves"][0])
