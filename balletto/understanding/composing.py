"""A move as people told it, put together to a sentence of ours."""

import re

from .by_what import take_chance, take_loudness, take_shake, take_wave
from .moves import SaidMove
from .values import PROPERTIES, pose_of

USUAL_GAP, USUAL_WAY = "every 2", "100 px"  # of what is said without a number
_OPPOSITE = {"left": "right", "right": "left", "above": "below", "below": "above"}
_OF_WAY = {"up": "above", "down": "below"}
_OFF = {
    "left": "off the left", "right": "off the right", "above": "off the top",
    "below": "off the bottom",
}  # fmt: skip
_PIVOTS = {
    "left": "0 % across and 50 % down", "right": "100 % across and 50 % down",
    "top": "50 % across and 0 % down", "bottom": "50 % across and 100 % down",
    "bottom left": "0 % across and 100 % down", "bottom right": "100 % across and 100 % down",
    "top left": "0 % across and 0 % down", "top right": "100 % across and 0 % down",
    "middle": "50 % across and 50 % down",
}  # fmt: skip
_PLACES = re.compile(r"(left|right|above|below|nearer|deeper|off the)")
_VERBS = {"home": "from", "away": "ends", "stay": "is", "": "from"}


def sentence_of(move: SaidMove, going_on: bool = False) -> str | None:
    """The move in our wording; None if nothing of it moves. `going_on`: it changes another."""
    for step in _STEPS:
        step(move)
    if "becomes" not in move.marks and not move.poses and not going_on:
        return None
    _time(move)
    parts = [*(_led(move) if move.poses or not going_on else []), *move.clauses]
    if going_on and not move.poses and move.unit:
        parts.insert(0, move.unit)
    if going_on and move.marks.get("among"):
        parts.append(f"of {move.marks['among']}")
    return ", ".join(part for part in parts if part) or None


def _led(move: SaidMove) -> list[str]:
    """Who goes where."""
    if not move.poses:
        return [move.unit] if move.unit else []
    unit = move.unit
    if among := move.marks.get("among"):
        unit = f"{(unit or 'letters').replace('words', 'each word')} of {among}"
    goes = move.lead == "away" and any(map(_PLACES.search, move.poses))
    return [f"{unit} {'go to' if goes else _VERBS[move.lead]} {', '.join(move.poses)}".strip()]


def _hard_cuts(move: SaidMove) -> None:
    """Letters that are there at once, as a typewriter has them; so many a second."""
    if not move.lead and move.marks.pop("maybe home", ""):
        move.lead = "home"
    cps = move.marks.pop("cps", None)
    if move.marks.get("hard") == "yes":
        move.length, move.ease = "1", "hold"
        move.unit = move.unit or "letters"
        move.gap = move.gap or ("" if cps else USUAL_GAP)
    if cps:
        move.gap = f"every {round(move.rate / (float(cps) or 1), 3):g}"


def _pace(move: SaidMove) -> None:
    """What is whipped is quick, and so is what is fast."""
    if "whip" in move.marks:
        move.length = move.length or move.assume("8")
        move.ease = move.ease or "quick landing"
    elif "fast" in move.marks:
        if not move.length and not move.ways:
            move.length = move.assume("10")
        move.ease = move.ease or "quick landing"


def _usual_values(move: SaidMove) -> None:
    """What is meant without a number: a blur, a stretch, tracking, a creep."""
    marks = move.marks
    if marks.get("usual") == "blur" and not move.has("blurred") and not move.names("blur"):
        move.poses.append("blurred by 12 px")
    if (side := marks.get("stretch")) and not move.names("scale_x", "scale_y"):
        move.poses.append(f"0 % of its {side}")
    if marks.get("off") == "drawn":
        move.poses.append("drawn from 100 % on")
    if "tracking" in marks:
        amount = marks.get("amount") or move.assume("300")
        move.lead = marks["tracking"]
        move.poses.append(f"spread by {amount.removesuffix(' ‰')} ‰")
    if "creep" in marks and not move.poses and not move.props:
        move.lead = "away"
        move.poses.append("110 % of its size")


def _colors(move: SaidMove) -> None:
    """From one colour to another."""
    if course := move.marks.pop("course", None):
        first, last = course.split(" ")
        move.lead = "stay"
        move.poses.append(f"coloured ({first} at 0, {last} at {move.length or 20})")
        move.length = ""


def _places(move: SaidMove) -> None:
    """Where it comes from, or goes to."""
    has_from = any(kind == "from" for kind, _, _ in move.ways)
    if has_from and not move.lead:
        move.lead = "home"
    for kind, direction, length in move.ways:
        side = _OF_WAY.get(direction, direction)
        if kind == "move" and not has_from:
            side = side if move.lead == "away" else _OPPOSITE[side]
            move.poses.append(f"{length or move.assume(USUAL_WAY)} {side}")
        elif kind == "to" and move.lead == "home" and not has_from:
            move.poses.append(_OFF[_OPPOSITE[side]])
        elif kind != "move":
            move.lead = "away" if kind == "to" else move.lead
            move.poses.append(f"{length} {side}" if length else _OFF[side])
    if "hop" in move.marks and not move.ways:
        move.poses.append("(0 above at 0, 20 above at 8, 0 above at 16)")
        move.lead = "stay"


def _turns(move: SaidMove) -> None:
    """Turns of all kinds, clockwise or not; the first of them that was told."""
    if any(name.startswith("rotation") for name, _ in move.props):
        return
    if move.has("turned", "tipped", "swung"):
        return
    told = next((kind for kind in _TURNS if kind in move.marks), None)
    if told and (pose := _TURNS[told](move)):
        move.poses.append(pose)
        move.lead = move.lead or "home"


def _angle(move: SaidMove, usual: float) -> float:
    return float((move.marks.get("angle") or f"{usual}°").rstrip("°"))


def _sign(move: SaidMove) -> int:
    """What comes home turns clockwise to it, what leaves clockwise from it, if nothing is said."""
    return (1 if move.lead == "away" else -1) * int(move.marks.get("clock", "1"))


def _spin(move: SaidMove) -> str:
    usual = abs(float(move.marks["spin"].rstrip("°").replace("−", "-")))
    return f"turned {_signed(_sign(move) * _angle(move, usual))}°"


def _roll(move: SaidMove) -> str:
    if move.names("x", "y"):
        return ""  # as credits do
    is_right = any(direction == "right" for _, direction, _ in move.ways)
    return f"turned {_signed(360 if is_right else -360)}°"


def _flip(move: SaidMove) -> str:
    axis = move.marks.get("axis") or move.marks["flip"]
    if axis == "tipped":
        return f"tipped {_signed(_angle(move, 90))}°"
    return f"{axis} {_signed(-_angle(move, 180))}°"


def _turn(move: SaidMove) -> str:
    axis = move.marks.get("axis") or "turned"
    return f"{axis} {_signed(_sign(move) * _angle(move, 90))}°"


def _swing(move: SaidMove) -> str:
    is_hung = move.marks.get("pivot") == "top"
    return f"{'turned' if is_hung else 'swung'} {_signed(_angle(move, 60))}°"


def _tip(move: SaidMove) -> str:
    return f"tipped {_signed(_angle(move, 90))}°"


_TURNS = {
    "spin": _spin, "roll": _roll, "flip": _flip, "turning": _turn, "swing": _swing,
    "tipping": _tip, "angle": _turn,
}  # fmt: skip


def _signed(number: float) -> str:
    return f"{number:g}".replace("-", "−")


def _properties(move: SaidMove) -> None:
    """Properties from one value to others."""
    for name, values in move.props:
        lead, pose = pose_of(name, values, move)
        if lead == "stay" or not move.lead:
            move.lead = lead or move.lead
        move.poses = [each for each in move.poses if not _is_of(each, name)]
        move.poses.append(pose)


def _is_of(pose: str, name: str) -> bool:
    words = PROPERTIES[name].words.replace("{}", "").strip()
    return bool(words) and words in pose and not pose.startswith("(")


_STEPS = (
    _hard_cuts, _pace, _usual_values, _colors, take_loudness, take_wave, take_shake, _places,
    _turns, _properties, take_chance,
)  # fmt: skip


def _time(move: SaidMove) -> None:
    """Stagger, length, ease, and the point that it turns about."""
    _stagger(move)
    if move.gap or move.order:
        move.clauses.append(f"{move.gap} {move.order}".strip())
    if move.length:
        move.clauses.append(f"over {move.length}")
    if move.ease:
        move.clauses.append(move.ease)
    if pivot := move.marks.get("pivot"):
        of = "the whole title" if move.unit == "the whole title" else "its own box"
        move.clauses.append(f"about a point {_PIVOTS[pivot]} {of}")


def _stagger(move: SaidMove) -> None:
    overlap = move.marks.get("overlap")
    if overlap and not move.gap:
        move.length = move.length or "20"
        share = 0.5 if overlap == "half" else _number(overlap) / 100
        move.gap = f"every {round(_number(move.length) * (1 - share), 3):g}"
    is_by_turns = "each" in move.marks or move.order
    if is_by_turns and not move.gap and move.unit != "the whole title":
        move.gap = move.assume(USUAL_GAP)
        move.unit = move.unit or "letters"


def _number(text: str) -> float:
    return float(re.sub(r"[^\d.]", "", text) or 50)
