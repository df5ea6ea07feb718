"""Whatever is sent as an edit is made, or refused in words: nothing of it breaks the server."""

import json
from itertools import product

from django.urls import reverse

from balletto.scene.edits import EDITS
from web.workbench.requested_edits import REQUESTED_EDITS

from .base import PageTest

HUGE = int("9" * 400)
JUNK = (
    None, True, -1, 1e300, HUGE, "", "t1", "é" * 5000, [], [1], [[1]], {}, {"a": [{}]}, ["t1", {}],
    [1e300, -1e300],
)  # fmt: skip
PATHS = (
    "t1.style.size", "t1.effects.x.y", "t1.effects.0.x", "t1.masks.99999999999.fixed",
    "t1.moves.m1", "t1.moves.m9.pose.x", "scene", "scene.size", "t1", "....", "t9.text",
    "t1.transform.position.9", f"t1.effects.{'9' * 5000}",
)  # fmt: skip
KEYS = ("layer", "layers", "value", "keys", "edits", "mask", "copied", "axis", "by", "at", "typed")
MEASURES = ({}, {"scale": 0}, {"low": 1e300}, {"unit": 3}, None)
TEXTS = ("-" * 390, "(" * 390, "9" * 390, f"{'9' * 380}:00", "*".join(["999999999"] * 40), "1e9")


class BadInputTest(PageTest):
    def sent(self, edit, **more):
        answer = self.client.post(
            reverse("edit", args=[self.scene.pk]),
            {"base": self.head, "layer": "t1", "edit": json.dumps(edit), **more},
        )
        self.assertIn(answer.status_code, (200, 409, 422), edit)
        if answer.status_code == 422:
            self.assertTrue(answer.json()["message"])

    @property
    def head(self):
        self.scene.refresh_from_db()
        return self.scene.head

    def test_every_edit_with_junk_in_every_place(self):
        for name in (*REQUESTED_EDITS, *EDITS):
            for key, junk in zip(KEYS * 2, JUNK * 2, strict=False):
                self.sent({"name": name, "path": "t1.style.size", key: junk}, preview=1)

    def test_edits_in_edits_are_refused_before_they_are_made(self):
        nested = {"name": "set-value", "path": "t1.style.size", "value": 90}
        for _ in range(200):
            nested = {"name": "several", "edits": [nested], "said": "deep"}
        for seen in ("", "1"):
            self.sent(nested, seen=seen)
        self.assertEqual(self.head, 1)

    def test_whatever_is_said_to_have_been_seen(self):
        self.edit(name="add-effect", layer="t1", effect={"kind": "blur"})
        remove = {"name": "remove-effect", "layer": "t1", "index": 0}
        flip = {"name": "flip", "path": "t1.effects.0.on"}
        for seen in ("", "x", "-1", "0", "1", "99", "9" * 40):
            for edit in (remove, flip, {**remove, "index": HUGE}, {**remove, "layer": []}):
                self.sent(edit, seen=seen, preview=1)

    def test_every_path_with_edits_of_values(self):
        for name, path in product(
            ("set-value", "add-key", "toggle-key", "hold-to", "clear-value", "as-it-came"), PATHS
        ):
            for more in (
                {},
                {"value": HUGE},
                {"layers": ["t1", "t2"]},
                {"linked": True, "value": 1},
            ):
                self.sent({"name": name, "path": path, "at": 1e300, **more}, preview=1)

    def test_whatever_is_typed_in_whatever_measure(self):
        for text, measure in product(TEXTS, MEASURES):
            typed = {"text": text, "measure": measure, "now": HUGE, "rest": "x"}
            self.sent({"name": "set-value", "path": "t1.style.size", "typed": typed})
        for by in JUNK:
            typed = {"by": by, "measure": {}}
            self.sent({"name": "set-value", "path": "t1.style.size", "typed": typed})
            self.sent({"name": "style-letters", "layer": "t1", "property": by, "typed": typed})
        read = reverse("read", args=[self.scene.pk])
        for text, now in product(TEXTS, ("nan", "inf", "1e999", "x", "3")):
            answer = self.client.get(read, {"text": text, "of": "frame", "now": now})
            self.assertIn(answer.status_code, (200, 422))

    def test_what_is_no_usable_json(self):
        for text in ("", "[", "NaN", '{"at": Infinity}', "[" * 100_000, '"x"', "1", "null"):
            answer = self.client.post(
                reverse("edit", args=[self.scene.pk]), {"base": self.head, "edit": text}
            )
            self.assertEqual(answer.status_code, 422, text[:20])
            answer = self.client.post(
                reverse("leave", args=[self.scene.pk]), {"base": self.head, "steps": text}
            )
            self.assertIn(answer.status_code, (204, 422), text[:20])

    def test_whatever_is_left_behind(self):
        before = self.head
        steps = [
            *JUNK,
            {"request": [], "edit": {}},
            {"edit": {"name": "set-value"}},
            {"walk": "up"},
        ]
        answer = self.client.post(
            reverse("leave", args=[self.scene.pk]),
            {"base": before, "steps": json.dumps(steps)},
        )
        self.assertEqual((answer.status_code, self.head), (204, before))

    def test_names_as_long_as_they_may_be(self):
        self.edit(name="set-value", path="t1.name", value="é" * 200)
        self.edit(name="duplicate-layer", layer="t1")
        names = [layer["name"] for layer in self.document["layers"]]
        self.assertTrue(names[1].endswith(" 2") and len(names[1]) <= 200)
        self.edit(name="set-value", path="scene.name", value="é" * 200)
        self.client.post(reverse("duplicate-scene", args=[self.scene.pk]))
        copy = self.scene.project.scenes.last()
        self.assertTrue(copy.name.endswith(" 2"))
