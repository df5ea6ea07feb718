"""What new layers start as: of a size that suits the scene, in the middle of its picture."""

from typing import Any

from .shapes import SHAPE_KINDS

Data = dict[str, Any]
_USUAL_SIDE = 1080  # px of the shorter side that the shapes are made for
SHAPE_FILL = "#2BB5A0"
WORDS = "New title"
# Sizes of pictures that are asked for most, the usual one first, with what is said of their shape.
USUAL_SIZES: tuple[tuple[tuple[int, int], str], ...] = (
    ((1920, 1080), "wide"), ((3840, 2160), "wide"), ((1280, 720), "wide"), ((1080, 1080), "square"),
    ((1080, 1920), "tall"), ((1080, 1350), "portrait"),
)  # fmt: skip


def new_scene(name: str, size: tuple[int, int], rate: str, length: int) -> Data:
    """An empty scene on a dark ground."""
    return {
        "format": "balletto-scene",
        "version": 1,
        "name": name,
        "size": list(size),
        "rate": rate,
        "length": length,
        "background": {"kind": "color", "color": "#101428"},
        "camera": {"distance": 2000},
        "layers": [],
    }


def new_title(document: Data) -> Data:
    """A title whose words are to be typed."""
    width, height = document["size"]
    return {
        "kind": "title",
        "name": "",
        "span": [0, document["length"]],
        "text": WORDS,
        "style": {
            "font": "Anybody",
            "axes": {"wght": 700},
            "size": max(8, round(min(width / 10, height / 5))),
            "tracking": 0,
            "leading": 1.1,
            "fill": "#FFFFFF",
            "align": "center",
        },
        "runs": [],
        "transform": {
            "position": [width / 2, height / 2, 0],
            "rotation": [0, 0, 0],
            "scale": [1, 1],
            "opacity": 1,
        },
        "moves": [],
    }


# The numbers of a shape that are lengths.
_LENGTHS = ("from", "to", "size", "corner", "radius", "outer", "inner")


def new_shape(document: Data, kind: str) -> Data:
    """A shape of a kind, a line or filled, not larger than it would be in the usual picture."""
    width, height = document["size"]
    share = min(width, height) / _USUAL_SIDE
    is_line = kind in ("line", "arc")
    stroke = {"width": max(1, round(8 * share, 1)), "color": "#FFFFFF"} if is_line else None
    return {
        "kind": "shape",
        "name": "",
        "span": [0, document["length"]],
        "shape": {"kind": kind, **(_sized(kind, share) if share != 1 else {})},
        "fill": "none" if is_line else SHAPE_FILL,
        "stroke": stroke,
        "transform": {"position": [width / 2, height / 2, 0]},
    }


def _sized(kind: str, share: float) -> Data:
    """The lengths of a kind of shape, so many times as long as they usually are."""
    found: Data = {}
    for key, field in SHAPE_KINDS[kind].model_fields.items():
        name, usual = field.alias or key, field.default
        if name in _LENGTHS and isinstance(usual, tuple):
            found[name] = [round(side * share, 1) for side in usual]
        elif name in _LENGTHS and isinstance(usual, int | float):
            found[name] = round(usual * share, 1)
    return found
