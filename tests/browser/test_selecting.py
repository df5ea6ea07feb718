"""Selecting, and changing what is selected together."""

import re

from playwright.sync_api import expect

from web.projects import history

from .base import BrowserTest


class SelectingTest(BrowserTest):
    def setUp(self):
        super().setUp()
        self.person = self.sign_in()
        self.scene = self.open_scene(self.person, name="Opening")
        self.add(4)

    def add(self, count):
        """More titles below one another, each of its name."""
        title = self.document(self.scene)["layers"][0]
        for number in range(2, count + 1):
            place = {**title["transform"], "position": [960, 150 * number, 0]}
            layer = {**title, "name": f"Line {number}", "text": f"L{number}", "transform": place}
            history.record(
                self.scene.pk, number - 1, {"name": "add-layer", "layer": layer}, self.person
            )
        self.page.reload()
        self.wait_for_picture()

    def layers(self):
        return self.document(self.scene)["layers"]

    def selected(self):
        return self.page.evaluate(
            """() => [...document.querySelectorAll('.slab.is-selected, .slab.is-also')]
              .map((slab) => slab.dataset.layer)"""
        )

    def name(self, layer):
        return self.page.locator(f"#row-{layer} [data-select-layer]")

    def pick(self, layer, *modifiers):
        self.name(layer).click(modifiers=list(modifiers))
        self.page.wait_for_timeout(250)

    def test_shift_takes_the_range_and_ctrl_one(self):
        self.pick("t4")
        self.pick("t2", "Shift")
        self.assertEqual(self.selected(), ["t4", "t3", "t2"])
        self.pick("t3", "Control")
        self.assertEqual(self.selected(), ["t4", "t2"])
        self.page.keyboard.press("Control+a")
        self.assertEqual(self.selected(), ["t4", "t3", "t2", "t1"])

    def test_values_change_all_that_are_selected(self):
        self.pick("t4")
        self.pick("t1", "Shift")
        self.type_value("type.size", "10 to 70")
        sizes = [layer["style"]["size"] for layer in self.layers()]
        self.assertEqual(sizes, [70, 50, 30, 10])  # from the front to the back
        self.type_value("type.size", "+5")
        self.assertEqual([layer["style"]["size"] for layer in self.layers()], [75, 55, 35, 15])
        before = [layer["transform"]["position"][0] for layer in self.layers()]
        self.scrub("t4.transform.position.0", 12)
        after = [layer["transform"]["position"][0] for layer in self.layers()]
        self.assertEqual([b - a for a, b in zip(before, after, strict=True)], [12] * 4)

    def test_after_group_the_group_alone_is_selected(self):
        self.pick("t4")
        self.pick("t3", "Shift")
        self.settled(self.page.get_by_role("button", name="Group", exact=True).click)
        self.assertEqual(self.selected(), ["g1"])
        self.page.locator("#picture").focus()
        self.settled(lambda: self.page.keyboard.press("ArrowRight"))
        places = {layer["id"]: layer["transform"].get("position") for layer in self.layers()}
        self.assertEqual(places["t4"][0], 960)
        self.assertEqual(places["g1"], [1, 0, 0])
        self.settled(lambda: self.page.keyboard.press("Delete"))
        self.assertEqual([layer["id"] for layer in self.layers()], ["t1", "t2"])

    def corner(self, layer):
        polygon = self.page.locator(f'#over polygon[data-layer="{layer}"]')
        expect(polygon).to_be_visible()
        self.wait_for_picture()  # what lies over it is drawn anew when the selection is answered
        # It may be drawn anew just as it is looked at.
        while (box := polygon.bounding_box()) is None:
            self.page.wait_for_timeout(20)
        return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2

    def test_a_drag_on_what_is_not_selected_moves_it_at_once(self):
        self.at_frame(80)
        self.pick("t1")
        x, y = self.corner("t2")
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + 40, y + 3, steps=4)
        self.settled(self.page.mouse.up)
        place = self.layers()[1]["transform"]["position"]
        self.assertGreater(place[0], 1000)
        self.assertEqual(self.selected(), ["t2"])

    def test_shift_before_a_drag_keeps_it_straight(self):
        self.at_frame(80)
        self.pick("t4")
        x, y = self.corner("t4")
        self.page.keyboard.down("Shift")
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + 40, y + 6, steps=4)
        self.settled(self.page.mouse.up)
        self.page.keyboard.up("Shift")
        place = self.layers()[3]["transform"]["position"]
        self.assertEqual(place[1], 600)
        self.assertGreater(place[0], 1000)

    def test_copies_have_numbers_and_stand_where_the_original_does(self):
        self.pick("t4")
        for _ in range(2):
            self.settled(lambda: self.page.keyboard.press("Control+d"))
        copies = self.layers()[4:]
        self.assertEqual([layer["name"] for layer in copies], ["Line 5", "Line 6"])
        places = [layer["transform"]["position"][:2] for layer in copies]
        self.assertEqual(places, [[960, 600], [960, 600]])

    def test_width_and_height_go_together_until_unlinked(self):
        self.pick("t4")
        self.type_value("t4.transform.scale.0", "150")
        self.assertEqual(self.layers()[3]["transform"]["scale"], [1.5, 1.5])
        self.page.locator("[data-link-sides]").click()
        self.type_value("t4.transform.scale.1", "50")
        self.assertEqual(self.layers()[3]["transform"]["scale"], [1.5, 0.5])
        self.page.locator("[data-link-sides]").click()
        self.type_value("t4.transform.scale.0", "300")
        self.assertEqual(self.layers()[3]["transform"]["scale"], [3, 1])
        self.scrub("t4.transform.scale.1", 20)  # half a percent a pixel
        self.assertEqual(self.layers()[3]["transform"]["scale"], [3.3, 1.1])
        self.chip("t4.transform.scale.0").focus()
        self.settled(lambda: self.page.keyboard.press("ArrowUp"))
        self.assertAlmostEqual(self.layers()[3]["transform"]["scale"][0], 3.31)

    def test_a_pivot_is_typed_and_the_layer_stays(self):
        self.at_frame(80)
        self.pick("t4")
        self.type_value("t4.transform.rotation.2", "90")
        x, y = self.corner("t4")
        self.page.locator("#more-t4 > summary").click()
        self.type_value("t4.transform.pivot.0", "100")
        self.assertEqual(self.layers()[3]["transform"]["pivot"], [100, 0])
        there = self.corner("t4")
        self.assertAlmostEqual(there[0], x, delta=1)
        self.assertAlmostEqual(there[1], y, delta=1)

    def test_one_layer_is_aligned_to_the_picture(self):
        self.at_frame(80)
        self.pick("t4")
        self.settled(self.page.locator('[data-align="left"]').first.click)
        left = self.page.locator('#over polygon[data-layer="t4"]').bounding_box()["x"]
        edge = self.page.locator("#picture").bounding_box()["x"]
        self.assertAlmostEqual(left, edge, delta=4)  # with the line around it

    def test_a_box_begins_anywhere_in_the_keyframes_each_time(self):
        opacity = {"keys": [{"at": 5, "value": 0}, {"at": 20, "value": 1}]}
        edit = {"name": "set-value", "path": "t4.transform.opacity", "value": opacity}
        self.scene.refresh_from_db()
        history.record(self.scene.pk, self.scene.head, edit, self.person)
        self.page.reload()
        self.wait_for_picture()
        self.page.get_by_role("tab", name="Keyframes").click()
        self.pick("t4")
        expect(self.page.locator(".kbead")).to_have_count(4)  # the move's amount has two
        body = self.page.locator("#time-body").bounding_box()
        for _ in range(4):
            self.page.mouse.move(body["x"] + body["width"] - 20, body["y"] + body["height"] - 6)
            self.page.mouse.down()
            self.page.mouse.move(body["x"] + 240, body["y"] + 2, steps=4)
            self.page.mouse.up()
            expect(self.page.locator("#keys-said")).to_contain_text("4 keyframes")
            self.assertEqual(self.page.evaluate("getSelection().toString()"), "")
            self.page.mouse.click(body["x"] + body["width"] - 20, body["y"] + body["height"] - 6)
            expect(self.page.locator("#keys-said")).to_contain_text("No keyframe")
        self.page.get_by_role("tab", name="Curves").click()
        expect(self.page.locator(".curve-bead")).to_have_count(2)
        chart = self.page.locator("#curve-chart").bounding_box()
        for _ in range(2):
            self.page.mouse.move(chart["x"] + 3, chart["y"] + 3)
            self.page.mouse.down()
            self.page.mouse.move(
                chart["x"] + chart["width"] - 3, chart["y"] + chart["height"] - 3, steps=4
            )
            self.page.mouse.up()
            expect(self.page.locator("#keys-said")).to_contain_text("keyframes, frames")

    def test_spread_keeps_its_curve_and_gap_and_whole_frames(self):
        self.pick("t4")
        self.pick("t2", "Shift")
        self.page.get_by_role("button", name="Spread in time").click()
        self.page.locator("#spread-span").fill("7")
        self.settled(self.page.get_by_role("button", name="Spread", exact=True).click)
        starts = [layer["span"][0] for layer in self.layers()[1:]]
        self.assertEqual(starts, [7, 4, 0])
        self.page.get_by_role("button", name="Spread in time").click()
        expect(self.page.locator("#spread-span")).to_have_value("7")

    def test_several_are_left_by_escape_by_nothing_and_by_one(self):
        def leave_by(action):
            self.pick("t4")
            self.pick("t2", "Shift")
            self.assertEqual(self.selected(), ["t4", "t3", "t2"])
            action()
            expect(self.page.locator(".slab.is-also")).to_have_count(0)
            return self.selected()

        picture = self.page.locator("#over")
        self.assertEqual(leave_by(lambda: self.page.keyboard.press("Escape")), ["t4"])
        self.assertEqual(leave_by(lambda: picture.click(position={"x": 5, "y": 5})), ["t4"])
        box = lambda layer: self.page.locator(f"#over polygon[data-layer={layer}]")  # noqa: E731
        self.assertEqual(leave_by(lambda: box("t3").click()), ["t3"])

    def test_keys_of_the_timeline_work_when_a_value_is_typed(self):
        def type_at_once():
            self.type_value("type.size", "90")
            self.page.keyboard.press("g")
            self.page.keyboard.type("30")
            self.page.keyboard.press("Enter")

        self.pick("t1")
        self.settled(type_at_once)
        expect(self.page.locator("#time")).to_have_value(re.compile(r"/ 30$"))
        self.assertEqual(self.layers()[0]["style"]["size"], 90)
        self.page.keyboard.press("g")
        self.page.keyboard.type("50")
        self.page.keyboard.press("Escape")  # what was typed and not taken is dropped
        expect(self.page.locator("#time")).to_have_value(re.compile(r"/ 30$"))
        self.chip("type.size").focus()
        self.page.keyboard.press("End")
        expect(self.page.locator("#time")).not_to_have_value(re.compile(r"/ 30$"))
        self.chip("type.size").focus()
        self.page.keyboard.press("Escape")
        expect(self.chip("type.size")).not_to_be_focused()
