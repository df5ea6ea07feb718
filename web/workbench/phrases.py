"""The words that sentences share: orders, eases, and small helpers of grammar."""

import re
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from django.utils.html import format_html
from django.utils.safestring import SafeString, mark_safe

from balletto.scene import measures
from balletto.scene.colors import hex_of
from balletto.scene.ease_words import EASES, TRACK_EASES
from balletto.scene.measures import Measure
from balletto.scene.orders import ORDERS
from balletto.scene.tracks import Tied, Track, value_at
from balletto.scene.value_names import value_name
from balletto.scene.wording import Said

from .chips import Chip, choice_chip, color_chip, number_chip

ORDER_WORDS = [(name, order.words) for name, order in ORDERS.items()]
BEYOND = [
    ("hold", "it holds"),
    ("cycle", "the keys come again"),
    ("mirror", "the keys go back and forth"),
    ("continue", "it goes straight on"),
]


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


@dataclass(frozen=True)
class Moment:
    """When sentences are told: at a frame of the scene, from which keyed values say what they are;
    `start` is the frame that their own frames count from, `opened` are the parts that are open."""

    frame: float = 0.0
    start: float = 0.0
    opened: frozenset[str] = frozenset()

    def of_move(self, start: float) -> "Moment":
        """The same moment for values whose frames count from the start of a move."""
        return replace(self, start=start)

    def value_of(self, track: Any) -> np.ndarray:
        """What a value is now, plain or keyed."""
        return value_at(track, np.array(float(self.frame - self.start)))

    def times_of(self, track: Track) -> str:
        """The frames of the scene at which its keyframes stand."""
        return " ".join(f"{round(key.at + self.start, 4):g}" for key in track.keys)


NOW = Moment()


def number(
    path: str, value: Any, measure: Measure, label: str, moment: Moment = NOW, **more: Any
) -> SafeString:
    """A number, as it is now if it has keyframes, and these behind a fold; or what it follows."""
    if isinstance(value, Tied):
        return tie_words(path, value, label)
    chip = Chip(path, edit_of(path), label)
    if not isinstance(value, Track):
        return number_chip(chip, value, measure, **more)
    now = measure.within(float(moment.value_of(value)))
    said = number_chip(chip, now, measure, keys=moment.times_of(value), **more)
    return format_html("{} {}", said, number_keys(path, value, measure, label, moment))


def number_keys(
    path: str, track: Track, measure: Measure, label: str, moment: Moment
) -> SafeString:
    """The keyframes of a number, or of several with one measure, behind a fold."""

    def said(key_path: str, key: Any, name: str) -> SafeString:
        parts = key.value if isinstance(key.value, tuple) else (key.value,)
        names = [f"{key_path}.value"]
        if isinstance(key.value, tuple):
            names = [f"{key_path}.value.{n}" for n in range(len(parts))]
        remove = {"name": "remove-key", "path": path, "at": key.at + moment.start}
        chips = [
            number_chip(Chip(here, edit_of(here), name), value, measure, clears=remove)
            for here, value in zip(names, parts, strict=True)
        ]
        return join(chips)

    return keys_fold(path, track, label, said, moment)


def color(path: str, value: Any, label: str, moment: Moment = NOW, **more: Any) -> SafeString:
    """A colour, as it is now if it has keyframes, and these behind a fold; or what it follows."""
    if isinstance(value, Tied):
        return tie_words(path, value, label)
    chip = Chip(path, edit_of(path), label)
    if not isinstance(value, Track):
        return color_chip(chip, value, **more)

    def said(key_path: str, key: Any, name: str) -> SafeString:
        return color_chip(Chip(f"{key_path}.value", edit_of(f"{key_path}.value"), name), key.value)

    now = color_chip(chip, hex_of(moment.value_of(value)), keys=moment.times_of(value), **more)
    return format_html("{} {}", now, keys_fold(path, value, label, said, moment))


def keys_fold(
    path: str,
    track: Track,
    label: str,
    say: Callable[[str, Any, str], SafeString],
    moment: Moment,
) -> SafeString:
    """A fold with the keyframes of a value one by one: "60 px below at frame 0, then ..."."""
    fold, count = f"fold-{path}", len(track.keys)
    is_open = fold in moment.opened
    button = format_html(
        '<button type="button" class="fold" data-fold="{}" aria-expanded="{}" '
        'aria-label="{} of {}">{}</button>',
        fold,
        "true" if is_open else "false",
        "Keyframe" if count == 1 else "Keyframes",
        label,
        "1 key" if count == 1 else f"{count} keys",
    )
    if not is_open:
        return button
    parts = []
    for index, key in enumerate(track.keys):
        here = f"{path}.keys.{index}"
        at = Chip(f"{here}.at", edit_of(f"{here}.at"), f"{label}, frame of key {index + 1}")
        value = say(here, key, f"{label}, key {index + 1}")
        parts.append(format_html("{} at {}", value, number_chip(at, key.at, measures.FRAME)))
    return format_html('{}<span class="keys">({})</span>', button, join(parts, ", then "))


def tie_words(path: str, tied: Tied, label: str) -> SafeString:
    """What a value follows: "tied to amount of “Rise” times −0.4 plus 0, 3 frames later"."""
    tie, base = tied.tie, f"{path}.tie"

    def part(name: str, measure: Measure, said: str, rest: float) -> SafeString:
        chip = Chip(f"{base}.{name}", edit_of(f"{base}.{name}"), f"{label}, {said} of the tie")
        return number_chip(chip, getattr(tie, name), measure, rest=rest)

    return format_html(
        '<span class="tied">tied to <b>{} of “{}”</b></span>{}, {} later',
        value_name(tied.layer, tie.to),
        tied.owner,
        ""
        if tied.is_color
        else format_html(
            " times {} plus {}",
            part("gain", measures.PLAIN, "gain", 1),
            part("plus", measures.SIGNED, "offset", 0),
        ),
        part("delay", measures.FRAMES, "delay", 0),
    )


def track_more(path: str, track: Track, label: str, with_eases: bool = True) -> SafeString:
    """What is used less of a keyed value: how it goes from key to key, and beyond them."""
    keys = [
        format_html(
            "from frame {} {}",
            f"{key.at:g}",
            ease_words(f"{path}.keys.{index}.ease", key.ease, f"{label}, easing", True),
        )
        for index, key in enumerate(track.keys[:-1] if with_eases else ())
    ]
    beyond = [
        format_html("{} them {}", side, choice_chip(
            Chip(f"{path}.{side}", edit_of(f"{path}.{side}"), f"{label}, {side} its keys"),
            getattr(track, side), BEYOND,
        ))
        for side in ("before", "after")
    ]  # fmt: skip
    return tight(format_html("{}: {}.", label, join([*keys, *beyond])))


def ease_words(path: str, ease: Any, label: str, between_keys: bool = False) -> SafeString:
    """The ease, and the numbers that its kind has."""
    options = TRACK_EASES if between_keys else EASES
    if isinstance(ease, str):
        return choice_chip(Chip(path, edit_of(path), label), ease, options)
    choice = choice_chip(Chip(path, edit_of(path), label), ease.start, options)
    values = {
        name: plain_value(f"{path}.{name}", getattr(ease, name), said)
        for name, said in ease.values.items()
    }
    return format_html("{} {}", choice, format_html(ease.words, **values))


def plain_value(path: str, value: Any, said: Said) -> SafeString:
    """A choice, a number, several numbers, or a list of points: none of them ever keyed."""
    if said.each:
        points = [
            [plain_value(f"{path}.{n}.{axis}", point[axis], part) for axis, part in parts]
            for n, point in enumerate(value)
            if (parts := [(axis, _numbered(part, n)) for axis, part in enumerate(said.each)])
        ]
        return join([format_html("{} at {}", there, place) for place, there in points])
    if said.parts and isinstance(value, tuple):
        parts = [
            plain_value(f"{path}.{n}", number, part)
            for n, (number, part) in enumerate(zip(value, said.parts, strict=True))
        ]
        return join(parts, ", ", " and " if said.parts[-1].after else None)
    chip = Chip(path, edit_of(path), said.label)
    if said.options:
        return choice_chip(chip, value, said.options)
    number = number_chip(chip, value, said.measure or measures.PLAIN, rest=said.rest)
    return format_html("{} {}", number, said.after) if said.after else number


def _numbered(said: Said, index: int) -> Said:
    return replace(said, label=f"{said.label} {index + 1}")


_RANK = Measure("", drag=0.05)


def order_words(path: str, ordered: Any, label: str) -> SafeString:
    """The order of a stagger or selector, with the seed, the point or the ranks that it needs."""
    chip = Chip(f"{path}.order", {"name": "set-order", "path": path}, label)
    choice = choice_chip(chip, ordered.order, ORDER_WORDS)
    needs = ORDERS[ordered.order].needs
    if needs == "seed":
        seed = Said(f"{label}, seed", measures.WHOLE)
        return format_html("{} {}", choice, plain_value(f"{path}.seed", ordered.seed, seed))
    if needs == "ranks":
        parts = tuple(Said(f"Rank {n + 1}", _RANK) for n in range(len(ordered.ranks)))
        ranks = plain_value(f"{path}.ranks", ordered.ranks, Said("Ranks", parts=parts))
        return format_html("{} ({})", choice, ranks)
    if needs == "point":
        return format_html("{} at {}", choice, point_words(f"{path}.point", ordered.point, "Point"))
    return choice


def point_words(path: str, point: Any, label: str, moment: Moment = NOW) -> SafeString:
    """A point of the picture: "960 px across, 540 px down", as it is now if it has keyframes."""
    if isinstance(point, Tied):
        return tie_words(path, point, label)
    keys = moment.times_of(point) if isinstance(point, Track) else ""
    across, down = (
        number_chip(
            Chip(f"{path}.{axis}", edit_of(f"{path}.{axis}"), f"{label}, {said}"),
            float(value),
            measures.PIXELS,
            keys=keys,
            key_path=path,
        )
        for axis, (said, value) in enumerate(
            zip(("across", "down"), moment.value_of(point), strict=True)
        )
    )
    said = format_html("{} across, {} down", across, down)
    if not isinstance(point, Track):
        return said
    fold = number_keys(path, point, measures.PIXELS, label, moment)
    return format_html("{} {}", said, fold)
