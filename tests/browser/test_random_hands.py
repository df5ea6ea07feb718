"""A thousand random actions of a hand against a model that is kept here: whatever it does at once,
and however late the answers come, the page, the server and the model agree at the end.

Another seed, or another count: BALLETTO_HANDS="seed actions" in the environment.
"""

import os
import random
import re
import time
from copy import deepcopy
from typing import Any

from playwright.sync_api import expect

from balletto.scene import files
from tests.core.amounts import some
from tests.core.scenes import scene_data
from web.projects.models import Revision

from .base import BrowserTest
from .late import LATE

_USUAL = f"1 {some(200, 2000)}"  # a seed, and how many actions
SEED, ACTIONS = (int(word) for word in os.environ.get("BALLETTO_HANDS", _USUAL).split())
LAYERS = ("t1", "t2", "t3")
LATE_MS = (*[0] * 30, 120, 600, 1500)  # one after another they add up
WORDS = ("Winter", "Nine moons", "Orrery\nHouse", "A slow, quiet orbit over the dome", "é ü")
OFTEN = ["type", "type", "add", "step", "step", "nudge"]
ACTIONS_OF_A_HAND = [*OFTEN, "scrub", "words", "select", "undo", "redo"]
# Steps that the page sees within 350 ms are one edit. It sees a press at any time while that is
# made, so two presses that are made in less than half of that are surely one.
MERGES_MS = 150
# Of each value: the part of the page that shows it, and its range.
VALUES = {
    "type.size": ("type", (20, 300)),
    "type.tracking": ("type", (-40, 200)),
    "{}.transform.position.0": ("place", (200, 1700)),
    "{}.transform.position.1": ("place", (100, 900)),
}
ACROSS, DOWN = list(VALUES)[2:]


def facts(document: dict[str, Any]) -> dict[str, dict[str, Any]]:
    """Of each layer of a scene what hands change here."""
    return {
        title.id: {
            "text": title.text,
            "type.size": title.style.size,
            "type.tracking": title.style.tracking,
            ACROSS: title.transform.position[0],
            DOWN: title.transform.position[1],
        }
        for title in files.from_data(document).layers
    }


class Model:
    """What the scene should be: the layers at each revision, and which of them is looked at."""

    def __init__(self, layers: dict[str, dict[str, Any]]):
        self.revisions = [(layers, True)]
        self.at = 0
        self.layer = "t1"
        self.stepped = ""  # what was stepped or worded last, with nothing done since

    @property
    def layers(self) -> dict[str, dict[str, Any]]:
        return self.revisions[self.at][0]

    @property
    def own(self) -> dict[str, Any]:
        return self.layers[self.layer]

    @property
    def is_certain(self) -> bool:
        """Whether the newest change is one revision, so that an undo takes back all of it."""
        return self.revisions[self.at][1]

    def change(self, key: str, value: Any, is_certain: bool = True) -> None:
        if self.own[key] == value:
            return
        layers = {**self.layers, self.layer: {**self.own, key: value}}
        del self.revisions[self.at + 1 :]
        self.revisions.append((layers, is_certain))
        self.at += 1


Trace = tuple[str, dict[str, dict[str, Any]]]  # what was done, and all layers after it


class Hand:
    """A hand that does one thing after another, without waiting for answers."""

    def __init__(self, test: BrowserTest, seed: int, model: Model):
        self.page = test.page
        self.random = random.Random(seed)
        self.model = model

    def act(self) -> str:
        """Does something, and says what."""
        if self.random.random() < 0.1:
            wait = self.random.choice(LATE_MS)
            self.page.evaluate("(ms) => { window.lateMs = ms; }", wait)
        name = self.random.choice(ACTIONS_OF_A_HAND)
        return f"{name} {getattr(self, name)()}"

    def chip(self, key: str) -> Any:
        """A value of the selected layer, once its sentence is there: hands go by what they see."""
        layer = self.model.layer
        part = VALUES[key][0]
        return self.page.locator(f'#{part}-{layer} [data-chip="{key.format(layer)}"]')

    def some_value(self) -> tuple[str, float, tuple[float, float]]:
        key = self.random.choice(list(VALUES))
        return key, self.model.own[key], VALUES[key][1]

    def typed(self, key: str, text: str) -> None:
        self.chip(key).click()
        self.page.keyboard.type(text)
        self.page.keyboard.press(self.random.choice(("Enter", "Enter", "Tab")))
        self.model.stepped = ""

    def type(self) -> str:
        key, _, (low, high) = self.some_value()
        value = self.random.randint(low, high)
        self.typed(key, str(value))
        self.model.change(key, value)
        return f"{key} {value}"

    def add(self) -> str:
        """Types a value relative to the one that stands there."""
        key, old, (low, _) = self.some_value()
        by = self.random.randint(1, 9)
        sign = "-" if old - by > low and self.random.random() < 0.5 else "+"
        self.typed(key, f"+{by}" if sign == "+" else f"{by} less")
        value = old + (by if sign == "+" else -by)
        self.model.change(key, value)
        return f"{key} {sign}{by}"

    def burst(self, what: str, keys: list[str]) -> bool:
        """Presses keys at once; says whether they are surely one edit."""
        is_one = self.model.stepped != what
        last = time.monotonic()
        for key in keys:
            self.page.keyboard.press(key)
            now = time.monotonic()
            is_one = is_one and (now - last) * 1000 < MERGES_MS
            last = now
        self.model.stepped = what
        return is_one

    def step(self) -> str:
        key, old, _ = self.some_value()
        count = self.random.randint(1, 6)
        by = self.random.choice((1, -1))
        chip = self.chip(key)
        chip.focus()
        is_one = self.burst(
            f"{self.model.layer} {key}", ["ArrowUp" if by > 0 else "ArrowDown"] * count
        )
        self.model.change(key, old + by * count, is_one)
        return f"{key} {by * count}"

    def nudge(self) -> str:
        axis = self.random.randrange(2)
        by = self.random.choice((1, -1))
        count = self.random.randint(1, 5)
        self.page.locator("#picture").focus()
        arrow = {
            (0, 1): "ArrowRight",
            (0, -1): "ArrowLeft",
            (1, 1): "ArrowDown",
            (1, -1): "ArrowUp",
        }
        is_one = self.burst(f"{self.model.layer} nudge", [arrow[axis, by]] * count)
        key = (ACROSS, DOWN)[axis]
        self.model.change(key, self.model.own[key] + by * count, is_one)
        return f"{axis} {by * count}"

    def press(self, chip: Any, key: str) -> tuple[float, float]:
        """Presses on a value, and says where. A hand sees what it presses: if lines were broken
        anew under the pointer at that moment, it lets go and presses again."""
        while True:
            chip.hover()
            box = chip.bounding_box()
            x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
            self.page.mouse.move(x, y)
            self.page.mouse.down()
            if self.page.evaluate("window.pressed") == key:
                return x, y
            self.page.mouse.up()
            print(f"missed {key}")

    def scrub(self) -> str:
        key = self.random.choice((ACROSS, DOWN))
        old = self.model.own[key]
        by = self.random.choice((-40, -20, 20, 40))
        x, y = self.press(self.chip(key), key.format(self.model.layer))
        self.page.mouse.move(x + by / 2, y)
        self.page.mouse.move(x + by, y)
        self.page.mouse.up()
        self.model.stepped = ""
        self.model.change(key, old + by)
        return f"{key} {by}"

    def words(self) -> str:
        words = self.random.choice(WORDS)
        field = self.page.locator(f"#text-{self.model.layer}")
        field.click()
        self.page.keyboard.press("Control+a")
        self.page.keyboard.insert_text(words)
        what = f"{self.model.layer} words"
        self.model.change("text", words, is_certain=self.model.stepped != what)
        self.model.stepped = what
        return repr(words)

    def select(self) -> str:
        layer = self.random.choice(LAYERS)
        self.page.locator(f"#row-{layer} [data-select-layer]").click()
        self.model.layer = layer
        self.model.stepped = ""
        return layer

    def walk(self, key: str, by: int) -> str:
        self.page.locator("#picture").focus()
        self.page.keyboard.press(key)
        self.model.at += by
        self.model.stepped = ""
        return f"to {self.model.at}"

    def undo(self) -> str:
        if not self.model.at or not self.model.is_certain:
            return "nothing certain"
        return self.walk("Control+z", -1)

    def redo(self) -> str:
        if (
            self.model.at + 1 == len(self.model.revisions)
            or not self.model.revisions[self.model.at + 1][1]
        ):
            return "nothing certain"
        return self.walk("Control+Shift+z", 1)


# What the pointer was pressed on last, and what the page has told since it was opened.
NOTED = """addEventListener("pointerdown", (event) => {
  window.pressed = event.target.closest("[data-chip]")?.dataset.chip;
}, true);
window.told = [];
addEventListener("DOMContentLoaded", () => new MutationObserver((changes) => {
  for (const { addedNodes } of changes) for (const node of addedNodes) told.push(node.textContent);
}).observe(document.getElementById("notices"), { childList: true }));"""


class RandomHandsTest(BrowserTest):
    def told(self, trail: list[Trace], layer: str, key: str) -> str:
        """How a value came to be what it is: by the hand, and by the revisions that were kept."""
        revisions = Revision.objects.filter(scene=self.scene).order_by("number")
        kept = [(f"{made.number} {made.label}", facts(made.document)) for made in revisions]
        ways = {"the hand": trail, "the server": kept}
        lines = [f"seed {SEED}, {key} of {layer}"]
        for name, way in ways.items():
            lines.append(f"{name}:")
            last = None
            for told, layers in way:
                if (now := layers[layer][key]) != last:
                    lines.append(f"  {told} -> {now}")
                last = now
        return "\n".join(lines)

    def test_page_server_and_model_agree(self):
        first = {**scene_data()["layers"][0], "runs": [], "moves": []}
        places = zip(LAYERS, (300, 540, 780), strict=True)
        layers = [
            {
                **deepcopy(first),
                "id": layer,
                "text": f"Title {layer}",
                "transform": {"position": [960, y, 0]},
            }
            for layer, y in places
        ]
        self.begin_with(LATE)
        self.begin_with(NOTED)
        self.page.set_default_timeout(120_000)  # the answers of many edits may all be late
        person = self.sign_in()
        self.scene = self.open_scene(person, layers=layers)
        model = Model(facts(self.document(self.scene)))
        hand = Hand(self, SEED, model)
        hand.page.locator("#row-t1 [data-select-layer]").click()
        trail: list[Trace] = [("at first", model.layers)]
        try:
            for number in range(ACTIONS):
                trail.append((f"{number} {hand.act()}", model.layers))
        except Exception:
            print(f"seed {SEED}:", *(told for told, _ in trail[-12:]), sep="\n  ")
            raise
        self.page.evaluate("window.lateMs = 0")
        self.page.locator("#picture").focus()
        expect(self.page.locator("#kept")).to_have_text("All changes kept", timeout=120_000)
        kept = facts(self.document(self.scene))
        other = {
            (layer, key): (kept[layer][key], wanted)
            for layer, values in model.layers.items()
            for key, wanted in values.items()
            if kept[layer][key] != wanted
        }
        told = "\n".join(self.told(trail, layer, key) for layer, key in other)
        told += f"\nthe page told: {self.page.evaluate('told')}"
        self.assertEqual(other, {}, told)
        for layer in LAYERS:
            self.page.locator(f"#row-{layer} [data-select-layer]").click()
            model.layer = layer
            expect(self.page.locator(f"#text-{layer}")).to_have_value(model.own["text"])
            for key in VALUES:
                shown = hand.chip(key)
                expect(shown).to_have_attribute(
                    "aria-valuenow", re.compile(rf"^{model.own[key]:g}(\.0)?$")
                )
