"""Clips and stills of every kind that a browser shows, shown in one."""

import base64
import tempfile
from pathlib import Path

from balletto.clip.export_settings import usual_settings
from balletto.clip.formats import FORMATS
from balletto.clip.render import render
from tests.core.scenes import small_scene

from .base import BrowserTest

KINDS = {
    "mp4": "video/mp4", "webm": "video/webm", "webm-alpha": "video/webm",
    "webm-av1": "video/webm", "gif": "image/gif", "apng": "image/apng", "webp": "image/webp",
    "png": "image/png", "svg": "image/svg+xml",
}  # fmt: skip


class ClipsTest(BrowserTest):
    def test_each_is_shown(self):
        """A second of video plays to its end; pictures are decoded."""
        with tempfile.TemporaryDirectory() as folder:
            for format, kind in KINDS.items():
                with self.subTest(format):
                    scene = small_scene(length=30)
                    export = usual_settings(scene, format)
                    if FORMATS[format].is_still:
                        export = export._replace(frames=range(20, 21))
                    path = Path(folder) / f"clip{FORMATS[format].suffix}"
                    render(scene, export, path)
                    data = base64.b64encode(path.read_bytes()).decode()
                    told = self.page.evaluate(SHOWN, [f"data:{kind};base64,{data}", kind])
                    self.assertEqual(told["size"], [320, 180])
                    if kind.startswith("video"):
                        self.assertAlmostEqual(told["seconds"], 1, delta=0.05)
                        self.assertAlmostEqual(told["played"], 1, delta=0.1)


SHOWN = """async ([address, kind]) => {
  if (!kind.startsWith("video")) {
    const picture = new Image();
    picture.src = address;
    await picture.decode();
    return { size: [picture.naturalWidth, picture.naturalHeight] };
  }
  const video = Object.assign(document.createElement("video"), { muted: true, src: address });
  document.body.append(video);
  await new Promise((done, fail) => {
    video.onended = done;
    video.onerror = () => fail(new Error(video.error.message));
    video.play();
  });
  const size = [video.videoWidth, video.videoHeight];
  return { size, seconds: video.duration, played: video.currentTime };
}"""
