"""Files, scenes in scenes, masks and lines in the hands of a designer; and stills as drawings."""

import io

import numpy as np
from PIL import Image
from playwright.sync_api import expect

from balletto.clip.drawings import svg
from balletto.picture.frame import Picture, draw_frame
from balletto.scene import files
from tests.core.media import media_folder
from tests.core.scenes import scene_data
from tests.core.test_pictures import shape, title
from web.library.models import MediaFile
from web.projects import history
from web.projects.nesting import source_of

from .base import BrowserTest


class MediaTest(BrowserTest):
    def show(self, *layers, **more):
        self.person = self.sign_in()
        self.scene = self.open_scene(self.person, layers=list(layers), **more)

    def layers(self):
        return self.document(self.scene)["layers"]

    def drag(self, target, across, down):
        box = target.bounding_box()
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + across, y + down, steps=5)
        self.settled(self.page.mouse.up)

    @property
    def px(self):
        """How much of the scene a px of the screen is."""
        return 1920 / self.page.locator("#canvas").bounding_box()["width"]

    def test_a_picture_is_sent_and_becomes_the_ground(self):
        self.show()
        empty = self.picture()
        field = self.page.locator("#file-field")
        self.settled(lambda: field.set_input_files(media_folder() / "photo.jpg"))
        expect(self.page.locator(".slab__name")).to_have_value("photo.jpg")
        self.assertNotEqual(self.picture(), empty)
        kept = MediaFile.objects.get()
        self.assertEqual(self.layers()[0]["file"], kept.name)
        self.assert_films()
        self.choose("background-kind", "a picture")
        self.assertEqual(
            self.document(self.scene)["background"], {"kind": "still", "file": kept.name}
        )
        field.set_input_files({"name": "x.png", "mimeType": "image/png", "buffer": b"no"})
        expect(self.page.locator(".notice--error")).to_contain_text("x.png cannot be read")

    def assert_films(self):
        """Moves are shown on the picture itself, and none of them by its letters."""
        self.page.locator("#open-gallery").click()
        film = self.page.locator("[data-film=fade]")
        film.scroll_into_view_if_needed()
        expect(film).to_have_js_property("complete", True)
        colors = film.evaluate(
            """(film) => {
              const paper = document.createElement("canvas").getContext("2d");
              paper.drawImage(film, 60, 0, 80, 3744, 0, 0, 9, 9);
              return [...new Uint32Array(paper.getImageData(0, 0, 9, 9).data.buffer)];
            }"""
        )
        self.assertGreater(len(set(colors)), 5)  # one, if nothing is seen
        self.assertEqual(self.page.locator(".gcard__unit:visible").count(), 0)
        self.page.keyboard.press("Escape")

    def test_another_scene_is_used_and_opened(self):
        self.show()
        moon = self.scene
        self.page.get_by_role("link", name="Balletto, to the projects").click()
        outer = scene_data("Outer", name="Outer")
        self.scene = self.make(outer)
        self.page.goto(f"{self.live_server_url}/scenes/{self.scene.pk}/")
        self.wait_for_picture()
        self.page.locator("#add-more").click()
        name = moon.name or "Untitled"
        self.settled(self.page.get_by_role("option", name=f"scene “{name}”").click)
        self.assertEqual(self.layers()[-1]["kind"], "scene")
        self.page.locator("#more-n1 summary").click()
        self.page.get_by_role("link", name="open the scene itself").click()
        self.page.wait_for_url(f"**/scenes/{moon.pk}/")

    def test_a_scene_follows_those_that_it_uses_when_it_is_opened(self):
        self.show()
        moon = self.scene
        used = {"id": "u1", "source": source_of(moon), "scene": self.document(moon)}
        layer = {"kind": "scene", "id": "n1", "span": [0, 90], "scene": "u1",
                 "transform": {"position": [960, 540, 0]}}  # fmt: skip
        self.scene = self.make(scene_data(layers=[layer], scenes=[used]))
        edit = {"name": "set-length", "length": 55}
        history.record(moon.pk, moon.head, edit, self.person)
        self.page.goto(f"{self.live_server_url}/scenes/{self.scene.pk}/")
        expect(self.page.locator("#workbench-state")).to_have_attribute("data-revision", "2")
        self.assertEqual(self.document(self.scene)["scenes"][0]["scene"]["length"], 55)
        self.page.reload()
        self.wait_for_picture()
        self.scene.refresh_from_db()
        self.assertEqual(self.scene.head, 2)

    def test_two_tabs_that_are_opened_at_once_follow_once(self):
        self.show()
        moon = self.scene
        used = {"id": "u1", "source": source_of(moon), "scene": self.document(moon)}
        layer = {"kind": "scene", "id": "n1", "span": [0, 90], "scene": "u1"}
        self.scene = self.make(scene_data(layers=[layer], scenes=[used]))
        edit = {"name": "set-length", "length": 55}
        history.record(moon.pk, moon.head, edit, self.person)
        address = f"{self.live_server_url}/scenes/{self.scene.pk}/"
        tabs = [self.page, self.new_tab()]
        # Both have the page from before, and neither is answered until both have asked.
        held = []
        for tab in tabs:
            tab.route("**/edit/", lambda route: held.append(route))
            tab.goto(address)
        while len(held) < len(tabs):
            self.page.wait_for_timeout(50)
        for route in held:
            route.continue_()
        for tab in tabs:
            state = tab.locator("#workbench-state")
            expect(state).to_have_attribute("data-revision", "2")
            expect(tab.locator(".notice")).to_have_count(0)
        self.scene.refresh_from_db()
        self.assertEqual(self.scene.head, 2)

    def make(self, data):
        from web.projects.history import make_scene

        return make_scene(self.scene.project, data, self.person)

    def test_a_mask_is_moved_made_wider_and_turned(self):
        mask = {"kind": "rectangle", "center": [0, 0], "size": [400, 200]}
        square = {**shape(), "shape": {"kind": "rectangle", "size": [900, 600]}, "masks": [mask],
                  "transform": {"position": [960, 540, 0]}}  # fmt: skip
        self.show(square)
        grip = lambda name: self.page.locator(f'#over [data-hand="{name}"]')  # noqa: E731
        self.drag(grip("center"), 40, -20)
        center = self.layers()[0]["masks"][0]["center"]
        self.assertAlmostEqual(center[0], 40 * self.px, delta=1)
        self.assertAlmostEqual(center[1], -20 * self.px, delta=1)
        self.drag(grip("width"), 30, 0)
        width, height = self.layers()[0]["masks"][0]["size"]
        self.assertAlmostEqual(width, 400 + 60 * self.px, delta=2)
        self.assertEqual(height, 200)
        self.drag(grip("rotation"), 300, 200)
        self.assertGreater(self.layers()[0]["masks"][0]["rotation"], 45)

    def test_the_end_of_a_line_is_dragged(self):
        line = {**shape(), "shape": {"kind": "line", "from": [-300, 0], "to": [300, 0]},
                "transform": {"position": [960, 540, 0]}}  # fmt: skip
        self.show(line)
        self.drag(self.page.locator('#over [data-grip="line-end"]').nth(1), 50, 70)
        end = self.layers()[0]["shape"]["to"]
        self.assertAlmostEqual(end[0], 300 + 50 * self.px, delta=2)
        self.assertAlmostEqual(end[1], 70 * self.px, delta=2)
        self.assertEqual(self.layers()[0]["shape"]["from"], [-300, 0])

    def test_the_scene_tells_what_lies_behind_and_how_it_fits(self):
        self.show(title())
        self.choose("background-kind", "a gradient")
        self.type_value("scene.background.fill.angle", "45")
        self.assertEqual(self.document(self.scene)["background"]["fill"]["angle"], 45)
        self.page.locator("#more-scene summary").click()
        self.choose("fit-9:16", "with its own places")
        self.choose("scene.fits.0-t1", "at its own place")
        self.type_value("scene.fits.0.places.0.scale", "60")
        self.assertEqual(
            self.document(self.scene)["fits"],
            [{"shape": "9:16", "by": "placed",
              "places": [{"layer": "t1", "shift": [0, 0], "scale": 0.6}]}],
        )  # fmt: skip
        self.page.get_by_role("button", name="Render clip").click()
        self.page.locator('[value="1080x1920"]').check()
        expect(self.page.locator('[name="fit-1080x1920"]')).to_have_value("placed")
        expect(self.page.get_by_text("2 clips", exact=True)).to_be_visible()


class DrawingTest(BrowserTest):
    """An SVG still looks as the frame does."""

    SIZE = (320, 180)

    def seen(self, scene, frame):
        page = self.context.new_page()
        page.set_viewport_size({"width": self.SIZE[0], "height": self.SIZE[1]})
        text = svg(Picture(scene), frame, self.SIZE)
        page.set_content(f"<style>body {{ margin: 0 }} svg {{ display: block }}</style>{text}")
        pixels = np.asarray(Image.open(io.BytesIO(page.screenshot())).convert("RGB"))
        page.close()
        return pixels.astype(float)

    def test_drawings_look_as_frames_do(self):
        mask = {"kind": "ellipse", "size": [90, 60], "feather": 3}
        outer = {"kind": "rectangle", "size": [60, 30], "mode": "subtract"}
        gradient = {"kind": "linear", "angle": 30, "colors": ["#F2B705", "#D1495B", "#2BB5A0"]}
        over = title(id="t2", transform={"position": [80, 80, 0]}, blend="difference")
        turned = {"position": [80, 60, 0], "rotation": [30, 40, 10]}
        blurred = {"id": "m1", "pose": {"blur": 3}, "amount": 1}
        ring = shape(shape={"kind": "ellipse", "size": [90, 60]})
        filled = {**title()["style"], "fill": gradient, "outline": 3}
        bright = [{"kind": "hue", "turn": 90}, {"kind": "glow", "radius": 6}]
        dashed = {"width": 5, "color": "#FFFFFF", "dashes": [12, 7], "from": 10, "to": 80}
        cases = {
            "letters": [title()],
            "gradient and outline": [title(style=filled)],
            "in perspective": [title(transform=turned)],
            "blurred letters": [title(moves=[blurred])],
            "shadow": [title(effects=[{"kind": "shadow", "x": 6, "y": 5}])],
            "effects": [title(effects=bright)],
            "masks": [title(masks=[mask, outer])],
            "matte": [ring, title(matte={"layer": "s1", "by": "alpha", "invert": True})],
            "blend": [ring, over],
            "a part of a line": [{**ring, "fill": "none", "stroke": dashed}],
            "adjustment": [title(), {"id": "a1", "kind": "adjustment", "span": [0, 90],
                           "effects": [{"kind": "tint"}], "masks": [{**mask, "fixed": True}]}],
        }  # fmt: skip
        for name, layers in cases.items():
            with self.subTest(name):
                ground = {"kind": "color", "color": "#101428"}
                data = scene_data(size=[160, 90], length=90, layers=layers, background=ground)
                scene = files.from_data(data)
                drawn = draw_frame(Picture(scene), 0, self.SIZE)[..., 2::-1].astype(float)
                error = np.mean((self.seen(scene, 0) - drawn) ** 2)
                self.assertGreater(10 * np.log10(255**2 / max(error, 1e-9)), 34, name)
                self.assertGreater(np.ptp(drawn), 50, "nothing is drawn")
