"""From drawn pixels to the YUV that encoders take, converting only the rows that changed."""

import av
import numpy as np
from av.video.reformatter import ColorRange, Colorspace, VideoReformatter

# Rows are compared and converted in bands of this height: even, since colour is stored at half
# height, and tall enough that the calls do not cost more than the rows they save.
BAND = 60


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
        self._last: np.ndarray | None = None
        self._reformatter = VideoReformatter()

    def convert(self, pixels: np.ndarray) -> av.VideoFrame:
        """Brings `frame` up to date with `pixels` and returns it."""
        for first, end in self._changed(pixels):
            source = av.VideoFrame.from_numpy_buffer(pixels[first:end], format="bgra")
            part = self._reformatter.reformat(
                source,
                format="yuv420p",
                dst_colorspace=Colorspace.ITU709,
                dst_color_range=ColorRange.MPEG,
                threads=1,
            )
            for index, plane in enumerate(part.planes):
                down = 1 if index == 0 else 2
                target = self._planes[index][first // down : end // down]
                np.copyto(target, _rows(plane)[:, : target.shape[1]])
        return self.frame

    def _changed(self, pixels: np.ndarray) -> list[tuple[int, int]]:
        """Stretches of rows, in whole bands, that differ from the picture before."""
        height = pixels.shape[0]
        starts = range(0, height, BAND)
        if self._last is None:
            self._last = pixels.copy()
            return [(0, height)]
        stretches: list[tuple[int, int]] = []
        for first in starts:
            end = min(first + BAND, height)
            # As whole pixels, a quarter of the comparisons.
            new, old = pixels[first:end].view(np.uint32), self._last[first:end].view(np.uint32)
            if np.array_equal(new, old):
                continue
            np.copyto(old, new)
            if stretches and stretches[-1][1] == first:
                first = stretches.pop()[0]
            stretches.append((first, end))
        return stretches


def _rows(plane: av.video.plane.VideoPlane) -> np.ndarray:
    """A plane as rows of samples, without the padding at their end; a view of its memory."""
    rows = np.frombuffer(plane, dtype=np.uint8).reshape(plane.height, plane.line_size)
    return rows[:, : plane.width]
