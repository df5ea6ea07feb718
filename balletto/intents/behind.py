"""Out from behind: a layer that is seen on one side of another alone, so that it comes out from
behind it, or goes there."""

import math
import re

import numpy as np

from ..picture.bounds import places
from ..scene.document import Scene
from ..scene.edits.paths import name_of
from ..scene.errors import SceneError
from ..scene.layers import Layer
from ..sentences.language.tokens import MOST_LETTERS
from .layer_names import alike
from .situation import Data, Situation

# As it is typed: "from behind “The bar”", "comes out from behind the bar".
_TYPED = re.compile(
    r"(?:it )?(?:(?:comes?|goes?|slides?) )?(?:out )?(?:from )?behind (.+)", re.IGNORECASE
)


def behind(situation: Situation, wanted: Data) -> Data:
    """A mask that stands in the picture, from the middle of another layer to the edges of the
    picture, on the side of it on which a layer stands."""
    scene, frame = situation.document, situation.selection.frame
    layer, other = (situation.layer(wanted.get(name))["id"] for name in ("layer", "other"))
    shown = places(scene, frame)["layers"]
    for each in (layer, other):
        if each not in shown:
            told = "it does not show at this frame: go to a frame where both are seen"
            raise SceneError.at(name_of(situation.layer(each)), told)
    mask = _mask(shown[layer]["corners"], shown[other]["corners"], scene.size)
    said = f"{name_of(situation.layer(layer))} from behind {name_of(situation.layer(other))}"
    edit = {"name": "add-mask", "layer": layer, "mask": mask}
    return {"name": "several", "edits": [edit], "said": said}


def _mask(own: list[list[float]], other: list[list[float]], size: tuple[int, int]) -> Data:
    """The half of the picture, beyond its edges too, that begins at the middle of another layer:
    across or down, along which the two are farther apart."""
    (middle, there) = (np.mean(corners, axis=0) for corners in (own, other))
    away = middle - there
    axis = int(abs(away[1]) > abs(away[0]))
    sign = 1 if away[axis] >= 0 else -1
    far = 2 * math.hypot(*size)
    center = [size[0] / 2, size[1] / 2]
    center[axis] = round(float(there[axis]) + sign * far / 2, 1)
    return {
        "kind": "rectangle", "fixed": True, "size": [round(far), round(far)],
        "center": [round(each, 1) for each in center],
    }  # fmt: skip


def typed_behind(situation: Situation, line: str, layers: list[str]) -> list[Data]:
    """The edits for a line that says behind what layers are; none if it says something else."""
    other = _hider(situation.document, line)
    return [
        edit
        for layer in layers
        if other is not None and layer != other.id
        for edit in behind(situation, {"layer": layer, "other": other.id})["edits"]
    ]


def says_behind(scene: Scene, text: str) -> str | None:
    """What a text says in full, if it says behind what a layer is."""
    other = _hider(scene, text)
    return f"Seen as it comes out from behind “{other.called}”." if other else None


def _hider(scene: Scene, line: str) -> Layer | None:
    """The layer that a line says another is behind; None if it says something else."""
    found = _TYPED.fullmatch(" ".join(line[:MOST_LETTERS].split()))
    if not found:
        return None
    wanted = alike(found[1])
    return next((each for each in scene.layers if alike(each.called) == wanted), None)
