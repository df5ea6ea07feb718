"""From drawn pixels to the YUV that encoders take, converting only the rows that changed."""

import av
import numpy as np
from av.video.reformatter import ColorRange, Colorspace, VideoReformatter

# The colour of a row is smoothed over its neighbours, this many rows away at the most: so far a
# change is felt, and so far beyond that the rows must be known. Even, since colour is stored at
# half height.
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

    def convert(self, pixels: np.ndarray, changed: tuple[int, int] | None = None) -> av.VideoFrame:
        """Brings `frame` up to date with `pixels` and returns it.

        changed: the rows, from first to end, that differ from the call before; None: all.
        """
        height = len(pixels)
        first, end = changed or (0, height)
        if first >= end:
            return self.frame
        first, end = _even(first - REACH, end + REACH, height)
        known, known_end = _even(first - REACH, end + REACH, height)
        part = self._reformatter.reformat(
            av.VideoFrame.from_numpy_buffer(pixels[known:known_end], format="bgra"),
            format="yuv420p",
            dst_colorspace=Colorspace.ITU709,
            dst_color_range=ColorRange.MPEG,
            threads=1,
        )
        for index, plane in enumerate(part.planes):
            down = 1 if index == 0 else 2
            rows = _rows(plane)[(first - known) // down : (end - known) // down]
            np.copyto(self._planes[index][first // down : end // down], rows)
        return self.frame


def _even(first: int, end: int, height: int) -> tuple[int, int]:
    """The rows widened to even ones, within the picture."""
    return max(first - first % 2, 0), min(end + end % 2, height)


def _rows(plane: av.video.plane.VideoPlane) -> np.ndarray:
    """A plane as rows of samples, without the padding at their end; a view of its memory."""
    rows = np.frombuffer(memoryview(plane), dtype=np.uint8).reshape(plane.height, plane.line_size)
    return rows[:, : plane.width]
