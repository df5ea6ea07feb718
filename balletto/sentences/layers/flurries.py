"""The sentences of a flurry: what is thrown and how, from where and from when on."""

from typing import Any

from ...scene.forms.flurry import (
    BIRTHS,
    COUNT,
    FLIGHT,
    FLURRY,
    PIECES,
    Flurry,
    LayerSource,
    TextSource,
)
from ...scene.forms.flurry_starts import THINGS
from ..language.letters import quoted
from ..wording.parts import say_part
from ..wording.pieces import Aside, Choice, ColorPiece, NumberPiece, Pieces, joined, said
from ..wording.texts import text_of

OWN_THINGS = "things of their own"
COLORED, COPIES = "coloured {}", "copies of {}"


def say_flurry(path: str, flurry: Flurry, things: tuple[tuple[Any, str], ...] = ()) -> list[Pieces]:
    """All that is said of it: what is thrown and how; from where, when and in which colours.
    `things` are what else of the scene could be thrown, as it is kept and as it is told."""
    count = NumberPiece(f"{path}.count", COUNT.label, value=flurry.count, measure=PIECES)
    what = said("A flurry of {} {}", count, _things(path, flurry, things))
    births = say_part(f"{path}.births", flurry.births, BIRTHS)
    place = say_part(f"{path}.place", flurry.place, flurry.place.wording)
    colors: list[Pieces] = [
        (ColorPiece(f"{path}.colors.{number}", f"Colour {number + 1}", value=color),)
        for number, color in enumerate(flurry.colors)
    ]
    more = [said(COLORED, joined(colors))] if colors else []
    return [
        said("{}, {}.", what, (*say_part(path, flurry, FLURRY), _flight(path, flurry))),
        said("They are {}.", joined([births, place, *more])),
    ]


def _flight(path: str, flurry: Flurry) -> Aside:
    """What is used less of how pieces fly."""
    usual = Flurry.model_fields
    is_usual = all(getattr(flurry, name) == usual[name].default for name in FLIGHT.values)
    return Aside("Their flight:", say_part(path, flurry, FLIGHT), is_usual)


def flurry_text(flurry: Flurry) -> str:
    """A flurry as plain text, in one sentence."""
    first, second = (text_of(pieces) for pieces in say_flurry("", flurry))
    return f"{first.removesuffix('.')}, {second.removeprefix('They are ')}"


def _things(path: str, flurry: Flurry, more: tuple[tuple[Any, str], ...]) -> Pieces:
    """What is thrown, of which others can be chosen."""
    own = [
        source.model_dump(exclude_unset=True, by_alias=True, mode="json")
        for source in flurry.source
    ]
    options = (*((source, words) for words, source in THINGS.items()), *more)
    return (Choice(f"{path}.source", "What is thrown", value=own, options=options,
                   other=_called(flurry.source)),)  # fmt: skip


def _called(sources: tuple[Any, ...]) -> str:
    texts = [quoted(source.text) for source in sources if isinstance(source, TextSource)]
    layers = [quoted(source.layer) for source in sources if isinstance(source, LayerSource)]
    if len(layers) == len(sources):
        return COPIES.format(" and ".join(layers))
    return f"letters of {' and '.join(texts)}" if texts else OWN_THINGS
