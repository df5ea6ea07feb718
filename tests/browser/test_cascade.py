"""Hands in the cascade: what is dragged there is what the scene says after."""

from itertools import pairwise

from playwright.sync_api import expect

from .base import BrowserTest


class CascadeTest(BrowserTest):
    def setUp(self):
        super().setUp()
        self.scene = self.open_scene(self.sign_in(), name="Opening")
        self.page.locator("#cascade .bar").first.wait_for()

    @property
    def move(self):
        return self.document(self.scene)["layers"][0]["moves"][0]

    def delays(self):
        return self.poses()["moves"]["m1"]["delays"]

    def drag(self, target, frames, at=0.5, settle=True):
        """Drags something in the cascade sideways by frames of the scene."""
        box = target.bounding_box()
        lane = self.page.locator("#ruler").bounding_box()["width"]
        x, y = box["x"] + box["width"] * at, box["y"] + box["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + frames * lane / 90, y, steps=6)
        if settle:
            self.settled(self.page.mouse.up)

    def bar(self, index):
        return self.page.locator("#cascade .crow .bar").nth(index)

    def test_the_slanted_line_is_pulled_to_another_gap(self):
        """Rise with a two-frame gap, from the centre out: pulled to three."""
        self.choose("t1.moves.m1.stagger.order", "from the centre out")
        delays = self.delays()
        self.assertEqual(delays, [2.0 * abs(unit - 6) for unit in range(13)])
        grip = self.page.locator(".guide__grip--gap")
        self.drag(grip, 6, settle=False)
        expect(self.page.locator("#hand-said")).to_have_text("every 3 frames")
        expect(self.chip("t1.moves.m1.stagger.gap")).to_have_text("3 frames")
        self.assertEqual(self.move["stagger"]["gap"], 2)  # nothing is kept yet
        self.settled(self.page.mouse.up)
        self.assertEqual(self.delays(), [3.0 * abs(unit - 6) for unit in range(13)])
        self.scene.refresh_from_db()
        self.assertEqual(self.scene.head, 3)  # the order, and one for the whole drag
        # One frame is said as one, while it is scrubbed and once it is kept.
        self.drag(self.page.locator(".guide__grip--gap"), -12, settle=False)
        expect(self.page.locator("#hand-said")).to_have_text("every 1 frame")
        expect(self.chip("t1.moves.m1.stagger.gap")).to_have_text("1 frame")
        self.settled(self.page.mouse.up)
        expect(self.chip("t1.moves.m1.stagger.gap")).to_have_text("1 frame")

    def test_a_line_that_leads_past_the_scene_can_still_be_pulled(self):
        """Its grip stood out of reach."""
        self.type_value("t1.moves.m1.stagger.gap", "12")
        grip, ruler = self.page.locator(".guide__grip--gap"), self.page.locator("#ruler")
        right = ruler.bounding_box()["x"] + ruler.bounding_box()["width"]
        self.assertLessEqual(grip.bounding_box()["x"], right)
        # Of the eighth letter, at frame 84: 42 frames back are six a letter.
        self.drag(grip, -42)
        self.assertEqual(self.delays()[-1], 6.0 * 12)

    def test_the_line_is_bent_so_that_the_first_letters_are_bunched(self):
        self.drag(self.page.locator(".guide__grip--bend"), -6)
        delays = self.delays()
        self.assertAlmostEqual(delays[6], 6, delta=0.1)
        self.assertEqual((delays[0], delays[12]), (0, 24))
        gaps = [later - earlier for earlier, later in pairwise(delays)]
        self.assertLess(max(gaps[:4]), min(gaps[8:]))

    def test_one_bar_gives_its_unit_a_time_of_its_own(self):
        self.drag(self.bar(4), 10, at=0.3)
        expected = [2.0 * unit for unit in range(13)]
        expected[4] += 10
        self.assertEqual(self.delays(), expected)

    def test_the_end_of_the_bars_is_their_length(self):
        self.drag(self.bar(2), 10, at=0.985)
        self.assertEqual(self.move["amount"]["keys"][1]["at"], 30)
        expect(self.chip("t1.moves.m1.amount.keys.1.at")).to_have_text("30 frames")

    def test_the_bar_of_a_move_is_its_start(self):
        self.drag(self.page.locator("[data-move-span=m1]"), 12)
        self.assertEqual(self.move["start"], 12)
        expect(self.chip("t1.moves.m1.start")).to_have_text("frame 12")

    def test_a_layer_is_moved_in_time_and_trimmed(self):
        bar = self.page.locator("[data-span]")
        self.drag(bar, 15)
        title = self.document(self.scene)["layers"][0]
        self.assertEqual((title["span"], title["moves"][0]["start"]), ([15, 105], 15))
        self.settled(lambda: self.page.keyboard.press("Control+z"))
        self.drag(bar, -20, at=0.999)
        title = self.document(self.scene)["layers"][0]
        self.assertEqual((title["span"], title["moves"][0]["start"]), ([0, 70], 0))
        expect(self.page.locator("#stage-frame")).to_have_text("60")

    def test_escape_gives_a_drag_up(self):
        self.drag(self.bar(4), 10, at=0.3, settle=False)
        self.page.keyboard.press("Escape")
        self.page.mouse.up()
        self.wait_for_picture()
        self.scene.refresh_from_db()
        self.assertEqual(self.scene.head, 1)

    def test_layers_are_duplicated_hidden_and_put_in_order(self):
        before = self.picture()
        self.settled(lambda: self.page.keyboard.press("Control+d"))
        layers = self.document(self.scene)["layers"]
        self.assertEqual([layer["id"] for layer in layers], ["t1", "t2"])
        expect(self.page.locator("#slab-t2")).to_have_class("slab is-selected ")
        eye = self.page.get_by_role("switch", name="is shown").first
        self.settled(eye.click)
        self.assertEqual(self.picture(), before)
        back = self.page.get_by_role("button", name="Back", exact=True)
        self.settled(back.click)
        layers = self.document(self.scene)["layers"]
        self.assertEqual([layer["id"] for layer in layers], ["t2", "t1"])

    def test_comma_and_full_stop_go_from_key_to_key(self):
        self.at_frame(50)
        self.page.locator("body").press(",")
        expect(self.page.locator("#stage-frame")).to_have_text("20")
        self.page.locator("body").press(",")
        expect(self.page.locator("#stage-frame")).to_have_text("0")
        self.page.locator("body").press(".")
        expect(self.page.locator("#stage-frame")).to_have_text("20")
