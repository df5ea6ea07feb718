"""Effects: what becomes of the picture of a layer once it is drawn. A kind is a module of this
folder, with its model, its words and what it does to pixels."""

from ..kinds import kinds_in
from ..model import kind_of, one_of
from .base import Effect

__all__ = ["EFFECT_KINDS", "AnyEffect", "Effect"]

EFFECT_KINDS = kinds_in(__name__, __path__, Effect)
AnyEffect = one_of(
    kind_of, f"an effect of one of the kinds {', '.join(EFFECT_KINDS)}", **EFFECT_KINDS
)
