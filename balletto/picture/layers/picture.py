"""Still pictures: of a file."""

from typing import ClassVar

from ...scene.document import Scene
from ...scene.layers.picture import PictureLayer
from ..pixels.media import still
from .base import RestBox, around_origin
from .form import Form, PreparedForm, form_of


class PreparedPicture(PreparedForm):
    """A picture layer made ready. Nothing is drawn of a file that is not there."""

    prepares: ClassVar = PictureLayer

    @classmethod
    def rest_box(cls, scene: Scene, layer: PictureLayer, frame: float) -> RestBox | None:
        path = scene.path_of(layer.file)
        return around_origin(still(path).size) if path else None

    def form(self, time: float) -> Form | None:
        path = self._scene.path_of(self._layer.file)
        if path is None:
            return None
        bitmap = still(path)
        return form_of(bitmap, bitmap.size)
