"""A person's own fonts: sent, kept once, shown on their page, at hand in their scenes, removed."""

import io
import json
import tempfile
import time
import zipfile
from pathlib import Path
from unittest import mock

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import override_settings
from django.urls import reverse

from balletto.lettering.layout import lay_out
from balletto.lettering.own_fonts import index_of, missing_fonts
from balletto.scene import files
from tests.core.fonts import square_font, variable_font
from tests.core.scenes import scene_data
from web.library.font_store import fonts_folder_of
from web.library.models import FontFile
from web.library.store import opened
from web.pictures.looks import address_at
from web.projects import history
from web.projects.models import Project

from .base import PageTest, make_person


class FontsTest(PageTest):
    def setUp(self):
        super().setUp()
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        settings = override_settings(MEDIA_ROOT=Path(folder.name))
        settings.enable()
        self.addCleanup(settings.disable)

    def send(self, *fonts, **more):
        uploads = [SimpleUploadedFile(name, content) for name, content in fonts]
        return self.client.post(reverse("send-fonts"), {"file": uploads}, follow=True, **more)

    def send_family(self):
        return self.send(
            ("regular.ttf", square_font()), ("bold.ttf", square_font(style="Bold", weight=700))
        )

    def make_scene(self, font="Perihelion", name="Nine Moons"):
        data = scene_data("Orbit", name=name)
        data["layers"][0]["style"] |= {"font": font, "axes": {}}
        project, _ = Project.objects.get_or_create(owner=self.ada, name="Winter")
        return history.make_scene(project, data, self.ada)

    def edit(self, scene, font):
        edit = {"name": "set-value", "path": "t1.style.font", "value": font}
        data = {"base": scene.head, "layer": "t1", "frame": 0, "edit": json.dumps(edit)}
        return self.client.post(reverse("edit", args=[scene.pk]), data)


class PageOfFontsTest(FontsTest):
    def test_files_are_put_together_to_families(self):
        page = self.send_family()
        self.assertContains(page, "“Perihelion” is here.", count=1)
        self.assertContains(page, "Regular, Bold")
        self.assertContains(page, "Made up for tests")
        self.assertEqual(FontFile.objects.filter(family="Perihelion").count(), 2)
        self.assertContains(page, 'data-axis="wght"')
        for name in ("Fraunces", "Limelight"):
            self.assertContains(page, name)

    def test_the_same_is_kept_once_and_another_of_its_name_is_refused(self):
        self.send(("one.ttf", square_font()))
        with mock.patch("time.time", return_value=time.time() + 100):
            self.send(("again.ttf", square_font()))
        self.assertEqual(FontFile.objects.count(), 1)
        page = self.send(("other.ttf", square_font(letters="ABC")))
        self.assertContains(page, "Perihelion Regular is here already, with other content")
        self.assertEqual(FontFile.objects.count(), 1)

    def test_what_is_wrong_with_some_is_said_and_the_others_are_kept(self):
        page = self.send(
            ("broken.ttf", square_font()[:900]), ("notes.txt", b"words"),
            ("good.ttf", square_font()),
        )  # fmt: skip
        self.assertContains(page, "broken.ttf cannot be used")
        self.assertContains(page, "notes.txt is no font file; fonts are TTF, OTF")
        self.assertContains(page, "“Perihelion” is here.")
        with override_settings(FONT_FILE_MAX_BYTES=100):
            self.assertContains(self.send(("big.ttf", variable_font())), "a font may have 100")
        with override_settings(MEDIA_PERSON_MAX_BYTES=4000):
            page = self.send(("large.ttf", variable_font()))
            self.assertContains(page, "are left for all your files")
        self.assertContains(self.client.post(reverse("send-fonts"), follow=True), "Choose fonts")

    def test_a_name_that_ships_is_told_apart(self):
        page = self.send(("own.ttf", variable_font("Fraunces")))
        self.assertContains(page, "“Fraunces (own)” is here.")

    def test_fonts_are_for_their_owner_alone(self):
        self.send(("one.ttf", square_font()))
        font = FontFile.objects.get()
        address = reverse("font-file", args=[font.pk])
        self.assertEqual(self.client.get(address).status_code, 200)
        rules = self.client.get(reverse("own-font-rules")).content.decode()
        self.assertIn(address, rules)
        self.client.force_login(make_person("ben"))
        self.assertEqual(self.client.get(address).status_code, 404)
        self.assertNotIn(address, self.client.get(reverse("own-font-rules")).content.decode())
        self.assertNotContains(self.client.get(reverse("fonts")), "Perihelion")
        self.client.post(reverse("remove-font"), {"family": "Perihelion"})
        self.assertTrue(FontFile.objects.exists())

    def test_removing_tells_what_uses_it(self):
        self.send_family()
        self.make_scene()
        self.assertContains(self.client.get(reverse("fonts")), "Nine Moons")
        page = self.client.post(reverse("remove-font"), {"family": "Perihelion"}, follow=True)
        self.assertContains(page, "These scenes name it, and say so: Nine Moons.")
        self.assertFalse(FontFile.objects.exists())
        self.assertEqual([p.name for p in fonts_folder_of(self.ada.pk).iterdir()], ["fonts.json"])


class ScenesTest(FontsTest):
    def set_in(self, scene):
        scene.refresh_from_db()
        document = opened(history.newest(scene).document, self.ada.pk)
        layout = lay_out(document, document.layers[0])
        return layout.characters[0].setting.face.family

    def test_a_title_is_set_in_an_own_font(self):
        self.send_family()
        scene = self.make_scene("Anybody")
        self.assertContains(self.client.get(reverse("font-list")), 'aria-label="Perihelion"')
        answer = self.edit(scene, "Perihelion")
        self.assertEqual(answer.status_code, 200)
        self.assertContains(answer, "Set in")
        self.assertEqual(self.set_in(scene), "Perihelion")

    def test_a_font_that_is_not_there_cannot_be_chosen(self):
        scene = self.make_scene("Anybody")
        answer = self.edit(scene, "Perihelion")
        self.assertEqual(answer.status_code, 422)
        self.assertIn("there is no font “Perihelion” here", answer.json()["message"])

    def test_a_missing_font_is_said_and_comes_right(self):
        scene = self.make_scene()
        page = self.client.get(reverse("workbench", args=[scene.pk]))
        self.assertContains(page, "The font “Perihelion” is not here: set in Figtree instead.")
        self.assertEqual(self.set_in(scene), "Figtree")
        before = address_at(scene, scene.digest)
        # What else is changed is none of its business.
        edit = {"name": "set-value", "path": "t1.style.size", "value": 60}
        data = {"base": 1, "layer": "t1", "frame": 0, "edit": json.dumps(edit)}
        answer = self.client.post(reverse("edit", args=[scene.pk]), data)
        self.assertEqual(answer.status_code, 200)
        self.send_family()
        page = self.client.get(reverse("workbench", args=[scene.pk]))
        self.assertNotContains(page, "is not here: set in")
        self.assertEqual(self.set_in(scene), "Perihelion")
        self.assertNotEqual(address_at(scene, scene.digest), before)

    def test_a_scene_takes_its_fonts_along(self):
        self.send_family()
        self.send(("kept.ttf", square_font("Here Alone", embedding=2)))
        scene = self.make_scene()
        edit = {"name": "style-letters", "layer": "t1", "first": 0, "end": 1,
                "property": "font", "value": "Here Alone"}  # fmt: skip
        data = {"base": 1, "layer": "t1", "frame": 0, "edit": json.dumps(edit)}
        self.assertEqual(self.client.post(reverse("edit", args=[scene.pk]), data).status_code, 200)
        page = self.client.get(reverse("workbench", args=[scene.pk]))
        self.assertContains(page, "Download it with its files")
        bundle = self.client.get(reverse("download-scene", args=[scene.pk]), {"files": ""}).content
        with zipfile.ZipFile(io.BytesIO(bundle)) as archive:
            fonts = [name for name in archive.namelist() if name.startswith("fonts/")]
            self.assertEqual(sum(name.endswith(".ttf") for name in fonts), 2)
            self.assertEqual(len(fonts), 4)
            told = archive.read("fonts/not included.txt").decode()
        self.assertIn("Here Alone Regular", told)
        ben = make_person("ben")
        self.client.force_login(ben)
        # Another font of that name is his own already.
        self.send(("mine.ttf", square_font(letters="ABC")))
        made = self.open_bundle(ben, bundle)
        document = opened(history.newest(made).document, ben.pk)
        self.assertEqual(document.layers[0].style.font, "Perihelion (2)")
        self.assertEqual([name for _, name in missing_fonts(document)], ["Here Alone"])
        self.assertEqual(FontFile.objects.filter(owner=ben).count(), 3)
        again = self.open_bundle(ben, bundle)
        document = opened(history.newest(again).document, ben.pk)
        self.assertEqual(document.layers[0].style.font, "Perihelion (2)")
        self.assertEqual(FontFile.objects.filter(owner=ben).count(), 3)

    def test_a_font_called_otherwise_here_travels_on(self):
        self.send(("mine.ttf", square_font(letters="ABC")))
        bundle = io.BytesIO()
        data = scene_data("Orbit")
        data["layers"][0]["style"] |= {"font": "Perihelion", "axes": {}}
        told = index_of([{"file": "../../secret.ttf", "family": "Perihelion"}, 3])
        with zipfile.ZipFile(bundle, "w") as archive:
            archive.writestr("orbit.balletto.json", json.dumps(data))
            archive.writestr("fonts/plain.ttf", square_font())
            archive.writestr("fonts/other.ttf", square_font("Unwanted"))
            archive.writestr("fonts/deep/er.ttf", square_font("Perihelion", "Bold", 700))
            archive.writestr("fonts/fonts.json", told)
        made = self.open_bundle(self.ada, bundle.getvalue())
        families = set(FontFile.objects.values_list("family", flat=True))
        self.assertEqual(families, {"Perihelion", "Perihelion (2)"})
        sent = self.client.get(reverse("download-scene", args=[made.pk]), {"files": ""}).content
        ben = make_person("ben")
        self.client.force_login(ben)
        document = opened(history.newest(self.open_bundle(ben, sent)).document, ben.pk)
        self.assertEqual(document.layers[0].style.font, "Perihelion (2)")
        self.assertEqual(missing_fonts(document), [])

    def open_bundle(self, person, bundle):
        project, _ = Project.objects.get_or_create(owner=person, name="Elsewhere")
        upload = SimpleUploadedFile("moons.zip", bundle)
        self.client.post(reverse("scene-from-file", args=[project.pk]), {"file": upload})
        return project.scenes.latest("pk")

    def test_pictures_of_other_scenes_stay_as_they_are(self):
        scene = self.make_scene("Anybody")
        before = address_at(scene, scene.digest)
        self.send_family()
        self.assertEqual(address_at(scene, scene.digest), before)
        self.assertEqual(files.to_data(files.from_data(history.newest(scene).document))["name"],
                         "Nine Moons")  # fmt: skip
