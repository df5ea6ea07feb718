"""A move, an effect or a style is put back to what it was when it was added."""

from django.contrib.auth import get_user_model
from django.test import TestCase

from tests.core.scenes import scene_data
from web.projects import history
from web.projects.models import Project
from web.projects.origins import as_it_came


class OriginsTest(TestCase):
    def setUp(self):
        self.person = get_user_model().objects.create_user("ada")
        project = Project.objects.create(owner=self.person, name="Winter")
        self.scene = history.make_scene(project, scene_data(), self.person)
        self.client.force_login(self.person)

    def edit(self, edit):
        self.scene.refresh_from_db()
        return history.record(self.scene.pk, self.scene.head, edit, self.person)

    def set(self, path, value):
        return self.edit({"name": "set-value", "path": path, "value": value})

    def title(self):
        self.scene.refresh_from_db()
        return history.newest(self.scene).document["layers"][0]

    def put_back(self, path):
        self.scene.refresh_from_db()
        return self.client.post(
            f"/scenes/{self.scene.pk}/edit/",
            {
                "base": self.scene.head,
                "layer": "t1",
                "edit": f'{{"name": "as-it-came", "path": "{path}"}}',
            },
        )

    def test_a_move(self):
        first = self.title()["moves"][0]
        for value in (3, 5, 9):
            self.set("t1.moves.m1.stagger.gap", value)
        self.assertEqual(self.put_back("t1.moves.m1").status_code, 200)
        self.assertEqual(self.title()["moves"][0], first)
        label = history.newest(self.scene).label
        self.assertIn("as it came", label)

    def test_a_style(self):
        first = self.title()["style"]
        self.set("t1.style.size", 44)
        self.set("t1.style.tracking", 12)
        self.put_back("t1.style")
        self.assertEqual(self.title()["style"], first)

    def test_the_second_blur_whatever_came_between(self):
        self.set("t1.effects", [{"kind": "blur", "x": 5}])
        self.set("t1.effects", [{"kind": "blur", "x": 5}, {"kind": "blur", "x": 8}])
        revision = self.set("t1.effects.1.x", 20)
        self.assertEqual(as_it_came(revision, "t1.effects.1")["x"], 8)
        self.set(
            "t1.effects",
            [{"kind": "tint"}, {"kind": "blur", "x": 6}, {"kind": "blur", "x": 30}],
        )
        self.put_back("t1.effects.2")
        self.assertEqual([each.get("x") for each in self.title()["effects"]], [None, 6, 8])

    def test_undone_states_are_not_where_it_came_from(self):
        self.set("t1.effects", [{"kind": "blur", "x": 99}])
        self.scene.refresh_from_db()
        history.undo(self.scene.pk, self.scene.head, self.person)
        self.set("t1.effects", [{"kind": "blur", "x": 2}])
        revision = self.set("t1.effects.0.x", 4)
        self.assertEqual(as_it_came(revision, "t1.effects.0")["x"], 2)

    def test_nothing_to_put_back_is_said(self):
        self.assertContains(self.put_back("t1.moves.m1"), "as it came", status_code=422)
        self.assertContains(self.put_back("t1.moves.m9"), "not there any more", status_code=422)
        self.assertContains(self.put_back("t1.text"), "can be put back", status_code=422)
