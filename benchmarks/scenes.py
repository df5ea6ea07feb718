"""Figures of the demo's scenes: how long one core takes to draw a frame of each."""

import time
from pathlib import Path

from balletto.clip.memory import keep_at_hand
from balletto.picture.frame import Picture
from balletto.picture.incremental_renderer import IncrementalRenderer
from balletto.scene import files
from balletto.scene.document import Scene

DEMO = Path(__file__).parents[1] / "web" / "projects" / "demo_scenes"
SUFFIX = ".balletto.json"
RUNS, FRAMES_A_RUN = 4, 8  # runs of frames, spread over each scene


def opened(path: Path) -> Scene:
    """A scene of the demo, with its files at hand."""
    return files.parse(path.read_bytes()).in_folder(DEMO / "files")


def scenes() -> dict[str, float]:
    """scene_ms: milliseconds of one core for a frame at 1920 x 1080, drawn one after another as a
    render does, by scene. What is made once for all frames is made before."""
    keep_at_hand()
    return {
        f"scene_ms {path.name.removesuffix(SUFFIX)}": _frame_ms(opened(path))
        for path in sorted(DEMO.glob(f"*{SUFFIX}"))
    }


def _frame_ms(scene: Scene) -> float:
    renderer = IncrementalRenderer(Picture(scene), (1920, 1080))
    starts = [round(scene.length * (run + 0.5) / RUNS) for run in range(RUNS)]
    parts = [range(start, min(start + FRAMES_A_RUN, scene.length)) for start in starts]
    taken = 0.0
    for part in parts:
        renderer.draw(part[0])
        started = time.process_time()
        for frame in part[1:]:
            renderer.draw(frame)
        taken += time.process_time() - started
    return taken * 1000 / sum(len(part) - 1 for part in parts)
