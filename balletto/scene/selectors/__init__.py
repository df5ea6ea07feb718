"""Selectors: how strongly each unit takes part in a move. A kind is a module of this folder, with
its model, its words and what it computes."""

from ..kinds import kinds_in
from ..model import kind_of, one_of
from .base import Selector

__all__ = ["SELECTOR_KINDS", "AnySelector", "Selector"]

SELECTOR_KINDS = kinds_in(__name__, __path__, Selector)
AnySelector = one_of(
    kind_of,
    f"a selector of one of the kinds {', '.join(SELECTOR_KINDS)}",
    **{kind: model.type_in_scenes() for kind, model in SELECTOR_KINDS.items()},
)
