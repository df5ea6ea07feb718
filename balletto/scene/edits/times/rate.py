"""The edit of the frame rate, under which everything keeps its seconds."""

from typing import Any

from ...changes import Change
from ...document import Scene, rate_of
from ...errors import SceneError
from ...layers import AnyLayer
from ...model import Counts
from ...rewriting import Mark, Rewriter, Where, mark_at
from ..base import Document, Edit, edit
from ..paths import pointer_to

FRAMES = (Counts.MOMENT, Counts.DURATION)
_DIGITS = 12  # so many that a tick of a shake stays on its frame


@edit("set-rate")
class SetRate(Edit):
    """Sets the frame rate, as "25" or "30000/1001": every frame moves to where its second is."""

    passes_locks = True

    value: str

    def changes(self, document: Document) -> list[Change]:
        try:
            factor = float(rate_of(self.value) / rate_of(document["rate"]))
        except (ValueError, ZeroDivisionError):
            told = 'a rate from 1 to 240 frames a second is needed, as "30" or "30000/1001"'
            raise SceneError.at("rate", told) from None
        length = max(1, round(document["length"] * factor))
        changes = [Change("put", ("rate",), self.value), Change("put", ("length",), length)]
        in_rate = InRate(factor, document)
        for index, layer in enumerate(document.get("layers", [])):
            first, end = layer["span"]
            is_whole = end == document["length"]
            scaled = {
                **in_rate.rewritten(AnyLayer, layer),
                "span": [_times(first, factor), length if is_whole else _times(end, factor)],
            }
            changes.append(Change("put", ("layers", index), scaled))
        if "markers" in document:
            markers = in_rate.rewritten(_MARKERS, document["markers"])
            changes.append(Change("put", ("markers",), markers))
        return changes

    def label(self, document: Document) -> str:
        return f"Rate: {_said(document['rate'])} to {_said(self.value)} frames a second"


def _said(rate: str) -> str:
    try:
        return f"{float(rate_of(rate)):.6g}"
    except (ValueError, ZeroDivisionError):
        return rate


def _times(frames: float, factor: float) -> float:
    scaled = round(frames * factor, _DIGITS)
    return int(scaled) if scaled == int(scaled) else scaled


_MARKERS = Scene.model_fields["markers"].annotation


class InRate(Rewriter):
    """Plain data of a scene with all its frames `factor` times as many.

    document: where ties of the data lead; None if there are none
    """

    def __init__(self, factor: float, document: Document | None = None):
        self._factor, self._document = factor, document

    def number(self, value: float, mark: Mark, where: Where) -> float:
        return _times(value, self._factor) if mark.counts in FRAMES else value

    def tie(self, tie: dict[str, Any], mark: Mark | None, where: Where) -> dict[str, Any]:
        """A tie of which is scaled what it adds, if that is a number of frames; what it follows
        has become larger if that is one."""
        own = self._factor_of(mark)
        followed = self._factor_of(self._followed(tie["to"]))
        scaled = {**tie}
        if own != followed:
            scaled["gain"] = tie.get("gain", 1) * own / followed
        for name, times in (("plus", own), ("delay", self._factor)):
            if name in tie:
                scaled[name] = _times(tie[name], times)
        return scaled

    def _factor_of(self, mark: Mark | None) -> float:
        return self._factor if mark and mark.counts in FRAMES else 1.0

    def _followed(self, path: str) -> Mark | None:
        if self._document is None:
            return None
        try:
            return mark_at(Scene, self._document, pointer_to(self._document, path))
        except SceneError:
            return None
