"""What render workers do. Each task may run twice, or be cut off at any point, without harm."""

import logging
import os
import time

from celery import shared_task
from django.conf import settings
from django.core.cache import cache
from django.db import transaction
from django.utils import timezone

from balletto.clip.encoder import encoder_threads, join
from balletto.clip.render import is_slow, render_segment
from balletto.scene import files

from . import queue
from .models import Render, Segment, State

log = logging.getLogger(__name__)

REPORT_EVERY_S = 0.5


class Dropped(Exception):
    """The segment was taken away from this worker: cancelled, or given to another."""


def enqueue(render: Render, workers: int = 1) -> None:
    """Puts a render in line, for as many workers as shall draw it side by side."""
    for _ in range(workers):
        draw.delay(render.pk, threads=encoder_threads() if workers == 1 else 1)


@shared_task
def start(render_id: int) -> None:
    """Decides how a render is best drawn: by one worker, or by one for each core if it is slow."""
    render = Render.objects.filter(pk=render_id).first()
    if render is None or not render.is_unfinished:
        return
    try:
        slow = is_slow(files.from_data(render.document), render.frames)
    except Exception as error:
        log.exception("render=%s cannot be drawn", render_id)
        queue.fail(render, f"The scene cannot be drawn: {error}")
        return
    enqueue(render, workers=len(os.sched_getaffinity(0)) if slow else 1)


@shared_task
def draw(render_id: int, threads: int) -> None:
    """Draws segments of a render until none waits; the last to finish joins them."""
    render = Render.objects.filter(pk=render_id).first()
    while render is not None and (segment := queue.claim(render)):
        try:
            _draw_segment(segment, threads)
        except Dropped:
            log.info("render=%s segment=%s dropped", render_id, segment.number)
            return
        except Exception as error:
            log.exception("render=%s segment=%s failed", render_id, segment.number)
            segment.refresh_from_db()
            frame = segment.first + segment.frames_done
            queue.fail(render, f"After frame {frame}: {error}")
            return
    if render is not None:
        _join(render)


@shared_task
def take_up_lost() -> None:
    """Puts renders in line again whose worker is gone. Runs every few seconds."""
    for render in queue.lost_renders():
        if cache.add(f"taken-up:{render.pk}", True, timeout=settings.RENDER_LOST_AFTER_S):
            log.warning("render=%s is taken up again", render.pk)
            enqueue(render)


def _draw_segment(segment: Segment, threads: int) -> None:
    scene = files.from_data(segment.render.document)
    piece = queue.piece_of(segment)
    piece.parent.mkdir(parents=True, exist_ok=True)
    unfinished = piece.with_name(f"{segment.number}.{segment.attempts}.part")
    reported = time.monotonic()

    def progress(done: int) -> None:
        nonlocal reported
        if time.monotonic() - reported >= REPORT_EVERY_S:
            reported = time.monotonic()
            if not queue.report(segment, done):
                raise Dropped

    try:
        render_segment(scene, range(segment.first, segment.end), unfinished, progress, threads)
        unfinished.replace(piece)
    finally:
        unfinished.unlink(missing_ok=True)
    queue.finish(segment)


def _join(render: Render) -> None:
    """Makes the clip of the pieces, if all are there and nobody else did."""
    with transaction.atomic():
        render = Render.objects.select_for_update().get(pk=render.pk)
        parts = list(render.segments.select_related("render"))
        if render.state != State.DRAWING or any(part.state != State.FINISHED for part in parts):
            return
        pieces = [queue.piece_of(part) for part in parts]
        clip = queue.clip_of(render)
        whole = clip.with_suffix(".part")
        try:
            join(pieces, whole, files.from_data(render.document).frames_a_second)
            whole.replace(clip)
        except Exception as error:
            log.exception("render=%s cannot be joined", render.pk)
            render.state, render.reason = State.FAILED, f"The pieces cannot be joined: {error}"
        else:
            render.state, render.bytes = State.FINISHED, clip.stat().st_size
        render.ended_at = timezone.now()
        render.save(update_fields=["state", "reason", "bytes", "ended_at"])
    for piece in pieces:
        piece.unlink(missing_ok=True)
