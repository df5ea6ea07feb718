"""How much is left of the shadow of a layer."""

from ..model import Opacity
from ..values import measures
from .base import pose_property
from .joins import PRODUCT

pose_property(
    "shadow", Opacity, "{} of its shadow", label="shadow", measure=measures.OPACITY,
    start=0, chance=16, rank=160, join=PRODUCT, low=0.0, high=1.0, preset_part="shadow",
)  # fmt: skip
