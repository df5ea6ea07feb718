"""The values that sentences share: eases, orders, choices, numbers, each as pieces."""

from dataclasses import replace
from typing import Any

from ...scene.model import Model
from ...scene.moving.ease_words import EASES, TRACK_EASES
from ...scene.orders import ORDERS
from ...scene.values.measures import PIXELS, PLAIN, WHOLE, Measure
from ...scene.values.pace import times_a_second
from ...scene.values.wording import Said
from .pieces import Choice, Listed, NumberPiece, Numbers, Pieces, joined, said

ORDER_WORDS = tuple((name, order.words) for name, order in ORDERS.items())
_RANK = Measure("", drag=0.05)
OWN_COURSE = "on a course of their own"


def ease_pieces(path: str, ease: Any, label: str, between_keys: bool = False) -> Pieces:
    """An ease, and the numbers that its kind has."""
    options = tuple(TRACK_EASES if between_keys else EASES)
    if isinstance(ease, str):
        return (Choice(path, label, value=ease, options=options),)
    named = Choice(path, label, value=ease.start, options=options)
    values = {
        name: plain_value(f"{path}.{name}", getattr(ease, name), how)
        for name, how in ease.values.items()
    }
    return said("{} {}", named, said(ease.words, **values))


def plain_value(path: str, value: Any, how: Said) -> Pieces:
    """A choice, a number, several numbers, or a list of points: none of them ever keyed."""
    if isinstance(value, Model):
        value = value.model_dump(exclude_unset=True, by_alias=True, mode="json")
    if how.each:
        points: list[list[Pieces]] = [
            [plain_value(f"{path}.{n}.{axis}", point[axis], part) for axis, part in axes]
            for n, point in enumerate(value)
            if (axes := [(axis, _numbered(part, n)) for axis, part in enumerate(how.each)])
        ]
        return joined([said("{} at {}", there, place) for place, there in points])
    if how.parts and isinstance(value, tuple):
        parts = [
            plain_value(f"{path}.{n}", number, part)
            for n, (number, part) in enumerate(zip(value, how.parts, strict=True))
        ]
        return joined(parts, ", ", " and " if how.parts[-1].after else None)
    if how.options:
        return (Choice(path, how.label, value=value, options=how.options, other=_pace(value)),)
    number = NumberPiece(path, how.label, value=value, measure=how.measure or PLAIN, rest=how.rest)
    return said("{} {}", number, how.after) if how.after else (number,)


def _pace(value: Any) -> str:
    """What is not one of those offered: a pace, or a course over a life."""
    if isinstance(value, dict):
        return OWN_COURSE
    is_pace = isinstance(value, str) and value.endswith("/s")
    return f"{times_a_second(value):g} times a second" if is_pace else "own"


def _numbered(how: Said, index: int) -> Said:
    return replace(how, label=f"{how.label} {index + 1}")


def order_pieces(path: str, ordered: Any, label: str) -> Pieces:
    """The order of a stagger or selector, with the seed, the point or the ranks that it needs."""
    edit = {"name": "set-order", "path": path}
    choice = Choice(f"{path}.order", label, edit=edit, value=ordered.order, options=ORDER_WORDS)
    needs = ORDERS[ordered.order].needs
    if needs == "seed":
        seed = Said(f"{label}, seed", WHOLE)
        return said("{} {}", choice, plain_value(f"{path}.seed", ordered.seed, seed))
    if needs == "ranks":
        parts = tuple(Said(f"Rank {n + 1}", _RANK) for n in range(len(ordered.ranks)))
        ranks = plain_value(f"{path}.ranks", ordered.ranks, Said("Ranks", parts=parts))
        return said("{} {}", choice, Listed(ranks))
    if needs == "point":
        point = Numbers(f"{path}.point", "Point", f"{path}.point", value=ordered.point,
                        measure=PIXELS)  # fmt: skip
        return said("{} at {}", choice, point)
    return (choice,)
