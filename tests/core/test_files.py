"""Scene files: what is good goes through unchanged, what is bad is refused with its path."""

import copy
import json
from pathlib import Path
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

import balletto
from balletto.lettering.own_fonts import missing_fonts
from balletto.scene import files
from balletto.scene.errors import SceneError
from balletto.scene.schema import schema

from .scenes import scene_data

DEMO = sorted((Path(balletto.__file__).parents[1] / "web" / "projects").glob("demo_scenes/*.json"))

# (where, what stands there, the whole fault). The order is that of the motion model's section 1.
FAULTS = [
    (("format",), "film", 'format: "balletto-scene" is needed, got "film": is it a scene file?'),
    (("version",), 9, "version: the file is of version 9, newer than 1: update Balletto"),
    (("version",), True, "version: a version number is needed, got true"),
    (("size",), [1920], "size[1]: this is needed and not there"),
    (("size", 0), 8, "size[0]: a whole number of pixels at least 16 and at most 8,192 is needed, got 8"),
    (("rate",), "fast", 'rate: a rate from 1 to 240 frames a second is needed, as "30" or "30000/1001", got "fast"'),
    (("rate",), 30, "rate: a text is needed, got 30"),
    (("length",), 2.5, "length: a whole number of frames at least 1 and at most 864,000 is needed, got 2.5"),
    (("background",), {"kind": "fog"}, 'background: a background of one of the kinds none, color, gradient, still, clip is needed, got {"kind": "fog"}'),
    (("camera", "distance"), 0, "camera.distance: a distance in pixels above 1 and at most 1,000,000 is needed, got 0"),
    (("layers", 0, "kind"), "titel", None),
    (("layers", 0, "id"), "1st", 'layers[0].id: an id (a letter, then letters, digits, - or _, 40 at most) is needed, got "1st"'),
    (("layers", 0, "id"), "scene", None),
    (("layers", 0, "span"), [0], "layers[0].span: the first and the end frame [in, out] is needed, got [0]"),
    (("layers", 0, "style", "fill"), "red", 'layers[0].style.fill: a colour as "#RRGGBB" is needed, got "red"'),
    (("layers", 0, "style", "colour"), "#FF0000", "layers[0].style.colour: this key is not known here"),
    (("layers", 0, "style", "axes"), {"w": 3}, None),
    (("layers", 0, "runs"), [{"from": 4, "to": 2, "style": {}}], None),
    (("layers", 0, "transform", "scale"), 2, "layers[0].transform.scale: two factors [x, y] are needed, got 2"),
    (("layers", 0, "moves", 0, "stagger", "gap"), "two", 'layers[0].moves[0].stagger.gap: a number of frames is needed, got "two"'),
    (("layers", 0, "moves", 0, "stagger", "span"), 9, None),
    (("layers", 0, "moves", 0, "stagger", "order"), "by-hand", None),
    (("layers", 0, "moves", 0, "pose", "opacity"), 40, "layers[0].moves[0].pose.opacity: an opacity at least 0 and at most 1 is needed, got 40"),
    (("layers", 0, "moves", 0, "amount", "keys", 1, "at"), 0, None),
    (("layers", 0, "moves", 0, "amount", "keys", 0, "ease"), {"bezier": [2, 0, 0, 1]}, None),
    (("layers", 0, "moves", 0, "amount", "keys", 0, "ease"), "swift", None),
    (("layers", 0, "moves", 0, "amount"), {"keys": []}, None),
    (("layers", 0, "moves", 0, "reach"), [{"kind": "swoop"}], None),
]  # fmt: skip


def put(data, way, value):
    *parents, last = way
    for part in parents:
        data = data[part]
    data[last] = value


class FilesTest(TestCase):
    def faults(self, data):
        with self.assertRaises(SceneError) as caught:
            files.from_data(data)
        return [str(fault) for fault in caught.exception.faults]

    def test_good_scenes_go_through_unchanged(self):
        for path in DEMO:
            with self.subTest(path.name):
                data = json.loads(path.read_text())
                scene = files.parse(path.read_bytes())
                self.assertEqual(files.to_data(scene), data)
                self.assertEqual(missing_fonts(scene), [])
        self.assertGreaterEqual(len(DEMO), 4)

    def test_each_fault_is_told_with_its_path(self):
        for way, value, said in FAULTS:
            with self.subTest(way, value=value):
                data = scene_data()
                put(data, way, value)
                faults = self.faults(data)
                path = "".join(f"[{p}]" if isinstance(p, int) else f".{p}" for p in way)[1:]
                told = faults[0].partition(": ")[0]
                self.assertTrue(path.startswith(told) or told.startswith(path), faults)
                if said:
                    self.assertIn(said, faults)

    def test_all_faults_are_told_at_once(self):
        data = scene_data()
        del data["length"]
        data["layers"][0]["text"] = 7
        self.assertEqual(len(self.faults(data)), 2)

    def test_ids_are_taken_once(self):
        data = scene_data()
        data["layers"].append(copy.deepcopy(data["layers"][0]))
        data["layers"][0]["moves"] *= 2
        self.assertEqual(
            self.faults(data),
            [
                'layers[1].id: "t1" is taken by layers[0]',
                'layers[0].moves[1].id: "m1" is taken by layers[0].moves[0]',
            ],
        )

    def test_what_is_not_json_is_said_with_its_place(self):
        for text, said in (
            ('{"format": ', "not JSON: Expecting value in line 1"),
            ("[1]", "a scene (an object) is needed, got [1]"),
            ('{"format": NaN}', "NaN is not a number"),
            (b"\xff\xfe", "not UTF-8"),
            ("[" * 100_000, "not"),
        ):
            with self.subTest(text[:20]), self.assertRaises(SceneError) as caught:
                files.parse(text)
            self.assertIn(said, str(caught.exception))

    def test_a_font_that_is_not_there_is_said(self):
        data = scene_data()
        data["layers"][0]["runs"] = [{"from": 0, "to": 1, "style": {"font": "Nowhere Sans"}}]
        missing = missing_fonts(files.from_data(data))
        self.assertEqual(missing, [("layers[0].runs[0].style.font", "Nowhere Sans")])

    def test_schema_names_what_the_models_check(self):
        made = schema()
        of_scene = made["$defs"]["Scene"]  # by name, since a scene may hold others
        self.assertEqual(made["$ref"], "#/$defs/Scene")
        self.assertEqual(of_scene["required"], ["format", "version", "size", "rate", "length"])
        self.assertFalse(of_scene["additionalProperties"])
        self.assertIn("Sweep", made["$defs"])

    @settings(max_examples=200, deadline=None)
    @given(st.data())
    def test_a_damaged_file_is_refused_with_a_path_or_still_good(self, draw):
        """Wherever a scene is damaged, nothing but a SceneError comes of it."""
        data = scene_data()
        way, node = [], data
        while isinstance(node, dict | list) and node and (not way or draw.draw(st.booleans())):
            keys = list(node) if isinstance(node, dict) else list(range(len(node)))
            way.append(draw.draw(st.sampled_from(keys)))
            node = node[way[-1]]
        junk = st.one_of(
            st.none(), st.booleans(), st.integers(), st.floats(), st.text(max_size=5),
            st.lists(st.integers(), max_size=3), st.dictionaries(st.text(max_size=3), st.none()),
        )  # fmt: skip
        put(data, way, draw.draw(junk))
        try:
            files.parse(json.dumps(data))
        except SceneError as error:
            self.assertTrue(error.faults)
            self.assertTrue(all(fault.message for fault in error.faults))


class DocumentationTest(TestCase):
    def test_the_schema_in_the_docs_is_current(self):
        path = Path(balletto.__file__).parents[1] / "docs" / "scene.schema.json"
        self.assertEqual(json.loads(path.read_text()), schema())
