"""How large units are. `scale` stands for both axes together, and is one chance for them."""

from ..model import Factor
from ..values import measures
from .base import AWAY, HOME, Verb, pose_property
from .joins import PRODUCT

pose_property(
    "scale", Factor, "{} of its size", label="size", measure=measures.PERCENT_OF_ONE,
    start=0.5, chance=6, rank=70, likely=3, join=PRODUCT, stands_for=("scale_x", "scale_y"),
    preset_part="grow",
    verbs=(
        Verb(("grow", "grows", "grow in", "grows in"), HOME, 0),
        Verb(("shrink", "shrinks", "shrink out"), AWAY, 0),
    ),
)  # fmt: skip
pose_property(
    "scale_x", Factor, "{} of its width", label="width", measure=measures.PERCENT_OF_ONE,
    start=0.5, chance=6, rank=80, join=PRODUCT, turns_about_pivot=True, preset_part="widen",
)  # fmt: skip
pose_property(
    "scale_y", Factor, "{} of its height", label="height", measure=measures.PERCENT_OF_ONE,
    start=0.5, chance=7, rank=90, join=PRODUCT, turns_about_pivot=True, preset_part="stretch",
)  # fmt: skip
