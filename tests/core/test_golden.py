"""The worked numbers of the motion model, entry by entry."""

import json
from unittest import TestCase

import numpy as np

from balletto.hash_random import hash_random
from balletto.motion.evaluate import trace
from balletto.motion.poses import poses
from balletto.motion.reach import reach_of
from balletto.motion.stagger import delays_of
from balletto.motion.units import UnitGroup, Units
from balletto.scene import files
from balletto.scene.eases import ease_function
from balletto.scene.moving.moves import Move, Stagger
from balletto.scene.orders import Ordered, ranks_of
from balletto.scene.pose import Asked, chance_number
from balletto.scene.selectors import SELECTOR_KINDS
from balletto.scene.values.tracks import Track

from .scenes import GOLDEN

CLOSE = 1e-6


class GoldenTest(TestCase):
    def test_eases(self):
        """Every ease that is known has the values worked out for it."""
        entries = GOLDEN["2_ease"]
        for entry in entries:
            ease = entry["ease"]
            if isinstance(ease, dict):
                ease = (
                    Track[float]
                    .model_validate_json(
                        json.dumps({"keys": [{"at": 0, "value": 0, "ease": ease}]})
                    )
                    .keys[0]
                    .ease
                )
            with self.subTest(entry["ease"]):
                got = ease_function(ease)(np.array(entry["at"]))
                np.testing.assert_allclose(got, entry["value"], atol=CLOSE)

    def test_tracks(self):
        """Tracks with tangents and with modes beyond their ends have the values worked out."""
        for entry in GOLDEN["2_tracks"]:
            with self.subTest(entry["track"]):
                track = Track[float].model_validate_json(json.dumps(entry["track"]))
                got = track.at_times(np.array(entry["at"], dtype=float))
                np.testing.assert_allclose(got, entry["value"], atol=CLOSE)

    def test_ranks(self):
        """Every order gives the ranks worked out for it."""
        for entry in GOLDEN["5_ranks"]:
            with self.subTest(entry["order"], n=entry["n"], seed=entry["seed"]):
                centers = np.stack([np.arange(entry["n"]), np.zeros(entry["n"])], axis=1)
                got = ranks_of(Ordered(order=entry["order"], seed=entry["seed"]), Units(centers))
                np.testing.assert_allclose(got, entry["ranks"], atol=CLOSE)

    def test_delays(self):
        """Gap, span and curve give the delays worked out for them."""
        for entry in GOLDEN["5_delays"]:
            with self.subTest(entry["stagger"]):
                stagger = Stagger.model_validate_json(json.dumps(entry["stagger"]))
                words = np.array(entry["word_of_unit"])
                groups = {"word": UnitGroup(words, np.zeros((words.max() + 1, 2)))}
                got = delays_of(stagger, Units(np.zeros((len(words), 2)), groups.get))
                np.testing.assert_allclose(got, entry["delays"], atol=CLOSE)

    def test_selectors(self):
        """Every kind of selector weighs each unit as worked out."""
        for entry in GOLDEN["6_selectors"]:
            with self.subTest(entry["selector"], property=entry["property"]):
                kind = SELECTOR_KINDS[entry["selector"]["kind"]]
                selector = kind.model_validate_json(json.dumps(entry["selector"]))
                times = np.array(entry["at"], dtype=float)
                units = Units(np.zeros((entry["n"], 2)), length=entry["scene_length"])
                asked = Asked(entry["property"], chance_number(entry["property"], {}))
                got = reach_of((selector,), units, times, asked)
                np.testing.assert_allclose(got, entry["value"], atol=CLOSE)

    def test_chance(self):
        """Chance is the same to the last bit."""
        for entry in GOLDEN["7_chance"]:
            numbers = (entry[name] for name in ("seed", "unit", "property", "tick"))
            self.assertEqual(float(hash_random(*numbers)), entry["u"])

    def test_chance_for_some_properties(self):
        """Of one selector some properties take part whole, some by chance, some one way only."""
        for entry in GOLDEN["11_chance"]:
            with self.subTest(property=entry["property"]):
                kind = SELECTOR_KINDS[entry["selector"]["kind"]]
                selector = kind.model_validate_json(json.dumps(entry["selector"]))
                asked = Asked(entry["property"], chance_number(entry["property"], {}))
                units = Units(np.zeros((entry["n"], 2)))
                got = reach_of((selector,), units, np.zeros(1), asked)
                np.testing.assert_allclose(got[0], entry["value"], atol=CLOSE)

    def test_an_ease_for_one_property(self):
        """The same amount, from key to key by the ease of the property."""
        for entry in GOLDEN["11_eases"]:
            with self.subTest(property=entry["property"]):
                data = {"id": "m", "amount": entry["amount"], "eases": entry["eases"]}
                move = Move.model_validate_json(json.dumps(data))
                units = Units(np.zeros((1, 2)))
                traced = trace(move, units, np.array(entry["at"], dtype=float))
                got = traced.weights_of(entry["property"])[:, 0]
                np.testing.assert_allclose(got, entry["weight"], atol=CLOSE)

    def test_poses(self):
        """Whole scenes give the delays, weights and values worked out for them."""
        for case in GOLDEN["10_poses"]:
            with self.subTest(case["name"]):
                self.assert_poses(files.from_data(case["scene"]), case["expect"])

    def assert_poses(self, scene, expected):
        got = poses(scene, "t1", expected["frames"])
        self.assertEqual(got["characters"], expected["characters"])
        for move, numbers in expected["moves"].items():
            for name, values in numbers.items():
                np.testing.assert_allclose(got["moves"][move][name], values, atol=CLOSE)
        for name, values in expected["values"].items():
            np.testing.assert_allclose(got["values"][name], values, atol=CLOSE)
