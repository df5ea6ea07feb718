"""Text along a path: the outline of a shape of the scene, which a title's letters stand along. The
data only; balletto.motion.spaces.along says where they stand."""

from dataclasses import replace
from typing import Any

from ..model import Identifier, Model, Percent, Pixels
from ..values import measures
from ..values.tracks import Changing
from ..values.wording import Said, Wording


class Along(Model):
    """A title whose baseline is the longest contour of the outline of the shape layer `layer`, as
    large as that layer stands, about the title's own origin; how large the title is scaled makes
    its letters larger, not the path.

    What the lines are aligned to stands at `offset` percent of the path's length, and letters are
    spaced by length along it. They stand `rise` px off it, turned with it or `upright`; in
    `reverse` they run against its way, on its other side. An open path goes straight on past its
    ends.
    """

    layer: Identifier
    offset: Changing[Percent] = 0
    rise: Changing[Pixels] = 0
    upright: bool = False
    reverse: bool = False


ALONG = Wording(
    "Path",
    "Stands along {layer} at {offset}, raised by {rise}, letters {upright}, running {reverse}.",
    {
        "layer": Said("Path of the title", is_name=True),
        "offset": Said("Place along the path", measures.PERCENT, 0),
        "rise": Said("Distance from the path", measures.PIXELS, 0),
        "upright": Said(
            "Turn of the letters",
            options=((False, "turned with it"), (True, "upright")),
        ),
        "reverse": Said(
            "Way along the path",
            options=((False, "its own way"), (True, "the other way round")),
        ),
    },
)


def along_wording(scene: Any) -> Wording:
    """How a path is said in a scene: its layer by name, which is chosen among those that there
    are."""
    named = tuple((layer.id, f"“{layer.name or layer.nameless}”") for layer in shapes_of(scene))
    layer = Said(ALONG.values["layer"].label, options=named)
    return replace(ALONG, values={**ALONG.values, "layer": layer})


def shapes_of(scene: Any) -> list[Any]:
    """The layers of a scene that a title can stand along."""
    return [layer for layer in scene.layers if layer.kind == "shape"]
