"""Whole jobs done at once, without waiting for late answers; each is checked by its poses."""

import os
from typing import Any

import numpy as np
from playwright.sync_api import expect

from balletto.scene import files
from balletto.scene.values.tracks import value_at
from tests.core.amounts import IS_LONG
from tests.core.scenes import scene_data

from .late import LateTest

# In milliseconds. What is done with answers at once is in `test_jobs`; all that are to be tried:
# BALLETTO_DELAYS="0 600 1500" in the environment.
_USUAL = "600 1500" if IS_LONG else "1000"
JOB_DELAYS = tuple(int(word) for word in os.environ.get("BALLETTO_DELAYS", _USUAL).split())


class LateJobTest(LateTest):
    def title(self, **changes: Any) -> dict[str, Any]:
        return {**scene_data()["layers"][0], "moves": [], "runs": [], **changes}

    def course(self, layer: str, name: str) -> np.ndarray:
        """A keyed value of a layer's transform, frame by frame."""
        scene = files.from_data(self.document(self.scene))
        transform = next(each.transform for each in scene.layers if each.id == layer)
        return value_at(getattr(transform, name), np.arange(scene.length))

    def across(self, layer: str) -> np.ndarray:
        return np.array(self.poses(layer)["transform"]["position"])[:, 0]

    def add_shape(self, name: str, layer: str) -> None:
        """Adds a shape, and waits until its sentence is there: a hand goes by what it sees."""
        self.page.locator("#add-shape").click()
        self.page.get_by_role("option", name=name, exact=True).locator("visible=true").click()
        expect(self.page.locator(f"#place-{layer}")).to_be_visible(timeout=60_000)

    def pick(self, layer: str, *modifiers: Any) -> None:
        self.page.locator(f"#row-{layer} [data-select-layer]").click(modifiers=list(modifiers))
        expect(self.page.locator(f"#slab-{layer}")).to_have_class(
            "slab is-selected ", timeout=60_000
        )

    def test_two_names_behind_a_bar_and_a_curtain(self):
        names = [
            self.title(id="t1", text="Maren", transform={"position": [520, 160, 0]}),
            self.title(id="t2", text="ORRERY", transform={"position": [520, 290, 0]}),
        ]
        for _ in self.slowly(JOB_DELAYS, layers=names, size=[800, 450], rate="24", length=120):
            for name, place in (("t1", 520), ("t2", 540)):
                self.pick(name)
                self.type_on("type.size", "64")
                self.type_on(f"{name}.transform.position.0", f"1100 at 24, {place} at 48 soft both")
            self.add_shape("rectangle", "s1")
            self.type_on("s1.transform.position.0", "260")
            self.type_on("s1.transform.scale.1", "0 at 0, 100 at 24, 100 at 80, 0 at 100")
            self.add_shape("rectangle", "s2")
            self.type_on("s2.transform.opacity", "0 at 100, 100 at 120")
            self.kept()
            for name, place in (("t1", 520), ("t2", 540)):
                course = self.across(name)
                self.assertEqual((course[10], course[24], course[48]), (1100, 1100, place))
                self.assertAlmostEqual(course[36], (1100 + place) / 2)
                self.assertGreater(course[25], 1090, "a slow start")
            height = self.course("s1", "scale")[:, 1]
            self.assertEqual([height[n] for n in (0, 24, 80, 100)], [0, 1, 1, 0])
            curtain = self.course("s2", "opacity")
            self.assertEqual((curtain[100], round(curtain[110], 6)), (0, 0.5))

    def test_letters_bounce_on_a_typed_course(self):
        for _ in self.slowly(JOB_DELAYS, layers=[self.title()], length=90):
            self.page.locator("#open-gallery").click()
            gallery = self.page.locator("#gallery")
            gallery.get_by_role("button", name="Rise and fade").first.click()
            self.page.locator("#more-m1 summary").click(timeout=60_000)
            more = self.page.locator("#more-m1")
            more.get_by_role("button", name="without a length").click(timeout=60_000)
            move = "t1.moves.m1"
            course = "100 below at 0, 60 above at 5, 30 below at 10, home at 15 soft both"
            self.type_on(f"{move}.pose.y", course)
            self.type_on(f"{move}.pose.opacity", "0 at 0, 100 at 5")
            self.type_on(f"{move}.stagger.gap", "3")
            self.kept()
            said = self.poses("t1")["values"]
            heights, seen = np.array(said["y"]), np.array(said["opacity"])
            for letter in (0, 4):
                frames = [3 * letter + frame for frame in (0, 5, 10, 15, 40)]
                self.assertEqual([heights[n][letter] for n in frames], [100, -60, 30, 0, 0])
                self.assertEqual([seen[n][letter] for n in frames], [0, 1, 1, 1, 1])

    def test_a_title_comes_from_off_the_left_edge_and_its_way_is_bent(self):
        title = self.title(transform={"position": [1400, 900, 0]})
        across = "t1.transform.position.0"
        for _ in self.slowly(JOB_DELAYS, layers=[title], length=90):
            self.type_on(across, "-600 at 0, 1400 at 40 soft landing")
            self.type_on(across, "-600 at 0, 1400 at 24 soft landing")  # made faster by its end
            self.kept()
            place = np.array(self.poses("t1")["transform"]["position"])
            self.assertEqual((place[0][0], place[24][0]), (-600, 1400))
            self.assertEqual(set(place[:, 1]), {900}, "it comes exactly level")
            self.page.locator("#more-t1 summary").click()
            self.page.get_by_role("button", name="bend its way").click(timeout=60_000)
            self.kept()
            bent = np.array(self.poses("t1")["transform"]["position"])
            self.assertGreater(np.ptp(bent[:, 1]), 100)
            np.testing.assert_allclose(bent[24], place[24], atol=1e-6)

    def test_twelve_layers_are_spread_and_grow_together(self):
        layers = [
            self.title(id=f"t{n}", text=f"L{n}", transform={"position": [960, 80 * n, 0]})
            for n in range(1, 13)
        ]
        for _ in self.slowly(JOB_DELAYS, layers=layers, length=120):
            self.pick("t12")
            self.page.keyboard.press("Control+a")
            self.page.get_by_role("button", name="Spread in time").click()
            self.page.locator("#spread-span").fill("30")
            self.page.get_by_role("button", name="Spread", exact=True).click()
            self.type_on("t12.transform.scale.0", "0 at 0, 100 at 30")
            self.type_on("type.size", "80 to 25")
            layers = self.kept()
            starts = sorted(layer["span"][0] for layer in layers)
            self.assertEqual((starts[0], starts[-1], len(set(starts))), (0, 30, 12))
            sizes = [layer["style"]["size"] for layer in layers]
            self.assertEqual((sizes[-1], sizes[0]), (80, 25))
            for layer in ("t1", "t12"):
                grown = self.course(layer, "scale")[:, 0]
                self.assertEqual((grown[0], grown[30]), (0, 1))

    def test_half_circles_each_smaller_turn_together_under_a_tagline(self):
        for _ in self.slowly(JOB_DELAYS, layers=[self.title(text="First light")], length=90):
            self.page.locator("#open-gallery").click()
            gallery = self.page.locator("#gallery")
            gallery.get_by_role("button", name="Rise and fade").first.click()
            self.type_on("t1.moves.m1.stagger.gap", "1")
            self.add_shape("arc", "s1")
            self.page.locator("#picture").focus()
            for copy in range(2, 5):
                self.page.keyboard.press("Control+d")
                expect(self.page.locator(f"#place-s{copy}")).to_be_visible(timeout=60_000)
            self.page.locator("#row-s1 [data-select-layer]").click(modifiers=["Shift"])
            expect(self.page.locator("#several b")).to_have_text("4 layers", timeout=60_000)
            self.type_on("s4.transform.scale.0", "100 to 25")
            self.type_on("s4.transform.rotation.2", "0 at 0, 180 at 60 soft both")
            shapes = [layer for layer in self.kept() if layer["kind"] == "shape"]
            self.assertEqual(len(shapes), 4)
            widths = sorted(shape["transform"]["scale"][0] for shape in shapes)
            np.testing.assert_allclose(widths, [0.25, 0.5, 0.75, 1], atol=1e-6)
            for shape in shapes:
                turned = self.course(shape["id"], "rotation")[:, 2]
                self.assertEqual((turned[0], turned[60]), (0, 180))
