"""Somebody who has clips rendered, one after another, and counts their frames."""

import io
import re
import time
from threading import Event

import av
import httpx

from tests.services import application

from .people import Person

LENGTH = 300  # frames of a clip
_PATIENCE_S = 300  # that a clip may take, on a machine that is busy, with everything killed once


class Director(Person):
    """Asks for clips of a scene; each has to be whole in the end."""

    clips = 0

    def direct(self, until: Event) -> None:
        """Has clips rendered until told to stop; the last one is waited for."""
        while not until.is_set():
            number = self.ask()
            state, done = self.wait_for(number)
            if (state, done) != ("finished", LENGTH):
                self.asked.wrong.append(f"{self.name}: a render ended as {state} after {done}")
            elif (count := self.frames_of(number)) != LENGTH:
                self.asked.wrong.append(f"{self.name}: a clip has {count} frames")
            self.clips += 1

    def ask(self) -> str:
        """Asks for a clip, until that is answered; gives its number."""
        words = {
            "name": f"{self.name} {self.clips}",
            "formats": "mp4",
            "sizes": "960x540",
            "rate": "30",
            "first": "0",
            "last": str(LENGTH - 1),
            "quality": "80",
            "loops": "0",
            "still_at": "0",
        }

        def asked() -> str:
            page = application.post(self.client, f"/renders/of/{self.scene}/", words)
            page.raise_for_status()
            return re.search(r"render=(\d+)", str(page.url))[1]

        return self.until_answered(asked)

    def wait_for(self, number: str) -> tuple[str, int]:
        """The state in which a render ended, and how many frames it has."""
        end = time.monotonic() + _PATIENCE_S
        state, done = "waiting", 0
        while state in ("waiting", "drawing") and time.monotonic() < end:
            state, done = self.until_answered(lambda: self.job(number))
            time.sleep(0.3)
        return state, done

    def job(self, number: str) -> tuple[str, int]:
        """The state of a render, and how many frames are drawn."""
        page = self.client.get(f"/renders/?render={number}")
        page.raise_for_status()
        job = page.text.split(f'id="job-{number}"')[1].split("</li>")[0]
        state = re.search(r"state--(\w+)", job)[1]
        return state, int(re.search(r'aria-valuenow="(\d+)"', job)[1])

    def frames_of(self, number: str) -> int:
        """How many frames a clip has."""

        def fetched() -> bytes:
            answer = self.client.get(f"/renders/{number}/clip/")
            answer.raise_for_status()
            return answer.content

        with av.open(io.BytesIO(self.until_answered(fetched))) as clip:
            return sum(packet.size > 0 for packet in clip.demux(video=0))

    def until_answered(self, ask):
        """What `ask` gives, as often as it takes: what it needs may be away just now."""
        end = time.monotonic() + self.patience_s
        while True:
            try:
                return ask()
            except httpx.HTTPError:
                if time.monotonic() > end:
                    raise
                time.sleep(0.3)
