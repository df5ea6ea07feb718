"""The whole motion model under a designer's hands: the gallery, ties, dress, warnings, the rate."""

import re

from playwright.sync_api import expect

from .base import BrowserTest

MOVE = "t1.moves.m1"


class ModelTest(BrowserTest):
    def setUp(self):
        super().setUp()
        self.scene = self.open_scene(self.sign_in(), name="Opening")

    @property
    def title(self):
        return self.document(self.scene)["layers"][0]

    @property
    def moves(self):
        return self.title["moves"]

    def more(self, of="m1"):
        self.page.locator(f"#more-{of} > summary").click()

    def tie(self, path, to):
        """Ties two values by the lists under "More"."""
        self.more()
        form = self.page.locator("#more-m1 [data-tie]")
        form.locator("[name=path]").select_option(label=path)
        form.locator("[name=to]").select_option(label=to)
        self.settled(form.get_by_role("button", name="Tie").click)

    def press(self, name):
        self.settled(self.page.get_by_role("button", name=name, exact=True).first.click)

    def test_the_gallery_shows_presets_moving_on_ones_own_words(self):
        self.page.locator("#open-gallery").click()
        gallery = self.page.locator("#gallery")
        expect(gallery).to_contain_text("The Quiet Orbit")
        self.page.wait_for_function(
            "() => [...document.querySelectorAll('[data-film]')]"
            ".slice(0, 8).every((film) => film.naturalHeight > 32 * 100)"
        )
        # Its first frames differ: something moves in them.
        self.assertTrue(
            self.page.evaluate("""() => {
              const film = document.querySelector('[data-film="rise-and-fade"]');
              const canvas = new OffscreenCanvas(film.naturalWidth, film.naturalHeight);
              const context = canvas.getContext("2d");
              context.drawImage(film, 0, 0);
              const height = film.naturalHeight / 32;
              const sum = (n) => context.getImageData(0, n * height, film.naturalWidth, height)
                .data.reduce((total, value) => total + value, 0);
              return sum(0) !== sum(8) && sum(31) > sum(0);
            }""")
        )
        self.settled(gallery.get_by_role("button", name="Words appear, centre held").click)
        expect(gallery).to_be_hidden()
        self.assertEqual([move["name"] for move in self.moves], ["Rise", "Reveal"])
        self.assertTrue(self.title["hold_center"])
        self.settled(lambda: self.page.keyboard.press("Control+z"))
        self.assertNotIn("hold_center", self.title)

    def test_parts_of_a_preset_are_left_out_before_it_is_added(self):
        self.page.locator("#open-gallery").click()
        card = self.page.locator(".gcard", has=self.page.locator('[data-film="spin-in"]'))
        for part in ("turn", "fade"):
            card.get_by_role("switch", name=part, exact=True).click()
        grow = card.get_by_role("switch", name="grow", exact=True)
        grow.click()  # the last one stays
        expect(grow).to_have_attribute("aria-checked", "true")
        expect(card.locator("[data-film]")).to_have_attribute("src", re.compile("without=rotation"))
        self.page.wait_for_function(
            "() => document.querySelector('[data-film=\"spin-in\"]').naturalHeight > 0"
        )
        self.settled(card.locator("[data-add-move]").click)
        self.assertEqual(self.moves[-1]["pose"], {"scale": 0.2})

    def test_moves_are_duplicated_put_in_order_and_turned_round(self):
        self.more()
        self.press("duplicate")
        self.assertEqual([move["id"] for move in self.moves], ["m1", "m2"])
        self.press("later")
        self.assertEqual([move["id"] for move in self.moves], ["m2", "m1"])
        self.press("turn round")
        turned = self.moves[-1]
        values = [key["value"] for key in turned["amount"]["keys"]]
        self.assertEqual(values, [0, 1])
        self.assertGreater(turned["start"], 0)
        self.settled(lambda: self.page.keyboard.press("Control+z"))
        self.assertEqual([key["value"] for key in self.moves[-1]["amount"]["keys"]], [1, 0])

    def test_a_move_is_dressed_in_its_sentence(self):
        self.more()
        self.press("colour")
        color = self.chip(f"{MOVE}.pose.fill")
        self.at_frame(0)
        before = self.picture()
        self.settled(lambda: color.fill("#ff0000"))
        self.press("font weight")
        self.type_value(f"{MOVE}.pose.axes.wght", "-300")
        self.press("swinging after")
        self.scrub(f"{MOVE}.follow.frequency", 40)
        self.press("about another point")
        self.type_value(f"{MOVE}.pivot.1", "80")
        move = self.moves[0]
        self.assertEqual(move["pose"]["fill"], "#ff0000")
        self.assertEqual(move["pose"]["axes"], {"wght": -300})
        self.assertAlmostEqual(move["follow"]["frequency"], 3.3)
        self.assertEqual(move["pivot"], [0.5, 0.8])
        self.at_frame(3)
        self.assertNotEqual(self.picture(), before)
        self.press("not swinging after")
        self.assertNotIn("follow", self.moves[0])

    def test_a_value_is_tied_to_another_and_untied(self):
        self.tie("above or below", "amount of Rise")
        self.assertEqual(self.moves[0]["pose"]["y"], {"tie": {"to": "t1.moves.m1.amount"}})
        self.type_value(f"{MOVE}.pose.y.tie.gain", "150")
        expect(self.page.locator("#sentence-m1")).to_contain_text("tied to amount of “Rise”")
        self.at_frame(0)
        self.press("untie above or below")
        self.assertEqual(self.moves[0]["pose"]["y"], 150)

    def test_a_circle_of_ties_is_refused_in_words_and_nothing_is_lost(self):
        self.tie("amount", "amount of Rise")
        notice = self.page.locator("#notices")
        expect(notice).to_contain_text("a circle of ties")
        self.assertIn("keys", self.moves[0]["amount"])

    def test_selectors_have_charts_that_follow_the_playhead(self):
        self.more()
        self.press("a wave")
        chart = self.page.locator("#reaches-m1 .reach--wave path")
        expect(chart).to_have_attribute("d", expected_path())
        at_rest = chart.get_attribute("d")
        self.at_frame(17)
        expect(chart).not_to_have_attribute("d", at_rest)
        self.press("a spot")
        expect(self.page.locator("#reaches-m1 .reach")).to_have_count(2)

    def test_warnings_stand_beside_what_they_are_about(self):
        warning = self.page.locator("#move-m1 .warning")
        expect(warning).to_have_count(0)
        self.type_value(f"{MOVE}.stagger.gap", "20")
        expect(warning).to_contain_text("still moving when the layer ends at frame 90")
        text = self.page.locator("#text-t1")
        self.settled(lambda: (text.fill("Orbit שלום"), text.blur()))
        expect(self.page.locator("#slab-t1 .warning").first).to_contain_text(
            "Anybody has no “שלום”: set in Noto Sans Hebrew instead."
        )

    def test_another_rate_keeps_the_seconds(self):
        self.page.locator("#more-scene summary").click()
        self.choose("rate", "60")
        document = self.document(self.scene)
        self.assertEqual((document["rate"], document["length"]), ("60", 180))
        self.assertEqual(self.moves[0]["stagger"]["gap"], 4)
        self.assertEqual(self.moves[0]["amount"]["keys"][1]["at"], 40)

    def test_a_gradient_an_outline_and_a_bent_way(self):
        self.choose("type.fill-kind", "in a gradient")
        self.assertEqual(self.title["style"]["fill"]["kind"], "linear")
        self.scrub("type.fill.angle", 20)
        self.assertEqual(self.title["style"]["fill"]["angle"], 100)
        self.more("t1")
        self.press("an outline")
        self.type_value("type.outline", "6")
        self.assertEqual(self.title["style"]["outline"], 6)
        position = self.chip("t1.transform.position.0")
        self.at_frame(0)
        position.focus()
        self.settled(lambda: position.press("k"))
        self.at_frame(40)
        self.type_value("t1.transform.position.0", "1200")
        self.press("bend its way")
        keys = self.title["transform"]["position"]["keys"]
        self.assertEqual(keys[0]["out"][0], 80)
        self.type_value("t1.transform.position.keys.0.out.1", "-200")
        self.assertEqual(self.title["transform"]["position"]["keys"][0]["out"][1], -200)


def expected_path():
    """A line through a place for each letter."""
    return re.compile(r"^M[\d.]+,[-\d.]+(L[\d.]+,[-\d.]+){12}$")
