"""What is thrown as a rule, and how: kinds of pieces and of flurries to begin with."""

from typing import Any

from ...stock.shapes import SHAPES
from .flurry import FADING_IN, POPPING, SHRINKING
from .outlines import scaled_drawing

GOLD = "#F2B705"
_COLORS = [GOLD, "#2BB5A0", "#D1495B", "#FFFFFF"]


def _filled(shape: dict[str, Any]) -> list[dict[str, Any]]:
    return [{"shape": shape, "fill": GOLD}]


def _small(shipped: str) -> str:
    return scaled_drawing(SHAPES[shipped](), 0.18)


# Pieces by what they are called, as `source` of a flurry.
THINGS: dict[str, list[dict[str, Any]]] = {
    "circles": _filled({"kind": "ellipse", "size": [18, 18]}),
    "stars": _filled({"kind": "star", "corners": 5, "outer": 20, "inner": 8}),
    "squares": _filled({"kind": "rectangle", "size": [18, 18]}),
    "triangles": _filled({"kind": "polygon", "corners": 3, "radius": 14}),
    "strips": _filled({"kind": "rectangle", "size": [10, 26]}),
    "flakes": [{"shape": {"kind": "ellipse", "size": [12, 12]}, "fill": "#FFFFFF"}],
    **{
        many: [
            {"shape": {"kind": "path", "path": scaled_drawing(SHAPES[one](), 0.18)}, "fill": color}
        ]
        for many, one, color in (
            ("hearts", "heart", "#D1495B"),
            ("sparkles", "sparkle", GOLD),
            ("leaves", "leaf", "#2BB5A0"),
            ("drops", "drop", "#2BB5A0"),
        )
    },
    "streaks": [
        {
            "shape": {"kind": "line", "from": [0, -16], "to": [0, 16]},
            "fill": "none",
            "stroke": {"width": 3, "color": GOLD},
        }
    ],
}
# Flurries by what they are called, but for what they throw; `side` is where in the picture they
# stand: shares of its width and height.
STARTS: dict[str, dict[str, Any]] = {
    "burst": {
        "source": THINGS["circles"], "side": (0.5, 0.5),
        "flurry": {
            "count": 60, "spread": 360, "speed": 900, "speed_chance": 0.6, "drag": 2,
            "gravity": 500, "life": 50, "life_chance": 0.3, "size": SHRINKING, "size_chance": 0.5,
            "opacity": 1,
        },
    },
    "fountain": {
        "source": THINGS["circles"], "side": (0.5, 0.95),
        "flurry": {
            "count": 90, "births": {"from": 0, "over": 75}, "spread": 30, "speed": 1200,
            "speed_chance": 0.2, "gravity": 1300, "life": 60, "size_chance": 0.4,
        },
    },
    "snowfall": {
        "source": THINGS["flakes"],
        "side": (0.5, -0.02),
        "flurry": {
            "count": 120, "births": {"from": 0, "over": 90}, "loop": True, "life": 90,
            "place": {"kind": "box", "width": 2100, "height": 40}, "direction": 180, "spread": 24,
            "speed": 380, "speed_chance": 0.3, "wind": 20, "size_chance": 0.6, "opacity": FADING_IN,
        },
    },
    "confetti": {
        "source": THINGS["strips"], "side": (0.5, -0.05),
        "flurry": {
            "count": 100, "births": {"from": 0, "over": 40}, "life": 100, "life_chance": 0.2,
            "place": {"kind": "line", "length": 1800}, "direction": 180, "spread": 70, "speed": 300,
            "speed_chance": 0.5, "gravity": 260, "drag": 0.4, "any_turn": True, "spin": 240,
            "spin_chance": 1.5, "size_chance": 0.3, "colors": _COLORS,
        },
    },
    "sparks": {
        "source": THINGS["streaks"], "side": (0.5, 0.5),
        "flurry": {
            "count": 50, "births": {"from": 0, "over": 8}, "spread": 140, "speed": 1300,
            "speed_chance": 0.5, "gravity": 1600, "drag": 1, "life": 26, "life_chance": 0.5,
            "facing": "flight", "size": SHRINKING, "opacity": 1,
        },
    },
    "rising letters": {
        "source": [{"text": "ORBIT", "style": {"axes": {"wght": 800}, "size": 64}}],
        "side": (0.5, 1.05),
        "flurry": {
            "count": 60, "births": {"from": 0, "over": 90}, "loop": True, "life": 85,
            "place": {"kind": "line", "length": 1700}, "spread": 20, "speed": 420,
            "speed_chance": 0.4, "any_turn": False, "spin": 30, "spin_chance": 3,
            "size": POPPING, "size_chance": 0.5, "opacity": 1,
        },
    },
}  # fmt: skip
