"""What people say in words of their own: every way of the tables, and phrases."""

import re
from dataclasses import replace
from itertools import product
from pathlib import Path
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from balletto.sentences.language.tokens import SayingError
from balletto.sentences.reader import Context, read
from balletto.understanding.several import statements_in, understand
from balletto.understanding.understand import title_words, understand_line
from balletto.understanding.ways import ALL_TABLES, LOOK_TABLES, MOVE_TABLES, table
from benchmarks.hands import wordings

from .test_saying import near

TITLE = "The Quiet Orbit of all"
CONTEXT = Context(text=TITLE, kind="title", end=150)
MOVE = (
    "letters from 80 below and turned 90°, fade, blur 6, from 50 % of their size, by chance 3, "
    "every 2 shuffled, over 20 spring 0.3"
)
MOVES = (
    MOVE, "letters fade, every 2", "shaken 9/s by 6 px", "wave 12 px up", "words from off the left",
    "is (0 % at 0, 100 % at 10) opaque", "letters coloured red by a sweep from 0 % to 20 %",
    "letters become “HELLO”",
)  # fmt: skip
# What ways of looks that say but a part are said with.
FRAMES = {
    "effects.displace": ("wobbling outlines, {}",),
    "windows.window": ("mask each word to its box, {}",), "windows.mask": ("round mask, {}",),
    "effects.glow": ("glow, {}",), "effects.blur": ("blur 3 px, {}",),
    "effects.shadow": ("drop shadow, {}", "shadow, {}"), "effects.hatch": ("scribble fill, {}",),
    "effects.trail": ("echo of 3 ghosts, {}",), "effects.caret": ("blinking cursor, {}",),
    "places": ("in the middle, {}", "left: 20 px, {}", "run along Ring, {}"),
    "copies": ("8 copies in a ring of 20 px, {}", "8 copies in a row, {}",
               "grid of 3 by 4 copies, {}", "8 copies in a ring, {}"),
    "scenes": ("uhd, {}",), "styles": ("bold, {}", "the font {}"), "letters": ("{}, bold",),
    "spans": ("bold, {}",), "layers.title": ("{}, bold",),
    "layers.shape": ("red bar, {}", "half circle, {}", "{}, in the middle"),
    "flurries": ("40 hearts floating up, {}",),
}  # fmt: skip
GUIDE = Path(__file__).parents[2] / "docs" / "guide.md"
# For what the examples of the guide are said: a title, its move, a shape that moves.
AROUND = (
    (Context(text="The Moons", kind="title", shapes=("Orbit",), end=150), ""),
    (Context(text="The Moons", kind="title", has_copies=True, end=150), MOVE),
    (Context(text="The Moons", kind="title", several=True), ""),
    (Context(kind="shape", shape="path", has_copies=True), "layer becomes a star"),
)
PHRASES = Path(__file__).with_name("other_words.txt")
_SAMPLES = {
    "t": "12 frames", "k": "12 frames", "p": "20 px", "a": "30°", "g": "30°", "s": "40 %",
    "l": "40 %", "n": "18", "x": "2x", "m": "50", "c": "red", "q": "“Quiet”",
    "e": "cubic-bezier(0.2, 0, 0.1, 1)", "v": "5", "d": "30x30", "h": "24 fps", "w": "Orbit",
    "i": "O", "o": "title",
    "y": "stars",
}  # fmt: skip


def example_of(words):
    """What one would type to say it so: without what may be left out, the first of several."""
    said = words.replace("\\(", "«").replace("\\)", "»")
    said = re.sub(r"\[ -\]\??", "-", said)
    while "[" in said:
        said = re.sub(r"\[[^\[\]]*\]\??", "", said)
    said = re.sub(r"\w\?(?=\W|$)|\([^()]*\)\?", "", said)
    while "(" in said:
        said = re.sub(r"\(([^()|]*)(?:\|[^()]*)?\)", r"\1", said)
    said = re.sub(r"<(\w)>", lambda match: _SAMPLES[match[1]], said)
    return " ".join(said.replace("«", "(").replace("»", ")").split())


def meaning(line, move=""):
    return understand_line(line, CONTEXT, move)


class TablesTest(TestCase):
    """No way of speaking can go stale: what each means is read in our wording."""

    def assert_understood(self, way, *frames, moves=("",)):
        faults = []
        for frame, move in product(frames, moves):
            try:
                meaning(frame.format(example_of(way.words)), move)
            except SayingError as fault:
                faults.append(str(fault))
            else:
                return
        self.fail(f"{way.words}: {faults}")

    def test_ways_of_moving(self):
        frames = (
            "{}", "fade in, {}", "letters rise 20 px, {}", "shake, {}", "wobble, {}", "pulse, {}",
            "fade in over 5 frames, {}, fade out", "fade in over 5 frames, hold for 2 frames, {}",
            "tracking opens, {}", "fade out, {}", "a gold shine travels through the letters, {}",
            "fade out {}, from frame 20", "wipe on, {}",
        )  # fmt: skip
        for name in MOVE_TABLES:
            for way in table(name):
                with self.subTest(table=name, way=way.words):
                    self.assert_understood(way, *frames)

    def test_what_is_meant_has_the_values_that_are_said(self):
        for name in ALL_TABLES:
            lines = {}
            for way in table(name):
                lines.setdefault(way.means, set()).update(re.findall(r"\?P<(\w+)>", way.whole))
            for means, slots in lines.items():
                with self.subTest(table=name, means=means):
                    needed = set(re.findall(r"\{([a-z]\d?)[^}]*\}", " ".join(means)))
                    self.assertLessEqual(needed, slots)

    def test_ways_of_looks_and_places(self):
        for name in dict.fromkeys(name for tables in LOOK_TABLES for name in tables):
            for way in table(name):
                if way.means != ("note",):
                    with self.subTest(table=name, way=way.words):
                        self.assert_understood(way, "{}", *FRAMES.get(name, ()))

    def test_ways_of_changing(self):
        for way in table("changes"):
            with self.subTest(way=way.words):
                self.assert_understood(way, "{}", moves=MOVES)

    def test_a_change_is_made_or_told_whatever_the_move_is(self):
        of_each_kind = {way.means: way for way in table("changes")}.values()
        for way, move in product(of_each_kind, MOVES):
            with self.subTest(way=way.words, move=move):
                try:
                    meaning(example_of(way.words), move)
                except SayingError as fault:
                    self.assertTrue(str(fault))

    def test_what_comes_again_takes_as_long_as_is_said(self):
        for move, slower in (
            ("wave 12 px up, every 60", "wave 12 px up, every 120"),
            ("shaken 8/s by 6 px", "shaken 4/s by 6 px"),
            ("is (0 % at 0, 100 % at 10) opaque", "is (0 % at 0, 100 % at 20) opaque"),
        ):
            with self.subTest(move):
                self.assertEqual(meaning("twice as slow", move).sentence, meaning(slower).sentence)


class PhrasesTest(TestCase):
    """Phrases as strangers would type them, each with a sentence of ours that means the same."""

    def test_they_mean_what_they_mean(self):
        for line in PHRASES.read_text(encoding="utf-8").splitlines():
            if not line.strip() or line.startswith("#"):
                continue
            said, _, rest = line.partition(" = ")
            means, _, move = rest.partition(" | ")
            with self.subTest(said):
                found, expected = meaning(said, move), meaning(means)
                if expected.meaning.what == "move":
                    self.assertEqual(found.sentence, expected.sentence)
                else:
                    self.assertEqual(near(found.meaning), near(expected.meaning))

    def test_another_random_order_is_another(self):
        found = meaning("another random order", "letters fade, every 2 shuffled").meaning.data
        self.assertEqual(found["stagger"]["seed"], 1)

    def test_what_is_ours_is_asked_first(self):
        for line in (
            "letters rise 100, fade, every 2",
            "grey, 60 px",
            "glow 80 %",
            "in the middle",
        ):
            found = meaning(line)
            self.assertIsNone(found.fault)
            self.assertEqual(found.meaning, read(line, CONTEXT))

    def test_what_is_assumed_is_told(self):
        self.assertEqual(meaning("words pop in one by one").assumed, ("every 2",))
        self.assertEqual(meaning("words pop in, 3 frames apart").assumed, ())

    def test_no_word_is_lost(self):
        for line, lost in (
            ("letters fly in from the left, bananas", "bananas"),
            ("fade in, 12 frames, rumpelstiltskin", "rumpelstiltskin"),
            ("words pop in upholstered", "upholstered"),
        ):
            with self.subTest(line), self.assertRaises(SayingError) as refused:
                meaning(line)
            fault = refused.exception
            self.assertEqual(line[fault.start : fault.end], lost)

    def test_nothing_is_understood_by_halves(self):
        for line in (
            "slide in from the left, hold for 2 s, fade out",
            "letters fly in, then explode",
        ):
            with self.subTest(line), self.assertRaises(SayingError) as refused:
                meaning(line)
            self.assertIn("a sentence of its own", str(refused.exception))

    def test_a_name_is_a_name_and_a_property_is_none(self):
        for name in ("Spin", "Text", "Line", "Left"):
            with self.subTest(name):
                line = f"{name}: letters from 100 below"
                self.assertEqual(meaning(line).meaning, read(line, CONTEXT))
        for line in ("filter: blur(8px)", "y: 60 → 0", "letter-spacing: .05em"):
            with self.subTest(line):
                self.assertNotIn("name", meaning(line).meaning.data)

    def test_numbers_and_colours_beyond_all_sense_are_told(self):
        many = "9" * 400
        for text in (f"x {many}", f"rgb({many},0,0)", f"{many}:10 fade", "rgb(1,2)", "fade 😀"):
            with self.subTest(text[:20]), self.assertRaises(SayingError):
                meaning(text)

    def test_shares_are_of_the_picture_that_there_is(self):
        tall = replace(CONTEXT, size=(1080, 1920))
        for line, path in (
            ("translateX(-100vw)", {"x": -1080}),
            ("bar, full width, 20 px high", None),
        ):
            data = understand_line(line, tall).meaning.data
            with self.subTest(line):
                self.assertEqual(
                    data.get("pose") if path else data["shape"]["size"], path or [1080, 20]
                )

    def test_a_layer_that_is_turned_keeps_its_size(self):
        found = meaning("rotate it 10 degrees").meaning
        self.assertEqual((found.what, found.data), ("place", {"rotation.2": 10}))

    def test_words_and_lines_of_any_length_are_bounded(self):
        for line in ("x" * 3999, "fade " * 799, "bold, " * 660, "a " * 1999, "x" * 100_000,
                     f"fade{' ' * 3900}then out", "fade, letters 0 at a time"):  # fmt: skip
            with self.subTest(line[:8]):
                try:
                    understand(line, CONTEXT)
                except SayingError as fault:
                    self.assertTrue(str(fault))
        with self.assertRaisesRegex(SayingError, "at most"):  # before anything is looked for in it
            statements_in(f"{' ' * 100_000}then", self.fail, CONTEXT)

    def test_a_title_in_title_case_is_no_new_title(self):
        for line in ("Title Fade In", "Text Slides In From The Left"):
            self.assertEqual(meaning(line).meaning.what, "move", line)
        self.assertEqual(meaning("title Hello in the middle").meaning.data["text"], "Hello")
        with self.assertRaisesRegex(SayingError, "^“MOON DAY” is not"):
            meaning("write MOON DAY in the centre, white on blue, letters rise")

    def test_a_number_alone_is_nothing_by_itself(self):
        for name in ("places", "spans", "scenes", "copies", "flurries", "layers.shape"):
            for way in table(name):
                self.assertIsNone(way.pattern.fullmatch("N0 "), (name, way.words))
        with self.assertRaises(SayingError):
            meaning("101 stars")

    def test_a_small_slip_is_mended(self):
        self.assertEqual(meaning("wrods pop in").sentence, meaning("words pop in").sentence)
        self.assertEqual(
            meaning("letters slide in from the lfet").sentence,
            meaning("letters slide in from the left").sentence,
        )

    def test_several_statements_in_one_line(self):
        for line, kinds in (
            ("bold, 90 px, with a soft glow, then fade in", ["style", "effect", "move"]),
            ("words fly in from the left; glow 10 px", ["move", "effect"]),
            ("drop shadow and 3 px black outline", ["effect", "style"]),
            ("make it gold, with a hard shadow", ["style", "effect"]),
            ("white with a soft glow", ["style", "effect"]),
            ("fade in over 10 frames, then fade out from 70 on", ["move", "move"]),
            ("“bold, and red” in white", None),
            ("bold, then bananas", None),
        ):
            with self.subTest(line):
                if kinds is None:
                    with self.assertRaises(SayingError):
                        understand(line, CONTEXT)
                else:
                    found = understand(line, CONTEXT)
                    self.assertEqual([each.meaning.what for each in found], kinds)

    def test_what_happens_then_begins_as_what_comes_before_it_is_done(self):
        context = replace(CONTEXT, end=150)
        for line, starts in (
            ("fade in, fade out", [0, 130]),
            ("letters rise one by one, then it shakes", [0, 54]),
            ("pop in, wiggle, fade out", [0, 20, 130]),
            ("it drops in with a bounce, holds two seconds, then shrinks away", [0, 80]),
            ("slide in from the left, wait 20 frames, fall out", [0, 40]),
            ("it pops in and wobbles", [0, 20]),
            ("words rise from below, then fade out at the end", [0, 130]),
            ("first word from the left, last word from the right", [0, 0]),
            ("odd letters from the top, even letters from the bottom", [0, 0]),
        ):
            with self.subTest(line):
                found = [each.meaning.data for each in understand(line, context)]
                self.assertEqual([move.get("start", 0) for move in found], starts)
        _, _, then = understand("a title “Go”, letters rise one by one, then it shakes", context)
        self.assertEqual(then.meaning.data["start"], 22)  # by the letters of the new one
        with self.assertRaises(SayingError):  # it is not known when its layer ends
            understand("fade in, fade out", replace(CONTEXT, end=0))

    def test_what_rises_from_behind_an_edge_is_seen_within_its_line(self):
        context = replace(CONTEXT, letter_size=200)
        for line, far in (
            ("words slide up from behind a mask", "260 px below"),
            ("letters drop out of the line, one by one", "260 px above"),
            ("masked reveal over 12 frames", "260 px below"),
            ("lines rise 90 from behind their baseline", "90 px below"),
        ):
            with self.subTest(line):
                move, seen = understand(line, context)
                self.assertEqual((move.meaning.what, seen.meaning.what), ("move", "window"))
                self.assertIn(far, move.sentence)
        for line in ("letters tip up from the baseline", "letters turn in from the edges in"):
            self.assertEqual(len(understand(line, context)), 1, line)

    def test_what_leaves_at_the_end_is_gone_by_the_end_of_its_layer(self):
        context = replace(CONTEXT, text="Moon", end=120)
        for line, starts in (
            ("fade out at the end", (100,)), ("fade out over the last 10 frames", (110,)),
            ("leave at the end, letter by letter", (94,)), ("fade in and out", (0, 100)),
            ("words rise in and out over 10 frames", (0, 110)),
        ):  # fmt: skip
            with self.subTest(line):
                found = [each.meaning.data.get("start", 0) for each in understand(line, context)]
                self.assertEqual(found, [*starts])
        with self.assertRaisesRegex(SayingError, "say at which frame"):
            understand("fade out at the end", replace(CONTEXT, end=0))

    def test_lines_are_understood_each_by_itself(self):
        first, second = understand("words pop in\ndead center", CONTEXT)
        self.assertEqual((first.meaning.what, second.meaning.what), ("move", "place"))
        with self.assertRaises(SayingError) as refused:
            understand("words pop in\nbananas", CONTEXT)
        self.assertEqual(refused.exception.start, len("words pop in\n"))
        for text in ("", "   \n ", "x" * 100_000):
            with self.assertRaises(SayingError):
                understand(text, CONTEXT)

    def test_a_change_says_what_it_cannot_change(self):
        with self.assertRaises(SayingError):
            meaning("another random order", "letters from 80 below, over 20")
        with self.assertRaises(SayingError):
            meaning("without the fade", "letters fade")

    @given(st.lists(st.sampled_from([
        "letters", "fade", "in", "from", "the", "left", "12", "px", "%", "to", "(", ")", ",", ":",
        "over", "2s", "“Orbit”", "red", "-", "90°", "half", "a", "every", "minus", "→", "½", "#f0f",
        "shake", "back", "1:12", "twice", "as", "slow", "\\", "”", "{0}", "cubic-bezier(1,2,3,4)",
    ]), max_size=12))  # fmt: skip
    def test_whatever_is_typed_is_understood_or_told(self, words):
        for move in ("", MOVE):
            try:
                understand_line(" ".join(words), CONTEXT, move)
            except SayingError as fault:
                self.assertTrue(str(fault))

    def test_the_words_of_a_title(self):
        self.assertEqual(title_words("Hello, “World”!"), ["hello", "“world”"])
        self.assertEqual(title_words(None), [])


class GuideTest(TestCase):
    """What the guide says can be said: all its examples are understood, but for those of values,
    keys and commands, and for what is said of a layer by its name."""

    def test_every_example_is_understood(self):
        text = GUIDE.read_text(encoding="utf-8")
        chapters = (part for part in text.split("\n## ") if not part.startswith(("Values", "Keys")))
        quoted = (said for part in chapters for said in re.findall(r"`([^`]+)`", part))
        examples = [said for said in (" ".join(each.split()) for each in quoted) if " " in said]
        self.assertGreater(len(examples), 60)
        for said in examples:
            if said.startswith(("bin/", "--", "from behind")):
                continue
            with self.subTest(said):
                understood = [self.is_understood(said, *around) for around in AROUND]
                self.assertTrue(any(understood))

    def is_understood(self, said, context, move):
        try:
            return bool(understand(said, context, move))
        except SayingError:
            return False


class JobsTest(TestCase):
    """The sentences of the jobs that hands are measured by, in words of newcomers."""

    def test_they_mean_the_same(self):
        titles = {"Comet": "Orbit\nComet\nDusk", "Dusk": "Orbit\nComet\nDusk"}
        for ours, theirs in wordings().items():
            move = "words from 90 below, over 40" if ours in ("soft both", "quick landing") else ""
            text = next((titles[name] for name in titles if name in ours), "Winter moons")
            context = Context(text=text, kind="title")
            for said in theirs:
                with self.subTest(said):
                    self.assertEqual(*(self.told(each, context, move) for each in (ours, said)))

    @staticmethod
    def told(line, context, move):
        return [
            (each.meaning.what, each.sentence if each.meaning.what == "move" else each.meaning.data)
            for each in understand(line, context, move)
        ]


class NothingLostTest(TestCase):
    """Of two things that cannot both be, none is lost without a word."""

    def test_what_contradicts_itself_is_refused(self):
        for line in (
            "letters slide in from the left and from the right",
            "words fly in from the left and the top",
            "from below, starting at frame 10, starting at frame 20",
            "the whole title goes to (off the bottom at 0, off the top at 300)",
            "letters is at (0 px below at 0, 40 px above at 20 soft landing)",
        ):
            with self.subTest(line), self.assertRaises(SayingError):
                meaning(line)

    def test_what_is_said_beside_keys_leaves_them(self):
        course = "letters from 100 below at 0, 60 above at 5, home at 15"
        data = meaning(f"{course}, fade over 5").meaning.data
        self.assertEqual(data["pose"]["y"], meaning(course).meaning.data["pose"]["y"])
        self.assertEqual([key["at"] for key in data["pose"]["opacity"]["keys"]], [0, 5])
        self.assertNotIn("amount", data)

    def test_what_a_sweep_brings_home_needs_no_time_of_its_own(self):
        line = "letters rise 100, by a sweep from (0 % at 0, 100 % at 50) to 100 %"
        self.assertNotIn("amount", meaning(line).meaning.data)
        self.assertIn("amount", meaning(f"{line}, over 20").meaning.data)

    def test_one_number_is_meant_for_both_ways(self):
        self.assertEqual(meaning("blur 6 px").meaning.data, {"kind": "blur", "x": 6, "y": 6})
        shape = meaning("a line of 60 px").meaning.data
        self.assertEqual(shape["shape"]["to"], [30, 0])
        self.assertEqual(meaning("a line of 6 px").meaning.data["stroke"], {"width": 6})
