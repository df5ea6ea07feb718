"""What tests of pages start from: two people, each with a project and a scene."""

import json
import tempfile
from typing import Any

from django.contrib.auth import get_user_model
from django.core.cache import cache
from django.test import TestCase, override_settings
from django.urls import reverse

from tests.core.scenes import scene_data
from web.projects import history
from web.projects.models import Project, Scene


def make_person(name: str):
    """A person without a password, to be signed in by the test."""
    return get_user_model().objects.create_user(name)


def make_scene(person, **changes: Any) -> Scene:
    """A scene of the title that rises, in a project of the person's own."""
    project, _ = Project.objects.get_or_create(owner=person, name=f"Project of {person.username}")
    return history.make_scene(project, scene_data(**changes), person)


class PageTest(TestCase):
    """Signed in as Ada, who has a scene; Boris has one too."""

    def setUp(self):
        self.ada, self.boris = make_person("ada"), make_person("boris")
        self.scene = make_scene(self.ada, name="Opening")
        self.other = make_scene(self.boris, name="Secret")
        self.client.force_login(self.ada)

    def keep_files_apart(self) -> None:
        """Gives the test a folder of its own for what is kept, and an empty cache."""
        cache.clear()
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        media = override_settings(MEDIA_ROOT=folder.name)
        media.enable()
        self.addCleanup(media.disable)

    def edit(self, expect: int = 200, base: int | None = None, **edit: Any):
        """Posts an edit on the newest revision, or on `base`."""
        self.scene.refresh_from_db()
        values = {"base": base or self.scene.head, "edit": json.dumps(edit), "layer": "t1"}
        response = self.client.post(reverse("edit", args=[self.scene.pk]), values)
        self.assertEqual(response.status_code, expect, response.content[:500])
        self.scene.refresh_from_db()
        return response

    def page(self, layer: str = "", opened: str = ""):
        """The workbench with a layer selected, and a part opened that tells more."""
        values = {"layer": layer, "opened": opened}
        return self.client.get(reverse("workbench", args=[self.scene.pk]), values)

    @property
    def document(self) -> dict[str, Any]:
        self.scene.refresh_from_db()
        return history.newest(self.scene).document
