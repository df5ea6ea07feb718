"""Which layer lies in front of which: from the back to the front, as a scene lists them."""

from .situation import Data, Situation


def in_order(situation: Situation, wanted: list[str]) -> list[Data]:
    """The edits that bring the layers to an order."""
    there, edits = [each["id"] for each in situation.data["layers"]], list[Data]()
    for index, layer in enumerate(wanted):
        if there[index] != layer:
            there.remove(layer)
            there.insert(index, layer)
            edits.append({"name": "move-layer", "layer": layer, "to": index})
    return edits


def parted(situation: Situation, layers: list[str]) -> tuple[list[str], list[str]]:
    """The layers that are spoken of, and the others."""
    ids = [each["id"] for each in situation.data["layers"]]
    return [each for each in ids if each in layers], [each for each in ids if each not in layers]


def at_an_end(situation: Situation, layers: list[str], is_front: bool) -> list[Data]:
    """The edits that put layers in front of all others, or behind them."""
    own, others = parted(situation, layers)
    return in_order(situation, [*others, *own] if is_front else [*own, *others])


def at_another(situation: Situation, layers: list[str], other: str, is_front: bool) -> list[Data]:
    """The edits that put layers right in front of another, or right behind it."""
    own, others = parted(situation, layers)
    at = others.index(other) + is_front
    return in_order(situation, [*others[:at], *own, *others[at:]])
