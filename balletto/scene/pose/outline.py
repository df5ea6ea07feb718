"""The outlines of letters: their width, their colour, their form, and how much of them is drawn."""

from ..model import Opacity, Pixels
from ..values import measures
from .base import AWAY, HOME, Verb, pose_color, pose_property
from .joins import PRODUCT

pose_property(
    "outline", Pixels, "its outline {} wider", label="outline", measure=measures.OUTLINE,
    start=4, chance=12, rank=140, preset_part="outline",
)  # fmt: skip
pose_property(
    "displace", Pixels, "its form bent by {}", label="bent form", measure=measures.BLUR,
    start=8, chance=15, rank=150, low=0.0, preset_part="bend",
)  # fmt: skip
pose_property(
    "drawn", Opacity, "{} drawn", label="end of the drawing", measure=measures.OPACITY,
    start=0, chance=30, rank=180, join=PRODUCT, low=0.0, high=1.0, preset_part="draw",
    verbs=(Verb(("draw", "draws", "draw on", "draws on"), HOME, 0),),
)  # fmt: skip
pose_property(
    "drawn_from", Opacity, "drawn from {} on", label="start of the drawing",
    measure=measures.OPACITY, start=1, chance=31, rank=190, low=0.0, high=1.0,
    preset_part="draw off", verbs=(Verb(("draw off", "draws off"), AWAY, 1),),
)  # fmt: skip
pose_color(
    "outline_color", "its outline coloured {}", label="colour of the outline", start="#F2B705",
    chance=14, rank=230, preset_part="outline colour",
)  # fmt: skip
