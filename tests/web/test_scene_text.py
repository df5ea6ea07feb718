"""The scene as a text on the page: told, checked, kept as one edit."""

from django.urls import reverse

from .base import PageTest


class SceneTextTest(PageTest):
    def setUp(self):
        super().setUp()
        self.address = reverse("scene-text", args=[self.scene.pk])
        self.text = self.client.get(self.address).json()["text"]

    def test_it_is_told_checked_and_kept_as_one_edit(self):
        self.assertIn("The scene “Opening”.", self.text)
        self.assertIn("Each character comes from", self.text)
        red = self.text.replace("coloured #FFFFFF", "coloured #FF0000")
        self.assertNotEqual(red, self.text)
        told = self.client.post(self.address, {"text": red}).json()
        self.assertEqual(told, {"said": "It says a scene of 1 layer."})
        before = self.scene.head
        self.edit(name="make-scene", text=red)
        self.assertEqual(self.scene.head, before + 1)
        self.assertEqual(self.document["layers"][0]["style"]["fill"], "#FF0000")
        self.assertEqual(self.client.get(self.address).json()["text"], red)
        self.client.post(reverse("undo", args=[self.scene.pk]), {"base": self.scene.head})
        self.assertEqual(self.client.get(self.address).json()["text"], self.text)

    def test_what_is_wrong_is_told_and_nothing_is_made(self):
        broken = f"{self.text}\nletters go nowhere at all\n"
        self.assertIn("ine ", self.client.post(self.address, {"text": broken}).json()["fault"])
        before = self.scene.head
        self.edit(422, name="make-scene", text=broken)
        self.edit(422, name="make-scene")
        self.assertEqual(self.scene.head, before)

    def test_it_is_for_whoever_owns_the_scene(self):
        other = reverse("scene-text", args=[self.other.pk])
        self.assertEqual(self.client.get(other).status_code, 404)
        self.assertEqual(self.client.post(other, {"text": self.text}).status_code, 404)
