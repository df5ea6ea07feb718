"""Figures of whole clips: against screenshots of the same title in a browser, and of the demo's
richest scene against drawing and encoding alone."""

import base64
import io
import os
import tempfile
import time
from concurrent.futures import ProcessPoolExecutor
from functools import partial
from multiprocessing import get_context
from pathlib import Path
from typing import Any

import numpy as np
from PIL import Image
from playwright.sync_api import sync_playwright

from balletto.clip.convert import Converter
from balletto.clip.encoder import Encoder, encoder_threads
from balletto.clip.export_settings import usual_settings
from balletto.clip.memory import keep_at_hand
from balletto.clip.render import render, segments
from balletto.lettering.families import FOLDER
from balletto.picture.frame import Picture
from balletto.picture.incremental_renderer import IncrementalRenderer
from balletto.scene.document import Scene

from .chromium import CHROMIUM, FLAGS
from .core import SIZE, TEXT, title_scene
from .scenes import DEMO, opened
from .timing import interleaved, milliseconds

SHOTS = 24  # frames that the browser is asked for
RICHEST = "2-opening.balletto.json"

# The title of the bench as a page would move it: each letter comes up and in, one after another.
_PAGE = """<style>
@font-face {{ font-family: Title; src: url(data:font/woff2;base64,{font}); font-weight: 100 900; }}
body {{
  margin: 0; width: 1920px; height: 1080px; background: #101428; display: grid; place-items: center;
}}
h1 {{ margin: 0; font: 700 78px Title; color: #fff; white-space: pre; }}
span {{ display: inline-block; animation: rise 1s cubic-bezier(.16, .84, .44, 1) both paused; }}
@keyframes rise {{ from {{ transform: translateY(100px); opacity: 0; }} }}
</style><h1>{letters}</h1>"""


def clips() -> dict[str, float]:
    """showcase_draw_to_encode: drawing that scene on all cores against encoding it alone.
    browser_ratio: frames a second of a title of 36 letters at 1080p, against screenshots of
    it moved by CSS, encoded likewise. showcase_ratio: the time of the demo's richest scene, against
    the slower of drawing it on all cores and encoding it."""
    with tempfile.TemporaryDirectory() as folder:
        return {**_against_browser(Path(folder)), **_showcase(Path(folder))}


def _against_browser(folder: Path) -> dict[str, float]:
    scene = title_scene()
    path = folder / "clip.mp4"
    ours = scene.length / milliseconds(lambda: render(scene, usual_settings(scene), path)) * 1000
    theirs = _screenshots(folder / "shots.mp4", scene)
    return {"clip_fps": ours, "browser_fps": theirs, "browser_ratio": ours / theirs}


def _screenshots(path: Path, scene: Scene) -> float:
    """Frames a second of screenshots, decoded and encoded as ours are."""
    font = base64.b64encode((FOLDER / "anybody" / "latin.woff2").read_bytes()).decode()
    letters = "".join(
        f'<span style="animation-delay: {n / 30:.4f}s">{letter}</span>' if letter != " " else " "
        for n, letter in enumerate(TEXT)
    )
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        page = browser.new_page(viewport={"width": SIZE[0], "height": SIZE[1]})
        page.set_content(_PAGE.format(font=font, letters=letters))
        page.evaluate("document.fonts.ready")
        converter = Converter(*SIZE)
        started = time.perf_counter()
        with Encoder(path, SIZE, scene.frames_a_second, encoder_threads()) as encoder:
            for frame in range(SHOTS):
                at = (20 + frame) / 30 * 1000
                page.evaluate(f"document.getAnimations().forEach(a => a.currentTime = {at})")
                shot = Image.open(io.BytesIO(page.screenshot())).convert("RGBA")
                pixels = np.ascontiguousarray(np.asarray(shot)[..., [2, 1, 0, 3]])
                encoder.add(converter.convert(pixels))
        taken = time.perf_counter() - started
        browser.close()
    return SHOTS / taken


def _showcase(folder: Path) -> dict[str, float]:
    scene = opened(DEMO / RICHEST)
    whole = partial(render, scene, usual_settings(scene), folder / "rich.mp4")
    encoding = partial(_encode, folder / "bare.mp4", scene, _frames(scene))
    ours, drawn, encoded = interleaved(1, whole, _draw_on_all_cores, encoding)
    slower = max(drawn, encoded)
    return {
        "showcase_ms": ours,
        "showcase_draw_ms": drawn,
        "showcase_encode_ms": encoded,
        "showcase_ratio": ours / slower,
        "showcase_draw_to_encode": _draw_ready() / encoded,
    }


def _draw_on_all_cores() -> None:
    parts = segments(opened(DEMO / RICHEST).length, _cores())
    with ProcessPoolExecutor(_cores(), get_context("spawn")) as pool:
        list(pool.map(_draw, parts))


def _draw_ready() -> float:
    """Milliseconds of drawing on all cores, by processes that are there already."""
    parts = segments(opened(DEMO / RICHEST).length, _cores())
    with ProcessPoolExecutor(_cores(), get_context("spawn")) as pool:
        list(pool.map(_draw, [range(2)] * _cores() * 2))
        return milliseconds(lambda: list(pool.map(_draw, parts)))


def _cores() -> int:
    return len(os.sched_getaffinity(0))


def _draw(part: range) -> None:
    keep_at_hand()  # as whoever renders does
    renderer = IncrementalRenderer(Picture(opened(DEMO / RICHEST)))
    for frame in part:
        renderer.draw(frame)


def _frames(scene: Scene) -> list[Any]:
    """The frames of a scene, converted and ready to be encoded; every third, three times."""
    renderer, frames = IncrementalRenderer(Picture(scene)), []
    for frame in range(0, scene.length, 3):
        renderer.draw(frame)
        frames += [Converter(*scene.size).convert(renderer.pixels)] * 3
    return frames[: scene.length]


def _encode(path: Path, scene: Scene, frames: list[Any]) -> None:
    with Encoder(path, scene.size, scene.frames_a_second, encoder_threads()) as encoder:
        for frame in frames:
            encoder.add(frame)
