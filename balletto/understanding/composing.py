"""A move as people told it, put together to a sentence of ours."""

import re

from .by_what import take_chance, take_loudness, take_shake, take_wave
from .moves import SaidMove
from .values import PROPERTIES, frames, pose_of

USUAL_GAP, USUAL_WAY = "every 2", "100 px"  # of what is said without a number
SLIGHT_WAY, _SLIGHT_TURN = "20 px", 10
_OPPOSITE = {"left": "right", "right": "left", "above": "below", "below": "above"}
_OF_WAY = {"up": "above", "down": "below"}
_OFF = {
    "left": "off the left", "right": "off the right", "above": "off the top",
    "below": "off the bottom",
}  # fmt: skip
_USUAL_SIDES = {"home": "off the left", "away": "off the right"}
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
    if _contradicts(move):
        return None
    goes_as_it_came = _goes_as_it_came(move)
    for step in _STEPS:
        step(move)
    move.poses = list(dict.fromkeys(move.poses or move.weak))
    if not move.poses and not going_on:
        _usual_pose(move)
    if goes_as_it_came:
        _in_and_out(move)
    if "becomes" not in move.marks and not move.poses and not going_on:
        return None
    _time(move, going_on)
    parts = [*(_led(move) if move.poses or not going_on else []), *move.clauses]
    if going_on and not move.poses and move.unit:
        parts.insert(0, move.unit)
    if going_on and move.marks.get("among"):
        parts.append(f"of {move.marks['among']}")
    if any(_AGAIN in pose for pose in move.poses):
        move.marks.used.add("loop")
    if move.marks.unused - _SILENT or sum(pose.startswith("off the ") for pose in move.poses) > 1:
        return None
    return ", ".join(part for part in parts if part) or None


def _contradicts(move: SaidMove) -> bool:
    """Whether it starts at two times, comes from two sides that face each other, or comes from one
    and goes: of two values none is lost without a word."""
    starts = {clause for clause in move.clauses if _START.fullmatch(clause)}
    sides = {(kind, direction) for kind, direction, _ in move.ways}
    comes_and_goes = move.lead == "away" and any(
        kind == "from" and not length for kind, _, length in move.ways
    )
    return (
        comes_and_goes
        or len(starts) > 1
        or any((kind, _OPPOSITE.get(direction, "")) in sides for kind, direction in sides)
    )


_START = re.compile(r"from .* on")


# What may be said without that anything is made of it.
_SILENT = frozenset((
    "go", "note", "slow", "fast", "hard", "clock", "each", "smoothly", "maybe home", "timed",
    "maybe away", "slight", "rest", "becomes", "whip", "came over",
))  # fmt: skip


def _led(move: SaidMove) -> list[str]:
    """Who goes where."""
    if not move.poses:
        return [move.unit] if move.unit else []
    unit = move.unit
    if among := move.marks.get("among"):
        is_range = among.startswith("letters")
        unit = unit or ("letters" if is_range else "words")
        unit = f"{unit.replace('words', 'each word')} of {among}"
    goes = move.lead == "away" and any(map(_PLACES.search, move.poses))
    return [f"{unit} {'go to' if goes else _VERBS[move.lead]} {', '.join(move.poses)}".strip()]


def _goes_as_it_came(move: SaidMove) -> bool:
    """Whether what pauses goes as it came, or does not say how it goes."""
    poses, ways, props = move.came
    goes = (*move.poses[poses:], *move.ways[ways:], *move.props[props:])
    came = (*move.poses[:poses], *move.ways[:ways], *move.props[:props])
    otherwise = (set(move.marks) - move.came_by) & _WAYS_TO_GO
    return all(each in came for each in goes) and not otherwise


# Marks by which something goes otherwise than it came.
_WAYS_TO_GO = frozenset((
    "spin", "roll", "flip", "turning", "swing", "tipping", "random", "chance", "stretch",
    "tracking", "usual", "off", "wipe", "highlight",
))  # fmt: skip


def _in_and_out(move: SaidMove) -> None:
    """What comes, pauses and goes as it came, as one course."""
    if "held" not in move.marks or "both" not in move.marks or not move.poses or move.gap:
        return
    kind, _, pause = move.marks.pop("held").partition(" ")
    move.marks.pop("both")
    come = frames(move.marks["came over"], move.rate)
    go = come + frames(pause, move.rate) if kind == "for" else frames(pause, move.rate)
    until = move.marks.get("gone")
    gone = frames(until, move.rate) if until else go + (frames(move.length, move.rate) or come)
    ease = f" {move.ease}" if move.ease else ""
    move.length = move.ease = ""
    if move.poses == ["0 % opaque"] and not ease:
        move.lead = "stay"
        move.poses = [f"(0 % at 0, 100 % at {come:g}, 100 % at {go:g}, 0 % at {gone:g}) opaque"]
    else:
        move.lead = "away"
        comes, goes = f"100 % at 0{ease}, 0 % at {come:g}", f"0 % at {go:g}{ease}"
        move.clauses.append(f"({comes}, {goes}, 100 % at {gone:g}) of the way")


def _there_and_back(move: SaidMove) -> None:
    """A way to somewhere and back, once: from home, to home."""
    if "back" not in move.marks or {"wave", "shake", "hop"} & set(move.marks):
        return
    if len(move.props) == 1 and len(move.props[0][1]) == 1:
        name, (value,) = move.props[0]
        move.props = [(name, [PROPERTIES[name].rest, value, PROPERTIES[name].rest])]
    elif len(move.ways) == 1 and move.ways[0][2]:
        _, direction, length = move.ways.pop()
        far = frames(length.removesuffix(" px"), 1)
        name = "y" if direction in ("up", "down", "above", "below") else "x"
        sign = -1 if direction in ("up", "above", "left") else 1
        move.props.append((name, [0, sign * far, 0]))
    else:
        move.marks.used.discard("back")


def _writing(move: SaidMove) -> None:
    """What a hand writes: in all as long as is said, one letter after another."""
    if "writing" in move.marks and move.length and not move.gap and not move.order:
        total = frames(move.length, move.rate)
        move.gap, move.length = f"within {total * 2 / 3:g}", f"{total / 3:g}"


def _swept(move: SaidMove) -> None:
    """What a sweep uncovers, and a light that travels through the letters."""
    if "wipe" in move.marks:
        order = move.order or "from left to right"
        end, soft = _said_length(move, 30), move.marks.get("edge", "0 %").removesuffix(" %")
        course = f"(0 % at 0, {100 + float(soft):g} % at {end})"
        band, side = (f"{course} to {100 + float(soft):g} %", "behind")
        if move.lead == "away":  # what begins with nothing of it away, and ends with all
            band, side = f"−{soft} % to (−{soft} % at 0, 100 % at {end})", "in front"
        move.poses, move.unit = move.poses or ["0 % opaque"], move.unit or "letters"
        softly = f", soft {soft} % {side}" if float(soft) else ""
        move.clauses.append(f"by a sweep from {band}, {order}{softly}")
    elif color := move.marks.get("highlight"):
        move.marks.used.add("feathered")  # as it is anyhow
        move.poses, move.unit = [f"coloured {color}"], "letters"
        end = _said_length(move, 60)
        move.clauses.append(
            f"by a sweep from 0 % to 20 %, travelling (−40 % at 0, 120 % at {end}), "
            "soft 15 % behind and 15 % in front"
        )
    else:
        return
    move.lead, move.order = "stay", ""


def _wiped(move: SaidMove) -> None:
    """The side that a wipe comes from is no place that letters come from; what is uncovered is
    letters, also of a line, or of the whole title."""
    if "wipe" not in move.marks:
        return
    move.marks.pop("each", "")
    sides = [direction for kind, direction, length in move.ways if not length]
    move.ways = [way for way in move.ways if way[2]]
    if sides:
        move.order = move.order or _WIPES[sides[0]]
    if move.unit == "lines":
        move.order, move.gap = move.order or "in reading order", ""
    move.unit = "letters" if move.unit in ("lines", "the whole title") else move.unit


_WIPES = {
    "left": "from left to right", "right": "from right to left", "above": "from top to bottom",
    "below": "from bottom to top", "down": "from top to bottom", "up": "from bottom to top",
}  # fmt: skip


def _said_length(move: SaidMove, usual: int) -> str:
    """How long it takes, which is said within its course."""
    length, move.length = move.length or move.assume(str(usual)), ""
    return length


def _likely_lead(move: SaidMove) -> None:
    """Where it leads as a rule, if that was not said."""
    for lead in ("home", "away"):
        if not move.lead and move.marks.pop(f"maybe {lead}", ""):
            move.lead = lead


def _hard_cuts(move: SaidMove) -> None:
    """Letters that are there at once, as a typewriter has them; so many a second."""
    cps = move.marks.pop("cps", None)
    if move.marks.get("hard") == "yes":
        move.length, move.ease = "1", "hold"
        move.unit = move.unit or "letters"
        move.gap = move.gap or ("" if cps else USUAL_GAP)
    if cps:
        move.gap = f"every {round(move.rate / (float(cps) or 1), 3):g}"


def _pace(move: SaidMove) -> None:
    """What is whipped is quick, so is what is fast, and lands quickly if it comes; what is slow
    takes twice the usual time."""
    if not {"whip", "fast"} & set(move.marks):
        is_round = {"wave", "shake", "creep"} & set(move.marks)
        if "slow" in move.marks and not move.length and not is_round:
            move.length = move.assume("40")
        return
    if not move.length and ("whip" in move.marks or not move.ways):
        move.length = move.assume("8" if "whip" in move.marks else "10")
    if move.lead != "away":
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
    if not {"wave", "loud"} & set(marks) and (share := marks.get("share")):
        if move.lead == "home":
            marks["both"] = "yes"  # it comes, and grows
        move.lead = move.lead or "away"
        move.poses.append(f"{share} of its size")
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
    if move.names("x", "y") and not any(length for _, _, length in move.ways):
        return
    for kind, direction, length in move.ways:
        side = _OF_WAY.get(direction, direction)
        if kind == "move" and not has_from:
            side = side if move.lead == "away" else _OPPOSITE[side]
            usual = SLIGHT_WAY if "slight" in move.marks else USUAL_WAY
            move.poses.append(f"{length or move.assume(usual)} {side}")
        elif kind == "to" and move.lead == "home" and not has_from:
            move.poses.append(_OFF[_OPPOSITE[side]])
        elif kind != "move":
            move.lead = "away" if kind == "to" else move.lead
            move.poses.append(f"{length} {side}" if length else _OFF[side])
    if "hop" in move.marks and not move.ways:
        move.poses.append("(0 above at 0, 20 above at 8, 0 above at 16)")
        move.lead = "stay"


_LIVELY = ("bounce", "spring", "overshoot")


def _usual_pose(move: SaidMove) -> None:
    """What something does that flies in or out and no side is told, that bounces, or that comes or
    goes and nothing else is told of it but its time."""
    is_lively = move.ease.startswith(_LIVELY)
    if "go" in move.marks and move.lead in _USUAL_SIDES:
        move.poses = [move.assume(_USUAL_SIDES[move.lead])]
    elif is_lively and move.lead in ("", "home"):
        move.poses, move.lead = [move.assume("0 % of its size")], "home"
    elif move.lead in _USUAL_SIDES and "becomes" not in move.marks:
        move.poses = [move.assume("0 % opaque")]


def _turns(move: SaidMove) -> None:
    """Turns of all kinds, clockwise or not; the first of them that was told."""
    is_told = any(name.startswith("rotation") for name, _ in move.props)
    if is_told or move.has("turned", "tipped", "swung"):
        move.marks.used |= {*_TURNS, "axis", "clock"}
        return
    told = next((kind for kind in _TURNS if kind in move.marks), None)
    move.marks.used |= {*_TURNS, "axis", "clock"}
    if told and (pose := _TURNS[told](move)):
        move.poses.append(pose)
        move.lead = move.lead or "home"


def _angle(move: SaidMove, usual: float) -> float:
    usual = min(usual, _SLIGHT_TURN) if "slight" in move.marks else usual
    return float((move.marks.get("angle") or f"{usual}°").rstrip("°"))


def _sign(move: SaidMove) -> int:
    """What comes home turns clockwise to it, what leaves clockwise from it, if nothing is said."""
    is_by_chance = bool({"random", "chance", "gather"} & set(move.marks))
    way_round = int(move.marks.get("clock", "1"))
    return way_round if move.lead == "away" or is_by_chance else -way_round


def _spin(move: SaidMove) -> str:
    if "loop" in move.marks:
        return _endless_spin(move)
    usual = abs(float(move.marks["spin"].rstrip("°").replace("−", "-")))
    axis = move.marks.get("axis") or "turned"
    return f"{axis} {_signed(_sign(move) * _angle(move, usual))}°"


def _endless_spin(move: SaidMove) -> str:
    """Round and round, at an even pace."""
    axis, sign = move.marks.get("axis") or "turned", int(move.marks.get("clock", "1"))
    end, move.length, move.lead = move.length or move.assume("2 s"), "", "stay"
    return f"{axis} (0° at 0, {_signed(sign * 360)}° at {end}, {_AGAIN})"


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
    axis = "turned" if "clock" in move.marks else "tipped"
    sign = _sign(move) if axis == "turned" else 1
    return f"{axis} {_signed(sign * _angle(move, 90))}°"


_TURNS = {
    "spin": _spin, "roll": _roll, "flip": _flip, "turning": _turn, "swing": _swing,
    "tipping": _tip, "angle": _turn,
}  # fmt: skip


def _signed(number: float) -> str:
    return f"{number:g}".replace("-", "−")


_OF_AXIS = {"tipped": "rotation_x", "swung": "rotation_y"}


def _turned_as_said(move: SaidMove) -> None:
    """Turns that are told by values, about the axis and the way round that were told."""
    axis, clock = move.marks.get("axis"), move.marks.get("clock")
    for at, (name, values) in enumerate(move.props):
        if name == "rotation" and axis in _OF_AXIS:
            move.props[at] = (_OF_AXIS[axis], values)
        elif name == "rotation" and clock and not isinstance(values[0], tuple):
            move.props[at] = (name, [abs(value) * int(clock) for value in values])


def _properties(move: SaidMove) -> None:
    """Properties from one value to others."""
    for name, values in move.props:
        lead, pose = pose_of(name, values, move)
        if lead == "stay" and pose.endswith(")") and "loop" in move.marks:
            pose = f"{pose[:-1]}, {_AGAIN})"
        elif lead == "stay" and ") " in pose and "loop" in move.marks:
            pose = pose.replace(") ", f", {_AGAIN}) ", 1)
        move.poses = [each for each in move.poses if not _is_of(each, name)]
        if lead == "stay" or not move.lead or (lead and not move.poses and not move.ways):
            move.lead = lead or move.lead
        elif lead and lead != move.lead and move.lead != "stay":
            move.marks["both"] = "yes"
        move.poses.append(pose)


def _slightly(move: SaidMove) -> None:
    """What grows or shrinks a little is nearly as large."""
    if "0 % of its size" in move.poses and "slight" in move.marks:
        at = move.poses.index("0 % of its size")
        move.poses[at] = move.assume("90 % of its size")


def _smoothed(move: SaidMove) -> None:
    """Values at times that are gone through smoothly."""
    is_keyed = move.lead == "stay" and any(" at " in pose for pose in move.poses)
    if is_keyed and not move.ease and move.marks.get("smoothly"):
        move.ease = "soft both"


def _is_of(pose: str, name: str) -> bool:
    words = PROPERTIES[name].words.replace("{}", "").strip()
    return bool(words) and words in pose and not pose.startswith("(")


_AGAIN = "after them the keys come again"
_STEPS = (
    _likely_lead, _wiped, _hard_cuts, _writing, _pace, _usual_values, _colors, _there_and_back,
    take_loudness, take_wave, take_shake, _places, _turned_as_said, _turns, _properties,
    _slightly, _smoothed, take_chance, _swept,
)  # fmt: skip


def _time(move: SaidMove, going_on: bool) -> None:
    """Stagger, length, ease, and the point that it turns about."""
    _stagger(move, going_on)
    if "within" in move.marks or "outer" in move.marks:
        units, outer = move.marks.get("within", "lines"), move.marks.get("outer", "10")
        inner = f"{move.gap or USUAL_GAP} {move.order}".strip()
        move.clauses.append(f"{units} in turn every {outer} and in each {inner}")
    elif move.gap or move.order:
        move.clauses.append(f"{move.gap} {move.order}".strip())
    if there := move.marks.get("there"):
        move.clauses = [
            f"{c}, there {there}" if c.startswith("become ") else c for c in move.clauses
        ]
    if move.length:
        move.clauses.append(f"over {move.length}")
    if move.ease:
        move.clauses.append(move.ease)
    if pivot := move.marks.get("pivot"):
        move.clauses.append(f"about a point {_PIVOTS[pivot]} its own box")


def _stagger(move: SaidMove, going_on: bool) -> None:
    overlap = move.marks.get("overlap")
    if overlap and not move.gap:
        move.length = move.length or "20"
        share = 0.5 if overlap == "half" else _number(overlap) / 100
        move.gap = f"every {round(_number(move.length) * (1 - share), 3):g}"
    is_by_turns = "each" in move.marks or (bool(move.order) and not going_on)
    if is_by_turns and not move.gap and move.unit != "the whole title":
        move.gap = move.assume(USUAL_GAP)
        move.unit = move.unit or "letters"


def _number(text: str) -> float:
    return float(re.sub(r"[^\d.]", "", text) or 50)
