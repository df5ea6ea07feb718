"""The size of a clip told before it is made comes true within half as much again."""

import tempfile
from pathlib import Path
from unittest import TestCase, mock

from balletto.clip.export_settings import usual_settings
from balletto.clip.formats import FORMATS
from balletto.clip.likely import likely_bytes
from balletto.clip.render import render
from balletto.scene import files

from .scenes import small_scene

DEMO = Path(__file__).parents[2] / "web" / "projects" / "demo_scenes"


def demo(name):
    path = next(DEMO.glob(f"*-{name}.balletto.json"))
    return files.parse(path.read_text()).in_folder(DEMO / "files")


class LikelyTest(TestCase):
    def check(self, scene, format, size, is_slow=False):
        """Into how many pieces it is cut depends on how fast this machine draws it just now: on a
        busy one the answer may change between telling and making."""
        export = usual_settings(scene, format, size=size)
        if FORMATS[format].is_still:
            export = export._replace(frames=range(20, 21))
        with (
            tempfile.TemporaryDirectory() as folder,
            mock.patch("balletto.clip.likely.is_slow", return_value=is_slow),
            mock.patch("balletto.clip.render.is_slow", return_value=is_slow),
        ):
            path = Path(folder) / f"clip{FORMATS[format].suffix}"
            render(scene, export, path)
            ratio = likely_bytes(scene, export) / path.stat().st_size
        self.assertTrue(1 / 1.5 < ratio < 1.5, ratio)

    def test_a_plain_title_in_every_format(self):
        for format in FORMATS:
            with self.subTest(format):
                self.check(small_scene(length=60), format, (320, 180))

    def test_scenes_of_the_demo(self):
        for name, formats in (("opening", ("mp4", "gif")), ("speaker", ("webm", "webp"))):
            for format in formats:
                with self.subTest(name, format=format):
                    self.check(demo(name), format, (320, 180), is_slow=True)
