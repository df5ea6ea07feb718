"""The tests cut into shares that run side by side, each with databases of its own; and how much of
the code those run that only compute."""

import re
import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parents[2]
# How long a line of a test module takes, by its folder: measured, in about hundredths of a second.
# A browser waits, a page renders, the core only computes.
_WEIGHTS = {"browser": 28, "services": 30, "web": 9, "core": 4}
# Modules that say how often in one line, or wait for answers that come late.
_LONG = {
    "tests.core.test_fuzz": 1_500,
    "tests.core.test_likely": 4_200,
    "tests.web.test_bad_input": 3_000,
    "tests.browser.test_random_hands": 8_000,
    "tests.browser.test_pending": 16_000,
    "tests.browser.test_late_jobs": 11_000,
    "tests.browser.test_late_drags": 12_000,
    "tests.browser.test_hands_at_work": 20_500,
    "tests.browser.test_jobs": 12_500,
    "tests.browser.test_access_for_all": 10_000,
    "tests.browser.test_story": 11_000,
    "tests.services.test_worker": 12_000,
    "tests.services.test_load": 25_000,
}


def share_of_tests(number: int, count: int, is_long: bool = False) -> list[str]:
    """The test modules of share `number` (from 1) of `count`, all of about the same length. Of long
    tests the first share is what is measured for coverage."""
    weighed = _weighed()
    measured = [label for _, label in weighed if is_long and _is_measured(label)]
    if measured and number == 1:
        return sorted(measured)
    loads = [0.0] * (count - 1 if measured else count)
    shares: list[list[str]] = [[] for _ in loads]
    for weight, label in sorted(weighed, reverse=True):
        if label not in measured:
            lightest = loads.index(min(loads))
            loads[lightest] += weight
            shares[lightest].append(label)
    return shares[number - 2 if measured else number - 1]


def _weighed() -> list[tuple[float, str]]:
    found = []
    for path in (ROOT / "tests").glob("*/test_*.py"):
        lines = len(path.read_text().splitlines())
        label = ".".join(path.relative_to(ROOT).with_suffix("").parts)
        found.append((_LONG.get(label, lines * _WEIGHTS[path.parent.name]), label))
    return found


def run_shares(count: int, logs: Path, is_long: bool) -> int:
    """Runs all shares at once, then prints what each said, of long tests how much of the code the
    first one ran, and one closing line for all.

    1 if any of them failed or could not run, or if too little of the code is tested.
    """
    logs.mkdir(parents=True, exist_ok=True)
    coverage = logs / "coverage"
    running = []
    for number in range(1, count + 1):
        log = logs / f"tests-{number}.log"
        words = [*_python(number, coverage, is_long), "test", "--share", f"{number}/{count}"]
        with log.open("w") as output:
            running.append((subprocess.Popen(words, stdout=output, stderr=output, cwd=ROOT), log))
    try:
        codes = [process.wait() for process, _ in running]
    finally:
        for process, _ in running:
            process.terminate()
    totals = [0, 0, 0]
    failures = []
    for _, log in running:
        text = log.read_text()
        print(text)
        failures += failures_in(text)
        closing = next((line for line in reversed(text.splitlines()) if " passed, " in line), "")
        counts = [int(part.split()[0]) for part in closing.split(", ")] if closing else [0, 1, 0]
        totals = [total + more for total, more in zip(totals, counts, strict=True)]
    too_little = is_long and _is_too_little_covered(coverage)
    # Once more, where what ran last is all that is looked at.
    print("".join(failures), end="")
    print("{} passed, {} failed, {} skipped".format(*totals))
    return int(any(codes) or not totals[0] or too_little)


def failures_in(log: str) -> list[str]:
    """What a test runner's log says of each test that failed."""
    return re.findall(r"^(?:FAIL|ERROR): .*?(?=^={70}|^-{70}\nRan )", log, re.DOTALL | re.MULTILINE)


def _python(number: int, coverage: Path, is_long: bool) -> list[str]:
    """What runs a share: the first one of long tests by what measures it."""
    if number > 1 or not is_long:
        return [sys.executable, "-m", "web"]
    measured = [sys.executable, "-m", "coverage", "run", f"--data-file={coverage}"]
    return [*measured, "-m", "web"]


# Of the lines of a folder at least so many percent are run by the tests of the core and of pages.
_LEAST_COVERED = {"balletto": 95, "web": 90}
# Tests that try thousands of inputs say nothing about that, and take twice as long measured.
_UNMEASURED = {"tests.core.test_fuzz", "tests.core.test_likely", "tests.web.test_bad_input"}


def _is_measured(label: str) -> bool:
    return label.startswith(("tests.core", "tests.web")) and label not in _UNMEASURED


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
