"""Django's test runner, with the slowest tests and one closing line that says how many passed and
failed."""

import time
import unittest
from collections import Counter
from typing import Any

from django.test.runner import DiscoverRunner

_SLOWEST = 12


class TimedResult(unittest.TextTestResult):
    """Notes how long each test takes."""

    def startTest(self, test: unittest.TestCase) -> None:  # noqa: N802 - its name there
        self._began = time.monotonic()
        super().startTest(test)

    def stopTest(self, test: unittest.TestCase) -> None:  # noqa: N802 - its name there
        super().stopTest(test)
        took.append((time.monotonic() - self._began, test.id()))


took: list[tuple[float, str]] = []  # seconds and names


def _slowest_modules() -> list[tuple[float, str]]:
    """The modules that take the longest: what the shares of the tests are weighed by."""
    modules: Counter[str] = Counter()
    for seconds, name in took:
        modules[name.rsplit(".", 2)[0]] += seconds
    return [(seconds, module) for module, seconds in modules.most_common(_SLOWEST)]


class Runner(DiscoverRunner):
    """Adds the slowest tests and modules, and the line "N passed, N failed, N skipped"."""

    def get_resultclass(self) -> type[unittest.TextTestResult]:
        return super().get_resultclass() or TimedResult

    def suite_result(self, suite: Any, result: Any, **options: Any) -> int:
        failed = super().suite_result(suite, result, **options)
        if len(took) > _SLOWEST:
            for seconds, name in (*sorted(took, reverse=True)[:_SLOWEST], *_slowest_modules()):
                print(f"{seconds:7.1f} s  {name}")
        # A test with parts counts once, however many of them failed.
        unhappy = [
            getattr(test, "test_case", test) for test, _ in (*result.failures, *result.errors)
        ]
        passed = result.testsRun - len({test.id() for test in unhappy}) - len(result.skipped)
        print(f"{passed} passed, {failed} failed, {len(result.skipped)} skipped")
        return failed
