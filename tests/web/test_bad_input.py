"""Whatever is sent as an edit is made, or refused in words: nothing of it breaks the server."""

import io
import json
import zipfile
from concurrent.futures import ThreadPoolExecutor
from itertools import product

from django.core.files.uploadedfile import SimpleUploadedFile
from django.urls import reverse

from balletto.intents.intents import INTENTS
from balletto.scene.edits import EDITS
from tests.core.media import media_folder
from tests.core.scenes import scene_data
from web.library.store import folder_of, keep
from web.projects.models import Scene
from web.serving import written_whole
from web.workbench.edits.requested_edits import OF_PAGES

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
        for name in (*INTENTS, *OF_PAGES, *EDITS):
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


class BrokenFilesTest(PageTest):
    """What cannot be used is refused in words."""

    def setUp(self):
        super().setUp()
        self.keep_files_apart()

    def sent(self, name, content):
        project = self.scene.project
        upload = SimpleUploadedFile(name, content)
        address = reverse("scene-from-file", args=[project.pk])
        return self.client.post(address, {"file": upload}, follow=True)

    def zipped(self, document, level=zipfile.ZIP_DEFLATED):
        made = io.BytesIO()
        with zipfile.ZipFile(made, "w", level) as archive:
            archive.writestr("scene.balletto.json", document)
        return made.getvalue()

    def test_zips(self):
        whole = self.zipped(json.dumps(scene_data()))
        locked = bytearray(whole)
        for mark in (b"PK\x03\x04", b"PK\x01\x02"):
            locked[whole.index(mark) + (6 if mark[2] == 3 else 8)] |= 1  # says that it is encrypted
        broken = bytearray(whole)
        broken[60:90] = b"\xff" * 30
        for content, told in (
            (bytes(locked), "encrypted"),
            (bytes(broken), "cannot be read"),
            (self.zipped(b" " * 40 * 1024**2), "may have"),
        ):
            answer = self.sent("scene.zip", content)
            self.assertContains(answer, told, status_code=400)

    def test_a_file_that_is_gone_is_not_found(self):
        kept = keep(
            self.ada, SimpleUploadedFile("m.png", (media_folder() / "moon.png").read_bytes())
        )
        (folder_of(self.ada.pk) / kept.name).unlink()
        self.assertEqual(self.client.get(reverse("show-file", args=[kept.pk])).status_code, 404)

    def test_the_same_file_from_many_hands_at_once(self):
        place = folder_of(self.ada.pk) / "same.bin"

        def write(number):
            with written_whole(place) as coming:
                coming.write_bytes(bytes([65]) * 100_000)

        with ThreadPoolExecutor(8) as pool:
            list(pool.map(write, range(24)))
        self.assertEqual([each.name for each in place.parent.iterdir()], ["same.bin"])

    def test_a_length_that_has_no_end(self):
        values = {"name": "Long", "size": "1920x1080", "rate": "30", "length": "1e7000",
                  "length_in": "frames"}  # fmt: skip
        answer = self.client.post(reverse("new-scene", args=[self.scene.project.pk]), values)
        self.assertEqual(answer.status_code, 200)

    def test_an_account_with_scenes_is_removed_with_them(self):
        self.edit(name="set-length", length=40)
        self.ada.delete()
        self.assertFalse(Scene.objects.filter(pk=self.scene.pk).exists())
