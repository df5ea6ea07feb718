"""Figures of the motion model: all frames and units at once against a plain loop, one by one."""

import math
import subprocess
import sys
import time
from collections.abc import Callable
from functools import cache
from itertools import pairwise
from typing import Any

import numpy as np

from balletto.lettering.layout import lay_out
from balletto.motion.evaluate import compose
from balletto.motion.spaces.matrices import place
from balletto.scene import files
from balletto.scene.document import Scene
from balletto.scene.eases import NAMED_BEZIERS
from balletto.scene.edits import apply
from balletto.scene.moving.moves import Move
from balletto.scene.values.tracks import Track

from .core import title_scene
from .timing import interleaved

CHARACTERS, FRAMES = 1000, 300
LOOP_SHARE = 10  # the loop is run for every tenth character, and its time taken so many times
PROPERTIES = ("x", "y", "z", "rotation", "scale_x", "scale_y", "opacity")
_FACTORS = ("scale_x", "scale_y", "opacity")
# One number of a course from 1 to 0 over 30 frames, as the moves here have it.
_EASES = ("soft-landing", "quick-landing", "overshoot", "soft-both")
MOVES: list[dict[str, Any]] = [
    {
        "pose": {"y": 100},
        "amount": {"keys": [{"at": 0, "value": 1, "ease": _EASES[0]}, {"at": 30, "value": 0}]},
        "stagger": {"gap": 0.2},
    },
    {
        "pose": {"opacity": 0},
        "amount": {"keys": [{"at": 0, "value": 1, "ease": _EASES[1]}, {"at": 30, "value": 0}]},
        "stagger": {"order": "backward", "gap": 0.2},
    },
    {
        "pose": {"rotation": 90},
        "amount": {"keys": [{"at": 0, "value": 1, "ease": _EASES[2]}, {"at": 30, "value": 0}]},
        "stagger": {"order": "center-out", "gap": 0.3},
    },
    {
        "pose": {"scale": 1.5},
        "reach": [
            {
                "kind": "sweep",
                "low": 0,
                "high": 30,
                "soft_low": 10,
                "soft_high": 10,
                "travel": {"keys": [{"at": 0, "value": -40}, {"at": 300, "value": 100}]},
            }
        ],
    },
    {"pose": {"y": 20}, "reach": [{"kind": "wave", "period": 45, "cycles": 6}]},
    {
        "pose": {"x": -300},
        "amount": {"keys": [{"at": 0, "value": 1, "ease": _EASES[3]}, {"at": 30, "value": 0}]},
        "stagger": {"gap": 0.2},
        "follow": {"frequency": 2.5, "damping": 0.35},
    },
]


def evaluating() -> dict[str, float]:
    """Poses of 1,000 characters x 300 frames x 6 moves (two with reach, one with follow) against a
    plain Python loop over the same formulas, which give the same numbers."""
    scene = _scene(CHARACTERS, MOVES)
    title = scene.layers[0]
    layout = lay_out(scene, title)
    times = np.arange(FRAMES, dtype=float)
    (whole,) = interleaved(5, lambda: compose(scene, title, layout, times))
    started = time.perf_counter()
    looped = _Loop(title.moves, CHARACTERS).run(range(0, CHARACTERS, LOOP_SHARE))
    loop = (time.perf_counter() - started) * 1000 * LOOP_SHARE
    ours = compose(scene, title, layout, times)["character"]
    for name, rows in looped.items():
        np.testing.assert_allclose(ours.full(name)[:, ::LOOP_SHARE], rows, atol=1e-3)
    return {"poses_ms": whole, "poses_loop_ms": loop, "poses_speedup": loop / whole}


def _scene(characters: int, moves: list[dict[str, Any]]) -> Scene:
    words = ["moonlights"] * (characters // 10)
    # A title of as many characters as there may be has no room for spaces.
    text = (" " if characters < 9000 else "").join(words)
    data = files.to_data(title_scene(text, length=FRAMES))
    data["layers"][0]["moves"] = [{**move, "id": f"m{n}"} for n, move in enumerate(moves)]
    return files.from_data(data)


class _Loop:
    """The moves of a title evaluated in plain Python: one frame, one unit, one move at a time.

    It reads the scene as the model is written down, for the kinds that these moves have.
    """

    def __init__(self, moves: tuple[Move, ...], count: int):
        self.moves = moves
        self.count = count
        self.delays = [self._delays(move) for move in moves]
        self.eases = {name: _bezier(*points) for name, points in NAMED_BEZIERS.items()}
        self.eases["linear"] = lambda s: s

    def run(self, units: range) -> dict[str, list[list[float]]]:
        """The composed values of some units, (frames, units)."""
        followed = {
            (number, unit): self._followed(number, unit)
            for number, move in enumerate(self.moves)
            if move.follow
            for unit in units
        }
        values: dict[str, list[list[float]]] = {name: [] for name in PROPERTIES}
        for frame in range(FRAMES):
            rows: dict[str, list[float]] = {name: [] for name in PROPERTIES}
            for unit in units:
                pose = {name: 1.0 if name in _FACTORS else 0.0 for name in PROPERTIES}
                for number, move in enumerate(self.moves):
                    if move.follow:
                        weight = followed[number, unit][frame]
                    else:
                        weight = self._weight(number, unit, frame)
                    local = frame - move.start - self.delays[number][unit]
                    for name, away in move.pose.given.items():
                        value = self._value(away, local)
                        for part in ("scale_x", "scale_y") if name == "scale" else (name,):
                            if part in _FACTORS:
                                pose[part] *= 1 + weight * (value - 1)
                            else:
                                pose[part] += weight * value
                pose["opacity"] = min(max(pose["opacity"], 0.0), 1.0)
                for name, value in pose.items():
                    rows[name].append(value)
            for name, row in rows.items():
                values[name].append(row)
        return values

    def _delays(self, move: Move) -> list[float]:
        if move.stagger is None:
            return [0.0] * self.count
        places, middle = range(self.count), (self.count - 1) / 2
        away = [abs(place - middle) for place in places]
        ranks = {
            "forward": list(places),
            "backward": list(places)[::-1],
            "center-out": [distance - min(away) for distance in away],
        }[move.stagger.order]
        return [move.stagger.gap * rank for rank in ranks]

    def _weight(self, number: int, unit: int, time: float) -> float:
        move = self.moves[number]
        weight = self._value(move.amount, time - move.start - self.delays[number][unit])
        for selector in move.reach:
            strength = self._value(selector.strength, time) / 100
            weight *= getattr(self, f"_{selector.kind}")(selector, unit, time) * strength
        return weight

    def _value(self, value: Any, time: float) -> float:
        if not isinstance(value, Track):
            return value
        keys = value.keys
        if time < keys[0].at:
            return keys[0].value
        for start, end in pairwise(keys):
            if time < end.at:
                share = self.eases[start.ease]((time - start.at) / (end.at - start.at))
                return start.value * (1 - share) + end.value * share
        return keys[-1].value

    def _sweep(self, selector: Any, unit: int, time: float) -> float:
        travel = self._value(selector.travel, time)
        one, other = (self._value(edge, time) + travel for edge in (selector.low, selector.high))
        low, high = min(one, other), max(one, other)
        soft_low = self._value(selector.soft_low, time)
        soft_high = self._value(selector.soft_high, time)
        if soft_low + soft_high > high - low:
            shrink = (high - low) / (soft_low + soft_high)
            soft_low, soft_high = soft_low * shrink, soft_high * shrink

        def area(edge: float, start: float, width: float) -> float:
            inside = min(max(edge - start, 0.0), width)
            return inside * inside / (2 * width) + max(edge - start - width, 0.0)

        def whole(edge: float) -> float:
            return area(edge, low, soft_low) - area(edge, high - soft_high, soft_high)

        start, end = 100 * unit / self.count, 100 * (unit + 1) / self.count
        return min(max((whole(end) - whole(start)) / (end - start), 0.0), 1.0)

    def _wave(self, selector: Any, unit: int, time: float) -> float:
        cycles, period = self._value(selector.cycles, time), self._value(selector.period, time)
        low, high = self._value(selector.low, time), self._value(selector.high, time)
        phase = self._value(selector.phase, time)
        turns = cycles * (unit + 0.5) / self.count - time / period + phase
        return low + (high - low) * (1 + math.sin(2 * math.pi * turns)) / 2

    def _followed(self, number: int, unit: int) -> list[float]:
        """Frame by frame: w at five places in each, and the oscillator's exact answer to them."""
        follow = self.moves[number].follow
        k = 2 * math.pi * follow.frequency / 30
        kernel, held, answer, speed = _kernel(k, follow.damping)
        x, v, course = self._weight(number, unit, 0), 0.0, []
        for frame in range(FRAMES):
            course.append(x)
            x, v = held * x + answer * v, -k * k * answer * x + speed * v
            for point in range(5):
                taken = self._weight(number, unit, frame + point / 4)
                x += kernel[point][0] * taken
                v += kernel[point][1] * taken
        return course


def _bezier(x1: float, y1: float, x2: float, y2: float) -> Callable[[float], float]:
    """The cubic Bezier of an ease, solved by Newton's steps to 1e-7."""

    def ease(s: float) -> float:
        t = s
        for _ in range(20):
            off = 3 * (1 - t) ** 2 * t * x1 + 3 * (1 - t) * t * t * x2 + t**3 - s
            if abs(off) < 1e-7:
                break
            slope = 3 * (1 - t) ** 2 * x1 + 6 * (1 - t) * t * (x2 - x1) + 3 * t * t * (1 - x2)
            t -= off / max(slope, 1e-6)
        return 3 * (1 - t) ** 2 * t * y1 + 3 * (1 - t) * t * t * y2 + t**3

    return ease


@cache
def _kernel(k: float, damping: float) -> tuple[list[list[float]], float, float, float]:
    """What w at each of five places in a frame adds to x and x' at its end, and what stays."""
    split = k * math.sqrt(1 - damping**2)

    def push(time: float) -> tuple[float, float]:
        fade, turn = math.exp(-damping * k * time), split * time
        answer = fade * math.sin(turn) / split
        return answer, fade * math.cos(turn) - damping * k * answer

    def basis(point: int, at: float) -> float:
        others = [other for other in range(5) if other != point]
        return math.prod((at - other / 4) / (point / 4 - other / 4) for other in others)

    kernel = [[0.0, 0.0] for _ in range(5)]
    fine = 2000
    for step in range(fine):
        at = (step + 0.5) / fine
        pushed = push(1 - at)
        for point in range(5):
            share = k * k * basis(point, at) / fine
            kernel[point][0] += share * pushed[0]
            kernel[point][1] += share * pushed[1]
    answer, speed = push(1.0)
    return kernel, speed + 2 * damping * k * answer, answer, speed


_MEASURE = """
import re, sys
from pathlib import Path
import numpy as np
from balletto.lettering.layout import lay_out
from balletto.motion.evaluate import compose
from benchmarks.motion import MOVES, FRAMES, _scene
scene = _scene(10_000 if int(sys.argv[1]) else 10, [MOVES[0]] * max(1, int(sys.argv[1])))
layout = lay_out(scene, scene.layers[0])
composed = compose(scene, scene.layers[0], layout, np.arange(FRAMES, dtype=float))
print(int(re.search(r"VmHWM:\\s+(\\d+)", Path("/proc/self/status").read_text())[1]) / 1024)
"""


def memory() -> dict[str, float]:
    """What poses of 10,000 characters x 300 frames need in MiB, with two moves and with twelve."""

    def needed(moves: int) -> float:
        words = [sys.executable, "-c", _MEASURE, str(moves)]
        return float(subprocess.run(words, capture_output=True, text=True, check=True).stdout)

    bare = needed(0)
    return {
        "poses_mib_10000": needed(12) - bare,
        "poses_mib_10000_two_moves": needed(2) - bare,
    }


def editing_layout() -> dict[str, float]:
    """From a changed word to the matrices of one frame, for a title of 40 characters."""
    data = files.to_data(title_scene("The Quiet Orbit of Nine Winter Moons, at Dusk", moves=2))
    made = []
    for number in range(310):  # one for each round: none is set a second time
        edit = {"name": "set-value", "path": "t1.style.size", "value": 60 + number / 10}
        made.append(apply(data, edit).scene)
    scenes = iter(made)

    def edited() -> None:
        scene = next(scenes)
        title = scene.layers[0]
        layout = lay_out(scene, title)
        times = np.array([40.0])
        place(scene, title, layout, compose(scene, title, layout, times), times)

    (taken,) = interleaved(300, edited)
    return {"layout_edit_ms": taken}
