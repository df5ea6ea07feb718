"""An address of a picture never comes to mean another picture."""

import io
import json
from unittest import mock

from django.core.files.uploadedfile import SimpleUploadedFile
from django.urls import reverse
from PIL import Image

from tests.core.scenes import scene_data
from web.library import store
from web.pictures import films, looks
from web.projects import history
from web.renders.models import Render

from .base import PageTest
from .test_access import EXPORT

LASTING = "private, max-age=31536000, immutable"


def png(color):
    content = io.BytesIO()
    Image.new("RGB", (320, 180), color).save(content, "PNG")
    return SimpleUploadedFile("moon.png", content.getvalue())


class LooksTest(PageTest):
    def setUp(self):
        super().setUp()
        self.keep_files_apart()
        self.kept = store.keep(self.ada, png("#F2B705"))
        self.edit(name="add-file", file=self.kept.name)

    @property
    def picture(self):
        return next(each["id"] for each in self.document["layers"] if each["kind"] == "picture")

    @property
    def place(self):
        return store.folder_of(self.ada.pk) / self.kept.name

    def addresses(self):
        """Each address that gives pictures or numbers of the scene as it is now."""
        seen = self.scene.address
        render = Render.objects.get_or_create(
            owner=self.ada, scene=self.scene, name="R", document=self.document,
            digest=self.scene.digest, export_settings=EXPORT, count=9,
        )[0]  # fmt: skip
        own = self.scene.pk
        size = f"width=320&height=180&fit=&at=3&of={seen}"
        return {
            "frame": reverse("frame", args=[own, seen, 3]) + "?box=480",
            "run": reverse("frame-run", args=[own, seen, 3, 2]) + "?box=480",
            "poster": reverse("poster", args=[own, seen]),
            "film": reverse("film", args=[own, seen, self.picture, "pop-by-words"]),
            "places": reverse("places", args=[own, seen, 3]) + "?layer=t1",
            "asking page": f"{reverse('fit-poster', args=[own])}?{size}",
            "render": f"{reverse('render-poster', args=[render.pk])}?of={render.address}",
        }

    def test_pages_tell_the_address_as_it_is_now(self):
        self.assertContains(self.page(), f'data-digest="{self.scene.address}"')
        shelf = self.client.get(reverse("projects"))
        self.assertContains(shelf, reverse("poster", args=[self.scene.pk, self.scene.address]))

    def test_what_an_address_names_may_be_kept_and_what_it_does_not_may_not(self):
        for name, address in self.addresses().items():
            with self.subTest(name):
                self.assertEqual(self.client.get(address)["Cache-Control"], LASTING)
                plain = address.replace(self.scene.address, self.scene.digest)
                self.assertEqual(self.client.get(plain)["Cache-Control"], "no-store")

    def test_a_file_that_goes_and_comes_back_changes_each_address_and_picture(self):
        names = ("frame", "asking page", "poster", "film", "render")
        there = {name: self.client.get(self.addresses()[name]).content for name in names}
        first, content = self.addresses(), self.place.read_bytes()
        self.place.unlink()
        gone = self.addresses()
        for name in names:
            with self.subTest(name):
                self.assertNotEqual(gone[name], first[name])
                self.assertNotEqual(self.client.get(gone[name]).content, there[name])
                # The old address is not kept as if it were what it names.
                self.assertEqual(self.client.get(first[name])["Cache-Control"], "no-store")
        self.place.write_bytes(content)
        for name in names:
            with self.subTest(name):
                back = self.addresses()[name]
                self.assertNotEqual(back, gone[name])
                self.assertEqual(self.client.get(back).content, there[name])

    def test_a_film_is_drawn_once_for_all_that_it_shows(self):
        """Whatever else is edited; where a layer stands is no part of it either."""
        with mock.patch.object(films, "film_of", wraps=films.film_of) as drawing:
            first = self.client.get(self.addresses()["film"]).content
            self.edit(name="set-value", path="t1.style.size", value=90)
            self.assertEqual(self.client.get(self.addresses()["film"]).content, first)
            self.assertEqual(drawing.call_count, 1)
            self.edit(name="set-value", path=f"{self.picture}.transform.scale", value=[2, 3])
            self.client.get(self.addresses()["film"])
            self.assertEqual(drawing.call_count, 1)
            effect = {"kind": "tint", "amount": 90}
            self.edit(name="add-effect", layer=self.picture, effect=effect)
            self.assertNotEqual(self.client.get(self.addresses()["film"]).content, first)

    def test_another_drawing_has_other_addresses(self):
        before = self.scene.address
        with mock.patch.object(looks, "drawing_version", return_value="another"):
            self.assertNotEqual(self.scene.address, before)
        self.assertEqual(self.scene.address, before)

    def test_another_document_or_size_has_other_addresses(self):
        before = self.addresses()
        self.edit(name="set-value", path="t1.style.size", value=90)
        for name, address in self.addresses().items():
            self.assertNotEqual(address, before[name], name)
        frame = reverse("frame", args=[self.scene.pk, self.scene.address, 3])
        small, large = (self.client.get(frame, {"box": box}) for box in (480, 960))
        self.assertNotEqual(small.content, large.content)

    def test_a_preview_tells_its_address_too(self):
        edit = {"name": "set-value", "path": "t1.style.size", "value": 90}
        values = {"base": self.scene.head, "edit": json.dumps(edit), "preview": 1, "layer": "t1"}
        told = self.client.post(reverse("edit", args=[self.scene.pk]), values)["X-Digest"]
        self.assertEqual(told.partition("-")[2], self.scene.address.partition("-")[2])
        frame = self.client.get(reverse("frame", args=[self.scene.pk, told, 0]), {"box": 480})
        self.assertEqual(frame["Cache-Control"], LASTING)

    def test_files_of_nested_scenes_count(self):
        inner = {**scene_data(), "layers": [{"kind": "picture", "file": "deep.png"}]}
        document = {"layers": [{"file": "a.png"}], "scenes": [{"id": "x", "scene": inner}]}
        self.assertEqual(looks.files_in(document), ("a.png", "deep.png"))
        self.assertEqual(looks.files_in(history.newest(self.scene).document), (self.kept.name,))
