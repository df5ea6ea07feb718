"""Projects and new scenes, typed or from a file."""

import gzip
import json
import re

import numpy as np
from django.core.files.uploadedfile import SimpleUploadedFile
from django.templatetags.static import static
from django.test import override_settings
from django.urls import reverse

from balletto.lettering.faces import covered_by
from balletto.lettering.families import EMOJI, FALLBACKS, FAMILIES, HAN_FALLBACKS, HAN_USUALLY
from balletto.picture.frame import Picture, draw_frame
from balletto.scene import files
from balletto.scene.effects import EFFECT_KINDS
from balletto.scene.layers import LAYER_KINDS
from tests.core.scenes import scene_data
from web.config.settings import ROOT
from web.library.store import opened
from web.projects.demo import PROJECT_NAME, load_demo
from web.projects.history import newest
from web.projects.models import Project, Scene
from web.projects.nesting import renewals

from .base import PageTest

FORM = {"name": "Moons", "size": "1080x1920", "rate": "25", "length": "2", "length_in": "seconds"}


def as_file(data, name="moons.balletto.json"):
    text = data if isinstance(data, bytes) else json.dumps(data).encode()
    return SimpleUploadedFile(name, text, "application/json")


class ProjectsTest(PageTest):
    def make(self, **values):
        project = Project.objects.get(owner=self.ada)
        return self.client.post(reverse("new-scene", args=[project.pk]), {**FORM, **values})

    def made(self, **values):
        self.assertEqual(self.make(**values).status_code, 302)
        return Scene.objects.latest("pk").revisions.get().document

    def test_only_own_projects_are_listed(self):
        page = self.client.get(reverse("projects"))
        self.assertContains(page, "Opening")
        self.assertNotContains(page, "Secret")

    def test_new_project(self):
        self.client.post(reverse("new-project"), {"name": "Spring"})
        self.assertContains(self.client.get(reverse("projects")), "Spring")

    def test_new_scene_of_named_size(self):
        made = self.made()
        self.assertEqual((made["size"], made["rate"], made["length"]), ([1080, 1920], "25", 50))

    def test_new_scene_typed_by_hand(self):
        own = {"size": "own", "width": 1234, "height": 500, "rate": "own", "own_rate": "12.5"}
        made = self.made(**own, length="77", length_in="frames")
        self.assertEqual((made["size"], made["rate"], made["length"]), ([1234, 500], "25/2", 77))

    def test_length_in_seconds_at_a_1001_rate(self):
        self.assertEqual(self.made(rate="30000/1001", length="10")["length"], 300)

    def test_what_is_not_possible_is_said(self):
        for values, said in (
            ({"size": "own"}, "Type a width and a height"),
            ({"rate": "own", "own_rate": "fast"}, "Type a rate from 1 to 240"),
            ({"rate": "own", "own_rate": "1/0"}, "Type a rate from 1 to 240"),
            ({"length": "0"}, "The length must be from 1"),
            ({"size": "own", "width": 4, "height": 90000}, "greater than or equal to 16"),
        ):
            with self.subTest(values):
                self.assertContains(self.make(**values), said)

    def test_scene_from_a_file(self):
        project = Project.objects.get(owner=self.ada)
        address = reverse("scene-from-file", args=[project.pk])
        data = scene_data("Nine Winter Moons", name="Moons")
        self.client.post(address, {"file": as_file(data)})
        scene = Scene.objects.get(name="Moons")
        downloaded = self.client.get(reverse("download-scene", args=[scene.pk]))
        self.assertEqual(files.to_data(files.parse(downloaded.content)), data)
        self.assertIn("moons.balletto.json", downloaded["Content-Disposition"])

    def test_a_bad_file_is_refused_with_the_path_of_each_fault(self):
        project = Project.objects.get(owner=self.ada)
        address = reverse("scene-from-file", args=[project.pk])
        bad = scene_data()
        bad["layers"][0]["moves"][0]["stagger"]["gap"] = "two"
        bad["layers"][0]["colour"] = "red"
        page = self.client.post(address, {"file": as_file(bad)})
        self.assertContains(page, "layers[0].moves[0].stagger.gap", status_code=400)
        self.assertContains(
            page, "a number of frames is needed, got &quot;two&quot;", status_code=400
        )
        self.assertContains(page, "layers[0].colour", status_code=400)
        page = self.client.post(address, {"file": as_file(b"\x00\xff")})
        self.assertContains(page, "not UTF-8", status_code=400)

    @override_settings(SCENE_FILE_MAX_BYTES=1024)
    def test_a_file_that_is_too_large_is_refused(self):
        project = Project.objects.get(owner=self.ada)
        address = reverse("scene-from-file", args=[project.pk])
        page = self.client.post(address, {"file": as_file(b" " * 2000)})
        self.assertContains(page, "has more", status_code=400)

    def test_the_demo_is_made_once_and_kept(self):
        load_demo("orrery", "on-the-house")
        project = Project.objects.get(name=PROJECT_NAME)
        self.assertGreaterEqual(project.scenes.count(), 4)
        project.scenes.first().delete()
        left = project.scenes.count()
        load_demo("orrery", "on-the-house")
        self.assertEqual(project.scenes.count(), left)

    def test_the_demo_shows_what_there_is(self):
        """Its scenes are whole, look like something, and use all that dresses a picture."""
        load_demo("orrery", "on-the-house")
        project = Project.objects.get(name=PROJECT_NAME)
        used = set()
        for scene in project.scenes.all():
            with self.subTest(scene.name):
                document = opened(newest(scene).document, project.owner_id)
                self.assertEqual([f for _, f in document.files() if not document.path_of(f)], [])
                size = tuple(side // 8 for side in document.size)
                pixels = draw_frame(Picture(document), document.length * 2 // 3, size)
                self.assertGreater(len(np.unique(pixels.reshape(-1, 4), axis=0)), 20)
                used |= {layer.kind for layer in document.layers} | {document.background.kind}
                used |= {effect.kind for layer in document.layers for effect in layer.effects}
                used |= {"mask" for layer in document.layers if layer.masks}
                used |= {"matte" for layer in document.layers if layer.matte}
        self.assertGreaterEqual(used, {*LAYER_KINDS, *EFFECT_KINDS, "mask", "matte", "clip"})
        nested = project.scenes.get(name="Opening title")
        self.assertEqual(renewals(nested, newest(nested).document, project.owner_id), [])

    def test_fonts_are_served_as_the_core_reads_them(self):
        rules = self.client.get(reverse("font-rules")).content.decode()
        self.assertIn('font-family: "Fraunces"; font-weight: 100 900;', rules)
        self.assertIn(f'url("{static("fonts/anybody/latin.woff2")}")', rules)
        # What the picture falls back on, the page does too, in the same order.
        tokens = (ROOT / "web/styles/tokens.css").read_text()
        *letters, outlined = FALLBACKS
        han = HAN_FALLBACKS[HAN_USUALLY]
        stack = ", ".join(f'"{name}"' for name in (*letters, EMOJI, outlined, *han))
        self.assertIn(f"--font-others:  {stack};", tokens)
        self.assertIn("font-stretch: 50% 150%", rules)

    def test_each_character_is_taken_from_one_file(self):
        """Else a word whose "A" is in another file too would be set in pieces, from both."""
        rules = self.client.get(reverse("font-rules")).content.decode().splitlines()
        self.assertNotIn("noto-sans-jp", "".join(rules))  # nothing waits for hundreds of rules
        packed = self.client.get(reverse("slice-rules"), headers={"Accept-Encoding": "gzip"})
        self.assertEqual(packed["Content-Encoding"], "gzip")
        rules += gzip.decompress(packed.content).decode().splitlines()
        for name, family in FAMILIES.items():
            own = [rule for rule in rules if f'font-family: "{name}";' in rule]
            points = [point for rule in own for point in code_points(rule)]
            self.assertEqual(len(points), len(set(points)), name)
            self.assertEqual(set(points), frozenset().union(*map(covered_by, family.files)), name)


def code_points(rule):
    """Those that a @font-face rule is for."""
    for first, last in re.findall(r"U\+([0-9A-F]+)(?:-([0-9A-F]+))?", rule):
        yield from range(int(first, 16), int(last or first, 16) + 1)
