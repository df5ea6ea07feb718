"""The tests cut into shares that run side by side, each with databases of its own."""

import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parents[2]
# How long a line of a test module takes, by its folder: measured, in about hundredths of a second.
# A browser waits, a page renders, the core only computes.
_WEIGHTS = {"browser": 28, "services": 30, "web": 9, "core": 4}
# Modules that say how often in one line, or wait for answers that come late.
_LONG = {
    "tests.core.test_fuzz": 5_000,
    "tests.core.test_likely": 7_000,
    "tests.web.test_sentences": 6_000,
    "tests.browser.test_random_hands": 17_000,
    "tests.browser.test_pending": 15_000,
    "tests.browser.test_late_jobs": 13_000,
    "tests.browser.test_late_drags": 6_000,
}


def share_of_tests(number: int, count: int) -> list[str]:
    """The test modules of share `number` (from 1) of `count`: of about the same length each."""
    loads = [0.0] * count
    shares: list[list[str]] = [[] for _ in range(count)]
    for weight, label in sorted(_weighted(), reverse=True):
        lightest = loads.index(min(loads))
        loads[lightest] += weight
        shares[lightest].append(label)
    return shares[number - 1]


def _weighted() -> list[tuple[float, str]]:
    found = []
    for path in (ROOT / "tests").glob("*/test_*.py"):
        lines = len(path.read_text().splitlines())
        label = ".".join(path.relative_to(ROOT).with_suffix("").parts)
        found.append((_LONG.get(label, lines * _WEIGHTS[path.parent.name]), label))
    return found


def run_shares(count: int, logs: Path) -> int:
    """Runs all shares at once, then prints what each said and one closing line for all.

    1 if any of them failed or could not run.
    """
    logs.mkdir(parents=True, exist_ok=True)
    running = []
    for number in range(1, count + 1):
        log = logs / f"tests-{number}.log"
        words = [sys.executable, "-m", "web.command", "test", "--share", f"{number}/{count}"]
        with log.open("w") as output:
            running.append((subprocess.Popen(words, stdout=output, stderr=output, cwd=ROOT), log))
    try:
        codes = [process.wait() for process, _ in running]
    finally:
        for process, _ in running:
            process.terminate()
    totals = [0, 0, 0]
    for _, log in running:
        text = log.read_text()
        print(text)
        closing = next((line for line in reversed(text.splitlines()) if " passed, " in line), "")
        counts = [int(part.split()[0]) for part in closing.split(", ")] if closing else [0, 1, 0]
        totals = [total + more for total, more in zip(totals, counts, strict=True)]
    print("{} passed, {} failed, {} skipped".format(*totals))
    return int(any(codes) or not totals[0])
