"""The words that sentences share: orders, eases, and small helpers of grammar."""

import re
from typing import Any

from django.utils.html import format_html
from django.utils.safestring import SafeString, mark_safe

from balletto.scene.eases import EASE_NAMES
from balletto.scene.tracks import Track

from . import chips
from .chips import Chip, Measure, choice_chip, number_chip

ORDERS = [
    ("forward", "in reading order"),
    ("backward", "from the end back"),
    ("center-out", "from the centre out"),
    ("ends-in", "from the ends in"),
    ("alternate", "every other first"),
    ("shuffle", "shuffled"),
    ("across", "from left to right"),
    ("down", "from top to bottom"),
    ("from-point", "from a point out"),
    ("by-hand", "in an order set by hand"),
]
_OFFERED = [name for name, _ in ORDERS if name != "by-hand"]
EASES: list[tuple[Any, str]] = [
    *((name, name.replace("-", " ")) for name in EASE_NAMES),
    ({"spring": 0.4}, "spring"),
    ({"bounce": 3}, "bounce"),
    ({"steps": 4}, "steps"),
]
TRACK_EASES = [*EASES, ("auto", "no overshoot"), ("flow", "a round flow")]
# What each kind of ease has to set, with its name and how it is measured.
EASE_NUMBERS = {
    "spring": (Measure("", drag=0.005, step=0.05, low=0.05, high=1, before="damping"), "Damping"),
    "bounce": (Measure(" rebounds", drag=0.05, low=0, high=20), "Rebounds"),
    "steps": (Measure(" steps", drag=0.05, low=1, high=1000), "Steps"),
}


def edit_of(path: str) -> dict[str, Any]:
    return {"name": "set-value", "path": path}


def join(parts: list[SafeString], between: str = ", ", last: str | None = None) -> SafeString:
    if len(parts) > 1 and last is not None:
        parts = [*parts[:-2], format_html("{}{}{}", parts[-2], last, parts[-1])]
    return mark_safe(between.join(parts))  # noqa: S308 - the parts are escaped where they are made


def tight(sentence: SafeString) -> SafeString:
    """Keeps a comma or full stop on the line of the value before it."""
    wrapped = _BEFORE_PUNCTUATION.sub(r'<span class="tight">\1\2</span>', sentence)
    return mark_safe(wrapped)  # noqa: S308 - what is wrapped was escaped where it was made


# A whole chip, as chips.py makes them, with a comma or full stop behind it.
_BEFORE_PUNCTUATION = re.compile(
    r'(<span class="val[^>]*>[^<]*</span>'
    r'|<span class="pick">(?:[^<]|<(?!/span>))*</span></span>'
    r"|<label[^>]*>(?:[^<]|<(?!/label>))*</label>)([,.])"
)


def number(path: str, value: Any, measure: Measure, label: str, **more: Any) -> SafeString:
    """A number, or the keys of one: "−40 % at frame 0 to 100 % at frame 60"."""
    if not isinstance(value, Track):
        return number_chip(Chip(path, edit_of(path), label), value, measure, **more)
    parts = []
    for index, key in enumerate(value.keys):
        key_path = f"{path}.keys.{index}"
        value_chip = Chip(
            f"{key_path}.value", edit_of(f"{key_path}.value"), f"{label}, key {index + 1}"
        )
        time_chip = Chip(
            f"{key_path}.at", edit_of(f"{key_path}.at"), f"{label}, frame of key {index + 1}"
        )
        key_of = more.get("key_path", "")
        parts.append(
            format_html(
                "{} at {}",
                number_chip(
                    value_chip,
                    key.value,
                    measure,
                    clears={"name": "remove-key", "path": path, "at": key.at},
                    keyed=True,
                    key_path=key_of,
                ),
                number_chip(time_chip, key.at, chips.FRAME),
            )
        )
    return join(parts, ", then ", " to " if len(parts) == 2 else ", then ")


def ease_words(path: str, ease: Any, label: str, between_keys: bool = False) -> SafeString:
    """The ease, and the number that its kind has."""
    options = TRACK_EASES if between_keys else EASES
    if isinstance(ease, str):
        return choice_chip(Chip(path, edit_of(path), label), ease, options)
    kind = next(iter(ease.model_fields_set & set(EASE_NUMBERS)), None)
    of_kind = (value for value, _ in options if isinstance(value, dict) and kind in value)
    choice = choice_chip(Chip(path, edit_of(path), label), next(of_kind, None), options)
    if kind is None:
        return choice
    measure, said = EASE_NUMBERS[kind]
    chip = Chip(f"{path}.{kind}", edit_of(f"{path}.{kind}"), said)
    return format_html("{} {}", choice, number_chip(chip, getattr(ease, kind), measure))


def order_words(path: str, ordered: Any, label: str) -> SafeString:
    """The order of a stagger or selector, and the point that it may go out from."""
    # An order by hand is made in other ways; here it can only be left.
    options = [order for order in ORDERS if order[0] in (ordered.order, *_OFFERED)]
    chip = Chip(f"{path}.order", {"name": "set-order", "path": path}, label)
    choice = choice_chip(chip, ordered.order, options)
    if ordered.point is None:
        return choice
    return format_html("{} at {}", choice, point_words(f"{path}.point", ordered.point, "Point"))


def point_words(path: str, point: Any, label: str) -> SafeString:
    """A point of the picture: "960 px across, 540 px down"; a keyed one is said by its keys."""
    if isinstance(point, Track):
        parts = [
            format_html(
                "{} at {}",
                point_words(f"{path}.keys.{index}.value", key.value, label),
                number_chip(
                    Chip(f"{path}.keys.{index}.at", edit_of(f"{path}.keys.{index}.at"), label),
                    key.at,
                    chips.FRAME,
                ),
            )
            for index, key in enumerate(point.keys)
        ]
        return join(parts, ", then ", " to " if len(parts) == 2 else ", then ")
    across, down = (
        number_chip(
            Chip(f"{path}.{axis}", edit_of(f"{path}.{axis}"), f"{label}, {said}"),
            point[axis],
            chips.PIXELS,
            key_path=path,
        )
        for axis, said in enumerate(("across", "down"))
    )
    return format_html("{} across, {} down", across, down)
