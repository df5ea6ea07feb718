"""A part of a layer as pieces: an effect, a mask, a selector, a window, by its wording."""

from string import Formatter
from typing import Any

from ...scene.values.keyable import keyed_type
from ...scene.values.measures import LENGTH_PX, PIXELS, PLAIN, Measure
from ...scene.values.tracks import Tied, Track
from ...scene.values.wording import Said, Wording
from .pieces import ColorPiece, NumberPiece, Numbers, Pieces, said
from .values import ease_pieces, order_pieces, plain_value


def say_part(path: str, part: Any, wording: Wording, **others: Pieces) -> Pieces:
    """The whole sentence of a part, a model of the document at `path`; `others` are pieces for
    names that are no values of it."""
    named = [name for _, name, *_ in Formatter().parse(wording.words) if name]
    values = wording.values
    pieces: dict[str, Pieces] = dict.fromkeys(named, ())
    for name in named:
        if name in values:
            pieces[name] = value_pieces(path, part, name, values[name])
    return said(wording.words, **(pieces | others))


def value_of(part: Any, name: str) -> Any:
    """The value of that name, as it is called in the file; None if it has none."""
    fields = type(part).model_fields.items()
    attribute = next((key for key, each in fields if name in (key, each.alias)), "")
    return getattr(part, attribute, None)


def value_pieces(base: str, part: Any, name: str, how: Said) -> Pieces:
    """One value of a part, as it is said."""
    path, value = f"{base}.{name}", value_of(part, name)
    if how.options or how.parts or how.each:
        return plain_value(path, value, how)
    if how.is_order:
        return order_pieces(base, part, how.label)
    if how.is_ease:
        return ease_pieces(path, value, how.label)
    if how.is_color:
        return (ColorPiece(path, how.label, path, value=value),)
    is_pair = how.is_pair or _is_pair(value)  # a radius may be one number, or two
    if (is_pair or how.is_point) and not isinstance(value, Tied):
        words, parts, measure = _POINT if how.is_point else _pair(how)
        return (Numbers(path, how.label, path, value=value, words=words, parts=parts,
                        measure=measure),)  # fmt: skip
    key_path = path if keyed_type(part, name) else ""
    number = NumberPiece(path, how.label, key_path, value=value, measure=how.measure or PLAIN,
                    rest=how.rest)  # fmt: skip
    return (number,)


# How two numbers are said, how each is called, and their measure.
_POINT = ("{} across, {} down", ("across", "down"), PIXELS)


def _is_pair(value: Any) -> bool:
    """Whether a value is two numbers, plain or keyed."""
    first = value.keys[0].value if isinstance(value, Track) else value
    return isinstance(first, tuple)


def _pair(how: Said) -> tuple[str, tuple[str, str], Measure]:
    return f"{{}} {how.between} {{}}", how.pair, LENGTH_PX
