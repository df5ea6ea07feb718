"""Layers made ready to draw. For each kind of layer in balletto/scene/layers the module of the same
name here tells what it draws and how much room it takes."""

from ...scene.kinds import modules_in
from .base import PreparedLayer

__all__ = ["PREPARED_LAYERS", "PreparedLayer"]


def _found() -> dict[str, type[PreparedLayer]]:
    every = [each for module in modules_in(__name__, __path__) for each in vars(module).values()]
    return {
        str(each.prepares.name_in_files()): each
        for each in every
        if isinstance(each, type) and issubclass(each, PreparedLayer) and "prepares" in vars(each)
    }


PREPARED_LAYERS = _found()
