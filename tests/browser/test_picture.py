"""The picture touched: what hands do there is what the scene says after."""

import base64
import io
import math

import numpy as np
from PIL import Image
from playwright.sync_api import expect

from tests.core.scenes import scene_data

from .base import BrowserTest

PLACE = "t1.transform.position"


def title(**changes):
    made = {**scene_data("Orbit")["layers"][0], "moves": [], "runs": []}
    return {**made, **changes}


class PictureTest(BrowserTest):
    def show(self, *layers, **changes):
        self.scene = self.open_scene(self.sign_in(), layers=list(layers), **changes)
        self.page.locator("#over .grip--turn").wait_for()
        width = self.page.locator("#canvas").bounding_box()["width"]
        self.scale = 1920 / width

    def layer(self, number=0):
        return self.document(self.scene)["layers"][number]

    def middle(self, selector, number=0):
        box = self.page.locator(selector).nth(number).bounding_box()
        return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2

    def pixels(self):
        """The canvas as numbers from 0 to 255."""
        data = base64.b64decode(self.picture().partition(",")[2])
        return np.asarray(Image.open(io.BytesIO(data)).convert("RGBA")).astype(float)

    def drag(self, start, end, settle=True, steps=6):
        self.page.mouse.move(*start)
        self.page.mouse.down()
        self.page.mouse.move(*end, steps=steps)
        if settle:
            self.settled(self.page.mouse.up)

    def test_a_corner_scales_about_the_pivot(self):
        self.show(title())
        corner, pivot = self.middle(".grip--scale", 2), self.middle(".grip--pivot")
        away = np.subtract(corner, pivot)
        self.drag(corner, tuple(np.add(pivot, away * 1.5)))
        np.testing.assert_allclose(self.layer()["transform"]["scale"], [1.5, 1.5], atol=0.02)

    def test_a_side_stretches_one_axis(self):
        self.show(title())
        side, pivot = self.middle(".grip--stretch", 1), self.middle(".grip--pivot")
        half = side[0] - pivot[0]
        self.drag(side, (side[0] + half / 2, side[1] + 30))
        np.testing.assert_allclose(self.layer()["transform"]["scale"], [1.5, 1], atol=0.03)

    def test_the_knob_turns_in_steps_with_shift(self):
        self.show(title())
        knob, pivot = self.middle(".grip--turn"), self.middle(".grip--pivot")
        radius = math.dist(knob, pivot)
        angle = math.radians(-90 + 44)
        end = (pivot[0] + radius * math.cos(angle), pivot[1] + radius * math.sin(angle))
        self.page.keyboard.down("Shift")
        self.drag(knob, end)
        self.page.keyboard.up("Shift")
        self.assertEqual(self.layer()["transform"]["rotation"], [0, 0, 45])

    def test_the_pivot_is_moved_and_nothing_else(self):
        self.show(title(transform={"position": [960, 540, 0], "rotation": [0, 0, 30]}))
        before = self.pixels()
        box = self.page.locator(".grip-ring").bounding_box()
        ring = (box["x"] + box["width"] / 2, box["y"] + 4.5)
        self.drag(ring, self.middle(".grip--scale", 0))
        transform = self.layer()["transform"]
        self.assertLess(transform["pivot"][0], -100)
        # Places are kept to a thousandth of a px, which edges may show by a little.
        self.assertLess(np.abs(self.pixels() - before).mean(), 0.1)
        self.type_value("t1.transform.rotation.2", "0")
        self.assertNotEqual(self.layer()["transform"]["position"], [960, 540, 0])

    def test_keying_makes_keys_where_the_title_is_dragged(self):
        self.show(title())
        self.page.locator("#keying").click()
        for frame, down in ((10, 80), (40, -60)):
            self.at_frame(frame)
            start = self.middle("polygon.is-picked")
            self.page.keyboard.down("Control")
            self.drag(start, (start[0], start[1] + down))
            self.page.keyboard.up("Control")
        keys = self.layer()["transform"]["position"]["keys"]
        self.assertEqual([key["at"] for key in keys], [10, 40])
        self.assertAlmostEqual(keys[0]["value"][1], 540 + 80 * self.scale, delta=2)
        self.assertAlmostEqual(keys[1]["value"][1], 540 + 20 * self.scale, delta=3)
        # Its way shows, a bead for each key and a dot for each frame.
        expect(self.page.locator("#over circle.bead")).to_have_count(2)
        expect(self.page.locator("#over .path__dot")).to_have_count(31)

    def test_the_way_is_bent_and_its_beads_are_moved(self):
        keys = [{"at": 0, "value": [400, 300, 0]}, {"at": 30, "value": [1500, 700, 0]}]
        self.show(title(transform={"position": {"keys": keys}}))
        self.at_frame(60)
        bead = self.middle("#over circle.bead", 0)
        self.page.keyboard.down("Alt")
        self.drag(bead, (bead[0] + 40, bead[1] - 60))
        self.page.keyboard.up("Alt")
        first = self.layer()["transform"]["position"]["keys"][0]
        np.testing.assert_allclose(
            first["out"], [40 * self.scale, -60 * self.scale], atol=2 * self.scale
        )
        self.drag(bead, (bead[0] + 30, bead[1]))
        first = self.layer()["transform"]["position"]["keys"][0]
        self.assertAlmostEqual(first["value"][0], 400 + 30 * self.scale, delta=2)

    def test_a_sweep_is_dragged_on_the_letters(self):
        sweep = {"kind": "sweep", "low": 0, "high": 40, "travel": 0}
        move = {"id": "m1", "name": "Lift", "pose": {"y": -40}, "reach": [sweep]}
        self.show(title(moves=[move]))
        box = self.page.locator("polygon.is-picked").bounding_box()
        front = self.middle("#over .edge__grip", 1)
        self.drag(front, (front[0] + box["width"] * 0.2, front[1]))
        high = self.layer()["moves"][0]["reach"][0]["high"]
        self.assertAlmostEqual(high, 60, delta=1.5)
        band = self.page.locator("#over .wedge").bounding_box()
        start = (band["x"] + band["width"] / 2, band["y"] + band["height"] * 0.7)
        self.drag(start, (start[0] + box["width"] * 0.1, start[1]))
        self.assertAlmostEqual(self.layer()["moves"][0]["reach"][0]["travel"], 10, delta=1.5)

    def test_copies_are_dragged_by_their_ring_and_their_step(self):
        shape = {
            "kind": "shape", "id": "s1", "span": [0, 90], "fill": "#FF0000", "stroke": None,
            "shape": {"kind": "rectangle", "size": [20, 60]},
            "transform": {"position": [960, 540, 0]},
            "formation": {"kind": "ring", "count": 8, "radius": 300, "sweep": 180},
        }  # fmt: skip
        self.scene = self.open_scene(self.sign_in("cy"), layers=[shape])

        def drag(name, across, down):
            return self.drag_grip("copies", name, across, down)["formation"]

        self.assertAlmostEqual(drag("radius", 100, 0)["radius"], 400, delta=4)
        # From below over the left side to the top of it, and on.
        self.assertAlmostEqual(drag("sweep", -400, -400)["sweep"], 270, delta=3)
        self.assertAlmostEqual(drag("first", 400, 400)["first"], 90, delta=3)
        row = {"kind": "line", "count": 3, "step": [200, 0]}
        self.settled(lambda: self.edit_formation(row))
        self.page.wait_for_timeout(300)
        moved = drag("step", 50, 80)["step"]
        self.assertAlmostEqual(moved[0], 250, delta=3)
        self.assertAlmostEqual(moved[1], 80, delta=3)

    def drag_grip(self, part, name, across, down):
        """The layer once a grip was dragged so many px of the picture."""
        px = self.page.locator("#canvas").bounding_box()["width"] / 1920
        box = self.page.locator(f'[data-grip="{part}"][data-hand="{name}"]').bounding_box()
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        for step in range(1, 5):
            self.page.mouse.move(x + across * px * step / 4, y + down * px * step / 4)
        self.settled(self.page.mouse.up)
        return self.document(self.scene)["layers"][0]

    def test_a_flurry_is_dragged_by_its_fan(self):
        flurry = {
            "kind": "flurry", "id": "f1", "span": [0, 90],
            "flurry": {
                "source": [{"shape": {"kind": "ellipse", "size": [18, 18]}}], "count": 12,
                "speed": 1000, "spread": 60, "place": {"kind": "ring", "radius": 100},
            },
            "transform": {"position": [960, 540, 0]},
        }  # fmt: skip
        self.scene = self.open_scene(self.sign_in("cy"), layers=[flurry])
        expect(self.page.locator(".flown")).to_have_count(9)

        def drag(name, across, down):
            return self.drag_grip("flurry", name, across, down)["flurry"]

        # The fan reaches as far as pieces come in a quarter of a second: 250 px.
        self.assertAlmostEqual(drag("direction", 250, 250)["direction"], 90, delta=2)
        self.assertAlmostEqual(drag("spread", -216.5, 125)["spread"], 180, delta=4)
        # Speed is dragged half-way between the direction and the one edge: here 45 degrees up.
        faster = 250 / 2**0.5
        self.assertAlmostEqual(drag("speed", faster, -faster)["speed"], 2000, delta=40)
        self.assertAlmostEqual(drag("place.radius", 60, 0)["place"]["radius"], 160, delta=3)

    def edit_formation(self, formation):
        """Says it, as a hand would."""
        self.page.locator("#say-moves-text").click()
        count, (x, y) = formation["count"], formation["step"]
        text = f"{count} copies in a row, each {x} px by {y} px from the one before"
        self.page.keyboard.type(text)
        self.page.keyboard.press("Enter")

    def test_a_spot_is_dragged_by_its_middle_and_rim(self):
        spot = {"kind": "spot", "shape": "round", "center": [700, 540], "inner": 0, "outer": 300}
        move = {"id": "m1", "name": "Lift", "pose": {"y": -40}, "reach": [spot]}
        self.show(title(moves=[move]))
        center = self.middle("#over [data-spot=center]")
        self.drag(center, (center[0] + 20, center[1] - 30))
        found = self.layer()["moves"][0]["reach"][0]
        wanted = [700 + 20 * self.scale, 540 - 30 * self.scale]
        np.testing.assert_allclose(found["center"], wanted, atol=2)
        rim = self.middle("#over [data-spot=outer]")
        self.drag(rim, (rim[0] + 40, rim[1]))
        outer = self.layer()["moves"][0]["reach"][0]["outer"]
        self.assertAlmostEqual(outer, 300 + 40 * self.scale, delta=3)

    def test_several_layers_are_picked_by_a_box_moved_and_aligned(self):
        low = title(id="t2", text="Low", transform={"position": [500, 800, 0]})
        self.show(title(transform={"position": [700, 300, 0]}), low)
        picture = self.page.locator("#canvas").bounding_box()
        self.page.mouse.move(picture["x"] + 4, picture["y"] + 4)
        self.page.mouse.down()
        corner = (picture["x"] + picture["width"] - 8, picture["y"] + picture["height"] - 8)
        self.page.mouse.move(*corner, steps=4)
        self.page.mouse.up()
        expect(self.page.locator("#several b")).to_have_text("2 layers")
        self.page.locator("#picture").focus()
        self.settled(lambda: self.page.keyboard.press("Shift+ArrowRight"))
        places = [self.layer(n)["transform"]["position"][0] for n in (0, 1)]
        self.assertEqual(places, [710, 510])
        self.settled(self.page.locator("#several [data-align=left]").click)
        boxes = [self.page.locator("#over polygon").nth(n).bounding_box()["x"] for n in (0, 1)]
        self.assertAlmostEqual(*boxes, delta=1)
        self.scene.refresh_from_db()
        self.assertEqual(self.scene.head, 3)

    def test_words_are_typed_in_the_picture(self):
        self.show(title(text="Orbit"))
        box = self.page.locator("polygon.is-picked").bounding_box()
        self.page.mouse.dblclick(box["x"] + box["width"] * 0.1, box["y"] + box["height"] * 0.3)
        expect(self.page.locator("#over .caret")).to_have_count(1)
        self.page.keyboard.type("Re")
        self.settled(lambda: self.page.keyboard.press("Escape"))
        self.assertEqual(self.layer()["text"], "ReOrbit")
        expect(self.page.locator("#over .caret")).to_have_count(0)

    def test_nearer_and_beyond_the_frame(self):
        self.show(title(transform={"position": [960, -400, 0]}))
        # Above the frame: going farther brings it into reach.
        for _ in range(4):
            self.page.keyboard.press("-")
        start = self.middle("polygon.is-picked")
        scale = 1920 / self.page.locator("#canvas").bounding_box()["width"]
        self.page.keyboard.down("Control")
        self.drag(start, (start[0], start[1] + 100))
        self.page.keyboard.up("Control")
        down = self.layer()["transform"]["position"][1]
        self.assertAlmostEqual(down, -400 + 100 * scale, delta=2 * scale)
        self.page.keyboard.press("0")
        expect(self.page.locator("#zoom-said")).to_contain_text("Fit")

    def test_a_locked_layer_stays(self):
        self.show(title())
        self.settled(self.page.get_by_role("switch", name="Locked").click)
        expect(self.page.locator("#over .grip--scale")).to_have_count(0)
        start = self.middle("polygon.is-picked")
        self.drag(start, (start[0] + 60, start[1] + 60), settle=False)
        self.page.mouse.up()
        self.page.keyboard.press("Delete")
        expect(self.page.locator("#notices")).to_contain_text("is locked: unlock it")
        self.assertEqual(self.layer()["transform"]["position"], title()["transform"]["position"])
