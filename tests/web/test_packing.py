"""Revisions are kept small, and every one is there again, whatever happened before and after."""

import json
import statistics
from importlib import import_module
from pathlib import Path
from unittest import TestCase

from django.contrib.auth import get_user_model
from django.db import connection
from django.db.migrations.executor import MigrationExecutor
from django.test import TransactionTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.amounts import some
from tests.core.scenes import scene_data
from web.projects import demo, history
from web.projects.models import Project, Revision
from web.projects.packing import packed, unpacked

from .base import PageTest

LONGEST = Path(demo.__file__).parent / "demo_scenes" / "6-long-exposure.balletto.json"
MOST_BYTES = 1024  # of the median edit of the longest scene of the demo


class TextTest(TestCase):
    @given(st.binary(max_size=4000), st.binary(max_size=4000))
    @settings(max_examples=50, deadline=None)
    def test_what_was_packed_comes_back(self, text, basis):
        self.assertEqual(unpacked(packed(text, basis), basis), text)

    def test_a_large_text_is_packed_against_all_of_another(self):
        """Farther back than a window of 32 KB, which the usual compression has."""
        basis = "".join(f'{{"number": {n * 7919 % 100003}}},' for n in range(60_000)).encode()
        text = basis[:100] + b"something else" + basis[100:]
        self.assertLess(len(packed(text, basis)), len(basis) / 200)


class PackingTest(PageTest):
    def edited(self, count: int) -> tuple[list[Revision], list[dict]]:
        """A scene of 64 arcs after edits of several kinds, and what it was each time."""
        document = json.loads(LONGEST.read_text())
        scene = history.make_scene(self.scene.project, document, self.ada)
        documents = [history.newest(scene).document]
        for number in range(1, count):
            layer = f"r{1 + number * 7 % 60}"
            if number % 9 == 0:
                edit = {"name": "move-layer", "layer": layer, "to": number % 60}
            else:
                path = ("stroke.width", "transform.opacity", "shape.sweep")[number % 3]
                value = round(1 + (number * 37 % 90) / 7, 2) / (20 if number % 3 == 1 else 1)
                edit = {"name": "set-value", "path": f"{layer}.{path}", "value": value}
            documents.append(history.record(scene.pk, scene.head, edit, self.ada).document)
            scene.refresh_from_db()
        return list(scene.revisions.order_by("number")), documents

    def test_edits_are_kept_in_a_kilobyte_and_all_are_there_again(self):
        revisions, documents = self.edited(some(140, 1000))
        self.assertEqual([each.document for each in revisions], documents)
        sizes = [
            len(each.packed) + len(json.dumps(each.edit)) + len(json.dumps(each.inverse))
            for each in revisions
        ]
        self.assertLess(statistics.median(sizes), MOST_BYTES)
        self.assertLess(sum(sizes) / len(sizes), MOST_BYTES)

    def test_any_revision_is_read_by_two_queries(self):
        revisions, _ = self.edited(40)
        for number in (1, 2, 31, 33, 40):
            with self.assertNumQueries(1 if revisions[number - 1].basis is None else 2):
                revision = Revision.objects.get(scene=revisions[0].scene, number=number)
                self.assertTrue(revision.document)

    def test_going_back_far_is_as_it_was(self):
        revisions, documents = self.edited(70)
        scene = revisions[0].scene
        back = history.go_back(scene.pk, 70, 3, self.ada)
        self.assertEqual(Revision.objects.get(pk=back.pk).document, documents[2])
        undone = history.undo(scene.pk, 71, self.ada)
        self.assertEqual(Revision.objects.get(pk=undone.pk).document, documents[69])

    def test_another_scene_altogether_is_there_again(self):
        revisions, _ = self.edited(3)
        scene = revisions[0].scene
        edit = {"name": "replace-scene", "document": scene_data(name="Other"), "file": "other"}
        made = history.record(scene.pk, 3, edit, self.ada)
        read = Revision.objects.get(pk=made.pk)
        self.assertEqual(read.document["name"], "Other")


class PackingMigrationTest(TransactionTestCase):
    """An older installation is brought up to date."""

    def migrate(self, name: str):
        MigrationExecutor(connection).migrate([("projects", name)])
        state = MigrationExecutor(connection).loader.project_state([("projects", name)])
        return state.apps

    def test_documents_are_packed(self):
        person = get_user_model().objects.create_user("ada")
        self.addCleanup(self.migrate, "0009_packed_alone")
        old = self.migrate("0006_author")
        project = old.get_model("projects", "Project").objects.create(owner_id=person.pk, name="P")
        documents = {}
        for name in ("One", "Two"):
            scene = old.get_model("projects", "Scene").objects.create(
                project=project, name=name, head=70, digest="x"
            )
            for number in range(1, 71):
                documents[name, number] = scene_data(name=f"{name} {number}")
                old.get_model("projects", "Revision").objects.create(
                    scene=scene,
                    number=number,
                    state=number,
                    label="Edit",
                    edit={},
                    digest="x",
                    document=documents[name, number],
                    author_id=person.pk,
                )
        # What was cut is done again from the start.
        packing = import_module("web.projects.migrations.0008_pack")
        packing.pack(self.migrate("0008_pack"), None)
        self.migrate("0009_packed_alone")
        read = {(r.scene.name, r.number): r.document for r in Revision.objects.all()}
        self.assertEqual(read, documents)
        self.migrate("0006_author")
        self.migrate("0009_packed_alone")
        read = {(r.scene.name, r.number): r.document for r in Revision.objects.all()}
        self.assertEqual(read, documents)
        whole = Revision.objects.filter(basis=None).count()
        self.assertEqual(whole, 2 * 3)
        self.assertEqual(Project.objects.get().name, "P")
