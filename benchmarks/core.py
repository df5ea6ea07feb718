"""Figures of the core: drawing and rendering against the bare libraries."""

import subprocess
import sys
import tempfile
from collections.abc import Iterable
from functools import partial
from pathlib import Path

import skia

from balletto.clip.convert import Converter
from balletto.clip.encoder import Encoder, encoder_threads
from balletto.clip.export_settings import usual_settings
from balletto.clip.render import render
from balletto.picture.canvases.canvas import DrawItem
from balletto.picture.canvases.skia_canvas import SkiaCanvas
from balletto.picture.frame import Picture
from balletto.picture.incremental_renderer import IncrementalRenderer
from balletto.scene import files
from balletto.scene.document import Scene

from .timing import interleaved

SIZE = (1920, 1080)
TEXT = "The Quiet Orbit of Nine Winter Moons, Domes"  # 36 letters, white space left out


def title_scene(text: str = TEXT, size: int = 78, length: int = 90, moves: int = 1) -> Scene:
    """One title that rises letter by letter, at 1920 x 1080."""
    rise = {
        "name": "Rise",
        "unit": "character",
        "start": 0,
        "pose": {"y": 100, "opacity": 0},
        "amount": {"keys": [{"at": 0, "value": 1, "ease": "soft-landing"}, {"at": 30, "value": 0}]},
        "stagger": {"order": "forward", "gap": 1},
    }
    return files.from_data(
        {
            "format": "balletto-scene",
            "version": 1,
            "name": "Bench",
            "size": list(SIZE),
            "rate": "30",
            "length": length,
            "background": {"kind": "color", "color": "#101428"},
            "layers": [
                {
                    "id": "t1",
                    "kind": "title",
                    "span": [0, length],
                    "text": text,
                    "style": {"font": "Anybody", "axes": {"wght": 700}, "size": size},
                    "transform": {"position": [960, 540, 0]},
                    "moves": [{**rise, "id": f"m{number}"} for number in range(moves)],
                }
            ],
        }
    )


class _NotingCanvas(SkiaCanvas):
    """Draws, and notes what is drawn, for the bare drawing of the same."""

    def __init__(self) -> None:
        super().__init__(*SIZE)
        self.fills: list[tuple[skia.Path, skia.Matrix, skia.Paint]] = []

    def draw(self, items: Iterable[DrawItem], blend: str = "normal") -> None:
        for outline, matrix, color, opacity, *_ in items:
            paint = skia.Paint(AntiAlias=True, Color=0xFF000000 | int(color[1:], 16))
            paint.setAlphaf(opacity)
            self.fills.append((outline.path, skia.Matrix.MakeAll(*matrix), paint))


def drawing() -> dict[str, float]:
    """Frames of 36 letters, half of them moving, evaluated and drawn one after another, against
    bare Skia with the same outlines, matrices and paints at hand. `draw_alone_ratio` is the same
    with a frame that is asked for alone, so that nothing is shared with the frames beside it;
    `draw_next_ratio` as frames of clips, films and runs to play are drawn, which leave on the
    picture what they can."""
    scene = title_scene()
    frames = range(36, 52)
    noted = [_noted(scene, frame) for frame in frames]
    assert {len(fills) for fills in noted} == {36}
    bare, canvas = SkiaCanvas(*SIZE), SkiaCanvas(*SIZE)
    picture, alone = Picture(scene), Picture(scene)

    def draw_bare() -> None:
        target = bare._canvas
        for fills in noted:
            target.clear(0xFF101428)
            for outline, matrix, paint in fills:
                target.save()
                target.concat(matrix)
                target.drawPath(outline, paint)
                target.restore()

    def draw_ours(picture: Picture, shift: float) -> None:
        for frame in frames:
            picture.draw(canvas, frame + shift)

    renderer = IncrementalRenderer(Picture(scene))

    def draw_next() -> None:
        for frame in frames:
            renderer.draw(frame)

    ways = (partial(draw_ours, picture, 0), partial(draw_ours, alone, 0.001), draw_next, draw_bare)
    ours, single, following, theirs = interleaved(30, *ways)
    return {
        "draw_ms": ours / len(frames),
        "draw_bare_ms": theirs / len(frames),
        "draw_ratio": ours / theirs,
        "draw_alone_ratio": single / theirs,
        "draw_next_ratio": following / theirs,
    }


def _noted(scene: Scene, frame: int) -> list[tuple[skia.Path, skia.Matrix, skia.Paint]]:
    canvas = _NotingCanvas()
    Picture(scene).draw(canvas, frame)
    return canvas.fills


def rendering() -> dict[str, float]:
    """A whole 90-frame MP4 against encoding the same frames alone, drawn and converted before."""
    scene = title_scene()
    picture, canvas = Picture(scene), SkiaCanvas(*SIZE)
    frames = []
    for number in range(scene.length):
        picture.draw(canvas, number)
        frames.append(Converter(*SIZE).convert(canvas.pixels))
    with tempfile.TemporaryDirectory() as folder:

        def encode(threads: int) -> None:
            with Encoder(Path(folder) / "bare.mp4", SIZE, scene.frames_a_second, threads) as bare:
                for frame in frames:
                    bare.add(frame)

        whole = partial(render, scene, usual_settings(scene), Path(folder) / "clip.mp4")
        threadings = [encoder_threads() + more for more in (-1, 0, 1)]
        ours, *theirs = interleaved(7, whole, *(partial(encode, each) for each in threadings))
    best = min(theirs)
    return {"render_ms": ours, "render_encode_ms": best, "render_ratio": ours / best}


_MEASURE = """
import re, sys
from pathlib import Path
from balletto.clip.export_settings import usual_settings
from balletto.clip.render import render
from benchmarks.core import title_scene
scene = title_scene(length=int(sys.argv[1]))
render(scene, usual_settings(scene), Path(sys.argv[2]))
print(int(re.search(r"VmHWM:\\s+(\\d+)", Path("/proc/self/status").read_text())[1]) / 1024)
"""


def render_memory() -> dict[str, float]:
    """The most memory that a render of 90 and of 1800 frames at 1920 x 1080 needs, in MiB."""
    needed = {}
    with tempfile.TemporaryDirectory() as folder:
        for length in (90, 1800):
            words = [sys.executable, "-c", _MEASURE, str(length), str(Path(folder) / "clip.mp4")]
            done = subprocess.run(words, capture_output=True, text=True, check=True)
            needed[f"render_mib_{length}"] = float(done.stdout)
    return needed
