"""Anything within the schema can be evaluated and drawn; anything damaged is refused in words."""

import json
import re
from unittest import TestCase

import numpy as np

from balletto.motion.poses import poses
from balletto.motion.warnings import warnings_of
from balletto.picture.frame import Picture, draw_frame
from balletto.scene import files
from balletto.scene.errors import SceneError

from .amounts import some
from .media import media_folder
from .random_scenes import RandomScenes
from .scenes import scene_data

SCENES = some(500, 5000)


class FuzzTest(TestCase):
    def test_random_scenes_are_evaluated_and_drawn(self):
        """No crash, no value that is not a number, whatever stands in the scene."""
        drawn = moves = 0
        for seed in range(SCENES):
            with self.subTest(seed):
                scene = files.from_data(RandomScenes(seed).scene()).in_folder(media_folder())
                picture = Picture(scene)
                size = tuple(side // 3 for side in scene.size)
                pixels = draw_frame(picture, 3 if seed % 2 else 7.25, size)
                self.assertEqual(pixels.shape, (*reversed(size), 4))
                drawn += len(np.unique(pixels.reshape(-1, 4), axis=0)) > 1
                for layer in scene.titles:
                    moves += len(layer.moves)
                    warnings_of(scene, layer)
                    values = poses(scene, layer.id, [0, 5, 40])["values"]
                    self.assertTrue(np.isfinite(np.array(list(values.values()))).all())
        # The scenes are no empty ones.
        self.assertGreater(drawn, SCENES / 10)
        self.assertGreater(moves, SCENES / 2)

    def test_damaged_files_are_refused_with_a_path_and_a_sentence(self):
        whole = json.dumps(scene_data())
        for seed in range(SCENES):
            damaged = RandomScenes(seed).damaged(whole)
            with self.subTest(seed, file=damaged[:200]):
                with self.assertRaises(SceneError) as caught:
                    files.parse(damaged)
                for fault in caught.exception.faults:
                    self.assertRegex(fault.path, r"^$|^[a-z_]+(\[\d+\]|\.[\w?]+|\[[\w?]+\])*\??$")
                    self.assertTrue(re.search(r"\w+ \w+", fault.message), fault)
