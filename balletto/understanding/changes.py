"""Changes of a move as it is: twice as slow, half as far, the other way round."""

import copy
from collections.abc import Callable
from typing import Any, NamedTuple

from ..scene.edits.times.keyframes import backwards
from ..scene.letters.characters import characters_of
from ..scene.pose import PROPERTIES
from ..scene.values.tracks import is_track
from ..sentences.language.tokens import SayingError

Data = dict[str, Any]
_SIDES = {"left": "right", "right": "left", "top": "bottom", "bottom": "top"}
_OPPOSITE_ORDERS = {
    "forward": "backward", "backward": "forward", "center-out": "ends-in", "ends-in": "center-out",
}  # fmt: skip


class Around(NamedTuple):
    """What a change of a move goes by besides: the text of its title, the frames a second, and the
    frame at which its layer ends, 0 if there is none."""

    text: str
    rate: float
    end: float = 0


class UnfitError(SayingError):
    """What is understood to its end, but cannot be done."""

    def __init__(self, end: int, told: str = "") -> None:
        super().__init__(told or "this move has nothing that could be changed so", 0, end)


def changed(move: Data, change: str, around: Around) -> Data:
    """A move with a change: "slower 2", "later 10", "mirrored". UnfitError where the move has
    nothing that could change so."""
    name, _, told = change.partition(" ")
    made = copy.deepcopy(move)
    try:
        _CHANGES[name](made, told, around)
    except (LookupError, TypeError, ValueError, StopIteration):
        raise UnfitError(len(change)) from None
    return made


def is_change(fact: str) -> bool:
    """Whether a fact of a table is a change of a move."""
    return fact.startswith("@") and fact[1:].partition(" ")[0] in _CHANGES


def _keys(move: Data) -> list[Data]:
    keys: list[Data] = move["amount"]["keys"]
    return keys


def _courses(move: Data) -> list[Data]:
    """All courses of a move: that of its amount, and those of its pose."""
    pose = move.get("pose", {})
    values = (move.get("amount"), *pose.values(), *pose.get("axes", {}).values())
    return [value for value in values if is_track(value)]


def _rounds(move: Data) -> list[Data]:
    """The selectors of a move that come again and again: waves and shakes."""
    return [each for each in move.get("reach", ()) if each["kind"] in ("wave", "jitter")]


def _length(move: Data, told: str, around: Around) -> None:
    by, courses = float(told), _courses(move)
    first = min((key["at"] for course in courses for key in course["keys"]), default=0)
    for key in (key for course in courses for key in course["keys"]):
        key["at"] = _round(first + (key["at"] - first) * by)
    for each in _rounds(move):
        _pace(each, by)
    if not courses and not _rounds(move):
        raise ValueError("no time")


def _pace(each: Data, by: float) -> None:
    """Lets a wave or a shake take longer, by a factor."""
    name = "period" if each["kind"] == "wave" else "every"
    if isinstance(each[name], str):
        each[name] = f"{float(each[name].removesuffix('/s')) / by:g}/s"
    else:
        each[name] = _round(each[name] * by)


def _stiffer(move: Data, told: str, around: Around) -> None:
    springs = [each for each in _keys(move) if isinstance(each.get("ease"), dict)]
    for key in springs:
        key["ease"]["spring"] = _round(min(max(key["ease"]["spring"] + float(told), 0.05), 0.95))
    if not springs:
        raise ValueError("no spring")


def _slower(move: Data, told: str, around: Around) -> None:
    _length(move, told, around)
    if "stagger" in move:
        _wider(move, told, around)


def _wider(move: Data, told: str, around: Around) -> None:
    stagger = move["stagger"]
    for name in {"gap", "span"} & set(stagger):
        stagger[name] = _round(stagger[name] * float(told))


def _later(move: Data, told: str, around: Around) -> None:
    move["start"] = _round(move.get("start", 0) + _frames(told, around.rate))


def last_frame(move: Data, around: Around) -> float | None:
    """The frame at which the last unit of a move is where it ends; None for what goes on and on, or
    starts at a marker."""
    amount: Any = move.get("amount")
    if not is_track(amount) or amount.get("after", "hold") != "hold" or move.get("marker"):
        return None
    return float(move.get("start", 0) + amount["keys"][-1]["at"] + _staggered(move, around.text))


def _ends(move: Data, told: str, around: Around) -> None:
    last = move.get("start", 0) + _keys(move)[-1]["at"] + _staggered(move, around.text)
    _later(move, str(_frames(told, around.rate) - last), around)


def _staggered(move: Data, text: str) -> float:
    """How long after the first unit the last one starts, in frames."""
    stagger = move.get("stagger", {})
    if "span" in stagger:
        return float(stagger["span"])
    unit, words = move.get("unit", "character"), text.split()
    letters = [each for each in characters_of(text) if not each.isspace()]
    count = {"character": len(letters), "word": len(words), "line": text.count("\n") + 1}
    return float(stagger.get("gap", 0)) * max(count.get(unit, 1) - 1, 0)


def _frames(told: str, rate: float) -> float:
    """A time as it is told, in frames."""
    number = float(told.removesuffix(" s").replace("−", "-"))
    return number * (rate if told.endswith(" s") else 1)


def _farther(move: Data, told: str, around: Around) -> None:
    by, is_changed = float(told), False
    for name, value in move["pose"].items():
        measure = PROPERTIES[name].measure if name in PROPERTIES else None
        if measure is None or name == "opacity" or is_track(value):
            continue
        rest = PROPERTIES[name].rest or 0.0
        move["pose"][name] = _round(rest + (value - rest) * by)
        is_changed = True
    if not is_changed:
        raise ValueError(told)


def _mirrored(move: Data, told: str, around: Around) -> None:
    pose, names = move["pose"], ("x", "y", "rotation", "rotation_x", "rotation_y")
    if "off" in pose:
        pose["off"] = _SIDES[pose["off"]]
        return
    name = next((name for name in names if name in pose), "")
    pose[name] = -pose[name]  # KeyError where there is none


_SIDE_OF = {"left": ("x", -1), "right": ("x", 1), "above": ("y", -1), "below": ("y", 1)}


def _side(move: Data, told: str, around: Around) -> None:
    """From or to another side, as far as it went."""
    pose, (name, sign) = move["pose"], _SIDE_OF[told]
    if "off" in pose:
        pose["off"] = {"above": "top", "below": "bottom"}.get(told, told)
        return
    far = max(abs(pose.pop("x", 0)), abs(pose.pop("y", 0)))
    if not far:
        raise ValueError(told)
    pose[name] = sign * far


def _diagonal(move: Data, told: str, around: Around) -> None:
    """From one side as well, as far as it goes up or down."""
    move["pose"]["x"] = _SIDE_OF[told][1] * abs(move["pose"]["y"])


def comes_home(move: Data) -> bool:
    """Whether a move ends at rest: what comes, and does not leave or stay."""
    amount: Any = move.get("amount")
    return is_track(amount) and amount["keys"][-1]["value"] == 0


def leaves(move: Data) -> bool:
    """Whether a move ends away from rest, for good."""
    amount: Any = move.get("amount")
    return (
        is_track(amount)
        and amount.get("after", "hold") == "hold"
        and amount["keys"][-1]["value"] != 0
    )


def _clock(move: Data, told: str, around: Around) -> None:
    """The way round that it turns: home clockwise from below nothing."""
    pose, sign = move["pose"], -1 if comes_home(move) else 1
    pose["rotation"] = abs(pose["rotation"]) * int(told) * sign


def _more(move: Data, told: str, around: Around) -> None:
    """So much farther, in the unit that is told: "20 px", "−10°"."""
    by = float(told.split(" ")[0].rstrip("°").replace("−", "-"))
    names = ("rotation", "rotation_x", "rotation_y") if "°" in told else ("x", "y", "z")
    pose = move["pose"]
    name = next((name for name in names if name in pose), "")
    pose[name] = _round(pose[name] + (by if pose[name] >= 0 else -by))


def _far(move: Data, told: str, around: Around) -> None:
    """How far it goes, to the side that it goes to."""
    pose, far = move["pose"], float(told.split(" ")[0].replace("−", "-"))
    name = next((name for name in ("y", "x", "z") if name in pose), "")
    pose[name] = far if pose[name] >= 0 else -far


def _longer(move: Data, told: str, around: Around) -> None:
    keys = _keys(move)
    last, first = keys[-1]["at"], keys[0]["at"]
    length = last - first + _frames(told, around.rate)
    if length <= 0:
        raise ValueError(told)
    _length(move, str(length / (last - first)), around)


def _eased(move: Data, told: str, around: Around) -> None:
    _keys(move)[0]["ease"] = told


def _in_full(move: Data, told: str, around: Around) -> None:
    """Each unit begins when the one before it has ended."""
    keys = _keys(move)
    move["stagger"]["gap"] = keys[-1]["at"] - keys[0]["at"]
    move["stagger"].pop("span", None)


def _turned_round(move: Data, told: str, around: Around) -> None:
    """In goes out, as it came."""
    times = [key["at"] for key in _keys(move)]
    move["amount"] = backwards(move["amount"], times[0] + times[-1])


def _calmer(move: Data, told: str, around: Around) -> None:
    """A spring that settles sooner, one rebound less, no overshoot."""
    eases = [key for key in _keys(move) if "ease" in key]
    for key in eases:
        key["ease"] = _calmed(key["ease"])
    if not eases:
        raise ValueError("no ease")


def _calmed(ease: Any) -> Any:
    if isinstance(ease, dict) and "spring" in ease:
        return {**ease, "spring": _round(min(ease["spring"] + 0.2, 0.95))}
    if isinstance(ease, dict) and ease.get("bounce", 0) > 1:
        return {**ease, "bounce": ease["bounce"] - 1}
    if isinstance(ease, dict) or ease == "overshoot":
        return "soft-landing"
    raise ValueError("nothing lively")


def _backwards(move: Data, told: str, around: Around) -> None:
    """As a film that runs backwards: what came last goes first, done as the layer ends."""
    _turned_round(move, told, around)
    if "stagger" in move:
        _reversed(move, told, around)
    if around.end:
        _ends(move, f"{around.end:g}", around)


def _again_every(move: Data, told: str, around: Around) -> None:
    """Anew every so many frames, at rest between, or in less time where it is too long for that."""
    every, keys = _frames(told.removeprefix("every "), around.rate), _keys(move)
    length = keys[-1]["at"] - keys[0]["at"]
    if every <= 0 or length <= 0:
        raise ValueError(told)
    if length >= every:
        _length(move, str(every / length), around)
    else:
        keys.append({"at": _round(keys[0]["at"] + every), "value": keys[-1]["value"]})
    move["amount"]["after"] = "cycle"


def _part(move: Data, told: str, around: Around) -> None:
    """One property alone, less of it or more: "blur 0.5"."""
    name, by = told.split()
    found = next(each for each in move["pose"] if each.startswith(name))
    move["pose"][found] = _round(move["pose"][found] * float(by))


def _reversed(move: Data, told: str, around: Around) -> None:
    stagger = move["stagger"]
    stagger["order"] = _OPPOSITE_ORDERS[stagger.get("order", "forward")]


def _seed(move: Data, told: str, around: Around) -> None:
    chances = [each for each in move.get("reach", ()) if each["kind"] in ("scatter", "jitter")]
    if move.get("stagger", {}).get("order") == "shuffle":
        chances.append(move["stagger"])
    if not chances:
        raise ValueError("no chance")
    for each in chances:
        each["seed"] = each.get("seed", 0) + 1


def _loop(move: Data, told: str, around: Around) -> None:
    waves = [each for each in move.get("reach", ()) if each["kind"] == "wave"]
    for each in waves:
        each["loop"] = True
    for course in [] if waves else _courses(move):
        course["after"] = told
    if not waves and not _courses(move):
        raise ValueError("no course")


def _often(move: Data, told: str, around: Around) -> None:
    for each in _rounds(move):
        _pace(each, 1 / float(told))
    if not _rounds(move):
        raise ValueError("nothing comes again")


def _without(move: Data, told: str, around: Around) -> None:
    del move["pose"][told]
    if not move["pose"]:
        raise ValueError(told)


def _together(move: Data, told: str, around: Around) -> None:
    del move["stagger"]


def _round(number: float) -> float:
    return round(number, 3)


_CHANGES: dict[str, Callable[[Data, str, Around], None]] = {
    "slower": _slower, "length": _length, "stiffer": _stiffer, "wider": _wider, "later": _later,
    "ends": _ends, "farther": _farther, "mirrored": _mirrored, "turned": _turned_round,
    "reversed": _reversed, "seed": _seed, "loop": _loop, "often": _often, "without": _without,
    "together": _together, "side": _side, "diagonal": _diagonal, "clock": _clock, "more": _more,
    "far": _far, "eased": _eased, "more-long": _longer, "in-full": _in_full,
    "backwards": _backwards, "calmer": _calmer, "again": _again_every, "part": _part,
}  # fmt: skip
