"""Figures of the running application: from an edit to the picture of it."""

import json
import os
import re
import statistics
import tempfile
import time
from pathlib import Path

import httpx

from balletto.scene import files
from web.services.databases import Databases
from web.services.processes import free_port
from web.services.start import DEMO_NAME, prepare, web_server

from .core import title_scene

EDITS = 120
_TOKEN = re.compile(r'name="csrfmiddlewaretoken" value="([^"]+)"')


def editing() -> dict[str, float]:
    """Milliseconds from posting an edit to having its 960 x 540 frame, in a started application.

    A title of 36 letters at 1920 x 1080; every edit is kept, and every frame is drawn anew.
    """
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
                times = _edit_many(base, password)
            finally:
                server.stop()
    times.sort()
    return {
        "edit_to_picture_ms_median": statistics.median(times),
        "edit_to_picture_ms_p95": times[int(len(times) * 0.95)],
    }


def _is_up(base: str) -> bool:
    try:
        return httpx.get(f"{base}/accounts/sign-in/").status_code == 200
    except httpx.TransportError:
        return False


def _edit_many(base: str, password: str) -> list[float]:
    with httpx.Client(base_url=base, follow_redirects=True) as client:
        form = client.get("/accounts/sign-in/").text
        words = {"username": DEMO_NAME, "password": password}
        token = _TOKEN.search(form)[1]
        page = client.post("/accounts/sign-in/", data={**words, "csrfmiddlewaretoken": token}).text
        project = re.search(r"/projects/(\d+)/new-scene/", page)[1]
        token = _TOKEN.search(page)[1]
        text = files.to_text(files.to_data(title_scene()))
        made = client.post(
            f"/projects/{project}/scene-from-file/",
            data={"csrfmiddlewaretoken": token},
            files={"file": ("bench.balletto.json", text)},
        )
        scene = re.search(r"/scenes/(\d+)/", str(made.url))[1]
        token = re.search(r'"X-CSRFToken": "([^"]+)"', made.text)[1]
        return [_edit(client, scene, token, number) for number in range(1, EDITS + 1)]


def _edit(client: httpx.Client, scene: str, token: str, number: int) -> float:
    edit = {"name": "set-value", "path": "t1.style.size", "value": 60 + number / 8}
    values = {"base": number, "layer": "t1", "frame": 40, "edit": json.dumps(edit)}
    started = time.perf_counter()
    answer = client.post(f"/scenes/{scene}/edit/", data=values, headers={"X-CSRFToken": token})
    digest = re.search(r'data-digest="([0-9a-f]+)"', answer.text)[1]
    frame = client.get(f"/scenes/{scene}/frames/{digest}/40/", params={"box": 960})
    taken = (time.perf_counter() - started) * 1000
    assert frame.headers["Content-Type"] == "image/jpeg", frame.status_code
    return taken
