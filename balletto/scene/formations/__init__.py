"""Formations: copies of a layer, drawn in a row, a ring or a grid. A kind is a module of this
folder, with its model, its words and where its copies stand."""

from ..kinds import kinds_in
from ..model import kind_of, one_of
from .base import MOST_COPIES, Formation

__all__ = ["FORMATION_KINDS", "MOST_COPIES", "AnyFormation", "Formation"]

FORMATION_KINDS = kinds_in(__name__, __path__, Formation)
AnyFormation = one_of(
    kind_of, f"a formation of one of the kinds {', '.join(FORMATION_KINDS)}", **FORMATION_KINDS
)
