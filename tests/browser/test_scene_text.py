"""The scene as a text on the page: typed in, looked at, kept as one edit, whatever answers do."""

from playwright.sync_api import expect

from .late import NOT_AT_ALL, LateTest


class SceneTextTest(LateTest):
    def setUp(self):
        super().setUp()
        self.field = self.page.locator("#scene-text-field")
        self.told = self.page.locator("#scene-text-told")

    def open_text(self):
        self.page.locator("#scene-menu summary").click()
        self.page.get_by_role("button", name="The scene as text").click()
        expect(self.field).to_be_focused()
        self.text = self.field.input_value()

    def fill(self):
        return self.document(self.scene)["layers"][0]["style"]["fill"]

    def red(self):
        return self.text.replace("coloured #FFFFFF", "coloured #FF0000")

    def test_what_is_typed_is_looked_at_and_kept_as_one_edit(self):
        self.at_frame(60)
        before = self.picture()
        self.open_text()
        self.field.fill(self.red())
        expect(self.told).to_have_text("It says a scene of 1 layer.")
        self.page.wait_for_function(
            "(before) => document.getElementById('canvas').toDataURL() !== before", arg=before
        )
        self.assertEqual(self.fill(), "#FFFFFF")
        self.settled(lambda: self.page.keyboard.press("Control+Enter"))
        expect(self.field).to_be_hidden()
        self.assertEqual(self.fill(), "#FF0000")
        self.settled(lambda: self.page.keyboard.press("Control+z"))
        self.assertEqual(self.fill(), "#FFFFFF")

    def test_what_is_wrong_is_told_with_its_line_and_stays(self):
        self.open_text()
        wrong = f"{self.text}\nletters go nowhere at all"
        self.field.fill(wrong)
        line = wrong.count("\n") + 1
        expect(self.told).to_contain_text(f"ine {line}")
        self.page.get_by_role("button", name="Keep", exact=True).click()
        expect(self.told).to_contain_text(f"ine {line}")
        expect(self.field).to_have_value(wrong)
        self.page.keyboard.press("Escape")
        expect(self.field).to_be_visible()  # what is typed is not lost by one key
        self.page.keyboard.press("Escape")
        expect(self.field).to_be_hidden()
        self.assertEqual(self.fill(), "#FFFFFF")

    def test_hands_do_not_wait(self):
        """Typed and kept at once, with answers late or in another order."""
        self.open_text()
        self.page.evaluate("window.lateNumbers = ['/text/']")
        self.late(900)
        self.field.fill(self.text.replace("coloured #FFFFFF", "coloured #00FF00"))
        self.page.wait_for_timeout(400)  # it is asked about: the answer comes when it is kept
        self.field.fill(self.red())
        self.page.keyboard.press("Control+Enter")
        self.kept()
        self.assertEqual(self.fill(), "#FF0000")

    def test_without_answers_nothing_is_lost(self):
        self.open_text()
        self.page.evaluate(NOT_AT_ALL, ["/text/", "away"])
        self.field.fill(self.red())
        expect(self.told).to_have_text("The server does not answer. What is typed is not lost.")
        expect(self.field).to_have_value(self.red())
        self.page.keyboard.press("Control+Enter")  # edits go another way
        self.kept()
        self.assertEqual(self.fill(), "#FF0000")
