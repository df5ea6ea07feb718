"""Chips: the live values in a sentence. A chip carries the edit that it makes, without its value.

The page's script scrubs and steps them. While it does, it says the number by the same measure
(static/js/workbench/values/measure.js mirrors `Measure.say`); what is typed is read by the core.
"""

import json
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from django.utils.html import format_html, format_html_join
from django.utils.safestring import SafeString

from balletto.scene.values.measures import Measure


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
    keys: str = "",
    key_path: str = "",
) -> SafeString:
    """A number to scrub. `rest` is what a double click sets, `clears` the edit that it or Delete
    makes instead; `key_path` the value that a keyframe is set for, `keys` the frames at which it
    has some."""
    said = measure.say(value)
    return format_html(
        '<span class="val{}" id="v-{}" role="spinbutton" tabindex="0" data-chip="{}" '
        'data-edit="{}" data-measure="{}" data-rest="{}" data-clears="{}" data-key-path="{}"{} '
        'aria-label="{}" aria-valuenow="{}" aria-valuetext="{}">{}</span>',
        " is-beaded" if keys else "",
        chip.key,
        chip.key,
        json.dumps(chip.edit),
        measure.json,
        "" if rest is None else rest,
        json.dumps(clears) if clears else "",
        key_path,
        _keys_told(keys),
        chip.label,
        repr(float(value)),
        said,
        said,
    )


def _keys_told(keys: str) -> SafeString | str:
    return format_html(' data-keys="{}"', keys) if keys else ""


def choice_chip(
    chip: Chip, value: Any, options: Iterable[tuple[Any, str]], other: str = "own"
) -> SafeString:
    """A choice: a button that opens a list. Option values are sent as JSON. `other` is said of a
    value that is none of them."""
    options = list(options)
    said = next((text for option, text in options if option == value), None) or other
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


def font_chip(chip: Chip, value: str, said: str) -> SafeString:
    """A font: a button that opens the one list of all fonts on the page."""
    return format_html(
        '<button type="button" class="val val--pick" data-chip="{}" data-edit="{}" '
        'data-font-now="{}" aria-haspopup="dialog" aria-label="{}: {}">{}</button>',
        chip.key,
        json.dumps(chip.edit),
        value,
        chip.label,
        said,
        said,
    )


def color_chip(chip: Chip, value: str, keys: str = "", key_path: str = "") -> SafeString:
    """A colour, for the picker of the page; `keys` and `key_path` as of a number."""
    return format_html(
        '<label class="val val--swatch{}"><span class="vh">{}</span><input type="color" id="v-{}" '
        'data-chip="{}" data-edit="{}" data-key-path="{}"{} value="{}"></label>',
        " is-beaded" if keys else "",
        chip.label,
        chip.key,
        chip.key,
        json.dumps(chip.edit),
        key_path,
        _keys_told(keys),
        value,
    )
