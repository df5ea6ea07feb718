"""The sentences of how a scene fills pictures of other shapes."""

import re
from typing import Any

from ...scene.document import Scene
from ...scene.fits import FIT_KINDS, Fit, FitPlace
from ...scene.layers import Layer
from ...scene.values import measures
from ...scene.values.measures import Measure
from ..language.letters import quoted, unquoted
from ..language.numbers import NUMBER, said_plainly
from ..language.tokens import SayingError
from ..wording.pieces import Choice, NumberPiece, Pieces, joined, said

SHAPES = (("9:16", "tall"), ("1:1", "square"), ("4:5", "portrait"), ("16:9", "wide"))
_WORDS = {"whole": "seen whole", "filled": "filled", "placed": "with its own places"}
FIT = "In {}pictures ({}) {}"
_FIT = re.compile(r"In (?:\w+ )?pictures \((\d+:\d+)\) ([^:]+?)(?:: (.*?))?\.?")
_PLACE = re.compile(
    rf"“((?:[^”\\]|\\.)*)” ({NUMBER}) px (left|right) and ({NUMBER}) px (above|below), "
    rf"({NUMBER}) % large"
)
_SCALE = Measure(" %", scale=100, drag=0.005, step=0.01, low=0.01)


def say_fits(scene: Scene) -> list[Pieces]:
    """How the scene fills each other shape, with the places of its layers there."""
    return [_fit(scene, shape, words) for shape, words in SHAPES if shape != shape_of(scene.size)]


def shape_of(size: tuple[int, int]) -> str:
    """Which of the named shapes a size has; empty if none."""
    for shape, _ in SHAPES:
        across, down = map(int, shape.split(":"))
        if size[0] * down == size[1] * across:
            return shape
    return ""


def _fit(scene: Scene, shape: str, words: str) -> Pieces:
    known = next((n for n, fit in enumerate(scene.fits) if fit.shape == shape), None)
    fit = scene.fits[known] if known is not None else Fit(shape=shape)
    others = [each.model_dump(exclude_unset=True) for each in scene.fits if each.shape != shape]
    options = tuple(
        ([*others, {**fit.model_dump(exclude_unset=True), "shape": shape, "by": by}], told)
        for by, told in _WORDS.items()
    )
    value = options[FIT_KINDS.index(fit.by)][0]
    edit = {"name": "set-value", "path": "scene.fits"}
    by = Choice(f"fit-{shape}", f"In {words} pictures", edit=edit, value=value, options=options)
    if fit.by != "placed" or known is None:
        return said(f"{FIT.format(f'{words} ', shape, '{}')}.", by)
    return said(f"{FIT.format(f'{words} ', shape, '{}: {}')}.", by, _places(scene, known, fit))


def _places(scene: Scene, index: int, fit: Fit) -> Pieces:
    told = {place.layer: n for n, place in enumerate(fit.places)}
    path = f"scene.fits.{index}"
    parts = [_place(path, fit, told.get(each.id), each) for each in scene.layers if each.has_place]
    return joined(parts, "; ")


def _place(path: str, fit: Fit, number: int | None, layer: Layer) -> Pieces:
    name = quoted(layer.called)
    if number is None:
        place: dict[str, Any] = {"layer": layer.id, "shift": [0, 0], "scale": 1}
        places = [*(each.model_dump(exclude_unset=True) for each in fit.places), place]
        edit = {"name": "set-value", "path": f"{path}.places"}
        choice = Choice(f"{path}-{layer.id}", f"Place of {name}", edit=edit, value=None,
                        options=((None, "as it is"), (places, "at its own place")))  # fmt: skip
        return said("{} {}", name, choice)
    here, own = f"{path}.places.{number}", fit.places[number]
    across = NumberPiece(f"{here}.shift.0", f"Shift across of {name}", value=own.shift[0],
                    measure=measures.LEFT_RIGHT, rest=0)  # fmt: skip
    down = NumberPiece(f"{here}.shift.1", f"Shift down of {name}", value=own.shift[1],
                  measure=measures.ABOVE_BELOW, rest=0)  # fmt: skip
    large = NumberPiece(f"{here}.scale", f"Size of {name}", value=own.scale, measure=_SCALE, rest=1)
    return said("{} {} and {}, {} large", name, across, down, large)


def fit_text(fit: Fit) -> str:
    """How a scene fills a shape, with the layers that have places there by their ids."""
    words = dict(SHAPES).get(fit.shape)
    told = FIT.format(f"{words} " if words else "", fit.shape, _WORDS[fit.by])
    return f"{told}{': ' if fit.places else ''}{'; '.join(map(_place_text, fit.places))}."


def _place_text(place: FitPlace) -> str:
    across = measures.LEFT_RIGHT.say(place.shift[0], 9)
    down = measures.ABOVE_BELOW.say(place.shift[1], 9)
    return f"{quoted(place.layer)} {across} and {down}, {_SCALE.say(place.scale, 9)} large"


def is_fit(line: str) -> bool:
    """Whether a line says how a scene fills a shape."""
    return bool(_FIT.fullmatch(line))


def read_fit(line: str) -> dict[str, Any]:
    """What `fit_text` says, as plain data; SayingError if it cannot be read."""
    shape, words, places = _FIT.fullmatch(line).groups()  # type: ignore[union-attr]
    kinds = {told: kind for kind, told in _WORDS.items()}
    if words not in kinds:
        told = f"a scene is {', or '.join(_WORDS.values())}"
        raise SayingError(told, line.index(words), line.index(words) + len(words))
    found = {"shape": shape, "by": kinds[words]}
    return found | ({"places": _read_places(line, places)} if places else {})


def _read_places(line: str, text: str) -> list[dict[str, Any]]:
    places, at = [], line.index(text)
    for part in re.split(r"; (?=“)", text):
        if not (found := _PLACE.fullmatch(part)):
            told = "say it as “t1” 0 px right and 150 px above, 55 % large"
            raise SayingError(told, at, at + len(part))
        layer, across, side, down, height, scale = found.groups()
        shift = [_signed(across, side == "left"), _signed(down, height == "above")]
        places.append(
            {"layer": unquoted(layer), "shift": shift, "scale": said_plainly(scale) / 100}
        )
        at += len(part) + len("; ")
    return places


def _signed(text: str, is_turned: bool) -> float:
    return -said_plainly(text) if is_turned else said_plainly(text)
