"""The focus is where the work is, and a key does what the focus means by it."""

import re

from playwright.sync_api import expect

from .base import BrowserTest

Y = "t1.moves.m1.pose.y"
SIZE = "type.size"


class FocusTest(BrowserTest):
    def setUp(self):
        super().setUp()
        self.person = self.sign_in()
        self.scene = self.open_scene(self.person, name="Opening")

    def layers(self):
        return self.document(self.scene)["layers"]

    def press(self, *keys):
        for key in keys:
            self.page.keyboard.press(key)

    def test_a_new_titles_words_are_typed_over(self):
        self.settled(self.page.locator("#add-title").click)
        words = self.page.locator("#text-t2")
        expect(words).to_be_focused()
        expect(words).to_have_value("New title")
        self.page.keyboard.type("mock")
        self.settled(lambda: self.page.locator("#picture").focus())
        self.assertEqual(self.layers()[1]["text"], "mock")
        self.assertNotIn("markers", self.document(self.scene))

    def test_all_words_selected_are_the_title_itself(self):
        self.settled(self.page.locator("#add-title").click)
        expect(self.page.locator("#text-t2")).to_be_focused()
        self.page.wait_for_timeout(400)  # letters that are selected would be by now
        size = self.page.locator('#type-t2 [data-chip="type.size"]')
        expect(self.page.locator('#type-t2 [data-chip="type.leading"]')).to_be_visible()
        size.click()
        self.page.keyboard.type("64")
        self.settled(lambda: self.press("Enter"))
        self.assertEqual(self.layers()[1]["style"]["size"], 64)
        self.assertEqual(self.layers()[1].get("runs", []), [])

    def test_letters_selected_right_before_leaving_the_words_count(self):
        words = self.page.locator("#text-t1")
        for start, end in ((0, 3), (2, 2)):
            words.evaluate(
                "(field, [start, end]) => {"
                " field.focus(); field.setSelectionRange(start, end); field.blur(); }",
                [start, end],
            )
            shown = self.page.locator(".letters b")
            expect(shown).to_have_count(1 if end > start else 0)

    def test_after_a_preset_space_plays(self):
        self.page.locator("#open-gallery").click()
        self.settled(self.page.locator('[data-add-move="rise-and-fade"]').click)
        self.press("Space")
        expect(self.page.locator("#gallery")).to_be_hidden()
        expect(self.page.locator("#play")).to_have_attribute("aria-pressed", "true")

    def test_delete_on_a_value_is_back_to_rest_and_nothing_more(self):
        for key in ("Delete", "Backspace"):
            with self.subTest(key=key):
                self.settled(
                    self.page.locator('[data-walk="undo"]').click
                ) if key != "Delete" else 0
                self.chip(Y).focus()
                self.settled(lambda key=key: self.press(key))
                self.assertNotIn("y", self.layers()[0]["moves"][0]["pose"])
                self.press("Delete", "Backspace")
                self.page.wait_for_timeout(300)
                self.assertEqual(len(self.layers()), 1)
        self.chip(SIZE).click()
        self.press("Delete")
        self.page.wait_for_timeout(500)
        self.assertEqual(len(self.layers()), 1)

    def test_an_emptied_value_is_at_rest(self):
        self.chip(SIZE).click()
        self.press("Backspace")
        self.settled(lambda: self.press("Enter"))
        self.assertEqual(self.layers()[0]["style"]["size"], 120)

    def test_tab_goes_on_typing_in_the_next_value(self):
        self.chip(SIZE).click()
        self.page.keyboard.type("90")
        self.press("Tab")
        expect(self.chip("type.tracking")).to_be_focused()
        self.page.keyboard.type("3")
        self.settled(lambda: self.press("Enter"))
        style = self.layers()[0]["style"]
        self.assertEqual((style["size"], style["tracking"]), (90, 3))
        self.assertNotEqual(self.layers()[0]["moves"][0].get("unit"), "line")

    def test_arrow_keys_step_a_value_that_is_being_typed(self):
        self.chip(SIZE).click()
        self.settled(lambda: self.press("ArrowDown"))
        self.chip(SIZE).click()
        self.page.keyboard.type("90")
        self.press("Tab")
        self.press("ArrowUp")
        self.settled(lambda: self.press("ArrowUp"))
        style = self.layers()[0]["style"]
        self.assertEqual((style["size"], style["tracking"]), (90, 2))
        self.chip(SIZE).click()
        self.page.keyboard.type("+7")
        self.settled(lambda: self.press("ArrowDown"))
        self.assertEqual(self.layers()[0]["style"]["size"], 96)

    def test_a_step_on_what_is_refused_is_not_made(self):
        self.chip(SIZE).click()
        self.page.keyboard.type("many")
        self.press("ArrowUp")
        expect(self.chip(SIZE)).to_have_class(re.compile("is-wrong"))
        expect(self.chip(SIZE)).to_have_text("many")
        expect(self.page.locator("#kept")).to_have_text("All changes kept")
        self.assertEqual(self.layers()[0]["style"]["size"], 120)

    def test_digits_on_a_value_that_has_the_focus_begin_to_type_in_it(self):
        self.chip(SIZE).focus()
        self.page.keyboard.type("64")
        self.settled(lambda: self.press("Enter"))
        self.assertEqual(self.layers()[0]["style"]["size"], 64)
        self.assertEqual(self.layers()[0]["moves"][0].get("unit", "character"), "character")

    def test_one_click_types_and_a_drag_scrubs(self):
        self.chip(SIZE).click()
        self.assertEqual(self.page.evaluate("getSelection().toString()"), "120 px")
        self.press("Escape")
        self.scrub(SIZE, 40)
        self.assertGreater(self.layers()[0]["style"]["size"], 120)

    def test_ctrl_d_works_with_the_caret_in_the_words(self):
        self.page.get_by_label("Text of").click()
        self.settled(lambda: self.press("Control+d"))
        self.assertEqual(len(self.layers()), 2)

    def test_letters_mean_nothing_where_something_is_chosen_or_typed(self):
        self.chip("t1.moves.m1.unit").click()
        self.press("m", "Delete", "Escape")
        self.page.get_by_label("Name of this move").click()
        self.press("m", "End", "Backspace", "Escape")
        self.page.locator("#add-shape").focus()
        self.press("Delete")
        self.page.wait_for_timeout(400)
        self.assertEqual(len(self.layers()), 1)
        self.assertNotIn("markers", self.document(self.scene))

    def test_menus_close_on_escape_outside_and_when_done(self):
        menu = self.page.locator("#takes-menu")
        summary = menu.locator("summary")
        summary.click()
        self.press("Escape")
        expect(menu).not_to_have_attribute("open", "")
        expect(summary).to_be_focused()
        summary.click()
        self.page.locator("#stage").click(position={"x": 6, "y": 60})
        expect(menu).not_to_have_attribute("open", "")
        summary.click()
        self.settled(menu.locator("[data-take-keep]").click)
        expect(menu).not_to_have_attribute("open", "")
        self.page.locator("#add-shape").click()
        self.press("Escape")
        expect(self.page.locator(".add .pick__list").first).to_be_hidden()
