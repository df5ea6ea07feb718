"""Scenes as layers: their form is a picture of the other scene."""

import json
import threading
from collections import OrderedDict
from hashlib import sha256
from typing import Any, ClassVar

import numpy as np

from ...lettering.own_fonts import families_of
from ...scene.document import Scene
from ...scene.files import to_data
from ...scene.layers.nested import NestedLayer
from ..pixels.bitmap_store import BITMAPS
from ..pixels.bitmaps import Bitmap
from ..pixels.played import time_in
from .base import Prepare, RestBox, around_origin
from .form import Form, PreparedForm, form_of

# Nested scenes are drawn at steps of this size, large enough for how they are seen.
_STEP = 2**0.5
_LARGEST, _SMALLEST = 8.0, 0.25
_MOST_PIXELS = 2**24  # of one picture of them: 64 MiB
_MOST_INNERS = 32  # nested scenes that are ready to be drawn


class PreparedNested(PreparedForm):
    """A layer that shows another scene made ready: as a picture, drawn as large as it is seen.

    Layers that show the same scene at the same frame share one picture of it.
    """

    prepares: ClassVar = NestedLayer
    _layer: NestedLayer

    @classmethod
    def rest_box(cls, scene: Scene, layer: NestedLayer, frame: float) -> RestBox:
        return around_origin(scene.used(layer).size)

    def __init__(self, scene: Scene, layer: NestedLayer, prepare: Prepare):
        super().__init__(scene, layer, prepare)
        self._inner = _inner_of(scene.used(layer), prepare)
        # The frame that is drawn of it for each of the times of an open shutter.
        self._moments: dict[float, float | None] = {}

    def _open_shutter(self, times: np.ndarray) -> None:
        super()._open_shutter(times)
        frames = [self._shown(time) for time in times.tolist()]
        if None not in frames:
            scale = self._enlargement(float(times[len(times) // 2]))
            frames = self._inner.moments(np.array(frames, dtype=float), scale).tolist()
        self._moments = dict(zip(times.tolist(), frames, strict=True))

    def form(self, time: float) -> Form | None:
        moments = self._moments  # once: another thread may put others in their place meanwhile
        frame = moments[time] if time in moments else self._shown(time)
        if frame is None:
            return None
        return form_of(self._inner.bitmap(frame, self._enlargement(time)), self._inner.scene.size)

    def _shown(self, time: float) -> float | None:
        """The frame of the other scene that is seen at a time; None if none is."""
        scene = self._inner.scene
        rates = float(scene.frames_a_second / self._scene.frames_a_second)
        shown = (time - self._layer.span[0]) * rates + self._layer.shift
        frame = time_in(shown, scene.length, self._layer.after)
        if frame is None:
            return None
        return min(frame, scene.length - 1)  # the last one is seen until the end

    def _enlargement(self, time: float) -> float:
        """How large it is seen, at the step that is enough for it."""
        matrix = self._state(time).matrix
        seen = float(np.sqrt(abs(np.linalg.det(matrix[:2, :2])))) / max(float(matrix[2, 2]), 1e-3)
        width, height = self._inner.scene.size
        step = np.ceil(np.log(min(max(seen, _SMALLEST), _LARGEST)) / np.log(_STEP) - 1e-6)
        # Never less than its own size: that a scene has to be drawn at anyway.
        most = max(0, np.floor(np.log(_MOST_PIXELS / (width * height)) / np.log(_STEP) / 2))
        return float(_STEP ** min(step, most))


class _Inner:
    """A nested scene with the pictures that were drawn of it."""

    def __init__(self, scene: Scene, digest: str, prepare: Prepare):
        self.scene = scene
        self._digest, self._prepared = digest, prepare(scene)

    def bitmap(self, frame: float, scale: float) -> Bitmap:
        """The scene at a frame, drawn so much larger."""
        key = f"{self._digest}@{frame}x{scale}"

        def drawn() -> Bitmap:
            return Bitmap(key, self._prepared.draw(frame, self._size(scale)))

        return BITMAPS.get(key, drawn)

    def moments(self, frames: np.ndarray, scale: float) -> np.ndarray:
        """The frames that are drawn, so much larger, for those of an open shutter, (n,)."""
        return self._prepared.moments(frames, self._size(scale))

    def _size(self, scale: float) -> tuple[int, int]:
        width, height = self.scene.size
        return max(1, round(width * scale)), max(1, round(height * scale))


# Kept for all pictures of a process: a document is read anew for each.
_inners: OrderedDict[str, _Inner] = OrderedDict()
_lock = threading.RLock()


def _inner_of(scene: Scene, prepare: Prepare) -> _Inner:
    """The nested scene made ready, one for all that say the same."""
    there = [str(scene.folder), str(scene.fonts_folder), families_of(scene).state]
    text = json.dumps([*there, to_data(scene)], sort_keys=True)
    digest = sha256(text.encode()).hexdigest()
    with _lock:
        known = _inners.get(digest)
        if known is None:
            known = _Inner(scene, digest, prepare)
        _keep(_inners, digest, known, _MOST_INNERS)
    return known


def _keep(kept: OrderedDict[Any, Any], key: Any, value: Any, most: int) -> None:
    """Keeps a value as the newest; the oldest go."""
    kept[key] = value
    kept.move_to_end(key)
    while len(kept) > most:
        kept.popitem(last=False)
