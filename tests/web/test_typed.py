"""Edits as hands make them: typed values, several layers, requests that are sent again."""

import json
from unittest import mock

from django.contrib.auth import get_user_model
from django.test import Client
from django.urls import reverse

from balletto.scene.values import measures
from tests.core.scenes import scene_data
from web.projects import history
from web.projects.models import Scene

from .base import PageTest

SIZE = "t1.style.size"
POSITION = "t1.transform.position"


class TypedTest(PageTest):
    def typed(self, path, text, measure=measures.PIXELS, expect=200, now=None, **more):
        typed = {"text": text, "measure": measure.told, "now": now}
        return self.edit(expect, name="set-value", path=path, typed=typed, **more)

    @property
    def title(self):
        return self.document["layers"][0]

    def add_layers(self, count):
        """More titles, of sizes 100, 200, ..."""
        for number in range(1, count + 1):
            title = scene_data()["layers"][0]
            style = {**title["style"], "size": number * 100}
            self.edit(name="add-layer", layer={**title, "style": style})

    def test_what_is_typed_is_read_by_the_core(self):
        self.typed(SIZE, "540/5")
        self.assertEqual(self.title["style"]["size"], 108)
        self.typed(SIZE, "+12")
        self.assertEqual(self.title["style"]["size"], 120)
        self.typed(f"{POSITION}.0", "25 %")
        self.assertEqual(self.title["transform"]["position"][0], 480)
        self.typed("t1.moves.m1.start", "1s", measures.FRAME)
        self.assertEqual(self.title["moves"][0]["start"], 30)

    def test_a_side_that_is_scrubbed_takes_the_other_along(self):
        self.edit(name="set-value", path="t1.transform.scale", value=[1, 0.5])
        self.edit(name="set-value", path="t1.transform.scale.0", value=2, linked=True, at=0)
        self.assertEqual(self.title["transform"]["scale"], [2, 1])

    def test_what_is_added_to_values_without_a_path(self):
        def add(by, **edit):
            typed = {"by": by, "measure": {}, "now": 1}  # the page knows an old value
            self.edit(**edit, typed=typed)

        add(80, name="set-size", axis=0)
        self.assertEqual(self.document["size"], [2000, 1080])
        add(7, name="style-letters", layer="t1", first=0, end=1, property="size")
        self.assertEqual(self.title["runs"][0]["style"]["size"], 127)
        add(3, name="style-letters", layer="t1", first=0, end=1, property="size")
        self.assertEqual(self.title["runs"][0]["style"]["size"], 130)
        add(9, name="set-pivot", layer="t1", axis=1)
        self.assertEqual(self.title["transform"]["pivot"], [0, 9])

    def test_what_is_not_understood_is_refused_and_nothing_changes(self):
        before = self.document
        response = self.typed(SIZE, "1,920", expect=422)
        told = {"message": "is 1920 or 1.920 meant? type it so", "typed": True}
        self.assertEqual(response.json(), told)
        self.typed(SIZE, "big", expect=422)
        self.typed(SIZE, "5 s", expect=422)
        self.typed(SIZE, "100 at 0, 60 at 5", expect=422)
        self.assertEqual(self.document, before)

    def test_a_course_is_typed_where_keyframes_may_stand(self):
        opacity = "t1.transform.opacity"
        self.typed(opacity, "0 at 0, 100 at 1s soft both", measures.OPACITY)
        keys = [{"at": 0, "value": 0, "ease": "soft-both"}, {"at": 30, "value": 1}]
        self.assertEqual(self.title["transform"]["opacity"], {"keys": keys})
        self.typed("t1.moves.m1.pose.y", "100 below at 0, home at 15", measures.ABOVE_BELOW)
        keys = [{"at": 0, "value": 100}, {"at": 15, "value": 0}]
        self.assertEqual(self.title["moves"][0]["pose"]["y"], {"keys": keys})

    def test_several_layers_take_what_is_typed(self):
        self.add_layers(3)
        layers = [layer["id"] for layer in self.document["layers"]]

        def sizes():
            return [layer["style"]["size"] for layer in self.document["layers"]]

        self.typed(SIZE, "10 to 70", layers=layers)
        self.assertEqual(sizes(), [10, 30, 50, 70])
        self.typed(SIZE, "+5", layers=layers)
        self.assertEqual(sizes(), [15, 35, 55, 75])
        self.typed(SIZE, "5 less", layers=layers)
        self.assertEqual(sizes(), [10, 30, 50, 70])
        self.typed(SIZE, "random 10 to 90", layers=layers)
        self.assertTrue(all(10 <= size <= 90 for size in sizes()))
        self.assertEqual(len(set(sizes())), 4)
        self.typed(SIZE, "64", layers=layers)
        self.assertEqual(sizes(), [64] * 4)
        head = self.scene.head
        self.edit(name="set-value", path=SIZE, value=74, layers=layers, **{"from": 64})
        self.assertEqual(sizes(), [74] * 4)
        self.assertEqual(self.scene.head, head + 1)  # one step
        self.edit(name="set-value", path="t1.style.fill", value="#123456", layers=layers)
        self.assertEqual({layer["style"]["fill"] for layer in self.document["layers"]}, {"#123456"})

    def test_only_layers_that_have_the_value_change(self):
        self.edit(name="add-shape", shape="star")
        self.typed(SIZE, "64", layers=["t1", "s1"])
        self.assertEqual(self.title["style"]["size"], 64)
        self.typed("t1.transform.opacity", "40", measures.OPACITY, layers=["t1", "s1"])
        shown = [layer["transform"]["opacity"] for layer in self.document["layers"]]
        self.assertEqual(shown, [0.4, 0.4])

    def test_with_keying_each_of_several_gets_its_key(self):
        self.edit(name="add-shape", shape="star")
        opacity = "t1.transform.opacity"
        self.typed(opacity, "50", measures.OPACITY, layers=["t1", "s1"], at=12, keyed=opacity)
        for layer in self.document["layers"]:
            keys = layer["transform"]["opacity"]["keys"]
            self.assertEqual(keys, [{"at": 12, "value": 0.5}])

    def test_layers_are_placed_from_where_they_stand(self):
        for _ in range(3):
            self.edit(name="place", layers=["t1"], by=[10, 0], at=0)
        self.assertEqual(self.title["transform"]["position"], [990, 540, 0])
        self.edit(name="place", layers=["t1"], by=[0.04, 0], grid=0.01, at=0)
        self.assertEqual(self.title["transform"]["position"], [990.04, 540, 0])
        self.edit(name="place", layers=["t1"], by=[0, 0], at=6, keyed=True)
        keys = self.title["transform"]["position"]["keys"]
        self.assertEqual(keys, [{"at": 6, "value": [990.04, 540, 0]}])

    def test_what_is_in_a_group_moves_with_it_once(self):
        self.edit(name="group", layers=["t1"])
        self.edit(name="place", layers=["t1", "g1"], by=[10, 0], at=0)
        member, group = self.document["layers"]
        self.assertEqual(member["transform"]["position"][0], 960)
        self.assertEqual(group["transform"]["position"][0], 10)


class AgainTest(PageTest):
    """Requests whose answers were lost are sent again, and are made once."""

    def post(self, name, expect=200, **values):
        response = self.client.post(reverse(name, args=[self.scene.pk]), {"layer": "t1", **values})
        self.assertEqual(response.status_code, expect, response.content[:300])
        self.scene.refresh_from_db()
        return response

    def test_an_edit_that_is_sent_again_is_made_once(self):
        edit = json.dumps({"name": "place", "layers": ["t1"], "by": [10, 0], "at": 0})
        for _ in range(3):
            answer = self.post("edit", base=1, request="a-1", edit=edit)
            self.assertContains(answer, 'data-revision="2"')
        self.assertEqual(self.document["layers"][0]["transform"]["position"][0], 970)
        self.post("edit", expect=409, base=1, request="a-2", edit=edit)
        remove = json.dumps({"name": "remove-layer", "layer": "t1"})
        for _ in range(2):
            self.post("edit", base=2, request="a-3", edit=remove)

    def test_steps_in_the_history_too(self):
        for value in (3, 4):
            self.edit(name="set-value", path="t1.moves.m1.stagger.gap", value=value)
        for _ in range(3):
            self.post("undo", base=3, request="u-1")
        self.assertEqual(self.document["layers"][0]["moves"][0]["stagger"]["gap"], 3)

    def test_what_was_not_answered_is_made_on_leaving_in_order_and_once(self):
        def of(request, value):
            edit = {"name": "set-value", "path": "t1.moves.m1.stagger.gap", "value": value}
            return {"request": request, "layer": "t1", "frame": 0, "edit": edit}

        edit = json.dumps(of("a", 3)["edit"])
        self.post("edit", base=1, request="a", edit=edit)
        wrong = {**of("x", 1), "edit": {"name": "nothing"}}
        edits = [of("a", 3), of("b", 4), wrong, of("c", 5)]
        for _ in range(2):
            self.post("leave", expect=204, base=1, steps=json.dumps(edits))
        revisions = list(self.scene.revisions.values_list("request", flat=True))
        self.assertEqual(revisions, [None, "a", "b", "c"])
        self.assertEqual(self.document["layers"][0]["moves"][0]["stagger"]["gap"], 5)

    def test_an_undo_that_is_left_behind_is_made(self):
        name = {"name": "set-value", "path": "scene.name"}
        steps = [
            {"request": "a", "layer": "t1", "frame": 0, "edit": {**name, "value": "First"}},
            {"request": "b", "layer": "t1", "frame": 0, "walk": "undo"},
            {"request": "c", "layer": "t1", "frame": 0, "edit": {**name, "value": "Second"}},
            {"request": "d", "layer": "t1", "frame": 0, "walk": "undo"},
        ]
        for _ in range(2):  # a request that is sent again is made once
            self.post("leave", expect=204, base=1, steps=json.dumps(steps))
        self.assertEqual(self.document["name"], "Opening")
        self.assertEqual(self.scene.head, 5)

    def test_what_follows_an_edit_that_is_made_meanwhile_is_made_on_leaving(self):
        """The page's own request, still under way, may make it whenever the scene is looked at."""
        edit = {"name": "set-value", "path": "scene.name", "value": "Mine"}
        steps = [
            {"request": "a", "layer": "t1", "frame": 0, "edit": edit},
            {"request": "b", "layer": "t1", "frame": 0, "walk": "undo"},
        ]
        look = Scene.refresh_from_db

        def look_and_lose(scene, *args, **more):
            look(scene, *args, **more)
            history.once(
                scene.pk, "a", lambda: history.record(scene.pk, 1, edit, self.scene.project.owner)
            )

        before = self.document["name"]
        with mock.patch.object(Scene, "refresh_from_db", look_and_lose):
            self.client.post(
                reverse("leave", args=[self.scene.pk]), {"base": 1, "steps": json.dumps(steps)}
            )
        self.assertEqual(
            list(self.scene.revisions.values_list("request", flat=True)), [None, "a", "b"]
        )
        self.scene.refresh_from_db()
        self.assertEqual(self.document["name"], before)

    def test_leaving_overwrites_nothing_that_was_changed_elsewhere(self):
        self.edit(name="set-value", path="scene.name", value="Other")
        edit = {"name": "set-value", "path": "scene.name", "value": "Mine"}
        edits = [{"request": "a", "layer": "t1", "frame": 0, "edit": edit}]
        self.post("leave", expect=204, base=1, steps=json.dumps(edits))
        self.assertEqual(self.document["name"], "Other")
        self.post("leave", expect=422, base=1, steps="[")

    def test_times_are_read(self):
        address = reverse("read", args=[self.scene.pk])
        for text, of, now, value in (
            ("1:12", "frame", "", 42), ("+10", "frame", "20", 30), ("1.5 s", "length", "", 45),
            ("20", "frames", "", 20),
        ):  # fmt: skip
            answer = self.client.get(address, {"text": text, "of": of, "now": now})
            self.assertEqual(answer.json(), {"value": value})
        refused = self.client.get(address, {"text": "soon", "of": "frame"})
        self.assertContains(refused, "a number is needed", status_code=422)

    def test_old_histories_have_no_requests(self):
        self.assertIsNone(history.newest(self.scene).request)


class SigningInHereTest(PageTest):
    def test_a_page_goes_on_after_signing_in_in_place(self):
        get_user_model().objects.create_user("dora", password="nine-winter-moons")  # noqa: S106
        visitor = Client(enforce_csrf_checks=True)
        told = visitor.get(reverse("token")).json()
        self.assertEqual(told["name"], "")
        words = {"username": "dora", "password": "wrong", "csrfmiddlewaretoken": told["token"]}
        refused = visitor.post(reverse("sign-in-here"), words)
        self.assertEqual(refused.status_code, 422)
        self.assertIn("message", refused.json())
        answer = visitor.post(reverse("sign-in-here"), {**words, "password": "nine-winter-moons"})
        self.assertEqual(answer.json()["name"], "dora")
        self.assertEqual(visitor.get(reverse("token")).json()["name"], "dora")
        header = {"X-CSRFToken": answer.json()["token"]}
        self.assertEqual(visitor.post(reverse("sign-out"), headers=header).status_code, 302)
