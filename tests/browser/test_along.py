"""A title that stands along a shape: put there, drawn along, lifted off, said and taken away."""

import math

from playwright.sync_api import expect

from tests.core.scenes import scene_data

from .late import LateTest

RADIUS = 300
ORBIT = {
    "id": "s1", "kind": "shape", "name": "Orbit", "span": [0, 90],
    "shape": {"kind": "ellipse", "size": [2 * RADIUS, 2 * RADIUS]},
    "transform": {"position": [960, 540, 0]},
}  # fmt: skip


class AlongTest(LateTest):
    def titles(self):
        title = {**scene_data("Round the moon")["layers"][0], "runs": [], "moves": []}
        title["style"] = {**title["style"], "align": "center"}
        other = {**title, "id": "t2", "text": "Low", "transform": {"position": [300, 950, 0]}}
        return [ORBIT, {**title, "transform": {"position": [960, 540, 0]}}, other]

    def title(self):
        return next(e for e in self.document(self.scene)["layers"] if e["id"] == "t1")

    def stand_along(self):
        self.page.locator("#row-t1 [data-select-layer]").click()
        more = self.page.locator("#wear-more-t1")
        expect(more).to_be_visible()
        if more.get_attribute("open") is None:
            more.locator("summary").click()
        add = self.page.get_by_role("button", name="along “Orbit”", exact=True)
        self.settled(add.click)

    def at(self, degrees, out=40):
        """Where the screen shows what stands at an angle from the top, px out of the orbit."""
        box = self.page.locator("#canvas").bounding_box()
        angle, scale = math.radians(degrees), box["width"] / 1920
        x = 960 + (RADIUS + out) * math.sin(angle)
        y = 540 - (RADIUS + out) * math.cos(angle)
        return box["x"] + x * scale, box["y"] + y * scale

    def drag(self, start, *ends):
        self.page.mouse.move(*start)
        self.page.mouse.down()
        for end in ends:
            self.page.mouse.move(*end, steps=3)
        self.settled(self.page.mouse.up)

    def test_it_is_put_there_drawn_along_lifted_said_and_taken_away(self):
        self.scene = self.open_scene(self.person, layers=self.titles())
        straight = self.picture()
        self.stand_along()
        self.assertEqual(self.title()["along"], {"layer": "s1", "offset": 0})
        self.assertNotEqual(self.picture(), straight)
        card = self.page.locator("#wear-t1along")
        expect(card).to_contain_text("at 0 %, raised by 0 px, letters")
        # Its letters are taken hold of and drawn a quarter round, then once more all the way round.
        self.drag(self.at(0), self.at(45), self.at(90))
        self.assertAlmostEqual(self.title()["along"]["offset"], 25, delta=1)
        turns = [self.at(angle) for angle in (180, 270, 360, 450)]
        self.drag(self.at(90), *turns)
        self.assertAlmostEqual(self.title()["along"]["offset"], 125, delta=2)
        grip = self.page.locator('#over [data-grip="along"][data-hand="rise"]')
        box = grip.bounding_box()
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        self.drag((x, y), (x + 30, y))
        scale = 1920 / self.page.locator("#canvas").bounding_box()["width"]
        self.assertAlmostEqual(self.title()["along"]["rise"], 30 * scale, delta=3)
        self.choose("t1.along.upright", "upright")
        self.type_value("t1.along.offset", "10")
        self.assertEqual(
            self.title()["along"],
            {"layer": "s1", "offset": 10, "rise": self.title()["along"]["rise"], "upright": True},
        )
        # A drag while keying sets a key where the playhead stands.
        self.page.locator("#keying").click()
        self.at_frame(0)
        self.type_value("t1.along.offset", "0")
        self.at_frame(40)
        self.drag(self.at(0, 60), self.at(45), self.at(90))
        keys = self.title()["along"]["offset"]["keys"]
        self.assertEqual([key["at"] for key in keys], [0, 40])
        self.assertAlmostEqual(keys[1]["value"], 25, delta=2)
        self.settled(card.get_by_label("Remove path").click)
        self.assertNotIn("along", self.title())
        self.assertEqual(self.title()["transform"]["position"], [960, 540, 0])

    def test_it_is_said(self):
        self.scene = self.open_scene(self.person, layers=self.titles())
        self.page.locator("#row-t1 [data-select-layer]").click()
        line = self.page.locator("#say-moves-text")
        line.click()
        self.page.keyboard.type("along “Orbit” at 40 %, upright")
        self.settled(lambda: self.page.keyboard.press("Enter"))
        self.assertEqual(self.title()["along"], {"layer": "s1", "offset": 40, "upright": True})
        self.page.keyboard.type("along “Sun”")
        self.page.keyboard.press("Enter")
        expect(self.page.locator("body")).to_contain_text("there is no shape “Sun”")

    def test_letters_that_are_not_selected_are_drawn_along_at_once_however_late_numbers_are(self):
        layers = self.titles()
        layers[1]["along"] = {"layer": "s1"}
        for delay in self.slowly((0, 700), layers=layers):
            self.page.locator("#row-t2 [data-select-layer]").click()
            self.page.evaluate("window.lateNumbers = ['/places/']")
            self.wait_for_picture()
            self.drag(self.at(0), self.at(45), self.at(90))
            self.kept()
            offset = self.title()["along"]["offset"]
            self.assertAlmostEqual(offset, 25, delta=1, msg=f"answers after {delay} ms")

    def test_without_its_shape_it_stands_straight(self):
        self.scene = self.open_scene(self.person, layers=self.titles())
        self.stand_along()
        self.page.locator("#row-s1 [data-select-layer]").click()
        self.settled(lambda: self.page.keyboard.press("Delete"))
        self.assertNotIn("along", self.title())
        self.assertEqual(self.title()["transform"]["position"], [960, 540, 0])
