"""The layers of a scene and their moves as the workbench shows them: what stands in its columns."""

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from django.utils.html import format_html_join
from django.utils.safestring import SafeString

from balletto.lettering.own_fonts import families_of
from balletto.lettering.units import is_blank
from balletto.motion.sampled_curves import keyed_values
from balletto.motion.warnings import SceneWarning, layer_warnings_of, warnings_of, words_warnings_of
from balletto.scene.layers import Layer
from balletto.scene.layers.flurry import FlurryLayer
from balletto.scene.layers.shape import ShapeLayer
from balletto.scene.layers.title import Title
from balletto.scene.letters.characters import characters_of
from balletto.scene.moving.moves import Move
from balletto.scene.values.tracks import Track
from web.projects.font_rules import css_name

from .move_offers import MoveOffers
from .sentences.appearance_sentences import AppearanceCard, appearance_cards, appearance_to_add
from .sentences.flurry_sentences import flurry_actions, flurry_more, flurry_sentences, things_of
from .sentences.formation_sentences import formation_actions, formation_more, formation_sentence
from .sentences.media_sentences import (
    media_actions,
    media_more,
    media_sentences,
    missing_words,
    sound_actions,
    source_link,
)
from .sentences.move_sentences import MoveSentence, names_of
from .sentences.shape_sentences import shape_actions, shape_more, shape_sentences
from .sentences.title_sentences import (
    TypeSentence,
    feature_actions,
    place_more,
    place_sentence,
    title_actions,
    way_actions,
)

_ICONS = {
    "title": "title",
    "shape": "shape",
    "flurry": "flurry",
    "picture": "picture",
    "video": "play",
    "scene": "scene",
    "sound": "sound",
    "clicks": "sound",
    "group": "group",
    "adjustment": "adjust",
}
# What can be done with one kind of layer alone, as edits with their names.
OWN_ACTIONS: dict[str, Callable[[Any], list[dict[str, Any]]]] = {
    "title": title_actions,
    "shape": shape_actions,
    "flurry": flurry_actions,
    "group": lambda layer: [
        {"label": "ungroup", "edit": {"name": "ungroup-layers", "layer": layer.id}}
    ],
}


def own_actions(layer: Layer) -> list[dict[str, Any]]:
    """What can be done with a layer by its kind, and with the way that it goes."""
    own = OWN_ACTIONS.get(layer.kind)
    ways = way_actions(layer) if layer.has_place else []
    return [*(own(layer) if own else []), *ways]


@dataclass(frozen=True, eq=False)
class LayerBlock:
    """A layer in the list of layers."""

    view: Any  # the WorkbenchView that shows it
    layer: Layer
    number: int

    @property
    def is_title(self) -> bool:
        return isinstance(self.layer, Title)

    @property
    def moves(self) -> tuple[Move, ...]:
        """The moves that it has."""
        return getattr(self.layer, "moves", ())

    @property
    def can_move(self) -> bool:
        """Whether it can have moves."""
        return "moves" in type(self.layer).model_fields

    @property
    def kind_name(self) -> str:
        return self.layer.title

    @property
    def icon(self) -> str:
        """The drawing that stands for its kind."""
        return _ICONS.get(self.layer.kind, _ICONS["shape"])

    @property
    def is_drawn(self) -> bool:
        """Whether it is seen at all."""
        return not self.layer.is_heard

    @property
    def is_placed(self) -> bool:
        """Whether it stands somewhere in the picture."""
        return self.layer.has_place

    @property
    def depth(self) -> int:
        """In how many groups it is, one in another."""
        return len(self.view.document.groups_of(self.layer))

    @property
    def members(self) -> int:
        """How many layers are in a group."""
        return sum(layer.group == self.layer.id for layer in self.view.document.layers)

    @cached_property
    def media_sentences(self) -> list[SafeString]:
        view = self.view
        return media_sentences(view.document, self.layer, view.files, view.moment)

    @property
    def source_link(self) -> SafeString | str:
        """Where the scene is made that the layer shows."""
        if self.layer.kind != "scene":
            return ""
        used = next(each for each in self.view.document.scenes if each.id == self.layer.scene)
        return source_link(used.source, self.view.scene.project.owner_id)

    @property
    def form_sentences(self) -> list[SafeString]:
        """What a shape or a flurry is like."""
        if isinstance(self.layer, FlurryLayer):
            things = things_of(self.view.document, self.view.files)
            return flurry_sentences(self.layer, self.view.moment, things)
        is_shape = isinstance(self.layer, ShapeLayer)
        return shape_sentences(self.layer, self.view.moment) if is_shape else []

    @cached_property
    def appearance(self) -> list[AppearanceCard]:
        return appearance_cards(self.view.document, self.layer, self.view.moment)

    @property
    def appearance_to_add(self) -> list[tuple[str, list[dict[str, Any]]]]:
        return appearance_to_add(self.view.document, self.layer)

    @cached_property
    def is_selected(self) -> bool:
        return self.view.selected is not None and self.view.selected.layer.id == self.layer.id

    @property
    def is_open(self) -> bool:
        """Whether more is told of it."""
        return f"more-{self.layer.id}" in self.view.selection.opened

    @property
    def is_appearance_open(self) -> bool:
        """Whether the effects and masks that can be added are shown."""
        return f"wear-more-{self.layer.id}" in self.view.selection.opened

    @property
    def shows(self) -> bool:
        return self.layer.id in self.view.document.shown

    @property
    def is_left_out(self) -> bool:
        """Whether it is not shown since others are solo."""
        return self.layer.on and not self.shows

    @property
    def is_front(self) -> bool:
        return self.number == 1

    @property
    def is_back(self) -> bool:
        return self.number == len(self.view.document.layers)

    @property
    def css(self) -> str:
        """The title's own type, at a size that suits the list."""
        if not isinstance(self.layer, Title):
            return ""
        style = self.layer.style
        axes = ", ".join(f'"{tag}" {value:g}' for tag, value in style.axes.items())
        size = min(21, max(14, 21 - max(0, len(self.layer.text) - 16) // 3))
        family = families_of(self.view.document).or_stand_in(style.font)
        css = f"font-family: '{css_name(family.name)}', var(--font-others); --type-size: {size}px"
        # Of a family with a file for each weight the browser chooses one.
        css += "".join(
            f"; {name}: {style.axes[tag]:g}{unit}"
            for tag, name, unit in (("wght", "font-weight", ""), ("wdth", "font-stretch", "%"))
            if tag in style.axes and len(family.cuts) > 1
        )
        css += "; font-style: italic" if style.axes.get("ital", 0) >= 0.5 else ""
        features = ", ".join(f'"{tag}" {on:d}' for tag, on in style.features.items())
        css += f"; font-feature-settings: {features}" if features else ""
        return f"{css}; font-variation-settings: {axes}" if axes else css

    @property
    def rows(self) -> int:
        return min(6, self.layer.text.count("\n") + 1 + len(self.layer.text) // 24)

    @cached_property
    def name(self) -> str:
        return self.layer.name or self.layer.words or self.layer.nameless

    @property
    def set_in(self) -> str:
        if self.layer.has_members:
            return f"Group of {self.members}"
        if not isinstance(self.layer, Title):
            what = self.layer.shape.kind if isinstance(self.layer, ShapeLayer) else ""
            return f"{self.kind_name}, {what}" if what else self.kind_name
        style = self.layer.style
        weight = f" {style.axes['wght']:g}" if "wght" in style.axes else ""
        return f"{style.font}{weight}, {style.size:g} px"

    @property
    def worn(self) -> str:
        """The names of its moves, effects and masks, as the list's mark tells them."""
        names = [move.name or "Move" for move in self.moves] + [
            card.title for card in self.appearance
        ]
        return ", ".join(names)

    @property
    def letters(self) -> tuple[int, int] | None:
        """The selected letters of this title, if there are any."""
        letters = self.view.selection.letters
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
    def style_path(self) -> str:
        return f"{self.layer.id}.style"

    @property
    def type_sentence(self) -> str:
        return TypeSentence(self.view.document, self.layer, self.letters).sentence()

    @property
    def place_sentence(self) -> str:
        return place_sentence(self.layer, self.view.moment)

    @property
    def formation_sentence(self) -> SafeString | str:
        return formation_sentence(self.layer, self.view.moment)

    @property
    def place_more(self) -> list[SafeString]:
        more = {"shape": shape_more, "flurry": flurry_more}.get(self.layer.kind, media_more)
        said = more(self.layer)
        copies = formation_more(self.layer, self.view.moment)
        return [*said, *copies, *place_more(self.layer)]

    @property
    def place_actions(self) -> list[dict[str, Any]]:
        more = media_actions(self.view.document, self.layer)
        copies = formation_actions(self.layer)
        features = feature_actions(self.view.document, self.layer) if self.is_title else []
        return [*own_actions(self.layer), *features, *more, *copies]

    @property
    def sound_actions(self) -> list[dict[str, Any]]:
        return sound_actions(self.layer)

    @cached_property
    def all_warnings(self) -> list[SceneWarning]:
        """The warnings about it; of titles that are not selected those about their words alone."""
        if isinstance(self.layer, Title):
            find = warnings_of if self.is_selected else words_warnings_of
            return find(self.view.document, self.layer)
        file = getattr(self.layer, "file", None)
        told = missing_words(self.view.document, file) if file else ""
        missing = [SceneWarning(self.layer.id, told)] if told else []
        return [*missing, *layer_warnings_of(self.layer)]

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
        """The frames at which the layer's own values have keyframes."""
        rows = keyed_values(self.layer, of_moves=False)
        return sorted({key.at for row in rows for key in row.track.keys})

    @property
    def beads(self) -> SafeString:
        """These frames, each at its place on the time axis."""
        frames = ((f"{at:g}",) for at in self.key_frames)
        return format_html_join("", '<span class="bead" style="--f: {}"></span>', frames)


def key_times(values: list[Any]) -> set[float]:
    """The times of the keys of those values that have some."""
    return {key.at for value in values if isinstance(value, Track) for key in value.keys}


@dataclass(frozen=True)
class MoveCard:
    """A move in the Moves column."""

    view: Any  # the WorkbenchView that shows it
    block: LayerBlock
    move: Any
    is_current: bool

    @property
    def title(self) -> Any:
        return self.block.layer

    @property
    def is_open(self) -> bool:
        """Whether more is told of it."""
        return f"more-{self.move.id}" in self.view.selection.opened

    @property
    def words(self) -> MoveSentence:
        names = names_of(self.view.document, self.title)
        return MoveSentence(self.title, self.move, self.view.moment, names)

    @property
    def offers(self) -> MoveOffers:
        return MoveOffers(self.view.document, self.title, self.move, self.block.letters)

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
        return self.view.tie_targets
