"""Plans: what would be made of a scene, told before it is asked for."""

import hashlib
import json
from collections.abc import Iterable
from dataclasses import dataclass, field
from fractions import Fraction
from itertools import product

from django.utils.text import slugify

from balletto.clip.errors import ClipError
from balletto.clip.export_settings import ExportSettings, clip_times
from balletto.clip.formats import FORMATS, Format
from balletto.clip.mixing import has_sound
from balletto.clip.render import check
from balletto.scene.document import Scene

from .disk_space import check_disk_space, rough_bytes

_SHAPES = {"1:1": "square", "9:16": "tall", "4:5": "portrait", "16:9": "wide"}


@dataclass
class Plan:
    """One clip that would be made: how, what was changed so that its format can hold it, and what
    hinders it."""

    name: str
    export: ExportSettings
    notes: list[str] = field(default_factory=list)
    fault: str = ""
    count: int = 0

    @property
    def format(self) -> Format:
        return FORMATS[self.export.format]

    @property
    def rate(self) -> str:
        return f"{float(self.export.rate):.6g}"

    @property
    def poster_frame(self) -> int:
        frames = self.export.frames
        return frames[len(frames) * 2 // 3] if len(frames) else 0

    @property
    def seconds(self) -> float:
        return float(self.count / self.export.rate)

    @property
    def bytes(self) -> float:
        return rough_bytes(self.export, self.count)

    @property
    def how(self) -> str:
        """Its export settings as JSON."""
        return json.dumps(self.export.to_data())

    @property
    def key(self) -> str:
        """A name for them on the page."""
        return hashlib.sha256(self.how.encode()).hexdigest()[:12]

    @property
    def file_name(self) -> str:
        return f"{slugify(self.name) or 'clip'}{self.format.suffix}"


def plans(scene: Scene, name: str, wishes: Iterable[ExportSettings], still_at: int) -> list[Plan]:
    """A plan for each wish, as near to it as its format can come. Clips that would have the same
    name have their format or their shape in it."""
    made = [_plan(scene, wish, still_at) for wish in wishes]
    sizes = {plan.export.size for plan in made}
    several = len(sizes) > 1
    # Two of one shape are told apart by their sides.
    call = _called if len({_called(size) for size in sizes}) == len(sizes) else _sides
    same = len({(plan.export.size, plan.format.suffix) for plan in made}) < len(made)
    for plan in made:
        shape = f", {call(plan.export.size)}" if several else ""
        kind = f", {plan.export.format}" if same else ""
        plan.name = f"{name}{shape}{kind}"
    return made


def wishes_of(
    scene: Scene,
    formats: list[str],
    sizes: list[tuple[tuple[int, int], str | None]],
    **more: object,
) -> list[ExportSettings]:
    """Every format in every size, with its fit."""
    usual = {"rate": scene.frames_a_second, "frames": range(scene.length)}
    return [
        ExportSettings(format, size, fit=fit, **{**usual, **more})
        for (size, fit), format in product(sizes, formats)
    ]


def _called(size: tuple[int, int]) -> str:
    ratio = Fraction(*size)
    return _SHAPES.get(f"{ratio.numerator}:{ratio.denominator}", "") or _sides(size)


def _sides(size: tuple[int, int]) -> str:
    return f"{size[0]} × {size[1]}"


def _plan(scene: Scene, export: ExportSettings, still_at: int) -> Plan:
    plan = Plan("", export)
    chosen = plan.format
    if chosen.is_still:
        plan.export = export = export._replace(frames=range(still_at, still_at + 1))
    if chosen.needs_even and any(side % 2 for side in export.size):
        even = tuple(side + side % 2 for side in export.size)
        plan.export = export = export._replace(size=even)
        plan.notes.append(f"{chosen.title} needs even sides: {even[0]} × {even[1]}.")
    if export.rate > chosen.most_rate:
        plan.export = export = export._replace(rate=_slower(export.rate, chosen.most_rate))
        told = f"{chosen.title} plays at most {chosen.most_rate} frames a second"
        plan.notes.append(f"{told}: this one is made at {float(export.rate):g}.")
    if scene.background.kind == "none" and not chosen.has_alpha:
        plan.notes.append("The scene is transparent; here it is on black.")
    if scene.background.kind != "none" and "with transparency" in chosen.title:
        told = "nothing in it is transparent. Let the scene lie on nothing for that"
        plan.notes.append(f"The scene lies on a ground, so {told}.")
    if chosen.title == "GIF" and scene.background.kind == "none":
        plan.notes.append("In a GIF each pixel is there or not: soft edges become hard.")
    if has_sound(scene) and not chosen.has_sound and not chosen.is_still:
        plan.notes.append(f"{chosen.title} is silent: the sound of the scene is left out.")
    try:
        check(scene, export)
        plan.count = len(clip_times(scene, export))
        check_disk_space(export, plan.count)
    except ClipError as error:
        plan.fault = str(error)
    return plan


def _slower(rate: Fraction, most: int) -> Fraction:
    """The rate by the smallest whole number that gives at most so many."""
    return rate / -(-rate // most)
