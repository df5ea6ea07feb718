"""Sentences that are typed: looked at while they are, completed by keys, made by Enter, whatever
answers do."""

from playwright.sync_api import expect

from tests.core.scenes import scene_data

from .base import BrowserTest
from .late import NOT_AT_ALL, LateTest

RISE = {"y": 100, "opacity": 0}


def title(number=1, **changes):
    plain = {**scene_data("Orbit")["layers"][0], "runs": [], "moves": []}
    return {**plain, "id": f"t{number}", **changes}


class SayingTest(BrowserTest):
    def show(self, *layers):
        self.scene = self.open_scene(self.sign_in(), layers=list(layers or [title()]))
        self.line = self.page.locator("#say-moves-text")
        self.next = self.page.locator("#say-moves-next li")
        self.told = self.page.locator("#say-moves-told")

    def moves(self, layer=0):
        return self.document(self.scene)["layers"][layer].get("moves", [])

    def say(self, text):
        self.line.click()
        self.page.keyboard.type(text)

    def test_a_sentence_is_looked_at_while_it_is_typed_and_added_by_enter(self):
        self.show()
        self.at_frame(5)
        before = self.picture()
        self.say("letters rise 100, fade, every 2")
        expect(self.told).to_have_text("Enter adds the move.")
        self.page.wait_for_function(
            "(before) => document.getElementById('canvas').toDataURL() !== before", arg=before
        )
        self.assertEqual(self.moves(), [])
        self.settled(lambda: self.page.keyboard.press("Enter"))
        (move,) = self.moves()
        self.assertEqual((move["name"], move["pose"]), ("Letters rise 100", RISE))
        self.assertEqual(move["stagger"], {"gap": 2})
        expect(self.line).to_have_value("")
        expect(self.page.locator(".move.is-current .move__name")).to_have_value("Letters rise 100")
        expect(self.page.locator(".move .sentence")).to_contain_text("comes from 100 px below")
        self.settled(lambda: self.page.keyboard.press("Control+z"))

    def test_other_words_are_told_in_ours_before_enter_makes_them(self):
        self.show(title(moves=[]))
        self.say("words pop in one by one")
        expect(self.told).to_contain_text("Each word starts 0 % of its size")
        expect(self.page.locator(".say__assumed").first).to_have_text("every 2")
        self.assertEqual(self.moves(), [])
        self.settled(lambda: self.page.keyboard.press("Enter"))
        (move,) = self.moves()
        self.assertEqual((move["unit"], move["pose"]), ("word", {"scale": 0}))
        self.say("twice as slow")
        expect(self.told).to_contain_text("every 4 frames")
        self.settled(lambda: self.page.keyboard.press("Enter"))
        self.assertEqual(self.moves()[0]["stagger"]["gap"], 4)
        self.settled(lambda: self.page.keyboard.press("Control+z"))
        self.assertEqual(self.moves()[0]["stagger"]["gap"], 2)

    def test_what_is_refused_is_selected_and_typed_over(self):
        self.show()
        self.say("letters sing loudly from 100 below")
        expect(self.told).to_contain_text("sing")
        self.page.keyboard.press("Enter")
        self.page.keyboard.type("letters rise 100")
        expect(self.line).to_have_value("letters rise 100")

    def test_what_is_asked_of_layers_is_told_and_done(self):
        self.show()
        self.say("duplicate it three times")
        expect(self.told).to_contain_text("3 more of the layer")
        self.settled(lambda: self.page.keyboard.press("Enter"))
        self.assertEqual(len(self.document(self.scene)["layers"]), 4)

    def test_the_gallery_shows_what_is_called_so_and_knows_it_by_its_name(self):
        self.show()
        self.page.locator("#open-gallery").click()
        cards = self.page.locator("#gallery .gcard:visible")
        whole = cards.count()
        line = self.page.locator("#gallery .say__text")
        line.fill("slow dri")
        expect(cards).to_have_count(1)
        line.fill("slow drift")
        expect(self.page.locator("#gallery .say__told")).to_contain_text("Slow drift:")
        self.settled(lambda: self.page.keyboard.press("Enter"))
        self.assertEqual([move["name"] for move in self.moves()], ["Drift"])
        self.page.locator("#open-gallery").click()
        expect(cards).to_have_count(whole)

    def test_the_page_says_what_it_says_when_it_is_opened_anew(self):
        """Whatever is said of the scene or a new layer: no part of the page is left behind."""
        self.show()
        self.at_frame(30)
        said = """() => [...document.querySelectorAll("body *")]
          .filter((node) => !node.children.length && node.checkVisibility())
          .map((node) => node.value ?? node.textContent.trim())
          .filter((text) => text && !/saving|Said/.test(text))"""
        for text in (
            "800 by 450 px, 24 frames a second, 5 s long, on black",
            "Bar: a rectangle of 20 by 200 px, red, at the lower right",
            "from 100 left, over 20",
        ):
            self.say(text)
            self.settled(lambda: self.page.keyboard.press("Enter"))
        self.page.keyboard.press("Escape")
        self.page.wait_for_timeout(500)
        live = self.page.evaluate(said)
        self.page.goto(f"{self.live_server_url}/scenes/{self.scene.pk}/?layer=s1&move=m1")
        self.page.wait_for_selector("#canvas[data-shown]")
        self.page.wait_for_timeout(500)
        self.assertEqual(live, self.page.evaluate(said))

    def test_chords_need_not_leave_an_empty_line(self):
        self.show(title(), title(2))
        self.line.click()
        self.page.keyboard.press("Control+a")
        expect(self.page.locator(".slab.is-selected, .slab.is-also")).to_have_count(2)
        self.page.keyboard.type("rise 70")
        self.page.keyboard.press("Control+a")  # now of the words
        self.page.keyboard.type("fade")
        self.settled(lambda: self.page.keyboard.press("Enter"))
        self.assertEqual([self.moves(n)[0]["pose"] for n in (0, 1)], [{"opacity": 0}] * 2)

    def test_a_scene_without_layers_is_begun_by_saying_one(self):
        self.scene = self.open_scene(self.sign_in(), layers=[])
        self.page.locator("#say-moves-text").click()
        self.page.keyboard.type("a title “Hello”, 60 px")
        self.settled(lambda: self.page.keyboard.press("Enter"))
        self.page.keyboard.type("rise 70")
        self.settled(lambda: self.page.keyboard.press("Enter"))
        self.assertEqual(self.document(self.scene)["layers"][0]["moves"][0]["pose"], {"y": 70})

    def test_what_may_come_next_is_taken_by_keys(self):
        self.show()
        self.say("words from 60 below, every 8 from the c")
        expect(self.next.first).to_contain_text("from the centre out")
        self.page.keyboard.press("Tab")
        expect(self.line).to_have_value("words from 60 below, every 8 from the centre out ")
        self.page.keyboard.type("over 20 so")
        expect(self.next).to_have_count(3)
        self.page.keyboard.press("ArrowDown")
        self.page.keyboard.press("ArrowDown")
        expect(self.next.nth(1)).to_have_attribute("aria-selected", "true")
        words = self.next.nth(1).locator(".say__words").text_content()
        self.page.keyboard.press("Enter")
        expect(self.line).to_have_value(
            f"words from 60 below, every 8 from the centre out over 20 {words} "
        )
        self.settled(lambda: self.page.keyboard.press("Enter"))
        (move,) = self.moves()
        ease = move["amount"]["keys"][0]["ease"]
        self.assertEqual(ease.replace("-", " "), words)
        self.assertEqual(move["stagger"], {"gap": 8, "order": "center-out"})

    def test_what_is_not_understood_is_marked_and_nothing_is_made(self):
        self.show()
        self.say("letters rise 100, evveery 2 ")
        expect(self.page.locator("#say-moves .say__fault")).to_have_text("evveery")
        expect(self.told).to_contain_text("“evveery” is not understood here: is “every” meant?")
        self.page.keyboard.press("Enter")
        expect(self.told).to_contain_text("“evveery” is not understood")
        expect(self.line).to_have_value("letters rise 100, evveery 2 ")
        self.assertEqual(self.moves(), [])
        self.page.keyboard.press("Tab")  # takes what is meant
        expect(self.line).to_have_value("letters rise 100, every 2 ")
        self.settled(lambda: self.page.keyboard.press("Enter"))
        self.assertEqual(self.moves()[0]["stagger"], {"gap": 2})

    def test_escape_gives_up_what_was_looked_at(self):
        self.show()
        self.at_frame(5)
        before = self.picture()
        self.say("rise 300")
        self.page.wait_for_function(
            "(before) => document.getElementById('canvas').toDataURL() !== before", arg=before
        )
        self.page.keyboard.press("Escape")
        expect(self.line).to_have_value("")
        self.page.wait_for_function(
            "(before) => document.getElementById('canvas').toDataURL() === before", arg=before
        )

    def test_effects_windows_styles_and_places_are_said_too(self):
        self.show()
        for text, path, value in (
            ("glow 80 %, 30 px around", "effects", None),
            ("seen within its line, 20 px soft above and below", "window", None),
            ("Fraunces, 90 px, white", "style", None),
            ("stands 700 px across, 300 px down", "transform", None),
        ):
            self.line.click()
            self.page.keyboard.type(text)
            self.settled(lambda: self.page.keyboard.press("Enter"))
            self.assertIn(path, self.document(self.scene)["layers"][0], value)
        layer = self.document(self.scene)["layers"][0]
        glow = {"kind": "glow", "strength": 80, "radius": 30}
        self.assertEqual(layer["effects"], [glow])
        self.assertEqual(layer["window"]["soft"], [0, 20, 0, 20])
        self.assertEqual((layer["style"]["font"], layer["style"]["size"]), ("Fraunces", 90))
        self.assertEqual(layer["transform"]["position"][:2], [700, 300])

    def test_all_selected_titles_are_meant(self):
        self.show(title(1), title(2, name="Second"), title(3, name="Third"))
        self.page.locator("body").click(position={"x": 600, "y": 5})
        self.page.keyboard.press("Control+a")
        self.say("rise 100")
        self.settled(lambda: self.page.keyboard.press("Enter"))
        self.assertEqual([len(self.moves(layer)) for layer in range(3)], [1, 1, 1])

    def test_a_card_is_edited_as_text(self):
        self.show(title(moves=[{"id": "m4", "name": "Rise", "pose": {"y": 80}, "amount": 0.5}]))
        card = self.page.locator("#move-m4")
        card.focus()
        self.page.keyboard.press("Enter")
        line = self.page.locator("#say-move-m4 .say__text")
        expect(line).to_have_value(
            "“Rise”: Each character is taken to 80 px below, all together, 50 % of the way, "
            "from frame 0 on."
        )
        expect(card.locator(".sentence")).to_be_hidden()
        line.fill("each word comes from 40 left, every 3")
        expect(self.page.locator("#say-move-m4-told")).to_have_text("Enter changes it.")
        self.settled(lambda: self.page.keyboard.press("Enter"))
        (move,) = self.moves()
        self.assertEqual((move["id"], move["name"], move["unit"]), ("m4", "Rise", "word"))
        self.assertEqual((move["pose"], move["stagger"]), ({"x": -40}, {"gap": 3}))
        expect(card.locator(".sentence")).to_be_visible()
        expect(card).to_be_focused()
        self.page.keyboard.press("Enter")
        self.page.keyboard.type(" flarg")
        self.page.keyboard.press("Escape")
        expect(card.locator(".sentence")).to_contain_text("comes from 40 px left")
        self.assertEqual(self.moves(), [move])

    def test_a_sentence_goes_on_at_its_plus(self):
        self.show(title(moves=[{"id": "m1", "name": "Rise", "pose": {"y": 80}}]))
        self.page.locator("#more-m1 > summary").click()
        find = self.page.locator("[data-offers-find]")
        expect(find).to_be_focused()
        self.page.keyboard.type("blu")
        expect(self.page.locator(".offer:visible")).to_have_text(["blur"])
        self.settled(lambda: self.page.keyboard.press("Enter"))
        self.assertEqual(self.moves()[0]["pose"], {"y": 80, "blur": 12})
        # Words that are no offer are the sentence going on.
        find.fill("evveery 3")
        expect(self.page.locator(".offers__none")).to_contain_text("is “every” meant?")
        find.fill("every 3 from the centre")
        expect(self.page.locator(".offers__none")).to_have_text("Enter goes on with it.")
        self.settled(lambda: self.page.keyboard.press("Enter"))
        (move,) = self.moves()
        self.assertEqual((move["name"], move["pose"]), ("Rise", {"y": 80, "blur": 12}))
        self.assertEqual(move["stagger"], {"gap": 3, "order": "center-out"})
        self.page.keyboard.press("Escape")
        expect(find).to_be_hidden()

    def test_the_gallery_opens_with_the_line(self):
        self.show()
        self.page.locator("#open-gallery").click()
        expect(self.page.locator("#say-gallery-text")).to_be_focused()
        self.page.keyboard.type("fade, every 2")
        self.settled(lambda: self.page.keyboard.press("Enter"))
        expect(self.page.locator("#gallery")).to_be_hidden()
        self.assertEqual(self.moves()[0]["pose"], {"opacity": 0})

    def test_the_palette_takes_sentences(self):
        self.show()
        self.page.keyboard.press("Control+k")
        self.page.keyboard.type("letters rise 100, fade, every 2")
        first = self.page.locator("#palette-list li").first
        expect(first).to_contain_text("Say: Each character comes from 100 px below and 0 % opaque")
        self.settled(lambda: self.page.keyboard.press("Enter"))
        self.assertEqual(self.moves()[0]["pose"], RISE)

    def test_moves_are_copied_and_pasted_as_text(self):
        self.context.grant_permissions(["clipboard-read", "clipboard-write"])
        rise = {"id": "m1", "name": "Rise", "pose": {"y": 80}, "stagger": {"gap": 2}}
        self.show(title(1, moves=[rise]), title(2, name="Second"))
        self.page.locator('.slab[data-layer="t1"]').click()
        self.page.locator("#move-m1").focus()
        self.page.keyboard.press("Control+c")
        expect(self.page.locator("#notices")).to_contain_text("Move copied, also as text")
        text = self.page.evaluate("navigator.clipboard.readText()")
        self.assertTrue(text.startswith("“Rise”: Each character is taken to 80 px below"), text)
        # Pasted in a field it is words, pasted on a title it is the move.
        self.line.click()
        self.page.keyboard.press("Control+v")
        expect(self.line).to_have_value(text)
        self.page.keyboard.press("Escape")
        self.page.evaluate("navigator.clipboard.writeText('Slide: words from 90 left, every 4')")
        self.page.locator("body").click(position={"x": 600, "y": 5})
        self.settled(lambda: self.page.keyboard.press("Control+v"))
        slide = self.moves()[-1]
        self.assertEqual((slide["name"], slide["pose"]["x"]), ("Slide", -90))


class LateSayingTest(LateTest):
    """Answers that come late, in another order, or not at all, and hands that type at once."""

    def say(self, text):
        self.page.locator("#say-moves-text").click()
        self.page.keyboard.type(text)
        self.page.keyboard.press("Enter")

    def test_what_is_typed_is_made_however_late_the_answers_are(self):
        self.page.evaluate("window.lateNumbers = ['/say/']")
        for delay in (0, 700):
            self.late(delay)
            with self.subTest(delay):
                self.settled(lambda: self.say("rise 70, every 4"))
                moves = self.document(self.scene)["layers"][0]["moves"]
                self.assertEqual((moves[-1]["pose"], moves[-1]["stagger"]["gap"]), ({"y": 70}, 4))
                expect(self.page.locator("#say-moves-text")).to_have_value("")

    def test_what_is_refused_comes_back(self):
        self.late(700)
        self.say("rise 70, evveery 2")
        line = self.page.locator("#say-moves-text")
        expect(line).to_have_value("")
        expect(line).to_have_value("rise 70, evveery 2")
        expect(self.page.locator("#say-moves-told")).to_contain_text("is “every” meant?")
        self.assertEqual(len(self.document(self.scene)["layers"][0]["moves"]), 1)
        # While something else is typed, it is told.
        self.page.keyboard.press("Enter")  # it is known to be wrong: it stays
        expect(line).to_have_value("rise 70, evveery 2")
        line.fill("")
        self.say("rise 70, overrrr 2")
        self.page.keyboard.type("fade")
        expect(self.page.locator("#notices")).to_contain_text("“rise 70, overrrr 2” was not said")
        expect(line).to_have_value("fade")

    def test_what_is_asked_at_once_is_answered_and_nothing_is_made(self):
        self.late(700)
        self.say("how do I make it loop?")
        line = self.page.locator("#say-moves-text")
        told = self.page.locator("#say-moves-told")
        expect(told).to_contain_text("a wave, a pulse or a shake goes on by itself")
        expect(line).to_have_value("how do I make it loop?")
        self.assertEqual(len(self.document(self.scene)["layers"][0]["moves"]), 1)
        self.page.keyboard.type("duplicate it")  # what was refused is selected
        self.page.keyboard.press("Enter")
        expect(self.page.locator(".slab")).to_have_count(2)

    def test_a_sentence_goes_on_from_what_it_is_by_then(self):
        """Said twice at once: the second goes on from what the first has made."""
        self.page.locator("#more-m1 > summary").click()
        expect(self.page.locator("[data-offers-find]")).to_be_focused()
        self.late(700)
        for text in ("its outline 3 wider", "every 9"):
            self.page.keyboard.type(text)
            self.page.keyboard.press("Enter")
        expect(self.page.locator("#sentence-m1")).to_contain_text("every 9 frames")
        (move,) = self.document(self.scene)["layers"][0]["moves"]
        self.assertEqual((move["pose"]["outline"], move["stagger"]["gap"]), (3, 9))

    def test_a_sentence_for_the_palette_is_typed_at_once(self):
        self.page.evaluate(NOT_AT_ALL, ["/say/", "never"])
        self.page.keyboard.press("Control+k")
        self.page.keyboard.type("rise 70, every 4")
        self.settled(lambda: self.page.keyboard.press("Enter"))
        self.assertEqual(self.document(self.scene)["layers"][0]["moves"][-1]["pose"], {"y": 70})
        # What is none comes back, to be put right.
        self.page.keyboard.press("Control+k")
        self.page.keyboard.type("rise 70, evveery 4")
        self.page.keyboard.press("Enter")
        expect(self.page.locator("#notices")).to_contain_text("is “every” meant?")
        expect(self.page.locator("#palette-field")).to_have_value("rise 70, evveery 4")

    def test_what_is_pasted_comes_before_what_is_done_after(self):
        """And where it was pasted, though something else is selected by then."""
        self.context.grant_permissions(["clipboard-read", "clipboard-write"])
        self.page.evaluate("navigator.clipboard.writeText('Slide: words from 90 left')")
        self.page.evaluate("window.lateNumbers = ['/say/']")
        self.late(700)
        self.page.locator("body").click(position={"x": 600, "y": 5})
        self.page.keyboard.press("Control+v")
        self.page.wait_for_timeout(200)
        self.page.keyboard.press("Control+z")
        expect(self.page.locator("#kept")).to_contain_text("All changes kept")
        self.scene.refresh_from_db()
        self.assertEqual(len(self.document(self.scene)["layers"][0]["moves"]), 1)
        self.page.keyboard.press("Control+Shift+z")
        expect(self.page.locator(".move")).to_have_count(2)
        self.assertEqual(self.document(self.scene)["layers"][0]["moves"][1]["name"], "Slide")

    def test_what_follows_a_new_layer_is_said_of_that(self):
        """Also when the next sentence is typed before the answer is there, and the one after."""
        self.late(700)
        line = self.page.locator("#say-moves-text")
        line.click()
        for text in ("a title “Two”, 60 px", "words rise 70", "every 9", "at 400 px across"):
            self.page.keyboard.type(text)
            self.page.keyboard.press("Enter")
        expect(self.page.locator("#kept")).to_contain_text("All changes kept", timeout=30_000)
        first, second = self.document(self.scene)["layers"]
        self.assertEqual((len(first["moves"]), second["text"]), (1, "Two"))
        (move,) = second["moves"]
        self.assertEqual((move["pose"], move["stagger"]["gap"]), ({"y": 70}, 9))
        self.assertEqual(second["transform"]["position"][0], 400)
        self.assertEqual(second["style"]["size"], 60)

    def test_what_is_selected_meanwhile_changes_nothing_of_it(self):
        """A layer is said, then a move of it; before either is answered, another is clicked."""
        self.late(900)
        line = self.page.locator("#say-moves-text")
        line.click()
        for text in ("2 stars with 5 corners, 300 px down", "from 70 below"):
            self.page.keyboard.type(text)
            self.page.keyboard.press("Enter")
        self.page.locator("#row-t1 [data-select-layer]").click()
        expect(self.page.locator("#kept")).to_contain_text("All changes kept", timeout=30_000)
        title, *stars = self.document(self.scene)["layers"]
        self.assertEqual(len(title["moves"]), 1)
        self.assertEqual([star["moves"][0]["pose"] for star in stars], [{"y": 70}] * 2)

    def test_two_sentences_typed_at_once_are_both_made(self):
        self.late(600)
        self.say("rise 70")
        self.say("drop 90")
        expect(self.page.locator(".move")).to_have_count(3)
        moves = self.document(self.scene)["layers"][0]["moves"]
        self.assertEqual([move["pose"] for move in moves[1:]], [{"y": 70}, {"y": -90}])

    def test_the_newest_answer_is_shown(self):
        """An answer to less of the text that comes later than one to all of it counts no more."""
        self.page.evaluate(
            """() => {
              const own = window.fetch;
              window.fetch = async (address, options) => {
                const isSaid = String(address).includes("/say/");
                const text = isSaid ? new URL(address, location).searchParams.get("text") : "";
                const answer = await own(address, options);
                if (isSaid) await new Promise((done) => setTimeout(done, 900 - 40 * text.length));
                return answer;
              };
            }"""
        )
        self.page.locator("#say-moves-text").click()
        self.page.keyboard.type("rise 70, ev", delay=90)
        expect(self.page.locator("#say-moves-next li").first).to_contain_text("every 2 frames")
        self.page.wait_for_timeout(1000)
        expect(self.page.locator("#say-moves-next li").first).to_contain_text("every 2 frames")

    def test_without_answers_what_is_typed_is_still_made(self):
        self.page.evaluate(NOT_AT_ALL, ["/say/", "never"])
        self.settled(lambda: self.say("rise 70"))
        self.assertEqual(self.document(self.scene)["layers"][0]["moves"][-1]["pose"], {"y": 70})


class LayersThatMoveTest(BrowserTest):
    """What is no title has moves too: said, taken from the gallery, changed in sentences."""

    def test_a_shape_and_the_members_of_a_group_are_moved(self):
        shape = {
            "kind": "shape", "name": "Moon", "span": [0, 60], "fill": "#FF0000", "stroke": None,
            "shape": {"kind": "rectangle", "size": [60, 60]},
        }  # fmt: skip
        places = [{"position": [x, 500, 0]} for x in (-100, 100)]
        layers = [
            {**shape, "id": f"s{n}", "group": "g", "transform": place}
            for n, place in enumerate(places)
        ]
        group = {"kind": "group", "id": "g", "name": "Moons", "span": [0, 60]}
        group["transform"] = {"position": [960, 0, 0]}
        self.scene = self.open_scene(self.sign_in(), layers=[*layers, group])
        self.page.locator('.slab[data-layer="g"] .slab__no').click()
        self.page.locator("#say-moves-text").click()
        self.page.keyboard.type("members rise 100, fade, every 6")
        self.settled(lambda: self.page.keyboard.press("Enter"))
        (move,) = self.document(self.scene)["layers"][2]["moves"]
        self.assertEqual((move["unit"], move["stagger"]), ("member", {"gap": 6}))
        expect(self.page.locator(".move .sentence")).to_contain_text("Each member comes from")
        self.type_value("g.moves.m1.pose.y", "150")
        # The gallery offers what suits it, shown on it.
        self.page.locator("#open-gallery").click()
        gallery = self.page.locator("#gallery")
        expect(gallery.locator('[data-film="rise"]')).to_be_visible()
        expect(gallery.locator(".gcard[data-letters]").first).to_be_hidden()
        self.page.wait_for_function(
            "() => document.querySelector('[data-film=rise]').naturalHeight > 32 * 100"
        )
        self.settled(gallery.locator('[data-add-move="rise"]').click)
        moves = self.document(self.scene)["layers"][2]["moves"]
        self.assertEqual([move["unit"] for move in moves], ["member", "member"])
        # A member has moves of its own.
        self.page.locator('.slab[data-layer="s0"] .slab__no').click()
        self.page.locator("#say-moves-text").click()
        self.page.keyboard.type("turn 90, over 10")
        self.settled(lambda: self.page.keyboard.press("Enter"))
        (move,) = self.document(self.scene)["layers"][0]["moves"]
        self.assertEqual((move["unit"], move["pose"]), ("layer", {"rotation": 90}))
