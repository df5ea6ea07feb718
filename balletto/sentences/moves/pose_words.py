"""How is said what poses have besides their properties (see `balletto/scene/pose`)."""

AXIS_WORDS = "{} more {}"  # of a font axis: its value, its name
# What has no words of its own for a value that follows another, or goes two ways.
TIED_WORDS = "its {} {}"
SIDES = (
    ("left", "off the left"),
    ("right", "off the right"),
    ("above", "off the top"),
    ("below", "off the bottom"),
)
BY_ITSELF = "{} by itself"
