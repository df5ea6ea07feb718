"""Hands: whole jobs done in the browser by the product's own means, their actions counted.

An action is one click, one drag, one key or chord, or one typed entry with its Enter (the words of
a title, a value, a sentence). A job begins with a new scene, whose words are there to be typed.
Playing and looking are free.
"""

import json
import random
from collections.abc import Callable
from dataclasses import dataclass, field
from functools import cache
from pathlib import Path
from typing import Any

from playwright.sync_api import Locator, Page, expect

from balletto.motion.poses import poses
from balletto.scene import files
from balletto.scene.document import Scene


@cache
def wordings() -> dict[str, list[str]]:
    """What newcomers would type in place of sentences of the jobs, by these."""
    lines = Path(__file__).with_name("wordings.txt").read_text(encoding="utf-8").splitlines()
    pairs = (line.split(" = ", 1) for line in lines if line and not line.startswith("#"))
    return {ours: theirs.split(" | ") for ours, theirs in pairs}


_KEPT = "() => !document.querySelector('#kept.is-busy')"


@dataclass
class Hands:
    """A hand in a scene that was just made. With `chance` it says all in words of newcomers, drawn
    by that, where `wordings` has some."""

    page: Page
    chance: random.Random | None = None
    actions: int = 0
    told: list[str] = field(default_factory=list)

    def _acted(self, what: str) -> None:
        self.actions += 1
        self.told.append(what)
        self.page.wait_for_timeout(60)  # no faster than hands are
        self.page.wait_for_function(_KEPT)

    def words(self, text: str) -> None:
        """Types the words of the title, which are selected in a new scene."""
        self.page.keyboard.type(text)
        self.page.wait_for_timeout(1000)  # until what is typed is taken over
        self._acted(f"type “{text}”")

    def say(self, text: str) -> None:
        """Types a sentence, after a click into its line if it has not the focus."""
        if self.chance and text in wordings():
            text = self.chance.choice(wordings()[text])
        line = self.page.locator("#say-moves-text")
        if not line.evaluate("line => line === document.activeElement"):
            self.click(line, "the line")
        self.page.keyboard.type(text)
        self.page.keyboard.press("Enter")
        expect(line).to_have_value("")
        self._acted(f"say “{text}”")
        assert not line.input_value(), f"refused: {line.input_value()}"

    def go_on(self, move: str, text: str) -> None:
        """Opens the plus of a move, and types what its sentence goes on with."""
        self.click(self.page.locator(f"#more-{move} > summary"), "the plus")
        expect(self.page.locator("[data-offers-find]")).to_be_focused()
        self.page.keyboard.type(text)
        self.page.keyboard.press("Enter")
        self._acted(f"go on “{text}”")

    def click(self, what: Locator, name: str) -> None:
        what.click()
        self._acted(f"click {name}")

    def key(self, chord: str) -> None:
        self.page.keyboard.press(chord)
        self._acted(f"press {chord}")

    def value(self, chip: str, text: str) -> None:
        """Clicks a value and types another."""
        self.click(self.page.locator(f'[data-chip="{chip}"]'), chip)
        self.page.keyboard.type(text)
        self.page.keyboard.press("Enter")
        self._acted(f"type {text}")

    def scrub(self, chip: str, pixels: int) -> None:
        """Drags a value sideways."""
        self.drag(self.page.locator(f'[data-chip="{chip}"]'), pixels, 0, chip)

    def drag(self, what: Locator, across: float, down: float, name: str, at: float = 0.5) -> None:
        """Drags something by px, held at a share of its width."""
        box = _seen(what)
        x, y = box["x"] + box["width"] * at, box["y"] + box["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        for step in range(1, 6):
            self.page.mouse.move(x + across * step / 5, y + down * step / 5)
        self.page.mouse.up()
        self._acted(f"drag {name}")

    @property
    def scene(self) -> Scene:
        """The scene as it is kept."""
        self.page.wait_for_function(_KEPT)
        address = self.page.url.split("?")[0].rstrip("/")
        return files.from_data(json.loads(self.page.request.get(f"{address}/file/").body()))

    def poses(self, first: int, last: int) -> dict[str, Any]:
        """The numbers of the title's motion."""
        scene = self.scene
        title = scene.titles[0]
        return poses(scene, title.id, list(range(first, last + 1)))


def _seen(what: Locator) -> dict[str, float]:
    """The box of what is scrolled to, in px of the page. An answer may put another in its place at
    any time: then that is looked for."""
    for _ in range(10):
        box: dict[str, float] = what.evaluate(
            """(shown) => {
              shown.scrollIntoView({ block: "nearest", inline: "nearest" });
              return shown.getBoundingClientRect().toJSON();
            }"""
        )
        if box["width"]:
            break
    return box


@dataclass(frozen=True)
class Job:
    """What is asked, how few actions it may take, and how a hand does it, checked by poses."""

    name: str
    at_most: int
    do: Callable[[Hands], None]


JOBS: dict[str, Job] = {}


def job(letter: str, name: str, at_most: int) -> Callable[[Callable[[Hands], None]], Any]:
    """Registers a job under its letter."""

    def register(do: Callable[[Hands], None]) -> Callable[[Hands], None]:
        JOBS[letter] = Job(name, at_most, do)
        return do

    return register


def new_scene(page: Page, base: str, chance: random.Random | None = None) -> Hands:
    """A new scene, as it opens, for a hand that says all in our words, or in others by chance."""
    page.goto(base)
    page.get_by_role("button", name="New scene").first.click()
    page.wait_for_selector("#canvas[data-shown]")
    page.wait_for_timeout(400)
    return Hands(page, chance)
