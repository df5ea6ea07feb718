"""Sweep: a band that travels over the title, with a soft edge on either side."""

import numpy as np

from ...scene.eases import ease_function
from ...scene.selectors import Sweep
from ...scene.tracks import value_at
from ..stagger import ranks_of
from ..units import Units


def sweep(selector: Sweep, units: Units, times: np.ndarray, _: int) -> np.ndarray:
    """Weights (times, units): the mean of the band's profile over the cell of each unit.

           ___________            the band reaches from low to high, both moved by travel
          /           |           here: soft_low > 0, soft_high = 0
    _____/            |_______
        low          high

    Unit i owns the cell from rank i to rank i + 1, in units or as percent of all units. A band
    that passes a letter therefore takes it gradually, even with hard edges.
    """
    low, high, soft_low, soft_high = band_of(selector, times)
    cells = 1.0 if selector.measure == "units" else 100 / max(len(units), 1)
    ranks = ranks_of(selector, units)

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
    return ease_function(selector.edge)(mean)


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
