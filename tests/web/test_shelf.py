"""The shelf: projects and scenes named, found, copied, moved, removed and brought back."""

from datetime import timedelta

from django.urls import reverse
from django.utils import timezone

from web.projects import bin
from web.projects.models import Project, Scene

from .base import PageTest, make_scene


class ShelfTest(PageTest):
    def post(self, called, /, *arguments, **values):
        answer = self.client.post(reverse(called, args=arguments), values, follow=True)
        self.assertEqual(answer.status_code, 200)
        return answer

    @property
    def project(self):
        return Project.objects.get(owner=self.ada)

    def test_a_scene_opens_at_once_with_a_title_to_type_over(self):
        answer = self.client.post(reverse("open-new-scene", args=[self.project.pk]))
        scene = Scene.objects.latest("pk")
        self.assertRedirects(answer, reverse("workbench", args=[scene.pk]) + "?new")
        self.scene = scene
        self.assertEqual(self.document["size"], [1920, 1080])
        self.assertEqual(self.document["layers"][0]["text"], "New title")
        self.post("open-new-scene", self.project.pk, size="1080x1920")
        self.scene = Scene.objects.latest("pk")
        self.assertEqual(self.document["size"], [1080, 1920])
        refused = self.post("open-new-scene", self.project.pk, size="7x7")
        self.assertContains(refused, "Choose a size from the list")

    def test_a_project_is_renamed(self):
        self.post("rename-project", self.project.pk, name="Winter")
        self.assertEqual(self.project.name, "Winter")
        self.assertContains(self.post("rename-project", self.project.pk, name=""), "needs a name")
        self.assertEqual(self.project.name, "Winter")

    def test_scenes_are_found_by_name(self):
        make_scene(self.ada, name="End card")
        found = self.client.get(reverse("projects"), {"find": "END"})
        self.assertContains(found, "End card")
        self.assertNotContains(found, ">Opening<")
        none = self.client.get(reverse("projects"), {"find": "comet"})
        self.assertContains(none, "No scene is called “comet”")

    def test_a_scene_is_duplicated_under_a_free_name(self):
        self.post("duplicate-scene", self.scene.pk)
        self.post("duplicate-scene", self.scene.pk)
        names = sorted(self.project.scenes.values_list("name", flat=True))
        self.assertEqual(names, ["Opening", "Opening 2", "Opening 3"])

    def test_a_scene_is_moved_to_another_project_of_ones_own(self):
        other = Project.objects.create(owner=self.ada, name="Summer")
        self.post("move-scene", self.scene.pk, project=other.pk)
        self.assertEqual(other.scenes.get(), self.scene)
        theirs = Project.objects.get(owner=self.boris)
        for number in (theirs.pk, "", "x"):
            answer = self.client.post(
                reverse("move-scene", args=[self.scene.pk]), {"project": number}
            )
            self.assertEqual(answer.status_code, 404)

    def test_what_is_removed_comes_back_whole(self):
        self.edit(name="set-value", path="t1.style.size", value=90)
        told = self.post("remove-scene", self.scene.pk)
        self.assertContains(told, "lies in the bin for 30 days")
        self.assertNotContains(told, reverse("workbench", args=[self.scene.pk]))
        self.assertEqual(self.page().status_code, 404)
        self.assertContains(self.client.get(reverse("bin")), "Opening")
        self.post("restore-scene", self.scene.pk)
        self.assertEqual(self.page().status_code, 200)
        self.assertEqual(self.document["layers"][0]["style"]["size"], 90)
        self.assertEqual(self.scene.revisions.count(), 2)

    def test_a_project_is_removed_with_its_scenes_and_comes_back_with_one_of_them(self):
        self.post("remove-scene", self.scene.pk)
        self.post("remove-project", self.project.pk)
        self.assertContains(self.client.get(reverse("bin")), "project, with its scenes")
        self.post("restore-scene", self.scene.pk)
        self.assertEqual(self.page().status_code, 200)
        self.post("remove-project", self.project.pk)
        self.assertEqual(self.page().status_code, 404)
        self.post("restore-project", self.project.pk)
        self.assertEqual(self.page().status_code, 200)

    def test_nobody_brings_back_what_is_anothers(self):
        bin.remove(self.other)
        address = reverse("restore-scene", args=[self.other.pk])
        self.assertEqual(self.client.post(address).status_code, 404)
        self.assertNotContains(self.client.get(reverse("bin")), "Secret")

    def test_after_thirty_days_it_is_gone(self):
        bin.remove(self.scene)
        bin.remove(self.other)
        Scene.objects.filter(pk=self.scene.pk).update(
            removed_at=timezone.now() - timedelta(days=31)
        )
        self.assertEqual(bin.empty(), 1)
        self.assertFalse(Scene.objects.filter(pk=self.scene.pk).exists())
        self.assertTrue(Scene.objects.filter(pk=self.other.pk).exists())

    def test_cards_have_films(self):
        self.keep_files_apart()
        address = reverse("scene-film", args=[self.scene.pk, self.scene.address])
        answer = self.client.get(address)
        self.assertEqual(answer["Content-Type"], "image/jpeg")
        self.assertIn("immutable", answer["Cache-Control"])


class StartsTest(PageTest):
    def layer(self, index=-1):
        return self.document["layers"][index]

    def test_shapes_suit_the_size_of_the_scene(self):
        self.edit(name="set-size", size=[320, 180])
        self.edit(name="add-shape", shape="star")
        self.assertEqual(self.layer()["shape"]["outer"], 25)
        self.edit(name="add-shape", shape="line")
        self.assertEqual(self.layer()["shape"]["from"], [-50, 0])

    def test_a_mask_takes_the_box_of_its_layer(self):
        self.edit(name="add-shape", shape="rectangle")
        self.edit(name="add-mask", layer="s1", mask={"kind": "ellipse"})
        mask = self.layer()["masks"][0]
        self.assertEqual((mask["size"], mask["center"]), ([600, 200], [0, 0]))
        self.edit(name="add-mask", layer="t1", mask={"kind": "rectangle"})
        self.assertGreater(self.layer(0)["masks"][0]["size"][0], 500)

    def test_a_layer_fills_the_picture_in_one_action(self):
        self.edit(name="add-shape", shape="rectangle")
        self.edit(name="fill-picture", layer="s1")
        transform = self.layer()["transform"]
        self.assertEqual((transform["position"], transform["scale"]), ([960, 540, 0], [5.4, 5.4]))

    def test_one_side_of_the_picture_is_typed(self):
        typed = {"text": "1080", "measure": {"unit": " px", "low": 16}, "now": 1920}
        self.edit(name="set-size", axis=0, typed=typed)
        self.assertEqual(self.document["size"], [1080, 1080])
        self.assertContains(self.page(opened="more-scene"), "A picture of")

    def test_a_mask_that_stands_in_the_picture_stays_where_it_is_seen(self):
        self.edit(name="set-value", path="t1.transform.position", value=[500, 300, 0])
        self.edit(name="set-value", path="t1.transform.rotation", value=[0, 0, 30])
        mask = {"kind": "rectangle", "size": [400, 100], "center": [40, 0], "feather": 6}
        self.edit(name="add-mask", layer="t1", mask=mask)
        before = self.layer(0)["masks"][0]
        self.edit(name="set-value", path="t1.masks.0.fixed", value=True)
        fixed = self.layer(0)["masks"][0]
        self.assertEqual(fixed["rotation"], 30)
        self.assertAlmostEqual(fixed["center"][0], 500 + 40 * 0.8660254, 2)
        self.assertAlmostEqual(fixed["center"][1], 320, 2)
        self.edit(name="set-value", path="t1.masks.0.fixed", value=False)
        back = self.layer(0)["masks"][0]
        self.assertEqual([round(n) for n in back["center"]], before["center"])
        self.assertEqual(round(back["rotation"]), 0)
