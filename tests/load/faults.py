"""Services are killed while people edit, pages are open and clips are rendered: nothing that was
kept is lost, every page recovers by itself, every render ends."""

import random
from concurrent.futures import Future, ThreadPoolExecutor
from dataclasses import dataclass, field
from pathlib import Path
from subprocess import Popen
from tempfile import TemporaryDirectory
from threading import Event
from time import monotonic, sleep

from balletto.scene import files
from tests.core.scenes import small_scene
from tests.services import application

from .pages import nudged
from .people import Person
from .renders import LENGTH, Director

MOST_TIMES = 50
PROGRAMS = {
    "the database": "mariadbd",
    "Redis": "redis-server",
    "the web server": "gunicorn",
    "the worker": "celery",
}
_PAUSE_S = 1.0  # between two changes of a person
_PATIENCE_S = 90.0
_START = 960.0  # px from the left, of the title in a page


@dataclass
class Suffered:
    """What was done to the application, and what came of it."""

    kills: int = 0
    changes: int = 0
    nudges: int = 0
    clips: int = 0
    wrong: list[str] = field(default_factory=list)


def faults(times: int, people: int, directors: int, port: int = 8720) -> Suffered:
    """Kills each service `times` times, one after another; a page is open besides."""
    suffered = Suffered()
    with TemporaryDirectory(prefix="balletto-load-") as folder:
        words = ("--no-demo", "--port", str(port))
        with application.running(Path(folder), *words) as (process, address):
            editors = [Person(address, f"Dancer{n}", _PATIENCE_S) for n in range(people)]
            asking = [Director(address, f"Director{n}", _PATIENCE_S) for n in range(directors)]
            onlooker = Person(address, "Onlooker", _PATIENCE_S)
            everybody = [*editors, *asking, onlooker]
            for person in everybody:
                person.sign_up()
                person.send_scene(_document())
            is_open, until = Event(), Event()
            with ThreadPoolExecutor(len(everybody)) as hands:
                work: list[Future] = [hands.submit(each.work, until, _PAUSE_S) for each in editors]
                work += [hands.submit(each.direct, until) for each in asking]
                page = hands.submit(nudged, onlooker, is_open, until, _PAUSE_S)
                try:
                    is_open.wait(_PATIENCE_S)
                    _kill_again_and_again(process, asking[0], min(times, MOST_TIMES), suffered)
                finally:
                    until.set()
                for each in work:
                    each.result()
                suffered.nudges = page.result()
            _tell(suffered, editors, asking, onlooker)
        left = application.left_behind(Path(folder))
        suffered.wrong += [f"still there: {command}" for command in left]
    return suffered


def _document() -> dict:
    data = files.to_data(small_scene("Nine Moons", length=LENGTH))
    data["layers"][0]["transform"]["position"] = [_START, 540, 0]
    return {**data, "size": [1920, 1080]}


def _kill_again_and_again(process: Popen, asking: Director, times: int, suffered: Suffered) -> None:
    chance = random.Random(times)
    for again in range(times):
        for name, program in PROGRAMS.items():
            Event().wait(chance.uniform(0.5, 3))
            found = _there(process, program)
            if not found:
                suffered.wrong.append(f"{name} is not there to be killed")
                continue
            # The one that started the others, then any.
            application.kill(chance.choice(found) if again else found[0])
            suffered.kills += 1
            asking.until_answered(lambda: asking.client.get("/renders/").raise_for_status())


def _there(process: Popen, program: str) -> list[int]:
    """The processes of a program, once there are any: one that was killed is started again."""
    until = monotonic() + _PATIENCE_S
    while not (found := application.processes(process, program)) and monotonic() < until:
        sleep(0.1)
    return found


def _tell(
    suffered: Suffered, editors: list[Person], asking: list[Director], onlooker: Person
) -> None:
    for person in editors:
        suffered.wrong += [*person.asked.wrong, *person.lost()]
        suffered.changes += len(person.asked.took.get("edit", []))
    for director in asking:
        suffered.wrong += director.asked.wrong
        suffered.clips += director.clips
    document = onlooker.client.get(f"/scenes/{onlooker.scene}/file/").json()
    place = document["layers"][0]["transform"]["position"][0]
    if place != _START + suffered.nudges:
        suffered.wrong.append(f"the page moved a title to {place}, by {suffered.nudges} px")
