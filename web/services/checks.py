"""`bin/balletto test`, `lint` and `bench`: the checks of the project."""

import argparse
import os
import subprocess
import sys
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from .databases import Databases
from .start import ROOT, sole_owner
from .test_shares import run_shares, share_of_tests

TEST_VAR = ROOT / "var" / "test"
FIRST_TEST_PORT = 33161
LONG = "BALLETTO_LONG"  # a variable of the environment by which tests know that they may take long

_SCRIPTS = Path(sys.executable).parent
_NODE_PROGRAMS = ROOT / "node_modules" / ".bin"
_LINTERS = (
    (_SCRIPTS / "ruff", "check", "."),
    (_SCRIPTS / "ruff", "format", "--check", "."),
    (_SCRIPTS / "lint-imports",),
    (_SCRIPTS / "mypy",),
    (_SCRIPTS / "djlint", "--lint", "--check", "--quiet", "web/templates"),
    (_NODE_PROGRAMS / "eslint", "."),
    (_NODE_PROGRAMS / "prettier", "--check", "web/static/js", "tests/scripts", "eslint.config.js"),
)


def add_checks(commands: argparse._SubParsersAction) -> None:
    """Adds test, lint and bench to a command line."""
    test = commands.add_parser("test", help="lint, then run all tests, or just those named")
    test.add_argument("labels", nargs="*", metavar="LABEL", help="tests.core, tests.web, ...")
    test.add_argument("--no-lint", action="store_true")
    more = "more of what tries things by chance, and how much of the code is tested"
    test.add_argument("--long", action="store_true", help=more)
    test.add_argument("--share", metavar="N/M", help="of all tests the Nth of M shares alone")
    test.set_defaults(run=run_tests)
    commands.add_parser("lint", help="check style and layers").set_defaults(run=run_lint)
    bench = commands.add_parser("bench", help="measure what is promised about speed")
    bench.add_argument("--json", action="store_true", help="print one JSON object")
    bench.add_argument("figures", nargs="*", metavar="FIGURE", help="only these")
    bench.set_defaults(run=run_bench)
    load = commands.add_parser("load", help="what the application bears: people, and kills")
    load.add_argument("words", nargs=argparse.REMAINDER, metavar="...", help="see load --help")
    load.set_defaults(run=run_load)


def run_lint(_: argparse.Namespace | None = None) -> int:
    """Runs every linter; 1 if any of them found something."""
    found = 0
    with ThreadPoolExecutor() as pool:
        for (linter, *rest), done in zip(_LINTERS, pool.map(_lint, _LINTERS), strict=True):
            if done.returncode:
                found = 1
                print(f"{linter.name} {' '.join(rest)}\n{done.stdout}{done.stderr}")
    if not found:
        print("Lint: nothing found.")
    return found


def _lint(command: tuple[Path | str, ...]) -> subprocess.CompletedProcess[str]:
    return subprocess.run(command, cwd=ROOT, capture_output=True, text=True)


def run_tests(arguments: argparse.Namespace) -> int:
    """Runs lint and the tests: all, in shares side by side, or just those named."""
    if arguments.long:
        os.environ[LONG] = "1"
    is_long = LONG in os.environ
    if arguments.share:
        number, count = (int(part) for part in arguments.share.split("/"))
        return _run_labels(share_of_tests(number, count, is_long), number)
    if not arguments.no_lint and run_lint():
        return 1
    if arguments.labels:
        return _run_labels(arguments.labels, 0)
    return _run_script_tests() or run_shares(len(os.sched_getaffinity(0)) + 2, TEST_VAR, is_long)


def _run_script_tests() -> int:
    """Runs the tests of what is logic in the pages' scripts, which need no browser."""
    found = sorted(map(str, (ROOT / "tests" / "scripts").glob("*.test.js")))
    done = subprocess.run(["node", "--test", *found], cwd=ROOT, capture_output=True, text=True)
    if done.returncode:
        print(done.stdout, done.stderr)
    else:
        print("Scripts: all their tests passed.")
    return done.returncode


def _run_labels(labels: list[str], share: int) -> int:
    """Runs tests on databases of their own; shares have different ones."""
    var = TEST_VAR / str(share)
    databases = Databases(var, FIRST_TEST_PORT + 100 * share, is_lasting=False)
    with sole_owner(var, "The test suite"), databases:
        os.environ.update(databases.environment)
        os.environ.update(
            {
                "DJANGO_SETTINGS_MODULE": "web.config.settings",
                "DJANGO_ALLOW_ASYNC_UNSAFE": "true",  # Playwright's loop runs in the test's thread
                "BALLETTO_LOG_LEVEL": "CRITICAL",
            }
        )
        import django
        from django.core.management import call_command

        django.setup()
        call_command("collectstatic", verbosity=0, interactive=False, clear=True)
        try:
            call_command("test", *labels, interactive=False)
        except SystemExit as ended:
            return int(ended.code or 0)
    return 0


def run_load(arguments: argparse.Namespace) -> int:
    """Has many people edit, or kills services while they do."""
    return subprocess.run(
        [sys.executable, "-m", "tests.load", *arguments.words], cwd=ROOT
    ).returncode


def run_bench(arguments: argparse.Namespace) -> int:
    """Measures, and prints a table or JSON."""
    words = [*arguments.figures, *(["--json"] if arguments.json else [])]
    return subprocess.run([sys.executable, "-m", "benchmarks.run", *words], cwd=ROOT).returncode
