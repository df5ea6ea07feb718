"""The tests cut into shares that run side by side, each with databases of its own. The first begins
with what only computes, measured for how much of the code it runs."""

import subprocess
import sys
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

ROOT = Path(__file__).resolve().parents[2]
# Of the lines of a folder at least so many percent are run by the measured tests.
_LEAST_COVERED = {"balletto": 95, "web": 90}
# Tests that try thousands of inputs say nothing about that, and take twice as long measured.
_UNMEASURED = {"tests.core.test_fuzz", "tests.core.test_likely", "tests.web.test_bad_input"}
_MEASURED_FOLDERS = ("core", "web")
# How long a line of a test module takes, by its folder: measured, in about hundredths of a second.
_WEIGHTS = {"browser": 28, "services": 30}
_MEASURED_WEIGHT = 25_000  # of all measured tests together
# Modules that say how often in one line, or wait for answers that come late.
_LONG = {
    "tests.core.test_fuzz": 5_300,
    "tests.core.test_likely": 4_200,
    "tests.web.test_bad_input": 3_000,
    "tests.browser.test_random_hands": 25_000,
    "tests.browser.test_pending": 18_500,
    "tests.browser.test_late_jobs": 18_000,
    "tests.browser.test_late_drags": 16_500,
}


def share_of_tests(number: int, count: int) -> list[str]:
    """The test modules that are not measured, of share `number` (from 1) of `count`: of about the
    same length each, the first with what is measured before."""
    loads = [float(_MEASURED_WEIGHT), *[0.0] * (count - 1)]
    shares: list[list[str]] = [[] for _ in range(count)]
    for weight, label in sorted(_weighed(), reverse=True):
        lightest = loads.index(min(loads))
        loads[lightest] += weight
        shares[lightest].append(label)
    return shares[number - 1]


def measured_tests() -> list[str]:
    """The test modules that are measured."""
    return [
        label
        for label, folder, _ in _modules()
        if folder in _MEASURED_FOLDERS and label not in _UNMEASURED
    ]


def _weighed() -> list[tuple[float, str]]:
    measured = set(measured_tests())
    return [
        (_LONG.get(label, lines * _WEIGHTS.get(folder, 0)), label)
        for label, folder, lines in _modules()
        if label not in measured
    ]


def _modules() -> list[tuple[str, str, int]]:
    """Every test module: its label, its folder, its lines."""
    return [
        (
            ".".join(path.relative_to(ROOT).with_suffix("").parts),
            path.parent.name,
            len(path.read_text().splitlines()),
        )
        for path in sorted((ROOT / "tests").glob("*/test_*.py"))
    ]


def run_shares(count: int, logs: Path) -> int:
    """Runs all shares at once, then prints what each said and one closing line for all.

    1 if any of them failed or could not run.
    """
    logs.mkdir(parents=True, exist_ok=True)
    data = logs / "coverage"
    own = ["-m", "web.command", "test"]
    shares = [[[*own, "--share", f"{number}/{count}"]] for number in range(1, count + 1)]
    covered = ["-m", "coverage", "run", f"--data-file={data}", *own]
    shares[0].insert(0, [*covered, "--no-lint", *measured_tests()])
    with ThreadPoolExecutor(count) as pool:
        ended = list(pool.map(lambda each: _run_in_turn(*each, logs), enumerate(shares)))
    totals = [0, 0, 0]
    for _, text in (run for share in ended for run in share):
        print(text)
        closing = next((line for line in reversed(text.splitlines()) if " passed, " in line), "")
        counts = [int(part.split()[0]) for part in closing.split(", ")] if closing else [0, 1, 0]
        totals = [total + more for total, more in zip(totals, counts, strict=True)]
    print("{} passed, {} failed, {} skipped".format(*totals))
    codes = [code for share in ended for code, _ in share]
    return int(any(codes) or not totals[0] or _is_too_little_covered(data))


def _run_in_turn(number: int, commands: list[list[str]], logs: Path) -> list[tuple[int, str]]:
    """Runs commands of a share one after another: how each ended, and what it said."""
    ended = []
    for turn, words in enumerate(commands):
        log = logs / f"tests-{number + 1}-{turn + 1}.log"
        with log.open("w") as output:
            command = [sys.executable, *words]
            done = subprocess.run(command, cwd=ROOT, stdout=output, stderr=output)
        ended.append((done.returncode, log.read_text()))
    return ended


def _is_too_little_covered(data: Path) -> bool:
    """Prints how much of each folder the measured tests ran; whether that is too little."""
    found = False
    for folder, least in _LEAST_COVERED.items():
        words = ["report", f"--data-file={data}", f"--include={folder}/*", f"--fail-under={least}"]
        command = [sys.executable, "-m", "coverage", *words]
        done = subprocess.run(command, cwd=ROOT, capture_output=True, text=True)
        if done.returncode:
            print(done.stdout, done.stderr)
            found = True
        else:
            print(f"{folder}: {done.stdout.split()[-1]} of the lines are run, {least}% are needed")
    return found
