"""Letters that have colours of their own: emoji that ship, and fonts of each kind that there is."""

import random
import tempfile
from pathlib import Path
from unittest import TestCase

import numpy as np

from balletto.lettering.font_files import FontFileError
from balletto.lettering.font_inspection import inspected_fonts
from balletto.lettering.layout import lay_out
from balletto.picture.frame import Picture, draw_frame
from balletto.picture.letterforms import color_glyphs
from balletto.scene import files

from .amounts import some
from .fonts import colored_font, fonts_folder
from .scenes import scene_data
from .test_apart import damaged

KINDS = ("COLR v0", "COLR v1", "SVG", "sbix")
RED, BLUE, WHITE, BLACK = ([0, 0, 255], [255, 0, 0], [255, 255, 255], [0, 0, 0])  # as BGR


def scene_of(text="A", folder=None, moves=(), style=None, **more):
    data = scene_data(text, size=[400, 200], background={"kind": "color", "color": "#FFFFFF"})
    title = data["layers"][0]
    title |= {"runs": [], "moves": list(moves), "transform": {"position": [200, 100, 0]}, **more}
    title["style"] = {"font": "Nebula", "size": 100, "fill": "#000000", **(style or {})}
    made = files.from_data(data)
    return made.in_folder(folder) if folder else made


def drawn(scene, frame=0.0):
    return draw_frame(Picture(scene), frame)[..., :3]


def beside_the_middle(pixels):
    """What is 15 px to the left and to the right of the middle of a letter of 60 px."""
    rows, columns = np.nonzero((pixels != 255).any(axis=2))
    row, column = (rows.min() + rows.max()) // 2, (columns.min() + columns.max()) // 2
    return pixels[row, column - 15].tolist(), pixels[row, column + 15].tolist()


class ColorFontTest(TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def in_font(self, kind, **scene):
        fonts_folder(self.folder / kind / "fonts", nebula=colored_font(kind))
        return scene_of(folder=self.folder / kind, **scene)

    def test_each_kind_is_drawn_in_its_colours(self):
        for kind in KINDS:
            with self.subTest(kind):
                pixels = drawn(self.in_font(kind))
                left, right = beside_the_middle(pixels)
                np.testing.assert_allclose(left, RED, atol=2)
                np.testing.assert_allclose(right, BLUE, atol=2)
                # 600 units of 1000 of a hundred px.
                columns = np.nonzero((pixels != 255).any(axis=(0, 2)))[0]
                self.assertAlmostEqual(np.ptp(columns), 60, delta=8 if kind == "SVG" else 2)

    def test_moves_tint_them(self):
        tint = {"id": "m1", "unit": "character", "start": 0, "pose": {"fill": "#000000"}}
        for share, wanted in ((1, [BLACK, BLACK]), (0.5, [[0, 0, 128], [128, 0, 0]])):
            for kind in KINDS:
                with self.subTest(kind, share=share):
                    moves = [{**tint, "amount": share}]
                    found = beside_the_middle(drawn(self.in_font(kind, moves=moves)))
                    np.testing.assert_allclose(found, wanted, atol=3)

    def test_a_letter_that_has_none_takes_that_of_its_style(self):
        scene = self.in_font("COLR v0", text="L", style={"fill": "#00FF00"})
        pixels = drawn(scene)
        self.assertEqual(
            np.median(pixels[(pixels != 255).any(axis=2)], axis=0).tolist(), [0, 255, 0]
        )

    def test_shadows_fades_and_turns_are_those_of_any_letter(self):
        shadow = {"kind": "shadow", "x": 80, "y": 0, "softness": 0, "color": "#00FF00"}
        pixels = drawn(self.in_font("COLR v1", effects=[shadow | {"opacity": 1}]))
        self.assertEqual(pixels[100, 280].tolist(), [0, 255, 0])
        half = {"id": "m1", "unit": "character", "start": 0, "pose": {"opacity": 0.5}, "amount": 1}
        left, _ = beside_the_middle(drawn(self.in_font("COLR v1", moves=[half])))
        np.testing.assert_allclose(left, [128, 128, 255], atol=2)
        turned = {**half, "pose": {"rotation": 180}}
        left, right = beside_the_middle(drawn(self.in_font("sbix", moves=[turned])))
        np.testing.assert_allclose([left, right], [BLUE, RED], atol=2)

    def test_a_picture_that_cannot_be_read_leaves_nothing_and_harms_nobody(self):
        font = colored_font("sbix").replace(b"IHDR", b"IHDX")
        fonts_folder(self.folder / "fonts", nebula=font)
        pixels = drawn(scene_of(folder=self.folder))
        self.assertTrue((pixels == 255).all())

    def test_pictures_stay_small_however_far_they_grow(self):
        grown = {"id": "m1", "unit": "character", "start": 0, "pose": {"scale": 900}, "amount": 1}
        scene = self.in_font("COLR v0", moves=[grown])
        layout = lay_out(scene, scene.layer("t1"))
        glyphs = layout.characters[0].glyphs
        box = tuple(layout.ink[0].tolist())
        photo = color_glyphs.color_photo(glyphs, box, "#000000", 900.0)
        self.assertLessEqual(max(photo.bitmap.pixels.shape), 1024)
        drawn(scene)

    def test_fonts_of_each_kind_are_taken(self):
        for number, kind in enumerate(KINDS):
            with self.subTest(kind):
                path = self.folder / f"{number}.ttf"
                path.write_bytes(colored_font(kind))
                into = self.folder / f"into {number}"
                into.mkdir()
                ((_, about),) = inspected_fonts(path, into)
                self.assertTrue(about.is_colored)

    def test_damaged_ones_are_refused_or_drawn_and_harm_nobody(self):
        chance, drawn_ones = random.Random(17), 0
        for kind in KINDS:
            whole = colored_font(kind)
            for number in range(some(4, 60)):
                with self.subTest(kind, number=number):
                    folder = self.folder / f"{kind} {number}"
                    (folder / "in").mkdir(parents=True)
                    path = folder / "sent.ttf"
                    path.write_bytes(damaged(whole, chance))
                    try:
                        found = inspected_fonts(path, folder / "in")
                    except FontFileError as error:
                        self.assertIn("sent.ttf", str(error))
                        continue
                    for each, about in found:
                        (folder / "fonts").mkdir(exist_ok=True)
                        each.rename(folder / "fonts" / each.name)
                        drawn(scene_of(folder=folder, style={"font": about.family}))
                        drawn_ones += 1
        self.assertGreater(drawn_ones, 0)


class EmojiTest(TestCase):
    def families(self, text, font="Figtree"):
        scene = scene_of(text, style={"font": font})
        return [each.family for each in lay_out(scene, scene.layer("t1")).characters]

    def test_what_is_meant_to_be_seen_in_colour_is(self):
        self.assertEqual(self.families("A🌙☎️"), ["Figtree", "Twemoji", "Twemoji"])
        # A letter-like sign, and what is said to be one, are set as letters are.
        self.assertEqual(self.families("☎🌙\ufe0e"), ["Noto Emoji", "Noto Emoji"])
        self.assertEqual(self.families("🌙", "Noto Emoji"), ["Noto Emoji"])
        self.assertEqual(self.families("1©", "Figtree"), ["Figtree", "Figtree"])

    def test_the_moon_is_yellow(self):
        pixels = drawn(scene_of("🌙", style={"font": "Figtree", "fill": "#0000FF"})).astype(int)
        blue, green, red = pixels[(pixels != 255).any(axis=2)].mean(axis=0)
        self.assertGreater(min(red, green), blue + 60)

    def test_joined_ones_and_flags_are_one_letter(self):
        scene = scene_of("👩‍🚀🇫🇷", style={"font": "Figtree"})
        layout = lay_out(scene, scene.layer("t1"))
        self.assertEqual([len(each.glyphs) for each in layout.characters], [1, 1])
        self.assertTrue(all(each.is_colored for each in layout.characters))
