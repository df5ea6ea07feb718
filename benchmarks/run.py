"""`bin/balletto bench`: runs the figures and prints them, each with what it is to reach."""

import argparse
import json
import subprocess
import sys

from . import (
    appearance,
    application,
    browsing,
    clips,
    core,
    counted,
    fonts,
    motion,
    ornament,
    scenes,
)

# Groups of figures: each function gives {name: value}, measured in one run.
GROUPS = {
    "draw": core.drawing,
    "dress": appearance.appearance,
    "ornament": ornament.ornament,
    "scenes": scenes.scenes,
    "render": core.rendering,
    "clips": clips.clips,
    "memory": core.render_memory,
    "edit": application.editing,
    "browse": browsing.browsing,
    "poses": motion.evaluating,
    "poses-memory": motion.memory,
    "layout": motion.editing_layout,
    "hands": counted.hands,
    "fonts": fonts.first_use,
}
GOALS = {
    "draw_ratio": "at most 1.2",
    "draw_alone_ratio": "at most 1.4",
    "motion_blur_ratio": "at most 8",
    "trail_ratio": "at most 10",
    "blur_ratio": "at most 5",
    "glow_ratio": "at most 5",
    "shadow_ratio": "at most 3",
    "scene_ms": "at most 60 of a quiet core",
    "formation_ratio": "at most 1.6",
    "flurry_ratio": "at most 1.6",
    "morph_ms": "under 6",
    "hatch_ms": "under 12",
    "render_ratio": "at most 1.12",
    "browser_ratio": "at least 5",
    "showcase_ratio": "at most 1.3",
    "showcase_draw_to_encode": "at most 2.5",
    "poses_speedup": "at least 100",
    "poses_mib_10000": "no more than with two moves",
    "layout_edit_ms": "under 5",
    "first_font_ms": "under 1500",
    "edit_to_picture_ms_median": "under 60 on a quiet machine",
    "scrub_to_picture_ms_median": "at most 35 on a quiet machine",
    "scrub_to_picture_ms_p95": "at most 70 on a quiet machine",
    "scrub_revisions": "1",
    "first_play_start_ms": "at most 300 on a quiet machine",
    "first_play_dropped": "0",
    "replay_dropped": "0",
    "opening_ms": "under 1000 on a quiet machine",
}


def main(wanted: list[str], as_json: bool) -> int:
    """Measures the groups named in `wanted`, or all."""
    unknown = sorted(set(wanted) - set(GROUPS))
    if unknown:
        print(f"There is no figure {', '.join(unknown)}; there are {', '.join(GROUPS)}.")
        return 1
    names = [name for name in GROUPS if not wanted or name in wanted]
    figures: dict[str, float] = {}
    for name in names:
        figures |= GROUPS[name]() if len(names) == 1 else _alone(name)
    if as_json:
        print(json.dumps(figures))
        return 0
    for name, value in figures.items():
        print(f"{name:34} {value:10.3f}   {GOALS.get(name.split()[0], '')}")
    return 0


def _alone(name: str) -> dict[str, float]:
    """The figures of a group, measured in a process of its own: what one leaves behind in memory,
    or in connections, does not tell in the next."""
    command = [sys.executable, "-m", "benchmarks.run", name, "--json"]
    answer = subprocess.run(command, check=True, stdout=subprocess.PIPE, text=True)
    return json.loads(answer.stdout)


if __name__ == "__main__":
    parser = argparse.ArgumentParser(prog="balletto bench")
    parser.add_argument("--json", action="store_true")
    parser.add_argument("figures", nargs="*")
    asked = parser.parse_args()
    sys.exit(main(asked.figures, as_json=asked.json))
