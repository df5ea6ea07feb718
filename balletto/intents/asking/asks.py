"""The edits for what is asked to be done with layers, their effects and their keys, in the words of
the table "asks": "split the layer at {t}"."""

from collections.abc import Callable, Iterator
from typing import Any

from ...scene.edits.paths import start_of
from ...scene.errors import SceneError
from ...scene.values.tracks import is_track
from ..layer_names import layer_called
from ..placing import PLACING
from ..situation import Data, Situation, is_with_group
from ..stacking import at_an_end, at_another, in_order
from .sounds import SOUND_ASKS, Ask


def edits_for_ask(situation: Situation, layers: list[str], data: Data) -> list[Data]:
    """The edits for what is asked of layers; SceneError where it cannot be done."""
    if data["ask"] in SOUND_ASKS:  # which need not be selected
        return ASKS[data["ask"]](situation, layers, data["values"])
    if not layers:
        raise SceneError.at("", "there is no layer to do this with: add one first")
    edits = ASKS[data["ask"]](situation, layers, data["values"])
    if not edits:
        raise SceneError.at("", "nothing of what is selected changes: it is as it is already")
    return edits


def _set(path: str, value: Any) -> Data:
    return {"name": "set-value", "path": path, "value": value}


def _on(value: bool) -> Ask:
    return lambda situation, layers, _: [_set(f"{layer}.on", value) for layer in layers]


def _more(situation: Situation, layers: list[str], values: list[Any]) -> list[Data]:
    alone, count = _alone(situation, layers), int(values[0])
    if not 1 <= count * len(alone) <= _MOST_COPIES:
        told = f"between 1 and {_MOST_COPIES} copies at once, got {count * len(alone)}"
        raise SceneError.at("", told)
    return [{"name": "duplicate-layer", "layer": layer} for layer in alone] * count


_MOST_COPIES = 50


def _alone(situation: Situation, layers: list[str]) -> list[str]:
    """Layers without those that go along with their group."""
    return [each for each in layers if not is_with_group(situation, each, set(layers))]


def _split(situation: Situation, layers: list[str], values: list[Any]) -> list[Data]:
    at = values[0] if values else situation.selection.frame
    return [{"name": "split-layer", "layer": each, "at": at} for each in _alone(situation, layers)]


def _shifted(sign: int) -> Ask:
    return lambda situation, layers, values: [
        {"name": "shift-layer", "layer": layer, "by": sign * values[0]}
        for layer in _alone(situation, layers)
    ]


def _removed(situation: Situation, layers: list[str], _: list[Any]) -> list[Data]:
    return [{"name": "remove-layer", "layer": layer} for layer in _alone(situation, layers)]


def _at_an_end(is_front: bool) -> Ask:
    """In front of all others, or behind them."""
    return lambda situation, layers, _: at_an_end(situation, layers, is_front)


def _stepped(by: int) -> Ask:
    """One place forward, or back: those together that stand together."""

    def ask(situation: Situation, layers: list[str], _: list[Any]) -> list[Data]:
        ids = [each["id"] for each in situation.data["layers"]]
        ordered = ids[::-by]  # what is farthest on the way goes first
        for index in range(1, len(ordered)):
            if ordered[index] in layers and ordered[index - 1] not in layers:
                ordered[index - 1 : index + 1] = ordered[index], ordered[index - 1]
        return in_order(situation, ordered[::-by])

    return ask


def _beside(is_front: bool) -> Ask:
    """In front of a layer by its name, or behind it."""

    def ask(situation: Situation, layers: list[str], values: list[Any]) -> list[Data]:
        other = layer_called(situation.document, values[0], layers).id
        return at_another(situation, layers, other, is_front)

    return ask


def _trimmed(side: int, sign: int) -> Ask:
    """A layer that is seen for less or more, its moves and keys as they were."""

    def ask(situation: Situation, layers: list[str], values: list[Any]) -> list[Data]:
        edits = []
        for layer in layers:
            span = list(situation.layer(layer)["span"])
            span[side] = situation.selection.frame if not values else span[side] + sign * values[0]
            if span[0] >= span[1]:
                raise SceneError.at(
                    layer, "nothing of it would be left: it must end after it starts"
                )
            edits.append(_set(f"{layer}.span", span))
        return edits

    return ask


def _as_long(situation: Situation, layers: list[str], values: list[Any]) -> list[Data]:
    if values[0] < 1:
        raise SceneError.at(
            "", f"at least one frame, got {values[0]:g}: nothing of it would be left"
        )
    spans = ((layer, situation.layer(layer)["span"][0]) for layer in layers)
    return [_set(f"{layer}.span.1", first + values[0]) for layer, first in spans]


def _texts(situation: Situation, layers: list[str], values: list[Any]) -> list[Data]:
    titles = [each for each in layers if situation.layer(each)["kind"] == "title"]
    return [{"name": "set-text", "layer": layer, "text": values[0]} for layer in titles]


def _in_case(change: Callable[[str], str]) -> Ask:
    def ask(situation: Situation, layers: list[str], values: list[Any]) -> list[Data]:
        titles = [layer for layer in layers if situation.layer(layer)["kind"] == "title"]
        return [
            {"name": "set-text", "layer": layer, "text": change(situation.layer(layer)["text"])}
            for layer in titles
        ]

    return ask


def _times_as_large(situation: Situation, layers: list[str], values: list[Any]) -> list[Data]:
    """Titles by the size of their letters, all else by its scale."""
    edits = []
    for layer in layers:
        data = situation.layer(layer)
        is_title = data["kind"] == "title"
        now = data["style"]["size"] if is_title else data.get("transform", {}).get("scale", [1, 1])
        if is_title and isinstance(now, int | float):
            edits.append(_set(f"{layer}.style.size", round(now * values[0], 2)))
        elif isinstance(now, list):
            scale = [round(side * values[0], 4) for side in now]
            edits.append(_set(f"{layer}.transform.scale", scale))
    return edits


def _named(situation: Situation, layers: list[str], values: list[Any]) -> list[Data]:
    several = len(layers) > 1
    return [
        _set(f"{layer}.name", f"{values[0]} {number}" if several else values[0])
        for number, layer in enumerate(layers, 1)
    ]


def _without(name: str, kind: str = "") -> Ask:
    """All effects, or those of a kind, or all moves away."""

    def ask(situation: Situation, layers: list[str], _: list[Any]) -> list[Data]:
        edits = []
        for layer in layers:
            there = situation.layer(layer).get(name, [])
            left = [each for each in there if kind and each["kind"] != kind]
            if len(left) < len(there):
                edits.append(_set(f"{layer}.{name}", left))
        return edits

    return ask


def _times(kind: str, value: str) -> Ask:
    """A number of an effect so many times as large, its keys too."""

    def ask(situation: Situation, layers: list[str], values: list[Any]) -> list[Data]:
        found = [
            (f"{layer.id}.effects.{n}.{value}", getattr(effect, value))
            for layer in situation.document.layers if layer.id in layers
            for n, effect in enumerate(getattr(layer, "effects", ())) if effect.kind == kind
        ]  # fmt: skip
        if not found:
            raise SceneError.at("", f"there is no {kind} here to change: say “{kind}” first")
        return [_set(path, _multiplied(now, values[0])) for path, now in found]

    return ask


def _multiplied(value: Any, by: float) -> Any:
    if isinstance(value, int | float):
        return round(value * by, 4)
    keyed = value.model_dump(mode="json", exclude_unset=True)
    if not is_track(keyed):
        raise SceneError.at("", "this value is tied to another: untie it first")
    return {
        **keyed,
        "keys": [{**key, "value": round(key["value"] * by, 4)} for key in keyed["keys"]],
    }


def _outline(sign: int) -> Ask:
    """The outline of titles and shapes, thicker or thinner by px."""

    def ask(situation: Situation, layers: list[str], values: list[Any]) -> list[Data]:
        edits = []
        for layer in layers:
            data = situation.layer(layer)
            is_title = data["kind"] == "title"
            path = "style.outline" if is_title else "stroke.width"
            holder, _, name = path.partition(".")
            now = (data.get(holder) or {}).get(name, 0)
            if isinstance(now, int | float) and (now or sign > 0):
                edits.append(_set(f"{layer}.{path}", max(0, round(now + sign * values[0], 4))))
        return edits

    return ask


def _moved(across: int, down: int) -> Ask:
    def ask(situation: Situation, layers: list[str], values: list[Any]) -> list[Data]:
        by = [across * values[0], down * values[0]]
        return [PLACING["place"](situation, {"layers": layers, "by": by, "grid": 0.001})]

    return ask


def _aligned(to: str) -> Ask:
    return lambda situation, layers, _: [
        PLACING["align-layers"](situation, {"layers": layers, "to": to})
    ]


def _group(situation: Situation, layers: list[str], values: list[Any]) -> list[Data]:
    made = PLACING["group"](situation, {"layers": layers})
    if not values:
        return [made]
    after = situation.after([made])
    known = {each["id"] for each in situation.data["layers"]}
    new = next(each["id"] for each in after.data["layers"] if each["id"] not in known)
    return [made, _set(f"{new}.name", values[0])]


def _spread(situation: Situation, layers: list[str], span: float) -> list[Data]:
    if len(layers) < 2:
        raise SceneError.at("", "select two layers or more, to let them begin one after another")
    return [{"name": "distribute-layers", "layers": layers, "span": span}]


def _one_every(situation: Situation, layers: list[str], values: list[Any]) -> list[Data]:
    return _spread(situation, layers, values[0] * (len(layers) - 1))


def _spread_over(situation: Situation, layers: list[str], values: list[Any]) -> list[Data]:
    return _spread(situation, layers, values[0])


# Of keys: those of all values of the layers


def _rows(situation: Situation, layers: list[str]) -> dict[str, list[int]]:
    """The keys of all values of layers that have some, by their paths."""
    rows = {
        path: [*range(len(track["keys"]))]
        for layer in situation.data["layers"] if layer["id"] in layers
        for path, track in _tracks(layer["id"], layer)
    }  # fmt: skip
    if not rows:
        raise SceneError.at("", "nothing that is selected has keys yet")
    return rows


def _tracks(path: str, value: Any) -> Iterator[tuple[str, Data]]:
    if is_track(value):
        yield path, value
    elif isinstance(value, dict):
        for name, inner in value.items():
            yield from _tracks(f"{path}.{name}", inner)
    elif isinstance(value, list):
        for number, inner in enumerate(value):
            is_move = path.endswith(".moves") and isinstance(inner, dict)
            yield from _tracks(f"{path}.{inner['id'] if is_move else number}", inner)


def _keys(name: str, **more: Any) -> Ask:
    return lambda situation, layers, _: [{"name": name, "keys": _rows(situation, layers), **more}]


def _keys_later(sign: int) -> Ask:
    return lambda situation, layers, values: [
        {"name": "shift-keys", "keys": _rows(situation, layers), "by": sign * values[0]}
    ]


def _keys_stretched(situation: Situation, layers: list[str], values: list[Any]) -> list[Data]:
    rows = _rows(situation, layers)
    firsts = [
        track["keys"][0]["at"] + start_of(situation.data, path)
        for layer in situation.data["layers"] if layer["id"] in layers
        for path, track in _tracks(layer["id"], layer)
    ]  # fmt: skip
    return [{"name": "stretch-keys", "keys": rows, "about": min(firsts), "factor": values[0]}]


ASKS: dict[str, Ask] = {
    **SOUND_ASKS,
    "hide the layer": _on(False),
    "show the layer": _on(True),
    "{n} more of the layer": _more,
    "split the layer at {t}": _split,
    "split the layer here": _split,
    "the layer in front of all": _at_an_end(is_front=True),
    "the layer behind all": _at_an_end(is_front=False),
    "the layer one forward": _stepped(1),
    "the layer one back": _stepped(-1),
    "the layer behind {q} in the order": _beside(False),
    "the layer in front of {q} in the order": _beside(True),
    "the layer removed": _removed,
    "the layer with all of it {t} later": _shifted(1),
    "the layer with all of it {t} earlier": _shifted(-1),
    "the layer {t} shorter at its end": _trimmed(1, -1),
    "the layer {t} shorter at its start": _trimmed(0, 1),
    "the layer {t} longer at its end": _trimmed(1, 1),
    "the layer {t} long": _as_long,
    "the layer shown from here on": _trimmed(0, 1),
    "the layer shown until here": _trimmed(1, 1),
    "the words are {q}": _texts,
    "the words in capitals": _in_case(str.upper),
    "the words in small letters": _in_case(str.lower),
    "the words each on a line of its own": _in_case(lambda text: "\n".join(text.split())),
    "{n} times as large": _times_as_large,
    "the layer called {q}": _named,
    **{f"without the {kind}": _without("effects", kind) for kind in ("glow", "shadow", "trail")},
    "without the hatching": _without("effects", "hatch"),
    "without effects": _without("effects"),
    "without moves": _without("moves"),
    "{n} times the reach of the glow": _times("glow", "radius"),
    "{n} times the strength of the glow": _times("glow", "strength"),
    "{n} times the softness of the shadow": _times("shadow", "softness"),
    "{n} times the opacity of the shadow": _times("shadow", "opacity"),
    "the outline {p} thinner": _outline(-1),
    "the outline {p} thicker": _outline(1),
    "the layer {p} higher": _moved(0, -1),
    "the layer {p} lower": _moved(0, 1),
    "the layer {p} to the left": _moved(-1, 0),
    "the layer {p} to the right": _moved(1, 0),
    "all keys {t} later": _keys_later(1),
    "all keys {t} earlier": _keys_later(-1),
    "all keys in {n} times the time": _keys_stretched,
    "all keys the other way round": _keys("reverse-keys"),
    "all keys removed": _keys("remove-keys"),
    "all keys with flow": _keys("ease-keys", ease="flow"),
    **{
        f"all keys with {ease.replace('-', ' ')}": _keys("ease-keys", ease=ease)
        for ease in ("soft-landing", "soft-start", "soft-both", "linear", "hold")
    },
    "left edges in line": _aligned("left"),
    "right edges in line": _aligned("right"),
    "upper edges in line": _aligned("top"),
    "lower edges in line": _aligned("bottom"),
    "middles in line across": _aligned("middle-across"),
    "middles in line down": _aligned("middle-down"),
    "evenly across": _aligned("spread-across"),
    "evenly down": _aligned("spread-down"),
    "a group": _group,
    "a group called {q}": _group,
    "one layer every {t}": _one_every,
    "the layers spread over {t}": _spread_over,
}
