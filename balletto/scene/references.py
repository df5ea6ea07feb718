"""Layers that name other layers: their groups, mattes and paths. Checked when a scene is read."""

import math
from typing import Any

from .errors import Fault


def reference_faults(scene: Any) -> list[Fault]:
    """A fault for each group, matte or path that is not there, and for each circle, by name."""
    kinds = {layer.id: layer.kind for layer in scene.layers}
    faults = []
    for index, layer in enumerate(scene.layers):
        if layer.group is not None and kinds.get(layer.group) != "group":
            told = f'"{layer.group}" is no group of this scene'
            faults.append(Fault(f"layers[{index}].group", told))
        if layer.matte is not None and layer.matte.layer not in kinds:
            told = f'there is no layer "{layer.matte.layer}"'
            faults.append(Fault(f"layers[{index}].matte.layer", told))
        along = getattr(layer, "along", None)
        if along is not None and kinds.get(along.layer) != "shape":
            told = f'"{along.layer}" is no shape of this scene'
            faults.append(Fault(f"layers[{index}].along.layer", told))
    faults += _wrong_sources(scene, kinds)
    return faults or _circles(scene) or _too_many_copies(scene)


# What pieces of a flurry can look like.
THROWN = ("title", "shape", "picture", "video", "scene")


def _wrong_sources(scene: Any, kinds: dict[str, str]) -> list[Fault]:
    """A fault for each flurry that throws a layer which is not there, or cannot be thrown."""
    faults = []
    for index, layer in enumerate(scene.layers):
        for number, source in enumerate(layer.flurry.source if layer.kind == "flurry" else ()):
            thrown = getattr(source, "layer", None)
            if thrown is not None and kinds.get(thrown) not in THROWN:
                told = f'there is no layer "{thrown}"'
                if thrown in kinds:
                    told = f'"{thrown}" is a {kinds[thrown]}, which cannot be thrown'
                faults.append(Fault(f"layers[{index}].flurry.source[{number}].layer", told))
    return faults


MOST_COPIED = 10_000  # copies of one layer, with those of the groups that it is in
MOST_DRAWN = 100_000  # letters, shapes ... that copies and flurries draw, all together


def _too_many_copies(scene: Any) -> list[Fault]:
    """A fault if copies, and copies within copies, would draw more than fits into memory."""
    drawn = 0
    for index, layer in enumerate(scene.layers):
        numbers = [e.formation.number for e in (layer, *scene.groups_of(layer)) if e.formation]
        pieces = layer.flurry.count if layer.kind == "flurry" else 0
        if not numbers and not pieces:
            continue
        copies = math.prod(numbers)
        if copies > MOST_COPIED:
            told = (
                f"at most {MOST_COPIED:,} copies within copies can be drawn, these are {copies:,}"
            )
            return [Fault(f"layers[{index}].formation", told)]
        trails = [effect.copies + 1 for effect in layer.effects if effect.kind == "trail"]
        letters = max(1, len(layer.words), pieces * _letters_thrown(scene, layer))
        drawn += copies * letters * max(trails, default=1)
        if drawn > MOST_DRAWN:
            told = (
                f"at most {MOST_DRAWN:,} things can be drawn by copies, pieces and trails, these "
                f"are {drawn:,}"
            )
            return [Fault(f"layers[{index}].{'formation' if numbers else 'flurry'}", told)]
    return []


def _letters_thrown(scene: Any, layer: Any) -> int:
    """How much the largest piece of a flurry draws."""
    if layer.kind != "flurry":
        return 1
    words = {each.id: len(each.words) for each in scene.layers}
    thrown = [words.get(getattr(source, "layer", ""), 1) for source in layer.flurry.source]
    return max(1, *thrown)


MAX_DEPTH = 5  # scenes in scenes


def nesting_faults(scene: Any, depth: int = 1) -> list[Fault]:
    """A fault for each nested scene that is not there, and for scenes nested too deep."""
    there = [used.id for used in scene.scenes]
    faults = [
        Fault(f"layers[{index}].scene", f'there is no scene "{layer.scene}" in scenes')
        for index, layer in enumerate(scene.layers)
        if layer.kind == "scene" and layer.scene not in there
    ]
    if scene.scenes and depth > MAX_DEPTH:
        faults.append(Fault("scenes", f"scenes lie in each other {MAX_DEPTH} deep at the most"))
    return faults


def _circles(scene: Any) -> list[Fault]:
    """To draw a group its layers are drawn, to draw a layer its matte: neither may need itself."""
    needed: dict[str, list[str]] = {layer.id: [] for layer in scene.layers}
    for layer in scene.layers:
        if layer.group is not None:
            needed[layer.group].append(layer.id)
        if layer.matte is not None:
            needed[layer.id].append(layer.matte.layer)
    names = {layer.id: layer.name or layer.words or layer.id for layer in scene.layers}
    places = {layer.id: index for index, layer in enumerate(scene.layers)}
    for start in needed:
        circle = _way_back(start, needed)
        if circle:
            way = " needs ".join(f"“{names[each]}”" for each in circle)
            told = f"these need each other to be drawn: {way}"
            return [Fault(f"layers[{places[start]}]", told)]
    return []


def _way_back(start: str, needed: dict[str, list[str]]) -> list[str]:
    """The layers on a way from one back to itself; none if there is no such way."""
    came_from: dict[str, str] = {}
    waiting = [start]
    while waiting:
        here = waiting.pop()
        for following in needed[here]:
            if following == start:
                way = [start, here]
                while way[-1] != start:
                    way.append(came_from[way[-1]])
                return way[::-1]
            if following not in came_from:
                came_from[following] = here
                waiting.append(following)
    return []
