"""The sentence of a style: how a title, or some of its letters, are set."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any

from ...lettering.faces import axes_of, resting_axes
from ...lettering.families import FAMILIES, SHIPPED, Families
from ...scene.layers.title import Run
from ...scene.letters.features import feature_name
from ...scene.letters.languages import LANGUAGES
from ...scene.letters.style import Style
from ...scene.values.measures import DEGREES, WHOLE, Measure
from ...scene.values.value_names import spoken_axis
from ..language.letters import letters_text, quoted
from ..wording.pieces import (
    Choice,
    ColorPiece,
    FontChoice,
    NumberPiece,
    Piece,
    Pieces,
    Unshown,
    Usual,
    joined,
    said,
)
from ..wording.texts import text_of

ALIGNMENTS = (("left", "to the left"), ("center", "centred"), ("right", "to the right"))
FONTS = tuple((name, name) for name in FAMILIES)
SIZE = Measure(" px", drag=0.5, low=1)
TRACKING = Measure(" ‰", drag=1)
OUTLINE_WIDTH = Measure(" px", drag=0.1, low=0)
LEADING = Measure(" ×", drag=0.01, step=0.05, low=0)
FILLS = (
    ("color", "coloured"),
    ("linear", "in a gradient"),
    ("round", "in a round gradient"),
    ("none", "without a fill"),
)
OVERS = (
    ("title", "the whole title"),
    ("line", "each line"),
    ("word", "each word"),
    ("character", "each letter"),
)
_FILL_STARTS: dict[str, Any] = {
    "color": "#FFFFFF",
    "linear": {"kind": "linear", "angle": 90, "colors": ["#F2B705", "#D1495B"]},
    "round": {"kind": "round", "colors": ["#F2B705", "#D1495B"]},
    "none": "none",
}
LINES = replace(WHOLE, low=1, high=100)
# The rules of fitting: how each is said, what it is called, and how it is measured.
FIT = {
    "widest": ("not wider than {}", "Widest", SIZE),
    "least_size": ("at least {} large", "Least size", SIZE),
    "most_lines": ("at most {} lines", "Most lines", LINES),
}
# The clauses, as templates.
WITH, WITHOUT = "with", "without"
SET_IN, SPACED, APART = "Set in {}", "spaced {}", "lines {} apart"
WRITTEN = "written in {}"
OUTLINED, BROKEN = "outline {}", "broken at {} wide"
GRADIENT, TURNED = "{} from {} over {}", "{} turned {}"

EditOf = Callable[[str], dict[str, Any]]


@dataclass(frozen=True)
class StyleOf:
    """A style as plain data, with all that it has; `path` is where it stands in the scene and
    `setting` gives the edit for one of its properties. `whole`: it is that of the whole title;
    `families` are those at hand."""

    style: dict[str, Any]
    path: str
    setting: EditOf
    whole: bool = True
    families: Families = SHIPPED

    def number(
        self, name: str, label: str, value: Any, measure: Measure, rest: float | None = None
    ) -> NumberPiece:
        """A number of it; its chip is known by its name alone, whoever the style belongs to."""
        return NumberPiece(f"type.{name}", label, edit=self.setting(name), value=value,
                      measure=measure, rest=rest)  # fmt: skip

    def color(self, name: str, label: str, value: str) -> ColorPiece:
        return ColorPiece(f"type.{name}", label, edit=self.setting(name), value=value)

    def choice(self, name: str, label: str, value: Any, options: Any, key: str = "") -> Choice:
        return Choice(f"type.{key or name}", label, edit=self.setting(name), value=value,
                      options=tuple(options))  # fmt: skip


def style_text(style: Style, families: Families = SHIPPED) -> str:
    """The style of a whole title as plain text."""
    of = StyleOf(style.model_dump(), "", lambda name: {}, families=families)
    return text_of(say_style(of, style.axes))


def run_text(text: str, run: Run) -> str:
    """The style of some letters of a title as plain text: what they have of their own."""
    return f"Of {letters_text(text, run.first, run.end)}, {run_style_text(run)}."


def run_style_text(run: Run) -> str:
    """What some letters have of their own; nothing if that is nothing."""
    own = run.style.model_dump(exclude_none=True, exclude_defaults=True)
    if "outline_color" in own and "outline" not in own:
        own["outline"] = None
    of = StyleOf({"outline_color": None, **own}, "", lambda name: {}, whole=False)
    parts = [say(of, own.get("axes", {})) for name, say in _OF_RUNS.items() if name in own]
    return text_of(joined(parts))


def say_style(of: StyleOf, given: dict[str, float] | None = None) -> Pieces:
    """Font, axes, size, tracking, fill, outline; for the whole title also leading, alignment and
    the width at which lines are broken. `given` are the axes that the style says itself."""
    style = of.style
    font = _font(of)
    parts = [
        said(f"{SET_IN}{{}}", font, _axes(of, style["axes"] if given is None else given)),
        (of.number("size", "Size", style["size"], SIZE, 120),),
        said(SPACED, of.number("tracking", "Tracking", style["tracking"], TRACKING, 0)),
        _fill(of),
    ]
    if outline := _outline(of):
        parts.append(outline)
    parts += _features(style["features"])
    parts += _language(of)
    if of.whole:
        leading = of.number("leading", "Leading", style["leading"], LEADING, 1.1)
        align = of.choice("align", "Alignment", style["align"], ALIGNMENTS)
        parts += [said(APART, leading), (align,)]
        if style["wrap"] is not None:
            path = f"{of.path}.wrap"
            clears = {"name": "clear-value", "path": path}
            wrap = NumberPiece("type.wrap", "Width", edit=of.setting("wrap"), clears=clears,
                          value=style["wrap"], measure=SIZE)  # fmt: skip
            parts.append(said(BROKEN, wrap))
        parts += _fit(of)
    return said("{}.", joined(parts))


def _font(of: StyleOf) -> FontChoice:
    name = of.style["font"]
    setting = of.setting("font")
    return FontChoice("type.font", "Font", edit=setting, value=name, is_shipped=name in FAMILIES)


def axis_measure(axis: Any) -> Measure:
    """How a design axis of a font is said: by its name, within its range."""
    return Measure(
        "", drag=(axis.high - axis.low) / 300, step=(axis.high - axis.low) / 100 or 1,
        low=axis.low, high=axis.high, before=spoken_axis(axis.tag),
    )  # fmt: skip


ITALICS = ((1, "italic"), (0, "not italic"))


def _axis(
    of: StyleOf, tag: str, label: str, value: float, measure: Measure, rest: float | None = None
) -> Piece:
    """The value of a design axis; whether it is italic, in a word."""
    if tag == "ital" and value in dict(ITALICS):
        return of.choice("axes.ital", "Italic", value, ITALICS)
    return of.number(f"axes.{tag}", label, value, measure, rest)


def _axes(of: StyleOf, given: dict[str, float]) -> Pieces:
    """The design axes of the font, each with its own range; then those that it has not."""
    style = of.style
    family = of.families.or_stand_in(style["font"])
    resting = resting_axes(family, style["size"])
    pieces: list[Piece] = []
    known = axes_of(family) if style["font"] in of.families else ()
    for axis in known:
        value = style["axes"].get(axis.tag, resting[axis.tag])
        number = _axis(of, axis.tag, axis.name, value, axis_measure(axis), resting[axis.tag])
        told = said(" {}" if not pieces else ", {}", number)
        pieces += told if axis.tag in given else (Usual(told),)
    tags = {axis.tag for axis in known}
    for tag in sorted(set(given) - tags):
        number = _axis(of, tag, tag, given[tag], Measure(before=spoken_axis(tag)))
        pieces += said(" {}" if not pieces else ", {}", number)
    return tuple(pieces)


def _fill(of: StyleOf) -> Pieces:
    """A colour, a gradient or nothing; what it is can be chosen."""
    fill = of.style["fill"]
    kind = "none" if fill == "none" else "color" if isinstance(fill, str) else fill["kind"]
    starts = {**_FILL_STARTS, kind: fill}
    options = [(starts[name], words) for name, words in FILLS]
    choice = of.choice("fill", "Fill", fill, options, "fill-kind")
    if kind == "color":
        return said("{} {}", choice, of.color("fill", "Colour", fill))
    if kind == "none":
        return (choice,)
    colors: list[Pieces] = [
        (of.color(f"fill.colors.{n}", f"Colour {n + 1} of the gradient", color),)
        for n, color in enumerate(fill["colors"])
    ]
    over = of.choice("fill.over", "What the gradient runs over", fill.get("over", "title"), OVERS)
    pieces = said(GRADIENT, choice, joined(colors, " to "), over)
    if kind != "linear":
        return pieces
    angle = of.number("fill.angle", "Angle of the gradient", fill.get("angle", 90), DEGREES, 90)
    return said(TURNED, pieces, angle)


def _outline(of: StyleOf) -> Pieces:
    width = of.style["outline"]
    if not width and not of.whole:
        number = of.number("outline", "Outline", width, OUTLINE_WIDTH, 0)
        return said(OUTLINED, number)
    color = of.style["outline_color"]
    if not width:
        # A colour that is kept for an outline to come.
        return () if color == "#000000" else (_without(of, color),)
    number = of.number("outline", "Outline", width, OUTLINE_WIDTH, 0)
    chip = of.color("outline_color", "Colour of the outline", color)
    return said(f"{OUTLINED} {{}}", number, chip)


def _without(of: StyleOf, color: str) -> Piece:
    """An outline of no width, which pages do not show."""
    return Unshown(f"outline 0 px {color}")


def _fit(of: StyleOf) -> list[Pieces]:
    """The rules that the size keeps."""
    found: list[Pieces] = []
    for name, (template, label, measure) in FIT.items():
        value = of.style[name]
        if value is not None:
            clears = {"name": "clear-value", "path": f"{of.path}.{name}"}
            number = NumberPiece(f"type.{name}", label, edit=of.setting(name), clears=clears,
                            value=value, measure=measure)  # fmt: skip
            found.append(said(template, number))
    return found


def _features(given: dict[str, bool]) -> list[Pieces]:
    """What is chosen of the font's letters, and what is left out of them."""
    found: list[Pieces] = []
    names = [feature_name(tag) for tag, is_on in given.items() if is_on]
    if names:
        found.append(said(f"{WITH} {' and '.join(names)}"))
    left = [f"{WITHOUT} {feature_name(tag)}" for tag, is_on in given.items() if not is_on]
    if left:
        found.append(said(" and ".join(left)))
    return found


def _language(of: StyleOf) -> list[Pieces]:
    """The language of the text, where it is said."""
    tag = of.style.get("language")
    if tag is None:
        return []
    names = LANGUAGES if tag in LANGUAGES else {**LANGUAGES, tag: tag}
    options = [(each, quoted(name)) for each, name in names.items()]
    choice = of.choice("language", "Language of the text", tag, [*options, (None, "no language")])
    return [said(WRITTEN, choice)]


def _own_axes(of: StyleOf, given: dict[str, float]) -> Pieces:
    """Axes by their names, whatever the font has."""
    numbers: list[Pieces] = [
        (_axis(of, tag, tag, value, Measure(before=spoken_axis(tag))),)
        for tag, value in given.items()
    ]
    return joined(numbers)


def _own_outline(of: StyleOf) -> Pieces:
    """A width, a colour, or both."""
    width, color = of.style["outline"], of.style["outline_color"]
    parts: list[Pieces] = []
    if width is not None:
        parts.append((of.number("outline", "Outline", width, OUTLINE_WIDTH),))
    if color is not None:
        parts.append((of.color("outline_color", "Colour of the outline", color),))
    return said(OUTLINED, joined(parts, " "))


# What letters may have of their own.
_OF_RUNS: dict[str, Callable[[StyleOf, dict[str, float]], Pieces]] = {
    "font": lambda of, _: said(SET_IN, _font(of)),
    "axes": _own_axes,
    "features": lambda of, _: joined(_features(of.style["features"])),
    "language": lambda of, _: joined(_language(of)),
    "size": lambda of, _: (of.number("size", "Size", of.style["size"], SIZE),),
    "tracking": lambda of, _: said(
        SPACED, of.number("tracking", "Tracking", of.style["tracking"], TRACKING)
    ),
    "fill": lambda of, _: _fill(of),
    "outline": lambda of, _: _own_outline(of),
}
