"""The sentence of a formation: copies of a layer."""

from typing import Any

from ...scene.formations import Formation
from ...scene.formations.base import CHANCE, LAST
from ...scene.values.measures import DEGREES, FRAMES
from ...scene.values.wording import Wording
from ..moves.wording import SPREAD
from ..wording.parts import say_part
from ..wording.pieces import Aside, NumberPiece, Pieces, said
from ..wording.texts import text_of
from ..wording.values import ease_pieces, order_pieces

SECTOR = ", only from {} to {}"
DELAYED, DELAYED_WITHIN = "each {} after the one before, {}", "within {} in all, {}"


def say_formation(path: str, formation: Formation) -> Pieces:
    """How the copies stand; what the last one has, their chance and delays are used less."""
    pieces = say_part(path, formation, formation.wording)
    for number, sector in enumerate(getattr(formation, "cut", None) or ()):
        here, label = f"{path}.cut.{number}", f"Sector {number + 1}"
        ends = (
            NumberPiece(f"{here}.{end}", f"{label}, {name}", value=sector[end], measure=DEGREES)
            for end, name in enumerate(("start", "end"))
        )
        pieces += said(SECTOR, *ends)
    if formation.delay is not None:
        pieces += said(", {}", _delay(f"{path}.delay", formation.delay))
    for title, name, wording in (("The last copy:", "last", LAST), ("Chance:", "chance", CHANCE)):
        part = getattr(formation, name)
        pieces += (Aside(title, *_part(f"{path}.{name}", part, wording)),)
    return pieces


def formation_text(formation: Formation) -> str:
    """A formation as plain text."""
    text = text_of(say_formation("", formation))
    return f"{text[:1].upper()}{text[1:]}."


def _part(path: str, part: Any, wording: Wording) -> tuple[Pieces, bool]:
    """What is said of a part, and whether all of it is as usual."""
    is_usual = part == type(part)()
    return say_part(path, part, wording), is_usual


def _delay(path: str, delay: Any) -> Pieces:
    """How much later each copy shows what the layer does."""
    order = order_pieces(path, delay, "Order of the copies")
    if delay.span is not None:
        span = NumberPiece(f"{path}.span", "Delay of the last", value=delay.span, measure=FRAMES)
        pieces = said(DELAYED_WITHIN, span, order)
    else:
        gap = NumberPiece(f"{path}.gap", "Delay", value=delay.gap or 0.0, measure=FRAMES)
        pieces = said(DELAYED, gap, order)
    ease = ease_pieces(f"{path}.curve", delay.curve, "Spread of the delays")
    return (*pieces, Aside("Delays of copies", said(SPREAD, ease), delay.curve == "linear"))
