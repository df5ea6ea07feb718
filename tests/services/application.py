"""The whole application as `bin/balletto start` brings it up, for tests to talk to."""

import os
import re
import signal
import subprocess
import time
from collections.abc import Iterator
from contextlib import contextmanager, suppress
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


@contextmanager
def running(var: Path, *words: str) -> Iterator[tuple[subprocess.Popen, str]]:
    """The same until the block ends: its process and address."""
    process, said = start(var, *words)
    try:
        yield process, re.search(r"http://\S+", said)[0]
    finally:
        stop(process)


def processes(process: subprocess.Popen, program: str) -> list[int]:
    """The numbers of the processes below the application whose command line has a word."""
    return [pid for pid in _descendants(process.pid) if program in _command_of(pid)]


def _descendants(pid: int) -> list[int]:
    try:
        children = Path(f"/proc/{pid}/task/{pid}/children").read_text().split()
    except FileNotFoundError:
        return []
    return [each for child in map(int, children) for each in (child, *_descendants(child))]


def _command_of(pid: int) -> str:
    try:
        return Path(f"/proc/{pid}/cmdline").read_bytes().replace(b"\0", b" ").decode()
    except FileNotFoundError:  # it has ended
        return ""


def left_behind(var: Path, seconds: float = 20) -> list[str]:
    """The commands of processes that an application in a folder has left running."""
    end = time.monotonic() + seconds
    while found := [pid for pid in _all_processes() if _works_in(pid, var)]:
        if time.monotonic() > end:
            return [_command_of(pid) for pid in found]
        time.sleep(0.2)
    return []


def _all_processes() -> list[int]:
    return [int(path.name) for path in Path("/proc").iterdir() if path.name.isdecimal()]


def _works_in(pid: int, var: Path) -> bool:
    try:
        return f"BALLETTO_VAR={var}\0".encode() in Path(f"/proc/{pid}/environ").read_bytes()
    except (FileNotFoundError, PermissionError, ProcessLookupError):
        return False


def kill(pid: int) -> None:
    """Ends a process at once, as a crash does."""
    with suppress(ProcessLookupError):
        os.kill(pid, signal.SIGKILL)


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
    shown = client.get(page)
    shown.raise_for_status()
    token = _TOKEN.search(shown.text)[1]
    return client.post(address, data={**words, "csrfmiddlewaretoken": token}, **more)
