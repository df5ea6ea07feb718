"""Fonts of one's own in the hands of a designer: sent, chosen, missed and found again."""

import re
import tempfile
from pathlib import Path
from zipfile import ZipFile

import av
import numpy as np
from django.test import override_settings
from PIL import Image
from playwright.sync_api import expect

from tests.core.fonts import square_font, variable_font
from tests.core.scenes import scene_data
from web.library.models import FontFile

from .base import command, with_worker
from .late import NOT_AT_ALL, LateTest

FONT = "type.font"


class FontsTest(LateTest):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        settings = override_settings(MEDIA_ROOT=self.folder / "media")
        settings.enable()
        self.addCleanup(settings.disable)
        super().setUp()

    def send(self, **fonts):
        """Sends fonts on their page, and comes back to the scene."""
        self.page.goto(f"{self.live_server_url}/fonts/")
        paths = []
        for name, content in fonts.items():
            paths.append(self.folder / f"{name}.ttf")
            paths[-1].write_bytes(content)
        self.page.locator("#file").set_input_files(paths)
        self.page.get_by_role("button", name="Add fonts").click()
        expect(self.page.locator(".notice")).to_be_visible()

    def back(self):
        self.page.goto(f"{self.live_server_url}/scenes/{self.scene.pk}/")
        self.wait_for_picture()

    @property
    def style(self):
        return self.kept()[0]["style"]

    def shown(self):
        """The address of what the canvas shows."""
        return self.page.locator("#canvas").get_attribute("data-shown")

    def looked_at(self, before):
        """Waits until the picture shows something else."""
        expect(self.page.locator("#canvas")).not_to_have_attribute("data-shown", before)


class OwnFontTest(FontsTest):
    def test_an_own_variable_font_is_sent_chosen_and_waved(self):
        self.send(aphelion=variable_font(), broken=square_font()[:900])
        expect(self.page.locator(".notice--error")).to_contain_text("broken.ttf cannot be used")
        specimen = self.page.locator(".specimen", has_text="Aphelion")
        weight = specimen.locator('[data-axis="wght"]')
        weight.fill("800")
        line = specimen.locator(".specimen__line")
        expect(line).to_have_attribute("style", re.compile('"wght" 800|&quot;wght&quot; 800'))
        self.page.locator("#fonts-words").fill("Nine Moons")
        expect(line).to_have_text("Nine Moons")
        self.page.locator("#fonts-find").fill("aphel")
        expect(self.page.locator(".specimen:visible")).to_have_count(1)
        self.back()
        before, was = self.shown(), self.picture()
        self.chip(FONT).click()
        self.page.keyboard.type("aphel")
        self.looked_at(before)
        self.settled(lambda: self.page.keyboard.press("Enter"))
        self.assertEqual(self.style["font"], "Aphelion")
        expect(self.chip(FONT)).to_have_text("“Aphelion”")
        expect(self.chip(FONT)).to_be_focused()
        self.assertNotEqual(self.picture(), was)
        self.page.locator("#say-moves-text").fill("Wave: each letter is 300 more weight, every 2")
        self.page.keyboard.press("Enter")
        expect(self.page.get_by_text("Wave", exact=True).first).to_be_visible()
        moves = self.kept()[0]["moves"]
        self.assertEqual(moves[-1]["pose"], {"axes": {"wght": 300}})

    def test_it_is_rendered_and_taken_to_an_empty_account_and_back(self):
        with_worker(self)
        self.send(aphelion=variable_font())
        self.scene = self.open_scene(self.person, name="Own", size=[320, 180], length=20)
        self.choose(FONT, "Aphelion")
        self.type_value("type.size", "60")
        self.page.locator("#say-moves-text").fill("Wave: each letter is 300 more weight, every 2")
        self.page.keyboard.press("Enter")
        expect(self.page.get_by_text("Wave", exact=True).first).to_be_visible()
        self.at_frame(12)
        own = self.picture()
        archive = self.taken_along()
        clip = self.rendered()
        # It is what the command line draws of the same file, in the fonts beside it.
        with ZipFile(archive) as zipped:
            zipped.extractall(self.folder / "out")
        (file,) = (self.folder / "out").glob("*.balletto.json")
        still = self.folder / "still.png"
        command("frame", str(file), "--at", "12", "-o", str(still))
        drawn = np.asarray(Image.open(still).convert("RGB")).astype(int)
        with av.open(str(clip)) as container:
            pictures = [frame.to_ndarray(format="rgb24") for frame in container.decode(video=0)]
        self.assertEqual(len(pictures), 20)
        self.assertLess(np.abs(pictures[12] - drawn).mean(), 2.5)
        # Another person has neither the scene nor the font, and gets both; then it comes back.
        for name in ("bela", "ada"):
            if name == "bela":
                self.context.clear_cookies()
                other = self.sign_in(name)
                project = other.projects.create(name="Elsewhere")
            else:
                self.context.clear_cookies()
                self.sign_in_again(self.person)
                project = self.scene.project
            self.page.goto(f"{self.live_server_url}/projects/{project.pk}/new-scene/")
            self.page.locator("[name=file]").set_input_files(archive)
            self.page.get_by_role("button", name="Open the file").click()
            self.wait_for_picture()
            expect(self.chip(FONT)).to_have_text("“Aphelion”")
            expect(self.page.get_by_text("is not here: set in")).to_have_count(0)
            self.at_frame(12)
            self.assertEqual(self.picture(), own)
            archive = self.taken_along()
        self.assertEqual(FontFile.objects.filter(owner=self.person).count(), 1)

    def taken_along(self):
        """The scene with its files, as it is downloaded."""
        self.page.locator("#scene-menu summary").click()
        with self.page.expect_download() as kept:
            self.page.get_by_role("link", name="Download it with its files").click()
        path = self.folder / f"{len(list(self.folder.iterdir()))}-{kept.value.suggested_filename}"
        kept.value.save_as(path)
        self.page.locator("#scene-menu summary").click()
        return path

    def rendered(self):
        """The clip of the scene, as it is downloaded."""
        self.page.get_by_role("button", name="Render clip").click()
        self.page.get_by_role("button", name="Render the clip").click()
        expect(self.page.locator("#download")).to_be_visible(timeout=60_000)
        with self.page.expect_download() as clip:
            self.page.locator("#download").click()
        path = self.folder / clip.value.suggested_filename
        clip.value.save_as(path)
        return path

    def test_a_missing_font_is_told_and_comes_right(self):
        self.send(aphelion=variable_font())
        self.back()
        self.choose(FONT, "Aphelion")
        self.page.goto(f"{self.live_server_url}/fonts/")
        self.page.on("dialog", lambda dialog: dialog.accept())
        self.page.get_by_role("button", name="Remove Aphelion").click()
        expect(self.page.locator(".notice")).to_contain_text("These scenes name it, and say so")
        self.back()
        told = self.page.get_by_text("The font “Aphelion” is not here: set in Figtree instead.")
        expect(told.first).to_be_visible()
        self.assertEqual(self.style["font"], "Aphelion")
        self.chip("missing.Aphelion").click()
        self.page.keyboard.type("caveat")
        self.settled(lambda: self.page.keyboard.press("Enter"))
        self.assertEqual(self.style["font"], "Caveat")
        expect(told).to_have_count(0)
        self.page.keyboard.press("Control+z")
        expect(told.first).to_be_visible()
        self.assertEqual(self.style["font"], "Aphelion")
        self.send(aphelion=variable_font())
        self.back()
        expect(told).to_have_count(0)

    def test_files_are_sent_one_by_one_and_each_for_itself(self):
        asked = []

        def second_is_lost(route):
            asked.append(route.request)
            route.abort() if len(asked) == 2 else route.continue_()

        self.page.route("**/fonts/send/", second_is_lost)
        weights = (300, 400, 700)
        self.send(**{f"w{weight}": square_font(style=f"W{weight}", weight=weight)
                     for weight in weights})  # fmt: skip
        expect(self.page.locator(".notice")).to_have_text(re.compile("w400.ttf did not arrive"))
        expect(self.page.locator(".specimen", has_text="Perihelion")).to_contain_text("W300, W700")
        self.assertEqual(len(asked), 3)
        self.assertEqual(self.faults, ["Failed to load resource: net::ERR_FAILED"])
        self.faults.clear()  # the browser's own word for what was lost


class ChoosingTest(FontsTest):
    def test_of_lists_that_come_in_another_order_the_newest_counts(self):
        held = []
        self.page.route("**/fonts/list/", lambda route: held.append(route))
        self.chip(FONT).click()
        self.page.keyboard.press("Escape")
        self.chip(FONT).click()
        self.page.wait_for_timeout(100)
        first, second = held
        second.continue_()
        expect(self.page.get_by_role("option", name="Caveat", exact=True)).to_be_visible()
        self.page.keyboard.type("cav")
        first.fulfill(body="<p>an older list</p>")
        self.settled(lambda: self.page.keyboard.press("Enter"))
        self.assertEqual(self.style["font"], "Caveat")

    def test_a_long_name_stays_in_its_column(self):
        layers = scene_data()["layers"]
        layers[0]["style"]["font"] = "Grotesque of the whole winter season, condensed " * 2
        self.scene = self.open_scene(self.person, layers=layers)
        edge = self.page.locator("#picture").bounding_box()["x"]
        for chip in self.page.locator("[data-font-now]").all():
            box = chip.bounding_box()
            self.assertLess(box["x"] + box["width"], edge)

    def test_what_is_pointed_at_is_looked_at_and_given_up(self):
        self.chip(FONT).click()
        expect(self.page.get_by_role("option", name="Fraunces", exact=True)).to_be_visible()
        before = self.shown()
        for _ in range(3):
            self.page.keyboard.press("ArrowDown")
        self.looked_at(before)
        self.page.keyboard.press("Escape")
        expect(self.page.locator("#font-list")).to_be_hidden()
        expect(self.chip(FONT)).to_be_focused()
        expect(self.page.locator("#canvas")).to_have_attribute("data-shown", before)
        self.assertEqual(self.style["font"], "Anybody")
        self.scene.refresh_from_db()
        self.assertEqual(self.scene.head, 1)

    def test_favourites_and_recent_ones_come_first(self):
        self.choose(FONT, "Limelight")
        self.chip(FONT).click()
        self.page.keyboard.type("caveat")
        self.page.keyboard.press("Control+Enter")
        self.page.keyboard.press("Escape")
        self.chip(FONT).click()
        first = self.page.locator("#font-options [role=option]")
        expect(first.nth(0)).to_have_attribute("data-name", "Caveat")
        expect(first.nth(1)).to_have_attribute("data-name", "Limelight")
        self.page.locator("#font-list select").select_option("mono")
        expect(self.page.get_by_text("No font is called so.")).to_be_visible()

    def test_hands_that_type_at_once(self):
        for _ in self.slowly():
            self.page.evaluate("window.lateNumbers = ['/fonts/list/']")
            self.chip(FONT).click()
            self.page.keyboard.type("unbo")
            self.page.keyboard.press("Enter")
            self.type_on("type.size", "90")
            style = self.style
            self.assertEqual((style["font"], style["size"]), ("Unbounded", 90))

    def test_letters_have_fonts_of_their_own(self):
        self.choose(FONT, "Fraunces")
        self.assertEqual(self.style["font"], "Fraunces")
        self.page.keyboard.press("Control+z")
        self.assertEqual(self.style["font"], "Anybody")

    def test_a_list_that_does_not_come_is_said(self):
        for fault in ("never", "away"):
            with self.subTest(fault):
                self.page.reload()
                self.wait_for_picture()
                self.page.evaluate(NOT_AT_ALL, ["/fonts/list/", fault])
                self.chip(FONT).click()
                told = self.page.get_by_text("The list of fonts does not come.")
                expect(told).to_be_visible()
                self.page.keyboard.press("Escape")
                self.page.evaluate("window.isBack = true")
                self.choose(FONT, "Limelight")
                self.assertEqual(self.style["font"], "Limelight")
                self.page.keyboard.press("Control+z")
                self.assertEqual(self.style["font"], "Anybody")
