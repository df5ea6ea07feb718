"""Videos: the picture that a file has at a time."""

from typing import ClassVar

from ...scene.document import Scene
from ...scene.layers.video import VideoLayer
from ..pixels.media import video
from ..pixels.played import frame_of
from .base import RestBox, around_origin
from .form import Form, PreparedForm, form_of


class PreparedVideo(PreparedForm):
    """A video layer made ready. Nothing is drawn of a file that is not there."""

    prepares: ClassVar = VideoLayer
    _layer: VideoLayer

    @classmethod
    def rest_box(cls, scene: Scene, layer: VideoLayer, frame: float) -> RestBox | None:
        path = scene.path_of(layer.file)
        return around_origin(video(path).size) if path else None

    def form(self, time: float) -> Form | None:
        bitmap = frame_of(self._scene, self._layer, time - self._layer.span[0])
        return form_of(bitmap, bitmap.size) if bitmap else None
