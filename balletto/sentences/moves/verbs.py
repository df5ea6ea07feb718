"""Verbs as they are typed, and short forms of what sentences say."""

# By where they lead: home, away, or neither.
VERBS = {
    "home": ("comes from", "starts", "from", "comes in", "comes in from", "in from", "enters from",
             "arrives from", "starts from", "slides in", "slides from", "slides"),
    "away": ("goes to", "ends", "to", "goes out", "goes out to", "leaves", "leaves to", "exits to",
             "goes", "out to", "slides to", "slides out"),
    "stays": ("is taken to", "is", "taken to", "is made"),
}  # fmt: skip


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
