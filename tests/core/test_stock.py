"""What ships: backgrounds without a seam, sounds, shapes."""

from unittest import TestCase

import numpy as np

from balletto.picture.pixels.media import about
from balletto.scene.files import from_data
from balletto.scene.forms.outlines import commands_of
from balletto.scene.starts import new_shape
from balletto.sentences.layers.shapes import shape_text
from balletto.sentences.reader import read
from balletto.stock import FOLDER, STOCK, stock_path
from balletto.stock.backgrounds import BACKGROUNDS
from balletto.stock.shapes import SHAPES
from balletto.stock.sounds import MADE, made

from .scenes import scene_data


class StockTest(TestCase):
    def test_all_that_is_offered_is_there_and_nothing_else(self) -> None:
        self.assertEqual({path.name for path in FOLDER.iterdir()}, set(STOCK))
        for file in STOCK.values():
            found = about(FOLDER / file.name)
            self.assertEqual((found.kind, tuple(found.size)), (file.kind, file.size), file.name)
        self.assertLess(sum(path.stat().st_size for path in FOLDER.iterdir()), 8_000_000)
        clicks = [path.stat().st_size for path in FOLDER.glob("click-*.wav")]
        self.assertLess(sum(clicks), 40_000)

    def test_sounds_are_as_they_are_made(self) -> None:
        for name in MADE:
            self.assertEqual((FOLDER / f"{name}.wav").read_bytes(), made(name), name)

    def test_backgrounds_come_round_without_a_seam(self) -> None:
        for name, background in BACKGROUNDS.items():
            draw = background.make()
            first, again = draw(0.0), draw(1.0)
            np.testing.assert_allclose(first, again, atol=1e-6, err_msg=name)
            self.assertGreater(np.abs(draw(0.4) - first).max(), 0.02, name)

    def test_scenes_find_them_without_a_folder(self) -> None:
        scene = from_data(scene_data(background={"kind": "clip", "file": "stock-stars.mp4"}))
        self.assertEqual(scene.path_of("stock-stars.mp4"), FOLDER / "stock-stars.mp4")
        self.assertIsNone(stock_path("../__init__.py"))


class ShapesTest(TestCase):
    def test_they_are_twenty_about_the_middle(self) -> None:
        self.assertEqual(len(SHAPES), 20)
        for name, drawn in SHAPES.items():
            points = _points(drawn())
            self.assertLess(np.abs(points).max(), 135, name)
            self.assertLess(np.abs((points.min(0) + points.max(0)) / 2).max(), 40, name)

    def test_they_are_said_and_read_by_their_names(self) -> None:
        for name, drawn in SHAPES.items():
            data = scene_data()
            data["layers"].append({**new_shape(data, name), "id": "s1"})
            text = shape_text(from_data(data).layers[-1])
            self.assertRegex(text, f"^An? {name}, filled")
            self.assertEqual(read(text).data["shape"], {"kind": "path", "path": drawn()}, name)


def _points(drawing: str) -> np.ndarray:
    """The points and handles of a drawing, (n, 2)."""
    numbers = [number for _, numbers in commands_of(drawing) for number in numbers]
    return np.array(numbers).reshape(-1, 2)
