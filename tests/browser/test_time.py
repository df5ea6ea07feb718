"""The views of time: keyframes, curves, spread, markers, layers, copies and takes."""

from playwright.sync_api import expect

from tests.core.scenes import OPACITY, scene_data
from web.projects import history

from .base import BrowserTest


class TimeTest(BrowserTest):
    def setUp(self):
        super().setUp()
        self.person = self.sign_in()

    def show(self, view, *more, **changes):
        data = scene_data()
        data["layers"][0]["transform"]["opacity"] = OPACITY
        layers = [data["layers"][0], *more]
        self.scene = self.open_scene(self.person, layers=layers, **changes)
        self.page.get_by_role("tab", name=view).click()
        self.frame = self.page.locator("#ruler").bounding_box()["width"] / 90

    def title(self, number=0):
        return self.document(self.scene)["layers"][number]

    def times(self, value="opacity"):
        return [key["at"] for key in self.title()["transform"][value]["keys"]]

    def drag(self, target, across, down=0, settle=True, keys=()):
        # Beads are drawn anew when the numbers for them come: one may just be gone.
        while not (box := target.bounding_box()):
            target.wait_for()
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        for key in keys:
            self.page.keyboard.down(key)
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + across, y + down, steps=6)
        if settle:
            self.settled(self.page.mouse.up)
        for key in keys:
            self.page.keyboard.up(key)

    def bead(self, number):
        return self.page.locator('.kbead[data-path="t1.transform.opacity"]').nth(number)

    def test_beads_are_dragged_together_and_stay_selected(self):
        self.show("Keyframes")
        self.bead(1).click()
        self.bead(2).click(modifiers=["Shift"])
        self.drag(self.bead(2), 7 * self.frame, keys=["Control"])
        self.assertEqual(self.times(), [0, 27, 47, 60])
        expect(self.page.locator("#keys-said")).to_have_text("2 keyframes, frames 27 to 47")
        self.scene.refresh_from_db()
        self.assertEqual(self.scene.head, 2)

    def test_a_dragged_bead_is_caught_by_the_playhead_and_markers(self):
        self.show("Keyframes", markers=[{"at": 33, "name": "Doors"}])
        self.at_frame(25)
        self.drag(self.bead(1), 5 * self.frame + 3)
        self.assertEqual(self.times()[1], 25)
        self.drag(self.bead(1), 8 * self.frame - 4)
        self.assertEqual(self.times()[1], 33)
        self.drag(self.bead(1), 8 * self.frame - 4, keys=["Control"])
        self.assertEqual(self.times()[1], 41 - 1 if self.times()[1] == 40 else 41)

    def test_the_end_of_the_selection_stretches_it(self):
        self.show("Keyframes")
        self.bead(0).click()
        for number in (1, 2, 3):
            self.bead(number).click(modifiers=["Shift"])
        box = self.page.locator("#stretch").bounding_box()
        self.page.mouse.move(box["x"] + box["width"], box["y"] + 2)
        self.page.mouse.down()
        self.page.mouse.move(box["x"] + box["width"] - 30 * self.frame, box["y"] + 2, steps=5)
        self.settled(self.page.mouse.up)
        self.assertEqual(self.times(), [0, 10, 20, 30])

    def test_keys_are_copied_to_another_title_at_the_playhead(self):
        other = {**scene_data("Second")["layers"][0], "id": "t2", "name": "Second", "moves": []}
        self.show("Keyframes", other)
        self.page.locator("#row-t1 .trow__name").click()
        self.bead(1).click()
        self.bead(2).click(modifiers=["Shift"])
        self.page.keyboard.press("Control+c")
        expect(self.page.locator("#notices")).to_contain_text("2 keyframes copied")
        self.page.locator(".trow__name", has_text="Second").click()
        self.at_frame(50)
        self.page.locator("body").click(position={"x": 600, "y": 5})
        self.settled(lambda: self.page.keyboard.press("Control+v"))
        keys = self.title(1)["transform"]["opacity"]["keys"]
        self.assertEqual([(key["at"], key["value"]) for key in keys], [(50, 1), (70, 0.5)])
        expect(self.page.locator("#keys-said")).to_have_text("2 keyframes, frames 50 to 70")

    def test_a_key_is_added_by_a_double_click_and_by_k(self):
        self.show("Keyframes")
        lane = self.page.locator('.krow[data-path="t1.transform.opacity"] .lane')
        place = {"x": 30 * self.frame, "y": 10}
        self.settled(lambda: lane.dblclick(position=place))
        self.assertEqual(self.times(), [0, 20, 30, 40, 60])
        self.assertAlmostEqual(self.title()["transform"]["opacity"]["keys"][2]["value"], 0.75)
        self.bead(0).click()
        self.at_frame(50)
        self.page.locator("body").click(position={"x": 600, "y": 5})
        self.settled(lambda: self.page.keyboard.press("k"))
        self.assertEqual(self.times(), [0, 20, 30, 40, 50, 60])

    def test_a_handle_bends_the_curve_that_python_draws(self):
        self.show("Curves")
        self.page.locator("[data-curve]", has_text="Opacity").click()
        grip = self.page.locator('.curve-handle[data-stretch="0"][data-side="0"]')
        before = self.page.locator("polyline.curve").last.get_attribute("points")
        self.drag(grip, 6 * self.frame, 20, keys=["Shift"])
        bezier = self.title()["transform"]["opacity"]["keys"][0]["ease"]["bezier"]
        self.assertEqual(bezier[1], 0)
        self.assertAlmostEqual(bezier[0], 1 / 3 + 6 / 20, delta=0.03)
        curve = self.page.locator("polyline.curve").last
        expect(curve).not_to_have_attribute("points", before)

    def test_a_bezier_is_pasted_and_eases_all_selected(self):
        self.show("Curves")
        self.page.locator("[data-curve]", has_text="Opacity").click()
        field = self.page.locator("#bezier")
        field.fill("cubic-bezier(.2, 0, .1, 1)")
        self.settled(lambda: field.press("Enter"))
        keys = self.title()["transform"]["opacity"]["keys"]
        self.assertEqual([k.get("ease") for k in keys[:3]], [{"bezier": [0.2, 0, 0.1, 1]}] * 3)
        field.fill("2, 0, 1")
        field.press("Enter")
        expect(self.page.locator("#notices")).to_contain_text("Four numbers are needed")

    def test_a_bead_of_the_curve_is_raised(self):
        self.show("Curves")
        self.page.locator("[data-curve]", has_text="Opacity").click()
        bead = self.page.locator('.curve-bead[data-bead="2"]')
        bead.click()
        box = bead.bounding_box()
        x, y = box["x"] + 5, box["y"] + 5
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.keyboard.down("Shift")  # keeps it at its frame
        self.page.mouse.move(x + 3, y - 200, steps=5)
        self.settled(self.page.mouse.up)
        self.page.keyboard.up("Shift")
        self.assertEqual(self.title()["transform"]["opacity"]["keys"][2]["value"], 1)
        self.assertEqual(self.times(), [0, 20, 40, 60])

    def test_layers_are_spread_along_a_bent_curve_as_one_step(self):
        more = [{**scene_data()["layers"][0], "id": f"t{n}", "name": f"Line {n}"} for n in (2, 3)]
        self.show("Cascade", *more)
        for name in ("Line 2", "Title"):
            self.page.locator(".trow__name", has_text=name).click(modifiers=["Shift"])
        expect(self.page.locator("#several b")).to_have_text("3 layers")
        self.page.get_by_role("button", name="Spread in time").click()
        self.page.locator("#spread-span").fill("40")
        grip = self.page.locator("[data-spread-handle='0']")
        self.drag(grip, 0, 40, settle=False)
        self.page.mouse.up()
        self.assertEqual(self.title()["span"], [0, 90])  # nothing is kept yet
        self.settled(self.page.locator("[data-spread=keep]").click)
        begins = [self.title(n)["span"][0] for n in (2, 1, 0)]
        self.assertEqual((begins[0], begins[2]), (0, 40))
        self.assertLess(begins[1], 20)
        self.scene.refresh_from_db()
        self.assertEqual(self.scene.head, 2)

    def test_markers_are_set_named_and_gone_to(self):
        self.show("Cascade")
        self.at_frame(33)
        self.page.locator("body").click(position={"x": 600, "y": 5})
        self.settled(lambda: self.page.keyboard.press("m"))
        marker = self.page.locator(".marker")
        marker.dblclick()
        self.page.locator(".marker__name").fill("Doors open")
        self.settled(lambda: self.page.keyboard.press("Enter"))
        self.assertEqual(self.document(self.scene)["markers"], [{"at": 33, "name": "Doors open"}])
        self.drag(marker, 10 * self.frame, keys=["Control"])
        self.assertEqual(self.document(self.scene)["markers"][0]["at"], 43)
        marker.focus()
        self.settled(lambda: self.page.keyboard.press("Delete"))
        self.assertEqual(self.document(self.scene)["markers"], [])

    def test_layers_are_put_in_order_by_dragging_their_numbers(self):
        second = {**scene_data("Second")["layers"][0], "id": "t2"}
        self.show("Cascade", second)
        first = self.page.locator("[data-grab=t2]").bounding_box()
        last = self.page.locator("#slab-t1").bounding_box()
        self.page.mouse.move(first["x"] + 8, first["y"] + 8)
        self.page.mouse.down()
        self.page.mouse.move(first["x"] + 8, last["y"] + last["height"] - 4, steps=5)
        self.settled(self.page.mouse.up)
        ids = [layer["id"] for layer in self.document(self.scene)["layers"]]
        self.assertEqual(ids, ["t2", "t1"])

    def test_a_layer_is_pasted_in_another_scene(self):
        self.show("Cascade")
        self.page.locator("body").click(position={"x": 600, "y": 5})
        self.page.keyboard.press("Control+c")
        project = self.scene.project
        other = history.make_scene(project, scene_data("Elsewhere"), self.person)
        self.page.goto(f"{self.live_server_url}/scenes/{other.pk}/")
        self.wait_for_picture()
        self.settled(lambda: self.page.keyboard.press("Control+v"))
        layers = self.document(other)["layers"]
        self.assertEqual([layer["text"] for layer in layers], ["Elsewhere", "The Quiet Orbit"])
        self.assertEqual(layers[1]["transform"]["opacity"], OPACITY)

    def test_solo_shows_one_layer_alone(self):
        second = {**scene_data("Second")["layers"][0], "id": "t2"}
        self.show("Cascade", second)
        before = self.picture()
        self.settled(self.page.get_by_role("switch", name="Solo").click)
        alone = self.picture()
        self.assertNotEqual(alone, before)
        expect(self.page.locator("#slab-t1")).to_have_class("slab  is-left-out")
        self.settled(self.page.get_by_role("switch", name="Solo").click)
        self.assertEqual(self.picture(), before)

    def test_takes_are_kept_flipped_and_watched_side_by_side(self):
        self.show("Cascade")
        first = self.picture()
        self.page.locator("#takes-menu summary").click()
        self.settled(self.page.locator("[data-take-keep]").click)
        self.page.locator("#takes-menu summary").click()
        self.type_value("type.size", "90")
        second = self.picture()
        self.page.locator("body").click(position={"x": 600, "y": 5})
        self.page.keyboard.press("c")
        expect(self.page.locator("#stage-take")).to_have_text("Take A")
        self.page.wait_for_timeout(400)
        self.assertEqual(self.picture(), first)
        self.page.keyboard.press("c")
        self.wait_for_picture()
        self.assertEqual(self.picture(), second)
        self.page.keyboard.press("Shift+C")
        beside = self.page.locator("#canvas-beside")
        expect(beside).to_be_visible()
        self.page.keyboard.press(" ")
        self.page.wait_for_timeout(700)
        self.page.keyboard.press(" ")
        self.page.wait_for_timeout(500)
        frames = self.page.evaluate(
            "() => ['canvas', 'canvas-beside'].map(id => document.getElementById(id).dataset.shown"
            ".match(/frames.([0-9a-f-]+).([0-9]+)/).slice(1))"
        )
        self.assertEqual(frames[0][1], frames[1][1], "both stand at the same frame")
        self.assertNotEqual(frames[0][0], frames[1][0])
        self.page.keyboard.press("Shift+C")
        self.settled(self.page.locator("[data-take]", has_text="Take A").click)
        self.assertEqual(self.title()["style"]["size"], scene_data()["layers"][0]["style"]["size"])
        self.settled(lambda: self.page.keyboard.press("Control+z"))
        self.assertEqual(self.title()["style"]["size"], 90)

    def test_three_hundred_letters_have_rows_where_they_are_seen(self):
        text = ("Nine winter moons over the observatory " * 9)[:330]
        data = scene_data(text)
        self.scene = self.open_scene(self.person, layers=data["layers"])
        rows = self.page.locator("#cascade .crow")
        rows.first.wait_for()
        count = int(self.page.locator("#cascade").get_attribute("data-rows"))
        self.assertGreater(count, 270)
        self.assertLess(rows.count(), 60)
        self.page.locator("#time-body").evaluate("body => { body.scrollTop = 2400; }")
        expect(self.page.locator('#cascade .crow[data-unit="200"]')).to_have_count(1)
        starts = self.page.locator('#cascade .crow[data-unit="200"] .col-starts')
        expect(starts).to_have_text("400")

    def test_two_levels_are_dragged_apart(self):
        data = scene_data()
        stagger = {
            "order": "forward",
            "gap": 1,
            "groups": {"by": "word", "order": "forward", "gap": 10},
        }
        data["layers"][0]["moves"][0]["stagger"] = stagger
        self.scene = self.open_scene(self.person, layers=data["layers"])
        self.page.locator(".guide__grip").first.wait_for()
        frame = self.page.locator("#ruler").bounding_box()["width"] / 90
        outer = self.page.locator('.guide__grip--gap[data-level="0"]')
        self.drag(outer, 8 * frame)
        found = self.title()["moves"][0]["stagger"]
        self.assertEqual((found["gap"], found["groups"]["gap"]), (1, 14))
        self.page.locator(f'#cascade[data-shown="{self.scene.digest}"]')
        inner = self.page.locator('.guide__grip--gap[data-level="1"]')
        self.page.wait_for_timeout(500)
        self.drag(inner, 4 * frame)
        found = self.title()["moves"][0]["stagger"]
        self.assertEqual((found["gap"], found["groups"]["gap"]), (2, 14))
