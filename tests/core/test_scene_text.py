"""A scene is a text: what is said of it makes the same scene."""

import json
from pathlib import Path
from unittest import TestCase

from balletto.scene import files
from balletto.scene.errors import SceneError
from balletto.sentences.scenes.text import layer_as_text, scene_as_text, scene_from_text

from .amounts import some
from .random_scenes import RandomScenes
from .scenes import scene, scene_data
from .test_saying import near

DEMO = Path(__file__).parents[2] / "web" / "projects" / "demo_scenes"


def whole(made):
    """All that a scene says, to nine decimals."""
    return near(json.loads(made.model_dump_json(by_alias=True)))


def made_of(text):
    return files.from_data(scene_from_text(text))


class LawTest(TestCase):
    def test_random_scenes(self):
        tried = 0
        for seed in range(some(60, 600)):
            with self.subTest(seed=seed):
                try:
                    original = files.from_data(RandomScenes(seed).scene())
                except SceneError:
                    continue  # between its parts it does not fit
                tried += 1
                self.assertEqual(whole(made_of(scene_as_text(original))), whole(original))
        self.assertGreater(tried, 20)

    def test_all_of_the_demo(self):
        for path in sorted(DEMO.glob("*.balletto.json")):
            with self.subTest(path.name):
                original = files.parse(path.read_bytes())
                text = scene_as_text(original)
                self.assertEqual(whole(made_of(text)), whole(original))
                besides = text.count("Besides, ")
                self.assertLess(besides, text.count("\n") / 4, "most of it is said in words")


class TextTest(TestCase):
    def test_it_reads_as_one_would_say_it(self):
        data = scene_data("Two\nmoons “rise”", name="Winter")
        data["layers"][0] |= {"hold_center": True, "blend": "screen", "locked": True}
        data["markers"] = [{"at": 12, "name": "Drop"}, {"at": 40}]
        text = scene_as_text(files.from_data(data))
        for line in (
            "The scene “Winter”.",
            "A marker “Drop” at frame 12.",
            "A marker at frame 40.",
            "Title “Title” (t1), frames 0 to 90",
            r"Reads “Two\nmoons “rise\””.",
            "Holds the centre.",
            "Blended screen with what lies behind.",
            "Locked.",
        ):
            self.assertIn(line, text.splitlines())
        self.assertNotIn("Besides", text)

    def test_what_it_lies_on_and_how_it_fits_are_sentences(self):
        place = {"layer": "t1", "shift": [12.5, -30], "scale": 0.75}
        fits = [
            {"shape": "9:16", "by": "placed", "places": [place]},
            {"shape": "3:2", "by": "filled"},
        ]
        clip = {"kind": "clip", "file": "a.mp4", "fill": "whole", "speed": 0.5, "after": "gone"}
        original = files.from_data(scene_data(fits=fits, background=clip))
        text = scene_as_text(original)
        self.assertIn("on the video “a.mp4”, seen whole, at 50 %, at its end gone.", text)
        self.assertIn(
            "In tall pictures (9:16) with its own places: “t1” 12.5 px right and 30 px above, "
            "75 % large.\nIn pictures (3:2) filled.\n",
            text,
        )
        self.assertNotIn("Besides", text)
        self.assertEqual(whole(made_of(text)), whole(original))

    def test_one_layer_of_it(self):
        head, first, *_ = layer_as_text(scene(), "t1").splitlines()
        self.assertEqual(head, "Title “Title” (t1), frames 0 to 90")
        self.assertEqual(first, "Reads “The Quiet Orbit”.")

    def test_what_is_typed_by_hand_makes_a_scene(self):
        text = "A picture of 800 px by 450 px, at 24 frames a second, 3 s long, "
        text += "on a gradient from #101428 to #3A2150.\n\n"
        text += "Title “Ada” (t1), frames 0 to 72\nReads “Ada Lovelace”.\n"
        text += "Set in Figtree weight 700, 60 px, coloured white.\n"
        text += "Stands 400 px across, 225 px down.\n"
        text += 'letters rise 40, fade, every 2\nBesides, effects: [{"kind": "glow"}].\n'
        made = made_of(text)
        (title,) = made.layers
        self.assertEqual(
            (made.size, made.length, made.background.kind), ((800, 450), 72, "gradient")
        )
        self.assertEqual((title.name, title.text, title.style.size), ("Ada", "Ada Lovelace", 60))
        self.assertEqual((title.moves[0].id, title.effects[0].kind), ("m1", "glow"))

    def test_what_is_wrong_is_told_with_its_line(self):
        head = (
            "A picture of 800 px by 450 px, at 24 frames a second, 24 frames long, on nothing.\n\n"
        )
        layer = "Title “Ada” (t1), frames 0 to 24\nReads “Ada”.\n"
        for text, line in (
            (f"{head}{layer}letters fly about\n", "line 5"),
            (f"{head}Something else\n", "line 3"),
            (f"{head.strip()}\nIn tall pictures (9:16) upside down.\n", "line 2"),
            (f"{head.strip()}\nIn pictures (9:16) filled: “t1” left.\n", "line 2"),
            (f"{head}{layer}Besides, blend: oops.\n", "line 5"),
            (f"{head}{layer}Its way leaves key 2 by 3 px, 4 px.\n", "line 5"),
        ):
            with self.subTest(text), self.assertRaises(SceneError) as refused:
                scene_from_text(text)
            with self.subTest(text):
                self.assertIn(line, str(refused.exception))
        odd = (
            f"{head}{layer.replace('0 to 24', 'inf to nan')}",
            f"{head.strip()}\nA marker at frame 1.2.3.\n",
            f"{head.strip()}\nA marker at frame {'9' * 400}.\n",
            f"{head.strip()}\nIn pictures (3:2) with its own places: “t1” 1.2.3 px left\n",
            f"{head}{layer}Its way leaves key {'9' * 5000} by 1 px, 2 px.\n",
            f"{head}{layer}" + "letters rise 10\n" * 20_000,
        )
        for text in (*odd, "x" * 3_000_000, f"{head}{layer}Besides, nowhere.0.at: 3.\n"):
            with self.assertRaises(SceneError):
                made_of(text)
