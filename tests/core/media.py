"""Small files to be shown and heard, made anew for each run of the tests."""

import atexit
import tempfile
from functools import lru_cache
from pathlib import Path

import av
import numpy as np
from PIL import Image, ImageDraw

from balletto.clip.mixing import mixed
from balletto.clip.sound import write_wav
from balletto.hearing.samples import RATE

SPARK = """<svg xmlns="http://www.w3.org/2000/svg" width="40" height="40">
<path d="M20 0L24 16L40 20L24 24L20 40L16 24L0 20L16 16Z" fill="#E0567B"/></svg>"""
# The videos have 30 frames, 30 a second, and each frame is of one grey: 6 for each frame.
GREY_STEP = 6


def mix(scene, frames=None):
    """All that is heard in a scene, or during some of its frames, as one."""
    return np.concatenate([np.zeros((2, 0), np.float32), *mixed(scene, frames)], axis=1)


@lru_cache
def media_folder() -> Path:
    """A folder with moon.png, photo.jpg, spark.svg, orbit.mp4 and bell.wav."""
    folder = tempfile.TemporaryDirectory(prefix="balletto-media-")
    atexit.register(folder.cleanup)
    path = Path(folder.name)
    moon = Image.new("RGBA", (80, 60), (0, 0, 0, 0))
    ImageDraw.Draw(moon).rectangle((20, 10, 59, 49), fill=(242, 183, 5, 255))
    moon.save(path / "moon.png")
    Image.new("RGB", (60, 40), (200, 64, 44)).save(path / "photo.jpg", quality=95)
    (path / "spark.svg").write_text(SPARK)
    _write_video(path / "orbit.mp4")
    tone = np.sin(2 * np.pi * 440 * np.arange(RATE) / RATE).astype(np.float32) * 0.5
    write_wav(path / "bell.wav", [np.stack([tone, tone])])
    return path


def _write_video(path: Path) -> None:
    with av.open(str(path), "w") as file:
        stream = file.add_stream("libx264", rate=30, options={"crf": "5", "g": "12"})
        stream.width, stream.height, stream.pix_fmt = 64, 36, "yuv420p"
        for number in range(30):
            pixels = np.full((36, 64, 3), number * GREY_STEP, dtype=np.uint8)
            file.mux(stream.encode(av.VideoFrame.from_ndarray(pixels, format="rgb24")))
        file.mux(stream.encode(None))
