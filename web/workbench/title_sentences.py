"""Sentences about a title: how it is set, and where it stands."""

from collections.abc import Callable
from typing import Any

from django.utils.html import format_html
from django.utils.safestring import SafeString

from balletto.lettering.faces import axes_of, resting_axes
from balletto.lettering.families import FAMILIES
from balletto.scene.document import Title
from balletto.scene.tracks import Track

from . import chips
from .chips import Chip, Measure, choice_chip, color_chip, number_chip
from .words import edit_of, join, tight

ALIGNMENTS = [("left", "to the left"), ("center", "centred"), ("right", "to the right")]


class TypeSentence:
    """How a title, or the letters selected in it, are set."""

    def __init__(self, title: Title, letters: tuple[int, int] | None = None):
        self.title = title
        self.letters = letters
        self.style = title.style.model_dump()
        if letters:
            own = next((run.style for run in title.runs if run.first <= letters[0] < run.end), None)
            said = own.model_dump(exclude_none=True) if own else {}
            axes = {**self.style["axes"], **said.get("axes", {})}
            self.style = {**self.style, **said, "axes": axes}

    def _chip(self, name: str, label: str) -> Chip:
        edit = edit_of(f"{self.title.id}.style.{name}")
        if self.letters:
            first, end = self.letters
            edit = {
                "name": "style-letters",
                "layer": self.title.id,
                "first": first,
                "end": end,
                "property": name,
            }
        return Chip(f"type.{name}", edit, label)

    def axes(self) -> SafeString:
        """The design axes of the font, each with its own range."""
        font = self.style["font"]
        resting = resting_axes(font, self.style["size"])
        said = []
        for axis in axes_of(font):
            measure = Measure(
                "", drag=(axis.high - axis.low) / 300, step=(axis.high - axis.low) / 100 or 1,
                low=axis.low, high=axis.high, before=AXIS_NAMES.get(axis.tag, axis.name).lower(),
            )  # fmt: skip
            value = self.style["axes"].get(axis.tag, resting[axis.tag])
            chip = self._chip(f"axes.{axis.tag}", axis.name)
            said.append(number_chip(chip, value, measure, rest=resting[axis.tag]))
        return join(said)

    def sentence(self) -> SafeString:
        """Font, axes, size, tracking, colour; for the whole title also leading and alignment."""
        fonts = [(name, name) for name in FAMILIES]
        axes = self.axes()
        said = format_html(
            "Set in {}{}, {}, spaced {}, coloured {}",
            choice_chip(self._chip("font", "Font"), self.style["font"], fonts),
            format_html(" {}", axes) if axes else "",
            number_chip(self._chip("size", "Size"), self.style["size"], _SIZE, rest=120),
            number_chip(
                self._chip("tracking", "Tracking"), self.style["tracking"], _TRACKING, rest=0
            ),
            color_chip(self._chip("fill", "Colour"), self.style["fill"]),
        )
        if self.letters:
            return tight(format_html("{}.", said))
        whole = format_html(
            "{}, lines {} apart, {}.",
            said,
            number_chip(
                self._chip("leading", "Leading"), self.style["leading"], _LEADING, rest=1.1
            ),
            choice_chip(self._chip("align", "Alignment"), self.style["align"], ALIGNMENTS),
        )
        return tight(whole)


AXIS_NAMES = {
    "wght": "weight", "wdth": "width", "opsz": "optical size", "slnt": "slant", "CASL": "casual",
    "CRSV": "cursive", "MONO": "mono", "SOFT": "softness", "WONK": "wonk",
}  # fmt: skip
_SIZE = Measure(" px", drag=0.5, low=1)
_TRACKING = Measure(" ‰", drag=1)
_LEADING = Measure(" ×", drag=0.01, step=0.05, low=0.05)


def place_sentence(title: Title, now: Callable[[Any], Any]) -> SafeString:
    """Where a title stands. `now` gives the value that a property has at the playhead."""
    base = f"{title.id}.transform"
    transform = title.transform

    def part(
        name: str, label: str, measure: Measure, index: int | None, rest: float | None
    ) -> SafeString:
        value = getattr(transform, name)
        at_playhead = now(value)
        path = f"{base}.{name}" if index is None else f"{base}.{name}.{index}"
        return number_chip(
            Chip(path, edit_of(path), label),
            at_playhead if index is None else at_playhead[index],
            measure,
            rest=rest,
            keyed=isinstance(value, Track),
            key_path=f"{base}.{name}",
        )

    whole = format_html(
        "Stands {} across, {} down and {}, turned {}, {} wide and {} high, {} opaque.",
        part("position", "Across", chips.PIXELS, 0, None),
        part("position", "Down", chips.PIXELS, 1, None),
        part("position", "Depth", chips.NEARER_DEEPER, 2, 0),
        part("rotation", "Turn", chips.DEGREES, 2, 0),
        part("scale", "Width", chips.PERCENT_OF_ONE, 0, 1),
        part("scale", "Height", chips.PERCENT_OF_ONE, 1, 1),
        part("opacity", "Opacity", chips.OPACITY, None, 1),
    )
    return tight(whole)
