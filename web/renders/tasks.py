"""What render workers do. Each task may run twice, or be cut off at any point, without harm."""

import logging
import os
import shutil
import tempfile
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from functools import partial
from pathlib import Path

from celery import shared_task
from django.conf import settings
from django.db import Error as DatabaseError
from django.db import close_old_connections, connection

from balletto.clip.encoder import encoder_threads
from balletto.clip.memory import give_back, keep_at_hand
from balletto.clip.render import is_slow, put_together, render_segment
from balletto.scene.document import Scene
from web.library.store import opened
from web.serving import written_whole

from . import queue
from .disk_space import check_disk_space, old_renders
from .models import Render, Segment

log = logging.getLogger(__name__)

REPORT_EVERY_S = 0.5
BEAT_EVERY_S = settings.RENDER_LOST_AFTER_S / 4
HANGS_AFTER_S = 15 * 60  # without a frame
# How long a worker waits for a database that is away before it gives its segment up for lost.
_DATABASE_AWAY_S = 60
_MOST_CALLS = 16


class Dropped(Exception):
    """The segment was taken away from this worker: cancelled, or given to another."""


def call_workers(count: int) -> None:
    """Has up to so many workers look for what waits. The broker's error if it is away."""
    for _ in range(min(count, _MOST_CALLS)):
        work.delay()


@shared_task
def work() -> None:
    """Makes what is next in line until nothing waits."""
    while segment := _next_segment():
        _make(segment)


@shared_task
def take_up_lost() -> None:
    """Calls workers for what waits and has none. Runs every few seconds."""
    if queue.take_back_lost():
        call_workers(len(os.sched_getaffinity(0)))


@shared_task
def remove_old() -> None:
    """Removes the renders that by the rules of their owners are to go."""
    for render in old_renders():
        log.info("render=%s is removed by rule", render.pk)
        queue.remove(render)


def _next_segment() -> Segment | None:
    for render in queue.in_line():
        if render.workers is None and not _measure(render):
            continue
        if segment := queue.claim(render):
            return segment
    return None


def _measure(render: Render) -> bool:
    """Decides how a render is best drawn: by one worker, or by one for each core if it is slow.
    False if it cannot be drawn at all."""
    try:
        slow = is_slow(_scene_of(render), render.export)
    except Exception as error:
        log.exception("render=%s cannot be drawn", render.pk)
        queue.fail(render, f"The scene cannot be drawn: {error}")
        return False
    workers = settings.RENDER_WORKERS if slow else 1
    if queue.cut_for(render, workers) and slow:
        try:
            call_workers(render.segments.count() - 1)
        except Exception:
            log.exception("render=%s is drawn by one worker: others cannot be called", render.pk)
    return True


def _scene_of(render: Render) -> Scene:
    return opened(render.document, render.owner_id)


def _make(segment: Segment) -> None:
    """Makes a segment; a failure fails its render, with the frame where it happened."""
    try:
        reports = _Reports(segment)
        with _working_folder() as folder, _heartbeat(segment, reports):
            made = Path(folder) / queue.made_by(segment).name
            make = _put_together if segment.joins else _draw
            make(segment, made, reports)
            _store(made, queue.made_by(segment))
        _persist(partial(queue.finish, segment))
        if segment.joins:
            for part in segment.render.segments.filter(joins=False).select_related("render"):
                queue.piece_of(part).unlink(missing_ok=True)
    except Dropped:
        log.info("render=%s segment=%s dropped", segment.render_id, segment.number)
    except DatabaseError:
        log.exception("render=%s segment=%s is left: no database", *_named(segment))
        raise
    except Exception as error:
        log.exception("render=%s segment=%s failed", *_named(segment))
        _persist(partial(_give_up, segment, error))


@contextmanager
def _heartbeat(segment: Segment, reports: "_Reports") -> Iterator[None]:
    """Tells the database that this worker is alive, whether or not frames come: one may take long,
    and putting a file together has none. Ends with the process, and when nothing has come for so
    long that it hangs."""
    is_over = threading.Event()

    def beat() -> None:
        while not is_over.wait(BEAT_EVERY_S) and reports.silent_s < HANGS_AFTER_S:
            try:
                close_old_connections()  # one that the database has lost is of no use again
                queue.beat(segment)
            except DatabaseError:
                log.warning("render=%s segment=%s cannot be told to be alive", *_named(segment))
        connection.close()  # that of this thread

    thread = threading.Thread(target=beat, name="heartbeat", daemon=True)
    thread.start()
    try:
        yield
    finally:
        is_over.set()
        thread.join(timeout=1)  # a database that is away is not waited for


def _named(segment: Segment) -> tuple[int, int]:
    return segment.render_id, segment.number


def _give_up(segment: Segment, error: Exception) -> None:
    if segment.joins:
        reason = f"The file cannot be put together: {error}"
    else:
        segment.refresh_from_db(fields=["frames_done"])
        reason = f"After frame {segment.first + segment.frames_done}: {error}"
    queue.fail(segment.render, reason)


def _working_folder() -> tempfile.TemporaryDirectory:
    """A folder of this worker's own, on its own machine."""
    Path(settings.RENDER_WORK).mkdir(parents=True, exist_ok=True)
    return tempfile.TemporaryDirectory(dir=settings.RENDER_WORK)


def _store(made: Path, place: Path) -> None:
    """Brings a file to the shared storage, where it appears only when it is whole."""
    with written_whole(place) as coming:
        shutil.copyfile(made, coming)


class _Reports:
    """Tells the database how far a segment is, twice a second. Dropped if it was taken away.

    Without the database drawing goes on: what counts is whether the segment is still this worker's
    when it is there again.
    """

    def __init__(self, segment: Segment):
        self._segment, self._told = segment, time.monotonic()
        self._came = self._told  # when the last frame did

    @property
    def silent_s(self) -> float:
        """Seconds since the last frame."""
        return time.monotonic() - self._came

    def __call__(self, done: int) -> None:
        self._came = time.monotonic()
        if time.monotonic() - self._told < REPORT_EVERY_S:
            return
        self._told = time.monotonic()
        try:
            is_held = queue.report(self._segment, done)
        except DatabaseError:
            close_old_connections()
            return
        if not is_held:
            raise Dropped


def _persist(action: Callable[[], None]) -> None:
    """Does what the database must know, again while it is away."""
    end = time.monotonic() + _DATABASE_AWAY_S
    while True:
        try:
            return action()
        except DatabaseError:
            close_old_connections()
            if time.monotonic() > end:
                raise
            time.sleep(REPORT_EVERY_S)


def _draw(segment: Segment, made: Path, reports: _Reports) -> None:
    render = segment.render
    part = range(segment.first, segment.end)
    check_disk_space(render.export, len(part))
    threads = encoder_threads() if render.workers == 1 else 1
    keep_at_hand()
    render_segment(_scene_of(render), render.export, part, made, reports, threads)
    give_back()  # a worker draws one segment after another


def _put_together(segment: Segment, made: Path, reports: _Reports) -> None:
    render = segment.render
    parts = render.segments.filter(joins=False).select_related("render")
    pieces = [queue.piece_of(part) for part in parts]
    put_together(_scene_of(render), render.export, pieces, made, reports)
