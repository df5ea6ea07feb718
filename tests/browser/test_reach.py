"""Everything can be reached: axe finds no serious fault on any page in either theme, and the
keyboard does what the pointer does."""

from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import expect

from tests.core.scenes import scene_data

from .base import BrowserTest

SERIOUS = ("serious", "critical")


class AxeTest(BrowserTest):
    def check(self, where):
        """No serious fault on the page as it is, in paper and in evening."""
        for theme in ("paper", "evening"):
            self.page.evaluate(
                "theme => theme === 'evening' ? document.documentElement.dataset.theme = theme"
                " : delete document.documentElement.dataset.theme",
                theme,
            )
            found = Axe().run(self.page).response["violations"]
            told = [
                f"{fault['id']}: {node['html'][:160]} {node['failureSummary'][:200]}"
                for fault in found
                if fault["impact"] in SERIOUS
                for node in fault["nodes"]
            ]
            with self.subTest(where, theme=theme):
                self.assertEqual(told, [])

    def test_pages(self):
        person = self.sign_in()
        scene = self.open_scene(person, name="Opening")
        addresses = {
            "projects": "/",
            "renders": "/renders/",
            "new scene": f"/projects/{scene.project_id}/new-scene/",
        }
        for name, address in addresses.items():
            self.page.goto(f"{self.live_server_url}{address}")
            self.check(name)

    def test_signing_in(self):
        for address in ("/accounts/sign-in/", "/accounts/sign-up/"):
            self.page.goto(f"{self.live_server_url}{address}")
            self.check(address)

    def test_workbench(self):
        self.open_scene(self.sign_in(), name="Opening")
        self.page.locator("#cascade .bar").first.wait_for()
        self.check("cascade")
        self.page.locator("#more-m1 summary").click()
        self.page.locator("#more-t1 summary").click()
        self.check("more")
        self.page.get_by_role("tab", name="Keyframes").click()
        self.page.locator(".kbead").first.click()
        self.check("keyframes")
        self.page.get_by_role("tab", name="Curves").click()
        self.page.locator(".curve-bead").first.wait_for()
        self.check("curves")
        self.page.locator("#takes-menu summary").click()
        self.settled(self.page.locator("[data-take-keep]").click)
        self.check("takes")

    def test_what_opens_over_the_workbench(self):
        self.open_scene(self.sign_in(), name="Opening")
        self.page.keyboard.press("Control+k")
        self.check("palette")
        self.page.keyboard.press("Escape")
        self.page.get_by_role("button", name="History").click()
        self.page.locator(".past__row").first.wait_for()
        self.check("history")
        self.page.keyboard.press("Escape")
        self.page.locator("#open-gallery").click()
        self.check("gallery")

    def test_an_empty_scene(self):
        self.open_scene(self.sign_in(), layers=[])
        for view in ("Cascade", "Keyframes", "Curves"):
            self.page.get_by_role("tab", name=view).click()
            self.check(view)


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
