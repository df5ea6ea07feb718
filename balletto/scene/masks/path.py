"""Any closed path as a mask."""

from typing import ClassVar, Literal

from ..shapes.path import Path
from .base import Mask, mask_wording


class PathMask(Path, Mask):
    """Any closed path, as the path data of SVG."""

    rank: ClassVar = 30
    wording: ClassVar = mask_wording("Path mask", "a path")

    kind: Literal["path"]
