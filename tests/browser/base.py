"""The real application in Debian's Chromium: a live server, and a worker where clips are made."""

import atexit
import json
import socket
import subprocess
import tempfile
import traceback
from collections.abc import Callable
from functools import cache
from pathlib import Path
from typing import Any

from django.conf import settings
from django.contrib.auth import get_user_model
from django.core.signals import got_request_exception
from django.db import connection
from django.test import Client, LiveServerTestCase
from django.test.testcases import LiveServerThread, QuietWSGIRequestHandler
from playwright.sync_api import Browser, BrowserContext, Locator, Page, expect, sync_playwright

from balletto.motion.poses import poses
from balletto.scene import files
from benchmarks.chromium import CHROMIUM, FLAGS
from tests.core.scenes import scene_data
from web.projects import history
from web.projects.models import Project, Scene
from web.services.start import ROOT, render_worker

PASSWORD = "a-long-way-round-the-sun"  # noqa: S105

expect.set_options(timeout=15_000)


@cache
def the_browser() -> Browser:
    """The browser of this process: starting one takes as long as many a test."""
    playwright = sync_playwright().start()
    browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
    atexit.register(playwright.stop)
    atexit.register(browser.close)  # first: what was registered last is done first
    return browser


@cache
def the_profile() -> BrowserContext:
    """The profile that tests of this process share, for its cache: without it every test would
    fetch and compile all scripts and fonts anew. What else it keeps is emptied for each test."""
    return the_browser().new_context(viewport={"width": 1280, "height": 800})


@cache
def the_port() -> int:
    """The port that all tests of this process are served at: to the browser, one address."""
    with socket.socket() as found:
        found.bind(("localhost", 0))
        return int(found.getsockname()[1])


class _ServerThread(LiveServerThread):
    """A server at a port that the one before has just left. Files are served as in the application:
    they may be kept."""

    def __init__(self, host: str, _: Any, **more: Any):
        super().__init__(host, lambda handler: handler, **more)

    def _create_server(self, connections_override: Any = None) -> Any:
        return self.server_class(
            (self.host, self.port),
            QuietWSGIRequestHandler,
            allow_reuse_address=True,
            connections_override=connections_override,
        )


class BrowserTest(LiveServerTestCase):
    """An empty profile and a fresh page for each test."""

    maxDiff = None

    server_thread_class = _ServerThread
    scene: Scene  # that is open, where tests set it

    @classmethod
    def setUpClass(cls) -> None:
        cls.port = the_port()
        super().setUpClass()

    def setUp(self) -> None:
        self.browser, self.context = the_browser(), the_profile()
        self.faults: list[str] = []
        self.scripts: list[str] = []
        got_request_exception.connect(self.server_failed)
        self.addCleanup(got_request_exception.disconnect, self.server_failed)
        self.addCleanup(self.empty_profile)
        self.page = self.new_tab()

    def server_failed(self, request: Any, **_: Any) -> None:
        """The browser tells of a 500, but not why."""
        self.faults.append(f"{request.method} {request.path}\n{traceback.format_exc()}")

    def empty_profile(self) -> None:
        """Closes all tabs and forgets what pages and tests have left, but for the cache."""
        context = the_profile()
        tab = context.new_page()
        kept = "cookies,local_storage,indexeddb,service_workers,cache_storage"
        where = {"origin": self.live_server_url, "storageTypes": kept}
        context.new_cdp_session(tab).send("Storage.clearDataForOrigin", where)
        context.clear_cookies()
        context.clear_permissions()
        for page in context.pages:
            page.close()

    def begin_with(self, script: str) -> None:
        """Has every tab of the test run a script before its own."""
        self.scripts.append(script)
        for page in self.context.pages:
            page.add_init_script(script)

    def new_tab(self) -> Page:
        """A page whose script errors and refused loads fail the test."""
        page = self.context.new_page()
        for script in self.scripts:
            page.add_init_script(script)
        page.on("pageerror", lambda error: self.faults.append(error.stack or str(error)))
        page.on(
            "console",
            lambda said: (
                self.faults.append(said.text)
                if said.type == "error"
                and "status of 4" not in said.text
                and "Error Code 4" not in said.text
                else None
            ),
        )
        return page

    def tearDown(self) -> None:
        self.assertEqual("\n".join(self.faults), "", "the page or the server had errors")

    def sign_in(self, name: str = "ada") -> Any:
        """Makes an account and a session for it; typing the password is in the story."""
        person = get_user_model().objects.create_user(name)
        self.sign_in_again(person)
        return person

    def sign_in_again(self, person: Any) -> None:
        """Gives the browser a session of an account that is there."""
        client = Client()
        client.force_login(person)
        cookie = client.cookies[settings.SESSION_COOKIE_NAME]
        self.context.add_cookies(
            [{"name": cookie.key, "value": cookie.value, "url": self.live_server_url}]
        )

    def open_scene(self, person: Any, **changes: Any) -> Scene:
        """Makes a scene of the title that rises, and opens it."""
        project = Project.objects.create(owner=person, name="Winter")
        scene = history.make_scene(project, scene_data(**changes), person)
        self.page.goto(f"{self.live_server_url}/scenes/{scene.pk}/")
        self.wait_for_picture()
        return scene

    def document(self, scene: Scene) -> dict[str, Any]:
        scene.refresh_from_db()
        return history.newest(scene).document

    def poses(self, layer: str = "t1") -> dict[str, Any]:
        """What `bin/balletto poses` prints of a layer of the scene that is open, as it is kept."""
        scene = files.from_data(self.document(self.scene))
        told: dict[str, Any] = json.loads(json.dumps(poses(scene, layer, [*range(scene.length)])))
        return told

    # What a hand does

    def chip(self, key: str, page: Page | None = None) -> Locator:
        return (page or self.page).locator(f'[data-chip="{key}"]')

    def scrub(self, key: str, pixels: int) -> None:
        """Drags a value sideways."""
        box = self.chip(key).bounding_box()
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        for step in range(1, 5):
            self.page.mouse.move(x + pixels * step / 4, y)
        self.settled(lambda: self.page.mouse.up())

    def type_value(self, key: str, text: str) -> None:
        """Clicks a value and types another."""
        self.chip(key).click()
        self.page.keyboard.type(text)
        self.settled(lambda: self.page.keyboard.press("Enter"))

    def choose(self, key: str, text: str) -> None:
        """Picks from the list of a choice."""
        self.chip(key).click()
        option = self.page.get_by_role("option", name=text, exact=True).locator("visible=true")
        self.settled(option.click)

    def settled(self, action: Any) -> None:
        """Does something and waits until the answer to it is on the page."""
        with self.page.expect_response(
            lambda answer: (
                answer.request.method == "POST"
                and "preview" not in (answer.request.post_data or "")
            )
        ):
            action()
        self.page.wait_for_function(
            "() => !document.querySelector('#kept').classList.contains('is-busy')"
        )
        self.wait_for_picture()

    def wait_for_picture(self, page: Page | None = None) -> None:
        """Waits until the canvas and the marks over it show the newest revision at the playhead."""
        (page or self.page).wait_for_function(
            """() => {
              const digest = document.getElementById('workbench-state').dataset.digest;
              const frame = document.getElementById('stage-frame').textContent;
              const { shown } = document.getElementById('canvas').dataset;
              const marks = document.getElementById('over').dataset.shown;
              const is = (address) => address?.includes(`${digest}/${frame}/`);
              return is(shown) && is(marks) && !shown.includes("box=480");
            }"""
        )

    def comes_about(self, holds: Callable[[], bool], what: str = "") -> None:
        """Waits until something holds that no page shows; fails after half a minute."""
        for _ in range(300):
            if holds():
                return
            self.page.wait_for_timeout(100)
        self.fail(what or "it did not come about")

    def at_frame(self, frame: int) -> None:
        """Types a time."""
        self.page.get_by_label("Time", exact=True).fill(str(frame))
        self.page.keyboard.press("Enter")
        self.wait_for_picture()

    def picture(self) -> bytes:
        """The canvas as the person sees it, as a data address."""
        return self.page.evaluate("document.getElementById('canvas').toDataURL()")


def with_worker(test: BrowserTest) -> Any:
    """Starts a render worker on the test's database; it ends with the test."""
    environment = {
        "BALLETTO_DATABASE_NAME": connection.settings_dict["NAME"],
        "BALLETTO_MEDIA": str(settings.MEDIA_ROOT),
    }
    var = Path(settings.VAR)
    worker = render_worker(var, environment)
    worker.start()
    test.addCleanup(worker.stop)
    return worker


def command(*words: str) -> bytes:
    """What `bin/balletto` prints."""
    done = subprocess.run([ROOT / "bin" / "balletto", *words], capture_output=True, check=False)
    assert done.returncode == 0, done.stderr.decode()
    return done.stdout


def temporary_folder(test: BrowserTest) -> Path:
    """A folder that goes with the test."""
    folder = tempfile.TemporaryDirectory()
    test.addCleanup(folder.cleanup)
    return Path(folder.name)
