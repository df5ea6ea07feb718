"""The life of a render: asked for, cut into segments, claimed, drawn, joined; or given up.

Everything that matters stands in the database, so that a worker, the broker or the machine may
stop at any moment: `take_up_lost` finds what nobody works on any more and has it done again.
"""

import shutil
from datetime import timedelta
from pathlib import Path

from django.conf import settings
from django.contrib.auth.models import AbstractBaseUser
from django.db import transaction
from django.db.models import Sum
from django.utils import timezone

from balletto.clip.render import check, segments
from balletto.scene import files
from web.projects.history import newest
from web.projects.models import Scene

from .models import UNFINISHED, Render, Segment, State

LOST_AFTER = timedelta(seconds=settings.RENDER_LOST_AFTER_S)
# A render that waits in a long line is not lost; after this long it is put in line once more.
LINE_AGAIN_AFTER = timedelta(minutes=2)
MOST_ATTEMPTS = 3


def folder_of(render: Render) -> Path:
    """Where the pieces and the clip of a render lie."""
    return Path(settings.MEDIA_ROOT) / "renders" / str(render.folder)


def clip_of(render: Render) -> Path:
    """The finished clip; it is there only when it is whole."""
    return folder_of(render) / "clip.mp4"


def piece_of(segment: Segment) -> Path:
    """The drawn piece of a segment; it is there only when it is whole."""
    return folder_of(segment.render) / f"{segment.number}.mp4"


def ask(scene: Scene, owner: AbstractBaseUser) -> Render:
    """Asks for a clip of the scene as it is now. ClipError if it cannot be made."""
    revision = newest(scene)
    document = files.from_data(revision.document)
    frames = range(document.length)
    check(document, frames)
    return _add(owner, scene, scene.name, revision.document, revision.digest, frames)


def ask_again(render: Render) -> Render:
    """Asks for the same clip once more. ClipError if it cannot be made."""
    frames = render.frames
    check(files.from_data(render.document), frames)
    return _add(render.owner, render.scene, render.name, render.document, render.digest, frames)


def _add(
    owner: AbstractBaseUser,
    scene: Scene | None,
    name: str,
    document: dict,
    digest: str,
    frames: range,
) -> Render:
    with transaction.atomic():
        render = Render.objects.create(
            owner=owner,
            scene=scene,
            name=name,
            document=document,
            digest=digest,
            first=frames.start,
            end=frames.stop,
        )
        Segment.objects.bulk_create(
            Segment(render=render, number=number, first=part.start, end=part.stop)
            for number, part in enumerate(segments(frames))
        )
    return render


def claim(render: Render) -> Segment | None:
    """Takes the next segment that waits, for one worker alone; None if there is none."""
    with transaction.atomic():
        locked = Render.objects.select_for_update().get(pk=render.pk)
        if not locked.is_unfinished:
            return None
        segment = locked.segments.filter(state=State.WAITING).first()
        if segment is None:
            return None
        now = timezone.now()
        if locked.state == State.WAITING:
            locked.state, locked.started_at = State.DRAWING, now
            locked.save(update_fields=["state", "started_at"])
        segment.state, segment.seen_at, segment.frames_done = State.DRAWING, now, 0
        segment.attempts += 1
        segment.save(update_fields=["state", "seen_at", "frames_done", "attempts"])
        return segment


def report(segment: Segment, frames_done: int) -> bool:
    """Notes how far a segment is; False if it should be dropped."""
    kept = Segment.objects.filter(
        pk=segment.pk,
        state=State.DRAWING,
        attempts=segment.attempts,
        render__state=State.DRAWING,
    )
    return kept.update(frames_done=frames_done, seen_at=timezone.now()) == 1


def finish(segment: Segment) -> None:
    """Notes that a segment is drawn."""
    Segment.objects.filter(pk=segment.pk).update(
        state=State.FINISHED, frames_done=segment.end - segment.first
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
    return render.segments.aggregate(done=Sum("frames_done"))["done"] or 0


def lost_renders() -> list[Render]:
    """Renders that need a worker and have none; segments of lost workers wait again.

    A segment that was lost too often fails its render.
    """
    now = timezone.now()
    lost = Segment.objects.filter(
        state=State.DRAWING, seen_at__lt=now - LOST_AFTER, render__state__in=UNFINISHED
    )
    for segment in lost.filter(attempts__gte=MOST_ATTEMPTS).select_related("render"):
        fail(
            segment.render,
            f"The worker was lost {MOST_ATTEMPTS} times while it drew frames {segment.first} to "
            f"{segment.end - 1}. The log of the worker may say why; then try again.",
        )
    lost.filter(attempts__lt=MOST_ATTEMPTS).update(state=State.WAITING)
    renders = Render.objects.filter(state__in=UNFINISHED).exclude(segments__state=State.DRAWING)
    waited_long = renders.filter(state=State.WAITING, asked_at__lt=now - LINE_AGAIN_AFTER)
    stuck = renders.filter(state=State.DRAWING, started_at__lt=now - LOST_AFTER)
    return [*waited_long, *stuck]
