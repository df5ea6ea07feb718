"""`bin/balletto load`: the long forms."""

import argparse
import sys

from .editing import P95_MS, editing, percentile, told
from .faults import faults


def main() -> int:
    """Runs what the command line says; 1 if anything was wrong."""
    parser = argparse.ArgumentParser(
        prog="balletto load", description=sys.modules["tests.load"].__doc__
    )
    commands = parser.add_subparsers(required=True, metavar="WHAT")
    many = commands.add_parser("editing", help="many people edit for a while")
    many.add_argument("--people", type=int, default=50)
    many.add_argument("--seconds", type=float, default=60)
    many.set_defaults(run=_editing)
    killed = commands.add_parser("faults", help="services are killed while people work")
    killed.add_argument("--times", type=int, default=20, help="how often each is killed")
    killed.add_argument("--people", type=int, default=10)
    killed.set_defaults(run=_faults)
    asked = parser.parse_args()
    return asked.run(asked)


def _editing(asked: argparse.Namespace) -> int:
    took, wrong = editing(asked.people, asked.seconds)
    print("\n".join(told(took)))
    print("\n".join(wrong) or "Nothing was wrong.")
    is_slow = percentile(took["edit"], 0.95) >= P95_MS
    if is_slow:
        print(f"Of edits, 95 of 100 are to be answered within {P95_MS} ms.")
    return int(bool(wrong) or is_slow)


def _faults(asked: argparse.Namespace) -> int:
    suffered = faults(asked.times, asked.people, directors=2)
    print(
        f"{suffered.kills} kills; {suffered.changes} changes and {suffered.nudges} nudges kept, "
        f"{suffered.clips} clips rendered."
    )
    print("\n".join(suffered.wrong) or "Nothing was wrong.")
    return int(bool(suffered.wrong))


sys.exit(main())
