"""Renders: asked for, drawn by the queue's own code, watched, cancelled, lost and taken up."""

import tempfile
from datetime import timedelta
from unittest import mock

import av
from django.core.cache import cache
from django.test import override_settings
from django.urls import reverse
from django.utils import timezone

from balletto.clip import render as clips
from balletto.scene import files
from tests.core.scenes import small_scene
from web.projects import history
from web.projects.models import Project
from web.renders import queue, tasks
from web.renders.models import Render, Segment, State

from .base import PageTest


class RenderTest(PageTest):
    def setUp(self):
        super().setUp()
        cache.clear()
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        media = override_settings(MEDIA_ROOT=folder.name)
        media.enable()
        self.addCleanup(media.disable)
        sent = mock.patch.object(tasks.draw, "delay")
        self.sent = sent.start()
        self.addCleanup(sent.stop)
        # How slow a scene is to draw is measured: on a busy machine that may go either way.
        measured = mock.patch.object(tasks, "is_slow", return_value=False)
        measured.start()
        self.addCleanup(measured.stop)
        project = Project.objects.get(owner=self.ada)
        document = files.to_data(small_scene("Nine Moons", length=24))
        self.small = history.make_scene(project, document, self.ada)

    def ask(self) -> Render:
        with mock.patch.object(tasks.start, "delay") as begun:
            self.client.post(reverse("ask-render", args=[self.small.pk]))
        asked = Render.objects.latest("pk")
        begun.assert_called_once_with(asked.pk)
        return asked

    def ask_in_segments(self, frames: int) -> Render:
        with mock.patch.object(clips, "SEGMENT_FRAMES", frames):
            return self.ask()

    def finished(self, render: Render) -> Render:
        render.refresh_from_db()
        self.assertEqual(render.state, State.FINISHED, render.reason)
        return render

    def test_a_clip_from_asking_to_downloading(self):
        render = self.ask()
        tasks.start(render.pk)
        self.sent.assert_called_once()
        tasks.draw(render.pk, threads=2)
        render = self.finished(render)
        with av.open(str(queue.clip_of(render))) as clip:
            self.assertEqual(clip.streams.video[0].frames, 24)
        page = self.client.get(reverse("renders"))
        self.assertContains(page, "24 of 24")
        whole = self.client.get(reverse("clip", args=[render.pk]), {"download": ""})
        self.assertIn("attachment", whole["Content-Disposition"])
        content = b"".join(whole.streaming_content)
        self.assertEqual(len(content), render.bytes)
        part = self.client.get(reverse("clip", args=[render.pk]), headers={"range": "bytes=4-7"})
        self.assertEqual((part.status_code, b"".join(part.streaming_content)), (206, b"ftyp"))
        self.assertEqual(part["Content-Range"], f"bytes 4-7/{len(content)}")
        beyond = self.client.get(
            reverse("clip", args=[render.pk]), headers={"range": f"bytes={len(content)}-"}
        )
        self.assertEqual(beyond.status_code, 416)
        self.assertEqual(
            self.client.get(reverse("render-poster", args=[render.pk])).status_code, 200
        )

    def test_segments_are_joined_to_the_same_clip(self):
        render = self.ask_in_segments(7)
        self.assertEqual(render.segments.count(), 4)
        tasks.draw(render.pk, threads=1)
        with av.open(str(queue.clip_of(self.finished(render)))) as clip:
            self.assertEqual(sum(1 for _ in clip.decode(video=0)), 24)
        self.assertEqual([p.name for p in queue.folder_of(render).iterdir()], ["clip.mp4"])

    def test_slow_scenes_are_given_to_several_workers(self):
        render = self.ask_in_segments(7)
        with mock.patch.object(clips, "SLOW_FRAME_MS", 0):
            tasks.start(render.pk)
        self.assertGreaterEqual(self.sent.call_count, 1)
        self.assertEqual(
            self.sent.call_args.kwargs["threads"], 1 if self.sent.call_count > 1 else 3
        )

    def test_an_odd_size_is_refused_with_what_to_do(self):
        self.small.refresh_from_db()
        edit = {"name": "set-value", "path": "scene.size", "value": [321, 180]}
        history.record(self.small.pk, self.small.head, edit, self.ada)
        page = self.client.post(reverse("ask-render", args=[self.small.pk]), follow=True)
        self.assertContains(page, "Make it 322 × 180")
        self.assertFalse(Render.objects.exists())

    def test_cancel_stops_the_worker_within_a_segment(self):
        render = self.ask()
        segment = queue.claim(render)
        self.assertTrue(queue.report(segment, 3))
        self.client.post(reverse("cancel-render", args=[render.pk]))
        self.assertFalse(queue.report(segment, 4))
        tasks.draw(render.pk, threads=1)
        render.refresh_from_db()
        self.assertEqual(render.state, State.CANCELLED)
        self.assertEqual(self.client.get(reverse("clip", args=[render.pk])).status_code, 404)

    def test_a_failure_says_its_reason_and_frame(self):
        render = self.ask()
        with mock.patch.object(tasks, "render_segment", side_effect=OSError("No space left")):
            tasks.draw(render.pk, threads=1)
        page = self.client.get(reverse("renders"))
        self.assertContains(page, "After frame 0: No space left")
        self.assertContains(page, "Try again")
        with mock.patch.object(tasks.start, "delay"):
            self.client.post(reverse("render-again", args=[render.pk]))
        again = Render.objects.latest("pk")
        self.assertNotEqual(again.pk, render.pk)
        tasks.draw(again.pk, threads=1)
        self.finished(again)

    def lose_worker(self, render: Render) -> Segment:
        """A worker claims a segment, draws a little, and is heard of no more."""
        segment = queue.claim(render)
        queue.report(segment, 2)
        gone = timezone.now() - queue.LOST_AFTER - timedelta(seconds=1)
        Segment.objects.filter(pk=segment.pk).update(seen_at=gone)
        Render.objects.filter(pk=render.pk).update(started_at=gone)
        return segment

    def test_a_lost_worker_loses_nothing(self):
        render = self.ask()
        segment = self.lose_worker(render)
        tasks.take_up_lost()
        self.sent.assert_called_once()
        tasks.draw(render.pk, threads=1)
        self.finished(render)
        self.assertFalse(queue.report(segment, 20), "the lost worker may not go on")

    def test_a_worker_that_is_heard_of_is_left_alone(self):
        render = self.ask()
        queue.claim(render)
        tasks.take_up_lost()
        self.sent.assert_not_called()

    def test_a_worker_lost_again_and_again_fails_the_render(self):
        render = self.ask()
        for _ in range(queue.MOST_ATTEMPTS):
            self.lose_worker(render)
            queue.lost_renders()
        render.refresh_from_db()
        self.assertEqual(render.state, State.FAILED)
        self.assertIn("was lost 3 times", render.reason)

    def test_a_worker_lost_before_joining(self):
        render = self.ask()
        segment = queue.claim(render)
        tasks._draw_segment(segment, 1)
        gone = timezone.now() - timedelta(minutes=1)
        Render.objects.filter(pk=render.pk).update(started_at=gone)
        tasks.take_up_lost()
        self.sent.assert_called_once()
        tasks.draw(render.pk, threads=1)
        self.finished(render)

    def test_the_broker_being_away_is_said(self):
        with mock.patch.object(tasks.start, "delay", side_effect=OSError("refused")):
            page = self.client.post(reverse("ask-render", args=[self.small.pk]), follow=True)
        self.assertContains(page, "The render queue does not answer")

    def test_removing_takes_the_files_along(self):
        render = self.ask()
        tasks.draw(render.pk, threads=1)
        folder = queue.folder_of(render)
        self.assertTrue(folder.exists())
        self.client.post(reverse("remove-render", args=[render.pk]))
        self.assertFalse(folder.exists())
        self.assertFalse(Render.objects.exists())
