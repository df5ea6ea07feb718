"""The whole application as `bin/balletto start` brings it up, for tests to talk to."""

import os
import re
import signal
import subprocess
from pathlib import Path

import httpx

from web.services.start import DEMO_NAME, ROOT

_TOKEN = re.compile(r'name="csrfmiddlewaretoken" value="([^"]+)"')


def start(var: Path, *words: str) -> tuple[subprocess.Popen, str]:
    """Starts the application; gives its process and what it said until it was up."""
    own = {name: value for name, value in os.environ.items() if "BALLETTO" not in name}
    process = subprocess.Popen(
        [ROOT / "bin" / "balletto", "start", *words],
        env={**own, "BALLETTO_VAR": str(var), "BALLETTO_RENDER_LOST_AFTER_S": "3"},
        stdout=subprocess.PIPE,
        stderr=subprocess.STDOUT,
        text=True,
    )
    said = []
    for line in process.stdout:
        said.append(line.strip())
        if "Ctrl-C" in line:
            return process, "\n".join(said)
    raise AssertionError("it did not come up: " + "\n".join(said))


def visit(address: str) -> httpx.Client:
    """A client of the application; it waits long, for machines are shared."""
    return httpx.Client(base_url=address, follow_redirects=True, timeout=120)


def stop(process: subprocess.Popen) -> None:
    """Ends it as Ctrl-C does."""
    process.send_signal(signal.SIGINT)
    process.wait(60)
    process.stdout.close()


def sign_in(client: httpx.Client, password: str) -> httpx.Response:
    """Signs the demo account in; gives the page that follows."""
    words = {"username": DEMO_NAME, "password": password}
    return post(client, "/accounts/sign-in/", words, page="/accounts/sign-in/")


def post(
    client: httpx.Client, address: str, words: dict, page: str = "/", **more
) -> httpx.Response:
    """Posts a form with the token of a page."""
    token = _TOKEN.search(client.get(page).text)[1]
    return client.post(address, data={**words, "csrfmiddlewaretoken": token}, **more)
