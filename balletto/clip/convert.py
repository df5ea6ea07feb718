"""From drawn pixels to the YUV that encoders take, converting only the part that changed."""

import av
import numpy as np
from av.video.reformatter import ColorRange, Colorspace, VideoReformatter

from ..raster.pixel_buffer import Edges

# The colour of a pixel is smoothed over its neighbours, this many away at the most: so far a change
# is felt, and so far beyond that the pixels must be known. Even, since colour is stored at half
# width and height.
REACH = 8


class Converter:
    """Turns pictures (height, width, 4), BGRA premultiplied, into one YUV 4:2:0 frame.

    BT.709, limited range. What is transparent counts as black. Width and height must be even.
    `frame` is the same object after each call: an encoder must have copied it before the next.
    """

    def __init__(self, width: int, height: int):
        self.frame = av.VideoFrame(width, height, "yuv420p")
        self.frame.colorspace = Colorspace.ITU709
        self.frame.color_range = ColorRange.MPEG
        self._planes = [_rows(plane) for plane in self.frame.planes]
        self._reformatter = VideoReformatter()

    def convert(self, pixels: np.ndarray, changed: Edges | None = None) -> av.VideoFrame:
        """Brings `frame` up to date with `pixels` and returns it.

        changed: the edges, left, top, right and bottom, between which they differ from the call
        before; None: all.
        """
        height, width = pixels.shape[:2]
        left, top, right, bottom = changed or (0, 0, width, height)
        if left >= right or top >= bottom:
            return self.frame
        columns, rows = _felt(left, right, width), _felt(top, bottom, height)
        across, down = _felt(*columns, width), _felt(*rows, height)
        known = np.ascontiguousarray(pixels[slice(*down), slice(*across)])
        part = self._reformatter.reformat(
            av.VideoFrame.from_numpy_buffer(known, format="bgra"),
            format="yuv420p",
            dst_colorspace=Colorspace.ITU709,
            dst_color_range=ColorRange.MPEG,
            threads=1,
        )
        for index, plane in enumerate(part.planes):
            by = 1 if index == 0 else 2
            made = _rows(plane)[_part(rows, down[0], by), _part(columns, across[0], by)]
            self._planes[index][_part(rows, 0, by), _part(columns, 0, by)] = made
        return self.frame


def _felt(first: int, end: int, side: int) -> tuple[int, int]:
    """From where to where a change is felt, from an even pixel to an even one of a side."""
    first, end = first - REACH, end + REACH
    return max(first - first % 2, 0), min(end + end % 2, side)


def _part(ends: tuple[int, int], start: int, by: int) -> slice:
    """The samples, each of so many pixels, from one end to another, counted from a start."""
    return slice((ends[0] - start) // by, (ends[1] - start) // by)


def _rows(plane: av.video.plane.VideoPlane) -> np.ndarray:
    """A plane as rows of samples, without the padding at their end; a view of its memory."""
    rows = np.frombuffer(memoryview(plane), dtype=np.uint8).reshape(plane.height, plane.line_size)
    return rows[:, : plane.width]
