"""Chips: the live values in a sentence. A chip carries the edit that it makes, without its value.

The page's script scrubs, types and steps them. While it does, it says the number by the same
measure (static/js/measure.js mirrors `Measure.say`).
"""

import json
from dataclasses import asdict, dataclass
from functools import cached_property
from typing import Any

from django.utils.html import format_html, format_html_join
from django.utils.safestring import SafeString


@dataclass(frozen=True)
class Measure:
    """How a number is said and handled.

    unit: what stands behind it, and one: behind 1, if that is another word; scale: what is shown
    for 1; drag: change a pixel of dragging gives; below, above: words instead of a sign ("left",
    "right"); low, high: limits.
    """

    unit: str = ""
    scale: float = 1
    drag: float = 1
    step: float = 1
    below: str = ""
    above: str = ""
    low: float | None = None
    high: float | None = None
    before: str = ""
    one: str = ""

    @cached_property
    def json(self) -> str:
        """What the page's script is told of it: all that is not as usual."""
        usual = Measure()
        told = {
            name: value for name, value in asdict(self).items() if value != getattr(usual, name)
        }
        return json.dumps(told)

    def say(self, value: float) -> str:
        """The number in words: "120 px below"."""
        shown = value * self.scale
        direction = (self.below if shown < 0 else self.above) if self.below else ""
        number = f"{round(abs(shown) if self.below else shown, 2):g}".replace("-", "−")
        unit = self.one if self.one and abs(shown) == 1 else self.unit
        return " ".join(part for part in (self.before, number + unit, direction) if part)


PIXELS = Measure(" px", drag=1)
LEFT_RIGHT = Measure(" px", below="left", above="right")
ABOVE_BELOW = Measure(" px", below="above", above="below")
NEARER_DEEPER = Measure(" px", drag=4, below="nearer", above="deeper")
DEGREES = Measure("°", drag=0.5)
PERCENT_OF_ONE = Measure(" %", scale=100, drag=0.005, step=0.01, low=0)
PERCENT_OF_ONE_EITHER_WAY = Measure(" %", scale=100, drag=0.005, step=0.01)
OPACITY = Measure(" %", scale=100, drag=0.005, step=0.01, low=0, high=1)
PERCENT = Measure(" %", drag=0.5)
SOFTNESS = Measure(" %", drag=0.5, low=0)
UNITS = Measure("", drag=0.05)
FRAMES = Measure(" frames", drag=0.125, one=" frame")
FRAME = Measure("", drag=0.25, before="frame")
LENGTH = Measure(" frames", drag=0.125, low=0.01, one=" frame")
WHOLE = Measure("", drag=0.1, low=0)
THOUSANDTHS = Measure(" ‰", drag=1)
BLUR = Measure(" px", drag=0.1, low=0)
OUTLINE = Measure(" px", drag=0.1)
HERTZ = Measure(" Hz", drag=0.02, step=0.1, low=0.1, high=100)
PLAIN = Measure("", drag=0.01, step=0.1)
SIGNED = Measure("", drag=0.5)


@dataclass(frozen=True)
class Chip:
    """A value: its id in the sentence, its edit, its name for screen readers."""

    key: str
    edit: dict[str, Any]
    label: str


def number_chip(
    chip: Chip,
    value: float,
    measure: Measure,
    rest: float | None = None,
    clears: dict[str, Any] | None = None,
    keyed: bool = False,
    key_path: str = "",
) -> SafeString:
    """A number to scrub. `rest` is what a double click sets, `clears` the edit that it
    or Delete makes instead; `key_path` the value that a keyframe is set for."""
    said = measure.say(value)
    return format_html(
        '<span class="val{}" role="spinbutton" tabindex="0" data-chip="{}" data-edit="{}" '
        'data-measure="{}" data-rest="{}" data-clears="{}" data-key-path="{}" '
        'aria-label="{}" aria-valuenow="{}" aria-valuetext="{}">{}</span>',
        " is-beaded" if keyed else "",
        chip.key,
        json.dumps(chip.edit),
        measure.json,
        "" if rest is None else rest,
        json.dumps(clears) if clears else "",
        key_path,
        chip.label,
        repr(float(value)),
        said,
        said,
    )


def choice_chip(chip: Chip, value: Any, options: list[tuple[Any, str]]) -> SafeString:
    """A choice: a button that opens a list. Option values are sent as JSON."""
    said = next((text for option, text in options if option == value), None) or "own"
    items = format_html_join(
        "",
        '<button type="button" role="option" aria-selected="{}" data-value="{}">{}</button>',
        (
            ("true" if option == value else "false", json.dumps(option), text)
            for option, text in options
        ),
    )
    return format_html(
        '<span class="pick"><button type="button" class="val val--pick" data-chip="{}" '
        'data-edit="{}" aria-haspopup="listbox" aria-expanded="false" aria-label="{}: {}">{}'
        '</button><span class="pick__list" role="listbox" aria-label="{}" hidden>{}</span></span>',
        chip.key,
        json.dumps(chip.edit),
        chip.label,
        said,
        said,
        chip.label,
        items,
    )


def color_chip(chip: Chip, value: str) -> SafeString:
    """A colour, picked with the browser's own picker."""
    return format_html(
        '<label class="val val--swatch"><span class="vh">{}</span><input type="color" '
        'data-chip="{}" data-edit="{}" value="{}"></label>',
        chip.label,
        chip.key,
        json.dumps(chip.edit),
        value,
    )
