"""How full colours are."""

from ...raster.svg_filters import saturated
from ..model import Factor
from ..values import measures
from .base import pose_property
from .joins import PRODUCT

pose_property(
    "saturation", Factor, "{} full", label="saturation", measure=measures.PERCENT_OF_ONE,
    start=0, chance=35, rank=250, join=PRODUCT, low=0.0, mixes=saturated, preset_part="saturation",
)  # fmt: skip
