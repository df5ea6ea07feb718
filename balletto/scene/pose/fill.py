"""What is within the outlines of letters: a fill, or strokes."""

from ..model import Opacity
from ..values import measures
from .base import HOME, Verb, pose_color, pose_property
from .joins import PRODUCT

pose_property(
    "filled", Opacity, "{} filled", label="fill", measure=measures.OPACITY,
    start=0, chance=32, rank=200, join=PRODUCT, low=0.0, high=1.0, preset_part="fill in",
    verbs=(Verb(("fill in", "fills in"), HOME, 0),),
)  # fmt: skip
pose_property(
    "hatched", Opacity, "{} hatched", label="hatching", measure=measures.OPACITY,
    start=0, chance=33, rank=210, join=PRODUCT, low=0.0, high=1.0, preset_part="hatch",
    verbs=(Verb(("hatch in", "hatches in"), HOME, 0),),
)  # fmt: skip
pose_color(
    "fill", "coloured {}", label="colour", start="#F2B705", chance=13, rank=220,
    preset_part="colour",
)  # fmt: skip
