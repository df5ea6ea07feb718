"""Masks: where a layer is seen. A kind is a module of this folder, with its model, its words and
its form."""

from ..kinds import kinds_in
from ..model import kind_of, one_of
from .base import SOFTEST_MASK, Mask

__all__ = ["MASK_KINDS", "SOFTEST_MASK", "AnyMask", "Mask"]

MASK_KINDS = kinds_in(__name__, __path__, Mask)
AnyMask = one_of(kind_of, f"a mask of one of the kinds {', '.join(MASK_KINDS)}", **MASK_KINDS)
