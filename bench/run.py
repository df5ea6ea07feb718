"""`bin/balletto bench`: runs the figures and prints them, each with what it is to reach."""

import json

from . import application, core

# Groups of figures: each function gives {name: value}, measured in one run.
GROUPS = {
    "draw": core.drawing,
    "render": core.rendering,
    "memory": core.render_memory,
    "edit": application.editing,
}
GOALS = {
    "draw_ratio": "at most 1.5",
    "render_ratio": "at most 1.25",
    "edit_to_picture_ms_median": "under 60 on a quiet machine",
}


def main(wanted: list[str], as_json: bool) -> int:
    """Measures the groups named in `wanted`, or all."""
    unknown = sorted(set(wanted) - set(GROUPS))
    if unknown:
        print(f"There is no figure {', '.join(unknown)}; there are {', '.join(GROUPS)}.")
        return 1
    figures: dict[str, float] = {}
    for name, measure in GROUPS.items():
        if not wanted or name in wanted:
            figures.update(measure())
    if as_json:
        print(json.dumps(figures))
        return 0
    for name, value in figures.items():
        print(f"{name:34} {value:10.3f}   {GOALS.get(name, '')}")
    return 0
