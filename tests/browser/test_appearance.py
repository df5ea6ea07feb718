"""Shapes, groups, effects and masks: put together and worn in the workbench."""

import numpy as np
from playwright.sync_api import expect

from tests.core.scenes import scene_data

from .base import BrowserTest


class DressTest(BrowserTest):
    def show(self, *layers):
        self.scene = self.open_scene(self.sign_in(), layers=list(layers))

    def title(self, **changes):
        return {**scene_data("Orbit")["layers"][0], "runs": [], "moves": [], **changes}

    def layers(self):
        return self.document(self.scene)["layers"]

    def wear(self, name):
        """Puts on an effect or mask from the list of what there is."""
        more = self.page.locator("[id^=wear-more]")
        if more.get_attribute("open") is None:
            more.locator("summary").click()
        self.settled(more.get_by_role("button", name=name, exact=True).click)

    def add_adjustment(self):
        self.page.locator("#add-more").click()
        self.settled(self.page.get_by_role("option", name="adjustment", exact=True).click)

    def test_a_shape_is_added_changed_and_drawn_on(self):
        self.show()
        self.page.get_by_role("button", name="Add a shape").click()
        option = self.page.get_by_role("option", name="arc").locator("visible=true")
        self.settled(option.click)
        self.assertEqual(self.layers()[0]["shape"], {"kind": "arc"})
        whole = self.picture()
        self.type_value("s1.stroke.to", "40")
        self.assertEqual(self.layers()[0]["stroke"]["to"], 40)
        self.assertNotEqual(self.picture(), whole)
        self.choose("s1.shape", "star")
        self.type_value("s1.shape.corners", "7")
        self.assertEqual(self.layers()[0]["shape"], {"kind": "star", "corners": 7})
        # Its line draws itself on: two keys, set while keying is on.
        self.page.locator("#keying").click()
        for frame, percent in ((0, 0), (30, 100)):
            self.at_frame(frame)
            self.type_value("s1.stroke.to", str(percent))
        keys = self.layers()[0]["stroke"]["to"]["keys"]
        self.assertEqual([(key["at"], key["value"]) for key in keys], [(0, 0), (30, 100)])
        self.page.get_by_role("tab", name="Keyframes").click()
        expect(self.page.locator('.krow[data-path="s1.stroke.to"] .kbead')).to_have_count(2)
        # Its sentence says what it is where the playhead stands.
        self.at_frame(15)
        expect(self.chip("s1.stroke.to")).to_have_text("50 %")

    def test_effects_are_worn_switched_off_and_ordered(self):
        self.show(self.title())
        plain = self.picture()
        self.wear("blur")
        self.type_value("t1.effects.0.x", "20")
        blurred = self.picture()
        self.assertNotEqual(blurred, plain)
        self.settled(self.page.get_by_role("switch", name="Blur is on").click)
        self.assertEqual(self.picture(), plain)
        self.settled(self.page.get_by_role("switch", name="Blur is on").click)
        self.assertEqual(self.picture(), blurred)
        self.wear("tint")
        self.settled(self.page.get_by_role("button", name="Earlier").click)
        self.assertEqual([e["kind"] for e in self.layers()[0]["effects"]], ["tint", "blur"])
        self.settled(self.page.get_by_role("button", name="Remove tint").click)
        self.assertEqual(self.picture(), blurred)

    def test_a_window_is_put_on_said_and_dragged_by_its_edges(self):
        self.show(self.title())
        self.wear("window")
        card = self.page.locator(".wear", has_text="is seen within")
        expect(card).to_contain_text("soft by 0 px on the left, 20 px above")
        self.choose("t1.window.of", "the title")
        self.type_value("t1.window.soft.3", "30")
        self.type_value("t1.window.grow.1", "5")
        window = self.layers()[0]["window"]
        self.assertEqual((window["of"], window["soft"][3], window["grow"][1]), ("title", 30, 5))
        lower = self.page.locator('[data-grip="window"][data-hand="grow"][data-number="3"]')
        box = lower.bounding_box()
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x, y + 20, steps=4)
        self.settled(self.page.mouse.up)
        grown = self.layers()[0]["window"]["grow"]
        self.assertEqual(grown[:3], [0, 5, 0])
        self.assertGreater(grown[3], window["grow"][3] + 10)
        self.settled(self.page.locator(".wear").get_by_label("Remove window").click)
        self.assertNotIn("window", self.layers()[0])

    def test_a_mask_cuts_the_title(self):
        self.show(self.title())
        self.wear("rectangle")
        self.type_value("t1.masks.0.size.0", "200")
        self.choose("t1.masks.0.invert", "outside")
        mask = self.layers()[0]["masks"][0]
        self.assertEqual((mask["size"][0], mask["invert"]), (200, True))

    def test_layers_are_grouped_moved_as_one_and_taken_apart(self):
        low = self.title(id="t2", text="Low", transform={"position": [960, 800, 0]})
        self.show(self.title(transform={"position": [960, 300, 0]}), low)
        self.page.locator("#row-t1 .trow__name").click(modifiers=["Shift"])
        expect(self.page.locator("#several b")).to_have_text("2 layers")
        self.settled(self.page.locator("#several").get_by_role("button", name="Group").click)
        self.assertEqual([layer.get("group") for layer in self.layers()], ["g1", "g1", None])
        expect(self.page.locator("#slab-g1")).to_contain_text("Stands")
        # Its pivot is the middle of what it holds.
        left, top = self.layers()[2]["transform"]["pivot"]
        self.assertAlmostEqual(left, 960, delta=1)
        self.assertTrue(450 < top < 620, top)
        self.type_value("g1.transform.rotation.2", "90")
        self.type_value("g1.transform.opacity", "50")
        # A layer in a turned group goes where the hand goes.
        self.page.locator("#row-t1 .trow__name").click()
        box = self.page.locator("polygon.is-picked[data-layer=t1]").bounding_box()
        scale = 1920 / self.page.locator("#canvas").bounding_box()["width"]
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] * 0.3
        self.page.keyboard.down("Control")
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + 40, y, steps=4)
        self.settled(self.page.mouse.up)
        self.page.keyboard.up("Control")
        after = self.page.locator("polygon.is-picked").bounding_box()
        self.assertAlmostEqual(after["x"] - box["x"], 40, delta=2)
        self.assertAlmostEqual(after["y"], box["y"], delta=2)
        place = self.layers()[0]["transform"]["position"]
        np.testing.assert_allclose(place, [960, 300 - 40 * scale, 0], atol=2 * scale)
        self.page.locator("#row-g1 .trow__name").click()
        self.page.locator("#more-g1 summary").click()
        self.settled(self.page.get_by_role("button", name="ungroup").click)
        self.assertEqual([layer.get("group") for layer in self.layers()], [None, None])

    def test_a_title_as_the_matte_of_an_adjusted_shape(self):
        bar = {
            "id": "s1",
            "kind": "shape",
            "span": [0, 90],
            "shape": {"kind": "rectangle", "size": [1920, 400]},
            "fill": "#F2B705",
            "stroke": None,
            "transform": {"position": [960, 540, 0]},
        }
        self.show(self.title(), bar)
        self.page.locator("#row-s1 .trow__name").click()
        expect(self.page.locator("#slab-s1")).to_contain_text("Stands")
        self.wear("matte")
        self.assertEqual(self.layers()[1]["matte"], {"layer": "t1"})
        expect(self.page.locator("#wear-s1matte")).to_contain_text("is opaque")
        self.add_adjustment()
        self.wear("hue and saturation")
        before = self.picture()
        self.type_value("a1.effects.0.turn", "120")
        self.assertNotEqual(self.picture(), before)

    def test_what_has_no_moves_says_so(self):
        self.show()
        self.add_adjustment()
        expect(self.page.locator("#moves")).to_contain_text("Adjustment layers have no moves")
        expect(self.page.locator("#cascade")).to_contain_text("What has moves")
        self.page.keyboard.press("Control+k")
        self.page.keyboard.type("add rise and")
        self.page.keyboard.press("Enter")
        expect(self.page.locator("#notices")).to_contain_text("nothing of this can move")
