"""How far hues are turned."""

from ...raster.svg_filters import hues_turned
from ..model import Degrees
from ..values import measures
from .base import pose_property

pose_property(
    "hue", Degrees, "hues turned by {}", label="hues", measure=measures.DEGREES,
    start=180, chance=34, rank=240, mixes=hues_turned, preset_part="hues",
)  # fmt: skip
