"""Files of a person, the layers and backgrounds that show them, and scenes within scenes."""

import io
import zipfile
from unittest import mock

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import override_settings
from django.urls import reverse
from PIL import Image

from balletto.scene import files as scene_files
from balletto.scene.forms.outlines import commands_of
from tests.core.media import media_folder
from web.library.models import MediaFile
from web.library.store import folder_of, keep, opened
from web.projects import history
from web.projects.nesting import source_of

from .base import PageTest, make_scene


def upload(name: str, content: bytes | None = None) -> SimpleUploadedFile:
    """A small file as a browser sends it."""
    content = (media_folder() / name).read_bytes() if content is None else content
    return SimpleUploadedFile(name, content)


class MediaTest(PageTest):
    def setUp(self):
        super().setUp()
        self.keep_files_apart()

    def send(self, name, content=None):
        return self.client.post(reverse("send-file"), {"file": upload(name, content)})

    def pixel(self, x, y, frame=0):
        """A pixel of a frame as the workbench shows it, at 480 px across."""
        address = reverse("frame", args=[self.scene.pk, self.scene.digest, frame])
        answer = self.client.get(address, {"box": "480"})
        return Image.open(io.BytesIO(answer.content)).convert("RGB").getpixel((x, y))


class FilesTest(MediaTest):
    def test_files_are_kept_under_the_name_of_their_content(self):
        first = self.send("moon.png").json()
        self.assertRegex(first["file"], r"^moon-[0-9a-f]{12}\.png$")
        self.assertEqual(self.send("moon.png").json()["file"], first["file"])
        kept = MediaFile.objects.get()
        self.assertEqual((kept.kind, kept.width, kept.height), ("still", 80, 60))
        film = MediaFile.objects.get(name=self.send("orbit.mp4").json()["file"])
        self.assertEqual(film.kind, "video")
        self.assertAlmostEqual(film.seconds, 1, delta=0.05)

    def test_what_cannot_be_used_is_said(self):
        for name, content, told in (
            ("notes.txt", b"words", "notes.txt is of no kind that is read here"),
            ("moon.png", b"broken", "moon.png cannot be read"),
            ("film.mp4", b"", "film.mp4 cannot be read"),
        ):
            with self.subTest(name):
                answer = self.send(name, content)
                self.assertEqual(answer.status_code, 422)
                self.assertIn(told, answer.json()["message"])
        with override_settings(MEDIA_FILE_MAX_BYTES=10):
            self.assertIn("a file may have", self.send("moon.png").json()["message"])
        self.assertFalse(MediaFile.objects.exists())

    def test_the_page_of_files(self):
        page = self.client.post(
            reverse("library"), {"file": [upload("moon.png"), upload("bell.wav")]}, follow=True
        )
        self.assertContains(page, "still, 80 × 60")
        self.assertContains(page, "sound, 1.0 s")
        kept = MediaFile.objects.get(kind="still")
        shown = self.client.get(reverse("show-file", args=[kept.pk]))
        self.assertIn("sandbox", shown["Content-Security-Policy"])
        self.assertEqual(b"".join(shown.streaming_content)[1:4], b"PNG")
        self.client.post(reverse("remove-file", args=[kept.pk]))
        self.assertFalse((folder_of(self.ada.pk) / kept.name).exists())

    def test_files_of_others_are_not_reached(self):
        theirs = keep(self.boris, upload("moon.png"))
        self.edit(expect=422, name="add-file", file=theirs.name)
        address = reverse("show-file", args=[theirs.pk])
        self.assertEqual(self.client.get(address).status_code, 404)
        self.assertEqual(
            self.client.post(reverse("remove-file", args=[theirs.pk])).status_code, 404
        )


class LayersTest(MediaTest):
    def add(self, name):
        self.edit(name="add-file", file=self.send(name).json()["file"])
        return self.document["layers"][-1]

    def test_a_picture_is_a_layer_in_the_middle(self):
        layer = self.add("photo.jpg")
        self.assertEqual((layer["kind"], layer["name"]), ("picture", "photo.jpg"))
        self.assertEqual(layer["transform"]["position"], [960, 540, 0])
        self.edit(name="set-value", path=f"{layer['id']}.transform.scale", value=[20, 20])
        red, green, blue = self.pixel(240, 135)
        self.assertTrue(red > 180 and green < 90 and blue < 70, (red, green, blue))

    def test_the_paths_of_an_svg_are_a_shape(self):
        self.edit(name="add-path", file=self.send("spark.svg").json()["file"])
        layer = self.document["layers"][-1]
        self.assertEqual(layer["shape"]["kind"], "path")
        points = commands_of(layer["shape"]["path"])
        self.assertEqual(points[0], ("move", (0.0, -20.0)))
        moon = self.send("moon.png").json()["file"]
        answer = self.edit(422, name="add-path", file=moon)
        self.assertIn("moon.png is no SVG", answer.json()["message"])
        empty = self.send(
            "a.svg", b'<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>'
        )
        answer = self.edit(422, name="add-path", file=empty.json()["file"])
        self.assertIn("no paths and no plain shapes", answer.json()["message"])

    def test_what_it_shows_is_said_and_can_be_another(self):
        layer, other = self.add("moon.png"), keep(self.ada, upload("spark.svg"))
        page = self.page(layer["id"])
        self.assertContains(page, "moon.png")
        self.assertContains(page, other.name)
        self.edit(name="set-value", path=f"{layer['id']}.file", value=other.name)
        self.assertEqual(self.document["layers"][-1]["file"], other.name)

    def test_a_video_and_a_sound_have_their_sentences(self):
        video, sound = self.add("orbit.mp4"), self.add("bell.wav")
        for layer, told in ((video, "Plays"), (sound, "louder")):
            self.assertContains(self.page(layer["id"]), told)
        self.assertNotIn("transform", sound)
        page = self.page(video["id"], opened=f"more-{video['id']}")
        self.assertContains(page, "the scene as long as it")
        self.edit(name="set-length", length=30)
        self.assertEqual(self.document["layers"][-1]["span"], [0, 30])

    def test_a_missing_file_is_said_where_it_is_shown(self):
        layer = self.add("moon.png")
        self.client.post(reverse("remove-file", args=[MediaFile.objects.get().pk]))
        page = self.page(layer["id"])
        self.assertContains(page, f"The file {layer['file']} is not there")
        page = self.client.get(reverse("ask-render", args=[self.scene.pk]))
        self.assertContains(page, "is not there. Add it again")

    def test_sound_is_heard_in_the_workbench(self):
        address = reverse("sound", args=[self.scene.pk, self.scene.digest])
        self.assertEqual(self.client.get(address).status_code, 404)
        self.add("bell.wav")
        address = reverse("sound", args=[self.scene.pk, self.scene.digest])
        answer = self.client.get(address, headers={"range": "bytes=0-3"})
        self.assertEqual(b"".join(answer.streaming_content), b"RIFF")
        page = self.page()
        self.assertContains(page, 'data-sound="yes"')

    def test_a_scene_goes_elsewhere_with_its_files(self):
        self.add("moon.png")
        page = self.page()
        self.assertContains(page, "Download it with its files")
        answer = self.client.get(reverse("download-scene", args=[self.scene.pk]), {"files": ""})
        self.client.force_login(self.boris)
        project = self.other.project
        address = reverse("scene-from-file", args=[project.pk])
        bundle = SimpleUploadedFile("opening.zip", answer.content)
        self.client.post(address, {"file": bundle})
        made = project.scenes.latest("pk")
        document = opened(history.newest(made).document, self.boris.pk)
        self.assertEqual([file for _, file in document.files() if not document.path_of(file)], [])
        self.assertEqual(MediaFile.objects.filter(owner=self.boris).count(), 1)

    def test_a_zip_that_is_no_scene_is_said(self):
        archive = io.BytesIO()
        with zipfile.ZipFile(archive, "w") as made:
            made.writestr("moon.png", b"x")
        address = reverse("scene-from-file", args=[self.scene.project.pk])
        bundle = SimpleUploadedFile("moon.zip", archive.getvalue())
        page = self.client.post(address, {"file": bundle})
        self.assertContains(page, "one scene file", status_code=400)

    def test_backgrounds(self):
        page = self.page()
        self.assertContains(page, "Lies on")
        fill = {"kind": "linear", "angle": 0, "colors": ["#FF0000", "#0000FF"]}
        gradient = {"kind": "gradient", "fill": fill}
        self.edit(name="set-value", path="scene.background", value=gradient)
        self.edit(name="set-value", path="scene.background.fill.colors.0", value="#00FF00")
        self.assertGreater(self.pixel(4, 20)[1], 200)
        photo = self.send("photo.jpg").json()["file"]
        still = {"kind": "still", "file": photo}
        self.edit(name="set-value", path="scene.background", value=still)
        self.assertGreater(self.pixel(4, 20)[0], 180)
        film = self.send("orbit.mp4").json()["file"]
        clip = {"kind": "clip", "file": film}
        self.edit(name="set-value", path="scene.background", value=clip)
        self.assertContains(self.page(opened="more-scene"), "as long as the video")
        self.assertLess(self.pixel(4, 20, 2)[0], self.pixel(4, 20, 25)[0])

    def test_fits_and_the_shutter_of_the_scene_are_said(self):
        places = [{"layer": "t1", "shift": [0, -90], "scale": 0.6}]
        fits = [{"shape": "9:16", "by": "placed", "places": places}]
        self.edit(name="set-value", path="scene.fits", value=fits)
        self.assertContains(self.page(opened="more-scene"), "with its own places")
        self.edit(name="set-value", path="scene.fits.0.places.0.scale", value=0.5)
        self.assertEqual(self.document["fits"][0]["places"][0]["scale"], 0.5)
        self.edit(name="set-value", path="scene.motion_blur", value={"angle": 90})
        page = self.page(opened="more-scene")
        self.assertContains(page, "while a shutter is open for")


class NestedTest(MediaTest):
    def setUp(self):
        super().setUp()
        self.moon = make_scene(self.ada, name="Moon", length=40)

    def use(self, expect=200, scene=None):
        return self.edit(expect, name="use-scene", scene=(scene or self.moon).pk)

    def open(self, scene):
        return self.client.get(reverse("workbench", args=[scene.pk]))

    def test_a_scene_is_used_and_says_so(self):
        page = self.use()
        self.assertContains(page, "“Moon”")
        layer = self.document["layers"][-1]["id"]
        self.assertContains(self.page(layer, f"more-{layer}"), "open the scene itself")
        self.assertEqual(self.document["scenes"][0]["source"], source_of(self.moon))
        self.assertEqual(self.document["layers"][-1]["kind"], "scene")
        self.assertContains(self.open(self.scene), "scene “Moon”")

    def test_it_follows_its_source(self):
        self.use()
        edit = {"name": "set-length", "length": 55}
        history.record(self.moon.pk, self.moon.head, edit, self.ada)
        before = self.scene.head
        self.assertContains(self.open(self.scene), "data-behind")
        self.scene.refresh_from_db()
        self.assertEqual(self.scene.head, before, "looking at it has changed it")
        self.edit(name="renew-scenes")
        self.assertEqual(self.document["scenes"][0]["scene"]["length"], 55)
        self.assertEqual(self.scene.head, before + 1)
        self.assertIn("as it is now", history.newest(self.scene).label)
        self.assertNotContains(self.open(self.scene), "data-behind")
        answer = self.edit(422, name="renew-scenes")
        self.assertIn("are as they are now", answer.json()["message"])

    def test_circles_are_refused_by_name(self):
        self.use()
        told = self.use(422, self.scene).json()["message"]
        self.assertIn("“Opening” cannot be used in itself", told)
        star = make_scene(self.ada, name="Star")
        edit = {"name": "use-scene", "source": source_of(self.scene), "document": self.document}
        history.record(star.pk, star.head, {**edit, "layer": {"span": [0, 9]}}, self.ada)
        told = self.use(422, star).json()["message"]
        self.assertIn("“Star” uses “Opening”: they cannot be in each other", told)

    def test_scenes_of_others_are_not_used(self):
        self.use(422, self.other)

    def test_a_source_elsewhere_means_nothing_here(self):
        document = history.newest(self.moon).document
        edit = {"name": "use-scene", "source": f"{self.moon.pk}-1.000000", "document": document}
        layer = {"layer": {"span": [0, 9]}}
        self.scene.refresh_from_db()
        history.record(self.scene.pk, self.scene.head, {**edit, **layer}, self.ada)
        history.record(self.moon.pk, 1, {"name": "set-length", "length": 50}, self.ada)
        self.open(self.scene)
        self.assertEqual(self.document["scenes"][0]["scene"]["length"], 40)

    def test_files_are_at_hand_in_nested_scenes(self):
        kept = keep(self.ada, upload("photo.jpg"))
        layer = {"kind": "picture", "file": kept.name, "span": [0, 40],
                 "transform": {"position": [960, 540, 0], "scale": [9, 9]}}  # fmt: skip
        edit = {"name": "add-layer", "layer": layer}
        history.record(self.moon.pk, self.moon.head, edit, self.ada)
        self.use()
        self.assertGreater(self.pixel(240, 135)[0], 180)
        scene = opened(self.document, self.ada.pk)
        self.assertEqual(scene.scenes[0].scene.folder, folder_of(self.ada.pk))
        self.assertEqual(scene_files.to_data(scene), self.document)


class StockTest(MediaTest):
    """What ships beside one's own files."""

    def newest(self, **edit):
        """The layer that an edit adds; a background that ships lies behind all."""
        known = {layer["id"] for layer in self.document["layers"]}
        self.edit(**edit)
        return next(each for each in self.document["layers"] if each["id"] not in known)

    def test_a_background_covers_the_picture_and_goes_on(self):
        layer = self.newest(name="add-file", file="stock-halftone.mp4")
        self.assertEqual((layer["kind"], layer["after"]), ("video", "loop"))
        self.assertEqual(self.document["layers"][0]["id"], layer["id"])
        self.assertEqual(layer["transform"]["scale"], [1.5, 1.5])
        page = self.page(layer["id"])
        self.assertContains(page, "Halftone")
        self.assertNotContains(page, "is not there")

    def test_it_is_said_by_its_title(self):
        layer = self.newest(name="say", text="the video “Stars”", layers=[])
        self.assertEqual(layer["file"], "stock-stars.mp4")
        self.assertEqual(self.document["layers"][0]["id"], layer["id"])

    def test_it_is_shown_under_files(self):
        page = self.client.get(reverse("library"))
        for name in ("stock-waves.mp4", "stock-beat.wav", "click-key.wav"):
            self.assertContains(page, reverse("show-stock", args=[name]))
        poster = self.client.get(reverse("stock-poster", args=["stock-waves.mp4"]))
        self.assertEqual(Image.open(io.BytesIO(poster.content)).size, (640, 360))
        for name in ("show-stock", "stock-poster"):
            self.assertEqual(self.client.get(reverse(name, args=["secrets.mp4"])).status_code, 404)

    def test_a_player_that_waits_holds_no_thread_for_long(self):
        address = reverse("show-stock", args=["stock-drifting-colour.mp4"])
        whole = len(self.client.get(address).getvalue())
        with mock.patch("web.serving._PART", 1000):
            part = self.client.get(address, headers={"Range": "bytes=0-"})
            self.assertEqual(part["Content-Range"], f"bytes 0-999/{whole}")
            self.assertEqual(len(part.getvalue()), 1000)
            said = self.client.get(address, headers={"Range": "bytes=10-2009"})
            self.assertEqual(len(said.getvalue()), 2000)

    def test_shapes_that_ship_are_added_and_said(self):
        layer = self.newest(name="add-shape", shape="planet")
        self.assertEqual(layer["shape"]["kind"], "path")
        self.assertContains(self.page(layer["id"]), ">planet<")
        several = self.newest(name="say", text="6 hearts in a ring of 200 px", layers=[])
        self.assertNotIn("scale", several["transform"])

    def test_markers_stand_at_the_beats_and_moves_start_there(self):
        sound = self.newest(name="add-file", file="stock-beat.wav")["id"]
        self.edit(name="mark-beats", layer=sound)
        found = {round(marker["at"] / 30, 1) for marker in self.document["markers"]}
        self.assertLessEqual({0.5, 1.0}, found)
        refused = self.edit(422, name="mark-beats", layer="t1")
        self.assertIn("beats are found in sounds alone", refused.json()["message"])
        line = "letters rise 40, at marker “Beat 2”"
        self.edit(name="say", text=line, layers=["t1"])
        self.assertEqual(self.document["layers"][0]["moves"][-1]["marker"], "Beat 2")
        self.assertContains(self.page("t1"), "at marker")

    def test_moves_go_by_a_sound_that_is_chosen(self):
        sound = self.newest(name="add-file", file="stock-beat.wav")["id"]
        self.edit(name="say", text="letters pulse with the music", layers=["t1"])
        move = self.document["layers"][0]["moves"][-1]
        path = f"t1.moves.{move['id']}.reach.0.sound"
        self.assertContains(self.page("t1"), "what is heard")
        self.edit(name="set-value", path=path, value=sound)
        self.assertContains(self.page("t1"), "Beat, 120 a minute")
        self.edit(name="remove-layer", layer=sound)
        self.assertNotIn("sound", self.document["layers"][0]["moves"][-1]["reach"][0])
