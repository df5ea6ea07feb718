"""A band that travels over the title, with a soft edge on either side."""

from dataclasses import replace
from typing import Annotated, Any, ClassVar, Literal

import numpy as np

from ..eases import Ease, ease_function
from ..model import Counts, Number, Percent
from ..orders import Ordered, ranks_of
from ..pose import Asked
from ..values import measures
from ..values.tracks import Changing, value_at
from ..values.wording import Said
from .base import SelectedUnits, Selector, values_of

Softness = Annotated[float, Number("a softness", Counts.PART, ge=0, le=1_000_000)]
_MEASURES = (("percent", "counted in percent"), ("units", "counted in units"))


class Sweep(Selector, Ordered):
    """A band over the title: from low+travel to high+travel, softened at either side."""

    rank: ClassVar = 10
    title: ClassVar = "sweep"
    also: ClassVar = ("sweeping",)
    values: ClassVar = {
        **values_of(
            "sweep",
            low=Said("Start", measures.PERCENT, 0),
            high=Said("End", measures.PERCENT, 100),
            travel=Said("Travel", measures.PERCENT, 0),
            soft_low=Said("Back softness", measures.SOFTNESS, 0),
            soft_high=Said("Front softness", measures.SOFTNESS, 0),
            order=Said("Order", is_order=True),
        ),
        "measure": Said("Measure of the band", options=_MEASURES),
        "edge": Said("Edges", is_ease=True),
    }

    kind: Literal["sweep"]
    low: Changing[Percent] = 0
    high: Changing[Percent] = 100
    travel: Changing[Percent] = 0
    soft_low: Changing[Softness] = 0
    soft_high: Changing[Softness] = 0
    measure: Literal["percent", "units"] = "percent"
    edge: Ease = "linear"

    @property
    def words(self) -> str:
        return (
            "a sweep from {low} to {high} of the title, {order}, travelling {travel}, "
            "soft {soft_low} behind and {soft_high} in front"
        )

    @property
    def less_used(self) -> str:
        return "strength {strength}, {measure}, edges {edge}"

    @property
    def said(self) -> dict[str, Said]:
        if self.measure == "percent":
            return self.values
        counted = ("low", "high", "travel", "soft_low", "soft_high")
        return {
            name: replace(said, measure=measures.UNITS) if name in counted else said
            for name, said in self.values.items()
        }

    @classmethod
    def starts(cls, size: tuple[int, int]) -> list[tuple[str, dict[str, Any]]]:
        soft = {"soft_low": 20, "soft_high": 20}
        return [("a sweep", {"kind": "sweep", "low": 0, "high": 40, **soft})]

    def weights(self, units: SelectedUnits, times: np.ndarray, asked: Asked) -> np.ndarray:
        """Weights (times, units): the mean of the band's profile over the cell of each unit.

               ___________            the band reaches from low to high, both moved by travel
              /           |           here: soft_low > 0, soft_high = 0
        _____/            |_______
            low          high

        Unit i owns the cell from rank i to rank i + 1, in units or as percent of all units. A band
        that passes a letter therefore takes it gradually, even with hard edges.
        """
        low, high, soft_low, soft_high = band_of(self, times)
        cells = 1.0 if self.measure == "units" else 100 / max(len(units), 1)
        ranks = ranks_of(self, units)

        def area(edges: np.ndarray) -> np.ndarray:
            area = _ramp_area(edges * cells, low, soft_low)
            area -= _ramp_area(edges * cells, high - soft_high, soft_high)
            return area

        if times.shape[1] == 1:
            # Where one cell ends the next begins, so that most edges are those of two cells.
            edges, of_cells = np.unique(np.concatenate([ranks, ranks + 1]), return_inverse=True)
            start, end = of_cells.reshape(2, -1)
            areas = area(edges)
            mean = areas[:, end]
            mean -= areas[:, start]
        else:  # each unit is asked at times of its own
            mean = area(ranks + 1) - area(ranks)
        mean /= cells
        np.clip(mean, 0.0, 1.0, out=mean)
        return ease_function(self.edge)(mean)


def band_of(
    selector: Sweep, times: np.ndarray
) -> tuple[np.ndarray, np.ndarray, np.ndarray, np.ndarray]:
    """Low edge, high edge and the softness within either, shaped as times, in its measure."""
    travel = value_at(selector.travel, times)
    one, other = value_at(selector.low, times) + travel, value_at(selector.high, times) + travel
    low, high = np.minimum(one, other), np.maximum(one, other)
    soft_low, soft_high = (
        np.maximum(value_at(soft, times), 0.0) for soft in (selector.soft_low, selector.soft_high)
    )
    wanted = soft_low + soft_high
    # Soft edges that overlap both shrink in proportion.
    too_soft = wanted > high - low
    shrink = np.divide(high - low, wanted, out=np.ones_like(wanted), where=too_soft)
    return low, high, soft_low * shrink, soft_high * shrink


def _ramp_area(edge: np.ndarray, start: np.ndarray, width: np.ndarray) -> np.ndarray:
    """The area, up to `edge`, under a ramp from 0 at `start` to 1 at `start + width` and on."""
    beyond = edge - start
    inside = np.minimum(np.maximum(beyond, 0.0), width)
    beyond -= inside  # now what lies past the ramp, or before it
    np.maximum(beyond, 0.0, out=beyond)
    inside *= inside
    inside /= 2 * np.where(width > 0, width, 1.0)
    beyond += inside
    return beyond
