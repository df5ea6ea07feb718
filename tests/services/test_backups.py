"""All that is kept, written to a file and brought back."""

import tarfile
import tempfile
from pathlib import Path

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import TransactionTestCase, override_settings

from balletto.command import CommandError
from tests.core.media import media_folder
from tests.web.base import make_person, make_scene
from web.library.models import MediaFile
from web.library.store import folder_of, keep
from web.projects import history
from web.projects.models import Scene
from web.services.backups import backup, restore


class BackupTest(TransactionTestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        media = override_settings(MEDIA_ROOT=str(self.folder / "media"))
        media.enable()
        self.addCleanup(media.disable)
        self.file = self.folder / "all.tar"
        self.ada = make_person("ada")
        self.scene = make_scene(self.ada, name="Opening")
        content = (media_folder() / "moon.png").read_bytes()
        self.kept = keep(self.ada, SimpleUploadedFile("moon.png", content))

    def test_what_was_lost_is_back(self):
        document = history.newest(self.scene).document
        self.assertIn("bytes", backup(self.file))
        place = folder_of(self.ada.pk) / self.kept.name
        content = place.read_bytes()
        place.unlink()
        self.ada.delete()
        later = make_person("eve")
        restore(self.file)
        scene = Scene.objects.get(name="Opening")
        self.assertEqual(history.newest(scene).document, document)
        self.assertEqual(MediaFile.objects.get().name, self.kept.name)
        self.assertEqual(place.read_bytes(), content)
        self.assertFalse(type(later).objects.filter(username="eve").exists())

    def test_what_is_no_backup_changes_nothing(self):
        for name, content in (("no.tar", b"nothing"), ("empty.tar", None)):
            file = self.folder / name
            if content is None:
                with tarfile.open(file, "w") as archive:
                    archive.add(__file__, "something.py")
            else:
                file.write_bytes(content)
            with self.assertRaisesRegex(CommandError, "backup"):
                restore(file)
        self.assertTrue(Scene.objects.filter(name="Opening").exists())
        self.assertTrue((folder_of(self.ada.pk) / self.kept.name).exists())
