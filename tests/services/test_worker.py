"""The render worker as a process of its own: killed in the middle, it loses nothing."""

import os
import signal
import tempfile
import time
from pathlib import Path
from unittest import mock

import av
from django.conf import settings
from django.contrib.auth import get_user_model
from django.db import connection
from django.test import TransactionTestCase

from balletto.clip import render as clips
from balletto.clip.export_settings import usual_settings
from balletto.scene import files
from tests.core.scenes import small_scene
from web.projects import history
from web.projects.models import Project
from web.renders import queue, tasks
from web.renders.models import Render, State
from web.services.start import render_worker


def is_there(process: int) -> bool:
    try:
        return Path(f"/proc/{process}/stat").read_text().rpartition(")")[2].split()[0] != "Z"
    except (FileNotFoundError, ProcessLookupError):
        return False


class WorkerTest(TransactionTestCase):
    def start_worker(self, **more):
        environment = {
            "BALLETTO_DATABASE_NAME": connection.settings_dict["NAME"],
            "BALLETTO_RENDER_LOST_AFTER_S": "3",
            **more,
        }
        worker = render_worker(Path(settings.VAR), environment)
        worker.start()
        self.addCleanup(worker.stop)
        return worker

    def ask(self, length):
        person = get_user_model().objects.create_user("ada")
        project = Project.objects.create(owner=person, name="Winter")
        data = files.to_data(small_scene("Nine Moons", length=length))
        data["size"] = [1280, 720]
        scene = history.make_scene(project, data, person)
        return queue.ask(scene, person, usual_settings(files.from_data(data)))

    def wait_until(self, render, is_so, seconds=300):
        end = time.monotonic() + seconds
        while time.monotonic() < end:
            render.refresh_from_db()
            if is_so():
                return
            time.sleep(0.1)
        self.fail(f"waited in vain: {render.state}, {queue.frames_done(render)} frames")

    def pool_of(self, worker):
        children = f"/proc/{worker.process.pid}/task/{worker.process.pid}/children"
        return list(map(int, Path(children).read_text().split()))

    def kill(self, worker):
        """Ends a worker and its pool as a crash of the machine would."""
        for process in (worker.process.pid, *self.pool_of(worker)):
            os.kill(process, signal.SIGKILL)
        worker.process.wait()

    def test_a_killed_worker_loses_nothing(self):
        render = self.ask(length=400)
        tasks.call_workers(1)
        worker = self.start_worker()
        self.wait_until(render, lambda: queue.frames_done(render) > 10)
        self.kill(worker)
        self.assertEqual(render.state, State.DRAWING)
        self.assertFalse(queue.clip_of(render).exists(), "half a clip is offered")
        self.start_worker()
        self.wait_until(render, lambda: not render.is_unfinished)
        self.assertEqual((render.state, render.reason), (State.FINISHED, ""))
        with av.open(str(queue.clip_of(render))) as clip:
            self.assertEqual(sum(packet.size > 0 for packet in clip.demux(video=0)), 400)
        queue.remove(render)

    def test_a_killed_worker_leaves_nobody_behind(self):
        render = self.ask(length=2000)
        tasks.call_workers(1)
        worker = self.start_worker()
        self.wait_until(render, lambda: queue.frames_done(render) > 10)
        pool = self.pool_of(worker)
        os.kill(worker.process.pid, signal.SIGKILL)
        worker.process.wait()
        end = time.monotonic() + 5
        while any(map(is_there, pool)) and time.monotonic() < end:
            time.sleep(0.1)
        self.assertEqual([process for process in pool if is_there(process)], [])
        queue.remove(render)

    def test_two_machines_share_a_render(self):
        """Two workers with working folders of their own and the storage of clips in common."""
        folder = tempfile.TemporaryDirectory(prefix="balletto-machines-")
        self.addCleanup(folder.cleanup)
        with mock.patch.object(clips, "SEGMENT_FRAMES", 40):
            render = self.ask(length=500)
        Render.objects.filter(pk=render.pk).update(workers=4)
        for name in ("attic", "cellar"):
            work = Path(folder.name) / name
            self.start_worker(BALLETTO_RENDER_WORK=str(work), BALLETTO_WORKER_NAME=name)
        tasks.call_workers(8)
        self.wait_until(render, lambda: not render.is_unfinished, seconds=90)
        self.assertEqual((render.state, render.reason), (State.FINISHED, ""))
        drawn = render.segments.filter(joins=False)
        self.assertEqual(set(drawn.values_list("worker", flat=True)), {"attic", "cellar"})
        with av.open(str(queue.clip_of(render))) as clip:
            self.assertEqual(sum(packet.size > 0 for packet in clip.demux(video=0)), 500)
        self.assertEqual([each.name for each in queue.folder_of(render).iterdir()], ["clip.mp4"])
        for name in ("attic", "cellar"):
            self.assertEqual(list((Path(folder.name) / name).iterdir()), [], "left behind")
        queue.remove(render)

    def test_cancel_stops_a_worker_that_draws(self):
        render = self.ask(length=2000)
        tasks.call_workers(1)
        self.start_worker()
        self.wait_until(render, lambda: queue.frames_done(render) > 10)
        queue.cancel(render)
        time.sleep(1.5)
        done = queue.frames_done(render)
        time.sleep(1.5)
        self.assertEqual(queue.frames_done(render), done)
        self.assertFalse(list(queue.folder_of(render).glob("*.part")), "a piece was left behind")
        queue.remove(render)
