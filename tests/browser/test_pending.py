"""Nothing that hands do is lost: whatever they do at once, and however late the answers come."""

from django.contrib.auth import get_user_model
from playwright.sync_api import expect

from web.projects import history

from .late import NOT_AT_ALL, LateTest

SIZE = "type.size"
ACROSS = "t1.transform.position.0"


class PendingTest(LateTest):
    def fault(self, kind):
        """Has edits fail with a status, or "away" before or "lost" after they are made; "" not."""
        self.page.evaluate("(kind) => { window.faultOfEdits = kind; }", kind)

    # Typing, stepping, nudging

    def test_words_then_a_size_at_once(self):
        for _ in self.slowly():
            self.page.locator("#add-title").click()
            self.page.keyboard.type("Winter")
            self.page.wait_for_timeout(200)
            expect(self.page.locator("#text-t2")).to_be_focused(timeout=30_000)
            self.type_on(SIZE, "64")
            title = self.kept()[1]
            self.assertEqual((title["text"], title["style"]["size"]), ("Winter", 64))
            expect(self.chip(SIZE)).to_have_text("64 px")

    def test_three_values_without_a_pause(self):
        for _ in self.slowly():
            self.type_on(SIZE, "90")
            self.type_on("type.tracking", "12")
            self.type_on("type.leading", "1.4")
            style = self.kept()[0]["style"]
            self.assertEqual((style["size"], style["tracking"], style["leading"]), (90, 12, 1.4))
            expect(self.chip("type.tracking")).to_have_text("12 ‰")

    def test_the_same_typed_twice_counts_twice(self):
        for _ in self.slowly():
            for text in ("+8", "+8", "*2"):
                self.type_on("type.size", text)
            self.assertEqual(self.kept()[0]["style"]["size"], (120 + 16) * 2)

    def test_an_answer_rewrites_nothing_that_is_being_typed(self):
        for delay in self.slowly():
            self.type_on(SIZE, "90")
            self.chip("type.tracking").click()
            self.page.keyboard.type("123")
            self.page.wait_for_timeout(delay + 800)  # the answer to the size comes
            expect(self.chip("type.tracking")).to_have_text("123")
            self.page.keyboard.type("4")
            self.page.keyboard.press("Enter")
            style = self.kept()[0]["style"]
            self.assertEqual((style["size"], style["tracking"]), (90, 1234))

    def test_a_number_that_is_read_late_is_for_what_was_selected(self):
        for _ in self.slowly(delays=(600,)):
            layers = [{**self.document(self.scene)["layers"][0], "text": f"T{n}"} for n in (2, 3)]
            for number, layer in enumerate(layers):
                add = {"name": "add-layer", "layer": layer}
                history.record(self.scene.pk, number + 1, add, self.person)
            self.page.reload()
            self.wait_for_picture()
            self.late(600)
            self.page.locator("#row-t3 [data-select-layer]").click()
            self.page.locator("#row-t1 [data-select-layer]").click(modifiers=["Shift"])
            self.page.get_by_role("button", name="Spread in time").click()
            self.page.locator("#spread-span").fill("1s")
            self.page.keyboard.press("Enter")
            self.page.locator("#row-t2 [data-select-layer]").click()
            self.comes_about(lambda: any(layer["span"][0] for layer in self.kept()))
            starts = sorted(layer["span"][0] for layer in self.kept())
            self.assertEqual(starts, [0, 15, 30])

    def test_an_undo_right_before_leaving_is_made(self):
        self.type_on(SIZE, "90")
        self.kept()
        self.late(1500)
        self.type_on(SIZE, "70")
        self.page.keyboard.press("Control+z")
        self.page.goto(f"{self.live_server_url}/renders/")

        def is_undone():
            self.scene.refresh_from_db()
            return self.scene.head == 4

        self.comes_about(is_undone, "the undo is lost")
        self.assertEqual(self.document(self.scene)["layers"][0]["style"]["size"], 90)

    def test_steps_add_up(self):
        for _ in self.slowly():
            self.type_on(SIZE, "400")
            self.chip(SIZE).focus()
            for _ in range(6):
                self.page.keyboard.press("ArrowUp")
                self.page.wait_for_timeout(420)  # each an edit of its own
            self.assertEqual(self.kept()[0]["style"]["size"], 406)

    def test_a_nudge_belongs_to_what_was_selected(self):
        for delay in self.slowly():
            other = {**self.document(self.scene)["layers"][0], "text": "Second"}
            history.record(self.scene.pk, 1, {"name": "add-layer", "layer": other}, self.person)
            self.page.reload()
            self.wait_for_picture()
            self.late(delay)
            self.page.locator("#row-t1 [data-select-layer]").click()
            self.page.locator("#picture").focus()
            for _ in range(3):
                self.page.keyboard.press("ArrowRight")
            self.page.locator("#row-t2 [data-select-layer]").click()
            layers = self.kept()
            places = [layer["transform"]["position"][0] for layer in layers]
            self.assertEqual(places, [963, 960])

    def test_undo_takes_back_the_nudge_just_made(self):
        for _ in self.slowly():
            self.type_on(SIZE, "90")
            self.page.locator("#picture").focus()
            self.page.keyboard.press("ArrowRight")
            self.page.keyboard.press("Control+z")
            title = self.kept()[0]
            self.assertEqual(title["transform"]["position"][0], 960)
            self.assertEqual(title["style"]["size"], 90)

    def test_leaving_right_after_a_step_keeps_it(self):
        for _ in self.slowly():
            self.chip(SIZE).focus()
            self.page.keyboard.press("ArrowUp")
            self.page.get_by_role("link", name="Renders").click()
            expect(self.page.get_by_role("heading", name="Renders")).to_be_visible(timeout=30_000)
            self.assertEqual(self.document(self.scene)["layers"][0]["style"]["size"], 121)

    def test_going_away_without_a_link_keeps_it_too(self):
        self.late(1500)
        self.chip(SIZE).focus()
        self.page.keyboard.press("ArrowUp")
        self.page.goto(f"{self.live_server_url}/renders/")
        self.comes_about(
            lambda: self.document(self.scene)["layers"][0]["style"]["size"] == 121,
            "the step is lost",
        )

    # The server away

    def test_edits_are_sent_again_by_themselves(self):
        for number, fault in enumerate(("away", "500", "503")):
            with self.subTest(fault=fault):
                self.fault(fault)
                self.type_on(SIZE, str(90 + number))
                expect(self.page.locator("#kept")).to_have_text("1 change waiting")
                expect(self.page.locator(".notice")).to_contain_text("will be sent again by itself")
                self.chip("type.tracking").focus()
                self.page.keyboard.press("ArrowUp")
                expect(self.page.locator("#kept")).to_have_text("2 changes waiting")
                self.fault("")
                style = self.kept()[0]["style"]
                self.assertEqual((style["size"], style["tracking"]), (90 + number, 1 + number))
                expect(self.page.locator(".notice")).to_have_count(0)

    def test_pictures_and_history_that_never_come_hold_up_nothing(self):
        told = self.page.locator("#stage-told")
        self.page.evaluate(NOT_AT_ALL, ["/frames/", "never"])
        self.page.locator("#picture").focus()
        for _ in range(4):
            self.page.keyboard.press("Home")
            self.page.keyboard.press("End")
        expect(told).to_have_text("The server does not answer.")
        self.page.evaluate("window.isBack = true")
        self.page.keyboard.press("Home")
        self.wait_for_picture()
        expect(told).to_have_text("")
        self.page.evaluate(NOT_AT_ALL, ["/history/", "never"])
        self.page.locator("[data-open-history]").click()
        expect(self.page.locator("#history-list")).to_contain_text("try again in a moment")

    def test_an_answer_that_is_lost_makes_no_second_edit(self):
        self.fault("lost")
        self.page.locator("#picture").focus()
        self.page.keyboard.press("ArrowRight")
        expect(self.page.locator("#kept")).to_have_text("1 change waiting")
        self.fault("")
        self.assertEqual(self.kept()[0]["transform"]["position"][0], 961)
        self.scene.refresh_from_db()
        self.assertEqual(self.scene.head, 2)

    def test_a_fault_that_stays_can_be_left_out(self):
        self.fault("500")
        self.type_on(SIZE, "90")
        self.page.get_by_role("button", name="Leave this change out").click(timeout=30_000)
        expect(self.page.locator("#kept")).to_have_text("All changes kept")
        expect(self.chip(SIZE)).to_have_text("120 px")

    def test_signed_out_the_page_goes_on_after_signing_in_in_place(self):
        person = get_user_model().objects.get(username="ada")
        person.set_password("nine-winter-moons")
        person.save()
        self.context.clear_cookies()
        self.type_on(SIZE, "90")
        dialog = self.page.get_by_role("dialog", name="Sign in to go on")
        expect(dialog).to_contain_text("Nothing is lost")
        dialog.get_by_label("Password").fill("wrong")
        dialog.get_by_role("button", name="Sign in").click()
        expect(dialog).to_contain_text("do not belong together")
        dialog.get_by_label("Password").fill("nine-winter-moons")
        dialog.get_by_role("button", name="Sign in").click()
        expect(dialog).to_be_hidden()
        self.assertEqual(self.kept()[0]["style"]["size"], 90)
        self.type_on(SIZE, "95")
        self.assertEqual(self.kept()[0]["style"]["size"], 95)

    def test_signed_in_elsewhere_the_page_goes_on_by_itself(self):
        self.context.clear_cookies(name="csrftoken")
        self.type_on(SIZE, "90")
        self.assertEqual(self.kept()[0]["style"]["size"], 90)

    def test_what_another_tab_overtook_can_be_made_on_its_state(self):
        other = self.new_tab()
        other.goto(self.page.url)
        self.wait_for_picture(other)
        self.type_on(SIZE, "90")
        self.kept()
        self.chip("type.tracking", other).click()
        other.keyboard.type("55")
        other.keyboard.press("Enter")
        notice = other.locator(".notice")
        expect(notice).to_contain_text("changed in another tab")
        expect(self.chip(SIZE, other)).to_have_text("90 px")
        notice.get_by_role("button", name="Make your change on this state").click()
        expect(other.locator("#kept")).to_have_text("All changes kept")

        def style():
            return self.document(self.scene)["layers"][0]["style"]

        self.comes_about(lambda: style()["tracking"] == 55)
        self.assertEqual(style()["size"], 90)
