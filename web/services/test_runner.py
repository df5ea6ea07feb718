"""Django's test runner, with one closing line that says how many passed and failed."""

from typing import Any

from django.test.runner import DiscoverRunner


class Runner(DiscoverRunner):
    """Adds the line "N passed, N failed, N skipped"."""

    def suite_result(self, suite: Any, result: Any, **options: Any) -> int:
        failed = super().suite_result(suite, result, **options)
        passed = result.testsRun - failed - len(result.skipped)
        print(f"{passed} passed, {failed} failed, {len(result.skipped)} skipped")
        return failed
