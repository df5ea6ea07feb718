"""What each value of a scene is called: one word for one thing, in sentences, lists, views of time
and the history. Those of effects, masks, shapes and selectors stand with their kinds."""

from collections.abc import Mapping
from typing import Any

from ..effects import EFFECT_KINDS
from ..forms.flurry import BIRTHS, COUNT, FLIGHT, FLURRY, PLACE_KINDS
from ..forms.stroke import STROKE
from ..letters.along import ALONG
from ..letters.caret import CARET
from ..letters.features import feature_name
from ..letters.windows import WINDOW
from ..masks import MASK_KINDS
from ..moving.motion_blur import SHUTTER
from ..pose import PROPERTIES
from ..selectors import SELECTOR_KINDS
from ..shapes import SHAPE_KINDS
from .wording import Said

POSE: dict[str, str] = {name: each.label for name, each in PROPERTIES.items()}
TRANSFORM: dict[str, str] = {"rotation": "turn", "scale": "size"}
PARTS: dict[str, tuple[str, ...]] = {
    "position": ("across", "down", "depth"),
    "rotation": ("tip", "swing", "turn"),
    "scale": ("width", "height"),
    "size": ("width", "height"),
}
_ACROSS_AND_DOWN = ("across", "down")
AXES: dict[str, str] = {
    "wght": "weight", "wdth": "width", "opsz": "optical size", "slnt": "slant", "CASL": "casual",
    "CRSV": "cursive", "ital": "italic", "MONO": "mono", "SOFT": "softness", "WONK": "wonk",
}  # fmt: skip
STYLE: dict[str, str] = {
    "language": "language of the text",
    "fill": "colour",
    "outline_color": "colour of the outline",
}


def _names(values: Mapping[str, Said]) -> dict[str, str]:
    return {name: said.name for name, said in values.items()}


_TABLES = {
    "transform": TRANSFORM,
    "style": STYLE,
    "stroke": _names(STROKE.values),
    "caret": _names(CARET.values),
    "along": _names(ALONG.values),
    "flurry": {
        "count": COUNT.name,
        **_names(FLURRY.values),
        **_names(FLIGHT.values),
        **_names(BIRTHS.values),
        "colors": "colours",
        **{k: v for place in PLACE_KINDS.values() for k, v in _names(place.wording.values).items()},
    },
    "motion_blur": _names(SHUTTER.values),
    "window": _names(WINDOW.values),
}


def selector_name(kind: str) -> str:
    """What a kind of selector is called: "sweep", "chance"."""
    return SELECTOR_KINDS[kind].title if kind in SELECTOR_KINDS else kind


def axis_name(tag: str, name: str = "") -> str:
    """The name of a design axis of a font, as the style of a title says it."""
    return AXES.get(tag, name or tag).lower()


def spoken_axis(tag: str) -> str:
    """How sentences say a design axis, whatever font has it: by its name if that is one that all
    know, or its tag within marks."""
    return AXES.get(tag, f"“{tag}”")


def property_name(name: str) -> str:
    """The name of a property of a pose: "turn", "font weight"."""
    if name.startswith("axes."):
        return f"font {axis_name(name.removeprefix('axes.'))}"
    return POSE.get(name, name.replace("_", " "))


def property_noun(name: str) -> str:
    """A property where several are named: "height", "font weight"."""
    return (PROPERTIES[name].noun if name in PROPERTIES else "") or property_name(name)


def value_name(layer: Any, path: str) -> str:
    """What a value at a path is called, without whose it is; `layer` is that which the path leads
    into, as data or as a model, and tells of which kind a selector or an effect is.

    "t1.moves.m1.pose.rotation_x" is "tip", "t1.transform.position.1" is "position down",
    "t1.moves.m1.reach.0.low" is "start of the sweep".
    """
    _, *way = path.split(".")
    if way[:1] == ["moves"] and len(way) > 2:
        return _of_move(_find(_part(layer, "moves"), way[1]), way[2:])
    for name in ("effects", "masks"):
        if way[:1] == [name] and len(way) > 2:
            return _of_worn(name, _part(layer, name), way[1:])
    if way[0] == "shape" and len(way) > 1:
        return _with_part(way[1:], _of_kind(SHAPE_KINDS, _part(layer, "shape")))
    if way[:2] == ["style", "features"] and len(way) > 2:
        return feature_name(way[2])
    table = _TABLES.get(way[0], {}) if len(way) > 1 else {}
    return _with_part(way[1:] if way[0] in _TABLES and len(way) > 1 else way, table)


def _of_kind(kinds: Mapping[str, Any], part: Any) -> dict[str, str]:
    """What the values of a shape, an effect or a mask are called, by its kind."""
    model = kinds.get(_part(part, "kind") if part else "")
    return _names(model.wording.values) if model else {}


def _of_move(move: Any, way: list[str]) -> str:
    if way[0] == "pose" and len(way) > 1:
        if way[1] == "axes":
            return f"font {axis_name(way[2])}"
        return _with_part(way[1:], POSE)
    if way[0] == "eases" and len(way) > 1:
        of = way[1:3] if way[1] == "axes" else way[1:2]
        return f"easing of {_of_move(move, ['pose', *of])}"
    if way[0] == "reach" and len(way) > 2:
        return _of_selector(_part(move, "reach") or (), int(way[1]), way[2:])
    return _with_part(way, {})


def _of_selector(reach: Any, index: int, way: list[str]) -> str:
    kinds = [_part(selector, "kind") for selector in reach]
    if index >= len(kinds):
        return _with_part(way, {})
    kind = kinds[index]
    plain = [part for part in way if not part.isdecimal() and part not in ("keys", "value")]
    model = SELECTOR_KINDS.get(kind)
    names = _names(model.values) if model else {}
    said = _with_part(plain, names)
    if plain[-1] not in names:
        said = f"{said} of the {selector_name(kind)}"
    axis = f", {_ACROSS_AND_DOWN[int(way[-1])]}" if way[-1] in ("0", "1") else ""
    same = [at for at, each in enumerate(kinds) if each == kind]
    number = f" {same.index(index) + 1}" if len(same) > 1 else ""
    return f"{said}{number}{axis}"


def _of_worn(name: str, worn: Any, way: list[str]) -> str:
    index = int(way[0])
    kinds: Mapping[str, Any] = MASK_KINDS if name == "masks" else EFFECT_KINDS
    part = worn[index] if worn and index < len(worn) else None
    return _with_part(way[1:], _of_kind(kinds, part))


def _with_part(way: list[str], table: dict[str, str]) -> str:
    """The name of the value at the end of a way; of a number of a vector, that of its part."""
    way = [part for part in way if part not in ("keys", "value")]
    numbers = [part for part in way if part.isdecimal()]
    plain = [part for part in way if not part.isdecimal()]
    if not plain:
        return "value"
    key = plain[-1]
    name = table.get(key, key.replace("_", " ").replace("-", " "))
    if not way[-1].isdecimal() or not numbers:
        return name
    parts, number = PARTS.get(key, _ACROSS_AND_DOWN), int(way[-1])
    if number >= len(parts):
        return name
    return parts[number] if key in ("rotation", "scale") else f"{name} {parts[number]}"


def _part(holder: Any, name: str) -> Any:
    if isinstance(holder, dict):
        return holder.get(name)
    return getattr(holder, name, None)


def _find(items: Any, identifier: str) -> Any:
    return next((item for item in items or () if _part(item, "id") == identifier), None)
