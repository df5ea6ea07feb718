"""The sentence of a matte: where a layer is seen, as another layer says."""

from dataclasses import replace
from functools import cache

from ...scene.forms.matte import Matte
from ...scene.values.wording import Said, Wording
from ..language.letters import quoted
from ..wording.parts import say_part
from ..wording.pieces import Choice, Pieces
from .part_reader import PartKind, kind_of_wording

MATTE = Wording(
    "Matte",
    "Seen {invert} {layer} is {by}, which {visible}.",
    {
        "invert": Said("Side of the matte", options=((False, "where"), (True, "except where"))),
        "layer": Said("Layer of the matte", is_name=True),
        "by": Said("What of it counts", options=(("alpha", "opaque"), ("luminance", "light"))),
        "visible": Said(
            "Whether it is drawn",
            options=((False, "is not drawn itself"), (True, "stays visible")),
        ),
    },
)


def say_matte(path: str, matte: Matte, sources: tuple[tuple[str, str], ...] = ()) -> Pieces:
    """Where a layer is seen; `sources` are the layers that could say so, by id and as told."""
    label = MATTE.values["layer"].label
    layer = Choice(f"{path}.layer", label, value=matte.layer, options=sources,
                   other=quoted(matte.layer))  # fmt: skip
    return say_part(path, matte, MATTE, layer=(layer,))


@cache
def matte_kind() -> PartKind:
    """What reads a matte; its layer is told by its name."""
    kind = kind_of_wording("matte", Matte, MATTE)
    return replace(kind, unsaid=(("layer", "m1"),))
