"""What the workbench shows of a scene: put together once for each answer."""

import json
from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property
from typing import Any

import numpy as np
from django.http import HttpRequest
from django.utils.html import format_html_join
from django.utils.safestring import SafeString

from balletto.clip.sound import has_sound
from balletto.lettering.families import FAMILIES
from balletto.lettering.units import is_blank
from balletto.motion.courses import keyed_values
from balletto.motion.warnings import SceneWarning, warnings_of
from balletto.picture.media import SOUNDS, STILLS, VIDEOS
from balletto.scene.characters import characters_of
from balletto.scene.document import Scene as SceneDocument
from balletto.scene.layers import Layer, ShapeLayer, Title
from balletto.scene.moves import Move
from balletto.scene.presets import presets
from balletto.scene.shapes import SHAPE_KINDS
from balletto.scene.tracks import Track, value_at
from web.library.models import MediaFile
from web.library.store import opened
from web.projects import history
from web.projects.models import Revision, Scene
from web.projects.nesting import offered
from web.projects.takes import ShownTake, shown_takes

from .chips import Chip, choice_chip
from .dress_sentences import KIND_NAMES, DressCard, dress_cards, dress_to_add
from .ease_chips import ease_chips
from .media_sentences import (
    media_actions,
    media_more,
    media_sentences,
    missing_words,
    source_link,
)
from .move_sentences import MoveSentence
from .scene_sentences import SceneWords
from .shape_sentences import shape_actions, shape_more, shape_sentences
from .ties import tie_targets
from .title_sentences import TypeSentence, place_actions, place_more, place_sentence, way_actions

RATES = [
    ("24000/1001", "23.976"), ("24", "24"), ("25", "25"), ("30000/1001", "29.97"), ("30", "30"),
    ("50", "50"), ("60000/1001", "59.94"), ("60", "60"),
]  # fmt: skip
_LABEL_STEPS = (1, 2, 5, 10, 20, 25, 50, 100, 200, 250, 500, 1000, 2000, 5000, 10_000, 50_000)
_MOST_LABELS = 14
_MOST_FILES = 24  # offered to be added


@dataclass(frozen=True)
class Selection:
    """What a person has selected, as the page says it with each request."""

    layer: str = ""
    move: str = ""
    letters: tuple[int, int] | None = None
    frame: int = 0

    @classmethod
    def of(cls, data: Any) -> "Selection":
        """The selection in a request's GET or POST values; what is not usable is left out."""

        def whole(name: str) -> int | None:
            text = data.get(name, "")
            return int(text) if text.isdigit() and len(text) < 10 else None

        first, end = whole("first"), whole("end")
        letters = (first, end) if first is not None and end is not None and first < end else None
        return cls(data.get("layer", ""), data.get("move", ""), letters, whole("frame") or 0)


class Bench:
    """A scene at a revision with a selection, for the templates."""

    def __init__(
        self, request: HttpRequest, scene: Scene, revision: Revision, selection: Selection
    ):
        self.scene = scene
        self.revision = revision
        self.document: SceneDocument = opened(revision.document, scene.project.owner_id)
        self.selection = selection

    @cached_property
    def layers(self) -> list["LayerBlock"]:
        """All layers, the top one first."""
        count = len(self.document.layers)
        return [
            LayerBlock(self, layer, count - index)
            for index, layer in reversed(list(enumerate(self.document.layers)))
        ]

    @cached_property
    def selected(self) -> "LayerBlock | None":
        """The selected layer, or the top one."""
        chosen = [block for block in self.layers if block.layer.id == self.selection.layer]
        return (chosen or self.layers or [None])[0]

    @cached_property
    def moves(self) -> list["MoveCard"]:
        """The moves of the selected layer."""
        if self.selected is None:
            return []
        moves = self.selected.moves
        chosen = next((m.id for m in moves if m.id == self.selection.move), None)
        chosen = chosen or (moves[0].id if moves else None)
        return [MoveCard(self, self.selected, move, move.id == chosen) for move in moves]

    @property
    def move(self) -> "MoveCard | None":
        return next((card for card in self.moves if card.is_current), None)

    @property
    def key_frames(self) -> list[int]:
        """The whole frames of the scene nearest to the keyframes of the selected title."""
        if self.selected is None:
            return []
        frames = set(self.selected.key_frames)
        for move in self.selected.moves:
            # Of what counts in local time, the keys of the first unit.
            local = _key_times([move.amount, *move.pose.given.values()])
            frames |= {move.start + at for at in local}
            frames |= _key_times([value for selector in move.reach for _, value in selector])
        last = self.document.length - 1
        return sorted({round(frame) for frame in frames if 0 <= frame <= last})

    # The views of time, in the order of their tabs.
    time_views = ("cascade", "keyframes", "curves")

    # How several layers are aligned, and what the buttons for it say.
    sides = (
        ("left", "left"), ("middle-across", "middle"), ("right", "right"), ("top", "top"),
        ("middle-down", "half-way"), ("bottom", "bottom"),
        ("spread-across", "even across"), ("spread-down", "even down"),
    )  # fmt: skip

    # What a shape can start as.
    shape_kinds = tuple(kind for kind in SHAPE_KINDS if kind != "path")

    # What the browser offers to be chosen as a file.
    accepted = ",".join((*STILLS, *VIDEOS, *SOUNDS))

    @cached_property
    def takes(self) -> list[ShownTake]:
        return shown_takes(self.scene, self.revision)

    @property
    def eases(self) -> list[dict[str, str]]:
        """The eases that the curves view offers, with their drawings."""
        return ease_chips()

    @property
    def layer_ids(self) -> str:
        """The ids of all layers as JSON, the front one first."""
        return json.dumps([block.layer.id for block in self.layers])

    @property
    def markers(self) -> str:
        """The markers as JSON."""
        return json.dumps([{"at": mark.at, "name": mark.name} for mark in self.document.markers])

    @cached_property
    def tie_targets(self) -> list[tuple[str, str]]:
        """All values that another could follow, with how they are called."""
        return tie_targets(self.document)

    @cached_property
    def steps(self) -> tuple[str | None, str | None]:
        """What undo and redo would do."""
        return history.steps(self.scene, self.revision)

    @property
    def preset_groups(self) -> list[tuple[str, list[dict[str, Any]]]]:
        """The presets by group, in the order of the gallery."""
        groups: dict[str, list[dict[str, Any]]] = {}
        for preset in presets().values():
            groups.setdefault(preset["group"], []).append(preset)
        return list(groups.items())

    @property
    def rate(self) -> Fraction:
        return self.document.frames_a_second

    @property
    def rate_chip(self) -> SafeString:
        """The frame rate, to be chosen; what it is now is offered even if it is a rare one."""
        now = self.document.rate
        rates = RATES if any(now == rate for rate, _ in RATES) else [(now, self.rate_said), *RATES]
        chip = Chip("rate", {"name": "set-rate"}, "Frames a second")
        return choice_chip(chip, now, rates)

    @property
    def rate_said(self) -> str:
        return f"{float(self.rate):.6g}"

    @cached_property
    def ruler(self) -> list[dict[str, Any]]:
        """The labels of the time ruler: frames at even steps, and seconds where they fall."""
        length, rate = self.document.length, float(self.rate)
        step = next((s for s in _LABEL_STEPS if length / s <= _MOST_LABELS), _LABEL_STEPS[-1])
        second = next((s for s in _LABEL_STEPS if length / rate / s <= _MOST_LABELS / 2), 1)
        seconds = [round(n * second * rate, 3) for n in range(int(length / rate / second) + 1)]
        frames = [n for n in range(0, length + 1, step) if length - n > step / 2 or n == 0]
        return [
            *({"at": n, "text": str(n), "kind": "frame"} for n in frames),
            {"at": length, "text": str(length), "kind": "last"},
            *(
                {"at": at, "text": f"{n * second} s", "kind": "second"}
                for n, at in enumerate(seconds)
                if n and at < length * 0.97
            ),
        ]

    @property
    def ruler_labels(self) -> SafeString:
        """The labels, each at its place on the time axis."""
        classes = {"frame": "ruler__f", "last": "ruler__f is-last", "second": "ruler__s"}
        return format_html_join(
            "",
            '<span class="{}" style="--f: {}">{}</span>',
            ((classes[mark["kind"]], f"{mark['at']:g}", mark["text"]) for mark in self.ruler),
        )

    @property
    def grid_lines(self) -> SafeString:
        """The lines behind the rows, one for each label."""
        return format_html_join(
            "",
            '<span class="{}" style="--f: {}"></span>',
            (
                ("is-second" if mark["kind"] == "second" else "", f"{mark['at']:g}")
                for mark in self.ruler
            ),
        )

    @property
    def ticks(self) -> str:
        """The ruler's ticks as an SVG path over `length` x 40."""
        length = self.document.length
        step = next((s for s in _LABEL_STEPS if length / s <= 150), _LABEL_STEPS[-1])
        return "".join(
            f"M{n} {30 if n % (10 * step) == 0 else 34 if n % (5 * step) == 0 else 37}V40"
            for n in range(0, length + 1, step)
        )

    @property
    def poster_frame(self) -> int:
        return self.document.length * 2 // 3

    @property
    def has_files(self) -> bool:
        """Whether it shows or sounds anything from files."""
        return any(True for _ in self.document.files())

    @property
    def has_sound(self) -> bool:
        return has_sound(self.document)

    @cached_property
    def words(self) -> SceneWords:
        """The sentences of the scene itself."""
        return SceneWords(self.document, self.scene.project.owner_id, self.selection.frame)

    @cached_property
    def files(self) -> list[MediaFile]:
        """The newest files of the owner, to be added."""
        return list(self.scene.project.owner.media.all()[:_MOST_FILES])

    @cached_property
    def other_scenes(self) -> list[Scene]:
        """The scenes that can be used in this one."""
        return offered(self.scene)


_ICONS = {
    "shape": "shape",
    "picture": "picture",
    "video": "play",
    "scene": "scene",
    "sound": "sound",
    "group": "group",
    "adjustment": "adjust",
}
_NAMELESS = {**KIND_NAMES, "title": "Empty title"}
PLACE_ACTIONS: dict[str, Callable[[Any], list[dict[str, Any]]]] = {
    "title": place_actions,
    "shape": lambda layer: [*shape_actions(layer), *way_actions(layer)],
    "picture": way_actions,
    "video": way_actions,
    "scene": way_actions,
    "sound": lambda layer: [],
    "group": lambda layer: [
        *way_actions(layer),
        {"label": "ungroup", "edit": {"name": "ungroup-layers", "layer": layer.id}},
    ],
    "adjustment": lambda layer: [],
}


@dataclass(frozen=True, eq=False)
class LayerBlock:
    """A layer in the list of layers."""

    bench: Bench
    layer: Layer
    number: int

    @property
    def is_title(self) -> bool:
        return isinstance(self.layer, Title)

    @property
    def moves(self) -> tuple[Move, ...]:
        """The moves of a title; none of any other layer."""
        return self.layer.moves if isinstance(self.layer, Title) else ()

    @property
    def kind_name(self) -> str:
        return KIND_NAMES[self.layer.kind]

    @property
    def icon(self) -> str:
        """The drawing that stands for its kind."""
        return _ICONS[self.layer.kind]

    @property
    def is_drawn(self) -> bool:
        """Whether it is seen at all."""
        return self.layer.kind != "sound"

    @property
    def is_placed(self) -> bool:
        """Whether it stands somewhere in the picture."""
        return self.layer.kind not in ("sound", "adjustment")

    @property
    def depth(self) -> int:
        """In how many groups it is, one in another."""
        return len(self.bench.document.groups_of(self.layer))

    @property
    def members(self) -> int:
        """How many layers are in a group."""
        return sum(layer.group == self.layer.id for layer in self.bench.document.layers)

    @cached_property
    def media_sentences(self) -> list[SafeString]:
        owner, frame = self.bench.scene.project.owner_id, self.bench.selection.frame
        return media_sentences(self.bench.document, self.layer, owner, frame)

    @property
    def source_link(self) -> SafeString | str:
        """Where the scene is made that the layer shows."""
        if self.layer.kind != "scene":
            return ""
        used = next(each for each in self.bench.document.scenes if each.id == self.layer.scene)
        return source_link(used.source, self.bench.scene.project.owner_id)

    @property
    def shape_sentences(self) -> list[SafeString]:
        frame = self.bench.selection.frame
        return shape_sentences(self.layer, frame) if isinstance(self.layer, ShapeLayer) else []

    @cached_property
    def dress(self) -> list[DressCard]:
        return dress_cards(self.bench.document, self.layer, self.bench.selection.frame)

    @property
    def dress_to_add(self) -> list[tuple[str, list[dict[str, Any]]]]:
        return dress_to_add(self.bench.document, self.layer)

    @property
    def is_selected(self) -> bool:
        return self.bench.selected is not None and self.bench.selected.layer.id == self.layer.id

    @property
    def shows(self) -> bool:
        return self.layer.id in self.bench.document.shown

    @property
    def is_left_out(self) -> bool:
        """Whether it is not shown since others are solo."""
        return self.layer.on and not self.shows

    @property
    def is_front(self) -> bool:
        return self.number == 1

    @property
    def is_back(self) -> bool:
        return self.number == len(self.bench.document.layers)

    @property
    def place_forward(self) -> int:
        """The place one further to the front, counted from the back."""
        return len(self.bench.document.layers) - self.number + 1

    @property
    def place_back(self) -> int:
        """The place one further to the back, counted from the back."""
        return max(0, len(self.bench.document.layers) - self.number - 1)

    @property
    def css(self) -> str:
        """The title's own type, at a size that suits the list."""
        if not isinstance(self.layer, Title):
            return ""
        style = self.layer.style
        axes = ", ".join(f'"{tag}" {value:g}' for tag, value in style.axes.items())
        size = min(21, max(14, 21 - max(0, len(self.layer.text) - 16) // 3))
        family = style.font if style.font in FAMILIES else "Figtree"
        css = f"font-family: '{family}', var(--font-others); font-size: {size}px"
        return f"{css}; font-variation-settings: {axes}" if axes else css

    @property
    def rows(self) -> int:
        return min(6, self.layer.text.count("\n") + 1 + len(self.layer.text) // 24)

    @property
    def name(self) -> str:
        return self.layer.name or self.layer.words or _NAMELESS[self.layer.kind]

    @property
    def set_in(self) -> str:
        if self.layer.kind == "group":
            return f"Group of {self.members}"
        if not isinstance(self.layer, Title):
            what = self.layer.shape.kind if isinstance(self.layer, ShapeLayer) else ""
            return f"{self.kind_name}, {what}" if what else self.kind_name
        style = self.layer.style
        weight = f" {style.axes['wght']:g}" if "wght" in style.axes else ""
        return f"{style.font}{weight}, {style.size:g} px"

    @property
    def letters(self) -> tuple[int, int] | None:
        """The selected letters of this title, if there are any."""
        letters = self.bench.selection.letters
        if not self.is_title or not self.is_selected or letters is None:
            return None
        count = len(characters_of(self.layer.text))
        if letters[0] >= count:
            return None
        return letters[0], min(letters[1], count)

    @property
    def letters_text(self) -> str:
        first, end = self.letters or (0, 0)
        return "".join(characters_of(self.layer.text)[first:end])

    @property
    def type_sentence(self) -> str:
        return TypeSentence(self.layer, self.letters).sentence()

    @property
    def place_sentence(self) -> str:
        time = np.array(float(self.bench.selection.frame))
        return place_sentence(self.layer, lambda value: value_at(value, time).tolist())

    @property
    def place_more(self) -> list[SafeString]:
        said = shape_more(self.layer) if self.shape_sentences else media_more(self.layer)
        return [*said, *place_more(self.layer)]

    @property
    def place_actions(self) -> list[dict[str, Any]]:
        more = media_actions(self.bench.document, self.layer)
        return [*PLACE_ACTIONS[self.layer.kind](self.layer), *more]

    @cached_property
    def all_warnings(self) -> list[SceneWarning]:
        if isinstance(self.layer, Title):
            return warnings_of(self.bench.document, self.layer)
        file = getattr(self.layer, "file", None)
        told = missing_words(self.bench.document, file) if file else ""
        return [SceneWarning(self.layer.id, told)] if told else []

    @property
    def warnings(self) -> dict[str, list[str]]:
        """Warnings by what they are about: the layer itself, its style, its transform."""
        about: dict[str, list[str]] = {}
        for warning in self.all_warnings:
            about.setdefault(warning.path.partition(".")[2] or "layer", []).append(warning.text)
        return about

    @property
    def counts(self) -> str:
        if not isinstance(self.layer, Title):
            return self.kind_name.lower() if self.layer.name else ""
        characters = characters_of(self.layer.text)
        letters = sum(not is_blank(character) for character in characters)
        words = len(self.layer.text.split())
        return f"{letters} letter{'s' * (letters != 1)}, {words} word{'s' * (words != 1)}"

    @property
    def length(self) -> float:
        return self.layer.span[1] - self.layer.span[0]

    @property
    def key_frames(self) -> list[float]:
        """The frames at which the title's own values have keyframes."""
        return sorted(
            {
                key.at
                for row in keyed_values(self.layer)
                if row.move is None
                for key in row.track.keys
            }
        )


def _key_times(values: list[Any]) -> set[float]:
    """The times of the keys of those values that have some."""
    return {key.at for value in values if isinstance(value, Track) for key in value.keys}


@dataclass(frozen=True)
class MoveCard:
    """A move in the Moves column."""

    bench: Bench
    block: LayerBlock
    move: Any
    is_current: bool

    @property
    def title(self) -> Title:
        return self.block.layer

    @property
    def words(self) -> MoveSentence:
        return MoveSentence(self.bench.document, self.title, self.move)

    @property
    def path(self) -> str:
        return f"{self.title.id}.moves.{self.move.id}"

    @property
    def name(self) -> str:
        return self.move.name or "Move"

    @property
    def warnings(self) -> list[str]:
        return self.block.warnings.get(f"moves.{self.move.id}", [])

    @property
    def tie_targets(self) -> list[tuple[str, str]]:
        return self.bench.tie_targets
