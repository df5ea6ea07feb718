"""One text becoming another: its laws."""

from itertools import product
from unittest import TestCase

import numpy as np
import skia

from balletto.lettering.layout import lay_out
from balletto.lettering.own_fonts import missing_fonts
from balletto.motion.becoming import ways_of
from balletto.picture.canvases.canvas import DrawItem, RecordingCanvas
from balletto.picture.canvases.skia_canvas import SkiaCanvas
from balletto.picture.canvases.skia_outlines import commands_of_path
from balletto.picture.frame import Picture, draw_frame
from balletto.picture.letterforms.contours import area_of, flattened
from balletto.picture.letterforms.outlines import of_glyphs
from balletto.picture.letterforms.passages import partners, passage
from balletto.scene import files
from balletto.scene.forms.outlines import commands_of

from .scenes import scene_data

CAPITALS = "ABCDEFGHIJKLMNOPQRSTUVWXYZ"
FAMILIES = ("Anybody", "Figtree", "Fraunces", "Recursive")


def title(text, *becomes, unit="character", amounts=None, **more):
    moves = [
        {"id": f"m{n}", "unit": unit, "becomes": each if isinstance(each, dict) else {"text": each},
         "amount": 1 if amounts is None else amounts[n]}
        for n, each in enumerate(becomes)
    ]  # fmt: skip
    style = {"font": "Anybody", "axes": {"wght": 700}, "size": 120, "fill": "#FFFFFF"}
    made = {
        "kind": "title", "id": "t1", "name": "", "span": [0, 60], "text": text, "style": style,
        "transform": {"position": [400, 100, 0]}, "moves": moves,
    }  # fmt: skip
    return {**made, **more}


def data_of(*layers):
    black = {"kind": "color", "color": "#000000"}
    return scene_data(layers=list(layers), size=[800, 200], length=60, background=black)


def picture(*layers, frame=0):
    return draw_frame(Picture(files.from_data(data_of(*layers))), frame)


def outlines(text, font="Anybody", size=200):
    style = {"font": font, "size": size}
    made = files.from_data(data_of(title(text, style=style)))
    layout = lay_out(made, made.layer("t1"))
    return [of_glyphs(character.glyphs) for character in layout.characters]


def assert_same(one, other):
    """One picture is the other; letters drawn as one may differ a little at their edges."""
    np.testing.assert_allclose(one.astype(int), other.astype(int), atol=12)


def path_of(commands):
    return SkiaCanvas.outline(commands).path


def area(commands):
    """The area that an outline fills."""
    simple = skia.Simplify(path_of(commands)) or path_of(commands)
    polygons = flattened(commands_of_path(simple))
    return sum(
        abs(area_of(p)) * (-1 if _depth(p, polygons) % 2 else 1) for p in polygons if len(p) > 2
    )


def _depth(polygon, polygons):
    return sum(
        path_of(_closed(other)).contains(*map(float, polygon[0]))
        for other in polygons
        if other is not polygon and len(other) > 2
    )


def _closed(polygon):
    first, *others = (tuple(point) for point in polygon.tolist())
    return (("move", first), *(("line", point) for point in others), ("close", ()))


def edges(commands):
    """The lengths of the straight pieces of an outline."""
    return np.concatenate(
        [np.hypot(*(np.roll(p, -1, axis=0) - p).T) for p in flattened(commands) if len(p) > 1]
    )


def densely(commands):
    """Points along an outline, half a px apart."""
    found = []
    for polygon in flattened(commands):
        ends = np.roll(polygon, -1, axis=0)
        for start, end in zip(polygon, ends, strict=True):
            count = int(np.hypot(*(end - start)) * 2) + 1
            found.append(start + (end - start) * (np.arange(count) / count)[:, None])
    return np.concatenate(found)


class PassageTest(TestCase):
    def test_its_ends_are_the_true_outlines(self):
        (one,), (other,) = outlines("B"), outlines("g")
        way = passage((one,), (other,))
        self.assertEqual((way.at(0.0), way.at(1.0)), (one, other))

    def test_nothing_jumps_near_its_ends(self):
        for pair in ("Bo", "oI", "GM", "e%"):
            one, other = outlines(pair)
            way = passage((one,), (other,))
            for share, end in ((0.001, one), (0.999, other)):
                near = np.concatenate(flattened(way.at(share)))
                true = densely(end)
                # All that moved by more than the way allows is what is about to grow: it stands
                # at the edge, as small as nothing.
                away = np.hypot(*(near[:, None] - true).transpose(2, 0, 1)).min(axis=1)
                self.assertLess(away.max(), 0.5, pair)

    def test_all_capitals_to_all_capitals_have_no_spike(self):
        rough = []
        for family in FAMILIES:
            letters = outlines(CAPITALS, family)
            for (a, one), (b, other) in product(zip(CAPITALS, letters, strict=True), repeat=2):
                if (ord(a) + 3 * ord(b)) % 5:  # a fifth of them in each run
                    continue
                way = passage((one,), (other,))
                longest = max(edges(way.at(share)).max() for share in (0.001, 0.999))
                if edges(way.at(0.5)).max() > 1.6 * longest:
                    rough.append((family, a, b))
        self.assertLess(len(rough), 0.05 * len(FAMILIES) * 26 * 26 / 5, rough)

    def test_the_area_does_not_collapse(self):
        thin = []
        letters = dict(zip(CAPITALS, outlines(CAPITALS), strict=True))
        areas = {letter: area(outline) for letter, outline in letters.items()}
        alike = {letter: len(flattened(outline)) for letter, outline in letters.items()}
        pairs = [
            p for p in product(CAPITALS, repeat=2) if alike[p[0]] == alike[p[1]] and p[0] < p[1]
        ]
        for a, b in pairs[::3]:
            middle = area(passage((letters[a],), (letters[b],)).at(0.5))
            if middle < 0.6 * min(areas[a], areas[b]):
                thin.append((a, b))
        self.assertLess(len(thin), 0.05 * len(pairs[::3]) + 1, thin)

    def test_like_shapes_do_not_cross_themselves(self):
        for one, other in zip(outlines("ol0"), outlines("OIO"), strict=True):
            for share in (0.25, 0.5, 0.75):
                middle = passage((one,), (other,)).at(share)
                simple = skia.Simplify(path_of(middle))
                self.assertEqual(len(flattened(commands_of_path(simple))), len(flattened(middle)))
                self.assertAlmostEqual(area(middle), sum(map(_signed, flattened(middle))), delta=2)

    def test_it_is_the_same_every_time(self):
        one, other = outlines("Q"), outlines("R")
        first = passage(tuple(one), tuple(other)).at(0.3)
        passage.cache_clear()
        self.assertEqual(passage(tuple(one), tuple(other)).at(0.3), first)

    def test_everyone_has_a_partner_and_they_keep_their_order(self):
        for first, second in product(range(1, 9), repeat=2):
            pairs = partners(first, second)
            self.assertEqual({a for a, _ in pairs}, set(range(first)))
            self.assertEqual({b for _, b in pairs}, set(range(second)))
            self.assertEqual(pairs, sorted(pairs))
            self.assertEqual(len(pairs), max(first, second))


def _signed(polygon):
    return area_of(polygon)


class BecomingTest(TestCase):
    def test_a_title_becomes_another_exactly(self):
        for text, other in (("HELLO", "GOODBYE"), ("GOODBYE", "HELLO"), ("one two", "x")):
            for unit in ("character", "word", "title"):
                with self.subTest(text=text, unit=unit):
                    plain = picture(title(other))
                    assert_same(picture(title(text, other, unit=unit)), plain)
                    still = title(text, other, unit=unit, amounts=[0])
                    assert_same(picture(still), picture(title(text)))

    def test_letters_one_after_another(self):
        amount = {"keys": [{"at": 0, "value": 0}, {"at": 10, "value": 1}]}
        layer = title("AB", "OX", amounts=[amount])
        layer["moves"][0]["stagger"] = {"gap": 10}
        data = files.from_data(data_of(layer))
        layout = lay_out(data, data.layer("t1"))
        ways = ways_of(data, data.layer("t1"), layout, np.array([0.0, 5, 10, 15, 20]))
        np.testing.assert_allclose(ways.share, [[0, 0], [0.5, 0], [1, 0], [1, 0.5], [1, 1]])
        assert_same(picture(layer, frame=20), picture(title("OX")))

    def test_several_in_a_row(self):
        course = [{"keys": [{"at": at, "value": 0}, {"at": at + 10, "value": 1}]} for at in (0, 20)]
        layer = title("ONE", "THREE", "TEN", amounts=course)
        for frame, words in ((0, "ONE"), (10, "THREE"), (15, "THREE"), (30, "TEN"), (50, "TEN")):
            assert_same(picture(layer, frame=frame), picture(title(words)))

    def test_where_two_overlap_nothing_jumps(self):
        course = [{"keys": [{"at": at, "value": 0}, {"at": at + 20, "value": 1}]} for at in (0, 10)]
        data = files.from_data(data_of(title("ONE", "SIX", "TEN", amounts=course)))
        times = np.arange(0, 40, 0.25)
        ways = ways_of(data, data.layer("t1"), lay_out(data, data.layer("t1")), times)
        along = (ways.leg + ways.share)[:, 0]
        self.assertLess(np.abs(np.diff(along)).max(), 0.03)
        self.assertEqual(along[-1], 2)

    def test_its_fill_and_style_are_on_the_way_too(self):
        red = {"text": "O", "style": {"fill": "#FF0000", "size": 60}}
        canvas = RecordingCanvas()
        blue = {**title("I", red, amounts=[0.5])}
        blue["style"] = {**blue["style"], "fill": "#0000FF"}
        Picture(files.from_data(data_of(blue))).draw(canvas, 0)
        (item,) = [DrawItem(*call[1:]) for call in canvas.calls if call[0] == "draw"]
        self.assertNotIn(item.fill, ("#0000FF", "#FF0000"))
        height = np.ptp(np.concatenate(flattened(item.outline))[:, 1])
        self.assertLess(50, height)
        self.assertLess(height, 85)

    def test_it_is_displaced_once_all_along(self):
        """By the effect, or by a move: at the start as the own text is, at the end as the other."""
        bent = [{"kind": "displace", "amount": 12, "size": 30}]
        lean = {"id": "m9", "pose": {"displace": 12}, "amount": 1}
        for more, moves in (({"effects": bent}, []), ({}, [lean])):
            layer = title("HI", "OX", amounts=[0.002], **more)
            start, end = ({**title(text, **more), "moves": moves} for text in ("HI", "OX"))
            layer["moves"] += moves
            away = np.abs(picture(layer).astype(int) - picture(start)).mean()
            self.assertLess(away, 0.4)
            layer["moves"][0]["amount"] = 0.998
            self.assertLess(np.abs(picture(layer).astype(int) - picture(end)).mean(), 0.4)

    def test_drawings_of_very_many_contours_have_a_bound(self):
        dots = "".join(f"M{x} {y}h2v2h-2Z" for x in range(0, 240, 4) for y in range(0, 240, 4))
        drawn, other = commands_of(dots), commands_of("M0 0H200V200H0Z")
        way = passage((drawn,), (other,))
        self.assertEqual((way.at(0.0), way.at(1.0)), (drawn, other))
        self.assertLess(len(way.at(0.5)), 20_000)

    def test_a_spring_goes_beyond(self):
        wide, far = (picture(title("I", "O", amounts=[amount])) for amount in (1, 1.3))
        widths = [(each[..., 0] > 0).any(axis=0).sum() for each in (wide, far)]
        self.assertLess(*widths)

    def test_shapes_become_shapes_and_paths(self):
        star = {"kind": "star", "corners": 5, "outer": 80, "inner": 30}
        drawn = {"kind": "path", "path": "M-60 -60L60 -60L60 60Z"}
        base = {
            "kind": "shape", "id": "s1", "span": [0, 60], "fill": "#FFFFFF", "stroke": None,
            "shape": {"kind": "ellipse", "size": [100, 100]},
            "transform": {"position": [400, 100, 0]},
        }  # fmt: skip
        moves = [
            {"id": f"m{n}", "becomes": {"shape": shape}, "amount": amount}
            for n, (shape, amount) in enumerate(((star, 1), (drawn, 0)))
        ]
        assert_same(picture({**base, "moves": moves}), picture({**base, "shape": star}))
        moves[1]["amount"] = 1
        assert_same(picture({**base, "moves": moves}), picture({**base, "shape": drawn}))

    def test_a_font_that_is_not_there_is_told(self):
        lost = title("a", {"text": "b", "style": {"font": "Nowhere"}})
        missing = missing_fonts(files.from_data(data_of(lost)))
        self.assertEqual(missing, [("layers[0].moves[0].becomes.style.font", "Nowhere")])
