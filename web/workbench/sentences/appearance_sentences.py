"""What a layer wears, as sentences: its effects, masks, matte and open shutter."""

from dataclasses import dataclass
from typing import Any

from django.utils.safestring import SafeString

from balletto.scene.document import Scene
from balletto.scene.effects import EFFECT_KINDS, Effect
from balletto.scene.layers import Layer
from balletto.scene.layers.title import Title
from balletto.scene.letters.along import along_wording, shapes_of
from balletto.scene.letters.caret import CARET
from balletto.scene.letters.windows import WINDOW
from balletto.scene.moving.motion_blur import SHUTTER
from balletto.scene.starts import new_caret, new_clicks
from balletto.scene.values.wording import Wording
from balletto.sentences.layers.mattes import MATTE, say_matte
from balletto.sentences.wording.pieces import Choice, Pieces

from .phrases import NOW, Moment, shown
from .sentence_parts import SentencePart

_MOST_OFFERED = 8  # layers to come from behind, or to stand along


@dataclass(frozen=True)
class AppearanceCard:
    """An effect, mask, matte or shutter of a layer, in the column of what it wears.

    path: where it stands; remove: the edit that takes it away; earlier: that which moves it up
    """

    path: str
    title: str
    words: SentencePart
    remove: dict[str, Any]
    on: bool | None = None
    earlier: dict[str, Any] | None = None

    @property
    def came(self) -> dict[str, Any] | None:
        """The edit that puts an effect or a mask back to what it was when it was added."""
        is_part = ".effects." in self.path or ".masks." in self.path
        return {"name": "as-it-came", "path": self.path} if is_part else None

    @property
    def remove_said(self) -> str:
        return f"Remove {self.title.lower()}"

    @property
    def sentence(self) -> SafeString:
        return self.words.sentence()

    @property
    def more(self) -> list[SafeString]:
        return self.words.more()


def appearance_cards(scene: Scene, layer: Layer, moment: Moment = NOW) -> list[AppearanceCard]:
    """All that a layer wears, in the order in which it is put on, as it is at a moment."""
    return [
        *_effects(layer, moment),
        *_masks(layer, moment),
        *_matte(scene, layer),
        *_of_titles(layer),
        *_along(scene, layer, moment),
        *_shutter(layer, moment),
    ]


def _effects(layer: Layer, moment: Moment) -> list[AppearanceCard]:
    cards = []
    for index, effect in enumerate(layer.effects):
        path, title = f"{layer.id}.effects.{index}", effect.wording.title
        here = {"layer": layer.id, "index": index}
        earlier = {"name": "move-effect", **here, "to": index - 1} if index else None
        words = SentencePart(path, effect, effect.said, moment)
        remove = {"name": "remove-effect", **here}
        cards.append(AppearanceCard(path, title, words, remove, effect.on, earlier))
    return cards


def _masks(layer: Layer, moment: Moment) -> list[AppearanceCard]:
    cards = []
    for index, mask in enumerate(layer.masks):
        path = f"{layer.id}.masks.{index}"
        remove = {"name": "remove-mask", "layer": layer.id, "index": index}
        words = SentencePart(path, mask, mask.wording, moment)
        cards.append(AppearanceCard(path, mask.wording.title, words, remove, mask.on))
    return cards


def _matte(scene: Scene, layer: Layer) -> list[AppearanceCard]:
    if layer.matte is None:
        return []
    path = f"{layer.id}.matte"
    sources = tuple((other.id, said) for other, said in matte_sources(scene, layer))
    words = _MattePart(path, layer.matte, MATTE, sources)
    return [AppearanceCard(path, MATTE.title, words, {"name": "clear-value", "path": path})]


class _MattePart(SentencePart):
    """A matte, whose layer is chosen among those that may be it."""

    def __init__(self, path: str, part: Any, wording: Wording, sources: tuple[Any, ...]):
        super().__init__(path, part, wording)
        self._sources = sources

    def sentence(self, **others: Pieces) -> SafeString:
        return shown(say_matte(self.path, self.part, self._sources))


def matte_sources(scene: Scene, layer: Layer) -> list[tuple[Layer, str]]:
    """The layers that may be the matte of one: none that need it to be drawn themselves."""
    around = {group.id for group in scene.groups_of(layer)}
    inside = {member.id for member in scene.members_of(layer.id)}
    return [
        (other, f"“{other.called}”")
        for other in scene.layers
        if other.id not in {layer.id, *around, *inside}
        and (other.matte is None or other.matte.layer != layer.id)
    ]


def hiders(scene: Scene, layer: Layer) -> list[tuple[Layer, str]]:
    """The layers that one may come out from behind: those in front of it that can be seen."""
    place = scene.layers.index(layer)
    return [
        (other, f"“{other.called}”")
        for other in scene.layers[place + 1 :]
        if other.has_place and other.group == layer.group
    ]


def _of_titles(layer: Layer) -> list[AppearanceCard]:
    """A window and a caret."""
    cards = []
    for name, wording in (("window", WINDOW), ("caret", CARET)):
        part = getattr(layer, name, None)
        if part is not None:
            path = f"{layer.id}.{name}"
            remove = {"name": "clear-value", "path": path}
            cards.append(
                AppearanceCard(path, wording.title, SentencePart(path, part, wording), remove)
            )
    return cards


class _AlongPart(SentencePart):
    """The path of a title, which is chosen among the shapes."""

    def sentence(self, **others: Pieces) -> SafeString:
        said, path = self._wording.values["layer"], f"{self.path}.layer"
        edit = {"name": "stand-along", "layer": self.path.partition(".")[0]}
        choice = Choice(path, said.label, value=self.part.layer, options=said.options, edit=edit)
        return super().sentence(layer=(choice,), **others)


def _along(scene: Scene, layer: Layer, moment: Moment) -> list[AppearanceCard]:
    along = getattr(layer, "along", None)
    if along is None:
        return []
    path = f"{layer.id}.along"
    words = _AlongPart(path, along, along_wording(scene), moment)
    return [AppearanceCard(path, "Path", words, {"name": "straighten", "layer": layer.id})]


def _shutter(layer: Layer, moment: Moment) -> list[AppearanceCard]:
    if layer.motion_blur is None:
        return []
    path = f"{layer.id}.motion_blur"
    words = SentencePart(path, layer.motion_blur, SHUTTER, moment)
    remove = {"name": "clear-value", "path": path}
    return [AppearanceCard(path, SHUTTER.title, words, remove, layer.motion_blur.on)]


def appearance_to_add(scene: Scene, layer: Layer) -> list[tuple[str, list[dict[str, Any]]]]:
    """What can be put on, in groups: each with what it is called and the edit that does it."""
    if layer.is_heard:
        return []
    groups = [
        (
            "Effects",
            [
                _adding(effect.wording.title, "add-effect", layer, effect={"kind": kind})
                for kind, effect in EFFECT_KINDS.items()
                if _suits(effect, layer)
            ],
        ),
        (
            "Masks",
            [
                _adding("rectangle", "add-mask", layer, mask={"kind": "rectangle"}),
                _adding("ellipse", "add-mask", layer, mask={"kind": "ellipse"}),
            ],
        ),
    ]
    other = []
    sources = matte_sources(scene, layer)
    if layer.matte is None and sources and not layer.works_below:
        value = {"layer": sources[-1][0].id}
        edit = {"name": "set-value", "path": f"{layer.id}.matte", "value": value}
        other.append({"label": "matte", "edit": edit})
    if layer.has_place:
        for each, said in hiders(scene, layer)[:_MOST_OFFERED]:
            edit = {"name": "behind", "layer": layer.id, "other": each.id}
            other.append({"label": f"from behind {said}", "edit": edit})
    if isinstance(layer, Title):
        other += _for_titles(scene, layer)
    if layer.motion_blur is None and layer.draws_itself:
        path = f"{layer.id}.motion_blur"
        edit = {"name": "set-value", "path": path, "value": {"angle": 180}}
        other.append({"label": "motion blur", "edit": edit})
    return [*groups, *([("Others", other)] if other else [])]


def _for_titles(scene: Scene, title: Title) -> list[dict[str, Any]]:
    """A window, what goes with a move, and a path among the shapes."""
    found = []
    if title.window is None:
        soft = round(title.style.size / 6)
        # As much larger as it is soft, so that letters at rest are whole.
        value = {"of": "line", "grow": [0, soft, 0, soft], "soft": [0, soft, 0, soft]}
        edit = {"name": "set-value", "path": f"{title.id}.window", "value": value}
        found.append({"label": "window", "edit": edit})
    if title.moves:
        data, move = title.model_dump(by_alias=True), title.moves[-1].id
        if title.caret is None:
            value = new_caret(data, move)
            edit = {"name": "set-value", "path": f"{title.id}.caret", "value": value}
            found.append({"label": "caret", "edit": edit})
        edit = {"name": "add-layer", "layer": new_clicks(data, move)}
        found.append({"label": "clicks", "edit": edit})
    if title.along is None:
        for shape in shapes_of(scene)[-_MOST_OFFERED:]:
            edit = {"name": "stand-along", "layer": title.id, "value": shape.id}
            found.append({"label": f"along “{shape.called}”", "edit": edit})
    return found


def _suits(effect: type[Effect], layer: Layer) -> bool:
    """Whether an effect has something to work on."""
    if effect.works_on == "outlines":
        return layer.has_outlines
    return effect.works_on == "picture" or layer.draws_itself


def _adding(label: str, name: str, layer: Layer, **what: Any) -> dict[str, Any]:
    return {"label": label.lower(), "edit": {"name": name, "layer": layer.id, **what}}
