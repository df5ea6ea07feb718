"""What is sent has limits, which are looked at before memory or time is taken."""

import tracemalloc
from unittest import TestCase

from balletto.scene import files
from balletto.scene.document import rate_of
from balletto.scene.edits import apply
from balletto.scene.errors import SceneError
from balletto.scene.tracks import Curve

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

    def test_curves_go_with_their_tracks(self) -> None:
        """No cache keeps the curves of scenes that were open."""
        self.assertFalse(hasattr(Curve._tangents, "cache_info"))
