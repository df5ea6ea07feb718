"""Where units are: to the side, up or down, in depth."""

from ..model import Depth, Pixels
from ..values import measures
from .base import AWAY, HOME, Verb, pose_property

pose_property(
    "x", Pixels, "{}", label="left or right", noun="width", measure=measures.LEFT_RIGHT,
    start=-120, chance=0, rank=10, likely=2, is_way=True, preset_part="slide",
)  # fmt: skip
pose_property(
    "y", Pixels, "{}", label="above or below", noun="height", measure=measures.ABOVE_BELOW,
    start=100, chance=1, rank=20, likely=0, is_way=True, preset_part="rise",
    verbs=(
        Verb(("rise", "rises", "rise in", "rises in"), HOME, 100),
        Verb(("drop", "drops", "drop in", "falls in"), HOME, 100, -1),
        Verb(("sink", "sinks", "falls out", "drop out"), AWAY, 100),
        Verb(("rise out", "rises out", "rises away"), AWAY, 100, -1),
    ),
)  # fmt: skip
pose_property(
    "z", Depth, "{}", label="depth", noun="depth", measure=measures.NEARER_DEEPER,
    start=600, chance=2, rank=30, likely=6, is_way=True, preset_part="depth",
)  # fmt: skip
