"""The commands of the core, as they are called."""

import contextlib
import io
import json
import tempfile
from pathlib import Path
from unittest import TestCase, mock

import av
import numpy as np
from PIL import Image

from balletto.motion.poses import poses
from balletto.picture.frame import Picture, draw_frame
from balletto.scene import files
from balletto.sentences.scenes.text import scene_as_text
from web.command import main

from .fonts import fonts_folder, square_font
from .scenes import scene_data, small_scene

DEMO = Path(__file__).parents[2] / "web" / "projects" / "demo_scenes"


class CommandTest(TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.file = self.folder / "orbit.balletto.json"
        self.scene = small_scene()
        self.file.write_text(files.to_text(files.to_data(self.scene)))

    def run_command(self, *words):
        out, err = io.StringIO(), io.StringIO()
        with (
            mock.patch("sys.argv", ["balletto", *map(str, words)]),
            contextlib.redirect_stdout(out),
            contextlib.redirect_stderr(err),
        ):
            code = main()
        return code, out.getvalue(), err.getvalue()

    def test_frame(self):
        still = self.folder / "still.png"
        code, *_ = self.run_command("frame", self.file, "--at", 12, "-o", still)
        self.assertEqual(code, 0)
        pixels = draw_frame(Picture(self.scene), 12)
        np.testing.assert_array_equal(np.asarray(Image.open(still)), pixels[..., 2::-1])

    def test_render(self):
        clip = self.folder / "clip.mp4"
        code, _, told = self.run_command("render", self.file, "-o", clip, "--frames", "5-14")
        self.assertEqual((code, told), (0, f"{clip}: 10 frames, 0.33 s\n"))
        with av.open(str(clip)) as made:
            self.assertEqual(made.streams.video[0].frames, 10)

    def test_poses(self):
        _, out, _ = self.run_command("poses", self.file, "--layer", "t1", "--frames", "3-4")
        self.assertEqual(json.loads(out), poses(self.scene, "t1", [3, 4]))

    def test_say_and_read(self):
        _, out, _ = self.run_command("say", self.file, "--layer", "t1")
        self.assertTrue(
            out.startswith("Title “Title” (t1), frames 0 to 30\nReads “Orbit”.\nSet in "), out
        )
        for line in out.splitlines()[1:]:
            code, meant, _ = self.run_command("read", line, "--for", self.file, "--layer", "t1")
            self.assertEqual(code, 0, line)
        self.assertIn("move", json.loads(meant))
        code, out, told = self.run_command("read", "letters rise 100, evveery 2")
        self.assertEqual((code, out), (1, ""))
        text, marks, why = told.strip().splitlines()
        self.assertEqual(text[marks.index("^") :][: marks.count("^")], "evveery")
        self.assertIn("is “every” meant?", why)

    def test_fonts_of_a_folder(self):
        data = scene_data("Orbit")
        data["layers"][0]["style"] |= {"font": "Perihelion", "axes": {}}
        self.file.write_text(files.to_text(data))
        fonts = fonts_folder(self.folder / "types", plain=square_font())
        code, out, told = self.run_command("say", self.file)
        self.assertEqual(code, 0)
        self.assertIn("Set in “Perihelion”", out)
        self.assertIn("layers[0].style.font: the font “Perihelion” is not here; Figtree", told)
        pictures = [self.folder / name for name in ("without.png", "with.png")]
        self.run_command("frame", self.file, "--at", "60", "-o", pictures[0])
        _, _, told = self.run_command(
            "frame", self.file, "--at", "60", "-o", pictures[1], "--fonts", fonts
        )
        self.assertEqual(told, "")
        self.assertNotEqual(*(path.read_bytes() for path in pictures))
        code, _, told = self.run_command("say", self.file, "--fonts", self.folder / "nowhere")
        self.assertEqual(code, 1)
        self.assertIn("is no folder with fonts", told)

    def test_make(self):
        text, made = self.folder / "scene.txt", self.folder / "made.balletto.json"
        text.write_text(self.run_command("say", self.file)[1])
        self.assertEqual(self.run_command("make", text, "-o", made), (0, "", ""))
        first, second = (files.parse(path.read_bytes()) for path in (self.file, made))
        self.assertEqual(scene_as_text(second), scene_as_text(first))
        text.write_text("A picture of nothing.")
        code, _, told = self.run_command("make", text, "-o", made)
        self.assertEqual(code, 1)
        self.assertIn("line 1", told)
        text.write_bytes(b"\xff\xfe")
        self.assertIn("is not UTF-8 text", self.run_command("make", text, "-o", made)[2])
        self.assertEqual(self.run_command("make", self.folder / "gone.txt", "-o", made)[0], 1)

    def test_schema(self):
        self.assertEqual(json.loads(self.run_command("schema")[1])["title"], "Balletto scene")

    def test_what_cannot_be_done_is_said(self):
        bad = self.folder / "bad.json"
        bad.write_text('{"format": "balletto-scene", "version": 1}')
        odd = self.folder / "odd.json"
        odd.write_text(files.to_text({**files.to_data(self.scene), "size": [321, 180]}))
        nowhere = self.folder / "nowhere.json"
        for words, said in (
            (["frame", nowhere, "-o", "x.png"], "cannot be read: No such file"),
            (["frame", bad, "-o", "x.png"], "size: this is needed and not there"),
            (["render", odd, "-o", self.folder / "x.mp4"], "Make it 322 × 180"),
            (["render", self.file, "-o", "x.mp4", "--frames", "9-99"], "within 0-29"),
            (["render", self.file, "-o", "x.mp4", "--frames", "all"], "--frames takes A-B"),
            (["poses", self.file, "--layer", "t7"], "the layers are: t1"),
            (["say", self.file, "--layer", "t7"], "the layers are: t1"),
            (["read", "rise", "--for", self.file, "--layer", "t7"], "the layers are: t1"),
        ):
            with self.subTest(words[0]):
                code, _, told = self.run_command(*words)
                self.assertEqual(code, 1)
                self.assertIn(said, told)
