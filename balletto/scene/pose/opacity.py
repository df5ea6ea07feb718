"""How opaque units are."""

from ..model import Opacity
from ..values import measures
from .base import AWAY, HOME, Verb, pose_property
from .joins import PRODUCT

pose_property(
    "opacity", Opacity, "{} opaque", label="opacity", measure=measures.OPACITY,
    start=0, chance=9, rank=100, likely=1, join=PRODUCT, low=0.0, high=1.0, preset_part="fade",
    verbs=(
        Verb(("fade", "fades", "fade in", "fades in"), HOME, 0),
        Verb(("fade out", "fades out", "fades away"), AWAY, 0),
    ),
)  # fmt: skip
