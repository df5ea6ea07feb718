"""Sentences about a title: how it is set, and where it stands."""

from typing import Any

from django.utils.safestring import SafeString

from balletto.lettering.faces import features_of
from balletto.lettering.own_fonts import families_of
from balletto.scene.document import Scene
from balletto.scene.layers import Layer
from balletto.scene.layers.title import Title
from balletto.scene.letters.features import FEATURES, MOST_SETS, USUAL, feature_name, tag_of_set
from balletto.scene.values.motion_path import PathTrack
from balletto.scene.values.tracks import Tied, Track, changes_over_time
from balletto.sentences.layers.places import IN_DEPTH, say_depth, say_place
from balletto.sentences.layers.settings import BLEND, DRAW_ORDER, PIVOT, SPAN
from balletto.sentences.titles.wording import WITH, WITHOUT, StyleOf, say_style
from balletto.sentences.wording.pieces import said
from balletto.sentences.wording.tracks import say_tie, say_track, say_way

from .phrases import NOW, Moment, edit_of, shown


class TypeSentence:
    """How a title, or the letters selected in it, are set."""

    def __init__(self, scene: Scene, title: Title, letters: tuple[int, int] | None = None):
        self.scene, self.title = scene, title
        self.letters = letters
        self.style = title.style_at(letters[0]) if letters else title.style.model_dump()

    def _setting(self, name: str) -> dict[str, Any]:
        """The edit that sets a property of the title, or of the letters."""
        if not self.letters:
            return edit_of(f"{self.title.id}.style.{name}")
        first, end = self.letters
        where = {"layer": self.title.id, "first": first, "end": end}
        return {"name": "style-letters", **where, "property": name}

    def sentence(self) -> SafeString:
        """Font, axes, size and all the rest."""
        path = f"{self.title.id}.style"
        whole = self.letters is None
        families = families_of(self.scene)
        return shown(say_style(StyleOf(self.style, path, self._setting, whole, families)))


def place_sentence(layer: Layer, moment: Moment = NOW) -> SafeString:
    """Where a layer stands, at a moment."""
    return shown(say_place(layer), moment)


def place_more(layer: Layer) -> list[SafeString]:
    """What is said less of a layer: its time and settings, turns in depth, and its keys one by
    one."""
    clauses = [setting.say(layer) for setting in (SPAN, BLEND, PIVOT, DRAW_ORDER)
               if setting.suits(type(layer))]  # fmt: skip
    if not changes_over_time(layer.transform.rotation):
        clauses.append(said("{}.", say_depth(layer, IN_DEPTH.capitalize())))
    for name, label in (("position", "Position"), ("rotation", "Turn"), ("scale", "Size"),
                        ("opacity", "Opacity")):  # fmt: skip
        value, path = getattr(layer.transform, name), f"{layer.id}.transform.{name}"
        if isinstance(value, Tied):
            clauses.append(said("{} {}.", label, say_tie(path, value, label)))
        elif isinstance(value, Track):
            clauses.append(say_track(path, value, label))
            if isinstance(value, PathTrack) and value.is_bent:
                clauses.append(say_way(path, value))
    return [shown(clause) for clause in clauses]


def way_actions(layer: Layer) -> list[dict[str, Any]]:
    """Bending or straightening the way of a layer whose position has keys."""
    position = layer.transform.position
    if not isinstance(position, PathTrack) or len(position.keys) < 2:
        return []
    label = "straight ways" if position.is_bent else "bend its way"
    path = f"{layer.id}.transform.position"
    edit = {"name": "bend-way", "path": path, "bent": not position.is_bent}
    return [{"label": label, "edit": edit}]


def feature_actions(scene: Scene, title: Title) -> list[dict[str, Any]]:
    """What the font of a title lets one choose: turned on or off, or back to what is usual."""
    family = families_of(scene).or_stand_in(title.style.font)
    offered = features_of(family) | title.style.features.keys()
    actions = []
    for tag in (*FEATURES, *map(tag_of_set, range(1, MOST_SETS + 1))):
        if tag not in offered:
            continue
        is_wanted = not title.style.features.get(tag, tag in USUAL)
        edit: dict[str, Any] = {"path": f"{title.id}.style.features.{tag}"}
        if is_wanted == (tag in USUAL):
            edit |= {"name": "clear-value"}
        else:
            edit |= {"name": "set-value", "value": is_wanted}
        label = f"{WITH if is_wanted else WITHOUT} {feature_name(tag)}"
        actions.append({"label": label, "edit": edit})
    return actions


def title_actions(title: Title) -> list[dict[str, Any]]:
    """Changes of how a title is set, as edits with their names."""
    actions: list[dict[str, Any]] = []
    if title.style.wrap is None:
        value = {"name": "set-value", "path": f"{title.id}.style.wrap", "value": 1200}
        actions.append({"label": "break lines at a width", "edit": value})
    else:
        edit = {"name": "clear-value", "path": f"{title.id}.style.wrap"}
        actions.append({"label": "lines as typed", "edit": edit})
    if title.style.widest is None:
        edit = {"name": "set-value", "path": f"{title.id}.style.widest", "value": 1200}
        actions.append({"label": "fit into a width", "edit": edit})
    else:
        edit = {"name": "set-value", "path": f"{title.id}.style.least_size", "value": 40}
        more = {"name": "set-value", "path": f"{title.id}.style.most_lines", "value": 2}
        offers = {"least_size": ("a least size", edit), "most_lines": ("in several lines", more)}
        actions += [
            {"label": label, "edit": offer}
            for name, (label, offer) in offers.items()
            if getattr(title.style, name) is None
        ]
    if title.style.language is None:
        edit = {"name": "set-value", "path": f"{title.id}.style.language", "value": "en"}
        actions.append({"label": "written in a language", "edit": edit})
    if not title.style.outline:
        edit = {"name": "set-value", "path": f"{title.id}.style.outline", "value": 4}
        actions.append({"label": "an outline", "edit": edit})
    else:
        each = {
            "name": "set-value", "path": f"{title.id}.drawn_each", "value": not title.drawn_each,
        }  # fmt: skip
        label = "draw contours one by one" if title.drawn_each else "draw contours at once"
        actions.append({"label": label, "edit": each})
    hold = {"name": "set-value", "path": f"{title.id}.hold_center", "value": not title.hold_center}
    label = "let the centre go" if title.hold_center else "hold the centre"
    actions.append({"label": label, "edit": hold})
    return actions
