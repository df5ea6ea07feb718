"""However much a person has, a page asks the database as often."""

from django.core.cache import cache
from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.urls import reverse

from tests.core.scenes import scene_data
from web.library import store
from web.projects import history, takes
from web.projects.models import Project
from web.renders.models import Render

from .base import PageTest, make_scene
from .test_access import EXPORT
from .test_looks import png

# Each names a page, or does something whose answer is a part of one.
ASKED = {
    "projects": lambda test: test.client.get(reverse("projects")),
    "bin": lambda test: test.client.get(reverse("bin")),
    "fonts": lambda test: test.client.get(reverse("fonts")),
    "library": lambda test: test.client.get(reverse("library")),
    "renders": lambda test: test.client.get(reverse("renders")),
    "workbench": lambda test: test.page(),
    "parts": lambda test: test.client.get(reverse("parts", args=[test.scene.pk])),
    "history": lambda test: test.client.get(reverse("history", args=[test.scene.pk])),
    "edit": lambda test: test.edit(name="set-value", path="t1.style.size", value=next(test.sizes)),
    "undo": lambda test: test.client.post(
        reverse("undo", args=[test.scene.pk]), {"base": test.newest, "layer": "t1"}
    ),
}


class QueriesTest(PageTest):
    def setUp(self):
        super().setUp()
        self.keep_files_apart()
        self.sizes = iter(range(10, 99))
        self.edit(name="set-value", path="t1.style.size", value=next(self.sizes))
        self.add_one_of_each()

    @property
    def newest(self):
        self.scene.refresh_from_db()
        return self.scene.head

    def add_one_of_each(self):
        """A scene beside, a take, a project, a file, what is removed, a render, some edits."""
        make_scene(self.ada, name="Beside")
        takes.keep(self.scene.pk, self.newest, self.ada)
        other = Project.objects.create(owner=self.ada, name="Another")
        history.make_scene(other, scene_data(), self.ada)
        store.keep(self.ada, png(f"#{next(self.sizes)}0000"))
        gone = make_scene(self.ada, name="Gone")
        self.client.post(reverse("remove-scene", args=[gone.pk]))
        Render.objects.create(
            owner=self.ada, scene=self.scene, name="R", document=self.document,
            digest=self.scene.digest, export_settings=EXPORT, count=9, state="finished",
        )  # fmt: skip
        for _ in range(2):
            self.edit(name="set-value", path="t1.style.size", value=next(self.sizes))

    def counted(self):
        """How many queries each takes, and which."""
        found = {}
        for name, ask in ASKED.items():
            ask(self)  # what is kept from then on is asked for once
            with CaptureQueriesContext(connection) as queries:
                self.assertLess(ask(self).status_code, 400, name)
            found[name] = [query["sql"] for query in queries]
        return found

    def test_no_page_asks_more_often_when_there_is_more(self):
        few = self.counted()
        for _ in range(4):
            self.add_one_of_each()
        cache.clear()
        for name, queries in self.counted().items():
            with self.subTest(name):
                self.assertLessEqual(len(queries), len(few[name]), "\n".join(queries[-12:])[:2000])
