"""Single things that hands do in the workbench."""

import re
import time

from playwright.sync_api import expect

from tests.core.scenes import scene_data
from web.projects import history
from web.renders.models import Render

from .base import BrowserTest

GAP = "t1.moves.m1.stagger.gap"


class HandsTest(BrowserTest):
    def setUp(self):
        super().setUp()
        self.person = self.sign_in()
        self.scene = self.open_scene(self.person, name="Opening")

    def gap(self):
        return self.document(self.scene)["layers"][0]["moves"][0]["stagger"]["gap"]

    def test_a_scrub_is_followed_by_the_picture_and_makes_one_revision(self):
        self.at_frame(12)
        box = self.chip(GAP).bounding_box()
        x, y = box["x"] + 10, box["y"] + 8
        seen = {self.picture()}
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        for pixels in (8, 16, 24):
            digest = self.page.locator("#canvas").get_attribute("data-shown")
            self.page.mouse.move(x + pixels, y)
            self.page.wait_for_function(
                "(old) => document.getElementById('canvas').dataset.shown !== old", arg=digest
            )
            seen.add(self.picture())
        self.assertEqual(len(seen), 4)
        self.assertEqual(self.gap(), 2)  # nothing is kept yet
        self.settled(self.page.mouse.up)
        self.assertEqual(self.gap(), 5)
        self.scene.refresh_from_db()
        self.assertEqual(self.scene.head, 2)

    def test_escape_gives_a_scrub_up(self):
        box = self.chip(GAP).bounding_box()
        self.page.mouse.move(box["x"] + 10, box["y"] + 8)
        self.page.mouse.down()
        self.page.mouse.move(box["x"] + 50, box["y"] + 8, steps=3)
        expect(self.chip(GAP)).not_to_have_text("2 frames")
        self.page.keyboard.press("Escape")
        expect(self.chip(GAP)).to_have_text("2 frames")
        self.page.mouse.up()
        self.wait_for_picture()
        self.scene.refresh_from_db()
        self.assertEqual(self.scene.head, 1)

    def test_what_is_typed_wrong_is_said_and_nothing_changes(self):
        self.chip(GAP).click()
        self.page.keyboard.type("two")
        self.page.keyboard.press("Enter")
        expect(self.page.locator(".notice")).to_contain_text("“Gap”: a number is needed, got “two”")
        expect(self.chip(GAP)).to_have_text("two")  # open, to be typed on
        expect(self.chip(GAP)).to_have_attribute("aria-invalid", "true")
        self.assertEqual(self.gap(), 2)
        self.page.keyboard.press("Escape")
        expect(self.chip(GAP)).to_have_text("2 frames")

    def test_back_to_rest_takes_a_property_out_of_the_sentence(self):
        self.settled(self.chip("t1.moves.m1.pose.y").dblclick)
        self.assertEqual(self.document(self.scene)["layers"][0]["moves"][0]["pose"], {"opacity": 0})
        expect(self.chip("t1.moves.m1.pose.y")).to_have_count(0)
        self.page.locator("#more-m1 > summary").click()
        self.settled(self.page.get_by_role("button", name="depth", exact=True).click)
        self.assertEqual(self.document(self.scene)["layers"][0]["moves"][0]["pose"]["z"], 600)

    def test_undo_by_key_takes_back_the_words_that_were_just_typed(self):
        text = self.page.get_by_label("Text of")
        text.click()
        self.page.keyboard.press("End")
        self.page.keyboard.type("s")
        expect(self.page.locator("#kept")).to_contain_text("Keeping")
        self.page.keyboard.press("Control+z")
        expect(self.page.locator("#kept")).to_contain_text("All changes kept")
        expect(self.page.get_by_role("button", name="Redo")).to_be_enabled()
        self.assertEqual(self.document(self.scene)["layers"][0]["text"], "The Quiet Orbit")
        self.scene.refresh_from_db()
        self.assertEqual(self.scene.head, 3)

    def test_words_typed_just_before_rendering_are_in_the_clip(self):
        text = self.page.get_by_label("Text of")
        text.click()
        self.page.keyboard.press("End")
        self.page.keyboard.type(" tonight")
        self.page.get_by_role("button", name="Render clip").click()
        self.page.get_by_role("button", name="Render the clip").click()
        expect(self.page.get_by_role("heading", name="Renders")).to_be_visible()
        render = Render.objects.get()
        self.assertEqual(render.document["layers"][0]["text"], "The Quiet Orbit tonight")

    def test_words_typed_just_before_leaving_are_kept(self):
        text = self.page.get_by_label("Text of")
        text.click()
        self.page.keyboard.press("End")
        self.page.keyboard.type("s")
        self.page.goto(f"{self.live_server_url}/renders/")
        expect(self.page.get_by_role("heading", name="Renders")).to_be_visible()
        self.comes_about(
            lambda: self.document(self.scene)["layers"][0]["text"] == "The Quiet Orbits",
            "the last letter is lost",
        )

    def test_to_the_ends_of_the_selected_layer(self):
        data = scene_data()
        data["layers"][0]["span"] = [12, 50]
        self.open_scene(self.sign_in("bea"), layers=data["layers"])
        self.page.locator("#stage-name").click()
        for key, frame in (("Shift+Home", 12), ("Shift+End", 49), ("Home", 0), ("End", 89)):
            self.page.keyboard.press(key)
            expect(self.page.locator("#stage-frame")).to_have_text(str(frame))

    def test_keys_walk_through_time(self):
        page = self.page
        page.locator("#stage-name").click()
        for key, frame in (
            ("Home", 0), ("ArrowRight", 1), ("Shift+ArrowRight", 11), ("ArrowLeft", 10),
            ("End", 89),
        ):  # fmt: skip
            page.keyboard.press(key)
            expect(page.locator("#stage-frame")).to_have_text(str(frame))
        page.keyboard.press("g")
        for typed, frame in (("42", 42), ("+10", 52), ("1.5s", 45), ("1:12", 42), ("0:02:05", 65)):
            page.get_by_label("Time", exact=True).fill(typed)
            page.keyboard.press("Enter")
            expect(page.locator("#stage-frame")).to_have_text(str(frame))
        page.locator("#stage-name").click()
        page.keyboard.press(" ")
        expect(page.get_by_role("button", name="Pause")).to_be_visible()
        page.keyboard.press(" ")
        expect(page.get_by_role("button", name="Play", exact=True)).to_be_visible()
        self.settled(lambda: page.keyboard.press("2"))
        self.assertEqual(self.document(self.scene)["layers"][0]["moves"][0]["unit"], "word")
        expect(page.locator("#cascade .crow")).to_have_count(3)

    def test_a_click_on_the_name_of_a_layer_selects_it_and_lets_it_be_typed(self):
        self.page.locator("#add-more").click()
        self.settled(self.page.locator("#add-adjustment").click)
        self.page.locator("#row-t1 .trow__name").click()
        expect(self.page.locator("#slab-t1")).to_have_class(re.compile("is-selected"))
        name = self.page.locator(".slab .slab__name")
        name.click()
        slab = self.page.locator(".slab:has(.slab__name)")
        expect(slab).to_have_class(re.compile("is-selected"))
        expect(name).to_be_focused()
        self.page.keyboard.type("First light")
        self.settled(lambda: self.page.keyboard.press("Enter"))
        self.assertEqual(self.document(self.scene)["layers"][-1]["name"], "First light")

    def test_a_slow_scene_is_played_smaller_and_seen_whole_again_after(self):
        boxes = []

        def slowly(route):
            boxes.append(route.request.url.rpartition("=")[2])
            time.sleep(0.5)  # for six frames, which play in 0.2
            route.continue_()

        self.page.route("**/run/*/?box=*", slowly)
        self.page.keyboard.press("Home")
        self.page.get_by_role("button", name="Play", exact=True).click()
        expect(self.page.locator("#buffer")).to_contain_text("fetching frames, ")
        expect(self.page.locator("#buffer")).to_have_text("smaller, to keep its speed")
        self.page.get_by_role("button", name="Pause").click()
        expect(self.page.locator("#buffer")).to_have_text("")
        self.page.wait_for_function(
            "() => document.getElementById('canvas').dataset.shown.endsWith('box=960')"
        )
        self.assertEqual({boxes[0], boxes[-1]}, {"960", "480"})
        self.page.unroute("**/run/*/?box=*")

    def test_playing_without_loop_ends_at_the_last_frame(self):
        self.at_frame(70)
        self.page.get_by_role("button", name="Loop").click()
        self.page.get_by_role("button", name="Play", exact=True).click()
        expect(self.page.get_by_role("button", name="Play", exact=True)).to_be_visible()
        expect(self.page.locator("#stage-frame")).to_have_text("89")

    def test_no_background_shows_what_is_behind(self):
        self.choose("background-kind", "nothing")
        alpha = self.page.evaluate(
            """() => {
              const canvas = document.getElementById('canvas');
              return canvas.getContext('2d').getImageData(3, 3, 1, 1).data[3];
            }"""
        )
        self.assertEqual(alpha, 0)
        self.choose("background-kind", "a colour")
        self.assertEqual(self.document(self.scene)["background"]["kind"], "color")

    def test_a_longer_scene_takes_its_titles_along(self):
        length = self.page.get_by_label("Length of the scene in frames")
        length.fill("4s")
        self.settled(lambda: length.press("Enter"))
        document = self.document(self.scene)
        self.assertEqual((document["length"], document["layers"][0]["span"]), (120, [0, 120]))
        expect(self.page.locator("#length")).to_have_value("120")

    def test_a_dragged_title_snaps_to_the_centre(self):
        self.type_value("t1.transform.position.0", "700")
        box = self.page.locator("#over polygon.is-picked").bounding_box()
        scale = 1920 / self.page.locator("#canvas").bounding_box()["width"]
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        # Four pixels short of the centre, and far from any line down.
        self.page.mouse.move(x + 260 / scale - 4, y + 47, steps=5)
        expect(self.page.locator("#over line.cross")).to_have_count(1)
        self.settled(self.page.mouse.up)
        position = self.document(self.scene)["layers"][0]["transform"]["position"]
        self.assertEqual(position[0], 960)
        self.assertAlmostEqual(position[1], 540 + 47 * scale, delta=2)
        expect(self.page.locator("#over line.cross")).to_have_count(0)

    def test_lines_over_the_picture_are_remembered(self):
        self.page.get_by_role("button", name="Safe margins").click()
        expect(self.page.locator("#over rect.margin")).to_have_count(2)
        self.page.reload()
        expect(self.page.locator("#over rect.margin")).to_have_count(2)

    def test_half_speed_takes_twice_as_long(self):
        """Counted in frames shown while as much time passes, not in seconds."""
        self.page.evaluate("""() => {
          let now = 0;
          performance.now = () => now;
          window.requestAnimationFrame = (tick) => setTimeout(() => tick((now += 100)), 1);
        }""")
        self.at_frame(0)
        self.page.locator("#speed").click()
        expect(self.page.locator("#speed")).to_have_text("half speed")
        self.page.locator("#loop").click()
        self.page.locator("#play").click()
        expect(self.page.locator("#play")).to_have_attribute("aria-pressed", "false")
        self.assertIn(self.page.locator("#stage-frame").text_content(), ("88", "89"))
        # 90 frames at 30 a second are 30 steps of a tenth of a second, at half speed 60.
        self.assertGreaterEqual(self.page.evaluate("performance.now()"), 5900)

    def test_keyframes_of_a_titles_place(self):
        self.at_frame(10)
        across = "t1.transform.position.0"
        self.chip(across).focus()
        self.settled(lambda: self.page.keyboard.press("k"))
        self.at_frame(40)
        self.type_value(across, "1200")
        keys = self.document(self.scene)["layers"][0]["transform"]["position"]["keys"]
        self.assertEqual([(key["at"], key["value"][0]) for key in keys], [(10, 960), (40, 1200)])
        expect(self.chip(across)).to_have_class(re.compile("is-beaded"))

    def test_a_title_is_selected_in_the_picture_and_removed(self):
        edit = {"name": "add-layer", "layer": {"kind": "title", "text": "Back", "span": [0, 90],
                "style": {"size": 90}, "transform": {"position": [300, 200, 0]}}}  # fmt: skip
        self.scene.refresh_from_db()
        history.record(self.scene.pk, self.scene.head, edit, self.person)
        self.page.reload()
        self.wait_for_picture()
        expect(self.page.locator("#over polygon")).to_have_count(2)
        expect(self.page.locator("#slab-t1")).to_have_class(re.compile("is-selected"))
        self.page.locator("#row-t2 .trow__name").click()
        expect(self.page.locator("#over .is-picked[data-layer=t2]")).to_be_visible()
        shape = self.page.locator('#over polygon[data-layer="t1"]')
        box = shape.bounding_box()
        self.page.mouse.click(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
        expect(self.page.locator("#slab-t1")).to_have_class(re.compile("is-selected"))
        self.settled(self.page.get_by_role("button", name="Remove Title").click)
        self.assertEqual([la["id"] for la in self.document(self.scene)["layers"]], ["t2"])
        self.settled(self.page.get_by_role("button", name="Undo").click)
        self.assertEqual(len(self.document(self.scene)["layers"]), 2)
