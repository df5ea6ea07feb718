"""Edits that were meant for an earlier state."""

import unittest
from typing import Any

from balletto.scene.edits.meant import as_meant
from balletto.scene.errors import SceneError

SHADOW, GLOW = {"kind": "shadow"}, {"kind": "glow"}
BLUR, WIDE = {"kind": "blur", "radius": 6}, {"kind": "blur", "radius": 9}


def document(effects: list[Any], **layer: Any) -> dict[str, Any]:
    return {"layers": [{"id": "t1", "kind": "title", "effects": effects, **layer}], "markers": []}


class MeantTest(unittest.TestCase):
    def index(self, index: int, then: list[Any], now: list[Any]) -> int:
        path = f"t1.effects.{index}.on"
        edit = {"name": "set-value", "path": path, "value": False}
        found = as_meant(edit, document(then), document(now))["path"]
        removed = {"name": "remove-effect", "layer": "t1", "index": index}
        self.assertEqual(
            found, f"t1.effects.{as_meant(removed, document(then), document(now))['index']}.on"
        )
        return int(found.split(".")[2])

    def test_what_stands_elsewhere_now_is_found(self):
        cases = [
            (2, [SHADOW, GLOW, BLUR], [GLOW, BLUR], 1),  # one before it was removed
            (0, [SHADOW, GLOW], [BLUR, SHADOW, GLOW], 1),  # one was put before it
            (1, [SHADOW, GLOW, BLUR], [BLUR, GLOW, SHADOW], 1),
            (0, [SHADOW, GLOW, BLUR], [BLUR, GLOW, SHADOW], 2),  # put in another order
            (2, [SHADOW, GLOW, BLUR], [GLOW, WIDE], 1),  # changed itself besides
            (1, [BLUR, BLUR], [BLUR], 0),  # one of two that are alike was removed
        ]
        for index, then, now, expected in cases:
            with self.subTest(then=then, now=now):
                self.assertEqual(self.index(index, then, now), expected)

    def test_what_was_changed_stays_where_it_is(self):
        self.assertEqual(self.index(0, [BLUR, BLUR], [WIDE, BLUR]), 0)
        self.assertEqual(self.index(1, [SHADOW, BLUR], [SHADOW, WIDE]), 1)

    def test_what_is_gone_is_told(self):
        with self.assertRaisesRegex(SceneError, "not there any more"):
            self.index(0, [SHADOW, GLOW], [GLOW])

    def test_keyframes_and_several_edits(self):
        def keyed(*times: int) -> dict[str, Any]:
            keys = [{"at": at, "value": at} for at in times]
            return document([SHADOW], transform={"opacity": {"keys": keys}})

        edit = {"name": "set-value", "path": "t1.transform.opacity.keys.2.value", "value": 5}
        several = {"name": "several", "edits": [edit], "said": ""}
        found = as_meant(several, keyed(0, 10, 20), keyed(0, 20))
        self.assertEqual(found["edits"][0]["path"], "t1.transform.opacity.keys.1.value")
        self.assertEqual(several["edits"][0]["path"], "t1.transform.opacity.keys.2.value")

    def test_an_effect_put_elsewhere_goes_as_far_as_was_meant(self):
        edit = {"name": "move-effect", "layer": "t1", "index": 2, "to": 1}
        found = as_meant(edit, document([SHADOW, GLOW, BLUR]), document([GLOW, BLUR]))
        self.assertEqual((found["index"], found["to"]), (1, 0))

    def test_what_names_no_place_stays(self):
        for path in ("t1.style.size", "t9.effects.0.on", "t1.position.0", "scene.name", "t1"):
            edit = {"name": "set-value", "path": path, "value": 1}
            self.assertEqual(as_meant(edit, document([SHADOW]), document([])), edit)
