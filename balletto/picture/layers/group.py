"""Groups: what their members draw is drawn as one."""

from typing import ClassVar

import numpy as np

from ...scene.layers import Layer
from ...scene.layers.group import Group
from ...scene.values.tracks import value_at
from .base import PreparedLayer, moved_opacity


class PreparedGroup(PreparedLayer):
    """A group made ready: how opaque it is."""

    prepares: ClassVar[type[Layer]] = Group

    def opacity(self, frame: float) -> float:
        opacity = value_at(self._layer.transform.opacity, np.array(frame))
        return float(np.clip(opacity, 0, 1)) * moved_opacity(self._scene, self._layer, frame)
