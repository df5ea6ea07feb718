"""Renders: asked for, drawn by the queue's own code, watched, cancelled, lost and taken up."""

import html
import io
import re
import tempfile
import time
from datetime import timedelta
from unittest import mock

import av
from django.conf import settings
from django.db import OperationalError, connection
from django.test import TransactionTestCase, override_settings
from django.test.utils import CaptureQueriesContext
from django.urls import reverse
from django.utils import timezone
from PIL import Image

from balletto.clip import render as clips
from balletto.clip.export_settings import usual_settings
from balletto.clip.formats import FORMATS
from balletto.scene import files
from tests.core.scenes import small_scene
from web.projects import history
from web.projects.models import Project
from web.renders import queue, tasks
from web.renders.models import Render, Retention, Segment, State

from .base import PageTest, make_person


class RenderTest(PageTest):
    def setUp(self):
        super().setUp()
        self.keep_files_apart()
        sent = mock.patch.object(tasks.work, "delay")
        self.sent = sent.start()
        self.addCleanup(sent.stop)
        # How slow a scene is to draw is measured: on a busy machine that may go either way.
        measured = mock.patch.object(tasks, "is_slow", return_value=False)
        self.is_slow = measured.start()
        self.addCleanup(measured.stop)
        project = Project.objects.get(owner=self.ada)
        document = files.to_data(small_scene("Nine Moons", length=24))
        self.small = history.make_scene(project, document, self.ada)

    def words(self, **changes):
        """What the form says when nobody changed it, but for `changes`."""
        usual = {"formats": ["mp4"], "sizes": ["320x180"], "rate": "30", "first": 0, "last": 23}
        more = {"name": "Nine Moons", "quality": 80, "loops": 0, "still_at": 16}
        return {**usual, **more, **changes}

    def ask(self, **changes) -> Render:
        address = reverse("ask-render", args=[self.small.pk])
        answer = self.client.post(address, self.words(**changes))
        self.assertEqual(answer.status_code, 302, answer.content[:3000])
        return Render.objects.latest("pk")

    def plan(self, **changes):
        """The page that tells what would be made."""
        address = reverse("ask-render", args=[self.small.pk])
        return self.client.get(address, self.words(**changes), headers={"HX-Request": "true"})

    def ask_in_segments(self, frames: int) -> Render:
        with mock.patch.object(clips, "SEGMENT_FRAMES", frames):
            return self.ask()

    def finished(self, render: Render) -> Render:
        render.refresh_from_db()
        self.assertEqual(render.state, State.FINISHED, render.reason)
        return render

    def test_the_page_asks_for_sizes_that_come_true(self):
        page = self.plan(formats=["mp4", "png"])
        asked = re.findall(r'hx-get="([^"]*likely[^"]*)"', page.content.decode())
        self.assertEqual(len(asked), 2)
        told = self.client.get(html.unescape(asked[0])).content.decode()
        self.assertRegex(told, r"about \d+(\.\d)?\xa0KB")
        with mock.patch("web.renders.views.likely_bytes") as again:
            self.assertEqual(self.client.get(html.unescape(asked[0])).content.decode(), told)
        again.assert_not_called()
        address = reverse("likely", args=[self.small.pk])
        for how in ("", "[]", '{"format": "mp4"}', "{"):
            self.assertEqual(self.client.get(address, {"how": how}).status_code, 404)

    def test_a_clip_from_asking_to_downloading(self):
        render = self.ask()
        self.sent.assert_called_once()
        tasks.work()
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
        self.assertEqual(render.segments.filter(joins=False).count(), 4)
        tasks.work()
        with av.open(str(queue.clip_of(self.finished(render)))) as clip:
            self.assertEqual(sum(1 for _ in clip.decode(video=0)), 24)
        self.assertEqual([p.name for p in queue.folder_of(render).iterdir()], ["clip.mp4"])

    def test_slow_scenes_are_given_to_several_workers(self):
        render = self.ask()
        self.assertEqual(render.segments.filter(joins=False).count(), 1)
        self.is_slow.return_value = True
        self.sent.reset_mock()
        self.assertTrue(tasks._measure(render))
        render.refresh_from_db()
        self.assertEqual(render.workers, settings.RENDER_WORKERS)
        # Of 24 frames three segments of eight, and what puts them together.
        self.assertEqual(render.segments.filter(joins=False).count(), 3)
        self.assertEqual(self.sent.call_count, 3)
        claimed = [queue.claim(render) for _ in range(settings.RENDER_WORKERS + 1)]
        self.assertIsNone(claimed.pop(), "more workers than may")
        self.assertEqual([segment.number for segment in claimed], list(range(len(claimed))))

    def test_the_file_is_put_together_last(self):
        render = self.ask_in_segments(12)
        Render.objects.filter(pk=render.pk).update(workers=9)
        first, second = queue.claim(render), queue.claim(render)
        self.assertIsNone(queue.claim(render))
        tasks._make(first)
        self.assertIsNone(queue.claim(render))
        tasks._make(second)
        last = queue.claim(render)
        self.assertTrue(last.joins)
        tasks._make(last)
        self.finished(render)

    def test_what_is_made_is_told_before(self):
        page = self.plan(formats=["mp4", "gif"], sizes=["320x180", "1080x1920"])
        self.assertContains(page, "4 clips")
        for told in ("nine-moons-wide.mp4", "nine-moons-tall.gif", "24 frames, 0.80 s"):
            self.assertContains(page, told)
        self.assertFalse(Render.objects.exists())

    def test_two_of_one_shape_have_names_of_their_own(self):
        page = self.plan(sizes=["320x180", "160x90"])
        self.assertContains(page, "nine-moons-320-180.mp4")
        self.assertContains(page, "nine-moons-160-90.mp4")

    def test_a_long_name_and_none_at_all(self):
        for name, shown in (("N" * 200, "n" * 160), ("", "untitled")):
            edit = {"name": "set-value", "path": "scene.name", "value": name}
            self.small.refresh_from_db()
            history.record(self.small.pk, self.small.head, edit, self.ada)
            page = self.client.get(reverse("ask-render", args=[self.small.pk]))
            self.assertContains(page, f"{shown}.mp4")

    def test_rules_of_formats_are_told_and_kept(self):
        page = self.plan(formats=["mp4", "gif"], sizes=[], own_size="321 x 181", rate="60")
        self.assertContains(page, "MP4, H.264 needs even sides: 322 × 182.")
        page = self.plan(formats=["webm-alpha", "prores"], sizes=[], own_size="320 x 180")
        self.assertContains(page, "nothing in it is transparent", count=2)
        page = self.plan(formats=["mp4", "gif"], sizes=[], own_size="321 x 181", rate="60")
        self.assertContains(page, "GIF plays at most 50 frames a second: this one is made at 30.")
        self.ask(formats=["mp4", "gif"], sizes=[], own_size="321 x 181", rate="60")
        made = {render.export.format: render.export for render in Render.objects.all()}
        self.assertEqual((made["mp4"].size, made["mp4"].rate), ((322, 182), 60))
        self.assertEqual((made["gif"].size, made["gif"].rate), ((321, 181), 30))

    def test_what_cannot_be_is_said_where_it_stands(self):
        for told, wrong in (
            ("The last frame of the scene is 23.", {"last": 24}),
            ("The last frame lies before the first.", {"first": 9, "last": 3}),
            ("Choose a format at least.", {"formats": []}),
            ("Choose a size at least.", {"sizes": []}),
            ("Type a width and a height", {"own_size": "12"}),
        ):
            with self.subTest(told):
                self.assertContains(self.plan(**wrong), told)
                address = reverse("ask-render", args=[self.small.pk])
                page = self.client.post(address, self.words(**wrong))
                self.assertContains(page, told)
                self.assertContains(page, "disabled")
        self.assertFalse(Render.objects.exists())

    def test_formats_and_shapes_from_one_form(self):
        self.ask(
            formats=["webm", "gif", "png"],
            sizes=["320x180"],
            own_size="180x180",
        )
        tasks.work()
        renders = list(Render.objects.order_by("pk"))
        self.assertEqual([render.state for render in renders], ["finished"] * 6, renders[0].reason)
        for render in renders:
            size = (180, 180) if "square" in render.name else (320, 180)
            with self.subTest(render.name, format=render.export.format):
                self.assertEqual(self.size_of(queue.clip_of(render)), size)
                page = self.client.get(reverse("renders"), {"render": render.pk})
                self.assertContains(page, FORMATS[render.export.format].title)
                poster = self.client.get(reverse("render-poster", args=[render.pk]))
                across, down = Image.open(io.BytesIO(poster.content)).size
                self.assertAlmostEqual(across / down, size[0] / size[1], places=2)

    def size_of(self, path):
        if path.suffix in (".gif", ".png"):
            with Image.open(path) as image:
                return image.size
        with av.open(str(path)) as clip:
            return clip.streams.video[0].width, clip.streams.video[0].height

    def test_two_clips_beside_each_other(self):
        one, other = self.ask(), self.ask()
        tasks.work()
        page = self.client.get(reverse("renders"), {"render": one.pk, "beside": other.pk})
        for render in (one, other):
            self.assertContains(page, f'id="video-{render.pk}"')
        self.assertContains(page, "Play both")

    def test_the_first_in_line_is_drawn_first(self):
        early, late = self.ask(), self.ask()
        self.assertContains(self.client.get(reverse("renders")), "second in line")
        self.client.post(reverse("render-first", args=[late.pk]))
        self.assertEqual(queue.in_line(), [late, early])
        urgent = self.ask(urgent="on")
        self.assertEqual(queue.in_line()[0], urgent)

    def test_without_room_on_the_disk_nothing_is_begun(self):
        with mock.patch("web.renders.disk_space.free_bytes", return_value=1_000_000):
            self.assertContains(self.plan(), "The disk has 976.6\xa0KB left")
            address = reverse("ask-render", args=[self.small.pk])
            self.client.post(address, self.words())
            self.assertFalse(Render.objects.exists())
        render = self.ask()
        with mock.patch("web.renders.disk_space.free_bytes", return_value=1_000_000):
            tasks.work()
        render.refresh_from_db()
        self.assertEqual(render.state, State.FAILED)
        self.assertIn("The disk has", render.reason)

    def test_old_renders_go_by_the_rule_of_their_owner(self):
        old, new, waiting = self.ask(), self.ask(), self.ask()
        long_ago = timezone.now() - timedelta(days=8)
        Render.objects.filter(pk=old.pk).update(state=State.FINISHED, ended_at=long_ago)
        Render.objects.filter(pk=new.pk).update(state=State.FINISHED, ended_at=timezone.now())
        tasks.remove_old()
        self.assertEqual(Render.objects.count(), 3, "without a rule all are kept")
        self.client.post(reverse("keep-renders"), {"days": "7"})
        tasks.remove_old()
        self.assertEqual(set(Render.objects.all()), {new, waiting})
        self.client.post(reverse("keep-renders"), {"days": ""})
        self.assertIsNone(Retention.objects.get(owner=self.ada).days)

    def test_cancel_stops_the_worker_within_a_segment(self):
        render = self.ask()
        segment = queue.claim(render)
        self.assertTrue(queue.report(segment, 3))
        self.client.post(reverse("cancel-render", args=[render.pk]))
        self.assertFalse(queue.report(segment, 4))
        tasks.work()
        render.refresh_from_db()
        self.assertEqual(render.state, State.CANCELLED)
        self.assertEqual(self.client.get(reverse("clip", args=[render.pk])).status_code, 404)

    def test_a_failure_says_its_reason_and_frame(self):
        render = self.ask()
        with mock.patch.object(tasks, "render_segment", side_effect=OSError("No space left")):
            tasks.work()
        page = self.client.get(reverse("renders"))
        self.assertContains(page, "After frame 0: No space left")
        self.assertContains(page, "Try again")
        self.client.post(reverse("render-again", args=[render.pk]))
        again = Render.objects.latest("pk")
        self.assertNotEqual(again.pk, render.pk)
        tasks.work()
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
        self.sent.reset_mock()
        tasks.take_up_lost()
        self.sent.assert_called()
        tasks.work()
        self.finished(render)
        self.assertFalse(queue.report(segment, 20), "the lost worker may not go on")

    def test_a_worker_that_is_heard_of_is_left_alone(self):
        render = self.ask()
        segment = queue.claim(render)
        tasks.take_up_lost()
        self.assertTrue(queue.report(segment, 1))

    def test_a_worker_lost_again_and_again_fails_the_render(self):
        render = self.ask()
        for _ in range(queue.MOST_ATTEMPTS):
            self.lose_worker(render)
            queue.take_back_lost()
        render.refresh_from_db()
        self.assertEqual(render.state, State.FAILED)
        self.assertIn("was lost 3 times", render.reason)

    def test_a_worker_lost_before_joining(self):
        render = self.ask()
        tasks._make(queue.claim(render))
        self.lose_worker(render)
        tasks.take_up_lost()
        tasks.work()
        self.finished(render)

    def test_the_broker_being_away_keeps_the_render(self):
        self.sent.side_effect = OSError("refused")
        address = reverse("ask-render", args=[self.small.pk])
        page = self.client.post(address, self.words(), follow=True)
        self.assertContains(page, "The render queue does not answer")
        tasks.work()
        self.finished(Render.objects.get())

    def test_the_database_being_away_for_a_while_loses_nothing(self):
        render = self.ask()
        away = [OperationalError("gone"), OperationalError("gone"), mock.DEFAULT]
        with (
            mock.patch.object(queue, "finish", side_effect=away, wraps=queue.finish) as told,
            mock.patch.object(tasks, "REPORT_EVERY_S", 0.01),
            mock.patch.object(tasks, "close_old_connections"),
        ):
            tasks._make(queue.claim(render))
        self.assertEqual(told.call_count, 3)
        tasks.work()
        self.finished(render)

    def test_the_list_asks_once_for_all_and_for_no_document(self):
        def asked():
            self.client.get(reverse("renders"))  # what is kept of files is there then
            with CaptureQueriesContext(connection) as queries:
                self.client.get(reverse("renders"))
            return [each["sql"] for each in queries]

        self.ask()
        few = asked()
        for _ in range(5):
            self.ask()
        many = asked()
        self.assertEqual(len(many), len(few))
        listed = [each.render.pk for each in self.client.get(reverse("renders")).context["renders"]]
        self.assertEqual(listed, sorted(listed, reverse=True))
        self.assertLessEqual(len(many), 14)
        self.assertFalse([each for each in many if "`renders_render`.`document`" in each])

    def test_removing_takes_the_files_along(self):
        render = self.ask()
        tasks.work()
        folder = queue.folder_of(render)
        self.assertTrue(folder.exists())
        self.client.post(reverse("remove-render", args=[render.pk]))
        self.assertFalse(folder.exists())
        self.assertFalse(Render.objects.exists())


class HeartbeatTest(TransactionTestCase):
    """A worker that is at work is not taken for lost, also while no frames come."""

    def test_what_takes_long_is_left_to_its_worker(self):
        person = make_person("ada")
        project = Project.objects.create(owner=person, name="Season")
        document = files.to_data(small_scene("Nine Moons", length=24))
        scene = history.make_scene(project, document, person)
        for slow in ("_draw", "_put_together"):
            with (
                self.subTest(slow),
                tempfile.TemporaryDirectory() as folder,
                override_settings(MEDIA_ROOT=folder, RENDER_WORK=folder),
                mock.patch.object(tasks, "BEAT_EVERY_S", 0.05),
            ):
                export = usual_settings(files.from_data(document), "mp4")
                render = queue.ask(scene, person, export)
                whole = getattr(tasks, slow)

                def long(segment, *more, whole=whole):
                    self.is_seen_again(segment)
                    queue.take_back_lost()
                    segment.refresh_from_db()
                    self.assertEqual((segment.state, segment.attempts), (State.DRAWING, 1))
                    return whole(segment, *more)

                with mock.patch.object(tasks, slow, long):
                    tasks.work()
                render.refresh_from_db()
                self.assertEqual(render.state, State.FINISHED, render.reason)

    def is_seen_again(self, segment):
        """Makes a segment one that was not seen for long, and waits for the next beat."""
        long_ago = timezone.now() - 3 * queue.LOST_AFTER
        row = Segment.objects.filter(pk=segment.pk)
        row.update(seen_at=long_ago)
        end = time.monotonic() + 60
        while row.get().seen_at == long_ago and time.monotonic() < end:
            time.sleep(0.05)
