"""The workbench through its addresses: edits, history, frames and numbers."""

import base64
import email
import html
import io
import json
import re
from unittest import mock

import numpy as np
from django.core.files.uploadedfile import SimpleUploadedFile
from django.urls import reverse
from PIL import Image

from balletto.motion.poses import poses
from balletto.picture.frame import Picture, draw_frame
from balletto.picture.stills import jpeg
from balletto.scene import files
from tests.core.scenes import scene_data
from web.pictures import frames
from web.projects import history
from web.projects.models import Revision

from .base import PageTest

GAP = "t1.moves.m1.stagger.gap"


class EditTest(PageTest):
    def walk(self, name, expect=200, base=None):
        values = {"base": base or self.scene.head, "layer": "t1"}
        response = self.client.post(reverse(name, args=[self.scene.pk]), values)
        self.assertEqual(response.status_code, expect)
        self.scene.refresh_from_db()
        return response

    @property
    def gap(self):
        return self.document["layers"][0]["moves"][0]["stagger"]["gap"]

    def test_an_edit_makes_a_revision_and_answers_with_the_changed_parts(self):
        response = self.edit(name="set-value", path=GAP, value=3)
        self.assertEqual((self.gap, self.scene.head), (3, 2))
        self.assertContains(response, 'data-revision="2"')
        self.assertContains(response, "3 frames")
        self.assertContains(response, "Undo: Gap of “Rise”: 2 to 3")

    def test_a_preset_for_selected_letters_moves_those_alone(self):
        """One letter on its own, the rest otherwise; at rest they meet."""
        values = {"base": 1, "layer": "t1", "first": 4, "end": 5}
        values["edit"] = json.dumps({"name": "add-move", "layer": "t1", "preset": "spin-in"})
        response = self.client.post(reverse("edit", args=[self.scene.pk]), values)
        self.assertEqual(response.status_code, 200)
        shown = poses(files.from_data(self.document), "t1", [0, 80])["values"]["rotation"]
        self.assertEqual([bool(turn) for turn in shown[0]], [n == 3 for n in range(13)])
        self.assertEqual(set(shown[1]), {0})

    def test_what_only_titles_have_is_pasted_on_titles_alone(self):
        self.edit(name="add-shape", shape="star")
        digest = history.newest(self.scene).digest
        style = {"kind": "style", "scene": self.scene.pk, "digest": digest, "layer": "t1"}
        moves = {**style, "kind": "moves"}
        for copied in (style, moves):
            refused = self.edit(422, name="paste", copied=copied, layers=["s1"])
            self.assertContains(refused, "only titles have", status_code=422)
        refused = self.edit(422, name="paste", copied={**style, "layer": "s1"}, layers=["t1"])
        self.assertContains(refused, "copy that of a title", status_code=422)
        self.edit(name="paste", copied=moves, layers=["t1", "s1"])
        self.assertEqual(len(self.document["layers"][0]["moves"]), 2)
        self.assertNotIn("moves", self.document["layers"][1])

    def test_keys_of_a_pose_count_from_the_start_of_their_move(self):
        self.edit(name="set-value", path="t1.moves.m1.start", value=16)
        self.edit(name="add-key", path="t1.moves.m1.pose.y", at=30)
        move = self.document["layers"][0]["moves"][0]
        self.assertEqual(move["pose"]["y"], {"keys": [{"at": 14, "value": 100}]})
        self.edit(name="set-value", path="t1.moves.m1.pose.y", value=40, at=20)
        move = self.document["layers"][0]["moves"][0]
        self.assertEqual([key["at"] for key in move["pose"]["y"]["keys"]], [4, 14])

    def test_a_time_that_is_none_is_refused_in_words(self):
        for at in ("soon", [3], {"at": 3}):
            self.edit(expect=422, name="add-key", path="t1.moves.m1.pose.y", at=at)
        self.assertEqual(self.scene.head, 1)

    def test_each_word_can_have_a_time_of_its_own(self):
        """As when a word is to appear at a frame that was picked by ear."""
        self.edit(name="set-value", path="t1.moves.m1.unit", value="word")
        page = self.page(opened="more-m1")
        edit = re.search(r'data-do="([^"]*&quot;times&quot;[^"]*)"', page.content.decode())[1]
        self.edit(**json.loads(html.unescape(edit)))
        self.edit(name="set-value", path="t1.moves.m1.stagger.times.1", value=31)
        move = poses(files.from_data(self.document), "t1", [0])["moves"]["m1"]
        self.assertEqual(move["delays"], [0, 31, 4])

    def test_an_edit_that_changes_nothing_makes_no_revision(self):
        self.edit(name="set-value", path=GAP, value=2)
        self.assertEqual(self.scene.head, 1)

    def test_switches_and_places_go_by_what_is_there_by_then(self):
        for expected in (False, True, False):
            self.edit(name="flip", path="t1.on")
            self.assertIs(self.document["layers"][0].get("on", True), expected)
        self.edit(name="duplicate-layer", layer="t1")
        self.edit(name="duplicate-layer", layer="t1")
        order = lambda: [layer["id"] for layer in self.document["layers"]]  # noqa: E731
        first, second, third = order()
        self.edit(name="put-layer", layer=first, front_of=third)
        self.assertEqual(order(), [second, third, first])
        self.edit(name="put-layer", layer=first, front_of=None)
        self.assertEqual(order(), [first, second, third])
        self.edit(name="put-layer", layer=first, by=1)
        self.assertEqual(order(), [second, first, third])
        self.edit(name="put-layer", layer=third, by=5)
        self.assertEqual(order(), [second, first, third])
        self.edit(expect=422, name="put-layer", layer=first, front_of="t99")
        answer = self.edit(expect=422, name="flip", path="t1.style.size")
        self.assertIn("on or off", answer.content.decode())

    def test_undo_and_redo_without_limit(self):
        for gap in range(3, 33):
            self.edit(name="set-value", path=GAP, value=gap)
        for gap in range(31, 1, -1):
            self.walk("undo")
            self.assertEqual(self.gap, gap)
        self.assertContains(self.walk("undo", expect=422), "nothing to undo", status_code=422)
        for gap in range(3, 33):
            self.walk("redo")
            self.assertEqual(self.gap, gap)
        self.walk("redo", expect=422)

    def test_back_to_a_state_is_an_edit_like_any_other(self):
        for gap in (3, 4):
            self.edit(name="set-value", path=GAP, value=gap)
        for number, expect in ((2, 200), (99, 404)):
            values = {"base": self.scene.head, "layer": "t1"}
            address = reverse("back", args=[self.scene.pk, number])
            self.assertEqual(self.client.post(address, values).status_code, expect)
            self.scene.refresh_from_db()
        self.assertEqual((self.gap, self.scene.head), (3, 4))
        self.walk("undo")
        self.assertEqual(self.gap, 4)
        self.walk("redo")
        self.assertEqual(self.gap, 3)
        listed = self.client.get(reverse("history", args=[self.scene.pk]))
        self.assertContains(listed, "Back to 2: Gap of “Rise”: 2 to 3")

    def test_an_edit_after_undo_opens_a_new_way(self):
        self.edit(name="set-value", path=GAP, value=3)
        self.edit(name="set-value", path=GAP, value=4)
        self.walk("undo")
        self.edit(name="set-value", path=GAP, value=9)
        self.walk("redo", expect=422)
        self.walk("undo")
        self.assertEqual(self.gap, 3)
        self.walk("redo")
        self.assertEqual(self.gap, 9)

    def test_history_is_only_added_to(self):
        self.edit(name="set-value", path=GAP, value=3)
        before = list(Revision.objects.filter(scene=self.scene).values())
        self.walk("undo")
        after = list(Revision.objects.filter(scene=self.scene).values())
        self.assertEqual(after[: len(before)], before)
        self.assertEqual(len(after), len(before) + 1)

    def test_an_older_page_overwrites_nothing(self):
        self.edit(name="set-value", path=GAP, value=3)
        answer = self.edit(expect=409, base=1, name="set-value", path=GAP, value=7)
        self.assertIn("changed in another tab", answer.json()["message"])
        self.assertEqual(self.gap, 3)
        self.walk("undo", expect=409, base=1)
        self.assertEqual(self.gap, 3)

    def test_what_is_not_possible_is_refused_with_its_path(self):
        answer = self.edit(expect=422, name="set-value", path="t1.style.size", value=-4)
        self.assertIn("layers[0].style.size", answer.json()["message"])
        self.edit(expect=422, name="set-value", path="t1.style.font", value="Nowhere Sans")
        self.edit(expect=422, name="explode")
        address = reverse("edit", args=[self.scene.pk])
        values = {"base": 1, "edit": "{"}
        self.assertEqual(self.client.post(address, values).status_code, 422)
        self.assertEqual(self.scene.head, 1)

    def test_a_preview_is_seen_and_not_kept(self):
        edit = {"name": "set-value", "path": GAP, "value": 12}
        address = reverse("edit", args=[self.scene.pk])
        values = {"base": 1, "preview": 1, "frame": 20, "edit": json.dumps(edit)}
        answer = self.client.post(address, {**values, "layer": "t1", "also": "motion,places"})
        digest = answer["X-Digest"]
        self.assertEqual((self.gap, self.scene.head), (2, 1))
        kept = self.client.get(reverse("frame", args=[self.scene.pk, self.scene.digest, 20]))
        seen = self.client.get(reverse("frame", args=[self.scene.pk, digest, 20]))
        self.assertNotEqual(kept.content, seen.content)
        parts = email.message_from_bytes(
            f"Content-Type: {answer['Content-Type']}\r\n\r\n".encode() + answer.content
        )
        brought = {part.get_filename(): part.get_payload(decode=True) for part in parts.walk()}
        self.assertEqual(brought["frame"], seen.content)
        for name, frame in (("motion", []), ("places", [20])):
            address = reverse(name, args=[self.scene.pk, digest, *frame])
            told = self.client.get(address, {"layer": "t1"}).json()
            self.assertEqual(json.loads(brought[name]), told)
        without_layer = self.client.post(
            reverse("edit", args=[self.scene.pk]), {**values, "also": "motion"}
        )
        self.assertNotIn(b'"motion"', without_layer.content)

    def test_more_is_told_of_what_is_open(self):
        address = reverse("parts", args=[self.scene.pk])
        closed = self.client.get(address, {"layer": "t1"})
        opened = {"t1": "Copy its", "m1": "By what", "scene": "All keeps its seconds"}
        for part, words in opened.items():
            self.assertNotContains(closed, words)
            self.assertContains(
                self.client.get(address, {"layer": "t1", "opened": f"more-{part}"}), words
            )
        dressed = self.client.get(address, {"layer": "t1", "opened": "wear-more-t1"})
        self.assertContains(dressed, "add-effect")
        self.assertNotContains(closed, "add-effect")

    def test_presets_titles_and_centre(self):
        self.edit(name="add-move", layer="t1", preset="spin-in")
        self.assertEqual(self.document["layers"][0]["moves"][1]["name"], "Spin in")
        self.edit(name="add-title")
        self.assertEqual(self.document["layers"][1]["id"], "t2")
        self.edit(name="set-value", path="t1.transform.position", value=[100, 200, 500])
        self.edit(name="set-value", path="t1.style.align", value="left")
        self.edit(name="center", layer="t1", axes="xy")
        places = reverse("places", args=[self.scene.pk, self.scene.digest, 0])
        corners = np.array(self.client.get(places).json()["layers"]["t1"]["corners"])
        np.testing.assert_allclose(corners.mean(axis=0), [960, 540], atol=0.05)

    def test_letters_are_styled_where_they_are_selected(self):
        values = {"first": 4, "end": 9, "layer": "t1"}
        page = self.client.get(reverse("workbench", args=[self.scene.pk]), values)
        self.assertContains(page, "Letters <b>Quiet</b>")
        self.assertContains(page, "style-letters")
        self.edit(
            name="style-letters", layer="t1", first=4, end=9, property="fill", value="#00FF00"
        )
        self.assertEqual(self.document["layers"][0]["runs"][0]["from"], 4)

    def test_upload_takes_the_place_of_the_scene_and_can_be_undone(self):
        other = scene_data("Nine Winter Moons", name="Moons")
        file = SimpleUploadedFile("moons.balletto.json", json.dumps(other).encode())
        address = reverse("upload-scene", args=[self.scene.pk])
        self.client.post(address, {"base": 1, "file": file})
        self.assertEqual(self.document, other)
        self.walk("undo")
        self.assertEqual(self.document["name"], "Opening")
        bad = SimpleUploadedFile("bad.json", b'{"format": "balletto-scene", "version": 1}')
        answer = self.client.post(address, {"base": 3, "file": bad})
        self.assertContains(answer, "<code>size</code>", status_code=400)
        self.assertEqual(self.scene.head, 3)


class FrameTest(PageTest):
    def picture(self, **query):
        address = reverse("frame", args=[self.scene.pk, self.scene.address, 30])
        response = self.client.get(address, query)
        self.assertEqual(response.status_code, 200)
        return response, Image.open(io.BytesIO(response.content))

    def test_a_frame_is_the_renderers_own(self):
        response, picture = self.picture(box=960)
        self.assertEqual((picture.format, picture.size), ("JPEG", (960, 540)))
        self.assertIn("immutable", response["Cache-Control"])
        drawn = draw_frame(Picture(files.from_data(self.document)), 30, (960, 540))
        difference = np.abs(np.asarray(picture).astype(int) - drawn[..., 2::-1])
        self.assertLess(difference.mean(), 1.0)

    def run_of(self, first, count):
        """Frames that come in one answer, by their numbers."""
        address = reverse("frame-run", args=[self.scene.pk, self.scene.address, first, count])
        answer = self.client.get(address, {"box": 480})
        head = f"Content-Type: {answer['Content-Type']}\r\n\r\n".encode()
        parts = email.message_from_bytes(head + answer.content).get_payload()
        names = [part.get_param("name", header="content-disposition") for part in parts]
        return dict(zip(names, (part.get_payload(decode=True) for part in parts), strict=True))

    def test_frames_in_a_run_are_those_that_come_alone(self):
        scene = Picture(files.from_data(self.document))
        with mock.patch.object(frames, "jpeg", wraps=frames.jpeg) as encoding:
            for first in (20, 80):
                for number, data in self.run_of(first, 6).items():
                    alone = jpeg(draw_frame(scene, int(number), (480, 270)))
                    self.assertEqual(data, alone, number)
        # At its end the title rests.
        self.assertEqual(encoding.call_count, 6 + 1)

    def test_a_transparent_scene_comes_with_alpha(self):
        self.edit(name="set-value", path="scene.background", value={"kind": "none"})
        _, picture = self.picture()
        self.assertEqual((picture.format, picture.mode), ("PNG", "RGBA"))
        self.assertEqual(picture.getpixel((2, 2))[3], 0)

    def test_frames_outside_the_scene_are_not_there(self):
        address = reverse("frame", args=[self.scene.pk, self.scene.digest, 90])
        self.assertEqual(self.client.get(address).status_code, 404)

    def test_a_box_is_one_of_a_few(self):
        self.assertEqual(self.picture(box=99999)[1].size, (1920, 1080))
        self.assertEqual(self.picture(box="x")[1].size, (960, 540))
        self.assertEqual(self.picture(box=500)[1].size, (960, 540))

    def test_the_cascade_has_the_numbers_of_the_core(self):
        address = reverse("motion", args=[self.scene.pk, self.scene.digest])
        move = self.client.get(address, {"layer": "t1"}).json()["moves"][0]
        expected = poses(files.from_data(self.document), "t1", list(range(90)))["moves"]["m1"]
        self.assertEqual(move["starts"], expected["delays"])
        self.assertEqual(move["ends"], [delay + 20 for delay in expected["delays"]])
        weights = np.frombuffer(base64.b64decode(move["weights"]), np.int8).reshape(90, 13) / 100
        np.testing.assert_allclose(weights, expected["weights"], atol=0.0051)
        self.assertEqual(self.client.get(address, {"layer": "t9"}).status_code, 404)

    def test_previews_of_one_scene_are_not_found_in_another(self):
        history_digest = history.digest_of({"other": "document"})
        address = reverse("motion", args=[self.scene.pk, history_digest])
        self.assertEqual(self.client.get(address, {"layer": "t1"}).status_code, 404)
