"""What a render needs is killed in the middle of it: the clip is made all the same, whole."""

import io
import os
import re
import signal
import tempfile
import time
from pathlib import Path
from unittest import TestCase

import av
import httpx

from balletto.scene import files
from tests.core.scenes import small_scene

from . import application

LENGTH = 500


class KillTest(TestCase):
    @classmethod
    def setUpClass(cls):
        folder = tempfile.TemporaryDirectory(prefix="balletto-kills-")
        cls.addClassCleanup(folder.cleanup)
        cls.process, said = application.start(Path(folder.name), "--port", "8700")
        cls.addClassCleanup(application.stop, cls.process)
        address = re.search(r"http://\S+", said)[0]
        cls.client = application.visit(address)
        cls.addClassCleanup(cls.client.close)
        application.sign_in(cls.client, re.search(r"password (\S+)", said)[1])
        cls.scene = cls.upload()

    @classmethod
    def upload(cls) -> str:
        """The number of a new scene that takes some seconds to render."""
        data = {**files.to_data(small_scene("Nine Moons", length=LENGTH)), "size": [1280, 720]}
        project = re.search(r"/projects/(\d+)/", cls.client.get("/").text)[1]
        sent = {"file": ("moons.balletto.json", files.to_text(data))}
        page = application.post(cls.client, f"/projects/{project}/scene-from-file/", {}, files=sent)
        return re.search(r"/scenes/(\d+)/", str(page.url))[1]

    def ask(self) -> str:
        words = {
            "name": "Nine Moons",
            "formats": "mp4",
            "sizes": "1280x720",
            "rate": "30",
            "first": "0",
            "last": str(LENGTH - 1),
            "quality": "80",
            "loops": "0",
            "still_at": "0",
        }
        page = application.post(self.client, f"/renders/of/{self.scene}/", words)
        return re.search(r"render=(\d+)", str(page.url))[1]

    def job(self, number: str) -> tuple[str, int]:
        """The state of a render and how many frames are drawn."""
        page = self.client.get(f"/renders/?render={number}").text
        job = page.split(f'id="job-{number}"')[1].split("</li>")[0]
        state = re.search(r"state--(\w+)", job)[1]
        return state, int(re.search(r'aria-valuenow="(\d+)"', job)[1])

    def wait_until(self, number: str, is_so, seconds: float = 120):
        end = time.monotonic() + seconds
        told = "nothing"
        while time.monotonic() < end:
            try:
                told = self.job(number)
            except (httpx.HTTPError, IndexError):  # what the page needs is just away
                time.sleep(0.3)
                continue
            if is_so(*told):
                return
            time.sleep(0.2)
        self.fail(f"waited in vain; the page says {told}")

    def kill(self, *programs: str) -> int:
        """Kills the programs below the application whose command line has one of these words."""
        killed = 0
        for pid in _descendants(self.process.pid):
            command = Path(f"/proc/{pid}/cmdline").read_bytes().replace(b"\0", b" ").decode()
            if any(program in command for program in programs):
                os.kill(pid, signal.SIGKILL)
                killed += 1
        return killed

    def goes_on_after(self, *programs: str):
        before = self.scene_file()
        number = self.ask()
        self.wait_until(number, lambda state, done: state == "drawing" and done > 10)
        self.assertGreater(self.kill(*programs), 0)
        half = self.clip_status(number)
        self.assertNotEqual(half, 200, "half a clip is offered")
        self.wait_until(number, lambda state, _: state not in ("waiting", "drawing"))
        self.assertEqual(self.job(number), ("finished", LENGTH))
        clip = self.client.get(f"/renders/{number}/clip/").content
        with av.open(io.BytesIO(clip)) as opened:
            self.assertEqual(sum(packet.size > 0 for packet in opened.demux(video=0)), LENGTH)
        self.assertEqual(self.scene_file(), before)

    def scene_file(self) -> str:
        answer = self.client.get(f"/scenes/{self.scene}/file/")
        self.assertEqual(answer.status_code, 200)
        return answer.text

    def clip_status(self, number: str) -> int:
        try:
            return self.client.get(f"/renders/{number}/clip/").status_code
        except httpx.HTTPError:
            return 0

    def test_the_worker(self):
        self.goes_on_after("celery")

    def test_the_broker(self):
        self.goes_on_after("redis-server")

    def test_the_database(self):
        self.goes_on_after("mariadbd")


def _descendants(pid: int) -> list[int]:
    try:
        children = Path(f"/proc/{pid}/task/{pid}/children").read_text().split()
    except FileNotFoundError:
        return []
    return [each for child in map(int, children) for each in (child, *_descendants(child))]
