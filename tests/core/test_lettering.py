"""Setting titles: characters, words and lines, their places, boxes and outlines."""

from unittest import TestCase, mock

import numpy as np

from balletto.lettering import faces
from balletto.lettering.faces import axes_of, face
from balletto.lettering.families import FAMILIES
from balletto.lettering.layout import lay_out
from balletto.lettering.units import words_of
from balletto.scene import files
from balletto.scene.letters.characters import characters_of

from .scenes import scene_data


def layout(text, runs=(), moves=None, **style):
    data = scene_data(text)
    data["layers"][0]["style"].update(style)
    data["layers"][0]["runs"] = list(runs)
    if moves is not None:
        data["layers"][0]["moves"] = moves
    made = files.from_data(data)
    return lay_out(made, made.layers[0])


class UnitsTest(TestCase):
    def test_a_character_is_what_a_reader_calls_one(self):
        for text, count in (
            ("naïve", 5),
            ("nai\u0308ve", 5),
            ("👩‍🚀🇫🇮", 2),
            ("a\r\nb", 3),
            ("", 0),
        ):
            with self.subTest(text):
                self.assertEqual(len(characters_of(text)), count)

    def test_words(self):
        for text, words in (
            ("Doors at 19:30", [0] * 5 + [-1] + [1] * 2 + [-1] + [2] * 5),
            ("“Quiet,” she said", [0] * 8 + [-1] + [1] * 3 + [-1] + [2] * 4),
            ("it's\nso-so", [0] * 4 + [-1] + [1] * 5),
            ("東京です", [0, 1, 2, 3]),
            ("  ", [-1, -1]),
        ):
            with self.subTest(text):
                self.assertEqual(words_of(characters_of(text)), words)


class ItalicTest(TestCase):
    def test_letters_lean_that_have_no_italic_of_their_own(self):
        def lean(font, **axes):
            """How far the top of an I is to the right of its foot, by its height."""
            glyph = layout("I", font=font, axes=axes).characters[0].glyphs[0]
            points = np.array([xy for _, xy in glyph.commands if len(xy) == 2])
            top, foot = (points[points[:, 1] == edge, 0].mean()
                         for edge in (points[:, 1].max(), points[:, 1].min()))  # fmt: skip
            return (top - foot) / np.ptp(points[:, 1])

        own = lean("Anybody", ital=1) - lean("Anybody")
        self.assertAlmostEqual(own, np.tan(np.radians(12)), 3)
        self.assertAlmostEqual(lean("Recursive", ital=1), lean("Recursive", slnt=-15), 6)
        self.assertGreater(lean("Recursive", ital=1), 0.1)


class LayoutTest(TestCase):
    def test_white_space_takes_no_part(self):
        self.assertEqual([c.text for c in layout("A b").characters], ["A", "b"])
        for blank in ("", " \n "):
            empty = layout(blank)
            self.assertEqual([empty.count(kind) for kind in empty.boxes], [0, 0, 0, 0])

    def test_alignment_and_middle(self):
        for align, edge in (("left", 0), ("center", 1), ("right", 2)):
            left, top, right, bottom = layout("Orbit", align=align).boxes["title"][0]
            self.assertAlmostEqual((left, (left + right) / 2, right)[edge], 0, places=9)
            self.assertAlmostEqual(top, -bottom, places=9)

    def test_leading_is_the_distance_of_baselines(self):
        boxes = layout("a\nb\nc", size=100, leading=1.5).boxes["line"]
        np.testing.assert_allclose(np.diff(boxes[:, 1]), 150)

    def test_a_line_without_letters_keeps_its_height(self):
        two = layout("a\n\nb", size=100, leading=1).boxes["line"]
        self.assertEqual(len(two), 2)
        self.assertAlmostEqual(two[1, 1] - two[0, 1], 200)

    def test_tracking_moves_letters_apart(self):
        plain, wide = layout("AVA").boxes["title"][0], layout("AVA", tracking=100).boxes["title"][0]
        self.assertAlmostEqual((wide[2] - wide[0]) - (plain[2] - plain[0]), 2 * 12, places=6)

    def test_kerning(self):
        pair = layout("AV", font="Fraunces").boxes["title"][0]
        alone = [layout(letter, font="Fraunces").boxes["title"][0] for letter in "AV"]
        self.assertLess(pair[2] - pair[0], sum(box[2] - box[0] for box in alone))

    def test_ligatures_are_not_formed_between_letters_that_move_apart(self):
        still = layout("ffi", moves=[], font="Fraunces")
        self.assertEqual(sum(bool(c.glyphs) for c in still.characters), 1)
        for apart in (
            layout("ffi", font="Fraunces"),
            layout("ffi", moves=[], font="Fraunces", tracking=9),
        ):
            self.assertEqual(sum(bool(c.glyphs) for c in apart.characters), 3)

    def test_axes_change_the_letters(self):
        widths = [
            np.ptp(layout("Orbit", axes={"wdth": wdth}).boxes["title"][0][[0, 2]])
            for wdth in (50, 100, 150, 400)
        ]
        self.assertTrue(widths[0] < widths[1] < widths[2])
        self.assertEqual(widths[2], widths[3])  # as far as the axis goes

    def test_an_axis_that_a_font_lacks_has_no_effect(self):
        plain, odd = (layout("Orbit", font="Limelight", axes=axes) for axes in ({}, {"CASL": 1}))
        self.assertEqual(
            [character.glyphs for character in plain.characters],
            [character.glyphs for character in odd.characters],
        )

    def test_runs_style_single_letters(self):
        runs = [{"from": 4, "to": 6, "style": {"fill": "#FF0000", "size": 240}}]
        big = layout("The Quiet", runs)
        self.assertEqual(
            [c.fill for c in big.characters][2:6], ["#FFFFFF", "#FF0000", "#FF0000", "#FFFFFF"]
        )
        heights = np.diff(big.boxes["character"][:, [1, 3]], axis=1)[:, 0]
        self.assertAlmostEqual(heights[3], 2 * heights[0])

    def test_letters_beyond_the_first_file_of_a_family(self):
        """ "ő" and "ł" are in the second file; each still has an outline."""
        for name in FAMILIES:
            with self.subTest(name):
                got = layout("ołő", font=name)
                self.assertTrue(all(character.glyphs for character in got.characters))

    def test_combining_marks_belong_to_their_letter(self):
        self.assertEqual([c.text for c in layout("e\u0301a").characters], ["e\u0301", "a"])

    def test_texts_of_units(self):
        got = layout("Doors at\nseven")
        self.assertEqual(got.texts("word"), ["Doors", "at", "seven"])
        self.assertEqual(got.texts("line"), ["Doors at", "seven"])
        self.assertEqual(got.texts("title"), ["Doors at seven"])


def order(got):
    """The characters of a layout from left to right."""
    lefts = got.boxes["character"][:, 0]
    return "".join(got.characters[index].text for index in np.argsort(lefts))


class DirectionTest(TestCase):
    def test_hebrew_runs_to_the_left_and_is_read_in_its_order(self):
        got = layout("שלום")
        self.assertEqual([c.text for c in got.characters], list("שלום"))
        self.assertEqual(order(got), "םולש")

    def test_mixed_text_keeps_each_way(self):
        for text, seen in (
            ("abc אבג def", "abcגבאdef"),
            ("אבג abc דהו", "והדabcגבא"),
            ("אבג 123", "123גבא"),
            ("(אב)", ")בא("),
            ("a \u202ebc\u202c d", "acbd"),
        ):
            with self.subTest(text):
                self.assertEqual(order(layout(text)).translate(MARKS), seen.translate(MARKS))

    def test_arabic_letters_join(self):
        """A letter in the middle of a word is another glyph than alone."""
        alone, joined = layout("ب"), layout("ببب")
        own, *forms = (
            {glyph.number for glyph in character.glyphs}
            for character in (*alone.characters, *joined.characters)
        )
        self.assertTrue(all(form != own for form in forms))
        self.assertEqual([c.family for c in joined.characters], ["Noto Sans Arabic"] * 3)


# Marks of direction and mirrored brackets do not count when orders are compared.
MARKS = {0x202E: None, 0x202C: None, ord("("): "|", ord(")"): "|"}


class FallbackTest(TestCase):
    def test_each_script_finds_a_font(self):
        for text, family in (("Ω", "Noto Sans"), ("Ж", "Noto Sans"), ("ש", "Noto Sans Hebrew"),
                             ("ม", "Noto Sans Thai"), ("🎬", "Twemoji"), ("☎", "Noto Emoji"),
                             ("東", "Noto Sans SC"), ("あ", "Noto Sans JP"), ("별", "Noto Sans KR"),
                             ("\U00012000", None),
                             ("A", "Limelight")):  # fmt: skip
            with self.subTest(text):
                character = layout(text, font="Limelight").characters[0]
                self.assertEqual(character.family, family)
                self.assertTrue(character.glyphs)

    def test_letters_that_languages_share_are_those_of_the_text(self):
        """By what is said of it, or else by the other letters that it has."""
        for text, language, family in (
            ("骨直", None, "Noto Sans SC"), ("骨直は", None, "Noto Sans JP"),
            ("骨直 별", None, "Noto Sans KR"), ("骨直", "ja", "Noto Sans JP"),
            ("骨直は", "zh-Hant", "Noto Sans SC"), ("骨直", "ko", "Noto Sans KR"),
        ):  # fmt: skip
            with self.subTest(text, language=language):
                got = layout(text, font="Figtree", language=language)
                self.assertEqual(got.characters[0].family, family)

    def test_what_no_slice_of_a_font_has_is_looked_for_without_opening_any(self):
        with mock.patch.object(faces, "_open", side_effect=faces._open) as opened:
            layout("A", font="Limelight", size=97)
        self.assertFalse([c for c in opened.call_args_list if "noto-sans-jp" in str(c)])
        for family in (FAMILIES[name] for name in ("Noto Sans JP", "Noto Sans KR")):
            slices = {path: faces.covered_by(path) for path in family.files[:4]}
            for path, covered in slices.items():
                self.assertEqual(covered, faces._open(path).covered)

    def test_a_font_has_letters_of_its_own_for_a_language(self):
        for language, text in (("ro", "ş"), ("sr", "б")):
            with self.subTest(language):
                usual, own = (
                    [g.number for c in layout(text, font="Noto Sans", language=said).characters
                     for g in c.glyphs]
                    for said in (None, language)
                )  # fmt: skip
                self.assertNotEqual(usual, own)
        # Of a title, and of some of its letters.
        run = {"from": 1, "to": 2, "style": {"language": "ro"}}
        first, second = layout("şş", runs=[run], font="Noto Sans").characters
        self.assertNotEqual(first.glyphs[0].number, second.glyphs[0].number)

    def test_a_letter_and_its_mark_may_have_one_glyph_together(self):
        """Limelight has no mark of its own for the accent, and was left for another font."""
        for name in ("Limelight", "Anybody"):
            character = layout("e\u0301", font=name).characters[0]
            self.assertEqual(character.family, name)
            self.assertTrue(character.glyphs)

    def test_a_joined_emoji_is_one_glyph(self):
        got = layout("👩‍🚀❤️")
        self.assertEqual([len(c.glyphs) for c in got.characters], [1, 1])

    def test_the_weight_is_kept(self):
        light, heavy = (layout("ש", axes={"wght": w}).ink[0] for w in (200, 900))
        self.assertGreater(np.ptp(heavy[[0, 2]]), np.ptp(light[[0, 2]]))

    def test_thai_marks_stay_with_their_letter(self):
        got = layout("สวัสดี")
        self.assertEqual([c.text for c in got.characters], ["ส", "วั", "ส", "ดี"])
        self.assertEqual(got.count("word"), 4)


class WrapTest(TestCase):
    def lines(self, text, wrap, **style):
        got = layout(text, wrap=wrap, **style)
        return got.texts("line"), got

    def test_lines_are_broken_between_words(self):
        texts, got = self.lines("nine moons set line by line", 560, size=80)
        self.assertEqual(texts, ["nine moons", "set line by", "line"])
        widths = np.ptp(got.boxes["line"][:, [0, 2]], axis=1)
        self.assertLessEqual(widths.max(), 560)
        np.testing.assert_allclose(got.boxes["line"][:, [0, 2]].mean(axis=1), 0, atol=1e-9)

    def test_no_break_where_none_is_allowed(self):
        texts, _ = self.lines("doors at\u00a0nine", 330, size=80)
        self.assertEqual(texts, ["doors", "at nine"])

    def test_a_word_that_is_too_wide_is_broken(self):
        texts, got = self.lines("Planetarium", 300, size=80)
        self.assertGreater(len(texts), 1)
        self.assertEqual("".join(texts), "Planetarium")
        self.assertLessEqual(np.ptp(got.boxes["line"][:, [0, 2]], axis=1).max(), 300)

    def test_white_space_at_the_end_may_stand_out(self):
        texts, got = self.lines("nine      moons", 380, size=80)
        self.assertEqual(texts, ["nine", "moons"])
        np.testing.assert_allclose(got.boxes["word"][:, [0, 2]].mean(axis=1), 0, atol=1e-9)

    def test_a_line_of_its_own_for_each_paragraph(self):
        texts, _ = self.lines("one\n\ntwo three", 10_000)
        self.assertEqual(texts, ["one", "two three"])


class FacesTest(TestCase):
    def test_every_family_is_whole(self):
        for name, family in FAMILIES.items():
            with self.subTest(name):
                self.assertTrue(all(path.exists() for path in family.files))
                self.assertTrue((family.files[0].parent / "LICENSE.txt").exists())
                self.assertGreater(face(family).ascent, face(family).descent)

    def test_what_is_chosen_of_a_font(self):
        def pitches(text, **features):
            row = layout(text, font="Anybody", features=features, tracking=0).rows[0]
            return row.pitches

        free, tabular = pitches("1 0"), pitches("1 0", tnum=True)
        self.assertNotAlmostEqual(free[0], free[2])
        self.assertAlmostEqual(tabular[0], tabular[2])
        kerned, plain = pitches("AVAV").sum(), pitches("AVAV", kern=False).sum()
        self.assertLess(kerned, plain)

    def test_letters_may_choose_for_themselves(self):
        runs = [{"from": 2, "to": 3, "style": {"features": {"tnum": True}}}]
        mixed = layout("1 1", runs, font="Anybody", tracking=0).rows[0].pitches
        self.assertNotAlmostEqual(mixed[0], mixed[2])

    def test_what_joins_letters_never_holds_where_they_move_apart(self):
        moving = layout("fi", font="Anybody", features={"liga": True, "dlig": True})
        self.assertEqual([len(character.glyphs) for character in moving.characters], [1, 1])

    def fit(self, text="The Quiet Orbit of Nine Winter Moons", **rules):
        """The width, the lines and the size of a title of 160 px that keeps rules."""
        found = layout(text, font="Anybody", size=160, **rules)
        left, _, right, _ = found.boxes["title"][0]
        return float(right - left), found.count("line"), found.characters[0].setting.size

    def test_a_title_is_as_large_as_its_rules_let_it_be(self):
        free, lines, size = self.fit()
        self.assertEqual((lines, size), (1, 160))
        width, lines, size = self.fit(widest=1200)
        self.assertEqual(lines, 1)
        self.assertTrue(1190 < width <= 1200, width)
        self.assertAlmostEqual(size / 160, 1200 / free, delta=0.02)
        wide, lines, larger = self.fit(widest=1200, most_lines=2)
        self.assertEqual(lines, 2)
        self.assertLessEqual(wide, 1200)
        self.assertGreater(larger, 1.5 * size)
        self.assertEqual(self.fit("Moons", widest=1200)[1:], (1, 160))
        self.assertEqual(self.fit("Nine\nMoons", widest=1200)[1:], (2, 160))

    def test_the_least_size_holds_and_lines_are_broken_instead(self):
        width, lines, size = self.fit(widest=1200, least_size=120, most_lines=2)
        self.assertEqual((lines, size), (3, 120))
        self.assertLessEqual(width, 1200)

    def test_where_lines_are_broken_at_a_width_of_their_own(self):
        broken = self.fit(wrap=1000)
        self.assertEqual(broken[2], 160)
        self.assertEqual(self.fit(widest=1200, wrap=1000), broken)
        self.assertLess(self.fit(widest=500, wrap=1000)[2], 160)

    def test_letters_of_another_size_shrink_along(self):
        runs = [{"from": 0, "to": 3, "style": {"size": 320}}]
        found = layout("The Quiet Orbit", runs, font="Anybody", size=160, widest=600)
        sizes = [character.setting.size for character in found.characters]
        self.assertAlmostEqual(sizes[0], 2 * sizes[-1])

    def test_at_least_three_have_more_than_one_axis(self):
        self.assertGreaterEqual(sum(len(axes_of(family)) > 1 for family in FAMILIES.values()), 3)
        self.assertGreaterEqual(len(FAMILIES), 6)
