"""Orders: how the units of a title are ranked, for a stagger or for a selector. An order is a
function in a module of this folder, with its words."""

from typing import TYPE_CHECKING, Annotated, Any, Literal, Protocol, TypeAlias

import numpy as np
from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from ..kinds import modules_in
from ..model import Counts, Model, Number, Seed
from ..values.points import PicturePoint
from .base import FOUND, Order, Ordering

__all__ = ["ORDERS", "Ordered", "Ordering", "ranks_of"]

modules_in(__name__, __path__)
ORDERS: dict[str, Order] = dict(sorted(FOUND.items(), key=lambda item: item[1].rank))
if TYPE_CHECKING:
    OrderName: TypeAlias = str
else:
    OrderName = Literal[tuple(ORDERS)]
Rank = Annotated[float, Number("a rank", Counts.INDEX, ge=-10_000, le=10_000)]
Ranks = Annotated[
    tuple[Rank, ...],
    Field(min_length=1, max_length=10_000),
]


class Ordered(Model):
    """Anything that ranks units. `seed` is for a shuffle, `point` lies in the picture."""

    order: OrderName = "forward"
    seed: Seed = 0
    point: PicturePoint | None = None
    ranks: Ranks | None = None

    @model_validator(mode="after")
    def _has_what_its_order_needs(self) -> "Ordered":
        for field, what in (("ranks", "ranks go"), ("point", "a point goes")):
            if (ORDERS[self.order].needs == field) != (getattr(self, field) is not None):
                those = " or ".join(name for name, order in ORDERS.items() if order.needs == field)
                raise PydanticCustomError(
                    "needs", "{what} with the order {those} alone", {"what": what, "those": those}
                )
        return self


class PlacedUnits(Protocol):
    """Units as orders see them."""

    @property
    def centers(self) -> np.ndarray:
        """Their rest centres (n, 2)."""

    def in_picture(self, times: np.ndarray) -> np.ndarray:
        """These in the picture at times (t, 1): (t, n, 2)."""


def ranks_of(ordered: Ordered, units: PlacedUnits, indices: np.ndarray | None = None) -> np.ndarray:
    """The rank of each unit, (n,), or of those at `indices` alone; ranks need not be whole."""
    order = ORDERS[ordered.order]
    centers = units.centers if indices is None else units.centers[indices]
    seen = np.empty((0, 2))
    if order.looks_at_picture:
        # Ranks hold for the whole scene: the layer counts as it stands at the beginning.
        seen = units.in_picture(np.zeros((1, 1)))[0]
        seen = seen if indices is None else seen[indices]
    return order.ranks(Ordering(centers, ordered.seed, ordered.ranks, ordered.point, seen))


def field_of_order(name: str, size: tuple[int, int]) -> dict[str, Any]:
    """What goes with an order, for one that is new, as plain data."""
    order = ORDERS.get(name)
    return {order.needs: order.starts_with(size)} if order and order.starts_with else {}
