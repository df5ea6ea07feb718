"""The life of a render: asked for, cut into segments, claimed, drawn, put together; or given up.

Everything that matters stands in the database, so that a worker, the broker or the machine may
stop at any moment: `take_back_lost` finds what nobody works on any more and has it done again.
"""

import shutil
from datetime import timedelta
from pathlib import Path

from django.conf import settings
from django.contrib.auth.models import AbstractBaseUser
from django.db import transaction
from django.db.models import Max, Sum
from django.utils import timezone

from balletto.clip.errors import ClipError
from balletto.clip.export_settings import ExportSettings, clip_times
from balletto.clip.formats import FORMATS
from balletto.clip.render import check, segments
from web.library.store import opened
from web.projects.history import newest
from web.projects.models import Scene

from .disk_space import check_disk_space
from .models import UNFINISHED, Render, Segment, State

LOST_AFTER = timedelta(seconds=settings.RENDER_LOST_AFTER_S)
MOST_ATTEMPTS = 3


def folder_of(render: Render) -> Path:
    """Where the pieces and the clip of a render lie: in the storage that all workers share."""
    return Path(settings.MEDIA_ROOT) / "renders" / str(render.folder)


def clip_of(render: Render) -> Path:
    """The finished clip; it is there only when it is whole."""
    return folder_of(render) / f"clip{FORMATS[render.export.format].suffix}"


def piece_of(segment: Segment) -> Path:
    """The drawn piece of a segment; it is there only when it is whole."""
    suffix = FORMATS[segment.render.export.format].pieces.suffix
    return folder_of(segment.render) / f"{segment.number}{suffix}"


def made_by(segment: Segment) -> Path:
    """The file that a segment makes: its piece, or the clip."""
    return clip_of(segment.render) if segment.joins else piece_of(segment)


def ask(scene: Scene, owner: AbstractBaseUser, export: ExportSettings, name: str = "") -> Render:
    """Asks for a clip of the scene as it is now. ClipError if it cannot be made."""
    revision = newest(scene)
    return _add(
        export,
        owner=owner,
        scene=scene,
        name=name or scene.name,
        document=revision.document,
        digest=revision.digest,
    )


def ask_again(render: Render) -> Render:
    """Asks for the same clip once more. ClipError if it cannot be made."""
    kept = {name: getattr(render, name) for name in ("owner", "scene", "name", "document")}
    return _add(render.export, digest=render.digest, **kept)


def _add(export: ExportSettings, **more: object) -> Render:
    waiting = Render.objects.filter(owner=more["owner"], state__in=UNFINISHED).count()
    if waiting >= settings.RENDERS_PERSON_MOST:
        told = f"{waiting} of your clips are not made yet: wait for some of them, or cancel some."
        raise ClipError(told)
    scene = opened(more["document"], more["owner"].pk)
    check(scene, export)
    count = len(clip_times(scene, export))
    check_disk_space(export, count)
    with transaction.atomic():
        render = Render.objects.create(export_settings=export.to_data(), count=count, **more)
        _cut(render)
    return render


def cut_for(render: Render, workers: int) -> bool:
    """Settles how many workers draw a render, and cuts it into segments for them; False if that is
    settled already."""
    with transaction.atomic():
        locked = Render.objects.select_for_update().get(pk=render.pk)
        if locked.workers is not None or locked.state != State.WAITING:
            return False
        locked.workers = workers
        locked.save(update_fields=["workers"])
        if workers > 1:
            locked.segments.all().delete()
            _cut(locked, workers)
        return True


def _cut(render: Render, workers: int = 1) -> None:
    parts = segments(render.count, workers)
    Segment.objects.bulk_create(
        Segment(render=render, number=number, first=part.start, end=part.stop)
        for number, part in enumerate(parts)
    )
    render.segments.create(number=len(parts), joins=True, first=0, end=0)


def in_line() -> list[Render]:
    """The renders that still have something to be done, the most urgent first."""
    waiting = Render.objects.filter(state__in=UNFINISHED, segments__state=State.WAITING)
    return list(waiting.defer("document").distinct().order_by("-priority", "asked_at", "pk"))


def put_first(render: Render) -> None:
    """Has a render drawn before all others of which nothing is drawn yet."""
    highest = Render.objects.filter(state__in=UNFINISHED).aggregate(most=Max("priority"))["most"]
    Render.objects.filter(pk=render.pk).update(priority=(highest or 0) + 1)


def claim(render: Render) -> Segment | None:
    """Takes the next segment of a render that waits, for one worker alone; None if there is none,
    or if as many workers as may are at it. The file is put together when all else is done."""
    with transaction.atomic():
        locked = Render.objects.defer("document").select_for_update().get(pk=render.pk)
        parts = list(locked.segments.all())
        waiting = [part for part in parts if part.state == State.WAITING]
        drawing = [part for part in parts if part.state == State.DRAWING]
        if not locked.is_unfinished or not waiting or len(drawing) >= (locked.workers or 1):
            return None
        segment = waiting[0]
        if segment.joins and drawing:
            return None
        now = timezone.now()
        if locked.state == State.WAITING:
            locked.state, locked.started_at = State.DRAWING, now
            locked.save(update_fields=["state", "started_at"])
        segment.state, segment.seen_at, segment.frames_done = State.DRAWING, now, 0
        segment.attempts += 1
        segment.worker = settings.RENDER_WORKER_NAME
        segment.save(update_fields=["state", "seen_at", "frames_done", "attempts", "worker"])
        return segment


def _is_held(segment: Segment) -> dict[str, object]:
    """What is true of a segment as long as the worker that claimed it may go on."""
    return {
        "pk": segment.pk,
        "state": State.DRAWING,
        "attempts": segment.attempts,
        "render__state": State.DRAWING,
    }


def report(segment: Segment, frames_done: int) -> bool:
    """Notes how far a segment is; False if it should be dropped."""
    held = Segment.objects.filter(**_is_held(segment))
    return held.update(frames_done=frames_done, seen_at=timezone.now()) == 1


def beat(segment: Segment) -> None:
    """Notes that the worker of a segment is alive."""
    Segment.objects.filter(**_is_held(segment)).update(seen_at=timezone.now())


def finish(segment: Segment) -> None:
    """Notes that a segment is made, and with the last one the whole render."""
    with transaction.atomic():
        done = segment.end - segment.first
        held = Segment.objects.filter(**_is_held(segment))
        is_ours = held.update(frames_done=done, state=State.FINISHED) == 1
        if is_ours and segment.joins:
            Render.objects.filter(pk=segment.render_id).update(
                state=State.FINISHED,
                bytes=clip_of(segment.render).stat().st_size,
                ended_at=timezone.now(),
            )


def fail(render: Render, reason: str) -> None:
    """Gives a render up; the reason is shown to the person who asked for it."""
    Render.objects.filter(pk=render.pk, state__in=UNFINISHED).update(
        state=State.FAILED, reason=reason[:500], ended_at=timezone.now()
    )


def cancel(render: Render) -> None:
    """Stops a render; whoever draws for it notices within a second."""
    Render.objects.filter(pk=render.pk, state__in=UNFINISHED).update(
        state=State.CANCELLED, ended_at=timezone.now()
    )


def remove(render: Render) -> None:
    """Removes a render and its files."""
    folder = folder_of(render)
    render.delete()
    shutil.rmtree(folder, ignore_errors=True)


def frames_done(render: Render) -> int:
    """How many frames of a render are drawn."""
    parts = render.segments.filter(joins=False)
    return parts.aggregate(done=Sum("frames_done"))["done"] or 0


def take_back_lost() -> bool:
    """Has segments of workers that are gone wait again; whether anything waits for a worker.

    A segment that was lost too often fails its render.
    """
    lost = Segment.objects.filter(
        state=State.DRAWING,
        seen_at__lt=timezone.now() - LOST_AFTER,
        render__state__in=UNFINISHED,
    )
    for segment in lost.filter(attempts__gte=MOST_ATTEMPTS).select_related("render"):
        done = "it put the file together"
        if not segment.joins:
            done = f"it drew frames {segment.first} to {segment.end - 1}"
        fail(
            segment.render,
            f"The worker was lost {MOST_ATTEMPTS} times while {done}. "
            "The log of the worker may say why; then try again.",
        )
    lost.filter(attempts__lt=MOST_ATTEMPTS).update(state=State.WAITING)
    return bool(in_line())
