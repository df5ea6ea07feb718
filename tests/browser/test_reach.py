"""The keyboard does what the pointer does. What axe finds, and Tab reaches: test_access_for_all."""

from playwright.sync_api import expect

from tests.core.scenes import scene_data

from .base import BrowserTest


class KeyboardTest(BrowserTest):
    def test_keyframes_by_keyboard_alone(self):
        scene = self.open_scene(self.sign_in())
        page = self.page
        page.get_by_role("tab", name="Cascade").focus()
        page.keyboard.press("ArrowRight")
        expect(page.get_by_role("tab", name="Keyframes")).to_have_attribute("aria-selected", "true")
        page.locator(".kbead").nth(1).focus()
        page.keyboard.press("Enter")
        expect(page.locator("#keys-said")).to_have_text("1 keyframe, frame 20")
        page.keyboard.press("ArrowRight")
        self.settled(lambda: page.keyboard.press("Shift+ArrowRight"))
        amount = self.document(scene)["layers"][0]["moves"][0]["amount"]
        self.assertEqual([key["at"] for key in amount["keys"]], [0, 31])
        expect(page.locator(".kbead").nth(1)).to_be_focused()
        self.settled(lambda: page.keyboard.press("Delete"))
        amount = self.document(scene)["layers"][0]["moves"][0]["amount"]
        self.assertEqual([key["at"] for key in amount["keys"]], [0])

    def test_a_title_is_nudged_by_arrow_keys_in_the_picture(self):
        scene = self.open_scene(self.sign_in())
        self.page.locator("#picture").focus()
        self.page.keyboard.press("ArrowRight")
        self.page.keyboard.press("ArrowRight")
        self.settled(lambda: self.page.keyboard.press("Shift+ArrowUp"))
        title = self.document(scene)["layers"][0]
        self.assertEqual(title["transform"]["position"], [962, 530, 0])
        scene.refresh_from_db()
        self.assertEqual(scene.head, 2)

    def test_every_control_has_a_name(self):
        """What takes the focus says what it is."""
        self.open_scene(self.sign_in())
        nameless = self.page.evaluate(
            """() => [...document.querySelectorAll('button, input, textarea, [tabindex="0"]')]
              .filter((each) => each.checkVisibility())
              .filter((each) => !(each.ariaLabel || each.textContent.trim() || each.title
                || each.labels?.length || each.placeholder || each.getAttribute('aria-label')))
              .map((each) => each.outerHTML.slice(0, 120))"""
        )
        self.assertEqual(nameless, [])

    def test_the_palette_does_all_that_keys_do(self):
        scene = self.open_scene(self.sign_in(), layers=[scene_data()["layers"][0]])
        self.page.keyboard.press("?")
        expect(self.page.locator("#palette-list li").nth(40)).to_be_attached()
        self.page.locator("#palette-field").fill("split")
        self.settled(lambda: self.page.keyboard.press("Enter"))
        spans = [layer["span"] for layer in self.document(scene)["layers"]]
        self.assertEqual(spans, [[0, 60], [60, 90]])
