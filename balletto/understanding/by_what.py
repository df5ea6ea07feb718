"""By what moves are driven, as people say it: waves, shakes, chance, the loudness of a sound."""

import re

from .moves import SaidMove
from .values import pose_of

_WAVE = "by a wave, {} × along the title {}"


def take_loudness(move: SaidMove) -> None:
    """What goes with the music."""
    if "loud" not in move.marks:
        return
    share = _share_of_size(move) or "120 %"
    move.poses, move.lead = [f"{share} of its size"], "stay"
    is_beat = move.marks["loud"] == "beat"
    move.clauses.append(
        "by the beat" if is_beat else "by the loudness of what is heard, in low tones"
    )


def _share_of_size(move: SaidMove) -> str:
    """How large it becomes, if that was told."""
    told = [values[-1] for name, values in move.props if name == "scale"]
    move.props = [each for each in move.props if each[0] != "scale"]
    return f"{told[-1]:g} %" if told else move.marks.get("share", "")


def take_wave(move: SaidMove) -> None:
    """Waves along the letters, of the title as a whole, of its size."""
    if not (kind := move.marks.get("wave")):
        return
    period = _period(move)
    is_looping = "loop" in move.marks or kind == "size"
    _WAVES[kind](move, [f"every {period}", *(["looping"] if is_looping else [])])
    move.ways = []
    move.gap = move.length = ""


def _length_told(move: SaidMove) -> str:
    return next((length for _, _, length in move.ways if length), "") or move.marks.get("far", "")


def _wave_along(move: SaidMove, pace: list[str]) -> None:
    move.unit = move.unit or "letters"
    move.poses, move.lead = [f"{_length_told(move) or '12 px'} above"], "stay"
    move.clauses += [_WAVE.format(1, move.order or "in reading order"), *pace]
    move.order = ""


def _alone_or_both(move: SaidMove) -> None:
    """What comes, goes or rises, and sways or shakes besides, is more than one move."""
    leads = move.lead in ("home", "away") and (move.poses or move.ways)
    if leads or any(not length for _, _, length in move.ways):
        move.marks["both"] = "yes"


def _wave_of_size(move: SaidMove, pace: list[str]) -> None:
    _alone_or_both(move)
    share = _share_of_size(move) or "105 %"
    is_once = "back" in move.marks and not {"loop", "rate"} & set(move.marks)
    move.lead = "stay"
    if is_once:
        move.poses = [f"(100 % at 0, {share} at 8, 100 % at 16) of its size"]
        return
    move.unit = move.unit or "the whole title"
    move.poses = [f"{share} of its size"]
    move.clauses += ["by a sine wave from 0 % to 100 %", *pace]


def _wave_of_place(move: SaidMove, pace: list[str]) -> None:
    _wave_whole(move, f"{_length_told(move) or '8 px'} above", pace)


def _wave_of_turn(move: SaidMove, pace: list[str]) -> None:
    far, angle = move.marks.get("far"), move.marks.get("angle", "3°")
    _wave_whole(move, f"{far} right" if far else f"turned {angle}", pace)


def _wave_whole(move: SaidMove, pose: str, pace: list[str]) -> None:
    _alone_or_both(move)
    move.unit = move.unit or "the whole title"
    move.poses, move.lead = [pose], "stay"
    move.clauses += [_WAVE.format(0, "in reading order"), *pace]


_WAVES = {
    "along": _wave_along, "size": _wave_of_size, "whole": _wave_of_place, "turn": _wave_of_turn,
}  # fmt: skip


def _period(move: SaidMove) -> str:
    """How long a wave takes."""
    if rate := move.marks.get("rate"):
        a_second = float(re.sub(r"[^0-9.]", "", rate) or 1)
        return f"{round(1 / (a_second or 1), 4):g} s"
    if move.gap.startswith("every "):
        return move.gap.removeprefix("every ")
    usual = {"whole": "3 s"}.get(move.marks["wave"], "4 s" if "slow" in move.marks else "1 s")
    return move.length or move.assume(usual)


def take_shake(move: SaidMove) -> None:
    """Shakes, glitches, flickers."""
    for kind, take in (("flicker", _flicker), ("glitch", _glitch), ("shake", _shake)):
        if kind in move.marks:
            move.marks.used.add("loop")  # it goes on as long as nothing ends it
            take(move)
            return


def _flicker(move: SaidMove) -> None:
    move.poses, move.lead = ["0 % opaque"], "home"
    move.clauses.append("by a shake 15 times a second")
    move.length, move.ease = move.length or move.assume("20"), "linear"


def _glitch(move: SaidMove) -> None:
    move.poses, move.lead = [f"{_length_told(move) or '12 px'} right"], "stay"
    move.ways = []
    move.clauses.append(f"by a shake every {move.marks.get('every', '2')} frames")


def _shake(move: SaidMove) -> None:
    marks, is_hard = move.marks, move.marks.get("hard") == "shake"
    _alone_or_both(move)
    angle = marks.pop("angle", "") or ("4°" if is_hard else "")
    along = [
        pose_of(name, values[:1], move)[1] for name, values in move.props if name in ("x", "y")
    ]
    clauses = [f"by a shake {_pace(move, is_hard)}", *(["smoothly"] if "smoothly" in marks else [])]
    marks.pop("each", "")
    if along:
        move.unit, move.poses = move.unit or "the whole title", along
    else:
        far = _length_told(move) or move.assume("12 px" if is_hard else "6 px")
        move.poses = [f"{far} right", f"{far} below", *([f"turned {angle}"] if angle else [])]
    move.lead = "stay"
    if "dying" in marks:  # it comes home
        dying, move.lead = marks["dying"], "home"
        move.length = dying if dying != "yes" else move.length or "20"
    elif end := marks.get("dead", "").removeprefix("yes") or move.length:
        clauses.append(f"(100 % at 0 with hold, 0 % at {end}) of the way")
        move.length = ""
    move.clauses = [*clauses, *move.clauses]
    move.ways, move.props, move.gap, move.order = [], [], "", ""


def _pace(move: SaidMove, is_hard: bool) -> str:
    """How often it is shaken."""
    marks = move.marks
    if rate := re.sub(r"[^0-9.]", "", marks.get("rate", "")):
        return f"{rate}/s"
    if move.gap.startswith("every "):
        pace, move.gap = move.gap, ""
        return pace
    return f"every {marks['every']}" if "every" in marks else f"{12 if is_hard else 9}/s"


def take_chance(move: SaidMove) -> None:
    """What is left to chance."""
    marks = move.marks
    far = marks.get("far", "").removesuffix(" px")
    if {"random", "gather"} & set(marks):
        number = far or marks.get("random") or "300"
        marks.used |= {"random", "gather", "chance"}
        move.poses = [p for p in move.poses if not re.search(r"(left|right|above|below)$", p)]
        move.poses[:0] = [f"{number} px right", f"{number} px below"]
        move.clauses.append(f"by chance{_alone(move) if 'random' in marks else ''}")
    elif marks.get("chance") == "height":
        _chance_of_height(move)
    elif move.poses or move.weak:
        _chance_of_all(move)
    elif "go" in marks and move.lead and "chance" in marks:  # which way is left to chance
        move.poses = [move.assume("300 px right"), move.assume("300 px below")]
        move.clauses.append("by chance")


def _chance_of_all(move: SaidMove) -> None:
    """What is "random": how far each goes, or, of what just comes to be seen, when."""
    if "chance" not in move.marks:
        return
    if all("opaque" in pose or "drawn" in pose for pose in move.poses or move.weak):
        move.order = move.order or "shuffled"
    else:
        move.clauses.append("by chance")


def _alone(move: SaidMove) -> str:
    """What is by chance where it fades as well: that all do alike."""
    if move.lead != "away" and not move.has("opaque"):
        return ""
    return f", for width, height{' and turn' if move.has('turned') else ''} alone".replace(
        "width, height alone", "width and height alone"
    )


def _chance_of_height(move: SaidMove) -> None:
    far = move.marks.get("far") or move.assume("250 px")
    if move.has("above", "below"):
        move.poses = [re.sub(r"^.* (above|below)$", rf"{far} \1", pose) for pose in move.poses]
    else:
        move.poses.insert(0, f"{far} above")
    move.clauses.append("by chance, one way only")
