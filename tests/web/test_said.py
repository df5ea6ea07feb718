"""What is said becomes edits: new layers, the scene, places, letters, and moves that go on."""

import json
import re
from pathlib import Path

import numpy as np
from django.urls import reverse

from balletto.picture.bounds import places
from balletto.picture.frame import Picture, draw_frame
from balletto.scene import files
from tests.core.scenes import scene_data

from .base import PageTest, make_scene

CORE = Path(__file__).parents[1] / "core"


class SaidTest(PageTest):
    def setUp(self):
        super().setUp()
        title = {**scene_data("Nine Moons")["layers"][0], "runs": [], "moves": []}
        self.edit(name="replace-scene", document=scene_data(layers=[title]))

    def say(self, text, *layers, expect=200, **more):
        layers = layers or ("t1",)
        return self.edit(
            expect=expect, name="say", text=text, layer=layers[0], layers=list(layers), **more
        )

    def layers(self):
        return {layer["id"]: layer for layer in self.document["layers"]}

    def test_whatever_is_typed_for_any_layer_is_told_in_full(self):
        """Also while it is typed, and what is not for a layer of that kind."""
        group = {"kind": "group", "id": "g1", "span": [0, 60]}
        self.edit(name="add-layer", layer=group)
        self.say("a star with 5 corners", "t1")
        blocks = (CORE / "phrases.txt").read_text().split("\n\n")[1:]
        lines = [block.splitlines()[1] for block in blocks if len(block.splitlines()) > 1]
        lines += ["members rise 100, fade, every 6", "copies fade", "each row turns, rows in order"]
        for layer in ("t1", "g1", "s1"):
            for line in lines[:: 3 if layer == "g1" else 7] + lines[-3:]:
                for text in (line, line[: len(line) // 2]):
                    with self.subTest(layer=layer, text=text):
                        answer = self.client.get(
                            reverse("say", args=[self.scene.pk]),
                            {"text": text, "layer": layer},
                        )
                        self.assertEqual(answer.status_code, 200)
                        self.assertTrue({"said", "fault"} & set(answer.json()))

    def test_a_title_stands_along_a_shape_by_its_name(self):
        self.say("Ring: an ellipse of 400 by 400 px")
        self.say("along “Ring” at 25 %, upright")
        along = {"layer": "s1", "offset": 25, "upright": True}
        self.assertEqual(self.layers()["t1"]["along"], along)
        self.say("raised by 12 px, along it, the other way round")
        self.assertEqual(self.layers()["t1"]["along"], {**along, "rise": 12, "reverse": True})
        answer = self.say("along “Sun”", expect=422).json()["message"]
        self.assertIn("there is no shape “Sun”", answer)
        # The card says it, and offers the other shapes.
        page = self.client.get(reverse("workbench", args=[self.scene.pk])).content.decode()
        self.assertIn('id="wear-t1along"', page)
        self.edit(name="straighten", layer="t1")
        answer = self.say("along it at 3 %", expect=422).json()["message"]
        self.assertIn("say which shape it stands along", answer)

    def test_a_new_layer_is_as_it_is_said(self):
        self.say(
            "The bar: a rectangle of 12 by 300 px, white, at 300 px across, shown from 5 to 60"
        )
        bar = self.layers()["s1"]
        self.assertEqual((bar["name"], bar["shape"]["size"]), ("The bar", [12, 300]))
        self.assertEqual((bar["fill"], bar["span"]), ("#FFFFFF", [5, 60]))
        self.assertEqual(bar["transform"]["position"], [300, 540, 0])
        self.say("a title “Two”, 60 px, red, 50 % large, turned 20°")
        title = self.layers()["t2"]
        self.assertEqual((title["text"], title["style"]["size"]), ("Two", 60))
        self.assertEqual(title["transform"]["scale"], [0.5, 0.5])
        self.assertEqual(title["transform"]["rotation"], [0, 0, 20])
        self.say("an adjustment")
        self.assertEqual(self.document["layers"][-1]["kind"], "adjustment")

    def test_what_follows_in_a_text_is_said_of_the_new_layer(self):
        self.say("a star with 5 corners, red\nfrom 300 left, over 30\nblur 4 px\nat the lower left")
        star = self.document["layers"][-1]
        self.assertEqual(star["moves"][0]["pose"], {"x": -300})
        self.assertEqual(star["effects"][0]["kind"], "blur")
        self.assertLess(star["transform"]["position"][0], 400)
        self.assertEqual(self.layers()["t1"]["moves"], [])

    def test_a_flurry_is_said_added_and_set(self):
        self.say("a burst of 40 stars, falling by 900 px a second, coloured red, white")
        flurry = self.layers()["f1"]["flurry"]
        self.assertEqual((flurry["count"], flurry["gravity"]), (40, 900))
        self.assertEqual(flurry["colors"], ["#FF0000", "#FFFFFF"])
        self.assertEqual(flurry["source"][0]["shape"]["kind"], "star")
        self.say("of circles, living 30 frames, from a ring of 90 px", "f1")
        flurry = self.layers()["f1"]["flurry"]
        self.assertEqual((flurry["life"], flurry["place"]["kind"]), (30, "ring"))
        self.assertEqual(flurry["source"][0]["shape"]["kind"], "ellipse")
        self.edit(name="add-flurry", flurry={"start": "snowfall"})
        self.assertEqual(self.layers()["f2"]["flurry"]["place"]["kind"], "box")
        self.edit(expect=422, name="add-flurry", flurry={"start": "hail"})
        self.assertTrue("A flurry of" in self.page("f2").content.decode())

    def test_a_typewriter_comes_with_its_caret_and_clicks(self):
        self.edit(name="add-move", layer="t1", preset="typed")
        title, clicks = self.layers()["t1"], self.layers()["c1"]
        (move,) = title["moves"]
        self.assertEqual(title["caret"]["move"], move["id"])
        self.assertEqual((clicks["title"], clicks["move"]), ("t1", move["id"]))
        self.assertTrue("A caret of" in self.page("t1").content.decode())
        self.client.post(reverse("undo", args=[self.scene.pk]), {"base": self.scene.head})
        self.scene.refresh_from_db()
        self.assertEqual(list(self.layers()), ["t1"])

    def test_a_caret_goes_with_the_move_that_came_last(self):
        refused = self.say("a caret of 8 px", expect=422).json()["message"]
        self.assertIn("add one that brings letters first", refused)
        self.say("letters fade in, every 3")
        self.say("a caret of 8 px")
        self.say("a caret, #FFCC00")
        title = self.layers()["t1"]
        self.assertEqual(title["caret"]["move"], title["moves"][0]["id"])
        self.assertEqual((title["caret"]["width"], title["caret"]["color"]), (8, "#FFCC00"))

    def test_copies_of_a_title_move_by_what_is_said(self):
        self.say("4 copies in a row, each 0 px by 120 px from the one before")
        self.say("copies fade in, every 6")
        self.assertEqual(self.layers()["t1"]["moves"][0]["unit"], "copy")
        self.assertContains(self.page("t1"), "Each copy")
        self.say("each row rises 40", "t1")

    def test_layers_are_thrown_by_their_names(self):
        self.say("a burst of 12 copies of “Nine Moons”")
        flurry = next(each for each in self.layers().values() if each["kind"] == "flurry")
        self.assertEqual(flurry["flurry"]["source"], [{"layer": "t1"}])
        self.assertContains(self.page(flurry["id"]), "copies of “Nine Moons”")
        refused = self.say("a burst of 12 copies of “Ten Suns”", expect=422).json()["message"]
        self.assertIn("there is no layer “Ten Suns”", refused)

    def test_words_become_words_and_shapes_shapes(self):
        self.say("becomes “Ten Suns”, there red, over 30")
        (move,) = self.layers()["t1"]["moves"]
        self.assertEqual(move["becomes"], {"text": "Ten Suns", "style": {"fill": "#FF0000"}})
        self.say("becomes a star with 5 corners", expect=422)
        self.say("a rectangle of 90 by 90 px")
        self.say("becomes a star with 5 corners, over 12", "s1")
        (move,) = self.layers()["s1"]["moves"]
        self.assertEqual(move["becomes"]["shape"]["corners"], 5)

    def test_an_effect_that_is_there_is_changed_unless_another_is_asked_for(self):
        def effects():
            return [each.get("radius") for each in self.layers()["t1"]["effects"]]

        self.say("glow, 20 px around")
        self.say("glow, 40 px around")
        self.assertEqual(effects(), [40])
        self.assertIn("another glow", self.say("glow", expect=422).content.decode())
        self.say("another glow, 10 px around")
        self.assertEqual(effects(), [40, 10])

    def test_a_mask_in_the_picture_without_a_place_stands_in_its_middle(self):
        self.say("seen inside an ellipse of 200 px by 200 px, standing in the picture")
        self.assertEqual(self.layers()["t1"]["masks"][0]["center"], [960, 540])

    def test_several_at_once_stand_side_by_side(self):
        self.say("12 rectangles of 20 by 200 px, 300 px down")
        bars = self.document["layers"][1:][::-1]  # as they are listed: the front one first
        across = [bar["transform"]["position"][0] for bar in bars]
        self.assertEqual(across, [80 + 160 * index for index in range(12)])
        self.assertEqual({bar["transform"]["position"][1] for bar in bars}, {300})
        self.say("200 to 1300 px across", *(bar["id"] for bar in bars))
        ends = [self.layers()[bar["id"]]["transform"]["position"][0] for bar in bars][::11]
        self.assertEqual(ends, [200, 1300])

    def test_several_at_a_side_stand_along_it(self):
        self.say("4 rectangles of 20 by 200 px, at the top")
        places = [layer["transform"]["position"][:2] for layer in self.document["layers"][:0:-1]]
        self.assertEqual(places, [[240 + 480 * index, 154] for index in range(4)])
        self.say("2 rectangles of 20 by 200 px, at the lower left")
        places = {tuple(each["transform"]["position"][:2]) for each in self.document["layers"][-2:]}
        self.assertEqual(places, {(64, 926)})

    def test_a_scene_is_said_of_whatever_is_selected(self):
        self.say("800 by 450 px, 24 frames a second, 5 s long, on black")
        document = self.document
        self.assertEqual((document["size"], document["rate"], document["length"]),
                         ([800, 450], "24", 120))  # fmt: skip
        self.assertEqual(document["background"], {"kind": "color", "color": "#000000"})
        self.assertEqual(document["layers"][0]["span"][1], 120)

    def test_places_in_words_keep_away_from_the_edge(self):
        self.say("at the lower right")
        box = self.box("t1")
        self.assertAlmostEqual(box[1][0], 1920 - 54, delta=0.1)
        self.assertAlmostEqual(box[1][1], 1080 - 54, delta=0.1)
        self.say("at the top, 200 px")  # with its new size
        box = self.box("t1")
        self.assertAlmostEqual(box[0][1], 54, delta=0.1)
        self.assertLess(box[0][0], 1000)

    def box(self, layer):
        corners = places(files.from_data(self.document), 0)["layers"][layer]["corners"]
        return [[min(c[0] for c in corners), min(c[1] for c in corners)],
                [max(c[0] for c in corners), max(c[1] for c in corners)]]  # fmt: skip

    def test_keyframes_of_a_place(self):
        self.say("(0 % at 0, 100 % at 20) high, 50 % wide")
        scale = self.layers()["t1"]["transform"]["scale"]
        self.assertEqual([key["value"] for key in scale["keys"]], [[0.5, 0], [0.5, 1]])
        response = self.say("(0 % at 0, 100 % at 20) high, (0 % at 5) wide", expect=422)
        self.assertIn("at the same frames", response.json()["message"])

    def test_letters_are_styled_as_they_are_written_or_selected(self):
        self.say("“Moons”, red")
        (run,) = self.layers()["t1"]["runs"]
        self.assertEqual((run["from"], run["to"], run["style"]["fill"]), (5, 10, "#FF0000"))
        edit = {"name": "say", "text": "coloured blue", "layer": "t1", "layers": ["t1"]}
        values = {"base": self.scene.head, "edit": json.dumps(edit), "layer": "t1"}
        values |= {"first": 0, "end": 4}
        self.client.post(reverse("edit", args=[self.scene.pk]), values)
        first = self.layers()["t1"]["runs"][0]
        self.assertEqual((first["from"], first["to"], first["style"]["fill"]), (0, 4, "#0000FF"))

    def test_what_says_nothing_by_itself_goes_on_with_the_current_move(self):
        self.say("words rise 70")
        move = self.layers()["t1"]["moves"][0]["id"]
        self.say("every 9", current=move)
        self.say("quick landing", current=move)
        (now,) = self.layers()["t1"]["moves"]
        self.assertEqual((now["stagger"]["gap"], now["name"]), (9, "Words rise 70"))
        self.assertEqual(now["amount"]["keys"][0]["ease"], "quick-landing")
        values = {"text": "every 9", "layer": "t1", "current": move}
        told = self.client.get(reverse("say", args=[self.scene.pk]), values).json()
        self.assertEqual((told["what"], told["move"]), ("more", "Words rise 70"))
        nothing = self.client.get(reverse("say", args=[self.scene.pk]), {**values, "text": " "})
        self.assertNotIn("said", nothing.json())
        response = self.say("bananas 9", current=move, expect=422)
        self.assertIn("“bananas” is not understood", response.json()["message"])

    def test_what_is_said_in_other_words_is_told_in_ours_and_made(self):
        self.say("words pop in one by one")
        move = self.layers()["t1"]["moves"][0]
        self.assertEqual((move["unit"], move["pose"]), ("word", {"scale": 0}))
        self.assertEqual((move["stagger"]["gap"], move["name"]), (2, "Words pop in one by one"))
        values = {"text": "fly in from the left", "layer": "t1", "current": move["id"]}
        told = self.client.get(reverse("say", args=[self.scene.pk]), values).json()
        self.assertEqual(told["what"], "move")
        self.assertIn("comes from off the left", told["in_our_words"])
        values["text"] = "words pop in, 12 frames, rumpelstiltskin"
        fault = self.client.get(reverse("say", args=[self.scene.pk]), values).json()["fault"]
        self.assertEqual(fault["start"], values["text"].index("rumpel"))

    def test_several_statements_of_one_line_are_told_together_and_made_as_one_edit(self):
        line = "make it bold and red, with a soft glow, then fade in letter by letter"
        answer = self.client.get(
            reverse("say", args=[self.scene.pk]), {"text": line, "layer": "t1"}
        ).json()
        self.assertEqual(answer["what"], "several")
        for told in ("weight 700", "glow 40 %", "starts 0 % opaque"):
            self.assertIn(told, answer["in_our_words"])
        before = self.scene.head
        self.say(line)
        self.assertEqual(self.scene.head, before + 1)
        title = self.layers()["t1"]
        self.assertEqual(title["style"]["axes"]["wght"], 700)
        self.assertEqual([each["kind"] for each in title["effects"]], ["glow"])
        self.assertEqual(title["moves"][-1]["pose"], {"opacity": 0})
        response = self.say("\n".join(["bold, with a soft glow, then fade in"] * 11), expect=422)
        self.assertIn("not understood", response.json()["message"])
        self.say("add a title “Hello”, 40 px, then drop shadow")
        new = next(each for each in self.document["layers"] if each.get("text") == "Hello")
        self.assertEqual([each["kind"] for each in new["effects"]], ["shadow"])

    def test_changes_in_other_words_are_made_of_the_current_move_as_it_is(self):
        self.say("words rise 70, every 4, over 20")
        move = self.layers()["t1"]["moves"][0]["id"]
        for text in ("twice as slow", "10 frames later", "half as far"):
            self.say(text, current=move)
        (now,) = self.layers()["t1"]["moves"]
        self.assertEqual((now["stagger"]["gap"], now["start"], now["pose"]), (8, 10, {"y": 35}))
        self.assertEqual((now["id"], now["name"]), (move, "Words rise 70"))
        response = self.say("without the fade", current=move, expect=422)
        self.assertIn("nothing that could be changed so", response.json()["message"])
        before = self.scene.head
        self.say("bottom right corner")
        self.assertEqual(self.scene.head, before + 1)

    def test_it_goes_on_with_moves_of_that_name_of_all_selected_layers(self):
        self.say("3 ellipses of 40 by 40")
        rings = [layer["id"] for layer in self.document["layers"][1:]]
        self.say("from 0 % of its size", *rings)
        self.say("over 50", *rings, current="m1")
        ends = {self.layers()[ring]["moves"][0]["amount"]["keys"][1]["at"] for ring in rings}
        self.assertEqual(ends, {50})

    def test_other_scenes_and_files_are_called_by_their_names(self):
        make_scene(self.ada, name="Row")
        self.say("2 scenes “row”, 50 % large")
        shown = [layer for layer in self.document["layers"] if layer["kind"] == "scene"]
        self.assertEqual([layer["transform"]["scale"] for layer in shown], [[0.5, 0.5]] * 2)
        for text, told in (
            ("a scene “Nowhere”", "there is no other scene “Nowhere” in this project"),
            ("a picture “moon”", "there is no picture “moon”: send the file first"),
            ("101 stars", "between one and 100 layers"),
        ):
            with self.subTest(text):
                self.assertIn(told, self.say(text, expect=422).json()["message"])

    def test_without_a_layer_only_what_needs_none_is_made(self):
        self.edit(name="remove-layer", layer="t1")
        response = self.edit(expect=422, name="say", text="rise 70", layer="", layers=[])
        self.assertIn("there is no layer to say this of", response.json()["message"])
        self.edit(name="say", text="a title “Hello”", layer="", layers=[])
        self.assertEqual(self.document["layers"][0]["text"], "Hello")


class OnEachTest(PageTest):
    """What a button does, done to all selected layers at once."""

    def setUp(self):
        super().setUp()
        title = {**scene_data("Nine")["layers"][0], "runs": [], "moves": []}
        sound = {"kind": "sound", "id": "a1", "span": [0, 90], "file": "chime-0000.wav"}
        layers = [title, {**title, "id": "t2", "text": "Moons"}, sound]
        self.edit(name="replace-scene", document=scene_data(layers=layers))

    def each(self, name, expect=200, layers=("t1", "t2", "a1"), **more):
        return self.edit(expect=expect, name=name, layers=list(layers), **more)

    def values(self, name):
        return [layer.get(name) for layer in self.document["layers"][:2]]

    def test_what_can_be_done_is_done(self):
        self.each("add-effect", layer="t1", effect={"kind": "blur"})
        self.assertEqual([effects[0]["kind"] for effects in self.values("effects")], ["blur"] * 2)
        self.each("flip", path="t1.effects.0.on", layers=["t1", "t2"])
        self.assertEqual([effects[0]["on"] for effects in self.values("effects")], [False] * 2)
        self.each("add-mask", layer="t1", mask={"kind": "ellipse"})
        sizes = [masks[0]["size"] for masks in self.values("masks")]
        self.assertNotEqual(*sizes)  # each takes up its own layer
        self.each("set-value", path="t1.window", value={"of": "line"}, layers=["t1", "t2"])
        self.assertEqual([window["of"] for window in self.values("window")], ["line"] * 2)
        self.each("center", layer="t1", axes="xy")
        self.each("set-value", path="t1.motion_blur", value={"angle": 90}, layers=["t1", "t2"])
        self.assertEqual([blur["angle"] for blur in self.values("motion_blur")], [90] * 2)

    def test_what_none_can_do_is_told(self):
        response = self.each(
            "add-mask", expect=422, layer="a1", mask={"kind": "ellipse"}, layers=["a1"]
        )
        self.assertTrue(response.json()["message"])


class CopiesTest(PageTest):
    """Copies of a layer: said, moved, changed by their sentence and by buttons."""

    def say(self, text, layer="t1", **more):
        return self.edit(name="say", text=text, layer=layer, layers=[layer], **more)

    def layer(self, number=-1):
        return self.document["layers"][number]

    def test_they_are_said_and_moved(self):
        self.say("a star, red, 12 copies in a ring of 200 px, each 2 frames after the one before")
        star = self.layer()
        self.assertEqual((star["formation"]["kind"], star["formation"]["count"]), ("ring", 12))
        self.say("from 60 below, every 3", layer=star["id"])  # one after another: copy by copy
        self.say("from 0 % opaque, over 9", layer=star["id"])
        self.say("copies turned 40°, over 12", layer=star["id"])
        units = [move["unit"] for move in self.layer()["moves"]]
        self.assertEqual(units, ["copy", "layer", "copy"])
        self.say("5 copies in a row, each 40 px by 0 px from the one before", layer=star["id"])
        self.assertEqual(self.layer()["formation"],
                         {"kind": "line", "count": 5, "step": [40, 0]})  # fmt: skip
        self.say("3 copies in a ring of 90 px")
        self.assertEqual(self.layer(0)["formation"]["count"], 3)

    def test_their_sentence_and_buttons(self):
        self.edit(name="set-value", path="t1.formation", value={"kind": "ring", "count": 8})
        page = self.page(layer="t1", opened="more-t1").content.decode()
        plain = re.sub(r"\s+", " ", re.sub(r"<[^>]+>", "", page))
        self.assertIn("8 copies in a ring of 200 px", plain)
        for words in ("copies in a grid", "one later than the other", "no copies",
                      "The last copy: the last 100 % as large"):  # fmt: skip
            self.assertIn(words, plain)
        self.edit(name="set-value", path="t1.formation.last.scale", value=0.5)
        self.edit(name="set-value", path="t1.formation.delay", value={"gap": 2})
        self.edit(name="add-key", path="t1.formation.radius", at=10, value=300)
        formation = self.layer(0)["formation"]
        self.assertEqual(formation["last"], {"scale": 0.5})
        self.assertIn("keys", formation["radius"])
        self.edit(name="clear-value", path="t1.formation")
        self.assertNotIn("formation", self.layer(0))

    def test_a_preset_moves_copies(self):
        self.say("a rectangle of 8 by 60 px, 12 copies in a ring of 200 px")
        shape = self.layer()["id"]
        self.edit(name="add-move", layer=shape, layers=[shape], preset="rise-and-fade")
        move = self.layer()["moves"][0]
        self.assertEqual(move["unit"], "copy")
        self.assertTrue(move["stagger"])

    def test_taken_apart_they_look_the_same(self):
        move = {"id": "m1", "unit": "copy", "pose": {"y": -60, "opacity": 0},
                "amount": {"keys": [{"at": 0, "value": 1}, {"at": 20, "value": 0}]},
                "stagger": {"gap": 2}}  # fmt: skip
        keyed = {"keys": [{"at": 0, "value": 0}, {"at": 40, "value": 90}]}
        bar = {
            "kind": "shape", "id": "s1", "span": [0, 90], "fill": "#FF0000", "moves": [move],
            "shape": {"kind": "rectangle", "size": [10, 60]},
            "stroke": {"width": 4, "color": "#00FF00", "to": keyed},
            "transform": {"position": [320, 180, 0], "rotation": [0, 0, 30]},
            "effects": [{"kind": "blur", "x": 2, "y": 2}],
            "formation": {"kind": "ring", "count": 7, "radius": 100, "last": {"opacity": 0.4},
                          "delay": {"gap": 3}},
        }  # fmt: skip
        data = scene_data(size=[640, 360], layers=[bar])
        self.edit(name="replace-scene", document=data)
        before = [self.pixels(frame) for frame in (30, 45)]
        self.edit(name="take-apart", layer="s1")
        layers = self.document["layers"]
        self.assertEqual([layer["kind"] for layer in layers], ["shape"] * 7 + ["group"])
        for was, frame in zip(before, (30, 45), strict=True):
            self.assertLess(np.abs(self.pixels(frame) - was).mean(), 0.1)
        # What is tied within a group is tied within each copy of it.
        ring = {"kind": "shape", "id": "s1", "span": [0, 90], "group": "g1",
                "shape": {"kind": "ellipse", "size": [80, 80]}}  # fmt: skip
        title = {**scene_data("Ring")["layers"][0], "runs": [], "moves": [], "group": "g1"}
        group = {"kind": "group", "id": "g1", "span": [0, 90],
                 "transform": {"position": [320, 180, 0]},
                 "formation": {"kind": "ring", "count": 3, "radius": 100}}  # fmt: skip
        data = scene_data(size=[640, 360], layers=[ring, title, group])
        self.edit(name="replace-scene", document=data)
        self.edit(name="stand-along", layer="t1", value="s1")
        was = self.pixels(30)
        self.edit(name="take-apart", layer="g1")
        self.assertLess(np.abs(self.pixels(30) - was).mean(), 0.1)
        layers = self.document["layers"]
        for title in (each for each in layers if each["kind"] == "title"):
            tied = title["transform"]["position"]["tie"]["to"]
            self.assertEqual(tied, f"{title['along']['layer']}.transform.position")
        response = self.edit(expect=422, name="take-apart", layer=layers[0]["id"])
        self.assertIn("no copies that could be taken apart", response.json()["message"])

    def pixels(self, frame):
        return draw_frame(Picture(files.from_data(self.document)), frame).astype(int)
