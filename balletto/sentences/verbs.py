"""Verbs as they are typed, and short forms of what sentences say."""

from dataclasses import dataclass

# By where they lead: home, away, or neither.
VERBS = {
    "home": ("comes from", "starts", "from", "comes in", "comes in from", "in from", "enters from",
             "arrives from", "starts from", "slides in", "slides from", "slides"),
    "away": ("goes to", "ends", "to", "goes out", "goes out to", "leaves", "leaves to", "exits to",
             "goes", "out to", "slides to", "slides out"),
    "stays": ("is taken to", "is", "taken to", "is made"),
}  # fmt: skip


@dataclass(frozen=True)
class Verb:
    """A verb that names a property: which, where it leads, and the value where none is said.

    sign: by which a number without a direction goes
    """

    name: str
    leads: str
    usual: float
    sign: int = 1


_IN, _OUT = "home", "away"
VERBS_OF_PROPERTIES = {
    **dict.fromkeys(("rise", "rises", "rise in", "rises in"), Verb("y", _IN, 100)),
    **dict.fromkeys(("drop", "drops", "drop in", "falls in"), Verb("y", _IN, 100, -1)),
    **dict.fromkeys(("sink", "sinks", "falls out", "drop out"), Verb("y", _OUT, 100)),
    **dict.fromkeys(("rise out", "rises out", "rises away"), Verb("y", _OUT, 100, -1)),
    **dict.fromkeys(("fade", "fades", "fade in", "fades in"), Verb("opacity", _IN, 0)),
    **dict.fromkeys(("fade out", "fades out", "fades away"), Verb("opacity", _OUT, 0)),
    **dict.fromkeys(("grow", "grows", "grow in", "grows in"), Verb("scale", _IN, 0)),
    **dict.fromkeys(("shrink", "shrinks", "shrink out"), Verb("scale", _OUT, 0)),
    **dict.fromkeys(("turn", "turns", "turn in", "turns in"), Verb("rotation", _IN, -90)),
    **dict.fromkeys(("turn out", "turns out"), Verb("rotation", _OUT, 90)),
    **dict.fromkeys(("spin", "spins", "spin in", "spins in"), Verb("rotation", _IN, -360)),
    **dict.fromkeys(("tip", "tips", "tip in"), Verb("rotation_x", _IN, 60)),
    **dict.fromkeys(("swing", "swings", "swing in"), Verb("rotation_y", _IN, 60)),
    **dict.fromkeys(("blur", "blurs", "blur in"), Verb("blur", _IN, 12)),
    **dict.fromkeys(("blur out", "blurs out"), Verb("blur", _OUT, 12)),
    **dict.fromkeys(("lean", "leans"), Verb("skew", _IN, 20)),
    **dict.fromkeys(("draw", "draws", "draw on", "draws on"), Verb("drawn", _IN, 0)),
    **dict.fromkeys(("draw off", "draws off"), Verb("drawn_from", _OUT, 1)),
    **dict.fromkeys(("fill in", "fills in"), Verb("filled", _IN, 0)),
    **dict.fromkeys(("hatch in", "hatches in"), Verb("hatched", _IN, 0)),
    **dict.fromkeys(("collapse", "collapses"), Verb("gather", _OUT, 1)),
    **dict.fromkeys(("open", "opens"), Verb("gather", _IN, 1)),
}

# Short forms, and what they stand for.
SHORT = {
    "from the centre": "from the centre out", "from the ends": "from the ends in",
    "from the end": "from the end back", "from the first": "in reading order",
    "in order": "in reading order", "backwards": "from the end back",
    "from the last": "from the end back",
    "in random order": "shuffled", "by chance order": "shuffled",
    "looping": "looping without a seam", "looped": "looping without a seam",
    "left to right": "from left to right", "top to bottom": "from top to bottom",
    "off left": "off the left", "off right": "off the right", "off above": "off the top",
    "off below": "off the bottom", "off top": "off the top", "off bottom": "off the bottom",
    "hidden": "hidden until its turn", "together": "all together", "at once": "all together",
    "all at once": "all together", "staggered": "one after another",
    "evenly": "linear", "even": "linear", "straight": "linear",
    "scribbled": "hatched", "with strokes of": "strokes of",
    "casts a shadow": "each casts a shadow", "eased": "soft both", "softly": "soft both",
}  # fmt: skip
