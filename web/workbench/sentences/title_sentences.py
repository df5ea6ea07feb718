"""Sentences about a title: how it is set, and where it stands."""

from typing import Any

from django.utils.html import format_html
from django.utils.safestring import SafeString, mark_safe

from balletto.lettering.faces import features_of
from balletto.lettering.own_fonts import families_of
from balletto.scene.document import Scene
from balletto.scene.layers import Layer
from balletto.scene.layers.base import BLENDS
from balletto.scene.layers.title import Title
from balletto.scene.letters.features import FEATURES, MOST_SETS, USUAL, feature_name, tag_of_set
from balletto.scene.values import measures
from balletto.scene.values.measures import Measure
from balletto.scene.values.motion_path import PathTrack
from balletto.scene.values.tracks import Tied, Track, changes_over_time
from balletto.sentences.layers.places import ALL_BELOW, IN_DEPTH, OPAQUE, STANDS, TURNED, WIDE
from balletto.sentences.titles.wording import WITH, WITHOUT, StyleOf, say_style

from .chips import Chip, choice_chip, number_chip
from .phrases import NOW, Moment, edit_of, join, number_keys, shown, tie_words, tight, track_more

DRAW_ORDERS = [("reading", "the last"), ("reverse", "the first"), ("depth", "the nearest")]


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
        return tight(shown(say_style(StyleOf(self.style, path, self._setting, whole, families))))


def place_sentence(layer: Layer, moment: Moment = NOW) -> SafeString:
    """Where a layer stands, at a moment."""
    base = f"{layer.id}.transform"
    transform = layer.transform

    def part(
        name: str, label: str, measure: Measure, index: int | None, rest: float | None
    ) -> SafeString:
        value = getattr(transform, name)
        now = moment.value_of(value)
        path = f"{base}.{name}" if index is None else f"{base}.{name}.{index}"
        shown = measure.within(float(now if index is None else now[index]))
        keys = moment.times_of(value) if isinstance(value, Track) else ""
        chip = Chip(path, edit_of(path), label)
        return number_chip(chip, shown, measure, rest=rest, keys=keys, key_path=f"{base}.{name}")

    def keys(name: str, label: str, measure: Measure) -> SafeString | str:
        value = getattr(transform, name)
        if not isinstance(value, Track):
            return ""
        return format_html(" {}", number_keys(f"{base}.{name}", value, measure, label, moment))

    opaque = format_html(
        "{}{}", part("opacity", "Opacity", measures.OPACITY, None, 1),
        keys("opacity", "Opacity", measures.OPACITY),
    )  # fmt: skip
    if layer.works_below:
        return tight(format_html(ALL_BELOW, opaque))
    whole = format_html(
        f"{STANDS}{{}}, {TURNED}{{}}, {WIDE}{{}}{{}}, {OPAQUE}.",
        part("position", "Across", measures.PIXELS, 0, None),
        part("position", "Down", measures.PIXELS, 1, None),
        part("position", "Depth", measures.NEARER_DEEPER, 2, 0),
        keys("position", "Position", measures.PIXELS),
        part("rotation", "Turn", measures.DEGREES, 2, 0),
        keys("rotation", "Turn", measures.DEGREES),
        part("scale", "Width", measures.PERCENT_OF_ONE, 0, 1),
        part("scale", "Height", measures.PERCENT_OF_ONE, 1, 1),
        _LINK,
        keys("scale", "Size", measures.PERCENT_OF_ONE),
        opaque,
    )
    return tight(whole)


# Whether width and height change together is for the hand to say: the page keeps it.
_LINK = mark_safe(
    '<button type="button" class="link-sides" data-link-sides aria-pressed="true" '
    'aria-label="Width and height change together" title="Width and height change together">'
    "</button>"
)


def _pivot_words(layer: Layer) -> SafeString:
    """The point that a layer turns and grows about."""
    across, down = (
        number_chip(
            Chip(
                f"{layer.id}.transform.pivot.{axis}",
                {"name": "set-pivot", "layer": layer.id, "axis": axis},
                f"Pivot {said}",
            ),
            layer.transform.pivot[axis],
            measures.PIXELS,
            rest=0,
        )
        for axis, said in enumerate(("across", "down"))
    )
    return tight(format_html("Turns and grows about {} across, {} down.", across, down))


def place_more(layer: Layer) -> list[SafeString]:
    """What is said less of where a layer stands: turns in depth, and its keys one by one."""
    base = f"{layer.id}.transform"
    first, end = (
        number_chip(
            Chip(f"{layer.id}.span.{n}", edit_of(f"{layer.id}.span.{n}"), label),
            layer.span[n],
            measures.FRAME,
        )
        for n, label in enumerate(("First frame", "Frame where it has gone"))
    )
    blend = Chip(f"{layer.id}.blend", edit_of(f"{layer.id}.blend"), "Blend")
    blends = [(name, name.replace("-", " ")) for name in BLENDS]
    clauses = [
        tight(format_html("Shown from {} to {}.", first, end)),
        format_html("Blended {} with what lies behind.", choice_chip(blend, layer.blend, blends)),
    ]
    if layer.has_place:
        clauses.append(_pivot_words(layer))
    if isinstance(layer, Title):
        path = f"{layer.id}.draw_order"
        order = choice_chip(Chip(path, edit_of(path), "Draw order"), layer.draw_order, DRAW_ORDERS)
        clauses.append(format_html("Where letters overlap, {} is in front.", order))
    if not changes_over_time(layer.transform.rotation):
        tip, swing = (
            number_chip(
                Chip(f"{base}.rotation.{axis}", edit_of(f"{base}.rotation.{axis}"), label),
                layer.transform.rotation[axis],
                measures.DEGREES,
                rest=0,
            )
            for axis, label in enumerate(("Tip", "Swing"))
        )
        clauses.append(tight(format_html(f"{IN_DEPTH.capitalize()}.", tip, swing)))
    for name, label in (("position", "Position"), ("rotation", "Turn"), ("scale", "Size"),
                        ("opacity", "Opacity")):  # fmt: skip
        value, path = getattr(layer.transform, name), f"{base}.{name}"
        if isinstance(value, Tied):
            clauses.append(format_html("{} {}.", label, tie_words(path, value, label)))
        elif isinstance(value, Track):
            clauses.append(track_more(path, value, label))
            if isinstance(value, PathTrack) and value.is_bent:
                clauses.append(_way_words(path, value))
    return clauses


def _way_words(path: str, track: PathTrack) -> SafeString:
    """The handles that bend the way between keys."""
    parts = []
    for index, key in enumerate(track.keys):
        for name, handle, said in (("in", key.coming, "comes to"), ("out", key.going, "leaves")):
            if handle is not None:
                base = f"{path}.keys.{index}.{name}"
                across, down = (
                    number_chip(
                        Chip(f"{base}.{axis}", edit_of(f"{base}.{axis}"), f"Handle {where}"),
                        handle[axis],
                        measures.PIXELS,
                    )
                    for axis, where in enumerate(("across", "down"))
                )
                parts.append(format_html("{} key {} by {}, {}", said, index + 1, across, down))
    return tight(format_html("Its way {}.", join(parts)))


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


def place_actions(title: Title) -> list[dict[str, Any]]:
    """Changes of the shape of a title's place and setting, as edits with their names."""
    actions = way_actions(title)
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
