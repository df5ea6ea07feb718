"""Fonts that do not ship: found in a folder, chosen by their cuts, stood in for where missing."""

import io
import os
import random
import tempfile
from pathlib import Path
from unittest import TestCase, mock

import numpy as np
from fontTools.pens.ttGlyphPen import TTGlyphPen
from fontTools.ttLib import TTCollection, TTFont, newTable
from fontTools.ttLib.tables._k_e_r_n import KernTable_format_0

from balletto.lettering import font_inspection
from balletto.lettering.faces import axes_of, face
from balletto.lettering.families import SHIPPED
from balletto.lettering.font_files import Axis, FontFileError, about, fonts_in
from balletto.lettering.font_inspection import inspected_fonts
from balletto.lettering.layout import lay_out
from balletto.lettering.own_fonts import (
    INDEX,
    entry_of,
    families_in,
    fonts_named,
    index_of,
    missing_fonts,
)
from balletto.motion.warnings import warnings_of
from balletto.picture.frame import Picture, draw_frame
from balletto.scene import files
from balletto.scene.edits import apply
from balletto.scene.errors import SceneError
from balletto.scene.moving.moves import Move
from balletto.sentences.moves.wording import say_move
from balletto.sentences.reader import read
from balletto.sentences.titles.wording import axis_measure, style_text
from balletto.sentences.wording.texts import text_of

from .amounts import some
from .fonts import fonts_folder, square_font, variable_font
from .scenes import scene_data
from .test_apart import damaged


class FontsTest(TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def put(self, **fonts):
        return fonts_folder(self.folder / "fonts", **fonts)

    def scene(self, **style):
        data = scene_data("Orbit")
        data["layers"][0]["style"] |= {"font": "Perihelion", "axes": {}, **style}
        return files.from_data(data).in_folder(self.folder)

    def set_in(self, scene):
        """The family and the width of the first letter, as it is set."""
        layout = lay_out(scene, scene.layers[0])
        left, _, right, _ = layout.ink[0]
        return layout.characters[0].setting.face.family, round(float(right - left), 2)

    def told(self, scene):
        return [warning.text for warning in warnings_of(scene, scene.layers[0])]


class FolderTest(FontsTest):
    def test_families_are_put_together_of_their_files(self):
        folder = self.put(
            bold=square_font(style="Bold", weight=700), plain=square_font(),
            slanted=square_font(style="Italic", is_italic=True), own=variable_font(),
        )  # fmt: skip
        (folder / "notes.txt").write_text("no font")
        (folder / "broken.ttf").write_bytes(b"no font either")
        families = families_in(folder)
        self.assertEqual(list(families.own), ["Aphelion", "Perihelion"])
        cuts = [(cut.weight, cut.is_italic, cut.style) for cut in families["Perihelion"].cuts]
        self.assertEqual(
            cuts, [(400, False, "Regular"), (700, False, "Bold"), (400, True, "Italic")]
        )
        tags = {axis.tag: (axis.low, axis.high) for axis in axes_of(families["Perihelion"])}
        self.assertEqual(tags, {"wght": (400, 700), "ital": (0, 1)})
        self.assertIn("wght", {axis.tag for axis in axes_of(families["Aphelion"])})

    def test_where_there_are_none_the_shipped_ones_are_at_hand(self):
        self.assertIs(families_in(None), SHIPPED)
        self.assertIs(families_in(self.folder / "nowhere"), SHIPPED)
        self.assertIs(families_in(self.put()), SHIPPED)

    def test_an_index_says_what_there_is(self):
        folder = self.put(plain=square_font())
        (read,) = map(about, fonts_in(folder / "plain.ttf"))
        entry = entry_of("plain.ttf", "Told", read)
        gone = entry | {"file": "gone.ttf", "family": "Gone"}
        (folder / INDEX).write_text(index_of([entry, gone]))
        self.assertEqual(list(families_in(folder).own), ["Told"])

    def test_an_index_is_read_again_whenever_it_is_written(self):
        folder = self.put(plain=square_font())
        (read,) = map(about, fonts_in(folder / "plain.ttf"))
        for name in ("One", "Two"):
            coming = folder / name
            coming.write_text(index_of([entry_of("plain.ttf", name, read)]))
            os.utime(coming, ns=(10**18, 10**18))  # within one tick of the clock
            coming.replace(folder / INDEX)
            self.assertEqual(list(families_in(folder).own), [name])

    def test_an_index_that_is_no_use_is_done_without(self):
        for number, text in enumerate(("{", "[]", '{"fonts": [{"file": "plain.ttf"}]}')):
            folder = fonts_folder(self.folder / str(number), plain=square_font())
            (folder / INDEX).write_text(text)
            self.assertEqual(list(families_in(folder).own), ["Perihelion"])

    def test_a_shipped_name_stays_the_shipped_font(self):
        families = families_in(self.put(one=square_font("Figtree")))
        self.assertEqual(families["Figtree"], SHIPPED["Figtree"])

    def test_a_file_says_what_it_is(self):
        folder = self.put(bold=square_font(style="Bold", weight=700, embedding=2))
        (found,) = map(about, fonts_in(folder / "bold.ttf"))
        self.assertEqual((found.family, found.style, found.weight), ("Perihelion", "Bold", 700))
        self.assertEqual((found.embedding, found.may_travel), ("restricted", False))
        self.assertIn("Made up", found.licence)
        self.assertEqual(found.scripts, ("Latin",))
        (folder / "bad.ttf").write_bytes(b"\0\1\0\0" + bytes(300))
        with self.assertRaises(FontFileError):
            list(map(about, fonts_in(folder / "bad.ttf")))


class SentTest(FontsTest):
    """Files that people send are written plain once they are found to be right."""

    def sent(self, name, content):
        path = self.folder / name
        path.write_bytes(content)
        return inspected_fonts(path, self.put())

    def test_one_font_in_any_wrapping(self):
        plain = io.BytesIO(square_font())
        for name, flavor in (("a.ttf", None), ("a.woff", "woff"), ("a.woff2", "woff2")):
            with self.subTest(name):
                wrapped = io.BytesIO()
                with TTFont(plain) as font:
                    font.flavor = flavor
                    font.save(wrapped)
                plain.seek(0)
                ((path, found),) = self.sent(name, wrapped.getvalue())
                self.assertEqual((path.suffix, found.family), (".ttf", "Perihelion"))
                self.assertEqual(list(families_in(path.parent).own), ["Perihelion"])
                path.unlink()

    def test_what_unpacks_to_too_much_is_refused(self):
        for name, most in (("MOST_BYTES", 2000), ("_MOST_IN_A_GLYPH", 3), ("_MOST_IN_A_TITLE", 3)):
            path = self.folder / "a.ttf"
            path.write_bytes(square_font())
            with (
                self.subTest(name),
                mock.patch.object(font_inspection, name, most),
                self.assertRaisesRegex(FontFileError, "a.ttf cannot be used: .*(more than|many)"),
            ):
                font_inspection._looked_into(path, self.put())

    def test_axes_that_cannot_be_named_are_refused(self):
        font = TTFont(io.BytesIO(variable_font()))
        font["fvar"].axes[0].axisTag = 'a"; '
        with self.assertRaisesRegex(FontFileError, "cannot be named"):
            about(font)

    def test_a_collection_is_its_fonts(self):
        whole = TTCollection()
        whole.fonts = [TTFont(io.BytesIO(square_font(style=s))) for s in ("Regular", "Bold")]
        file = io.BytesIO()
        whole.save(file)
        found = self.sent("both.ttc", file.getvalue())
        self.assertEqual([font.style for _, font in found], ["Regular", "Bold"])

    def test_damaged_files_are_refused_in_words_or_safe(self):
        chance = random.Random(16)
        for name, whole in (("a.ttf", square_font()), ("b.ttf", variable_font()), SHIPPED_FILE):
            told = 0
            for number in range(some(8, 170)):
                with self.subTest(name, number=number):
                    try:
                        self.sent(name, damaged(whole, chance))
                    except FontFileError as error:
                        told += 1
                        self.assertIn(name, str(error))
                        self.assertNotIn(str(self.folder), str(error))
            self.assertGreater(told, 3, name)

    def test_a_letter_that_is_made_of_itself(self):
        """A composite glyph whose part is itself would be drawn without end."""
        font = TTFont(io.BytesIO(square_font()))
        pen = TTGlyphPen(font.getGlyphSet())
        pen.addComponent("u0042", (1, 0, 0, 1, 10, 0))
        font["glyf"]["u0041"] = pen.glyph()
        file = io.BytesIO()
        font.save(file)
        looped, again = bytearray(file.getvalue()), TTFont(file)
        number = again.getGlyphID("u0041")
        at = again.reader.tables["glyf"].offset + again["loca"][number]
        # Behind the number of contours, the box and the flags stands which glyph is its part.
        self.assertEqual(looped[at + 13], again.getGlyphID("u0042"))
        looped[at + 13] = number
        try:
            self.sent("loop.ttf", bytes(looped))
        except FontFileError as error:
            self.assertIn("loop.ttf", str(error))


SHIPPED_FILE = ("c.woff2", SHIPPED["Recursive"].files[0].read_bytes())


class SettingTest(FontsTest):
    def test_pairs_that_only_an_old_table_says_are_kerned(self):
        font = TTFont(io.BytesIO(square_font()))
        table = font["kern"] = newTable("kern")
        pairs = KernTable_format_0()
        pairs.kernTable = {("u0041", "u0056"): -200}
        pairs.coverage, pairs.tupleIndex, pairs.version = 1, None, 0
        table.version, table.kernTables = 0, [pairs]
        file = io.BytesIO()
        font.save(file)
        self.put(perihelion=file.getvalue())
        scene = self.scene(size=100)
        title = scene.layers[0].model_copy(update={"text": "AV VA", "runs": (), "moves": ()})
        places = [each.glyphs[0].x for each in lay_out(scene, title).characters]
        self.assertAlmostEqual(places[1] - places[0], places[3] - places[2] - 20)

    def test_a_title_is_set_in_the_cut_that_is_wanted(self):
        self.put(plain=square_font(), bold=square_font(style="Bold", weight=700))
        family, light = self.set_in(self.scene())
        self.assertEqual(family, "Perihelion")
        _, bold = self.set_in(self.scene(axes={"wght": 700}))
        self.assertAlmostEqual(bold / light, (200 + 350) / (200 + 200), places=2)

    def test_a_weight_that_is_not_there_is_said(self):
        self.put(plain=square_font(), bold=square_font(style="Bold", weight=700))
        self.assertNotIn("weight", " ".join(self.told(self.scene(axes={"wght": 700}))))
        told = self.told(self.scene(axes={"wght": 600}))
        self.assertIn("Perihelion has no weight 600: 700 stands in.", told)

    def test_what_has_a_file_for_each_weight_does_not_move_between_them(self):
        self.put(plain=square_font(), bold=square_font(style="Bold", weight=700))
        data = scene_data("Orbit")
        data["layers"][0]["style"] |= {"font": "Perihelion", "axes": {}}
        data["layers"][0]["moves"][0]["pose"] = {"axes": {"wght": 300}}
        told = self.told(files.from_data(data).in_folder(self.folder))
        self.assertIn("Perihelion has no axis “wght”, so it does nothing.", told)

    def test_a_missing_font_of_a_scene_within_comes_right_too(self):
        inner = scene_data("Orbit", size=[320, 180])
        inner["layers"][0]["style"] |= {"font": "Perihelion", "axes": {}, "size": 60}
        inner["layers"][0] |= {"moves": [], "transform": {"position": [160, 90, 0]}}
        uses = {"id": "n1", "kind": "scene", "scene": "u1", "span": [0, 30]}
        uses["transform"] = {"position": [160, 90, 0]}
        data = scene_data(size=[320, 180], layers=[uses], scenes=[{"id": "u1", "scene": inner}])

        def drawn():
            return draw_frame(Picture(files.from_data(data).in_folder(self.folder)), 3)

        before = drawn()
        self.put(plain=square_font())
        self.assertGreater(np.abs(drawn().astype(int) - before).max(), 100)

    def test_a_missing_font_is_said_and_comes_right(self):
        scene = self.scene()
        self.assertEqual(self.set_in(scene)[0], "Figtree")
        self.assertEqual(missing_fonts(scene), [("layers[0].style.font", "Perihelion")])
        told = "The font “Perihelion” is not here: set in Figtree instead. Its name is kept."
        self.assertIn(told, self.told(scene))
        self.put(plain=square_font())
        again = self.scene()
        self.assertEqual(self.set_in(again)[0], "Perihelion")
        self.assertEqual(missing_fonts(again), [])
        self.assertNotIn(told, self.told(again))

    def test_another_font_is_set_in_its_place_everywhere(self):
        data = scene_data("Orbit")
        title = data["layers"][0]
        title["style"] |= {"font": "Lost"}
        title["runs"] = [{"from": 0, "to": 1, "style": {"font": "Lost", "size": 20}},
                         {"from": 1, "to": 2, "style": {"font": "Caveat"}}]  # fmt: skip
        inner = {**data, "layers": [{**title, "runs": []}]}
        whole = {**data, "scenes": [{"id": "u1", "scene": inner}]}
        edit = {"name": "replace-font", "font": "Lost", "value": "Fraunces"}
        applied = apply(whole, edit)
        named = [name for _, name in fonts_named(applied.scene)]
        self.assertEqual(named, ["Fraunces", "Fraunces", "Caveat", "Fraunces"])
        self.assertEqual(applied.label, "“Fraunces” in place of “Lost”")
        self.assertEqual(apply(applied.document, applied.inverse).document, whole)
        with self.assertRaisesRegex(SceneError, "nothing is set in “Lost”"):
            apply(applied.document, edit)

    def test_two_folders_with_one_name_are_two_fonts(self):
        self.put(plain=square_font())
        other = fonts_folder(self.folder / "other", plain=square_font(weight=900))
        here, there = self.scene(), self.scene().in_folder(self.folder, other)
        self.assertNotEqual(self.set_in(here)[1], self.set_in(there)[1])
        self.assertNotEqual(self.set_in(here)[1], self.set_in(there)[1])

    def test_a_variable_font_keeps_its_axes(self):
        self.put(own=variable_font())
        scene = self.scene(font="Aphelion", axes={"wght": 900, "wdth": 150})
        self.assertEqual(self.set_in(scene)[0], "Aphelion")
        self.assertEqual([each for each in self.told(scene) if "axis" in each], [])
        family = families_in(self.folder / "fonts")["Aphelion"]
        self.assertIsNone(face(family, (("wght", 900.0),)).weight)


class SentenceTest(FontsTest):
    def test_what_is_chosen_of_a_font_is_said_and_read(self):
        features = {"smcp": True, "ss03": True, "liga": False, "abcd": True}
        style = self.scene(features=features).layers[0].style
        text = style_text(style)
        self.assertIn(
            "with small capitals and stylistic set 3 and feature “abcd”, without ligatures", text
        )
        self.assertEqual(read(text).data["features"], features)
        self.put(plain=square_font())
        told = self.told(self.scene(features={"smcp": True}))
        self.assertIn("Perihelion has no small capitals, so that does nothing.", told)

    def test_own_fonts_are_named_within_marks(self):
        self.put(own=variable_font())
        scene = self.scene(font="Aphelion", axes={"wght": 900})
        text = style_text(scene.layers[0].style, families_in(self.folder / "fonts"))
        self.assertIn("Set in “Aphelion”", text)
        self.assertIn("weight 900", text)
        self.assertEqual(read(text).data["font"], "Aphelion")
        self.assertEqual(read(text).data["axes"], {"wght": 900})

    def test_any_name_is_said_and_read(self):
        name = "Moon ” \\ “Two”"
        self.put(one=square_font(name))
        families = families_in(self.folder / "fonts")
        self.assertEqual(list(families.own), [name])
        text = style_text(self.scene(font=name).layers[0].style, families)
        self.assertEqual(read(text).data["font"], name)

    def test_axes_that_no_shipped_font_has_are_said_by_their_tags(self):
        self.assertEqual(axis_measure(Axis("GRAD", "Grade", 0, 0, 100)).before, "“GRAD”")
        move = {"pose": {"axes": {"GRAD": 20}}, "unit": "character", "amount": 1}
        move = Move.model_validate({"id": "m1", "name": "Grow", **move})
        self.assertEqual(read(text_of(say_move(move, ""))).data["pose"], {"axes": {"GRAD": 20}})

    def test_a_missing_font_is_said_too(self):
        text = style_text(self.scene(axes={"wght": 900}).layers[0].style)
        self.assertIn("Set in “Perihelion” weight 900", text)
        self.assertEqual(read(text).data["font"], "Perihelion")
        self.assertEqual(read(text).data["axes"], {"wght": 900})
