"""The sentence of what a scene lies on: nothing, a colour, a gradient, a picture or a video."""

from collections.abc import Callable, Iterator
from typing import Any

from ...scene.values.measures import DEGREES
from ...scene.values.wording import Said
from ..language.letters import quoted
from ..layers.media import AFTERS, SPEED, NameOptions, name_choice
from ..wording.pieces import Choice, ColorPiece, NumberPiece, Pieces, joined, said

PATH = "scene.background"
_GRADIENT = {"kind": "linear", "angle": 90, "colors": ["#101428", "#3A2150"]}
# By kind, what one that is chosen anew begins as, and how it is said.
STARTS: dict[str, tuple[Any, str]] = {
    "none": ({"kind": "none"}, "nothing"),
    "color": ({"kind": "color", "color": "#101428"}, "a colour"),
    "gradient": ({"kind": "gradient", "fill": _GRADIENT}, "a gradient"),
    "still": (None, "a picture"),
    "clip": (None, "a video"),
}
FILLS = (("filled", "filling it, cut off at two sides"), ("whole", "seen whole"))
_FILE = Said("File", is_name=True)


def say_ground(
    background: Any, starts: dict[str, Any] | None = None, options: NameOptions = ()
) -> Pieces:
    """What a scene lies on. `starts` are what backgrounds from files could begin as, by kind,
    `options` the files to choose from."""
    value = background.model_dump(exclude_unset=True)
    found = {**{kind: start for kind, (start, _) in STARTS.items()}, **(starts or {})}
    found[background.kind] = value
    kinds = tuple((start, STARTS[kind][1]) for kind, start in found.items() if start is not None)
    edit = {"name": "set-value", "path": PATH}
    kind = Choice("background-kind", "Background", edit=edit, value=value, options=kinds)
    more = _MORE[background.kind](background, options)
    return said("Lies on {} {}.", kind, more) if more else said("Lies on {}.", kind)


def _colored(background: Any, options: NameOptions) -> Pieces:
    edit = {"name": "set-value", "path": f"{PATH}.color"}
    return (ColorPiece("background", "Background colour", edit=edit, value=background.color),)


def _gradient(background: Any, options: NameOptions) -> Pieces:
    fill, path = background.fill, f"{PATH}.fill"
    colors: list[Pieces] = []
    for number, color in enumerate(fill.colors):
        edit = {"name": "set-value", "path": f"{path}.colors.{number}"}
        colors.append(
            (ColorPiece(f"{path}.{number}", f"Colour {number + 1}", edit=edit, value=color),)
        )
    if fill.kind != "linear":
        return said("from {} from the middle out", joined(colors, " to "))
    angle = NumberPiece(
        f"{path}.angle", "Direction of the gradient", value=fill.angle, measure=DEGREES, rest=90
    )
    return said("from {} along {}", joined(colors, " to "), angle)


def _still(background: Any, options: NameOptions) -> Pieces:
    file = name_choice(f"{PATH}.file", background.file, _FILE, options)
    fill = Choice(f"{PATH}.fill", "Filling", value=background.fill, options=FILLS)
    return said("{}, {}", file, fill)


def _clip(background: Any, options: NameOptions) -> Pieces:
    speed = NumberPiece(f"{PATH}.speed", "Speed of the background", value=background.speed,
                   measure=SPEED, rest=1)  # fmt: skip
    after = Choice(f"{PATH}.after", "After its end", value=background.after, options=AFTERS)
    return said("{}, at {}, at its end {}", _still(background, options), speed, after)


_MORE: dict[str, Callable[[Any, NameOptions], Pieces]] = {
    "none": lambda background, options: (),
    "color": _colored,
    "gradient": _gradient,
    "still": _still,
    "clip": _clip,
}


def ground_text(background: Any) -> str:
    """What a scene lies on, within the sentence of the scene: "on #101428", "on a gradient from
    #101428 to #3A2150 along 90°"."""
    if background.kind == "color":
        return f"on {background.color}"
    if background.kind == "gradient":
        fill = background.fill
        way = f"along {DEGREES.say(fill.angle, 9)}" if fill.kind == "linear" else "round"
        return f"on a gradient from {' to '.join(fill.colors)} {way}"
    if background.kind in ("still", "clip"):
        what = "picture" if background.kind == "still" else "video"
        return ", ".join([f"on the {what} {quoted(background.file)}", *_shown(background)])
    return "on nothing"


def _shown(background: Any) -> Iterator[str]:
    """How a file is shown, as far as that is not as usual."""
    if background.fill != FILLS[0][0]:
        yield dict(FILLS)[background.fill]
    if background.kind == "clip":
        if background.speed != 1:
            yield f"at {SPEED.say(background.speed, 9)}"
        if background.after != AFTERS[0][0]:
            yield f"at its end {dict(AFTERS)[background.after]}"
