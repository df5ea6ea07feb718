"""How units are turned and lean."""

from ..model import Degrees
from ..values import measures
from .base import AWAY, HOME, Verb, pose_property

pose_property(
    "rotation", Degrees, "turned {}", label="turn", measure=measures.DEGREES,
    start=-20, chance=3, rank=40, likely=4, turns_about_pivot=True, preset_part="turn",
    verbs=(
        Verb(("turn", "turns", "turn in", "turns in"), HOME, -90),
        Verb(("turn out", "turns out"), AWAY, 90),
        Verb(("spin", "spins", "spin in", "spins in"), HOME, -360),
    ),
)  # fmt: skip
pose_property(
    "rotation_x", Degrees, "tipped {}", label="tip", measure=measures.DEGREES,
    start=60, chance=4, rank=50, turns_about_pivot=True, preset_part="tip",
    verbs=(Verb(("tip", "tips", "tip in"), HOME, 60),),
)  # fmt: skip
pose_property(
    "rotation_y", Degrees, "swung {}", label="swing", measure=measures.DEGREES,
    start=60, chance=5, rank=60, turns_about_pivot=True, preset_part="swing",
    verbs=(Verb(("swing", "swings", "swing in"), HOME, 60),),
)  # fmt: skip
pose_property(
    "skew", Degrees, "leaning {}", label="lean", measure=measures.DEGREES,
    start=20, chance=8, rank=110, turns_about_pivot=True, preset_part="lean",
    verbs=(Verb(("lean", "leans"), HOME, 20),),
)  # fmt: skip
