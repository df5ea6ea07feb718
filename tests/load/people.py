"""People at the workbench, as the server meets them: they send what the page sends."""

import json
import random
import re
import time
from dataclasses import dataclass, field
from threading import Event
from typing import Any
from uuid import uuid4

import httpx

from benchmarks.application import upload
from tests.services import application

PASSWORD = "nine moons over the dome"  # noqa: S105
_FAULTS = {500, 502, 503, 504}  # after which the page sends a request again
_WAIT_S = 0.3


@dataclass
class Asked:
    """What was asked of the server: how long answers took, in ms, by kind, and what was wrong."""

    took: dict[str, list[float]] = field(default_factory=dict)
    wrong: list[str] = field(default_factory=list)


class Person:
    """Somebody with an account and one scene, who changes a value of it again and again.

    patience_s: how long one change is sent again; beyond that the person gives up, which is wrong.
    """

    def __init__(self, address: str, name: str, patience_s: float = 0):
        self.name, self.patience_s = name, patience_s
        self.client = application.visit(address)
        self.asked = Asked()
        self.scene = ""
        self.revision = 1
        self.value = 0.0
        self.chance = random.Random(name)
        self._token = ""

    def sign_up(self) -> None:
        """Makes the account, which signs in."""
        words = {"username": self.name, "password1": PASSWORD, "password2": PASSWORD}
        page = application.post(self.client, "/accounts/sign-up/", words, "/accounts/sign-up/")
        if "sign-up" in str(page.url):
            raise AssertionError(f"{self.name} got no account")

    def send_scene(self, document: dict[str, Any]) -> None:
        """Makes a scene of a document, in a new project."""
        application.post(self.client, "/projects/new/", {"name": "Winter season"})
        self.scene, self._token = upload(self.client, document)

    def work(self, until: Event, pause_s: float) -> None:
        """Changes the value and looks at it, again and again, with pauses around `pause_s`."""
        until.wait(self.chance.uniform(0, pause_s))
        while not until.is_set():
            self.look(self.change())
            until.wait(self.chance.uniform(0.5, 1.5) * pause_s)

    def change(self) -> str:
        """Sets the size of the title to the next value; gives the digest of the scene then, "" if
        that was not done."""
        value = 40 + (self.value * 8 + 1) % 320 / 8
        edit = {"name": "set-value", "path": "t1.style.size", "value": value}
        data = {"base": self.revision, "layer": "t1", "frame": 20, "edit": json.dumps(edit)}
        headers = {"X-CSRFToken": self._token}
        answer = self._answer(
            "edit", "POST", "edit/", data={**data, "request": uuid4().hex}, headers=headers
        )
        if answer is None:
            return ""
        self.value, self.revision = value, int(answer.headers["X-Revision"])
        return answer.headers["X-Digest"]

    def look(self, digest: str) -> None:
        """Asks for what the page asks for after a change: the picture, and numbers to draw from."""
        if not digest:
            return
        self._answer("picture", "GET", f"frames/{digest}/20/", params={"box": 960})
        self._answer("numbers", "GET", f"motion/{digest}/", params={"layer": "t1"})
        self._answer("numbers", "GET", f"places/{digest}/20/", params={"layer": "t1"})

    def _answer(self, kind: str, method: str, path: str, **sent: Any) -> httpx.Response | None:
        """The answer, asked for again until there is one, or the patience is over."""
        started = time.monotonic()
        while True:
            began = time.perf_counter()
            told = self._tried(kind, method, f"/scenes/{self.scene}/{path}", **sent)
            if isinstance(told, httpx.Response):
                took = (time.perf_counter() - began) * 1000
                self.asked.took.setdefault(kind, []).append(took)
                return told
            if time.monotonic() - started > self.patience_s:
                self.asked.wrong.append(f"{self.name}, {kind}: {told}")
                return None
            time.sleep(_WAIT_S)

    def _tried(self, kind: str, method: str, address: str, **sent: Any) -> httpx.Response | str:
        try:
            answer = self.client.request(method, address, **sent)
        except httpx.HTTPError as error:
            return f"no answer ({type(error).__name__})"
        if answer.status_code == 200 and "/accounts/" not in str(answer.url):
            return answer
        told = f"{answer.status_code} {answer.text[:120]}"
        if answer.status_code not in _FAULTS:
            self.asked.wrong.append(f"{self.name}, {kind}: {told}")
        return told

    def lost(self) -> list[str]:
        """What is not as this person was told: each change is kept once, and the last one holds."""
        document = self.client.get(f"/scenes/{self.scene}/file/").json()
        size = document["layers"][0]["style"]["size"]
        found = []
        if self.value and size != self.value:
            found.append(f"{self.name}: the size is {size}, not {self.value}")
        page = self.client.get(f"/scenes/{self.scene}/").text
        head = int(re.search(r'data-revision="(\d+)"', page)[1])
        changes = len(self.asked.took.get("edit", []))
        if head != 1 + changes:
            found.append(f"{self.name}: {head - 1} changes are kept, not {changes}")
        return found
