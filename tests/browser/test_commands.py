"""Finding commands, the history, and the evening theme."""

from playwright.sync_api import expect

from .base import BrowserTest


class CommandsTest(BrowserTest):
    def setUp(self):
        super().setUp()
        self.scene = self.open_scene(self.sign_in(), name="Opening")

    def test_any_command_is_found_by_its_name(self):
        palette = self.page.locator("#palette")
        self.page.keyboard.press("Control+k")
        expect(palette).to_be_visible()
        self.page.keyboard.type("move is by wo")
        expect(palette.get_by_role("option")).to_have_count(1)
        self.settled(lambda: self.page.keyboard.press("Enter"))
        expect(palette).to_be_hidden()
        self.assertEqual(self.document(self.scene)["layers"][0]["moves"][0]["unit"], "word")
        self.page.keyboard.press("Control+k")
        self.page.keyboard.type("add centre held")
        self.settled(lambda: self.page.keyboard.press("Enter"))
        self.assertTrue(self.document(self.scene)["layers"][0]["hold_center"])

    def test_a_question_mark_lists_all_with_their_keys(self):
        self.page.locator("body").press("?")
        palette = self.page.locator("#palette")
        for name, keys in (("Play or pause", "Space"), ("Undo", "Ctrl Z"), ("Type a time", "G")):
            row = palette.get_by_role("option", name=name)
            expect(row).to_contain_text(keys)
        self.page.keyboard.type("no such thing")
        expect(palette).to_contain_text("Nothing is called that")
        self.page.keyboard.press("Escape")
        expect(palette).to_be_hidden()

    def test_in_an_empty_scene_the_next_step_is_said(self):
        self.settled(self.page.get_by_role("button", name="Remove Title").click)
        for words in ("add rise and", "duplicate", "add a move"):
            self.page.keyboard.press("Control+k")
            self.page.keyboard.type(words)
            self.page.keyboard.press("Enter")
            expect(self.page.locator("#notices")).to_contain_text("add a title first")
            self.page.locator(".notice__close").click()

    def test_back_to_any_state_and_back_again(self):
        for gap in (3, 4, 5):
            self.type_value("t1.moves.m1.stagger.gap", str(gap))
        self.page.locator("[data-open-history]").click()
        rows = self.page.locator(".past__row")
        expect(rows).to_have_count(4)
        expect(rows.first).to_contain_text("Gap of “Rise”: 4 to 5")
        expect(rows.first).to_contain_text("ada")
        self.settled(self.page.get_by_role("button", name="Back to 2:").click)
        gap = self.document(self.scene)["layers"][0]["moves"][0]["stagger"]["gap"]
        self.assertEqual(gap, 3)
        self.settled(lambda: self.page.keyboard.press("Control+z"))
        gap = self.document(self.scene)["layers"][0]["moves"][0]["stagger"]["gap"]
        self.assertEqual(gap, 5)

    def test_the_evening_theme_stays_from_page_to_page(self):
        ground = "getComputedStyle(document.body).backgroundColor"
        paper = self.page.evaluate(ground)
        self.page.get_by_role("button", name="Evening theme").click()
        evening = self.page.evaluate(ground)
        self.assertNotEqual(paper, evening)
        self.page.goto(f"{self.live_server_url}/")
        self.assertEqual(self.page.evaluate(ground), evening)
        self.page.get_by_role("button", name="Evening theme").click()
        self.assertEqual(self.page.evaluate(ground), paper)

    def test_three_steps_stand_beside_a_first_scene_until_a_key_dismisses_them(self):
        self.page.goto(f"{self.page.url}?first")
        self.wait_for_picture()
        steps = self.page.locator("#first-steps")
        expect(steps).to_be_visible()
        steps.get_by_role("button", name="Say how they move").click()
        expect(self.page.locator("#say-moves-text")).to_be_focused()
        self.page.keyboard.press("Escape")
        expect(steps).to_have_count(0)
        self.page.reload()
        self.wait_for_picture()
        expect(steps).to_have_count(0)

    def test_what_is_tried_of_the_guide_stands_in_the_line(self):
        self.page.goto(self.page.url.split("/scenes/")[0] + "/guide/?find=fade in and out")
        self.page.locator('a[aria-label="Try “words pop in one by one”"]').click()
        self.wait_for_picture()
        line = self.page.locator("#say-moves-text")
        expect(line).to_have_value("words pop in one by one")
        expect(self.page.locator("#say-moves-told")).to_contain_text("Each word starts 0 %")
        line.fill("how do I make it loop?")
        expect(self.page.locator("#say-moves-told")).to_contain_text("Say it of the selected move")
        self.page.keyboard.press("Enter")
        expect(line).to_have_value("loop it ")
