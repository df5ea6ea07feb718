"""The whole job of a motion designer, from an empty account to a clip on disk."""

import json
import re

import av
import numpy as np
from PIL import Image
from playwright.sync_api import expect

from balletto.picture.frame import Picture, draw_frame
from balletto.scene import files
from web.projects.models import Scene

from .base import PASSWORD, BrowserTest, command, temporary_folder, with_worker


class StoryTest(BrowserTest):
    def test_from_typed_words_to_a_clip(self):
        with_worker(self)
        self.make_account_and_scene()
        self.set_the_title()
        self.place_the_title()
        self.give_it_moves()
        self.watch_it()
        self.take_back_and_make_again()
        self.open_it_twice()
        self.render_it()

    def make_account_and_scene(self):
        page = self.page
        page.goto(self.live_server_url)
        page.get_by_role("link", name="Make an account").click()
        page.get_by_label("Username").fill("maren")
        page.get_by_label("Password", exact=True).fill(PASSWORD)
        page.get_by_label("Password confirmation").fill(PASSWORD)
        page.get_by_role("button", name="Make the account").click()
        page.get_by_label("Name of a new project").fill("Winter season")
        page.get_by_role("button", name="New project").click()
        page.get_by_label("New scene of another size").click()
        page.get_by_role("link", name="Size, rate and length typed").click()
        page.get_by_label("Name", exact=True).fill("Opening title")
        page.get_by_label("Size").select_option("Typed below")
        page.get_by_label("Width").fill("640")
        page.get_by_label("Height").fill("360")
        page.get_by_label("Frames a second").select_option("25")
        page.get_by_label("Length").fill("2")
        page.get_by_role("button", name="Make the scene").click()
        expect(page.get_by_text("No layers yet.")).to_be_visible()
        self.wait_for_picture()
        self.scene = Scene.objects.get(name="Opening title")

    @property
    def title(self):
        return self.document(self.scene)["layers"][0]

    def set_the_title(self):
        page = self.page
        self.settled(page.locator("#add-title").click)
        text = page.get_by_label("Text of New title")
        text.fill("Nine\nMoons")
        self.settled(text.blur)
        self.assertEqual(self.title["text"], "Nine\nMoons")
        self.choose("type.font", "Fraunces")
        self.type_value("type.axes.wght", "600")
        before = self.picture()
        self.scrub("type.size", 40)
        self.assertNotEqual(self.picture(), before)
        self.type_value("type.tracking", "25")
        self.type_value("type.leading", "1.2")
        self.choose("type.align", "to the left")
        self.choose("type.align", "centred")
        self.assertEqual(self.title["style"]["font"], "Fraunces")
        self.assertEqual(self.title["style"]["axes"]["wght"], 600)
        self.assertEqual(self.title["style"]["size"], 64 + 20)
        # The letters of "Moons" alone: a colour and a weight of their own.
        text = page.locator("textarea[data-text]")
        text.focus()
        text.evaluate("field => field.setSelectionRange(5, 10)")
        expect(page.locator(".letters b")).to_have_text("Moons")
        color = self.chip("type.fill")
        color.fill("#f2b705")
        self.settled(lambda: color.dispatch_event("change"))
        self.type_value("type.axes.wght", "900")
        runs = self.title["runs"]
        style = {"fill": "#f2b705", "axes": {"wght": 900}}
        self.assertEqual(runs, [{"from": 5, "to": 10, "style": style}])
        page.get_by_role("button", name="the whole title instead").click()
        expect(page.locator(".letters")).to_have_count(0)

    def place_the_title(self):
        page = self.page
        self.type_value("t1.transform.position.0", "250")
        box = page.locator("#over polygon.is-picked").bounding_box()
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        page.mouse.move(x, y)
        page.keyboard.down("Control")  # no snapping
        page.mouse.down()
        page.mouse.move(x + 21, y + 42, steps=6)
        expect(page.locator("#stage-told")).to_contain_text("across")
        self.settled(page.mouse.up)
        page.keyboard.up("Control")
        scale = 640 / page.locator("#canvas").bounding_box()["width"]
        across, down, _ = self.title["transform"]["position"]
        self.assertAlmostEqual(across, 250 + 21 * scale, delta=1)
        self.assertAlmostEqual(down, 180 + 42 * scale, delta=1)
        self.settled(page.get_by_role("button", name="Centre", exact=True).click)
        self.assertEqual(self.title["transform"]["position"], [320, 180, 0])
        color = self.chip("background")
        color.fill("#1b1030")
        self.settled(lambda: color.dispatch_event("change"))
        self.assertEqual(self.document(self.scene)["background"]["color"], "#1b1030")

    def add_move(self, name):
        self.page.locator("#open-gallery").click()
        self.settled(self.page.get_by_role("button", name=f"{name} by").first.click)

    def give_it_moves(self):
        page = self.page
        self.add_move("Rise and fade")
        self.at_frame(6)
        before = self.picture()
        self.scrub("t1.moves.m1.stagger.gap", 8)
        self.assertNotEqual(self.picture(), before)
        self.assertEqual(self.title["moves"][0]["stagger"]["gap"], 3)
        self.choose("t1.moves.m1.stagger.order", "from the centre out")
        self.type_value("t1.moves.m1.pose.y", "60 below")
        chip = self.chip("t1.moves.m1.amount.keys.1.at")
        chip.focus()
        page.keyboard.press("ArrowDown")
        self.settled(lambda: page.keyboard.press("Shift+ArrowDown"))
        self.assertEqual(self.title["moves"][0]["amount"]["keys"][1]["at"], 6)
        self.choose("t1.moves.m1.amount.keys.0.ease", "overshoot")
        # A second move adds up; switched off it does nothing; removed it is gone.
        self.at_frame(30)
        landed = self.picture()
        self.add_move("Passing swell")
        self.type_value("t1.moves.m2.reach.0.high", "60")
        self.assertNotEqual(self.picture(), landed)
        switch = page.get_by_role("switch", name="Swell is on")
        self.settled(switch.click)
        self.assertEqual(self.picture(), landed)
        self.settled(switch.click)
        # A keyframe for the sweep's end, and another value at another time.
        high = "t1.moves.m2.reach.0.high"
        self.chip(high).focus()
        self.settled(lambda: page.keyboard.press("k"))
        page.locator(f'[data-fold="fold-{high}"]').click()
        self.type_value(f"{high}.keys.0.value", "45")
        self.assertEqual(
            self.title["moves"][1]["reach"][0]["high"], {"keys": [{"at": 30, "value": 45}]}
        )
        self.add_move("Start empty")
        self.settled(page.get_by_role("button", name="Remove New move").click)
        self.assertEqual([move["id"] for move in self.title["moves"]], ["m1", "m2"])
        self.assert_sentence("m1", "Each character comes from 60 px below and 0 % opaque")
        page.locator("#when-m1").click()
        self.assert_cascade()

    def assert_sentence(self, move, text):
        said = self.page.locator(f"#sentence-{move}").inner_text()
        self.assertIn(text, re.sub(r"\s+", " ", said))

    def assert_cascade(self):
        """The bars are where the core says."""
        expect(self.page.locator("#cascade .crow")).to_have_count(9)
        starts = self.page.eval_on_selector_all(
            "#cascade .bar", "bars => bars.map((bar) => Number(bar.dataset.start))"
        )
        self.assertEqual(starts, [12, 9, 6, 3, 0, 3, 6, 9, 12])

    def watch_it(self):
        page = self.page
        self.at_frame(0)
        page.get_by_role("button", name="Play", exact=True).click()
        page.wait_for_function(
            "() => Number(document.getElementById('stage-frame').textContent) > 10"
        )
        expect(page.locator("#stage-dropped")).to_have_text(re.compile(r"^\d+ frames? dropped$"))
        page.get_by_role("button", name="Pause", exact=True).click()
        self.at_frame(12)
        page.get_by_role("button", name="One frame on").click()
        expect(page.locator("#stage-frame")).to_have_text("13")
        ruler = page.locator("#ruler").bounding_box()
        page.mouse.click(ruler["x"] + ruler["width"] * 0.5, ruler["y"] + 20)
        expect(page.locator("#stage-frame")).to_have_text("25")
        self.wait_for_picture()

    def take_back_and_make_again(self):
        page = self.page
        kept = self.document(self.scene)
        for _ in range(6):
            self.settled(page.get_by_role("button", name="Undo").click)
        page.reload()
        self.wait_for_picture()
        self.settled(page.get_by_role("button", name="Undo").click)
        self.assertNotEqual(self.document(self.scene), kept)
        for _ in range(7):
            self.settled(page.get_by_role("button", name="Redo").click)
        self.assertEqual(self.document(self.scene), kept)

    def open_it_twice(self):
        other = self.new_tab()
        other.goto(self.page.url)
        self.wait_for_picture(other)
        self.type_value("t1.moves.m1.stagger.gap", "2")
        self.chip("t1.moves.m1.stagger.gap", other).click()
        other.keyboard.type("9")
        other.keyboard.press("Enter")
        expect(other.locator(".notice")).to_contain_text("changed in another tab")
        expect(self.chip("t1.moves.m1.stagger.gap", other)).to_have_text("2 frames")
        self.assertEqual(self.title["moves"][0]["stagger"]["gap"], 2)
        other.close()

    def render_it(self):
        page = self.page
        folder = temporary_folder(self)
        page.locator("#scene-menu summary").click()
        with page.expect_download() as kept:
            page.get_by_role("link", name="Download the scene file").click()
        file = folder / kept.value.suggested_filename
        kept.value.save_as(file)
        page.get_by_role("button", name="Render clip").click()
        expect(page.get_by_text("50 frames, 2.00 s")).to_be_visible()
        page.get_by_role("button", name="Render the clip").click()
        expect(page.locator("#download")).to_be_visible(timeout=60_000)
        expect(page.locator(".job__line b")).to_have_text("50 of 50")
        page.locator("video").evaluate("video => { video.muted = true; return video.play(); }")
        page.wait_for_function("() => document.querySelector('video').currentTime > 0.2")
        with page.expect_download() as clip:
            page.locator("#download").click()
        path = folder / clip.value.suggested_filename
        clip.value.save_as(path)
        self.assertEqual(path.name, "opening-title.mp4")
        self.assert_clip(path, file, folder)

    def assert_clip(self, path, file, folder):
        with av.open(str(path)) as container:
            stream = container.streams.video[0]
            self.assertEqual((stream.width, stream.height), (640, 360))
            self.assertEqual((stream.average_rate, stream.codec_context.name), (25, "h264"))
            pictures = [frame.to_ndarray(format="rgb24") for frame in container.decode(stream)]
        self.assertEqual(len(pictures), 50)
        delays = json.loads(command("poses", str(file), "--layer", "t1"))["moves"]["m1"]["delays"]
        self.assertEqual(delays, [8, 6, 4, 2, 0, 2, 4, 6, 8])
        still = folder / "still.png"
        command("frame", str(file), "--at", "14", "-o", str(still))
        scene = Picture(files.parse(file.read_bytes()))
        drawn = {14: np.asarray(Image.open(still).convert("RGB"))}
        drawn |= {number: draw_frame(scene, number)[..., 2::-1] for number in (0, 5, 30, 49)}
        for number, picture in drawn.items():
            self.assertLess(np.abs(pictures[number] - picture.astype(int)).mean(), 2.5)
        self.assertGreater(np.abs(pictures[0].astype(int) - pictures[14]).mean(), 1)
