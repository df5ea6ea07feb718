"""One more of any kind is one more module, and nothing else has to be told of it: the examples of
docs/adding.md, in a copy of the core."""

import json
import os
import re
import subprocess
import sys
import tempfile
from itertools import chain
from pathlib import Path

from django.db import connection
from django.test import TransactionTestCase

from tests.core.scenes import scene_data

from .base import make_person, make_scene

ROOT = Path(__file__).parents[2]
PUT_IN = ("scene", "picture", "clip")  # where a kind may be added

_MODULE = re.compile(
    r"^`balletto/((?:scene|picture|clip)/[a-z_/]+\.py)`\n```python\n(.*?)^```$",
    re.DOTALL | re.MULTILINE,
)


def examples():
    """The modules of docs/adding.md: where they belong, and their text."""
    return dict(_MODULE.findall((ROOT / "docs" / "adding.md").read_text()))


# Uses all of them: reads, computes, draws, edits, names.
TRIAL = """
import html, json, re, sys
from pathlib import Path

import av
import numpy as np
from balletto.clip.export_settings import ExportSettings
from balletto.clip.formats import format_for
from balletto.clip.render import render
from balletto.motion.poses import poses
from balletto.picture.bounds import rest_box
from balletto.picture.frame import Picture, draw_frame
from balletto.scene import files
from balletto.scene.moving.ease_words import read_ease
from balletto.scene.edits import apply
from balletto.scene.values.value_names import value_name
from balletto.sentences.reader import read
from web.workbench.sentences.appearance_sentences import appearance_cards
from web.workbench.sentences.move_sentences import MoveSentence
from web.workbench.sentences.phrases import Moment
from web.workbench.sentences.shape_sentences import shape_sentences

data = json.load(sys.stdin)
title = data["layers"][0]
move = title["moves"][0]
move["unit"], move["start"] = "character", 10
move["pose"], move["stagger"] = {"y": 100}, {"order": "pairs", "gap": 2}
move["reach"] = [{"kind": "odd"}]
move["amount"] = {"keys": [{"at": 0, "value": 1, "ease": {"lazy": 0.5}}, {"at": 10, "value": 0}]}
shape = {"kind": "shape", "id": "c", "span": [0, 60], "shape": {"kind": "cross"}, "fill": "none",
    "stroke": {"width": 20}, "effects": [{"kind": "fade"}],
    "masks": [{"kind": "cross", "expand": 40}],
    "transform": {"position": [960, 200, 0]}}
bar = {"kind": "bar", "id": "b", "span": [0, 60], "width": 60, "fill": "#ff0000",
    "transform": {"position": [1500, 800, 0]}}
copies = {"kind": "spiral", "count": 10, "step": 90}
warm = {"kind": "shape", "id": "w", "span": [0, 60], "fill": "#ffffff",
    "shape": {"kind": "rectangle", "size": [90, 90]},
    "transform": {"position": [960, 540, 0]},
    "moves": [{"id": "m1", **read("the whole layer is 200 % warm")[1]}]}
data["layers"] += [shape, bar]
scene = files.from_data(data)
down = poses(scene, "t1", [move["start"] + 9])["values"]["y"][0][:4]
picture = draw_frame(Picture(scene), 0)
moment = Moment()
cards = [str(card.sentence) for card in appearance_cards(scene, scene.layers[1], moment)]
said = str(MoveSentence(scene.layers[0], scene.layers[0].moves[0]).sentence())
plain = lambda text: html.unescape(re.sub("<span class=.pick__list.*?</span>|<[^>]*>", "", text))
clip = Path("orbit.mkv")
settings = ExportSettings(format_for(clip), (96, 54), scene.frames_a_second, range(3))
render(scene, settings, clip)
with av.open(str(clip)) as made:
    frames = sum(1 for _ in made.decode(video=0))
print(json.dumps({
    "frames": frames,
    "said": [plain(text) for text in (said, *cards, *shape_sentences(scene.layers[1]))],
    "down": np.round(down, 6).tolist(),
    "pixel": picture[200, 960].tolist(),
    "bar": [picture[800, x].tolist() for x in (1500, 1527, 1533)],
    "box": rest_box(scene, scene.layers[2], 0),
    "called": scene.layers[2].nameless,
    "ease": read_ease("lazy 0.25"),
    "name": value_name(scene.layers[1], "c.effects.0.share"),
    "read": [read(text)[1] for text in (
        "faded by 30 %", "seen inside a cross of 80 px", "letters rise 100, every 2 in pairs",
        "100 below by every other one", "10 copies in a spiral of 90 px",
        "rise 100, over 20 with lazy 0.25 of the way",
        "letters glow warmly", "letters 300 % warm at 0, home at 20 soft both",
    )],
    "warm": draw_frame(Picture(files.from_data({**data, "layers": [warm]})), 0)[540, 960].tolist(),
    "copies": poses(files.from_data({**data, "layers": [{**bar, "formation": copies}]}), "b",
        [0])["copies"]["y"][0],
    "edit": apply(data, {"name": "shout"}).document["name"],
}))
"""


# Opens the workbench with each layer of a scene of all examples.
OPENING = """
import json, sys
import django
django.setup()
from django.contrib.auth import get_user_model
from django.test import Client
from django.test.utils import setup_test_environment
from django.urls import reverse
from balletto.sentences.scenes.text import scene_as_text, scene_from_text
from balletto.scene import files
from web.projects import history
from web.projects.models import Project

setup_test_environment()
data = json.load(sys.stdin)
person = get_user_model().objects.get(username="ada")
scene = history.make_scene(Project.objects.get(), data, person)
client = Client()
client.force_login(person)
said = []
for layer in data["layers"]:
    values = {"layer": layer["id"], "opened": f"more-{layer['id']},wear-more-{layer['id']}"}
    response = client.get(reverse("workbench", args=[scene.pk]), values)
    said.append([response.status_code, layer["kind"] == "bar" and b"Bar" in response.content])
again = files.from_data(scene_from_text(scene_as_text(files.from_data(data))))
print(json.dumps({"said": said, "again": again == files.from_data(data)}))
"""


class OneMoreTest(TransactionTestCase):
    """Whoever adds a kind writes one module: the scene takes it, says it, computes and draws it,
    and the pages show it."""

    def test_the_workbench_opens_with_every_example(self):
        ada = make_person("ada")
        make_scene(ada)
        data = scene_data(name="quiet")
        move = data["layers"][0]["moves"][0]
        move["reach"], move["pose"] = [{"kind": "odd"}], {"warmth": 2}
        move["stagger"] = {"order": "pairs", "gap": 2}
        move["amount"]["keys"][0]["ease"] = {"lazy": 0.5}
        cross = {"kind": "shape", "id": "c", "span": [0, 60], "shape": {"kind": "cross"},
                 "effects": [{"kind": "fade"}], "masks": [{"kind": "cross", "expand": 40}],
                 "formation": {"kind": "spiral"}}  # fmt: skip
        data["layers"] += [cross, {"kind": "bar", "id": "b", "span": [0, 60]}]
        with tempfile.TemporaryDirectory() as folder:
            copy = self.copied(Path(folder))
            for name, text in examples().items():
                (copy / name).write_text(text)
            made = self.told(OPENING, data, folder)
        self.assertEqual(made["said"], [[200, False], [200, False], [200, True]])
        self.assertTrue(made["again"], "said as a text, it is the same scene")

    @staticmethod
    def told(program, data, folder):
        """What a program tells that runs with the copy of the core."""
        told = subprocess.run(
            [sys.executable, "-c", program],
            input=json.dumps(data),
            cwd=folder,
            env={
                **os.environ,
                "PYTHONPATH": os.pathsep.join([folder, str(ROOT)]),
                "DJANGO_SETTINGS_MODULE": "web.config.settings",
                "BALLETTO_DATABASE_NAME": connection.settings_dict["NAME"],
            },
            capture_output=True,
            text=True,
            check=False,
        )
        if told.returncode:
            raise AssertionError(told.stderr)
        return json.loads(told.stdout)

    def test_one_more_of_each_is_one_module(self):
        with tempfile.TemporaryDirectory() as folder:
            copy = self.copied(Path(folder))
            for name, text in examples().items():
                (copy / name).write_text(text)
            data = scene_data(name="quiet", background={"kind": "none"})
            made = self.told(TRIAL, data, folder)
        # Of each pair both begin at once, the second alone takes part; it is lazy half of the way.
        self.assertEqual(made["down"], [0, 20, 0, 60])
        self.assertEqual(made["pixel"], [127, 127, 127, 127])  # a line of white, half faded
        self.assertEqual(made["bar"], [[0, 0, 255, 255], [0, 0, 255, 255], [0, 0, 0, 0]])
        self.assertEqual(made["box"], [-30, -5, 30, 5])
        self.assertEqual(made["called"], "Bar")
        self.assertEqual(made["ease"], {"lazy": 0.25})
        self.assertEqual(made["frames"], 3)
        self.assertEqual(made["name"], "share of the fade")
        effect, mask, ordered, chosen, copies, eased, warm, cooling = made["read"]
        self.assertEqual(warm["pose"], {"warmth": 2})
        first, last = cooling["pose"]["warmth"]["keys"]
        self.assertEqual((first["value"], last), (3, {"at": 20, "value": 1}))
        self.assertEqual(made["warm"], [128, 255, 255, 255])  # half of the blue
        self.assertEqual(copies, {"kind": "spiral", "count": 10, "step": 90})
        self.assertAlmostEqual(made["copies"][9], -90)
        self.assertEqual(effect, {"kind": "fade", "share": 0.3})
        self.assertEqual((mask["kind"], mask["arm"]), ("cross", 80))
        self.assertEqual(ordered["stagger"], {"gap": 2, "order": "pairs"})
        self.assertEqual(chosen["reach"], [{"kind": "odd"}])
        self.assertEqual(eased["amount"]["keys"][0]["ease"], {"lazy": 0.25})
        self.assertEqual(made["edit"], "QUIET")
        move, effect, mask, shape, *_ = made["said"]
        self.assertIn("every other one", move)
        self.assertIn("in pairs", move)
        self.assertIn("lazy 0.5 of the way", move)
        self.assertEqual(effect, "Faded by 50 %.")
        self.assertIn("inside a cross of 100 px at", mask)
        self.assertTrue(shape.startswith("A cross 100 px long"), shape)

    def copied(self, folder: Path) -> Path:
        """The package, of which the fonts and all but the scenes are links."""
        source = ROOT / "balletto"
        copy = folder / "balletto"
        copy.mkdir()
        for path in source.iterdir():
            if path.name not in PUT_IN:
                (copy / path.name).symlink_to(path)
        for path in chain.from_iterable((source / name).rglob("*") for name in PUT_IN):
            if path.is_file() and "__pycache__" not in path.parts:
                target = copy / path.relative_to(source)
                target.parent.mkdir(parents=True, exist_ok=True)
                target.symlink_to(path)
        return copy
