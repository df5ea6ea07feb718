"""Which values can have keyframes, and that each of them can be given one as it stands."""

from unittest import TestCase

from pydantic import BaseModel

from balletto.scene import files
from balletto.scene.edits import apply
from balletto.scene.effects import EFFECT_KINDS
from balletto.scene.masks import MASK_KINDS
from balletto.scene.selectors import SELECTOR_KINDS
from balletto.scene.selectors.spot import SPOT_SHAPES
from balletto.scene.shapes import SHAPE_KINDS
from balletto.scene.values.keyable import (
    _may_change,
    counterpart,
    has_value,
    keyable,
    local_start,
    rest_of,
    value_now,
)

from .scenes import scene_data

_PATH = "M0 0H10V10Z"


def everything():
    """A scene with a title that has a selector, effect and mask of each kind, all values left out,
    and a layer of each shape."""
    data = scene_data()
    title = data["layers"][0]
    selectors = [{"kind": kind} for kind in SELECTOR_KINDS if kind != "spot"]
    needed = {
        "slope": {"from": [0, 0], "to": [10, 10]},
        "round": {"center": [5, 5]},
        "band": {"center": [5, 5]},
    }
    selectors += [{"kind": "spot", "shape": s, **needed[s]} for s in SPOT_SHAPES]
    title["moves"][0]["reach"] = selectors
    title["effects"] = [{"kind": kind} for kind in EFFECT_KINDS]
    title["masks"] = [
        {"kind": kind, **({"path": _PATH} if kind == "path" else {})} for kind in MASK_KINDS
    ]
    title["motion_blur"] = {}
    for number, kind in enumerate(SHAPE_KINDS):
        shape = {"kind": kind, **({"path": _PATH} if kind == "path" else {})}
        layer = {"id": f"s{number}", "kind": "shape", "span": [0, 90], "shape": shape, "stroke": {}}
        data["layers"].append(layer)
    return data


def changing_paths(part, path):
    """The paths of all values below a part of a scene that may change over time."""
    if isinstance(part, BaseModel):
        for name, field in type(part).model_fields.items():
            below = f"{path}.{field.alias or name}"
            if _may_change(type(part), name):
                yield below
            else:
                yield from changing_paths(getattr(part, name), below)
    elif isinstance(part, tuple) and part and isinstance(part[0], BaseModel):
        for index, item in enumerate(part):
            yield from changing_paths(item, f"{path}.{getattr(item, 'id', index)}")


class KeyableTest(TestCase):
    def test_every_value_that_can_change_takes_a_keyframe_as_it_stands(self):
        data = everything()
        scene = files.from_data(data)
        paths = [path for layer in scene.layers for path in changing_paths(layer, layer.id)]
        self.assertGreater(len(paths), 100)
        keyed = 0
        for path in paths:
            if path.endswith(".pose.axes"):
                continue
            found = keyable(scene, path)
            self.assertEqual(found.path, path)
            if found.value is None:
                continue  # of a pose, what it does not say
            with self.subTest(path=path):
                made = apply(data, {"name": "toggle-key", "path": path, "at": 3}).scene
                self.assertTrue(keyable(made, path).is_keyed)
                keyed += 1
        self.assertGreater(keyed, 90)

    def test_what_holds_for_the_whole_time_takes_none(self):
        scene = files.from_data(everything())
        for path in ("t1.style.size", "t1.text", "t1.moves.m1.start", "t1.moves.m1.stagger.gap",
                     "t1.transform.pivot", "t1.span.0", "t1.effects.9.copies", "scene.length",
                     "t1.nothing", "t9.transform.opacity"):  # fmt: skip
            with self.subTest(path=path):
                self.assertIsNone(keyable(scene, path))

    def test_a_number_of_a_vector_is_keyed_with_the_whole(self):
        scene = files.from_data(everything())
        found = keyable(scene, "t1.transform.position.1")
        self.assertEqual((found.path, found.part), ("t1.transform.position", 1))
        self.assertIsNone(keyable(scene, "t1.moves.m1.amount.keys.0.value"))

    def test_values_at_a_frame(self):
        data = scene_data()
        title = data["layers"][0]
        title["moves"][0]["start"] = 10
        title["transform"]["opacity"] = {"keys": [{"at": 0, "value": 0}, {"at": 10, "value": 1}]}
        scene = files.from_data(data)
        self.assertAlmostEqual(value_now(scene, "t1.transform.opacity", 5), 0.5)
        self.assertEqual(value_now(scene, "t1.transform.position.0", 5), 960)
        self.assertEqual(value_now(scene, "t1.transform.rotation", 5), [0, 0, 0])
        self.assertEqual(value_now(scene, "t1.moves.m1.amount", 10), 1)  # its first key
        self.assertEqual(local_start(scene, "t1.moves.m1.amount"), 10)
        self.assertEqual(local_start(scene, "t1.transform.opacity"), 0)
        self.assertEqual((rest_of("t1.moves.m1.pose.scale"), rest_of("t1.moves.m1.pose.y")), (1, 0))
        self.assertIsNone(rest_of("t1.transform.opacity"))

    def test_the_same_value_of_another_layer(self):
        data = everything()
        other = {**data["layers"][0], "id": "t2", "effects": [{"kind": "glow"}]}
        other["moves"] = [{**other["moves"][0], "id": "m7"}]
        data["layers"].append(other)
        scene = files.from_data(data)
        glow = list(EFFECT_KINDS).index("glow")
        for path, same in {
            "t1.style.size": "t2.style.size",
            "t1.transform.position.0": "t2.transform.position.0",
            "t1.moves.m1.pose.y": "t2.moves.m7.pose.y",
            f"t1.effects.{glow}.radius": "t2.effects.0.radius",
            "t1.effects.0.x": None,  # it has no blur
        }.items():
            self.assertEqual(counterpart(scene, path, "t2"), same, path)
        self.assertIsNone(counterpart(scene, "t1.style.size", "s0"))
        self.assertEqual(counterpart(scene, "t1.transform.opacity", "s0"), "s0.transform.opacity")
        self.assertFalse(has_value(scene, "t1.style.nothing"))
