"""Renders as the page shows them."""

from dataclasses import dataclass

from django.utils import timezone
from django.utils.functional import cached_property
from django.utils.text import slugify

from balletto.clip.formats import FORMATS, Format

from . import queue
from .models import Render, State

_ORDINALS = ("next", "second", "third")


@dataclass
class RenderProgress:
    """A render with how far it is; `before_s`: about how long the line before it takes."""

    render: Render
    done: int
    place: int | None = None
    before_s: float | None = None

    @property
    def total(self) -> int:
        return self.render.count

    @property
    def percent(self) -> float:
        return 100 * self.done / self.total

    @property
    def width(self) -> int:
        return self.render.export.size[0]

    @property
    def height(self) -> int:
        return self.render.export.size[1]

    @property
    def size(self) -> str:
        return f"{self.width} × {self.height}"

    @property
    def format(self) -> Format:
        return FORMATS[self.render.export.format]

    @property
    def kind(self) -> str:
        """video or picture: how a browser shows it; empty if it cannot."""
        return self.format.shown_as

    @property
    def rate(self) -> str:
        return f"{float(self.render.export.rate):.6g}"

    @property
    def seconds(self) -> str:
        return f"{float(self.total / self.render.export.rate):.2f}"

    @property
    def poster_frame(self) -> int:
        frames = self.render.export.frames
        return frames[len(frames) * 2 // 3]

    @property
    def is_joined(self) -> bool:
        """Whether all is drawn, and the file is put together of it."""
        return self.render.state == State.DRAWING and self.done == self.total

    @cached_property
    def took(self) -> float | None:
        """Seconds from the first frame to the end, or to now."""
        if self.render.started_at is None:
            return None
        return ((self.render.ended_at or timezone.now()) - self.render.started_at).total_seconds()

    @property
    def frames_a_second(self) -> float | None:
        return self.done / self.took if self.took and self.done else None

    @property
    def seconds_left(self) -> float | None:
        speed = self.frames_a_second
        return (self.total - self.done) / speed if speed else None

    @property
    def stands(self) -> str:
        """Where in the line it is."""
        if self.place is None:
            return ""
        ordinal = _ORDINALS[self.place] if self.place < len(_ORDINALS) else f"{self.place + 1}th"
        told = f"{ordinal} in line"
        return told if self.before_s is None else f"{told}, starts in about {self.before_s:.0f} s"

    @property
    def file_name(self) -> str:
        return f"{slugify(self.render.name) or 'clip'}{self.format.suffix}"


def progress_of(render: Render) -> RenderProgress:
    """A render with how far it is."""
    drawn = getattr(render, "drawn", None)  # what a list has found for all at once
    return RenderProgress(render, queue.frames_done(render) if drawn is None else drawn)


def progress_of_all(renders: list[Render]) -> list[RenderProgress]:
    """Renders of one person, those that wait with their place in the line of all."""
    line = [render for render in queue.in_line() if render.state == State.WAITING]
    places = {render.pk: place for place, render in enumerate(line)}
    found = [progress_of(render) for render in renders]
    before = _seconds_before(line)
    for each in found:
        each.place = places.get(each.render.pk)
        if each.place is not None and before is not None:
            each.before_s = before[each.place]
    return found


def _seconds_before(line: list[Render]) -> list[float] | None:
    """For each render in line how long those before it take, at the speed of what is drawn now;
    None if nothing is."""
    drawing = [
        progress_of(render) for render in Render.objects.listed().filter(state=State.DRAWING)
    ]
    speeds = [job.frames_a_second for job in drawing if job.frames_a_second]
    if not speeds:
        return None
    passed = sum(job.seconds_left or 0 for job in drawing)
    waits = []
    for render in line:
        waits.append(passed)
        passed += render.count / sum(speeds)
    return waits
