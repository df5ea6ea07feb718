"""Renders of an older installation are there after it was brought up to date."""

from django.contrib.auth import get_user_model
from django.db import connection
from django.db.migrations.executor import MigrationExecutor
from django.db.migrations.recorder import MigrationRecorder
from django.test import TransactionTestCase

from tests.core.scenes import scene_data
from web.renders.models import Render, Retention, Segment


class RenderMigrationTest(TransactionTestCase):
    def migrate(self, name):
        executor = MigrationExecutor(connection)
        executor.migrate([("renders", name)])
        return MigrationExecutor(connection).loader.project_state([("renders", name)]).apps

    def begin_anew(self):
        """Takes the tables away, as if none had been made yet: installations only go forward."""
        with connection.schema_editor() as editor:
            for model in (Segment, Render, Retention):
                editor.delete_model(model)
        recorder = MigrationRecorder(connection)
        recorder.migration_qs.filter(app="renders").delete()

    def test_renders_of_one_format_become_renders_of_any(self):
        person = get_user_model().objects.create_user("ada")
        self.addCleanup(self.migrate, "0003_names")
        self.begin_anew()
        old = self.migrate("0001_initial")
        for state in ("finished", "drawing"):
            render = old.get_model("renders", "Render").objects.create(
                owner_id=person.pk, name=state, document=scene_data(), first=5, end=85, state=state
            )
            segments = old.get_model("renders", "Segment").objects
            segments.create(render=render, number=0, first=5, end=85)
        self.migrate("0003_names")
        for render in Render.objects.all():
            self.assertEqual((render.count, render.export.format), (80, "mp4"))
            self.assertEqual(render.export.frames, range(5, 85))
            parts = [(part.first, part.end, part.joins) for part in render.segments.all()]
            # What is still drawn has something to put it together.
            joined = [(0, 0, True)] if render.name == "drawing" else []
            self.assertEqual(parts, [(0, 80, False), *joined])
