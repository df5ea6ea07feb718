"""What a layer wears, as sentences: its effects, masks, matte and open shutter.

A new kind of effect or mask has its line here.
"""

from dataclasses import dataclass
from typing import Any

from django.utils.safestring import SafeString

from balletto.scene import measures
from balletto.scene.document import Scene
from balletto.scene.effects import EFFECT_KINDS
from balletto.scene.layers import Layer
from balletto.scene.measures import Measure

from .phrases import NOW, Moment, tight
from .sentence_parts import Said, Sentence, SentencePart

_AMOUNT = Measure(" %", drag=0.5, low=0)
_SHARE = Measure(" %", drag=0.5, low=0, high=100)
_OPAQUE = measures.OPACITY
_GAP = Measure(" frames", drag=0.02, step=0.25, low=0.01, one=" frame")
_COPIES = Measure(" copies", drag=0.1, low=1, high=200, one=" copy")
_SAMPLES = Measure(" samples", drag=0.1, low=2, high=64, one=" sample")
_SHUTTER = Measure("°", drag=1, low=0, high=360)
PACES = tuple((f"{times}/s", f"{times} times a second") for times in (4, 6, 8, 9, 12, 15, 24))

EFFECTS: dict[str, Sentence] = {
    "blur": Sentence(
        "Blur",
        "Blurred {x} across and {y} down.",
        {"x": Said("Blur across", measures.BLUR, 12), "y": Said("Blur down", measures.BLUR, 12)},
    ),
    "directional-blur": Sentence(
        "Directional blur",
        "Smeared over {length} along {angle}.",
        {
            "length": Said("Length of the smear", measures.LENGTH_PX, 60),
            "angle": Said("Direction of the smear", measures.DEGREES, 0),
        },
    ),
    "zoom-blur": Sentence(
        "Zoom blur",
        "Smeared by {amount} away from {x} across, {y} down of the picture.",
        {
            "amount": Said("Amount of the smear", _AMOUNT, 20),
            "x": Said("Point across", measures.PERCENT, 50),
            "y": Said("Point down", measures.PERCENT, 50),
        },
    ),
    "glow": Sentence(
        "Glow",
        "Glows {strength} strong, {radius} around.",
        {
            "strength": Said("Strength of the glow", _AMOUNT, 100),
            "radius": Said("Reach of the glow", measures.BLUR, 24),
        },
    ),
    "shadow": Sentence(
        "Shadow",
        "Each casts a shadow {x} and {y}, {softness} soft, {color}, {opacity} opaque.",
        {
            "x": Said("Shadow to the side", measures.LEFT_RIGHT, 0),
            "y": Said("Shadow above or below", measures.ABOVE_BELOW, 10),
            "softness": Said("Softness of the shadow", measures.BLUR, 8),
            "color": Said("Colour of the shadow", is_color=True),
            "opacity": Said("Opacity of the shadow", _OPAQUE, 0.6),
        },
    ),
    "tint": Sentence(
        "Tint",
        "Tinted {color} by {amount}.",
        {
            "color": Said("Colour of the tint", is_color=True),
            "amount": Said("Amount of the tint", _SHARE, 100),
        },
    ),
    "hue": Sentence(
        "Hue and saturation",
        "Hues turned by {turn}, {saturation} full.",
        {
            "turn": Said("Turn of the hues", measures.DEGREES, 0),
            "saturation": Said("Saturation", _AMOUNT, 100),
        },
    ),
    "light": Sentence(
        "Brightness and contrast",
        "{brightness} bright, {contrast} of contrast.",
        {
            "brightness": Said("Brightness", _AMOUNT, 100),
            "contrast": Said("Contrast", _AMOUNT, 100),
        },
    ),
    "outline": Sentence(
        "Outline of the whole",
        "A line of {width} around all of it, {color}.",
        {
            "width": Said("Width of the line", measures.LENGTH_PX, 6),
            "color": Said("Colour of the line", is_color=True),
        },
    ),
    "trail": Sentence(
        "Trail",
        "Trails {copies}, one every {gap}, each {fade} as opaque and {shrink} as large as the one "
        "before, as outlines of {outline}.",
        {
            "copies": Said("Copies of the trail", _COPIES),
            "gap": Said("Frames between copies", _GAP),
            "fade": Said("Fade from copy to copy", measures.OPACITY, 0.85),
            "shrink": Said("Size from copy to copy", measures.PERCENT_OF_ONE, 1),
            "outline": Said("Width of outlines, 0 for whole letters", measures.LENGTH_PX, 0),
        },
    ),
    "displace": Sentence(
        "Displacement",
        "Outlines pushed by {amount} in bumps of {size}, anew {every}, chance {seed}.",
        {
            "amount": Said("Amount of the displacement", measures.BLUR, 6),
            "size": Said("Size of the bumps", Measure(" px", drag=1, low=1), 40),
            "every": Said("How often", options=PACES),
            "seed": Said("Chance of the displacement", measures.WHOLE),
        },
    ),
}

_MODES = (("add", "added to"), ("subtract", "taken from"), ("intersect", "as far as also in"))
_SIDES = ((False, "inside"), (True, "outside"))
_PLACES = ((False, "moving with the layer"), (True, "standing in the picture"))
_MASK_WORDS = (
    "Seen {invert} {form} at {center}, turned {rotation}, {feather} soft, {expand} wider, "
    "{opacity} dense, {fixed}, {mode} those before."
)
_MASK_VALUES = {
    "invert": Said("Side of the mask", options=_SIDES),
    "center": Said("Middle of the mask", is_point=True),
    "rotation": Said("Turn of the mask", measures.DEGREES, 0),
    "feather": Said("Feather", measures.BLUR, 0),
    "expand": Said("Expansion", measures.PIXELS, 0),
    "opacity": Said("Density of the mask", measures.OPACITY, 1),
    "fixed": Said("What the mask moves with", options=_PLACES),
    "mode": Said("How it joins the masks before", options=_MODES),
}


def _mask(title: str, form: str, **values: Said) -> Sentence:
    return Sentence(title, _MASK_WORDS.replace("{form}", form), {**values, **_MASK_VALUES})


MASKS: dict[str, Sentence] = {
    "rectangle": _mask(
        "Rectangle mask",
        "a rectangle of {size}, corners of {corner},",
        size=Said("Size of the mask", is_pair=True),
        corner=Said("Corners of the mask", measures.LENGTH_PX, 0),
    ),
    "ellipse": _mask(
        "Ellipse mask", "an ellipse of {size}", size=Said("Size of the mask", is_pair=True)
    ),
    "path": _mask("Path mask", "a path"),
}

SHUTTER = Sentence(
    "Motion blur",
    "Blurred by motion while a shutter is open for {angle} of a frame, {phase} late, seen in "
    "{samples}.",
    {
        "angle": Said("Angle of the shutter", _SHUTTER, 180),
        "phase": Said("Phase of the shutter", measures.DEGREES, 0),
        "samples": Said("Samples", _SAMPLES),
    },
)

_WAYS = (("alpha", "opaque"), ("luminance", "light"))
_NOT = ((False, "where"), (True, "except where"))
_STAYS = ((False, "is not drawn itself"), (True, "stays visible"))


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
        return tight(self.words.sentence())

    @property
    def more(self) -> list[SafeString]:
        return self.words.more()


def appearance_cards(scene: Scene, layer: Layer, moment: Moment = NOW) -> list[AppearanceCard]:
    """All that a layer wears, in the order in which it is put on, as it is at a moment."""
    return [
        *_effects(layer, moment),
        *_masks(layer, moment),
        *_matte(scene, layer),
        *_shutter(layer, moment),
    ]


def _effects(layer: Layer, moment: Moment) -> list[AppearanceCard]:
    cards = []
    for index, effect in enumerate(layer.effects):
        path, sentence = f"{layer.id}.effects.{index}", EFFECTS[effect.kind]
        here = {"layer": layer.id, "index": index}
        earlier = {"name": "move-effect", **here, "to": index - 1} if index else None
        words = SentencePart(path, effect, _with_color(sentence, effect), moment)
        remove = {"name": "remove-effect", **here}
        cards.append(AppearanceCard(path, sentence.title, words, remove, effect.on, earlier))
    return cards


def _with_color(sentence: Sentence, effect: Any) -> Sentence:
    """A glow says its colour where it has one of its own."""
    if effect.kind != "glow" or effect.color is None:
        return sentence
    colored = {**sentence.values, "color": Said("Colour of the glow", is_color=True)}
    return Sentence(sentence.title, f"{sentence.words[:-1]}, {{color}}.", colored)


def _masks(layer: Layer, moment: Moment) -> list[AppearanceCard]:
    cards = []
    for index, mask in enumerate(layer.masks):
        path, sentence = f"{layer.id}.masks.{index}", MASKS[mask.kind]
        remove = {"name": "remove-mask", "layer": layer.id, "index": index}
        words = SentencePart(path, mask, sentence, moment)
        cards.append(AppearanceCard(path, sentence.title, words, remove, mask.on))
    return cards


def _matte(scene: Scene, layer: Layer) -> list[AppearanceCard]:
    if layer.matte is None:
        return []
    path = f"{layer.id}.matte"
    sources = tuple((other.id, said) for other, said in matte_sources(scene, layer))
    sentence = Sentence(
        "Matte",
        "Seen {invert} {layer} is {by}, which {visible}.",
        {
            "invert": Said("Side of the matte", options=_NOT),
            "layer": Said("Layer of the matte", options=sources),
            "by": Said("What of it counts", options=_WAYS),
            "visible": Said("Whether it is drawn", options=_STAYS),
        },
    )
    words = SentencePart(path, layer.matte, sentence)
    return [AppearanceCard(path, sentence.title, words, {"name": "clear-value", "path": path})]


def matte_sources(scene: Scene, layer: Layer) -> list[tuple[Layer, str]]:
    """The layers that may be the matte of one: none that need it to be drawn themselves."""
    around = {group.id for group in scene.groups_of(layer)}
    inside = {member.id for member in scene.members_of(layer.id)}
    return [
        (other, f"“{layer_name(other)}”")
        for other in scene.layers
        if other.id not in {layer.id, *around, *inside}
        and (other.matte is None or other.matte.layer != layer.id)
    ]


def _shutter(layer: Layer, moment: Moment) -> list[AppearanceCard]:
    if layer.motion_blur is None:
        return []
    path = f"{layer.id}.motion_blur"
    words = SentencePart(path, layer.motion_blur, SHUTTER, moment)
    remove = {"name": "clear-value", "path": path}
    return [AppearanceCard(path, SHUTTER.title, words, remove, layer.motion_blur.on)]


KIND_NAMES = {
    "title": "Title",
    "shape": "Shape",
    "picture": "Picture",
    "video": "Video",
    "scene": "Scene",
    "sound": "Sound",
    "group": "Group",
    "adjustment": "Adjustment",
}
# Layers that draw something themselves.
_DRAWING = ("title", "shape", "picture", "video", "scene")


def layer_name(layer: Layer) -> str:
    """What a layer is called: by its name, its words, or its kind."""
    return layer.name or layer.words or KIND_NAMES[layer.kind]


def appearance_to_add(scene: Scene, layer: Layer) -> list[tuple[str, list[dict[str, Any]]]]:
    """What can be put on, in groups: each with what it is called and the edit that does it."""
    if layer.kind == "sound":
        return []
    groups = [
        (
            "Effects",
            [
                _adding(EFFECTS[kind].title, "add-effect", layer, effect={"kind": kind})
                for kind in EFFECT_KINDS
                if _suits(kind, layer)
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
    if layer.matte is None and sources and layer.kind != "adjustment":
        value = {"layer": sources[-1][0].id}
        edit = {"name": "set-value", "path": f"{layer.id}.matte", "value": value}
        other.append({"label": "matte", "edit": edit})
    if layer.motion_blur is None and layer.kind in _DRAWING:
        path = f"{layer.id}.motion_blur"
        edit = {"name": "set-value", "path": path, "value": {"angle": 180}}
        other.append({"label": "motion blur", "edit": edit})
    return [*groups, *([("Others", other)] if other else [])]


# What works on what a layer draws itself, and on its outlines.
_ON_DRAWING, _ON_OUTLINES = ("shadow", "trail"), ("displace",)


def _suits(kind: str, layer: Layer) -> bool:
    """Whether an effect has something to work on."""
    if kind in _ON_OUTLINES:
        return layer.kind in ("title", "shape")
    return kind not in _ON_DRAWING or layer.kind in _DRAWING


def _adding(label: str, name: str, layer: Layer, **what: Any) -> dict[str, Any]:
    return {"label": label.lower(), "edit": {"name": name, "layer": layer.id, **what}}
