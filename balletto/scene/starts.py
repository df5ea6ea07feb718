"""What new layers start as: of a size that suits the scene, in the middle of its picture."""

from typing import Any

from ..stock.shapes import SHAPES
from .errors import SceneError
from .forms.flurry import Flurry
from .forms.flurry_starts import STARTS, THINGS
from .model import Counts
from .rewriting import Mark, Rewriter, Where
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
# Frames a second that are asked for most, as they are kept and as they are told.
USUAL_RATES: tuple[tuple[str, str], ...] = (
    ("24000/1001", "23.976"), ("24", "24"), ("25", "25"), ("30000/1001", "29.97"), ("30", "30"),
    ("50", "50"), ("60000/1001", "59.94"), ("60", "60"),
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


def new_flurry(document: Data, said: Data) -> Data:
    """A flurry of a kind (`start`), of things by their names, letters of a `text`, or a `layer` of
    the document by its id or name, with all else that is said of it. SceneError if there is none.
    """
    width, height = document["size"]
    share = min(width, height) / _USUAL_SIDE
    start = STARTS[said.get("start", "burst")]
    source = start["source"]
    if "things" in said:
        source = THINGS[said["things"]]
    elif "text" in said:
        source = [{"text": said["text"], "style": {"axes": {"wght": 800}, "size": 64}}]
    elif "layer" in said:
        source = [{"layer": _layer_called(document, said["layer"])}]
    usual = _Sized(share).part(Flurry, {"source": source, **start["flurry"]})
    own = {name: said[name] for name in said if name not in ("start", "things", "text", "layer")}
    across, down = start["side"]
    return {
        "kind": "flurry",
        "name": "",
        "span": [0, document["length"]],
        "flurry": {**usual, **own},
        "transform": {"position": [round(width * across), round(height * down), 0]},
    }


def _layer_called(document: Data, called: str) -> str:
    """The id of a layer by itself, its name or its words; the one in front of several."""
    for layer in reversed(document["layers"]):
        if called in (layer["id"], layer.get("name"), layer.get("text")):
            return str(layer["id"])
    raise SceneError.at("layer", f"there is no layer “{called}”")


def color_of(style: Data) -> str:
    """The colour of a title, for what goes with it; white where it has none."""
    fill = style.get("fill", "#FFFFFF")
    return fill if isinstance(fill, str) and fill != "none" else "#FFFFFF"


def new_caret(title: Data, move: str) -> Data:
    """A caret of a title, which goes with a move of it."""
    width = max(1, round(title["style"].get("size", 120) / 20, 1))
    return {"move": move, "width": width, "color": color_of(title["style"])}


def new_clicks(title: Data, move: str) -> Data:
    """A layer of clicks for a move of a title."""
    return {
        "kind": "clicks",
        "name": "Clicks",
        "span": list(title["span"]),
        "title": title["id"],
        "move": move,
        "sound": "typewriter",
    }


def as_it_would_come(layer: Data, document: Data, other: Data) -> Data | None:
    """A title that is as it came into a scene, but for its words, as it would come into another;
    None for all else."""
    given = ("id", "text", "span")
    own = {name: value for name, value in layer.items() if name not in given}
    came = {name: value for name, value in new_title(document).items() if name not in given}
    if layer["kind"] != "title" or own != came:
        return None
    return {**new_title(other), **{name: layer[name] for name in given if name in layer}}


def new_shape(document: Data, kind: str) -> Data:
    """A shape of a kind, a line or filled, or one that ships, by its name; not larger than it would
    be in the usual picture."""
    width, height = document["size"]
    share = min(width, height) / _USUAL_SIDE
    if kind in SHAPES:
        path = {"kind": "path", "path": SHAPES[kind]()}
        return _layer_of(document, path, SHAPE_FILL, None, round(_SHIPPED_SCALE * share, 3))
    is_line = SHAPE_KINDS[kind].is_line
    stroke = {"width": max(1, round(8 * share, 1)), "color": "#FFFFFF"} if is_line else None
    shape = {"kind": kind, **_Sized(share).part(SHAPE_KINDS[kind], {})}
    return _layer_of(document, shape, "none" if is_line else SHAPE_FILL, stroke)


_SHIPPED_SCALE = 2  # those that ship are 200 px across


def _layer_of(
    document: Data, shape: Data, fill: str, stroke: Data | None, scale: float = 1
) -> Data:
    width, height = document["size"]
    place: Data = {"position": [width / 2, height / 2, 0]}
    if scale != 1:
        place["scale"] = [scale, scale]
    return {
        "kind": "shape",
        "name": "",
        "span": [0, document["length"]],
        "shape": shape,
        "fill": fill,
        "stroke": stroke,
        "transform": place,
    }


class _Sized(Rewriter):
    """The lengths of a shape, so many times as long as they usually are."""

    def __init__(self, share: float):
        self._share = share

    def number(self, value: Any, mark: Mark, where: Where) -> Any:
        if self._share != 1 and mark.counts is Counts.LENGTH:
            return round(value * self._share, 1)
        if self._share != 1 and mark.counts is Counts.POINT:
            return [round(side * self._share, 1) for side in value]
        return value
