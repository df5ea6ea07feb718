"""What the workbench shows of a scene: put together once for each answer."""

import json
import re
from collections import Counter
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property
from typing import Any

import numpy as np
from django.http import HttpRequest
from django.utils.html import format_html_join
from django.utils.safestring import SafeString

from balletto.clip.mixing import has_sound
from balletto.intents import situation
from balletto.intents.situation import ShelfFile
from balletto.lettering.families import FAMILIES
from balletto.lettering.font_files import KINDS as FONT_KINDS
from balletto.lettering.own_fonts import families_of, fonts_named, missing_fonts
from balletto.picture.pixels.media import SOUNDS, STILLS, VIDEOS
from balletto.scene.document import Scene as SceneDocument
from balletto.scene.layers.title import Title
from balletto.scene.moving.presets import fits, parts_of, presets
from balletto.scene.shapes import SHAPE_KINDS
from balletto.scene.starts import USUAL_RATES, WORDS
from balletto.scene.values.tracks import value_at
from balletto.sentences.scenes.wording import RATE
from balletto.sentences.wording.pieces import Choice, said
from balletto.stock.shapes import SHAPES
from web.library.offered import files_of
from web.library.store import opened
from web.pictures.looks import address
from web.projects import history
from web.projects.models import Revision, Scene
from web.projects.nesting import offered
from web.projects.takes import ShownTake, shown_takes

from .layer_blocks import LayerBlock, MoveCard, key_times
from .sentences.chips import Chip, font_chip
from .sentences.ease_chips import ease_chips
from .sentences.flurry_sentences import flurries_to_add
from .sentences.phrases import Moment, shown
from .sentences.scene_sentences import SceneWords
from .ties import tie_targets

_LABEL_STEPS = (1, 2, 5, 10, 20, 25, 50, 100, 200, 250, 500, 1000, 2000, 5000, 10_000, 50_000)
_MOST_LABELS = 14
_COLOR = re.compile('"#[0-9A-Fa-f]{6}"')
_MOST_COLORS = 14  # that are offered where one is picked
_MOST_FILES = 400  # of a person, the newest, that are offered
_MOST_ADDED = 24  # of them, that are offered as layers


@dataclass(frozen=True)
class PageSelection(situation.Selection):
    """What a person has selected, as the page says it with each request; `opened` are the ids of
    the parts that are open: what others tell under "More" is left out.
    """

    opened: frozenset[str] = frozenset()

    @classmethod
    def of(cls, data: Any) -> "PageSelection":
        """The selection in a request's GET or POST values; what is not usable is left out."""

        def whole(name: str) -> int | None:
            text = data.get(name, "")
            return int(text) if text.isdecimal() and len(text) < 10 else None

        first, end = whole("first"), whole("end")
        letters = (first, end) if first is not None and end is not None and first < end else None
        opened = frozenset(data.get("opened", "").split(","))
        layer, move = data.get("layer", ""), data.get("move", "")
        also = tuple(filter(None, data.get("also_layers", "").split(",")))
        return cls(layer, also, move, letters, whole("frame") or 0, opened)


def _prominence(title: Title) -> float:
    """How large the letters of a title stand in the picture, at rest."""
    scale = value_at(title.transform.scale, np.array(1e6))
    return title.style.size * float(np.abs(scale).max())


def _as_layers(files: list[ShelfFile]) -> list[dict[str, Any]]:
    """Files as layers to add: edits with their names."""
    return [
        {"label": file.title, "edit": {"name": "add-file", "file": file.name}} for file in files
    ]


def _replacing(font: str) -> dict[str, str]:
    return {"name": "replace-font", "font": font}


class WorkbenchView:
    """A scene at a revision with a selection, for the templates."""

    def __init__(
        self, request: HttpRequest, scene: Scene, revision: Revision, selection: PageSelection
    ):
        self.scene = scene
        self.revision = revision
        self.document: SceneDocument = opened(revision.document, scene.project.owner_id)
        self.selection = selection

    @cached_property
    def address(self) -> str:
        """How pictures and numbers of it are asked for."""
        owner = self.scene.project.owner_id
        return address(self.revision.digest, owner, lambda: self.revision.document)

    @property
    def moment(self) -> Moment:
        """When sentences are told: at the playhead, with the parts open that are."""
        return Moment(self.selection.frame, opened=self.selection.opened)

    @property
    def flags(self) -> list[dict[str, Any]]:
        """The markers, each with the frames up to the next and what its flag says: of beats, which
        stand close together, the number."""
        markers = self.document.markers
        ends = [marker.at for marker in markers[1:]] + [self.document.length]
        return [
            {
                "at": marker.at,
                "name": marker.name,
                "flag": marker.name.removeprefix("Beat "),
                "room": max(0, end - marker.at),
            }
            for marker, end in zip(markers, ends, strict=False)  # without markers an end is left
        ]

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
        """The selected layer, or else the most prominent title, or the top layer."""
        chosen = [block for block in self.layers if block.layer.id == self.selection.layer]
        return (chosen or self._titles_by_size() or self.layers or [None])[0]

    def _titles_by_size(self) -> list["LayerBlock"]:
        """The titles that show something, the one set largest first."""
        titles = [
            block
            for block in self.layers
            if block.is_title and block.shows and block.layer.words and not block.layer.locked
        ]
        return sorted(titles, key=lambda block: -_prominence(block.layer))

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
    def colors(self) -> str:
        """The colours of the scene, in hex, the most used first."""
        found = Counter(_COLOR.findall(json.dumps(self.revision.document)))
        return " ".join(color.strip('"').lower() for color, _ in found.most_common(_MOST_COLORS))

    @property
    def move(self) -> "MoveCard | None":
        return next((card for card in self.moves if card.is_current), None)

    @property
    def is_open(self) -> bool:
        """Whether more is told of the scene itself."""
        return "more-scene" in self.selection.opened

    @property
    def fonts(self) -> list[str]:
        """The families in which titles are listed, those that are shipped."""
        titles = [layer for layer in self.document.layers if isinstance(layer, Title)]
        return sorted({title.style.font for title in titles} & set(FAMILIES))

    font_kinds = FONT_KINDS

    @property
    def fonts_state(self) -> str:
        """Tells the fonts at hand from those that were, or will be."""
        return families_of(self.document).state

    @property
    def missing_fonts(self) -> list[tuple[str, SafeString]]:
        """The fonts that are named and not there, each with what sets another in its place."""
        names = dict.fromkeys(name for _, name in missing_fonts(self.document))
        return [
            (name, font_chip(Chip(f"missing.{name}", _replacing(name), "Font"), "", "another font"))
            for name in names
        ]

    @property
    def key_frames(self) -> list[int]:
        """The whole frames of the scene nearest to the keyframes of the selected title."""
        if self.selected is None:
            return []
        frames = set(self.selected.key_frames)
        for move in self.selected.moves:
            # Of what counts in local time, the keys of the first unit.
            local = key_times([move.amount, *move.pose.given.values()])
            frames |= {move.start + at for at in local}
            frames |= key_times([value for selector in move.reach for _, value in selector])
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

    # The edges of the picture that one layer alone is aligned to.
    edges = ("left", "right", "top", "bottom")

    new_words = WORDS

    # What a shape can start as, as edits with their names.
    flurries_to_add = flurries_to_add()
    shapes_to_add = tuple(
        {"label": kind, "edit": {"name": "add-shape", "shape": kind}}
        for kind in [*(k for k, model in SHAPE_KINDS.items() if not model.needed), *SHAPES]
    )

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
    def selected_now(self) -> dict[str, Any]:
        """What is selected: a layer, those with it, and a move."""
        own = self.selected.layer.id if self.selected else ""
        there = {block.layer.id for block in self.layers}
        also = [each for each in self.selection.also if each in there and each != own]
        return {"layer": own, "also": also, "move": self.move.move.id if self.move else ""}

    @property
    def also(self) -> str:
        """The layers that are selected with the selected one, as JSON."""
        return json.dumps(self.selected_now["also"])

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
            of_letters = not fits(preset, "shape")
            shown = {**preset, "parts": parts_of(preset), "of_letters": of_letters}
            groups.setdefault(preset["group"], []).append(shown)
        return list(groups.items())

    @property
    def rate(self) -> Fraction:
        return self.document.frames_a_second

    @property
    def rate_sentence(self) -> SafeString:
        """The frame rate, to be chosen; what it is now is offered even if it is a rare one."""
        now = self.document.rate
        rates = USUAL_RATES
        if not any(now == rate for rate, _ in rates):
            rates = ((now, self.rate_said), *rates)
        edit = {"name": "set-rate"}
        rate = Choice("rate", "Frames a second", edit=edit, value=now, options=rates)
        return shown(said(f"{RATE.capitalize()}.", rate))

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
        """Whether it shows or sounds anything from files, or names fonts that do not ship."""
        named = (name not in FAMILIES for _, name in fonts_named(self.document))
        return any(True for _ in self.document.files()) or any(named)

    @property
    def has_sound(self) -> bool:
        return has_sound(self.document)

    @cached_property
    def words(self) -> SceneWords:
        """The sentences of the scene itself."""
        return SceneWords(self.document, self.files, self.moment)

    @cached_property
    def files(self) -> list[ShelfFile]:
        """The newest files of the owner and all that ship, to be chosen from."""
        return files_of(self.scene.project.owner_id, _MOST_FILES)

    @property
    def files_to_add(self) -> list[dict[str, Any]]:
        """The newest of the owner's as layers, as edits with their names."""
        return _as_layers([file for file in self.files if not file.ships][:_MOST_ADDED])

    @property
    def stock_to_add(self) -> list[dict[str, Any]]:
        """Those that ship, likewise; clicks are heard by layers of their own."""
        return _as_layers([file for file in self.files if file.ships])

    @property
    def scenes_to_add(self) -> list[dict[str, Any]]:
        """The scenes that can be used in this one, as edits with their names."""
        return [
            {"label": f"scene “{scene.name}”", "edit": {"name": "use-scene", "scene": scene.pk}}
            for scene in offered(self.scene)
        ]
