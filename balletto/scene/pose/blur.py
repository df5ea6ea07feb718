"""How soft units are."""

from ..model import Pixels
from ..values import measures
from .base import AWAY, HOME, Verb, pose_property

pose_property(
    "blur", Pixels, "blurred by {}", label="blur", measure=measures.BLUR,
    start=12, chance=11, rank=130, likely=5, low=0.0, preset_part="blur",
    verbs=(
        Verb(("blur", "blurs", "blur in"), HOME, 12),
        Verb(("blur out", "blurs out"), AWAY, 12),
    ),
)  # fmt: skip
