"""Drags one after another, quicker than the answers: each goes on from what the one before made, of
the layer and at the frame where it was made."""

from collections.abc import Iterator
from copy import deepcopy
from typing import Any

from playwright.sync_api import expect

from tests.core.scenes import OPACITY, scene_data

from .late import NOT_AT_ALL, LateTest

NUMBERS = ["/motion/", "/keyframes/", "/places/"]  # addresses of what drags start from


# In one go: what is dragged is drawn anew when numbers come, and may be elsewhere a moment later.
DRAG = """([selector, across, down, edge]) => {
  const pressed = document.querySelector(selector);
  const { left, top, width, height } = pressed.getBoundingClientRect();
  const [x, y] = [left + 2 + (width - 4) * edge, top + height / 2];
  const does = (type, share, target) => target.dispatchEvent(new PointerEvent(type, {
    bubbles: true, cancelable: true, clientX: x + across * share, clientY: y + down * share }));
  does("pointerdown", 0, pressed);
  for (const share of [0.5, 1]) does("pointermove", share, document.body);
  does("pointerup", 1, document.body);
}"""


class LateDragTest(LateTest):
    def titles(self) -> list[dict[str, Any]]:
        first = {**scene_data()["layers"][0], "runs": []}
        first["transform"] = {"position": [960, 300, 0], "opacity": OPACITY}
        other = {**deepcopy(first), "id": "t2", "moves": []}
        other["transform"] = {"position": [960, 780, 0]}
        return [first, other]

    def scenes(self, view: str = "Cascade", shown: str = ".crow .bar") -> Iterator[int]:
        """The scene with answers of each delay, in a view of time, with `frame` px a frame."""
        for delay in self.slowly((700,), layers=self.titles()):
            self.page.evaluate(f"window.lateNumbers = {NUMBERS}")
            self.page.get_by_role("tab", name="Cascade").click()
            self.page.locator("#row-t1 [data-select-layer]").click()
            self.page.get_by_role("tab", name=view).click()
            self.frame = self.page.locator("#ruler").bounding_box()["width"] / 90
            self.page.locator(shown).first.wait_for()
            self.kept()
            yield delay

    def drag(self, selector: str, across: float, edge: float = 0.5, down: float = 0) -> None:
        """A quick drag, from the middle or from an edge: 0 is the left one, 1 the right one."""
        self.page.evaluate(DRAG, [selector, across, down, edge])

    def title(self, number: int = 0) -> dict[str, Any]:
        return self.kept()[number]

    def test_a_move_is_started_later_twice(self):
        for _ in self.scenes():
            start = self.title()["moves"][0].get("start", 0)
            self.drag("[data-move-span=m1]", 10 * self.frame)
            self.drag("[data-move-span=m1]", 5 * self.frame)
            self.assertEqual(self.title()["moves"][0]["start"], start + 15)

    def test_a_drag_given_up_while_an_answer_waits_for_typing(self):
        for _ in self.scenes():
            self.type_on("type.size", "90")
            self.chip("type.tracking").click()
            self.page.keyboard.type("3")
            self.page.wait_for_timeout(1000)  # the answer to the size comes, and waits
            bar = self.page.locator("[data-move-span=m1]").bounding_box()
            x, y = bar["x"] + bar["width"] / 2, bar["y"] + bar["height"] / 2
            self.page.mouse.move(x, y)
            self.page.mouse.down()
            for across in (10, 0):
                self.page.mouse.move(x + across * self.frame, y)
            self.page.mouse.up()
            self.chip("type.tracking").press("Enter")
            style = self.title()["style"]
            self.assertEqual((style["size"], style["tracking"]), (90, 3))
            expect(self.page.locator("#notices")).to_be_empty()

    def test_numbers_that_never_come_are_asked_for_again(self):
        for fault in ("never", "away"):
            for _ in self.scenes():
                start = self.title()["moves"][0].get("start", 0)
                self.page.evaluate(NOT_AT_ALL, ["/motion/", fault])
                self.type_on("type.size", "100")
                self.drag("[data-move-span=m1]", 10 * self.frame)
                expect(self.page.locator("#notices")).to_contain_text("does not answer")
                self.page.evaluate("window.isBack = true")
                title = self.title()
                self.assertEqual(
                    (title["moves"][0]["start"], title["style"]["size"]), (start + 10, 100)
                )
                expect(self.page.locator("#notices")).to_be_empty()

    def test_two_letters_have_times_of_their_own(self):
        for _ in self.scenes():
            self.drag(".crow .bar[data-unit='1']", 4 * self.frame)
            times = self.title()["moves"][0]["stagger"]["times"]
            self.drag(".crow .bar[data-unit='2']", 6 * self.frame)
            self.drag(".crow .bar[data-unit='3']", 7 * self.frame)
            by = [new - old for new, old in zip(self.newest_times(), times, strict=True)]
            self.assertEqual(by, [0, 0, 6, 7, *[0] * (len(times) - 4)])

    def newest_times(self) -> list[float]:
        return self.title()["moves"][0]["stagger"]["times"]

    def test_a_gap_goes_on_from_what_an_undo_leaves(self):
        for _ in self.scenes():
            gap = self.title()["moves"][0]["stagger"]["gap"]
            grip = "[data-hand=gap]"
            self.drag(grip, 20 * self.frame)
            self.page.keyboard.press("Control+z")
            self.drag(grip, 10 * self.frame)
            once = self.title()["moves"][0]["stagger"]["gap"]
            self.assertGreater(once, gap)
            self.page.keyboard.press("Control+z")
            self.assertEqual(self.title()["moves"][0]["stagger"]["gap"], gap)
            self.drag(grip, 10 * self.frame)
            self.assertAlmostEqual(self.title()["moves"][0]["stagger"]["gap"], once, places=2)

    def test_a_layer_is_moved_and_trimmed_at_both_ends(self):
        for _ in self.scenes():
            bar = "#row-t2 [data-span]"
            first, end = self.title(1)["span"]
            self.drag(bar, 12 * self.frame, edge=0)
            self.drag(bar, -20 * self.frame, edge=1)
            self.drag(bar, 3 * self.frame)
            self.assertEqual(self.title(1)["span"], [first + 15, end - 17])

    def test_keys_are_moved_on_from_where_they_were_moved_to(self):
        for _ in self.scenes("Keyframes", ".kbead"):
            bead = '.kbead[data-path="t1.transform.opacity"][data-index="1"]'
            self.drag(bead, 6 * self.frame)
            self.drag(bead, 4 * self.frame)
            keys = self.title()["transform"]["opacity"]["keys"]
            self.assertEqual([key["at"] for key in keys], [0, 30, 40, 60])

    def test_all_keys_are_selected_where_their_view_has_just_been_opened(self):
        for _ in self.slowly((700,), layers=self.titles()):
            self.page.evaluate(f"window.lateNumbers = {NUMBERS}")
            self.page.locator("#row-t1 [data-select-layer]").click()
            self.kept()
            self.page.get_by_role("tab", name="Keyframes").click()
            self.page.locator("#picture").focus()
            self.page.keyboard.press("Control+a")
            spread = self.page.locator(".time__foot--keys [data-open-spread]").first
            expect(spread).to_be_enabled()
            expect(self.page.locator('.kbead[aria-pressed="true"]').nth(3)).to_be_visible()

    def test_what_follows_a_drag_past_another_key_is_done_to_the_same_key(self):
        bead = '.kbead[data-path="t1.transform.opacity"][data-index="1"]'
        after = {
            "Delete": [(0, 0), (40, 0.5), (60, 1)],
            "Control+d": [(0, 1), (40, 0.5), (50, 1), (60, 1)],
        }
        for keys, expected in after.items():
            for _ in self.scenes("Keyframes", ".kbead"):
                self.page.keyboard.press("Home")
                self.drag(bead, 30 * self.frame)
                self.page.keyboard.press(keys)
                found = self.title()["transform"]["opacity"]["keys"]
                self.assertEqual([(key["at"], key["value"]) for key in found], expected)

    def test_both_handles_of_a_curve_are_kept(self):
        for _ in self.scenes("Curves", ".curve-handle"):
            self.page.locator("[data-curve]", has_text="Opacity").click()
            handle = '.curve-handle[data-stretch="0"][data-side="{}"]'
            first = self.title()["transform"]["opacity"]["keys"][0].get("ease")
            self.assertIsNone(first)
            self.drag(handle.format(0), 4 * self.frame, down=-10)
            one = self.title()["transform"]["opacity"]["keys"][0]["ease"]["bezier"]
            self.drag(handle.format(1), -4 * self.frame, down=10)
            self.drag(handle.format(0), -2 * self.frame)
            two = self.title()["transform"]["opacity"]["keys"][0]["ease"]["bezier"]
            self.assertLess(two[0], one[0])
            self.assertNotEqual(two[2:], one[2:])

    def test_switches_and_places_count_from_what_is_there_by_then(self):
        for _ in self.scenes():
            eye = self.page.locator("#slab-t1 .slab__eye")
            for _press in range(3):
                eye.click()
            back = self.page.get_by_role("button", name="Forward")
            for _press in range(2):
                back.click(force=True)
            layers = self.kept()
            self.assertEqual([each["id"] for each in layers], ["t2", "t1"])
            self.assertIs(layers[1]["on"], False)

    def test_effects_removed_one_after_the_other_are_those(self):
        for _ in self.slowly((700,), layers=[self.dressed()]):
            self.remove("Shadow")
            self.remove("Blur")
            self.assertEqual([each["kind"] for each in self.title()["effects"]], ["glow", "tint"])
            self.remove("Glow", times=2)
            expect(self.page.locator("#notices")).to_contain_text("not there any more")
            self.assertEqual([each["kind"] for each in self.title()["effects"]], ["tint"])

    def remove(self, effect: str, times: int = 1) -> None:
        """Presses the bin of an effect, in one go: others come to stand in its place."""
        card = self.page.locator(".wear", has=self.page.locator("h4", has_text=effect))
        press = "(bin, times) => { for (let n = 0; n < times; n += 1) bin.click(); }"
        card.locator(".icon-btn").last.evaluate(press, times)

    def dressed(self) -> dict[str, Any]:
        kinds = ("shadow", "glow", "blur", "tint")
        return {**self.titles()[0], "effects": [{"kind": kind} for kind in kinds]}

    def test_a_grip_means_the_layer_and_the_frame_where_it_was_dragged(self):
        for _ in self.scenes():
            self.page.locator("#row-t2 [data-select-layer]").click()
            self.page.wait_for_function(
                "() => document.getElementById('over').dataset.shown.includes('layer=t2')"
            )
            box = self.page.locator('#over [data-grip="scale"][data-corner="2"]').bounding_box()
            x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
            self.type_on("t2.transform.opacity", "90")
            self.page.mouse.move(x, y)
            self.page.mouse.down()
            self.page.mouse.move(x + 60, y + 30, steps=2)
            self.page.mouse.up()
            self.page.locator("#row-t1 [data-select-layer]").click()
            self.page.keyboard.press("Home")
            first, second = self.kept()
            self.assertEqual(second["transform"]["opacity"], 0.9)
            self.assertGreater(second["transform"]["scale"][0], 1)
            self.assertNotIn("scale", first["transform"])
            self.page.keyboard.press("Control+z")
            second = self.title(1)
            self.assertNotIn("scale", second["transform"])
            self.assertEqual(second["transform"]["opacity"], 0.9)
