"""Many people edit for a while, each a scene of their own."""

from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from tempfile import TemporaryDirectory
from threading import Event, Timer

from balletto.scene import files
from tests.core.scenes import small_scene
from tests.services import application

from .people import Person

MOST_PEOPLE, MOST_SECONDS = 200, 600
PAUSE_S = 3.0  # between two changes of a person
P95_MS = 250  # that an edit is to be answered within, with fifty people, on two cores


def editing(
    people: int, seconds: float, port: int = 8710
) -> tuple[dict[str, list[float]], list[str]]:
    """How long answers took, in ms, by what was asked; and everything that was wrong."""
    people, seconds = min(people, MOST_PEOPLE), min(seconds, MOST_SECONDS)
    with TemporaryDirectory(prefix="balletto-load-") as folder:
        words = ("--no-demo", "--port", str(port))
        with application.running(Path(folder), *words) as (_, address):
            there = [Person(address, f"Dancer{number}") for number in range(people)]
            with ThreadPoolExecutor(people) as hands:
                for person in there:
                    person.sign_up()
                    person.send_scene(_document())
                until = Event()
                Timer(seconds, until.set).start()
                for work in [hands.submit(each.work, until, PAUSE_S) for each in there]:
                    work.result()
            wrong = [fault for each in there for fault in (*each.asked.wrong, *each.lost())]
            for each in there:
                each.client.close()
    kinds = {kind for each in there for kind in each.asked.took}
    took = {kind: [ms for each in there for ms in each.asked.took.get(kind, [])] for kind in kinds}
    return took, wrong


def _document() -> dict:
    """A title at 1920 x 1080."""
    data = files.to_data(small_scene("The Quiet Orbit of Nine Winter Moons", length=90))
    data["layers"][0]["transform"]["position"] = [960, 540, 0]
    return {**data, "size": [1920, 1080]}


def told(took: dict[str, list[float]]) -> list[str]:
    """A line for each kind of answer."""
    lines = []
    for kind, each in sorted(took.items()):
        median, p95 = percentile(each, 0.5), percentile(each, 0.95)
        lines.append(
            f"{kind:8}{len(each):6} answers; ms: median {median:.0f}, p95 {p95:.0f}, "
            f"most {max(each):.0f}"
        )
    return lines


def percentile(values: list[float], part: float) -> float:
    """What `part` of the values are below."""
    return sorted(values)[int(len(values) * part)]
