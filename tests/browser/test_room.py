"""Room to work: panels, the list in lines, the picker of colours, time from near, and fingers."""

from playwright.sync_api import expect

from tests.core.scenes import scene_data

from .base import BrowserTest
from .crowded import crowded_scene


class RoomTest(BrowserTest):
    def setUp(self):
        super().setUp()
        self.person = self.sign_in()

    def revisions(self, scene):
        expect(self.page.locator("#kept")).to_have_text("All changes kept")
        scene.refresh_from_db()
        return scene.head

    def size(self, region):
        box = self.page.locator(region).bounding_box()
        return round(box["width"]), round(box["height"])

    def drag_edge(self, name, across, down):
        box = self.page.locator(f"[data-edge={name}]").bounding_box()
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + across, y + down, steps=4)
        self.page.mouse.up()

    def test_panels_are_resized_remembered_and_put_back(self):
        self.open_scene(self.person)
        first = [self.size(region) for region in (".layers", ".moves", ".time")]
        self.drag_edge("layers", 60, 0)
        self.drag_edge("moves", -40, 0)
        self.drag_edge("time", 0, -150)
        self.page.reload()
        self.wait_for_picture()
        now = [self.size(region) for region in (".layers", ".moves", ".time")]
        self.assertEqual(now[0][0] - first[0][0], 60)
        self.assertEqual(now[1][0] - first[1][0], 40)
        self.assertEqual(now[2][1] - first[2][1], 150)
        self.assertGreater(now[2][1], 400, "the curves can have half the screen")
        edge = self.page.locator("[data-edge=time]")
        edge.focus()
        self.page.keyboard.press("ArrowDown")
        self.assertEqual(self.size(".time")[1], now[2][1] - 20)
        for name in ("layers", "moves", "time"):
            self.page.locator(f"[data-edge={name}]").dblclick()
        self.assertEqual([self.size(region) for region in (".layers", ".moves", ".time")], first)

    def test_twenty_layers_are_seen_in_lines(self):
        self.open_scene(self.person, **crowded_scene(layers=24))
        self.page.get_by_role("button", name="Each layer in one line").click()
        seen = self.page.evaluate(
            """() => {
              const list = document.querySelector('.slabs').getBoundingClientRect();
              return [...document.querySelectorAll('.slab')].filter((slab) => {
                const { top, bottom } = slab.getBoundingClientRect();
                return top >= list.top - 1 && bottom <= list.bottom + 1;
              }).length;
            }"""
        )
        self.assertGreaterEqual(seen, 20)

    def test_panels_find_room_in_a_smaller_window_and_take_it_back(self):
        self.open_scene(self.person)
        self.drag_edge("time", 0, -200)
        high = self.size(".time")[1]
        self.page.set_viewport_size({"width": 1280, "height": 500})
        self.page.reload()
        self.assertLess(self.size(".time")[1], high)
        self.page.set_viewport_size({"width": 1280, "height": 800})
        self.page.reload()
        self.assertEqual(self.size(".time")[1], high)

    def test_what_is_selected_comes_into_view(self):
        self.open_scene(self.person, **crowded_scene(layers=24))
        self.page.locator("#slab-t1").scroll_into_view_if_needed()
        self.settled(self.page.locator("#add-title").click)
        expect(self.page.locator(".slab.is-selected .slab__text")).to_be_in_viewport()
        expect(self.page.locator(".trow.is-selected")).to_be_in_viewport()

    def test_an_open_list_stays_while_answers_come(self):
        self.open_scene(self.person)
        self.page.evaluate(
            """() => {
              const own = window.fetch;
              window.fetch = async (...all) => {
                const answer = await own(...all);
                await new Promise((done) => setTimeout(done, 500));
                return answer;
              };
            }"""
        )
        self.chip("type.size").click()
        self.page.keyboard.type("90")
        self.page.keyboard.press("Enter")
        self.page.locator("#add-shape").click()
        expect(self.page.locator("#kept")).to_have_text("All changes kept")
        self.settled(self.page.get_by_role("option", name="star", exact=True).click)
        layers = self.page.locator(".slab")
        expect(layers).to_have_count(2)

    def test_a_colour_is_typed_in_the_pages_own_picker(self):
        scene = self.open_scene(self.person)
        color = self.page.locator('#type-t1 input[type="color"]')
        color.click()
        field = self.page.get_by_label("Colour in hex")
        expect(field).to_be_focused()
        self.page.keyboard.type("#44ccaa")
        self.settled(lambda: self.page.keyboard.press("Enter"))
        expect(self.page.locator(".clr-open")).to_have_count(0)
        self.assertEqual(self.document(scene)["layers"][0]["style"]["fill"].lower(), "#44ccaa")
        # It is offered again, as a colour of the scene and as one picked last.
        self.settled(lambda: self.page.keyboard.press("Control+z"))
        before = self.revisions(scene)
        color.click()
        swatch = self.page.locator(".clr-swatches button", has_text="#44ccaa")
        expect(swatch).to_have_count(1)
        swatch.click()
        self.page.keyboard.press("Escape")
        expect(color).not_to_have_value("#44ccaa")
        self.page.wait_for_timeout(1800)  # after which a colour that rests is made
        self.assertEqual(self.revisions(scene), before, "what is given up is no edit")
        # A hand that clicks elsewhere has picked; an undo at once takes that back.
        color.click()
        swatch.click()
        self.page.locator("#stage").click(position={"x": 5, "y": 5})
        self.page.keyboard.press("Control+z")
        expect(self.page.locator("#kept")).to_have_text("All changes kept")
        self.assertNotEqual(self.document(scene)["layers"][0]["style"]["fill"].lower(), "#44ccaa")

    def test_a_move_is_put_back_as_it_came(self):
        scene = self.open_scene(self.person)
        first = self.document(scene)["layers"][0]["moves"][0]
        self.type_value("t1.moves.m1.stagger.gap", "7")
        self.page.locator("#more-m1 summary").click()
        self.settled(self.page.locator("#more-m1").get_by_role("button", name="as it came").click)
        self.assertEqual(self.document(scene)["layers"][0]["moves"][0], first)

    def test_time_is_looked_at_from_near(self):
        self.open_scene(self.person)
        ruler = self.page.locator("#ruler").bounding_box()
        whole = self.page.evaluate("document.getElementById('ruler').clientWidth")
        self.page.mouse.move(ruler["x"] + ruler["width"] / 2, ruler["y"] + 60)
        self.page.keyboard.down("Control")
        self.page.mouse.wheel(0, -700)
        self.page.keyboard.up("Control")
        near = self.page.evaluate("document.getElementById('ruler').clientWidth")
        self.assertGreater(near, 2.5 * whole)
        # A click on the ruler still means what is seen there; the playhead stays in view.
        self.page.mouse.click(ruler["x"] + ruler["width"] / 2, ruler["y"] + 10)
        expect(self.page.locator("#stage-frame")).to_have_text("45")
        self.at_frame(0)
        line = self.page.locator("#playhead .playhead__flag").bounding_box()
        self.assertGreaterEqual(line["x"] + line["width"], ruler["x"])


class FingersTest(BrowserTest):
    def setUp(self):
        super().setUp()
        self.context = self.browser.new_context(
            viewport={"width": 1180, "height": 820}, has_touch=True, is_mobile=True
        )
        self.addCleanup(self.context.close)
        self.page = self.new_tab()
        self.scene = self.open_scene(self.sign_in(), layers=[{**scene_data()["layers"][0]}])
        self.hand = self.context.new_cdp_session(self.page)

    def touch(self, kind, *places):
        points = [{"x": x, "y": y, "id": index} for index, (x, y) in enumerate(places)]
        self.hand.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": points})

    def pinch(self, x, y):
        """Two fingers about a place go from 100 to 250 px apart."""
        self.touch("touchStart", (x - 50, y))
        self.touch("touchStart", (x - 50, y), (x + 50, y))
        for step in range(1, 6):
            self.touch("touchMove", (x - 50 - 15 * step, y), (x + 50 + 15 * step, y))
        self.touch("touchEnd")

    def test_two_fingers_zoom_the_picture_and_the_time(self):
        before = self.document(self.scene)
        width = self.page.locator("#canvas").bounding_box()["width"]
        stage = self.page.locator("#stage").bounding_box()
        self.pinch(stage["x"] + stage["width"] / 2, stage["y"] + stage["height"] / 2)
        now = self.page.locator("#canvas").bounding_box()["width"]
        self.assertAlmostEqual(now / width, 2.5, delta=0.1)
        ruler = self.page.locator("#ruler").bounding_box()
        self.pinch(ruler["x"] + 300, ruler["y"] + 80)
        wide = self.page.locator("#ruler").bounding_box()["width"]
        self.assertAlmostEqual(wide / ruler["width"], 2.5, delta=0.1)
        # One finger is lifted before the other.
        x, y = stage["x"] + 200, stage["y"] + 100
        self.touch("touchStart", (x, y))
        self.touch("touchStart", (x, y), (x + 80, y))
        self.touch("touchEnd", (x, y))
        self.touch("touchMove", (x + 30, y))
        self.touch("touchEnd")
        expect(self.page.locator("#kept")).to_have_text("All changes kept")
        self.assertEqual(self.document(self.scene), before, "nothing is moved by it")

    def test_a_finger_scrubs_and_drags(self):
        box = self.chip("t1.transform.position.0").bounding_box()
        x, y = box["x"] + 12, box["y"] + box["height"] / 2
        self.touch("touchStart", (x, y))
        for step in range(1, 5):
            self.touch("touchMove", (x + 10 * step, y))
        self.settled(lambda: self.touch("touchEnd"))
        across = self.document(self.scene)["layers"][0]["transform"]["position"][0]
        self.assertEqual(across, 1000)
        title = self.page.locator("#over polygon.is-picked").bounding_box()
        x, y = title["x"] + title["width"] * 0.3, title["y"] + title["height"] / 2
        self.touch("touchStart", (x, y))
        for step in range(1, 5):
            self.touch("touchMove", (x, y + 10 * step))
        self.settled(lambda: self.touch("touchEnd"))
        down = self.document(self.scene)["layers"][0]["transform"]["position"][1]
        self.assertGreater(down, 600)

    def test_a_finger_that_rests_stands_for_hover(self):
        chip = self.chip("t1.transform.position.0")
        box = chip.bounding_box()
        self.touch("touchStart", (box["x"] + 12, box["y"] + 10))
        self.page.wait_for_timeout(900)
        expect(self.page.locator("#key-bead")).to_be_visible()
        self.touch("touchEnd")
        self.page.wait_for_timeout(100)
        self.assertFalse(chip.evaluate("(chip) => chip.isContentEditable"))
        bead = self.page.locator("#key-bead")
        self.page.wait_for_timeout(300)
        self.settled(bead.tap)
        self.assertIn("keys", self.document(self.scene)["layers"][0]["transform"]["position"])

    def test_what_is_taken_reaches_far_enough(self):
        for name in ("scale", "stretch", "turn"):
            reach = self.page.locator(f'.grip-reach[data-grip="{name}"]').first.bounding_box()
            self.assertGreaterEqual(round(reach["width"]), 44, name)
