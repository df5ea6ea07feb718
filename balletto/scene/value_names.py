"""What each value of a scene is called: one word for one thing, in sentences, lists, views of time
and the history. The words of effects, masks and shapes in sentences are held to these by a test."""

from typing import Any

POSE: dict[str, str] = {
    "x": "left or right", "y": "above or below", "z": "depth", "rotation": "turn",
    "rotation_x": "tip", "rotation_y": "swing", "scale": "size", "scale_x": "width",
    "scale_y": "height", "opacity": "opacity", "skew": "lean", "tracking": "tracking",
    "blur": "blur", "outline": "outline", "displace": "bent form", "shadow": "shadow",
    "fill": "colour", "outline_color": "colour of the outline",
}  # fmt: skip
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
    "CRSV": "cursive", "MONO": "mono", "SOFT": "softness", "WONK": "wonk",
}  # fmt: skip
SELECTORS: dict[str, str] = {"scatter": "chance", "jitter": "shake"}
SELECTOR_VALUES: dict[str, dict[str, str]] = {
    "sweep": {
        "low": "start", "high": "end", "soft_low": "back softness", "soft_high": "front softness",
    },
    "wave": {"cycles": "crests", "soft": "softness"},
    "jitter": {"hold": "period", "together": "togetherness"},
    "spot": {
        "center": "middle", "inner": "inner radius", "outer": "outer radius", "angle": "turn",
        "from": "foot", "to": "top",
    },
}  # fmt: skip
EFFECTS: dict[str, dict[str, str]] = {
    "blur": {"x": "blur across", "y": "blur down"},
    "directional-blur": {"length": "length of the smear", "angle": "direction of the smear"},
    "zoom-blur": {"amount": "amount of the smear", "x": "point across", "y": "point down"},
    "glow": {
        "strength": "strength of the glow", "radius": "reach of the glow",
        "color": "colour of the glow",
    },
    "shadow": {
        "x": "shadow to the side", "y": "shadow above or below",
        "softness": "softness of the shadow", "color": "colour of the shadow",
        "opacity": "opacity of the shadow",
    },
    "tint": {"color": "colour of the tint", "amount": "amount of the tint"},
    "hue": {"turn": "turn of the hues"},
    "outline": {"width": "width of the line", "color": "colour of the line"},
    "trail": {
        "copies": "copies of the trail", "gap": "frames between copies",
        "fade": "fade from copy to copy", "shrink": "size from copy to copy",
        "outline": "width of outlines, 0 for whole letters",
    },
    "displace": {
        "amount": "amount of the displacement", "size": "size of the bumps",
        "every": "how often", "seed": "chance of the displacement",
    },
}  # fmt: skip
MASK: dict[str, str] = {
    "center": "middle of the mask", "rotation": "turn of the mask", "feather": "feather",
    "expand": "expansion", "opacity": "density of the mask", "size": "size of the mask",
    "corner": "corners of the mask", "invert": "side of the mask",
    "fixed": "what the mask moves with", "mode": "how it joins the masks before",
}  # fmt: skip
STROKE: dict[str, str] = {
    "width": "width of the line", "color": "colour of the line", "from": "start of the line",
    "to": "end of the line", "travel": "travel of the line", "ends": "ends of the line",
    "joins": "corners of the line",
}  # fmt: skip
SHAPE: dict[str, str] = {
    "from": "start", "to": "end", "corner": "corners", "angle": "where it starts",
    "sweep": "how far it goes", "outer": "outer radius", "inner": "inner radius",
}  # fmt: skip
SHUTTER: dict[str, str] = {"angle": "angle of the shutter", "phase": "phase of the shutter"}
STYLE: dict[str, str] = {"fill": "colour", "outline_color": "colour of the outline"}
_TABLES = {"transform": TRANSFORM, "stroke": STROKE, "shape": SHAPE, "motion_blur": SHUTTER,
           "style": STYLE}  # fmt: skip


def selector_name(kind: str) -> str:
    """What a kind of selector is called: "sweep", "chance"."""
    return SELECTORS.get(kind, kind)


def axis_name(tag: str, name: str = "") -> str:
    """The name of a design axis of a font, as the style of a title says it."""
    return AXES.get(tag, name or tag).lower()


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
    table = _TABLES.get(way[0], {}) if len(way) > 1 else {}
    return _with_part(way[1:] if way[0] in _TABLES and len(way) > 1 else way, table)


def _of_move(move: Any, way: list[str]) -> str:
    if way[0] == "pose" and len(way) > 1:
        if way[1] == "axes":
            return f"font {axis_name(way[2])}"
        return _with_part(way[1:], POSE)
    if way[0] == "reach" and len(way) > 2:
        return _of_selector(_part(move, "reach") or (), int(way[1]), way[2:])
    return _with_part(way, {})


def _of_selector(reach: Any, index: int, way: list[str]) -> str:
    kinds = [_part(selector, "kind") for selector in reach]
    if index >= len(kinds):
        return _with_part(way, {})
    kind = kinds[index]
    plain = [part for part in way if not part.isdigit() and part not in ("keys", "value")]
    said = _with_part(plain, SELECTOR_VALUES.get(kind, {}))
    axis = f", {_ACROSS_AND_DOWN[int(way[-1])]}" if way[-1] in ("0", "1") else ""
    same = [at for at, each in enumerate(kinds) if each == kind]
    number = f" {same.index(index) + 1}" if len(same) > 1 else ""
    return f"{said} of the {selector_name(kind)}{number}{axis}"


def _of_worn(name: str, worn: Any, way: list[str]) -> str:
    index = int(way[0])
    if name == "masks":
        return _with_part(way[1:], MASK)
    kind = _part(worn[index], "kind") if worn and index < len(worn) else ""
    return _with_part(way[1:], EFFECTS.get(kind, {}))


def _with_part(way: list[str], table: dict[str, str]) -> str:
    """The name of the value at the end of a way; of a number of a vector, that of its part."""
    way = [part for part in way if part not in ("keys", "value")]
    numbers = [part for part in way if part.isdigit()]
    plain = [part for part in way if not part.isdigit()]
    if not plain:
        return "value"
    key = plain[-1]
    name = table.get(key, key.replace("_", " ").replace("-", " "))
    if not way[-1].isdigit() or not numbers:
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
