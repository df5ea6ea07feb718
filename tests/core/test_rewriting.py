"""Every number of a scene says what it counts, and is met by that wherever it stands."""

import types
import typing
from collections.abc import Iterator
from typing import Any
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import BaseModel

from balletto.scene import files
from balletto.scene.document import Scene
from balletto.scene.edits import apply
from balletto.scene.edits.structure.layers import shifted
from balletto.scene.layers import AnyLayer
from balletto.scene.model import Counting, Counts, Number
from balletto.scene.rewriting import Rewriter, kind_of_field, mark_at

from .random_scenes import RandomScenes
from .scenes import scene_data


def numbers(kind: Any, path: str, seen: tuple[Any, ...] = ()) -> Iterator[tuple[str, Any]]:
    """Each number that a type can hold: where, and what it is marked with."""
    marks = getattr(kind, "__metadata__", ())
    base = kind.__origin__ if marks else kind
    if base in (int, float):
        yield path, next((mark for mark in marks if isinstance(mark, Number)), None)
    elif isinstance(base, type) and issubclass(base, BaseModel):
        if base not in seen:
            for name, field in base.model_fields.items():
                yield from numbers(kind_of_field(field), f"{path}.{name}", (*seen, base))
    elif typing.get_origin(base) in (typing.Union, types.UnionType, tuple, dict):
        for part in typing.get_args(base):
            yield from numbers(part, path, seen)


class Noted(Rewriter):
    """Leaves all as it is, and notes what it met."""

    def __init__(self) -> None:
        self.met: list[tuple[str, Any]] = []

    def number(self, value: Any, mark: Any, where: Any) -> Any:
        self.met.append((where.name, mark.counts))
        return value


class EveryNumberTest(TestCase):
    def test_says_what_it_counts(self):
        found = dict(numbers(Scene, "scene"))
        self.assertGreater(len(found), 200)
        self.assertEqual([path for path, mark in found.items() if mark is None], [])

    def test_is_met_in_every_form(self):
        keyed = {"keys": [{"at": 0, "value": [1, 2]}, {"at": 9, "value": [3, 4]}]}
        layer = {
            **scene_data()["layers"][0],
            "moves": [
                {
                    "id": "m1",
                    "pose": {"x": {"keys": [{"at": 4, "value": 7}]}, "y": {"tie": {"to": "t1.x"}}},
                    "stagger": {"times": [0, 2, 5]},
                    "reach": [{"kind": "spot", "shape": "round", "center": keyed}],
                }
            ],
        }
        noted = Noted()
        self.assertEqual(noted.rewritten(AnyLayer, layer), layer)
        self.assertEqual(noted.met.count(("times", Counts.DURATION)), 3)
        self.assertIn(("value", Counts.LENGTH), noted.met)
        self.assertEqual(noted.met.count(("value", Counts.PICTURE_POINT)), 2)
        self.assertEqual(noted.met.count(("span", Counts.MOMENT)), 2)

    def test_is_found_by_its_pointer(self):
        data = scene_data()
        data["layers"][0]["moves"][0]["reach"] = [{"kind": "wave"}]
        for pointer, counts in (
            (("length",), Counts.DURATION),
            (("layers", 0, "span", 1), Counts.MOMENT),
            (("layers", 0, "moves", 0, "reach", 0, "period"), Counts.DURATION),
            (("layers", 0, "moves", 0, "pose", "opacity"), Counts.PART),
            (("layers", 0, "style", "fill"), None),
            (("layers", 0, "no-such-name"), None),
        ):
            mark = mark_at(Scene, data, pointer)
            self.assertEqual(mark and mark.counts, counts, pointer)

    @settings(max_examples=30, deadline=None)
    @given(st.integers(0, 10_000), st.integers(-500, 500))
    def test_shifted_there_and_back_is_what_it_was(self, seed, by):
        for layer in RandomScenes(seed).scene()["layers"]:
            there = shifted(layer, by)
            for before, after in zip(layer["span"], there["span"], strict=True):
                self.assertAlmostEqual(after - before, by, places=3)
            noted, other = Noted(), Noted()
            back = shifted(there, -by)
            noted.rewritten(AnyLayer, layer)
            other.rewritten(AnyLayer, back)
            left_out = {("start", Counts.MOMENT)}
            self.assertEqual(
                [each for each in noted.met if each not in left_out],
                [each for each in other.met if each not in left_out],
            )

    def test_what_is_left_out_is_said_where_another_rate_changes_it(self):
        data = scene_data()
        data["layers"][0]["effects"] = [{"kind": "trail"}]
        made = apply(data, {"name": "set-rate", "value": "60"}).document
        self.assertEqual(made["layers"][0]["effects"][0]["gap"], 2)
        files.from_data(made)
        self.assertIsInstance(mark_at(Scene, data, ("layers", 0, "effects", 0, "gap")), Number)
        self.assertNotIsInstance(mark_at(Scene, data, ("size", 0)), Counting)
