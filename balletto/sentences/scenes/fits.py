"""The sentences of how a scene fills pictures of other shapes."""

from typing import Any

from ...scene.document import Scene
from ...scene.fits import FIT_KINDS, Fit
from ...scene.layers import Layer
from ...scene.values import measures
from ...scene.values.measures import Measure
from ..language.letters import quoted
from ..wording.pieces import Choice, NumberPiece, Pieces, joined, said

SHAPES = (("9:16", "tall"), ("1:1", "square"), ("4:5", "portrait"), ("16:9", "wide"))
_WORDS = {"whole": "seen whole", "filled": "filled", "placed": "with its own places"}
_SCALE = Measure(" %", scale=100, drag=0.005, step=0.01, low=0.01)


def say_fits(scene: Scene) -> list[Pieces]:
    """How the scene fills each other shape, with the places of its layers there."""
    return [_fit(scene, shape, words) for shape, words in SHAPES if shape != shape_of(scene.size)]


def shape_of(size: tuple[int, int]) -> str:
    """Which of the named shapes a size has; empty if none."""
    for shape, _ in SHAPES:
        across, down = map(int, shape.split(":"))
        if size[0] * down == size[1] * across:
            return shape
    return ""


def _fit(scene: Scene, shape: str, words: str) -> Pieces:
    known = next((n for n, fit in enumerate(scene.fits) if fit.shape == shape), None)
    fit = scene.fits[known] if known is not None else Fit(shape=shape)
    others = [each.model_dump(exclude_unset=True) for each in scene.fits if each.shape != shape]
    options = tuple(
        ([*others, {**fit.model_dump(exclude_unset=True), "shape": shape, "by": by}], told)
        for by, told in _WORDS.items()
    )
    value = options[FIT_KINDS.index(fit.by)][0]
    edit = {"name": "set-value", "path": "scene.fits"}
    by = Choice(f"fit-{shape}", f"In {words} pictures", edit=edit, value=value, options=options)
    if fit.by != "placed" or known is None:
        return said(f"In {words} pictures ({shape}) {{}}.", by)
    return said(f"In {words} pictures ({shape}) {{}}: {{}}.", by, _places(scene, known, fit))


def _places(scene: Scene, index: int, fit: Fit) -> Pieces:
    told = {place.layer: n for n, place in enumerate(fit.places)}
    path = f"scene.fits.{index}"
    parts = [_place(path, fit, told.get(each.id), each) for each in scene.layers if each.has_place]
    return joined(parts, "; ")


def _place(path: str, fit: Fit, number: int | None, layer: Layer) -> Pieces:
    name = quoted(layer.called)
    if number is None:
        place: dict[str, Any] = {"layer": layer.id, "shift": [0, 0], "scale": 1}
        places = [*(each.model_dump(exclude_unset=True) for each in fit.places), place]
        edit = {"name": "set-value", "path": f"{path}.places"}
        choice = Choice(f"{path}-{layer.id}", f"Place of {name}", edit=edit, value=None,
                        options=((None, "as it is"), (places, "at its own place")))  # fmt: skip
        return said("{} {}", name, choice)
    here, own = f"{path}.places.{number}", fit.places[number]
    across = NumberPiece(f"{here}.shift.0", f"Shift across of {name}", value=own.shift[0],
                    measure=measures.LEFT_RIGHT, rest=0)  # fmt: skip
    down = NumberPiece(f"{here}.shift.1", f"Shift down of {name}", value=own.shift[1],
                  measure=measures.ABOVE_BELOW, rest=0)  # fmt: skip
    large = NumberPiece(f"{here}.scale", f"Size of {name}", value=own.scale, measure=_SCALE, rest=1)
    return said("{} {} and {}, {} large", name, across, down, large)
