"""How each property of a pose is said: one table for what is said and for what is read."""

from typing import NamedTuple

from ..scene import measures
from ..scene.measures import Measure


class PoseWords(NamedTuple):
    """How a property is measured and said ("{}" is the value), its full name, and the away value
    that it starts with."""

    measure: Measure
    words: str
    label: str
    start: float


POSE_WORDS: dict[str, PoseWords] = {
    "x": PoseWords(measures.LEFT_RIGHT, "{}", "left or right", -120),
    "y": PoseWords(measures.ABOVE_BELOW, "{}", "above or below", 100),
    "z": PoseWords(measures.NEARER_DEEPER, "{}", "depth", 600),
    "rotation": PoseWords(measures.DEGREES, "turned {}", "turn", -20),
    "rotation_x": PoseWords(measures.DEGREES, "tipped {}", "tip", 60),
    "rotation_y": PoseWords(measures.DEGREES, "swung {}", "swing", 60),
    "scale": PoseWords(measures.PERCENT_OF_ONE, "{} of its size", "size", 0.5),
    "scale_x": PoseWords(measures.PERCENT_OF_ONE, "{} of its width", "width", 0.5),
    "scale_y": PoseWords(measures.PERCENT_OF_ONE, "{} of its height", "height", 0.5),
    "opacity": PoseWords(measures.OPACITY, "{} opaque", "opacity", 0),
    "skew": PoseWords(measures.DEGREES, "leaning {}", "lean", 20),
    "tracking": PoseWords(measures.THOUSANDTHS, "spread by {}", "tracking", 300),
    "blur": PoseWords(measures.BLUR, "blurred by {}", "blur", 12),
    "outline": PoseWords(measures.OUTLINE, "its outline {} wider", "outline", 4),
    "displace": PoseWords(measures.BLUR, "its form bent by {}", "bent form", 8),
    "shadow": PoseWords(measures.OPACITY, "{} of its shadow", "shadow", 0),
    "gather": PoseWords(
        measures.PERCENT_OF_ONE_EITHER_WAY, "{} gathered at one point", "gathering", 1
    ),
    "drawn": PoseWords(measures.OPACITY, "{} drawn", "end of the drawing", 0),
    "drawn_from": PoseWords(measures.OPACITY, "drawn from {} on", "start of the drawing", 1),
    "filled": PoseWords(measures.OPACITY, "{} filled", "fill", 0),
    "hatched": PoseWords(measures.OPACITY, "{} hatched", "hatching", 0),
}


class PoseColor(NamedTuple):
    """How a colour of a pose is said, its full name, and what it starts with."""

    words: str
    label: str
    start: str


POSE_COLORS: dict[str, PoseColor] = {
    "fill": PoseColor("coloured {}", "colour", "#F2B705"),
    "outline_color": PoseColor("its outline coloured {}", "colour of the outline", "#F2B705"),
}
AXIS_WORDS = "{} more {}"  # of a font axis: its value, its name
# What has no words of its own for a value that follows another, or goes two ways.
TIED_WORDS = "its {} {}"
WAYS = ("x", "y", "z")
SIDES = (
    ("left", "off the left"),
    ("right", "off the right"),
    ("above", "off the top"),
    ("below", "off the bottom"),
)
BY_ITSELF = "{} by itself"
