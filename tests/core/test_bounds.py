"""What is sent has limits, which are looked at before memory or time is taken."""

import io
import tempfile
import tracemalloc
from concurrent.futures import ThreadPoolExecutor
from functools import partial
from pathlib import Path
from unittest import TestCase

import numpy as np
from PIL import Image

from balletto.picture.pixels.bitmap_store import BitmapStore
from balletto.picture.pixels.bitmaps import Bitmap
from balletto.picture.pixels.media import MediaError, about
from balletto.scene import files
from balletto.scene.document import rate_of
from balletto.scene.edits import apply
from balletto.scene.errors import SceneError
from balletto.scene.forms.svg_bounds import svg_root
from balletto.scene.values.tracks import Curve

from .scenes import scene_data


class BoundsTest(TestCase):
    def refused(self, told: str, **edit: object) -> None:
        """An edit is refused in words, and takes little memory."""
        tracemalloc.start()
        try:
            with self.assertRaisesRegex(SceneError, told):
                apply(scene_data("Orbit"), edit)
            self.assertLess(tracemalloc.get_traced_memory()[1], 30_000_000)
        finally:
            tracemalloc.stop()

    def test_letters_far_beyond_any_text(self) -> None:
        self.refused(
            "10000", name="style-letters", layer="t1", first=0, end=10_000_000, property="size",
            value=9,
        )  # fmt: skip

    def test_edits_that_double_what_is_there(self) -> None:
        group = scene_data("Orbit")
        doubled = {"name": "paste-layers", "layers": [group["layers"][0]] * 200}
        self.refused("at most 1,000 layers", name="several", said="x", edits=[doubled] * 9)

    def test_edits_within_edits(self) -> None:
        inner = {"name": "set-length", "length": 90}
        for _ in range(4):
            inner = {"name": "several", "said": "x", "edits": [inner] * 10}
        self.refused("at most 1,000 edits", name="several", said="x", edits=[inner])

    def test_rates_that_take_long_to_be_made(self) -> None:
        for text in ("1e9999999", "1" * 5000, "30/1e99", "30/0", "٣٠"):
            with self.assertRaises((ValueError, ZeroDivisionError)):
                rate_of(text)
        self.assertAlmostEqual(float(rate_of("59.94")), 59.94)
        self.assertEqual(rate_of("30000/1001").denominator, 1001)

    def test_numbers_that_are_infinite(self) -> None:
        with self.assertRaisesRegex(ValueError, "too large a number"):
            files.json_of('{"at": 1e999}')

    def test_paths_that_lead_nowhere(self) -> None:
        for path in ("t1" + ".a" * 5000, "t1.transform.position.²", "t1.style." + "9" * 9000):
            with self.assertRaises(SceneError):
                apply(scene_data("Orbit"), {"name": "set-value", "path": path, "value": 1})
            tie = {"tie": {"to": path}}
            with self.assertRaises(SceneError):
                apply(scene_data("Orbit"), {"name": "set-value", "path": "t1.style.size",
                                            "value": tie})  # fmt: skip

    def test_sounds_lie_beside_the_scene_as_all_files_do(self) -> None:
        for name in ("../2/private.wav", "/etc/passwd", "a/b.wav", ".hidden", "a\\b"):
            data = scene_data("Orbit")
            reach = [{"kind": "loudness", "sound": name}]
            data["layers"][0]["moves"] = [{"id": "m1", "reach": reach}]
            with self.assertRaisesRegex(SceneError, "without folders"):
                files.from_data(data)

    def test_curves_go_with_their_tracks(self) -> None:
        """No cache keeps the curves of scenes that were open."""
        self.assertFalse(hasattr(Curve._tangents, "cache_info"))


class StoreTest(TestCase):
    """Bitmaps that are kept, all together."""

    def test_it_never_keeps_more_bytes_than_it_may(self) -> None:
        store = BitmapStore(1_000_000)
        made: list[str] = []

        def get(name: str, side: int) -> Bitmap:
            def make() -> Bitmap:
                made.append(name)
                return Bitmap(name, np.zeros((side, side, 4), np.uint8))

            return store.get(name, make)

        for number in range(20):
            get("first", 100)
            get(f"n{number}", 150)
            self.assertLessEqual(store.bytes, 1_000_000)
        self.assertEqual(made.count("first"), 1)
        self.assertIs(get("n19", 150), get("n19", 150))
        get("n0", 150)
        self.assertEqual(made.count("n0"), 2)
        self.assertEqual(get("huge", 900).size, (900, 900))
        self.assertLessEqual(store.bytes, 1_000_000)
        store.limit(0)
        self.assertEqual(store.bytes, 0)

    def test_threads_may_share_it(self) -> None:
        store = BitmapStore(500_000)

        def work(seed: int) -> None:
            for number in np.random.default_rng(seed).integers(0, 30, 200).tolist():
                blank = partial(Bitmap, str(number), np.zeros((60, 60, 4), np.uint8))
                self.assertEqual(store.get(number, blank).key, str(number))

        with ThreadPoolExecutor(8) as pool:
            list(pool.map(work, range(8)))
        self.assertLessEqual(store.bytes, 500_000)


class MediaTest(TestCase):
    """Files that are small and unpack to very much."""

    def refused(self, name: str, content: bytes, told: str) -> None:
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / name
            path.write_bytes(content)
            with self.assertRaisesRegex(MediaError, told):
                about(path)

    def test_a_picture_of_very_many_pixels(self) -> None:
        file = io.BytesIO()
        Image.new("1", (9000, 9000)).save(file, "PNG")
        self.refused("large.png", file.getvalue(), "more than 64 megapixels")

    def test_an_animation_of_very_many_pixels(self) -> None:
        file = io.BytesIO()
        Image.new("P", (9000, 9000)).save(file, "GIF")
        self.refused("large.gif", file.getvalue(), "too large: 9,000 x 9,000 px")

    def test_an_svg_whose_parts_use_each_other(self) -> None:
        head = '<svg xmlns="http://www.w3.org/2000/svg" width="90" height="90">'
        groups = "".join(
            f'<g id="n{n}"><use href="#n{n - 1}"/><use href="#n{n - 1}"/></g>' for n in range(1, 30)
        )
        tiny = '<rect id="n0" width="9" height="9"/>'
        for body in (tiny + groups, '<g id="a"><use href="#a"/></g>'):
            self.refused("deep.svg", f"{head}{body}</svg>".encode(), "draws more than 50,000")
        self.refused("no.svg", b"<svg", "cannot be read as an SVG")
        self.refused("large.svg", head.encode() + b" " * 17 * 1024**2, "more than 16 MB")
        self.refused("wide.svg", f"{head}{tiny}</svg>".encode("utf-16"), "not UTF-8")
        svg_root(f'<!DOCTYPE svg PUBLIC "x" "y">{head}{tiny}</svg>'.encode())
        entity = f'<!DOCTYPE svg [<!ENTITY a "b">]>{head}</svg>'
        self.refused("entity.svg", entity.encode(), "entities")
