"""Letters come out as HarfBuzz itself sets them: strings of many scripts, each shaped in one go
with the same font file, beside what laying out makes of it letter by letter."""

import io
import random
from functools import cache
from itertools import groupby
from unittest import TestCase

import numpy as np
import uharfbuzz as hb
from fontTools.ttLib import woff2
from fontTools.unicodedata import category, script

from balletto.lettering.faces import covered_by
from balletto.lettering.families import FAMILIES
from balletto.lettering.layout import lay_out
from balletto.scene import files

from .scenes import scene_data

SIZE = 100
# Words of each script, and the family that has its letters; the rest is made of them by chance.
SCRIPTS = {
    "Latn": ("Noto Sans", "AVATAR office affluent Tomorrow naïve Žižek fjord LTAV Ynglinga Te.V."),
    "Grek": ("Noto Sans", "πλανήτης φεγγάρι Ουρανός ΑΥΓΗ άστρα νύχτα ἀστήρ ΤΥΧΗ τροχιά φῶς"),
    "Cyrl": ("Noto Sans", "планета місяць Орбита ГУТ звезда йод Ночь эфир їжак небо"),
    "Hebr": ("Noto Sans Hebrew", "כוכב ירח שָׁלוֹם לַיְלָה מסלול שמיים אור שבת גַּלְגַּל חלל"),
    "Arab": ("Noto Sans Arabic", "قمر كوكب السَّلام لا سماء مدار نُجوم ليل الله شمس"),
    "Thai": ("Noto Sans Thai", "ดวงจันทร์ ท้องฟ้า ดาว น้ำ ผู้ใหญ่ ที่นี่ กลางคืน ปู่ ญี่ปุ่น ฟ้า"),
    "Deva": ("Noto Sans Devanagari", "चन्द्रमा आकाश तारा रात्रि ग्रह पृथ्वी सूर्य क्षितिज हिन्दी ज्ञान"),
    "Beng": ("Noto Sans Bengali", "চাঁদ আকাশ তারা রাত্রি গ্রহ পৃথিবী সূর্য কক্ষপথ জ্ঞান বিশ্ব"),
    "Taml": ("Noto Sans Tamil", "நிலா வானம் நட்சத்திரம் இரவு கோள் பூமி சூரியன் ஸ்ரீ கொடு மௌனம்"),
    "Hira": ("Noto Sans JP", "つき ほし よぞら がっこう きょう ひかり ゆめ あさ ぱあ ずっと"),
    "Hani": ("Noto Sans SC", "月亮 星空 行星 轨道 夜晚 光 天文馆 太阳 地球 宇宙"),
    "Hang": ("Noto Sans KR", "달 별 하늘 행성 궤도 밤 빛 천문관 태양 우주"),
}
EACH = 25  # strings of a script: ten words, and fifteen made by chance
RIGHT_TO_LEFT = ("Hebr", "Arab")


@cache
def font_of(path):
    plain = io.BytesIO()
    with path.open("rb") as packed:
        woff2.decompress(packed, plain)
    return hb.Font(hb.Face(plain.getvalue()))


def strings_of(code):
    family, words = SCRIPTS[code]
    told = words.split()
    letters = sorted({point for point in words if script(point) in (code, "Zinh")})
    chance = random.Random(code)
    first = [letter for letter in letters if not is_mark(letter)]  # for marks to stand on
    made = [
        chance.choice(first) + "".join(chance.choice(letters) for _ in range(chance.randint(1, 8)))
        for _ in range(EACH - len(told))
    ]
    return family, [*told, *made]


def is_mark(point):
    return category(point).startswith("M")


def in_files(text, family):
    """A text in the parts that single files of a family have; words of most scripts are in one."""
    paths = FAMILIES[family].files
    whole = next((path for path in paths if {*map(ord, text)} <= covered_by(path)), None)
    if whole:
        return [(text, font_of(whole))]
    own = [next(path for path in paths if ord(point) in covered_by(path)) for point in text]
    runs = groupby(zip(text, own, strict=True), key=lambda each: each[1])
    return [("".join(point for point, _ in run), font_of(path)) for path, run in runs]


def as_harfbuzz_sets_it(text, family, code):
    """Glyphs that show, from left to right, their places in px, and the width of all."""
    found, pen = [], 0.0
    for part, font in in_files(text, family):
        font.set_variations({"wght": 400})
        glyphs, width = shaped(font, part, code)
        found += [(n, x + pen, y) for n, x, y in glyphs if has_ink(font, n)]
        pen += width
    return sorted(found, key=in_order), pen


def in_order(glyph):
    return round(glyph[1], 3), glyph[0]


def shaped(font, text, code):
    buffer = hb.Buffer()
    buffer.add_str(text)
    buffer.script, buffer.language = code, "und"
    buffer.direction = "rtl" if code in RIGHT_TO_LEFT else "ltr"
    hb.shape(font, buffer)
    found, pen = [], 0
    for info, at in zip(buffer.glyph_infos, buffer.glyph_positions, strict=True):
        found.append((info.codepoint, pen + at.x_offset, at.y_offset))
        pen += at.x_advance
    scale = SIZE / font.face.upem
    return [(number, x * scale, y * scale) for number, x, y in found], pen * scale


class ShapingTest(TestCase):
    def set_by_us(self, text, family):
        data = scene_data(text)
        title = data["layers"][0]
        title |= {"runs": [], "moves": []}
        title["style"] = {"font": family, "size": SIZE, "axes": {"wght": 400}, "align": "left"}
        scene = files.from_data(data)
        return lay_out(scene, scene.layers[0])

    def test_strings_of_twelve_scripts(self):
        for code in SCRIPTS:
            family, strings = strings_of(code)
            self.assertEqual(len(strings), EACH)
            for text in strings:
                with self.subTest(text, script=code):
                    self.compare(text, family, code)

    def compare(self, text, family, code):
        shown, width = as_harfbuzz_sets_it(text, family, code)
        layout = self.set_by_us(text, family)
        got = sorted(
            ((g.number, g.x, layout.baseline - g.y) for c in layout.characters for g in c.glyphs),
            key=in_order,
        )
        self.assertEqual([each[0] for each in got], [each[0] for each in shown], text)
        np.testing.assert_allclose(
            [each[1:] for each in got], [each[1:] for each in shown], atol=1e-3, err_msg=text
        )
        self.assertAlmostEqual(layout.boxes["line"][0][2], width, 3, text)


def has_ink(font, number):
    extents = font.get_glyph_extents(number)
    return extents is not None and bool(extents.width or extents.height)
