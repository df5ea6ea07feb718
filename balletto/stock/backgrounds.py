"""The backgrounds that ship: pictures that move and come round without a seam.

Each is a function of a share of its time, 0 to 1, in which everything that moves goes through whole
turns; what it gives at 1 it gave at 0.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from fractions import Fraction
from pathlib import Path

import av
import numpy as np
from scipy.ndimage import gaussian_filter, zoom

from . import SIZE

WIDTH, HEIGHT = SIZE
RATE = 30
_SMALL = 4  # soft pictures are worked out so many times smaller
DrawBackground = Callable[
    [float], np.ndarray
]  # a share of the time to colours (height, width, 3) in 0..1


def _color(text: str) -> np.ndarray:
    return np.array([int(text[at : at + 2], 16) / 255 for at in (1, 3, 5)])


NIGHT, DEEP, TEAL, GOLD, RED, CREAM = (
    _color(text) for text in ("#101428", "#1B2550", "#2BB5A0", "#F2B705", "#D1495B", "#F4EBDD")
)


def _places(by: int = 1) -> tuple[np.ndarray, np.ndarray]:
    """Across and down, in shares of the height, of each pixel of a picture `by` times smaller."""
    down, across = np.mgrid[0 : HEIGHT // by, 0 : WIDTH // by]
    return (across + 0.5) * by / HEIGHT, (down + 0.5) * by / HEIGHT


def _mixed(one: np.ndarray, other: np.ndarray, share: np.ndarray) -> np.ndarray:
    return one + (other - one) * share[..., None]


def _enlarged(small: np.ndarray) -> np.ndarray:
    return np.stack([zoom(small[..., c], _SMALL, order=1, mode="nearest") for c in range(3)], -1)


def _smooth(share: np.ndarray) -> np.ndarray:
    share = np.clip(share, 0, 1)
    return share * share * (3 - 2 * share)


def _drifting_colour() -> DrawBackground:
    """Four soft colours that go round each other."""
    across, down = _places(_SMALL)
    spots = (  # colour, place, way, whole turns, size
        (TEAL, (0.45, 0.35), (0.3, 0.22), (1, -1), 0.42),
        (RED, (1.3, 0.6), (0.32, 0.25), (-1, 1), 0.4),
        (GOLD, (0.9, 1.0), (0.4, 0.2), (1, 2), 0.3),
        (DEEP, (0.9, 0.1), (0.5, 0.2), (-1, -1), 0.5),
    )

    def draw(share: float) -> np.ndarray:
        picture = np.broadcast_to(NIGHT, (*across.shape, 3)).copy()
        for number, (color, (x, y), (wide, high), (turns, others), size) in enumerate(spots):
            at = 2 * np.pi * share
            here = x + wide * np.cos(turns * at + number), y + high * np.sin(others * at + number)
            near = np.exp(-((across - here[0]) ** 2 + (down - here[1]) ** 2) / (2 * size**2 * 0.5))
            picture = _mixed(picture, color, 0.75 * near)
        return _enlarged(picture)

    return draw


def _soft_lights() -> DrawBackground:
    """Lights out of focus that rise and breathe."""
    random = np.random.default_rng(3)
    across, down = _places(2)
    lights = [
        (random.uniform(0, 1.78), random.uniform(0, 1.3), random.uniform(0.03, 0.11),
         (GOLD, RED, CREAM)[number % 3], random.uniform(0, 1), random.integers(1, 3))
        for number in range(34)
    ]  # fmt: skip

    def draw(share: float) -> np.ndarray:
        sky = _smooth(down / 1.1)
        picture = _mixed(_color("#180F22"), _color("#3A1B33"), sky)
        for x, y, size, color, phase, turns in lights:
            high = (y - 1.3 * share) % 1.3 - 0.15  # once up past the picture and in again
            side = x + 0.02 * np.sin(2 * np.pi * (share * turns + phase))
            left, right = (int(np.clip((side + s * size * 1.2) * HEIGHT / 2, 0, WIDTH // 2))
                           for s in (-1, 1))  # fmt: skip
            top, low = (int(np.clip((high + s * size * 1.2) * HEIGHT / 2, 0, HEIGHT // 2))
                        for s in (-1, 1))  # fmt: skip
            if left >= right or top >= low:
                continue
            part = np.s_[top:low, left:right]
            far = np.hypot(across[part] - side, down[part] - high) / size
            disc = _smooth((1 - far) / 0.12) * (0.7 + 0.3 * _smooth((far - 0.6) / 0.4))
            breath = 0.22 + 0.14 * np.sin(2 * np.pi * (share * turns + phase * 3))
            edge = _smooth(np.array((high + 0.15) / 0.15)) * _smooth(np.array((1.15 - high) / 0.15))
            picture[part] += disc[..., None] * color * breath * edge
        large = zoom(picture, (2, 2, 1), order=1, mode="nearest")
        return np.clip(large, 0, 1)

    return draw


def _stars() -> DrawBackground:
    """A sky of stars that twinkle, before a band of mist."""
    random = np.random.default_rng(11)
    across, down = _places()
    rough = gaussian_filter(random.normal(size=(HEIGHT // 8, WIDTH // 8)), 6, mode="wrap")
    mist = zoom(rough / np.abs(rough).max(), 8, order=1, mode="grid-wrap")
    band = np.exp(-((down - 0.75 + 0.35 * across + 0.12 * mist) ** 2) / 0.05)
    sky = _mixed(_color("#070A18"), _color("#1A2148"), 0.9 * band * (0.6 + 0.4 * mist))
    count = 520
    places = random.uniform(0, 1, (count, 2)) * (WIDTH - 9, HEIGHT - 9)
    sizes = 0.45 + 1.5 * random.uniform(0, 1, count) ** 6
    turns, phases = random.integers(1, 5, count), random.uniform(0, 1, count)
    tints = _mixed(_color("#BFD2FF"), _color("#FFE9C4"), random.uniform(0, 1, count))
    near = np.mgrid[0:9, 0:9]

    def draw(share: float) -> np.ndarray:
        picture = sky.copy()
        bright = 0.62 + 0.38 * np.sin(2 * np.pi * (share * turns + phases))
        for (x, y), size, light, tint in zip(places, sizes, bright, tints, strict=True):
            left, top = int(x), int(y)
            far = (near[1] + left - x - 4) ** 2 + (near[0] + top - y - 4) ** 2
            spot = np.exp(-far / (2 * size**2)) * min(1.0, 0.35 + size / 1.4)
            picture[top : top + 9, left : left + 9] += (spot * light)[..., None] * tint
        return np.clip(picture, 0, 1)

    return draw


def _waves() -> DrawBackground:
    """Five waves, one behind the other, each at a pace of its own."""
    across, down = _places()
    rows = (  # height, swell, waves across, whole turns, phase
        (0.34, 0.05, 2.1, 1, 0.0), (0.46, 0.06, 1.6, -1, 0.3), (0.58, 0.055, 2.4, 2, 0.6),
        (0.71, 0.05, 1.9, -2, 0.1), (0.85, 0.045, 2.8, 3, 0.8),
    )  # fmt: skip

    def draw(share: float) -> np.ndarray:
        picture = _mixed(_color("#F7E3C8"), _color("#F1BFA0"), _smooth(down / 0.6))
        for number, (high, swell, many, turns, phase) in enumerate(rows):
            turn = 2 * np.pi * (many * across / 1.78 + share * turns + phase)
            edge = high + swell * np.sin(turn) + 0.3 * swell * np.sin(2 * turn + number)
            cover = np.clip((down - edge) * HEIGHT + 0.5, 0, 1)
            color = _mixed(_color("#5BA7B5"), _color("#12264E"), np.array(number / 4))
            picture = _mixed(picture, color, cover)
        return picture

    return draw


def _stripes() -> DrawBackground:
    """Slanted stripes that move on by one of them."""
    across, down = _places()
    width = 0.16

    def draw(share: float) -> np.ndarray:
        along = ((across + down) / np.sqrt(2) / width - share) % 1
        edge = np.abs(along - 0.5) - 0.25
        cover = np.clip(edge * width * HEIGHT + 0.5, 0, 1)
        return _mixed(_color("#22306A"), DEEP, cover)

    return draw


def _halftone() -> DrawBackground:
    """Dots whose sizes a wave goes through: white on black, so that it serves as a matte."""
    across, down = _places()
    pitch = 1 / 20
    row = np.floor(down / pitch)
    shift = 0.5 * (row % 2)
    column = np.floor(across / pitch - shift)
    middle = (column + 0.5 + shift) * pitch, (row + 0.5) * pitch
    far = np.hypot(across - middle[0], down - middle[1])
    centre = np.hypot(middle[0] - 0.89, middle[1] - 0.5)

    def draw(share: float) -> np.ndarray:
        swell = 0.5 + 0.5 * np.sin(2 * np.pi * (1.4 * centre - share))
        radius = pitch * (0.08 + 0.46 * swell)
        cover = np.clip((radius - far) * HEIGHT + 0.5, 0, 1)
        return np.repeat(cover[..., None], 3, axis=2)

    return draw


def _paper() -> DrawBackground:
    """Paper that was filmed sheet by sheet: eight sheets, eight a second."""
    random = np.random.default_rng(5)
    across, down = _places()
    shade = 1 - 0.1 * ((across - 0.89) ** 2 + (down - 0.5) ** 2)

    def sheet() -> np.ndarray:
        fibres = gaussian_filter(random.normal(size=(HEIGHT, WIDTH)), (0.8, 2.2), mode="wrap")
        spots = gaussian_filter(random.normal(size=(HEIGHT, WIDTH)), 14, mode="wrap")
        rough = 0.018 * fibres / fibres.std() + 0.012 * spots / spots.std()
        made: np.ndarray = np.clip(CREAM * (shade * (1 + rough))[..., None], 0, 1)
        return made

    sheets = [sheet() for _ in range(8)]
    return lambda share: sheets[int(share * 8) % 8]


def _grain() -> DrawBackground:
    """The grain of a film about an even grey: twelve pictures, twelve a second."""
    random = np.random.default_rng(8)

    def picture() -> np.ndarray:
        grain = gaussian_filter(random.normal(size=(HEIGHT, WIDTH)), 1.1, mode="wrap")
        return np.repeat((0.5 + 0.09 * grain / grain.std())[..., None], 3, axis=2).clip(0, 1)

    pictures = [picture() for _ in range(12)]
    return lambda share: pictures[int(share * 12) % 12]


@dataclass(frozen=True)
class _Background:
    """How one is made: it lasts so many seconds; `factor` is that of x264, lower is finer."""

    make: Callable[[], DrawBackground]
    seconds: int
    factor: int


BACKGROUNDS = {
    "drifting-colour": _Background(_drifting_colour, 8, 20),
    "soft-lights": _Background(_soft_lights, 8, 23),
    "stars": _Background(_stars, 6, 24),
    "waves": _Background(_waves, 6, 24),
    "stripes": _Background(_stripes, 2, 22),
    "halftone": _Background(_halftone, 3, 24),
    "paper": _Background(_paper, 1, 26),
    "grain": _Background(_grain, 1, 30),
}


def frames(name: str) -> Iterator[np.ndarray]:
    """The frames of a background as 8-bit colours, (HEIGHT, WIDTH, 3)."""
    background = BACKGROUNDS[name]
    draw = background.make()
    # Half a step of noise, the same in every frame, so that soft colours show no edges.
    noise = np.random.default_rng(1).uniform(0, 1, (HEIGHT, WIDTH, 1))
    count = background.seconds * RATE
    for number in range(count):
        yield np.floor(draw(number / count) * 255 + noise).clip(0, 255).astype(np.uint8)


def write_backgrounds(folder: Path) -> None:
    """Writes all of them as H.264 files."""
    for name, background in BACKGROUNDS.items():
        with av.open(str(folder / f"stock-{name}.mp4"), "w") as container:
            stream = container.add_stream("libx264", rate=Fraction(RATE))
            stream.width, stream.height, stream.pix_fmt = WIDTH, HEIGHT, "yuv420p"
            stream.options = {"crf": str(background.factor), "preset": "veryslow", "x264-params":
                              "colorprim=bt709:transfer=bt709:colormatrix=bt709"}  # fmt: skip
            for picture in frames(name):
                frame = av.VideoFrame.from_ndarray(picture, format="rgb24")
                made = frame.reformat(format="yuv420p", dst_colorspace="ITU709")
                container.mux(stream.encode(made))
            container.mux(stream.encode(None))
