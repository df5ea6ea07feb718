"""Sentences: what is said is read as the same, what people type is understood, what is wrong is
told."""

import json
import os
import random
from pathlib import Path
from unittest import TestCase

from balletto.lettering.families import FAMILIES
from balletto.scene import files
from balletto.scene.effects import EFFECT_KINDS
from balletto.scene.layers.shape import ShapeLayer
from balletto.scene.layers.title import Run
from balletto.scene.letters.style import Style
from balletto.scene.letters.windows import Window
from balletto.scene.masks import MASK_KINDS
from balletto.scene.moving.motion_blur import MotionBlur
from balletto.scene.moving.moves import Move
from balletto.scene.orders import ORDERS
from balletto.sentences.language.completions import complete
from balletto.sentences.layers.place_reader import of_one, with_courses
from balletto.sentences.layers.shapes import shape_text
from balletto.sentences.moves.wording import move_text
from balletto.sentences.reader import Context, SayingError, all_atoms, read, values_in
from balletto.sentences.scenes.wording import scene_text
from balletto.sentences.titles.wording import run_text, style_text
from balletto.sentences.wording.parts_of_layers import (
    effect_text,
    mask_text,
    shutter_text,
    window_text,
)

from .random_scenes import RULES, RandomScenes
from .scenes import scene_data

HERE = Path(__file__).parent
# How many of each are tried: more of them are tried by hand.
COUNT = int(os.environ.get("BALLETTO_SENTENCES", "40"))
JUNK = [
    "3", "3 px", "-4°", "50 %", "2s", "1:12", "1:2:3", "9" * 14, "9/s", "1,000", "#fff", "#12345",
    "“x”", "(", ")", ",", ":", "(3 at 0, 4 at 3 px)", "(#fff at 3 px)", "(tied to “a”, 3 px later)",
    "(tied to “a”)", "(0, 2)", "(1 across, 2 down at 0)", "spring 3 px", "bounce 1.5", "at", "!",
    "shuffled 3 px", "from a point out", "straight pieces (3 px at 1)", "😀", "\n",
]  # fmt: skip
CONTEXT = Context(text="Nine Moons")
KINDS = {
    "effect": (list(EFFECT_KINDS.values()), effect_text),
    "mask": (list(MASK_KINDS.values()), mask_text),
    "style": ([Style], style_text),
    "window": ([Window], window_text),
    "motion_blur": ([MotionBlur], shutter_text),
}


def near(value):
    """A value as it is told: to nine decimals."""
    if isinstance(value, int | float) and not isinstance(value, bool):
        return round(float(value), 9) + 0.0
    if isinstance(value, dict):
        return {name: near(each) for name, each in value.items()}
    if isinstance(value, list | tuple):
        return [near(each) for each in value]
    return value


def meaning(data):
    """What a move means, without what counts for nothing beside something else that it says."""
    move = Move.model_validate({"id": "m1", **data}, strict=False)
    said = move.model_dump(by_alias=True)
    del said["id"]
    given = move.pose.given.items()
    pose = {name: getattr(value, "model_dump", lambda v=value: v)() for name, value in given}
    said["pose"] = {**pose, "off": move.pose.off, "of": move.pose.off and move.pose.off_of}
    if stagger := said["stagger"]:
        if stagger["times"]:
            said["stagger"] = {"times": stagger["times"]}
        else:
            for timed in filter(None, (stagger, stagger["groups"])):
                without_seed(timed)
                timed["gap"] = None if timed["span"] is not None else timed["gap"] or 0
    for index, selector in enumerate(said["reach"]):
        without_seed(selector)
        if not index:
            del selector["combine"]  # it is joined to nothing
        if selector.get("every"):
            del selector["hold"]
        if selector.get("shape") not in ("pulse", None):
            selector.pop("soft", None)
    return near(said)


def without_seed(ordered):
    """Only a shuffle asks for its seed."""
    if "order" in ordered and ORDERS[ordered["order"]].needs != "seed":
        del ordered["seed"]


def part_meaning(what, data):
    """What an effect, a mask, a style ... means."""
    if what == "place":
        return near(data)
    models = {"effect": EFFECT_KINDS, "mask": MASK_KINDS}.get(what)
    model = models[data["kind"]] if models else KINDS[what][0][0]
    said = near(model.model_validate(data, strict=False).model_dump(by_alias=True))
    if what == "window":
        four = {side: said[side] for side in ("grow", "soft")}
        said |= {side: v if isinstance(v, list) else [v] * 4 for side, v in four.items()}
    return said


# What is said of these is data already: it leaves nothing out that would have to be filled in.
AS_SAID = ("scene", "run", "place", "layer", "setting")


def means(what, data):
    if what in AS_SAID:
        return near(data)
    return meaning(data) if what == "move" else part_meaning(what, data)


class LawTest(TestCase):
    """read(say(x)) is x."""

    def test_moves(self):
        rules = RULES["Move"]
        tried = 0
        for seed in range(COUNT * 4):
            data = {**RandomScenes(seed).part(rules), "id": "m1"}
            try:
                move = Move.model_validate(data, strict=False)
            except ValueError:
                continue  # what the schema allows, the scene may not
            tried += 1
            text = move_text(move)
            with self.subTest(seed=seed, text=text):
                said = read(text)
                self.assertEqual(said.what, "move")
                self.assertEqual(meaning(said.data), meaning(data))
            if tried == COUNT:
                break
        self.assertEqual(tried, COUNT)

    def test_styles_effects_masks_windows_shutters(self):
        rules = RULES
        for what, (models, say) in KINDS.items():
            for model in models:
                for seed in range(max(3, COUNT // len(models))):
                    made = RandomScenes(seed)
                    data = made.part(rules[model.__name__])
                    if what == "style":
                        data["font"] = made.random.choice(list(FAMILIES))
                    part = model.model_validate(data, strict=False)
                    text = say(part)
                    with self.subTest(model.__name__, seed=seed, text=text):
                        said = read(text)
                        self.assertEqual(said.what, what)
                        self.assertEqual(part_meaning(what, said.data), part_meaning(what, data))

    def test_styles_of_letters(self):
        """A run of letters, by what it has of its own."""
        for seed in range(COUNT):
            made = RandomScenes(seed)
            style = made.part(RULES["RunStyle"])
            if style.get("font"):
                style["font"] = made.random.choice(list(FAMILIES))
            run = Run.model_validate({"from": 5, "to": 10, "style": style}, strict=False)
            own = run.style.model_dump(exclude_none=True, exclude_defaults=True)
            if not own:
                continue
            text = run_text("Nine Moons", run)
            with self.subTest(seed=seed, text=text):
                said = read(text, CONTEXT)
                back = Run.model_validate(said.data, strict=False)
                self.assertEqual((said.what, back.first, back.end), ("run", 5, 10))
                self.assertEqual(
                    near(back.style.model_dump(exclude_none=True, exclude_defaults=True)), near(own)
                )

    def test_shapes(self):
        """What it is and how it is filled; a path is sent as a file."""

        def meant(layer):
            fill = layer.fill if isinstance(layer.fill, str) else layer.fill.model_dump()
            return near([layer.shape.model_dump(by_alias=True), fill])

        for seed in range(COUNT):
            data = {**RandomScenes(seed).part(RULES["ShapeLayer"]), "id": "s1"}
            data |= {"stroke": None, "span": [0, 9], "formation": None}
            if isinstance(data.get("fill"), dict):
                data["fill"].pop("over", None)  # the box of a shape is one
            shape = ShapeLayer.model_validate(data, strict=False)
            if shape.shape.kind == "path":
                continue
            text = shape_text(shape)
            with self.subTest(seed=seed, text=text):
                said = read(text)
                self.assertEqual(said.what, "layer")
                back = ShapeLayer.model_validate(
                    {**said.data, "id": "s1", "span": [0, 9], "stroke": None}, strict=False
                )
                self.assertEqual(meant(back), meant(shape))

    def test_scenes(self):
        for size, rate, length in (((800, 450), "24", 120), ((1920, 1080), "59.94", 1)):
            data = {**scene_data(), "size": list(size), "rate": rate, "length": length}
            scene = files.from_data({**data, "layers": []})
            said = read(scene_text(scene))
            self.assertEqual(said.what, "scene")
            self.assertEqual((said.data["size"], said.data["rate"]), (list(size), rate))
            self.assertEqual(said.data["length"], length)

    def test_letters_are_told_as_they_are_written(self):
        move = {"id": "m1", "pose": {"y": 100}, "among": [[5, 10]]}
        text = move_text(Move.model_validate(move, strict=False), "Nine Moons")
        self.assertIn("of “Moons”", text)
        self.assertEqual(read(text, CONTEXT).data["among"], [[5, 10]])


def blocks():
    """Phrases by what they mean."""
    for block in (HERE / "phrases.txt").read_text().split("\n\n")[1:]:
        meant, *phrases = block.strip().splitlines()
        ((what, data),) = json.loads(meant).items()
        yield what, data, phrases


class PhrasesTest(TestCase):
    """Sentences as a person types them."""

    def test_each_means_what_it_says(self):
        count = 0
        for what, data, phrases in blocks():
            for phrase in phrases:
                count += 1
                with self.subTest(phrase):
                    said = read(phrase, CONTEXT)
                    self.assertEqual((said.what, means(*said)), (what, means(what, data)))
        self.assertGreaterEqual(count, 300)

    def test_none_is_understood_by_halves(self):
        """Each word counts: with one more that means nothing, nothing is made."""
        for _, data, phrases in blocks():
            if "name" in data:
                continue  # it would be a part of that
            for place in (0, len(phrases[0].split()) // 2, len(phrases[0].split())):
                words = phrases[0].split()
                words.insert(place, "quux")
                with self.subTest(words), self.assertRaises(SayingError) as fault:
                    read(" ".join(words), CONTEXT)
                self.assertIn("quux", " ".join(words)[fault.exception.start :])


class SettingTest(TestCase):
    """What a layer is set to that is there, in one sentence."""

    def said(self, text, kind="title", shape=""):
        return read(text, Context(text="Nine Moons", kind=kind, shape=shape))

    def test_of_titles(self):
        style = {"fill": "#808080", "axes": {"wght": 300}, "size": 52}
        place = {"position.0": 470, "position.1": 190}
        for text in (
            "grey, weight 300, 52 px, at 470 px across, 190 px down",
            "at 470 across, grey, 190 down, light, 52 px large",
        ):
            self.assertEqual(self.said(text), ("setting", {"style": style, "transform": place}))
        # A gradient's turn is its own where it is told with it.
        turned = self.said("in a gradient from red to blue turned 20°, in the middle, turned 5°")
        self.assertEqual(turned.data["style"]["fill"]["angle"], 20)
        self.assertEqual(turned.data["transform"]["rotation.2"], 5)
        self.assertEqual(self.said("turned 20°, fade").what, "move")
        self.assertEqual(self.said("50 % opaque").what, "move")

    def test_of_shapes(self):
        for text, data in (
            ("red", {"fill": "#FF0000"}),
            ("of 12 by 300 px, unfilled", {"shape.size": [12, 300], "fill": "none"}),
            ("line of 3 px, white", {"stroke": {"width": 3, "color": "#FFFFFF"}}),
            ("shown from 10 to 60", {"span.0": 10, "span.1": 60}),
            ("(0 % at 0, 100 % at 20) high",
             {"transform": {"scale.1": {"keys": [{"at": 0, "value": 0}, {"at": 20, "value": 1}]}}}),
        ):  # fmt: skip
            with self.subTest(text):
                what, said = self.said(text, "shape", "rectangle")
                said = said if what == "setting" else {"transform": said}
                self.assertEqual(said, data)
        with self.assertRaisesRegex(SayingError, "“corners of -5 px”: a number of pixels"):
            self.said("corners of -5 px", "shape", "rectangle")
        with self.assertRaises(SayingError):
            self.said("corners of 5 px", "shape", "star")

    def test_numbers_that_change_together(self):
        up = {"keys": [{"at": 0, "value": 5}, {"at": 9, "value": 7, "ease": "soft-both"}]}
        keyed = with_courses([1, 2, 3], {1: up, 2: 8})
        self.assertEqual([key["value"] for key in keyed["keys"]], [[1, 5, 8], [1, 7, 8]])
        self.assertEqual(keyed["keys"][1]["ease"], "soft-both")
        for other in ({"keys": [{"at": 1, "value": 5}]}, {"tie": {"to": "t1.x"}}):
            with self.assertRaises(ValueError):
                with_courses([1, 2, 3], {0: up, 1: other})

    def test_places_of_several(self):
        said = read("at 200 to 800 px across, 40 down").data
        places = [of_one(said, index, 4)["position.0"] for index in range(4)]
        self.assertEqual(places, [200, 400, 600, 800])
        self.assertEqual(of_one(said, 0, 1), {"position.0": 200, "position.1": 40})


class WrongTest(TestCase):
    """What is not understood is told with its place, and with what could be meant."""

    def test_each_fault_has_its_place_and_a_suggestion(self):
        lines = (HERE / "wrong_phrases.txt").read_text().splitlines()
        cases = [line.split(" | ") for line in lines if not line.startswith("#")]
        self.assertGreaterEqual(len(cases), 100)
        for phrase, faulty, suggestion in cases:
            with self.subTest(phrase):
                with self.assertRaises(SayingError) as fault:
                    read(phrase, CONTEXT)
                told = fault.exception
                self.assertEqual(phrase[told.start : told.end], faulty)
                self.assertEqual(told.suggestions[:1], (suggestion,) if suggestion else ())
                self.assertLessEqual(len(told.suggestions), 3)

    def test_whatever_is_typed_is_read_or_told(self):
        """Known words, numbers and junk in any order: nothing else comes of it than an answer."""
        chance, known = random.Random(7), all_atoms().lexicon.words()
        for _ in range(400):
            parts = [chance.choice(known if chance.random() < 0.6 else JUNK) for _ in range(6)]
            text = " ".join(parts)
            with self.subTest(text):
                complete(text)
                values_in(text)
                for kind, shape in (("", ""), ("title", ""), ("shape", "star")):
                    try:
                        read(text, Context(text="Nine Moons", kind=kind, shape=shape))
                    except SayingError as told:
                        self.assertTrue(0 <= told.start <= told.end <= len(text))
                        self.assertTrue(str(told))

    def test_the_scene_says_what_a_value_may_be(self):
        with self.assertRaisesRegex(SayingError, "“swinging after at 500 Hz”") as fault:
            read("rise 100, swinging after at 500 Hz")
        self.assertEqual(fault.exception.start, 10)

    def test_nothing_and_too_much(self):
        for text in ("", "  ", ",", "Rise:", "rise " * 2000):
            with self.subTest(text[:9]), self.assertRaises(SayingError):
                read(text)


class CompletionsTest(TestCase):
    def texts(self, text, *what):
        return [each.text for each in complete(text, Context(may_say=what or ("move",)))]

    def test_what_may_come_next(self):
        self.assertIn("letters", self.texts(""))
        self.assertIn("comes from", self.texts("letters "))
        self.assertIn("100 px below", self.texts("letters from 100 "))
        self.assertEqual(self.texts("rise 100 over ")[0], "over 20 frames")
        self.assertEqual(self.texts("rise 100 over 20 so")[0], "soft landing")
        self.assertIn("from the centre out", self.texts("rise 100, every 2 from the c"))
        self.assertIn("by a sweep", self.texts("fade, by a "))
        self.assertIn("Glow 100 %", self.texts("gl", "effect"))
        self.assertIn("seen within", self.texts("seen wi", "window"))

    def test_what_is_said_is_not_offered_again(self):
        self.assertNotIn("every 2 frames", self.texts("rise 100, every 3, "))

    def test_what_is_not_understood_has_no_next(self):
        self.assertEqual(self.texts("rise 100 flarg "), [])

    def test_each_can_be_typed(self):
        """What is offered is understood, or asks for more: it is never the fault itself."""
        for text in ("", "letters ", "letters from 100 below, ", "wave 12 px up, ", "fade, by a "):
            for each in complete(text, Context(may_say=("move",))):
                whole = text[: each.start] + each.text
                with self.subTest(whole):
                    try:
                        read(whole)
                    except SayingError as fault:
                        self.assertGreaterEqual(fault.end, len(whole))
