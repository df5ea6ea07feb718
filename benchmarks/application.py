"""Figures of the running application: from an edit to the picture of it."""

import json
import os
import re
import statistics
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

import httpx

from balletto.scene import files
from web.services.databases import Databases
from web.services.processes import free_port
from web.services.start import DEMO_NAME, prepare, web_server

from .core import title_scene

EDITS = 120
_TOKEN = re.compile(r'name="csrfmiddlewaretoken" value="([^"]+)"')


@contextmanager
def started() -> Iterator[tuple[str, str]]:
    """A started application: its address, and the password of the demo account."""
    with tempfile.TemporaryDirectory(prefix="balletto-bench-") as folder:
        var = Path(folder)
        with Databases(var, 33261) as databases:
            os.environ.update(databases.environment)
            password = databases.secrets["DEMO_PASSWORD"]
            prepare(password)
            server = web_server(var, "127.0.0.1", port := free_port(8400))
            server.start()
            try:
                base = f"http://127.0.0.1:{port}"
                server.wait_for(lambda: _is_up(base))
                yield base, password
            finally:
                server.stop()


def editing() -> dict[str, float]:
    """Milliseconds from posting an edit to having its 960 x 540 frame, in a started application.

    A title of 36 letters at 1920 x 1080; every edit is kept, and every frame is drawn anew.
    """
    with started() as (base, password), signed_in(base, password) as client:
        scene, token = upload(client, files.to_data(title_scene()))
        times = [_edit(client, scene, token, number) for number in range(1, EDITS + 1)]
    return spread("edit_to_picture_ms", times)


def spread(name: str, times: list[float]) -> dict[str, float]:
    """The median and the 95th percentile of times."""
    ordered = sorted(times)
    return {
        f"{name}_median": statistics.median(ordered),
        f"{name}_p95": ordered[int(len(ordered) * 0.95)],
    }


def _is_up(base: str) -> bool:
    try:
        return httpx.get(f"{base}/accounts/sign-in/").status_code == 200
    except httpx.TransportError:
        return False


@contextmanager
def signed_in(base: str, password: str) -> Iterator[httpx.Client]:
    """A client in the demo account."""
    with httpx.Client(base_url=base, follow_redirects=True) as client:
        form = client.get("/accounts/sign-in/").text
        words = {"username": DEMO_NAME, "password": password}
        token = _TOKEN.search(form)[1]
        client.post("/accounts/sign-in/", data={**words, "csrfmiddlewaretoken": token})
        yield client


def upload(client: httpx.Client, document: dict[str, Any]) -> tuple[str, str]:
    """Makes a scene of a document: its number, and the token that its page posts with."""
    page = client.get("/").text
    project = re.search(r"/projects/(\d+)/new-scene/", page)[1]
    made = client.post(
        f"/projects/{project}/scene-from-file/",
        data={"csrfmiddlewaretoken": _TOKEN.search(page)[1]},
        files={"file": ("bench.balletto.json", files.to_text(document))},
    )
    scene = re.search(r"/scenes/(\d+)/", str(made.url))[1]
    return scene, re.search(r'"X-CSRFToken": "([^"]+)"', made.text)[1]


def _edit(client: httpx.Client, scene: str, token: str, number: int) -> float:
    edit = {"name": "set-value", "path": "t1.style.size", "value": 60 + number / 8}
    values = {"base": number, "layer": "t1", "frame": 40, "edit": json.dumps(edit)}
    started = time.perf_counter()
    answer = client.post(f"/scenes/{scene}/edit/", data=values, headers={"X-CSRFToken": token})
    digest = re.search(r'data-digest="([0-9a-f-]+)"', answer.text)[1]
    frame = client.get(f"/scenes/{scene}/frames/{digest}/40/", params={"box": 960})
    taken = (time.perf_counter() - started) * 1000
    assert frame.headers["Content-Type"] == "image/jpeg", frame.status_code
    return taken
