"""Drawings of what a sentence can go on with, each as an SVG path in lines of 36 x 20."""

from balletto.sentences.language.completions import Completion

from .ease_chips import ease_chips

# By group, and by what is more than that: a property of a pose, a kind of selector.
DRAWINGS = {
    "who": "M4 15V6H9M4 10H8M14 15V6M12 6H16M22 15V6L27 15V6M32 6H29V15H32",
    "where": "M18 17V4M13 9L18 4L23 9",
    "by": "M2 10Q7 0 12 10T22 10T32 10",
    "when": "M3 5H15M9 10H21M15 15H27",
    "ease": "M3 16C12 16 16 4 33 4",
    "order": "M4 16V13M11 16V10M18 16V4M25 16V10M32 16V13",
    "more": "M10 10H26M18 3V17",
    "meant": "M13 7A5 5 0 1 1 18 12V14M18 17V17.5",
    "effect": "M18 3L20 8L25 10L20 12L18 17L16 12L11 10L16 8Z",
    "mask": "M6 4H30V16H6ZM12 10A6 5 0 1 0 24 10A6 5 0 1 0 12 10",
    "window": "M4 4V16H8M32 4V16H28M10 6H26M10 14H26",
    "along": "M3 16Q18 -2 33 16M10 5V9M18 2V7M26 5V9",
    "motion_blur": "M4 6H20M8 10H28M4 14H20M28 5A5 5 0 0 1 28 15",
    "style": "M8 16L14 4L20 16M10 12H18M24 16V9M24 9Q30 7 30 12V16M30 12Q24 11 24 14T30 14",
    "place": "M18 3V17M6 10H30M15 7L18 3L21 7",
    "layer": "M6 6H22V16H6ZM27 3V9M24 6H30",
    "scene": "M5 4H31V16H5ZM10 4V16M26 4V16",
    "run": "M8 16L14 4L20 16M10 12H18M24 17H32",
    "setting": "M5 6H31M5 14H31M12 3V9M24 11V17",
    "move": "M6 15L14 5L22 15M26 5V15",
    "x": "M6 10H30M10 6L6 10L10 14M26 6L30 10L26 14",
    "y": "M18 3V17M14 7L18 3L22 7M14 13L18 17L22 13",
    "z": "M6 16H20V6H6ZM20 16L30 11V3L20 6M6 6L16 3H30",
    "rotation": "M26 10A8 7 0 1 1 18 3M18 3L22 1M18 3L22 6",
    "rotation_x": "M6 14L30 14L25 6H11ZM18 2V5",
    "rotation_y": "M11 4V16L24 13V7ZM29 10H33",
    "scale": "M6 4H14M6 4V9M30 16H22M30 16V11M6 4L30 16",
    "scale_x": "M4 10H32M8 6L4 10L8 14M28 6L32 10L28 14M18 4V16",
    "scale_y": "M18 2V18M14 5L18 2L22 5M14 15L18 18L22 15M8 10H28",
    "opacity": "M18 3A7 7 0 1 0 18 17ZM18 3A7 7 0 0 1 18 17",
    "skew": "M10 16L16 4H28L22 16Z",
    "tracking": "M8 4V16M28 4V16M13 10H23M15 7L12 10L15 13M21 7L24 10L21 13",
    "blur": "M18 4A6 6 0 1 0 18.1 4M18 1A9 9 0 1 0 18.1 1",
    "outline": "M12 16L18 4L24 16ZM8 18L18 1L28 18Z",
    "displace": "M4 12Q8 4 12 11T20 9T28 12T33 8",
    "shadow": "M8 4H22V13H8ZM12 16H26V8",
    "gather": "M4 4L14 9M32 4L22 9M4 16L14 11M32 16L22 11M18 10V10.1",
    "fill": "M18 3Q25 10 18 17Q11 10 18 3Z",
    "outline_color": "M18 2Q27 10 18 18Q9 10 18 2ZM18 7Q21 10 18 13Q15 10 18 7Z",
    "drawn": "M10 16L18 4L22 10",
    "drawn_from": "M22 10L26 16M8 3V3.1",
    "filled": "M10 16L18 4L26 16ZM15 13H21",
    "hatched": "M10 16L18 4L26 16ZM14 10L19 16M17 7L24 16",
    "axes": "M8 16L14 4L20 16M10 12H18M26 4V16M24 4H28M24 16H28",
    "off": "M14 4H30V16H14M22 10H3M7 6L3 10L7 14",
    "sweep": "M3 16H9L15 5H21L27 16H33",
    "scatter": "M6 12V12.1M12 5V5.1M17 14V14.1M22 7V7.1M28 12V12.1M32 4V4.1",
    "alternation": "M5 10V4M12 10V16M19 10V4M26 10V16M33 10V4",
    "loudness": "M3 8v4M8 5v10M13 2v16M18 6v8M23 4v12M28 8v4",
    "wave": "M2 10Q7 0 12 10T22 10T32 10",
    "jitter": "M3 12L8 5L12 15L17 4L22 14L27 6L33 11",
    "spot": "M18 4A6 6 0 1 0 18.1 4M6 10H9M27 10H30",
}


def drawing_of(kind: str) -> str:
    """The drawing of a group, a property or a selector."""
    return DRAWINGS.get(kind) or DRAWINGS.get(kind.partition(".")[0]) or DRAWINGS["more"]


def drawing_for(completion: Completion) -> str:
    """The drawing of what may come next: an ease has its own."""
    eases = {ease["name"]: ease["drawing"] for ease in ease_chips()}
    return eases.get(completion.text) or drawing_of(completion.group)
