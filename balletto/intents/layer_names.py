"""Layers as people call them: by their names in whatever case, or by what they are, "the title"."""

from collections.abc import Collection

from ..scene.document import Scene
from ..scene.errors import SceneError
from ..scene.layers import Layer
from ..scene.layers.nouns import NOUNS
from ..scene.layers.shape import ShapeLayer


def alike(name: str) -> str:
    """A name as it may be typed: in whatever case, with marks or without."""
    return name.strip(' “”".').lower().removeprefix("the ").strip(' “”"')


def layer_called(
    document: Scene, called: str, but: Collection[str] = (), first: Collection[str] = ()
) -> Layer:
    """The layer that is called so, or is such a thing: of several that of `first`, or else the one
    in front. None of `but`. SceneError, if there is none."""
    others = [each for each in reversed(document.layers) if each.id not in but]
    others.sort(key=lambda each: each.id not in first)
    wanted = alike(called)
    for is_meant in (
        lambda each: called in (each.id, each.called) or (wanted == "it" and each.id in first),
        lambda each: alike(each.called) == wanted,
        lambda each: wanted in _words_for(each),
    ):
        if found := next(filter(is_meant, others), None):
            return found
    raise SceneError.at("", f"there is no other layer “{called}” in this scene")


def _words_for(layer: Layer) -> set[str]:
    """Words for what a layer is."""
    kinds = [layer.kind, *([layer.shape.kind] if isinstance(layer, ShapeLayer) else [])]
    return {word for kind in kinds for word in (kind, *NOUNS.get(kind, ()))}
