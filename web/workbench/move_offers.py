"""What a move can be given, and what can be taken from it: buttons under "More", each an edit with
its name."""

from typing import Any

from balletto.lettering.faces import Axis, axes_of
from balletto.lettering.own_fonts import families_of
from balletto.motion.spaces.layer_motion import units_of_move
from balletto.motion.stagger import delays_of, levels_of
from balletto.scene.document import Scene
from balletto.scene.layers.title import Title
from balletto.scene.moving.moves import Move
from balletto.scene.pose import PROPERTIES
from balletto.scene.selectors import SELECTOR_KINDS
from balletto.scene.values.tracks import Track
from balletto.scene.values.value_names import axis_name, property_name, selector_name
from balletto.sentences.moves.wording import has_pivot

from .sentences.phrases import edit_of
from .ties import tie_ends, ties_of

MOST_TIMES = 60  # of the units, that are offered one by one


_COLORS = {name: known.label for name, known in PROPERTIES.items() if known.is_color}


class MoveOffers:
    """The offers for one move; `letters` are those that are selected."""

    def __init__(
        self, scene: Scene, title: Any, move: Move, letters: tuple[int, int] | None = None
    ):
        self.scene, self.title, self.move, self._letters = scene, title, move, letters
        self.path = f"{title.id}.moves.{move.id}"

    def groups(self) -> list[tuple[str, str, list[dict[str, Any]]]]:
        """All offers by what they are about: a group, what it is called, and the offers, each with
        the drawing that it is known by."""
        found = [
            ("where", "Where to", self.pose_to_add()),
            ("by", "By what", self.reach_to_add()),
            ("when", "When", [*self._stagger_actions(), *self._length_actions()]),
            ("ease", "With which ease", self.eases()),
            ("more", "How", [*self._turn_actions(), *self._dressings()]),
            ("who", "The move", [*self._order_actions(), *self._among_actions()]),
            ("more", "Ties", self.ties()),
        ]
        return [(group, title, offers) for group, title, offers in found if offers]

    def _font_axes(self) -> tuple[Axis, ...]:
        return axes_of(families_of(self.scene).or_stand_in(self.title.style.font))

    def pose_to_add(self) -> list[dict[str, Any]]:
        """The properties that the pose does not have yet, as edits with their names."""
        starts: dict[str, tuple[str, Any]] = {
            name: (known.label, known.start)
            for name, known in PROPERTIES.items()
            if self._is_title or not known.is_of_letters
        }
        for axis in self._font_axes() if self._is_title else ():
            if axis.tag != "opsz":
                away = round((axis.high - axis.low) / 3, 2)
                starts[f"axes.{axis.tag}"] = (f"font {axis_name(axis.tag, axis.name)}", away)
        return [
            {**_action(label, edit_of(f"{self.path}.pose.{name}"), start), "drawing": name}
            for name, (label, start) in starts.items()
            if name not in self.move.pose.given
        ] + self._off()

    @property
    def _is_title(self) -> bool:
        return isinstance(self.title, Title)

    def _off(self) -> list[dict[str, Any]]:
        if not self._is_title:
            return []
        path = f"{self.path}.pose.off"
        if self.move.pose.off is not None:
            of = f"{self.path}.pose.off_of"
            clear = {"name": "clear-value", "path": path, "also": [of]}
            alone = _action("off by itself", edit_of(of), "unit")
            together = _clear("off all together", of)
            others = [together if self.move.pose.off_of else alone]
            return [
                {"label": "back into the picture", "edit": clear},
                *(others if self.move.unit != "title" else []),
            ]
        return [{**_action("off the picture", edit_of(path), "left"), "drawing": "off"}]

    def tie_ends(self) -> list[tuple[str, str]]:
        """What can be tied from here: paths with how they are called."""
        return tie_ends(self.title, self.move)

    def eases(self) -> list[dict[str, Any]]:
        """Eases for single properties, to add or to take away, as edits with their names."""
        if not isinstance(self.move.amount, Track):
            return []
        offers = []
        for name in self.move.pose.given:
            path, said = f"{self.path}.eases.{name}", property_name(name)
            if name in self.move.eases:
                offers.append(_clear(f"{said} as the rest", path))
            elif len(self.move.pose.given) > 1 or self.move.pose.off:
                offers.append(_action(f"an ease for {said}", edit_of(path), "soft-landing"))
        return offers

    def ties(self) -> list[dict[str, Any]]:
        """Ties to loosen, as edits with their names."""
        return [
            {"label": f"untie {said}", "edit": {"name": "untie", "path": path, "at": "playhead"}}
            for path, said in ties_of(self.title, self.move)
        ]

    def reach_to_add(self) -> list[dict[str, Any]]:
        """Selectors to add, and those there are to take away."""
        where = {"layer": self.title.id, "move": self.move.id}
        added = [
            {
                "label": label,
                "edit": {"name": "add-selector", **where, "selector": selector},
                "drawing": selector["kind"],
            }
            for kind in SELECTOR_KINDS.values()
            for label, selector in kind.starts(self.scene.size)
        ]
        removed = [
            {
                "label": f"without the {selector_name(selector.kind)}",
                "edit": {"name": "remove-selector", **where, "index": index},
            }
            for index, selector in enumerate(self.move.reach)
        ]
        return added + removed + self._other_ways()

    def _other_ways(self) -> list[dict[str, Any]]:
        """Other ways to say the same of a selector."""
        actions = []
        for index, selector in enumerate(self.move.reach):
            for label, field, value in selector.other_ways:
                here = f"{self.path}.reach.{index}.{field}"
                clear = _clear(label, here)
                actions.append(clear if value is None else _action(label, edit_of(here), value))
        return actions

    def _turn_actions(self) -> list[dict[str, Any]]:
        """Whether units are seen before their turn."""
        path = f"{self.path}.until_turn"
        if self.move.until_turn:
            return [_clear("seen before its turn", path)]
        return [_action("hidden until its turn", edit_of(path), "hidden")]

    def _among_actions(self) -> list[dict[str, Any]]:
        """The selected letters alone, or all."""
        among, actions = f"{self.path}.among", []
        if self._letters:
            value = [list(self._letters)]
            actions.append(_action("the selected letters alone", edit_of(among), value))
        if self.move.among is not None:
            actions.append(_clear("all letters", among))
        return actions

    def _length_actions(self) -> list[dict[str, Any]]:
        """A length, or none; a keyframe of the amount."""
        path = f"{self.path}.amount"
        if not isinstance(self.move.amount, Track):
            keys = [{"at": 0, "value": 1, "ease": "soft-landing"}, {"at": 20, "value": 0}]
            return [_action("give it a length", edit_of(path), {"keys": keys})]
        edit = {"name": "add-key", "path": path, "at": "playhead"}
        key = {"label": "a keyframe of the amount here", "edit": edit}
        return [key, _clear("without a length", path)]

    def _order_actions(self) -> list[dict[str, Any]]:
        """The move once more, turned round, or at another place among the moves."""
        here = {"layer": self.title.id, "move": self.move.id}
        moves = [move.id for move in self.title.moves]
        index = moves.index(self.move.id)
        actions = [
            {"label": "duplicate", "edit": {"name": "duplicate-move", **here}},
        ]
        if self._is_keyed():
            edit = {"name": "turn-move-round", **here}
            actions.append({"label": "turn round", "edit": edit})
        for label, to in (("earlier", index - 1), ("later", index + 1)):
            if 0 <= to < len(moves):
                edit = {"name": "order-move", **here, "to": to}
                actions.append({"label": label, "edit": edit})
        return actions

    def _is_keyed(self) -> bool:
        """Whether anything of the move changes over time."""
        values = [self.move.amount, *self.move.pose.given.values()]
        values += [value for selector in self.move.reach for _, value in selector]
        return any(isinstance(value, Track) for value in values)

    def _dressings(self) -> list[dict[str, Any]]:
        """Follow, pivot and white space, to add or to leave, and colours to leave."""
        move, path = self.move, self.path
        spring = {"frequency": 2.5, "damping": 0.4}
        optional: list[tuple[str, bool, str, Any]] = [
            ("follow", move.follow is not None, "swinging after", spring)
        ]
        if self._is_title:
            optional.append(("pivot", has_pivot(move), "about another point", [0.5, 1]))
        actions = self._markers()
        if move.unit == "character":
            optional.append(("spaces", move.spaces, "white space too", True))
        actions += [
            _clear(f"not {label}", f"{path}.{name}")
            if is_there
            else _action(label, edit_of(f"{path}.{name}"), start)
            for name, is_there, label, start in optional
        ]
        for action in actions:
            if action["edit"]["name"] == "clear-value" and action["edit"]["path"].endswith("pivot"):
                action["edit"]["also"] = [f"{path}.pivot_of"]
        return actions + [
            _clear(f"without {label}", f"{path}.pose.{name}")
            for name, label in _COLORS.items()
            if name in move.pose.given
        ]

    def _markers(self) -> list[dict[str, Any]]:
        """Starting at a marker, or no more."""
        edit = {"name": "start-at-marker", "path": self.path}
        if self.move.marker is not None:
            return [_action("at no marker", edit, None)]
        named = [marker for marker in self.scene.markers if marker.name]
        near = min(named, key=lambda marker: abs(marker.at - self.move.start), default=None)
        return [] if near is None else [_action("at a marker", edit, near.name)]

    def _stagger_actions(self) -> list[dict[str, Any]]:
        stagger, path = self.move.stagger, f"{self.path}.stagger"
        if stagger is None or stagger.times is not None:
            start = {"order": "forward", "gap": 2}
            actions = [_action("one after another", edit_of(path), start)]
            if stagger is None:
                return [*actions, self._times_for_each()]
            return [*actions, _clear("all together", path)]
        kept = stagger.model_dump(exclude_unset=True)
        kept.pop("gap", None)
        span = kept.pop("span", None)
        actions = [_clear("all together", path)]
        largest = self._largest_rank()
        if span is None:
            whole = round((stagger.gap or 0) * largest, 6)
            actions.append(_action("say the whole time", edit_of(path), {**kept, "span": whole}))
        else:
            gap = round(span / largest, 6) if largest else 0
            actions.append(_action("say the gap", edit_of(path), {**kept, "gap": gap}))
        if stagger.groups is not None:
            actions.append(_clear("without groups", f"{path}.groups"))
        else:
            for by in {"character": ("word", "line"), "word": ("line",)}.get(self.move.unit, ()):
                groups = {"by": by, "order": "forward", "gap": 12}
                actions.append(_action(f"{by}s in turn", edit_of(f"{path}.groups"), groups))
        actions.append(self._times_for_each())
        if stagger.ranks is not None:
            ranks = list(range(max(1, len(self._delays()))))
            label = f"a rank for each {self.move.unit}"
            actions.append(_action(label, edit_of(f"{path}.ranks"), ranks))
        return actions

    def _largest_rank(self) -> float:
        """The rank of the last unit: so many gaps make the whole time."""
        units = units_of_move(self.scene, self.title, self.move)
        level = next(
            level
            for level in levels_of(self.move.stagger, units)
            if level.distribution is self.move.stagger
        )
        return float(level.ranks.max(initial=0.0))

    def _times_for_each(self) -> dict[str, Any]:
        """The delays as they are now, each to be set by itself."""
        times = {"times": [round(delay, 2) for delay in self._delays()] or [0]}
        return _action(f"a time for each {self.move.unit}", edit_of(f"{self.path}.stagger"), times)

    def _delays(self) -> list[float]:
        """The delays that the units have now, as many of them as can be said."""
        units = units_of_move(self.scene, self.title, self.move)
        return delays_of(self.move.stagger, units).tolist()[:MOST_TIMES]


def _action(label: str, edit: dict[str, Any], value: Any) -> dict[str, Any]:
    return {"label": label, "edit": {**edit, "value": value}}


def _clear(label: str, path: str) -> dict[str, Any]:
    return {"label": label, "edit": {"name": "clear-value", "path": path}}
