"""Whole jobs, done as a designer does them; each ends with what the command line says of the scene
that was kept."""

from itertools import pairwise

import numpy as np
from playwright.sync_api import expect

from balletto.scene.eases import NAMED_BEZIERS
from tests.core.scenes import scene_data

from .base import BrowserTest


def bezier(handles, share):
    """The y of a CSS cubic-bezier at an x, by halving: worked out apart from the program."""
    x1, y1, x2, y2 = handles
    low, high = 0.0, 1.0
    for _ in range(60):
        t = (low + high) / 2
        x = 3 * (1 - t) ** 2 * t * x1 + 3 * (1 - t) * t * t * x2 + t**3
        low, high = (t, high) if x < share else (low, t)
    return 3 * (1 - t) ** 2 * t * y1 + 3 * (1 - t) * t * t * y2 + t**3


class JobTest(BrowserTest):
    def open_still(self, text="The Quiet Orbit", **title):
        """Opens a scene with a title that does not move yet."""
        still = self.layer(text=text, moves=[], runs=[], **title)
        self.scene = self.open_scene(self.sign_in(), layers=[still], length=90)

    def layer(self, **changes):
        return {**scene_data()["layers"][0], **changes}

    @property
    def title(self):
        return self.document(self.scene)["layers"][0]

    def add_move(self, name):
        self.page.locator("#open-gallery").click()
        self.settled(self.page.locator("#gallery").get_by_role("button", name=name).first.click)

    def tab(self, name):
        self.page.get_by_role("tab", name=name).click()

    def drag(self, target, across, down=0, at=(0.5, 0.5), settle=True):
        """Drags something by px of the screen."""
        box = target.bounding_box()
        x, y = box["x"] + box["width"] * at[0], box["y"] + box["height"] * at[1]
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + across, y + down, steps=6)
        if settle:
            self.settled(self.page.mouse.up)

    def box_all_keys(self):
        """Draws a box around all beads of the keyframes view."""
        self.page.locator(".kbead").first.wait_for()
        rows = self.page.locator(".krows .lane")
        first, last = rows.first.bounding_box(), rows.last.bounding_box()
        self.page.mouse.move(first["x"] - 14, first["y"] + 1)
        self.page.mouse.down()
        right, bottom = last["x"] + last["width"] - 2, last["y"] + last["height"] - 1
        self.page.mouse.move(right, bottom, steps=4)
        self.page.mouse.up()

    def test_rise_with_a_gap_of_two_from_the_centre_out(self):
        self.open_still()
        self.add_move("Rise and fade")
        expect(self.chip("t1.moves.m1.stagger.gap")).to_have_text("2 frames")
        self.choose("t1.moves.m1.stagger.order", "from the centre out")
        said = self.poses()
        self.assertEqual(said["moves"]["m1"]["delays"], [2.0 * abs(n - 6) for n in range(13)])
        self.assertEqual(set(said["values"]["opacity"][0]), {0.0})
        self.assertEqual(set(said["values"]["y"][-1]), {0.0})

    def test_a_bounce_keyed_by_hand_then_eased_all_at_once(self):
        """Below, above, slightly below, home, five frames each."""
        self.open_still()
        self.page.locator("#keying").click()
        stations = [(0, 740), (5, 460), (10, 570), (15, 540)]
        for frame, place in stations:
            self.at_frame(frame)
            self.type_value("t1.transform.position.1", str(place))
        self.tab("Keyframes")
        self.box_all_keys()
        expect(self.page.locator("#keys-said")).to_have_text("4 keyframes, frames 0 to 15")
        self.tab("Curves")
        self.settled(self.page.get_by_role("button", name="soft both").click)
        course = np.array(self.poses()["transform"]["position"])[:16, 1]
        for (start, low), (_, high) in pairwise(stations):
            for frame in range(5):
                share = bezier(NAMED_BEZIERS["soft-both"], frame / 5)
                wanted = low + share * (high - low)
                self.assertAlmostEqual(course[start + frame], wanted, places=6)
        self.assertEqual(course[15], 540)
        # Four keys typed and one edit for all eases.
        self.scene.refresh_from_db()
        self.assertEqual(self.scene.head, 6)

    def test_words_revealed_at_frames_of_their_own_with_the_centre_held(self):
        """At 10, 20, 30 and 50; then the third two frames earlier, by typing -2."""
        self.open_still("Nine moons over winter")
        self.add_move("Words appear, centre held")
        self.page.locator("#more-m1 summary").click()
        self.settled(self.page.get_by_role("button", name="a time for each word").click)
        for word, frame in enumerate((10, 20, 30, 50)):
            self.type_value(f"t1.moves.m1.stagger.times.{word}", str(frame))
        self.assertTrue(self.title["hold_center"])
        self.page.locator("#cascade .crow .bar").nth(2).click(position={"x": 8, "y": 4})
        expect(self.page.locator("#units-said")).to_have_text("“over” starts at frame 30")
        self.page.locator("#nudge-units").fill("-2")
        self.settled(lambda: self.page.keyboard.press("Enter"))
        said = self.poses()
        self.assertEqual(said["moves"]["m1"]["delays"], [10.0, 20.0, 28.0, 50.0])
        weights = np.array(said["moves"]["m1"]["weights"])
        self.assertEqual(weights[28].tolist()[2:], [1.0, 1.0])
        self.assertLess(weights[29][2], 1)

    def test_a_stagger_bent_so_that_the_first_letters_are_bunched(self):
        self.open_still()
        self.add_move("Rise and fade")
        self.type_value("t1.moves.m1.stagger.gap", "3")
        digest = self.page.locator("#workbench-state").get_attribute("data-digest")
        self.page.locator(f'#cascade[data-shown="{digest}"]').wait_for()
        lane = self.page.locator("#ruler").bounding_box()["width"]
        self.drag(self.page.locator(".guide__grip--bend"), -9 * lane / 90)
        delays = np.array(self.poses()["moves"]["m1"]["delays"])
        self.assertEqual((delays[0], delays[12]), (0, 36))
        # The Bezier with handles at thirds across whose middle is at 9 of 36 frames.
        lift = ((9 / 36 - 0.125) / 0.375 - 1) / 2
        handles = (1 / 3, 1 / 3 + lift, 2 / 3, 2 / 3 + lift)
        wanted = [36 * bezier(handles, unit / 12) for unit in range(13)]
        np.testing.assert_allclose(delays, wanted, atol=0.05)

    def test_a_fly_home_without_overshoot_and_then_with_a_spring(self):
        self.open_still()
        self.add_move("Scatter and fly home")
        self.page.locator("#more-m1 summary").click()
        self.settled(self.page.get_by_role("button", name="not swinging after").click)
        ease = "t1.moves.m1.amount.keys.0.ease"
        self.choose(ease, "soft landing")
        calm = np.array(self.poses()["moves"]["m1"]["weights"])
        amount = np.abs(calm)
        self.assertTrue((np.diff(amount, axis=0) <= 1e-9).all(), "it never goes back out")
        self.choose(ease, "spring")
        sprung = np.array(self.poses()["moves"]["m1"]["weights"])
        turned = (np.sign(sprung) * np.sign(calm[0]) < 0).any(axis=0)
        self.assertTrue(turned.all(), "every letter passes its place")
        self.assertEqual(set(sprung[-1].tolist()), {0.0})

    def test_one_letter_split_off_and_brought_back_exactly(self):
        self.open_still()
        self.at_frame(60)
        o = self.page.locator("#over polygon.is-picked").bounding_box()
        x, y = o["x"] + o["width"] * 0.69, o["y"] + o["height"] / 2
        self.page.mouse.click(x, y)
        expect(self.page.locator(".letters b")).to_have_text("O")
        self.add_move("Spin in")
        said = self.poses()
        rotation, opacity = (np.array(said["values"][name]) for name in ("rotation", "opacity"))
        self.assertNotEqual(rotation[0][8], 0)
        others = [n for n in range(13) if n != 8]
        self.assertTrue((rotation[:, others] == 0).all() and (opacity[:, others] == 1).all())
        self.assertEqual((rotation[-1][8], opacity[-1][8]), (0, 1))
