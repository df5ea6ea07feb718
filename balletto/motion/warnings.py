"""Warnings: what will not come out as meant, found before anybody renders it.

A check is a function of a title as set in its scene; a new one is a line in CHECKS.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

import numpy as np

from ..lettering.faces import axes_of, features_of
from ..lettering.families import EMOJI, STAND_IN
from ..lettering.fitting import lines_allowed
from ..lettering.layout import Layout, lay_out
from ..lettering.own_fonts import families_of
from ..scene.document import Scene
from ..scene.layers import Layer
from ..scene.layers.title import Title
from ..scene.letters.features import feature_name
from ..scene.moving.moves import Move
from ..scene.pose import parts_of
from ..scene.values.tracks import Track
from .evaluate import does_something, turns_about_pivot
from .follow import settling
from .spaces.affine import corners_seen, resting_matrices
from .spaces.along import text_path
from .spaces.copy_places import COPIES
from .spaces.layer_motion import meaningless
from .stagger import delays_of
from .units import letter_moves, units_for

SAFE_MARGIN = 0.05  # of the picture, on every side: what text keeps clear of by custom
_LOOKS = 13  # times over its span at which a title is looked at
_SETTLED = 0.02  # of its swing: how near what follows counts as landed
_UNIT_NAMES = {"character": "letter", "word": "word", "line": "line", "title": "title"}


@dataclass(frozen=True)
class SceneWarning:
    """What is wrong, and the path of what it is about: "t1", "t1.moves.m1", "t1.style"."""

    path: str
    text: str


@dataclass(frozen=True)
class _Case:
    scene: Scene
    title: Title
    layout: Layout


def warnings_of(scene: Scene, title: Title) -> list[SceneWarning]:
    """All warnings about a title, in the order of CHECKS."""
    case = _Case(scene, title, lay_out(scene, title))
    return [warning for check in CHECKS for warning in check(case)]


def layer_warnings_of(layer: Layer) -> list[SceneWarning]:
    """What the moves of a layer that is no title say for nothing."""
    warnings = []
    for move, names in meaningless(layer):
        said = " and ".join(names)
        told = f"For letters alone: {said} of “{move.name or 'Move'}” does nothing here."
        if move.pose.off:
            told += " Say how far it goes, as “1200 px left”."
        warnings.append(SceneWarning(f"{layer.id}.moves.{move.id}", told))
    for move in getattr(layer, "moves", ()) if layer.formation is None else ():
        if move.unit in COPIES:
            told = f"“{move.name or 'Move'}” moves copies, of which there are none: say how many."
            warnings.append(SceneWarning(f"{layer.id}.moves.{move.id}", told))
    return warnings


def words_warnings_of(scene: Scene, title: Title) -> list[SceneWarning]:
    """Those of them about its words, which are told wherever it is listed."""
    case = _Case(scene, title, lay_out(scene, title))
    return [*_stand_ins(case), *_missing_glyphs(case)]


def _stand_ins(case: _Case) -> Iterator[SceneWarning]:
    """Fonts that are not here, and weights that a font does not have."""
    families, told = families_of(case.scene), set()
    named = [case.title.style.font, *(run.style.font for run in case.title.runs)]
    for name in dict.fromkeys(named):
        if name is not None and name not in families:
            text = f"The font “{name}” is not here: set in {STAND_IN} instead. Its name is kept."
            yield SceneWarning(case.title.id, text)
    for character in case.layout.characters:
        face = character.setting.face
        wanted = dict(face.axes).get("wght")
        if face.weight is not None and wanted is not None and round(wanted) != face.weight:
            told.add(f"{face.family} has no weight {wanted:g}: {face.weight:g} stands in.")
    for text in sorted(told):
        yield SceneWarning(f"{case.title.id}.style", text)


def _missing_glyphs(case: _Case) -> Iterator[SceneWarning]:
    """Characters that the chosen font does not have."""
    found: dict[tuple[str, str | None], list[str]] = {}
    for character in case.layout.characters:
        wanted = character.setting.face.family
        if character.family not in (wanted, EMOJI):  # emoji are as they are meant to be seen
            letters = found.setdefault((wanted, character.family), [])
            letters += [character.text] if character.text not in letters else []
    for (wanted, family), letters in found.items():
        shown = "".join(letters[:12]) + ("…" if len(letters) > 12 else "")
        if family is None:
            text = f"No font here has “{shown}”. Without a glyph a box stands for it: write it "
            text += "another way."
        else:
            text = f"{wanted} has no “{shown}”: set in {family} instead."
        yield SceneWarning(case.title.id, text)


def _outside_safe_margins(case: _Case) -> Iterator[SceneWarning]:
    """Text at rest that stands nearer to an edge of the picture than is safe, wherever its way
    leads: what comes from outside, or goes there, is meant to."""
    if not case.layout.characters:
        return
    first, end = case.title.span
    times = np.linspace(first, max(first, min(end, case.scene.length) - 1), _LOOKS)
    matrices = resting_matrices(case.scene, case.title, times)
    path = text_path(case.scene, case.title, case.layout)
    # Along a path each letter is looked at: the box around them all holds more than they do.
    ink = case.layout.ink
    boxes = [
        np.array([_box_of(ink)]) if path is None else path.boxes(time, ink)
        for time in times.tolist()
    ]
    each = [len(box) for box in boxes]
    seen, depth = corners_seen(np.repeat(matrices, each, axis=0), np.concatenate(boxes))
    if (depth <= 1e-6).any():
        return
    seen = seen.reshape(len(times), -1, 2)
    size = np.array(case.scene.size)
    margin = size * SAFE_MARGIN
    low, high = margin - seen.min(axis=1), seen.max(axis=1) - (size - margin)
    over = np.maximum(np.concatenate([low, high], axis=1), 0.0)  # left, top, right, bottom
    best = over[over.sum(axis=1).argmin()]
    sides = dict(zip(("left", "top", "right", "bottom"), best.tolist(), strict=True))
    told = [f"{px:.0f} px at the {side}" for side, px in sides.items() if px > 0.5]
    if told:
        text = f"At rest the text passes the safe margins by {' and '.join(told)}."
        yield SceneWarning(f"{case.title.id}.transform", text)


def _early(case: _Case) -> Iterator[SceneWarning]:
    """Units that begin before their layer is there, since a gap is negative or a time is."""
    first = case.title.span[0]
    for move in _working(case.title):
        amount = move.amount
        if not isinstance(amount, Track) or len(amount.keys) < 2 or move.stagger is None:
            continue
        units = units_for(case.scene, case.title, case.layout, move)
        begins = move.start + delays_of(move.stagger, units) + amount.keys[0].at
        early = int((begins < first - 1e-6).sum())
        if early and move.start + amount.keys[0].at >= first - 1e-6:
            told = _counted(early, len(units), _UNIT_NAMES[move.unit], "begins", "begin")
            text = f"{told} before the layer does: the first at frame {float(begins.min()):.4g}, "
            text += f"the layer at {first:g}. A later start or a gap above 0 helps."
            yield SceneWarning(_path(case, move), text)


def _box_of(ink: np.ndarray) -> tuple[float, float, float, float]:
    left, top, right, bottom = ink.T
    return left.min(), top.min(), right.max(), bottom.max()


def _unlanded(case: _Case) -> Iterator[SceneWarning]:
    """Units that are still on their way when the layer ends."""
    for move in _working(case.title):
        amount = move.amount
        if not isinstance(amount, Track) or len(amount.keys) < 2 or amount.after != "hold":
            continue
        units = units_for(case.scene, case.title, case.layout, move)
        last_key = amount.keys[-1].at
        if move.follow is not None:
            last_key += settling(move.follow, case.scene.frames_a_second, _SETTLED)
        ends = move.start + delays_of(move.stagger, units) + last_key
        end = min(case.title.span[1], case.scene.length)
        late = int((ends > end + 1e-6).sum())
        if late and move.start < case.title.span[1]:
            told = _counted(late, len(units), _UNIT_NAMES[move.unit], "is", "are")
            text = f"{told} still moving when the layer ends at frame {end:g}: the last comes to "
            text += f"rest at frame {float(ends.max()):.4g}. A smaller gap, a shorter course or a "
            text += "longer layer helps."
            yield SceneWarning(_path(case, move), text)


def _counted(some: int, count: int, unit: str, one: str, many: str) -> str:
    """So many of the units, with the verb as it is for one and for many."""
    if some == count:
        return f"All {unit}s {many}" if count > 1 else f"The {unit} {one}"
    return f"{some} of {count} {unit}s {many if some > 1 else one}"


def _without_effect(case: _Case) -> Iterator[SceneWarning]:
    """Moves, or values of them, that change nothing."""
    for move in letter_moves(case.title):
        path = _path(case, move)
        if not move.on:
            continue
        if not does_something(move):
            yield SceneWarning(path, "It has no away values, so nothing moves: add one.")
        elif move.start >= case.title.span[1]:
            text = f"It starts at frame {move.start:g}, when the layer has gone."
            yield SceneWarning(path, text)
        elif move.amount == 0:
            yield SceneWarning(path, "Its amount is 0 throughout, so nothing moves.")
        else:
            yield from (SceneWarning(path, text) for text in _idle_values(case, move))


def _idle_values(case: _Case, move: Move) -> Iterator[str]:
    """What is said of a move and does nothing."""
    settings = [character.setting for character in case.layout.characters]
    pose, count = move.pose.given, case.layout.count(move.unit)
    if move.stagger is not None and count == 1 and move.unit != "title":
        yield f"There is only one {_UNIT_NAMES[move.unit]}, so the stagger does nothing."
    if move.spaces and move.unit != "character":
        yield f"White space takes part among letters only, not among {_UNIT_NAMES[move.unit]}s."
    turns = any(turns_about_pivot(part) for name in pose for part in parts_of(name))
    if "pivot" in move.model_fields_set and not turns:
        yield "Nothing turns or grows, so the pivot does nothing."
    lines = any(setting.outline for setting in settings)
    lines = lines or any("outline" in other.pose.given for other in _working(case.title))
    if "outline_color" in pose and settings and not lines:
        yield "The letters have no outline, so its colour does nothing."
    if "fill" in pose and settings and all(setting.fill == "none" for setting in settings):
        yield "The letters are not filled, so the colour of the fill does nothing."
    families = {setting.face.family for setting in settings}
    # Between the files of a family, one for each weight, nothing moves.
    moving = {tag for setting in settings for tag in setting.face.moving}
    for name in pose:
        tag = name.removeprefix("axes.")
        if name != tag and families and tag not in moving:
            yield f"{' and '.join(sorted(families))} has no axis “{tag}”, so it does nothing."


def _longer_than_its_path(case: _Case) -> Iterator[SceneWarning]:
    """Lines that meet themselves again, where they go round a closed path."""
    path = text_path(case.scene, case.title, case.layout)
    if path is None or not len(case.layout.boxes["line"]):
        return
    way, lines = path.at(float(case.title.span[0])), case.layout.boxes["line"]
    over = float((lines[:, 2] - lines[:, 0]).max()) - way.length
    if way.is_closed and over > 0.5:
        text = f"The text is {over:.0f} px longer than its path: its end lies over its start."
        yield SceneWarning(f"{case.title.id}.transform", text)


def _does_not_fit(case: _Case) -> Iterator[SceneWarning]:
    """Words that are too many for the rules by which they are set."""
    style, lines = case.title.style, case.layout.count("line")
    if style.widest is None or lines <= lines_allowed(case.title):
        return
    size = case.layout.characters[0].setting.size
    text = f"It takes {lines} lines at {size:g} px, its least size, to be no wider than "
    yield SceneWarning(f"{case.title.id}.style", f"{text}{style.widest:g} px.")


def _idle_style(case: _Case) -> Iterator[SceneWarning]:
    """What is said of the style and does nothing."""
    style, path = case.title.style, f"{case.title.id}.style"
    family = families_of(case.scene).get(style.font)
    if family is not None:
        idle = style.axes.keys() - {axis.tag for axis in axes_of(family)}
        asked = {tag for tag, is_on in style.features.items() if is_on}
        told = [f"has no axis “{tag}”, so it does nothing." for tag in sorted(idle)]
        told += [
            f"has no {feature_name(tag)}, so that does nothing."
            for tag in sorted(asked - features_of(family))
        ]
        yield from (SceneWarning(path, f"{style.font} {text}") for text in told)
    settings = [character.setting for character in case.layout.characters]
    outlined = any("outline" in move.pose.given for move in _working(case.title))
    if any(s.fill == "none" and not s.outline for s in settings) and not outlined:
        text = "Letters with neither fill nor outline cannot be seen."
        yield SceneWarning(path, text)


def _working(title: Title) -> list[Move]:
    return [move for move in letter_moves(title) if does_something(move)]


def _path(case: _Case, move: Move) -> str:
    return f"{case.title.id}.moves.{move.id}"


CHECKS: list[Callable[[_Case], Iterator[SceneWarning]]] = [
    _stand_ins,
    _does_not_fit,
    _longer_than_its_path,
    _missing_glyphs,
    _outside_safe_margins,
    _unlanded,
    _early,
    _without_effect,
    _idle_style,
]
