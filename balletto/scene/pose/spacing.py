"""How far letters are from one another."""

from ..model import Factor, Thousandths
from ..values import measures
from .base import AWAY, HOME, Verb, pose_property

pose_property(
    "tracking", Thousandths, "spread by {}", label="tracking", measure=measures.THOUSANDTHS,
    start=300, chance=10, rank=120, is_of_letters=True, preset_part="spacing",
)  # fmt: skip
pose_property(
    "gather", Factor, "{} gathered at one point", label="gathering",
    measure=measures.PERCENT_OF_ONE_EITHER_WAY, start=1, chance=17, rank=170, is_of_letters=True,
    preset_part="gather",
    verbs=(
        Verb(("collapse", "collapses"), AWAY, 1),
        Verb(("open", "opens"), HOME, 1),
    ),
)  # fmt: skip
