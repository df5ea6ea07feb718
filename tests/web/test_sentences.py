"""Sentences: they say everything that a scene can hold, and each value in them can be changed."""

import html
import json
import re
from unittest import TestCase

import numpy as np

from balletto.picture.frame import Picture
from balletto.picture.preset_preview import PRESET_FRAMES, film_of, staged
from balletto.scene import files
from balletto.scene.edits import apply
from balletto.scene.errors import SceneError
from balletto.scene.moving.presets import fitted, needed_of, parts_of, presets, without
from balletto.scene.values.keyable import keyable
from balletto.scene.values.tracks import value_at
from balletto.scene.values.value_names import value_name
from tests.core.random_scenes import RandomScenes
from tests.core.scenes import scene_data
from web.workbench.layer_blocks import own_actions
from web.workbench.move_offers import MoveOffers
from web.workbench.sentences.appearance_sentences import (
    appearance_cards,
    appearance_to_add,
)
from web.workbench.sentences.move_sentences import MoveSentence
from web.workbench.sentences.phrases import Moment
from web.workbench.sentences.shape_sentences import shape_more, shape_sentences
from web.workbench.sentences.title_sentences import TypeSentence, place_more, place_sentence
from web.workbench.ties import tie_ends, tie_targets

_NUMBERS = re.compile(r'data-edit="([^"]*)"[^>]*aria-valuenow="([^"]*)"')
_COLORS = re.compile(r'data-edit="([^"]*)"[^>]*? value="(#[0-9A-Fa-f]{6})"')
_CHOICES = re.compile(r'data-edit="([^"]*)" aria-haspopup.*?</span></span>', re.DOTALL)
_OPTION = re.compile(r'role="option" aria-selected="true" data-value="([^"]*)"')


def unlocked(seed):
    """A random scene all of which may be changed."""
    data = RandomScenes(seed).scene()
    for layer in data["layers"]:
        layer.pop("locked", None)
    return data


def plain(sentence):
    """A sentence as it is read, without lists and tags."""
    without_lists = re.sub(r'<span class="pick__list".*?</span>', "", sentence, flags=re.DOTALL)
    return " ".join(html.unescape(re.sub(r"<[^>]+>", "", without_lists)).split())


def edits_in(sentences):
    """The edits of all chips, each with the value that it shows now."""
    for sentence in sentences:
        for found in (*_NUMBERS.findall(sentence), *_COLORS.findall(sentence)):
            edit, value = json.loads(html.unescape(found[0])), found[1]
            number = None if value.startswith("#") else float(value)
            whole = number is not None and number == int(number)
            yield {**edit, "value": value if number is None else int(number) if whole else number}
        for chip in _CHOICES.finditer(sentence):
            option = _OPTION.search(chip[0])
            if option:
                edit = json.loads(html.unescape(chip[1]))
                yield {**edit, "value": json.loads(html.unescape(option[1]))}


class _AllOpen(frozenset):
    """As if every fold were open."""

    def __contains__(self, name):
        return True


MOMENT = Moment(3.0, opened=_AllOpen())


def sentences_of(scene, layer):
    places = [value_at(value, np.array(3.0)) for _, value in layer.transform]
    if max(np.abs(place).max() for place in places) < 10_000:  # what "continue" leads to may not
        yield place_sentence(layer, MOMENT)
    yield from place_more(layer)
    for card in appearance_cards(scene, layer, MOMENT):
        yield card.sentence
        yield from card.more
    if layer.kind == "shape":
        yield from shape_sentences(layer, MOMENT)
        yield from shape_more(layer)
    if layer.kind == "title":
        yield TypeSentence(scene, layer).sentence()
    for move in getattr(layer, "moves", ()):
        words = MoveSentence(layer, move, MOMENT)
        yield words.sentence()
        yield from words.more()


def offers_of(scene, layer):
    """The edits of all buttons of a layer."""
    yield from own_actions(layer)
    for _, offers in appearance_to_add(scene, layer):
        yield from offers
    for card in appearance_cards(scene, layer):
        yield {"label": "remove", "edit": card.remove}
        if card.earlier:
            yield {"label": "earlier", "edit": card.earlier}
    for move in getattr(layer, "moves", ()):
        offers = MoveOffers(scene, layer, move)
        yield from [*(each for _, _, group in offers.groups() for each in group)]


class EverySentenceTest(TestCase):
    def test_whatever_a_scene_holds_can_be_said_and_set(self):
        """Each chip's edit, with the value that it shows, can be made."""
        made = 0
        for seed in range(80):
            data = unlocked(seed)
            scene = files.from_data(data)
            for layer in scene.layers:
                for edit in edits_in(sentences_of(scene, layer)):
                    if edit["name"] == "set-pivot":
                        continue  # of the page, that keeps the layer where it is seen
                    with self.subTest(seed, edit=edit):
                        try:
                            apply(data, {**edit, "at": 3} if edit["name"] == "set-value" else edit)
                        except SceneError:
                            # What goes "straight on" may have gone beyond what can be set.
                            self.assertIn('"continue"', json.dumps(data))
                        made += 1
        self.assertGreater(made, 1500)

    def test_whatever_is_offered_can_be_done(self):
        """The buttons under "more": each edit can be made, and gives a scene that is sound."""
        for seed in range(60):
            data = unlocked(seed)
            scene = files.from_data(data)
            for layer in scene.layers:
                for action in offers_of(scene, layer):
                    edit = action["edit"]
                    if edit["name"] == "behind":
                        continue  # of the page, see test_behind
                    placed = {**edit, "at": 3} if edit.get("at") == "playhead" else edit
                    with self.subTest(seed, action=action["label"]):
                        apply(data, placed)

    def test_the_lists_of_ties_name_values(self):
        """Each value offered to be followed can be followed by one of its kind."""
        data = scene_data()
        data["layers"][0]["effects"] = [{"kind": "blur"}, {"kind": "displace"}]
        scene = files.from_data(data)
        for path, said in tie_targets(scene):
            with self.subTest(said):
                value = {"tie": {"to": path}}
                wanted = {"name": "set-value", "path": "t1.moves.m1.pose.x", "value": value}
                if path.endswith(("position", "rotation", "scale")):
                    continue  # several numbers: no single one can follow them
                apply(data, wanted)


class DressWordsTest(TestCase):
    def test_what_a_layer_wears_is_said(self):
        data = scene_data()
        data["layers"][0] |= {
            "effects": [{"kind": "blur", "x": 8}, {"kind": "glow", "color": "#F2B705"}],
            "masks": [{"kind": "ellipse", "size": [300, 80], "feather": 6}],
            "motion_blur": {"angle": 270},
        }
        scene = files.from_data(data)
        said = [plain(card.sentence) for card in appearance_cards(scene, scene.layers[0])]
        self.assertEqual(said[0], "Blurred 8 px across and 12 px down.")
        self.assertIn("Glows 100 % strong, 24 px around,", said[1])
        self.assertIn("an ellipse of 300 px by 80 px at 0 px across, 0 px down", said[2])
        self.assertIn("open for 270° of a frame", said[3])

    def test_percent_are_said_as_they_are(self):
        data = scene_data()
        cast = {"kind": "shadow", "opacity": 0.5}
        mask = {"kind": "ellipse", "opacity": 0.75}
        data["layers"][0] |= {"effects": [cast], "masks": [mask]}
        scene = files.from_data(data)
        said = [plain(card.sentence) for card in appearance_cards(scene, scene.layers[0])]
        self.assertIn("50 % opaque", said[0])
        self.assertIn("75 % dense", said[1])


class NamesTest(TestCase):
    """One word for one thing, in sentences, Keyframes, Curves, ties and the history."""

    def test_each_selectors_values_have_one_name(self):
        data = scene_data()
        data["layers"][0]["moves"][0]["reach"] = [
            {"kind": "sweep"}, {"kind": "wave"}, {"kind": "jitter"},
            *({"kind": "spot", **spot} for spot in SPOTS),
        ]  # fmt: skip
        scene = files.from_data(data)
        title = scene.layers[0]
        words = MoveSentence(title, title.moves[0])
        told = html.unescape(str(words.sentence()) + "".join(map(str, words.more())))
        found = re.findall(r'data-chip="([^"]*reach[^"]*)"[^>]*aria-label="([^":]*)', told)
        self.assertGreater(len(found), 20)
        for path, label in found:
            if keyable(scene, path) is None:
                continue
            with self.subTest(path):
                name = re.sub(r" \d(?=$|,)", "", value_name(title, path))
                self.assertEqual(label.lower(), name)

    def test_no_name_stands_twice_in_a_list_of_ties(self):
        scene = files.from_data(scene_data())
        title = scene.layers[0]
        names = [said for _, said in tie_ends(title, title.moves[0])]
        self.assertEqual(len(names), len(set(names)))


SPOTS = [
    {"shape": "slope", "from": [0, 0], "to": [9, 9]}, {"shape": "round", "center": [5, 5]},
    {"shape": "band", "center": [5, 5]},
]  # fmt: skip


class WordsTest(TestCase):
    def said(self, **move):
        data = scene_data()
        data["layers"][0]["moves"] = [{"id": "m1", "name": "Rise", **move}]
        scene = files.from_data(data)
        return plain(MoveSentence(scene.layers[0], scene.layers[0].moves[0]).sentence())

    def test_each_property_has_its_words(self):
        pose = {
            "skew": 12, "tracking": 300, "blur": 8, "outline": 4, "fill": "#F2B705",
            "outline_color": "#D1495B", "axes": {"wght": -200},
        }  # fmt: skip
        said = self.said(pose=pose)
        for words in ("leaning 12°", "spread by 300 ‰", "blurred by 8 px", "its outline 4 px wider",
                      "coloured", "its outline coloured", "−200 more weight"):  # fmt: skip
            self.assertIn(words, said)

    def test_follow_pivot_and_groups(self):
        said = self.said(
            pose={"rotation": 20},
            follow={"frequency": 2.5, "damping": 0.4},
            pivot=[0.5, 1],
            pivot_of="word",
            stagger={"gap": 2, "groups": {"by": "word", "order": "backward", "gap": 9}},
        )
        self.assertIn("swinging after at 2.5 Hz damped 40 %", said)
        self.assertIn("about a point 50 % across and 100 % down its word", said)
        self.assertIn("words in turn every 9 frames from the end back and in each one after", said)

    def test_a_tie_says_what_it_follows(self):
        tie = {"tie": {"to": "t1.moves.m1.amount", "gain": -0.4, "delay": 3}}
        said = self.said(pose={"y": 40, "x": tie})
        self.assertIn("tied to amount of “Rise” times −0.4 plus 0, 3 frames later", said)

    def test_a_title_says_its_fill_outline_and_width(self):
        data = scene_data()
        data["layers"][0]["style"] |= {
            "fill": {"kind": "linear", "angle": 45, "colors": ["#112233", "#445566"]},
            "outline": 3,
            "wrap": 900,
        }
        scene = files.from_data(data)
        said = plain(TypeSentence(scene, scene.layers[0]).sentence())
        self.assertIn("over the whole title turned 45°, outline 3 px", said)
        self.assertIn("broken at 900 px wide", said)


class PresetsTest(TestCase):
    def test_each_can_be_added_however_few_frames_a_second_has(self):
        """At 12 a second the two keys of a typewriter fell on one frame."""
        for rate in ("1", "8", "12", "23", "240"):
            data = scene_data(rate=rate)
            for name, preset in presets().items():
                with self.subTest(name, rate=rate):
                    move = fitted(preset, data, data["layers"][0])
                    apply(data, {"name": "add-move", "layer": "t1", "move": move})

    def film(self, *shown):
        return film_of(Picture(staged(*shown)), PRESET_FRAMES)

    def test_each_is_shown_on_any_words(self):
        """On none, on a mark without width, on a hidden layer: something is seen in each film."""
        preset = presets()["seamless-wave"]
        for text in ("", "  \n", "  Orbit"):
            data = scene_data(text)
            data["layers"][0]["on"] = False
            with self.subTest(text):
                film = self.film(data, "t1", preset)
                self.assertEqual(film.shape, (32 * 117, 208, 4))
                self.assertGreater(len(np.unique(film.reshape(-1, 4), axis=0)), 10)
        self.film(scene_data("\u200f"), "t1", preset)

    def test_each_is_shown_whatever_else_the_title_needs(self):
        """In a group, cut by a mask that stands elsewhere, with a matte: on its own words alone."""
        data = scene_data("Orbit")
        plain_film = self.film(data, "t1", presets()["seamless-wave"])
        group = {"id": "g1", "kind": "group", "span": [0, 90]}
        far = {"kind": "ellipse", "center": [-5000, 0], "fixed": True}
        other = {**data["layers"][0], "id": "t2", "moves": []}
        data["layers"][0] |= {"group": "g1", "masks": [far], "matte": {"layer": "t2"}}
        data["layers"] += [other, group]
        films = self.film(data, "t1", presets()["seamless-wave"])
        np.testing.assert_array_equal(films, plain_film)

    def test_each_is_shown_of_what_goes_with_others_left_behind(self):
        """Tied to another layer, and along a path: its words stand straight, its values stay."""
        data = scene_data("Orbit")
        plain_film = self.film(data, "t1", presets()["seamless-wave"])
        shape = {"kind": "ellipse", "size": [400, 400]}
        data["layers"].append({"kind": "shape", "id": "s1", "span": [0, 90], "shape": shape})
        data = apply(data, {"name": "stand-along", "layer": "t1", "value": "s1"}).document
        film = self.film(data, "t1", presets()["seamless-wave"])
        np.testing.assert_array_equal(film, plain_film)
        grouped = apply(data, {"name": "group-layers", "layers": ["s1", "t1"]}).document
        group = next(each["id"] for each in grouped["layers"] if each["kind"] == "group")
        self.assertTrue(self.film(grouped, group, presets()["seamless-wave"]).any())

    def test_there_are_enough_of_each_kind(self):
        groups = [preset["group"] for preset in presets().values()]
        self.assertGreaterEqual(len(groups), 24)
        for group in ("Entrances", "Emphases", "Idles", "Exits"):
            units = {p["move"]["unit"] for p in presets().values() if p["group"] == group}
            self.assertEqual(units, {"character", "word", "line"}, group)

    def test_each_suits_any_title(self):
        """In another rate and size each still is a move, and an exit ends with its layer."""
        data = scene_data("Nine moons\nin turn", rate="60", size=[1080, 1920], length=400)
        layer = data["layers"][0]
        layer |= {"span": [0, 400], "moves": []}
        layer["style"]["size"] = 40
        for name, preset in presets().items():
            with self.subTest(name):
                move = fitted(preset, data, layer)
                edit = {"name": "add-move", "layer": "t1", "move": move}
                done = apply(data, {**edit, "title": needed_of(preset, data, layer)})
                made = done.scene.layers[0].moves[0]
                if preset["group"] == "Exits":
                    self.assertGreater(made.start, 200)
                y = preset["move"]["pose"].get("y")
                if isinstance(y, int) and preset.get("measure") != "picture":
                    self.assertAlmostEqual(made.pose.y, y / 3, delta=1)
                self.assertEqual(apply(done.document, done.inverse).document, data)

    def test_any_parts_of_each_can_be_left_out_but_not_all(self):
        data = scene_data()
        for name, preset in presets().items():
            parts = [part for part, _ in parts_of(preset)]
            with self.subTest(name):
                for left_out in [[part] for part in parts] + [parts[1:], parts]:
                    kept = [part for part, _ in parts_of(without(preset, left_out))]
                    beside = preset.get("with", [])
                    own = [part for part in parts if part not in beside]
                    wanted = [part for part in own if part not in left_out] or own
                    wanted += [part for part in beside if part not in left_out]
                    self.assertEqual(kept, wanted)
                    move = fitted(without(preset, left_out), data, data["layers"][0])
                    apply(data, {"name": "add-move", "layer": "t1", "move": move})

    def test_plain_ones_do_one_thing_and_the_empty_one_nothing(self):
        plain = [preset for preset in presets().values() if preset["group"] == "Plain"]
        self.assertEqual([len(parts_of(preset)) for preset in plain], [1] * 5)
        self.assertEqual(set(presets()["empty"]["move"]), {"name", "unit", "start", "pose"})
        self.assertEqual(parts_of(presets()["empty"]), [])

    def test_a_window_suits_the_type_and_one_that_is_there_stays(self):
        data = scene_data()
        layer = data["layers"][0]
        layer["style"]["size"] = 60
        roll = presets()["roll-through"]
        half = {"of": "line", "grow": [0, 7, 0, 7], "soft": [0, 10, 0, 10]}
        self.assertEqual(needed_of(roll, data, layer), {"window": half})
        self.assertEqual(needed_of(roll, data, {**layer, "window": {"of": "word"}}), {})


class EdgeTest(TestCase):
    """The ease of a sweep's edges is said as its units feel it."""

    def said(self, edge, **travel):
        sweep = {"kind": "sweep", "low": 0, "high": 200, "soft_low": 60, "edge": edge, **travel}
        data = scene_data()
        data["layers"][0]["moves"][0]["reach"] = [sweep]
        scene = files.from_data(data)
        title = scene.layers[0]
        return " ".join(map(str, MoveSentence(title, title.moves[0]).more()))

    def test_a_band_that_leaves_lands_softly_where_it_says_so(self):
        leaving = {"travel": {"keys": [{"at": 0, "value": -60}, {"at": 40, "value": 100}]}}
        coming = {"travel": {"keys": [{"at": 0, "value": 100}, {"at": 40, "value": -60}]}}
        self.assertIn("edges soft landing", plain(self.said("soft-start", **leaving)))
        self.assertIn("edges soft start", plain(self.said("soft-start", **coming)))
        self.assertIn("edges soft start", plain(self.said("soft-start")))
        chosen = re.compile(r'data-value="&quot;soft-start&quot;"[^>]*>soft landing<')
        self.assertRegex(self.said("soft-both", **leaving), chosen)
