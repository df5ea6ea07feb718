"""Videos in any codec: frames as they are drawn, turned into the layout that the codec takes."""

import av
import numpy as np
from av.video.reformatter import ColorRange, Colorspace, VideoReformatter

from ..picture.stills import straight_bgra
from ..raster.pixel_buffer import Edges
from .convert import Converter
from .encoder import Encoder

_COLORS = {"dst_colorspace": Colorspace.ITU709, "dst_color_range": ColorRange.MPEG}


class VideoWriter:
    """Gives drawn frames to an encoder in the layout that it takes, with colours as BT.709 says."""

    def __init__(self, encoder: Encoder):
        self._encoder, self._codec = encoder, encoder.codec
        self._reformatter = VideoReformatter()
        # What changed is all that is converted, where the encoder keeps no hold of the frame.
        is_plain = self._codec.pixels == "yuv420p"
        self._converter = Converter(*encoder.size) if is_plain else None

    def __enter__(self) -> "VideoWriter":
        return self

    def __exit__(self, kind: type | None, *_: object) -> None:
        self._encoder.end(is_whole=kind is None)

    def add(self, pixels: np.ndarray, changed: Edges | None = None) -> None:
        """Adds a frame; `changed`: the edges between which it differs from the
        one before."""
        if self._converter:
            self._encoder.add(self._converter.convert(pixels, changed))
            return
        source = straight_bgra(pixels) if self._codec.has_alpha else np.ascontiguousarray(pixels)
        frame = av.VideoFrame.from_ndarray(source, format="bgra")
        colors = {} if self._codec.is_rgb else _COLORS
        self._encoder.add(self._reformatter.reformat(frame, format=self._codec.pixels, **colors))
