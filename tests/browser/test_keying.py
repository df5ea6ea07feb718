"""Keyframes by one rule: with Keying on, any change of any value that can have one sets one at the
playhead; the bead and K do it without a change."""

from playwright.sync_api import expect

from .base import BrowserTest

POSE = "t1.moves.m1.pose.y"
OPACITY = "t1.transform.opacity"


class KeyingTest(BrowserTest):
    def setUp(self):
        super().setUp()
        self.person = self.sign_in()
        self.scene = self.open_scene(self.person, name="Opening")

    def layer(self, index=0):
        return self.document(self.scene)["layers"][index]

    def keying(self):
        self.page.locator("#keying").click()

    def keys(self, *way):
        value = self.layer()
        for part in way:
            value = value[part]
        return [(key["at"], key["value"]) for key in value["keys"]]

    def test_what_is_typed_scrubbed_dragged_or_stays_the_same_is_keyed(self):
        self.keying()
        self.at_frame(10)
        self.type_value(OPACITY, "50")
        self.at_frame(20)
        self.chip(OPACITY).click()
        self.settled(lambda: self.page.keyboard.press("Enter"))  # unchanged: a hold
        self.at_frame(30)
        self.scrub(OPACITY, 20)
        keys = self.keys("transform", "opacity")
        self.assertEqual([at for at, _ in keys], [10, 20, 30])
        self.assertEqual([value for _, value in keys[:2]], [0.5, 0.5])
        self.page.locator("#picture").focus()
        self.settled(lambda: self.page.keyboard.press("ArrowRight"))
        self.assertEqual(self.keys("transform", "position"), [(30, [961, 540, 0])])

    def test_a_keyed_value_of_a_move_gets_a_new_key_at_the_playhead(self):
        self.keying()
        for frame, value in ((0, "100 below"), (8, "40 above"), (16, "0")):
            self.at_frame(frame)
            self.type_value(POSE, value)
        self.assertEqual(self.keys("moves", 0, "pose", "y"), [(0, 100), (8, -40), (16, 0)])
        self.at_frame(4)
        expect(self.chip(POSE)).to_have_text("30 px below")
        self.page.locator(f'[data-fold="fold-{POSE}"]').click()
        expect(self.chip(f"{POSE}.keys.1.value")).to_have_text("40 px above")
        self.type_value(f"{POSE}.keys.1.value", "60 above")
        self.assertEqual(self.keys("moves", 0, "pose", "y"), [(0, 100), (8, -60), (16, 0)])

    def test_k_right_after_a_click_and_h_hold(self):
        self.at_frame(5)
        self.chip(OPACITY).click()
        self.settled(lambda: self.page.keyboard.press("k"))
        self.assertEqual(self.keys("transform", "opacity"), [(5, 1)])
        self.at_frame(15)
        self.type_value(OPACITY, "20")
        self.at_frame(25)
        self.chip(OPACITY).focus()
        self.settled(lambda: self.page.keyboard.press("h"))
        self.assertEqual(self.keys("transform", "opacity"), [(5, 1), (15, 0.2), (25, 0.2)])

    def test_values_at_their_default_are_keyed(self):
        self.page.locator("#add-shape").click()
        star = self.page.get_by_role("option", name="star", exact=True)
        self.settled(star.click)
        self.at_frame(7)
        self.chip("s1.shape.outer").click()
        self.settled(lambda: self.page.keyboard.press("k"))
        self.assertEqual(self.layer(1)["shape"]["outer"], {"keys": [{"at": 7, "value": 150}]})

    def test_the_bead_sets_a_key_and_takes_it_away(self):
        self.at_frame(12)
        self.chip(OPACITY).hover()
        bead = self.page.locator("#key-bead")
        expect(bead).to_be_visible()
        self.settled(bead.click)
        self.assertEqual(self.keys("transform", "opacity"), [(12, 1)])
        expect(self.page.locator(".notice")).to_have_count(0)  # nor does it mean anything else
        self.chip(OPACITY).hover()
        expect(bead).to_have_class("key-bead is-set")
        self.settled(bead.click)
        self.assertEqual(self.layer()["transform"]["opacity"], 1)

    def test_what_cannot_be_keyed_says_why(self):
        self.chip("type.size").focus()
        self.page.keyboard.press("k")
        expect(self.page.locator(".notice")).to_contain_text("takes no keyframes")
        self.page.locator("#picture").focus()
        self.page.keyboard.press("h")
        expect(self.page.locator(".notice")).to_contain_text("H then holds it to the playhead")

    def test_a_course_is_typed_where_a_track_may_stand(self):
        self.type_value(POSE, "100 at 0, 60 above at 5, home at 15 soft both")
        keys = self.layer()["moves"][0]["pose"]["y"]["keys"]
        self.assertEqual([(key["at"], key["value"]) for key in keys], [(0, 100), (5, -60), (15, 0)])
        self.assertEqual([key.get("ease") for key in keys], ["soft-both", "soft-both", None])
