"""How much is tried by chance: less in every run, more by `bin/balletto test --long`."""

import os

IS_LONG = "BALLETTO_LONG" in os.environ


def some(usual: int, long: int) -> int:
    """How many to try."""
    return long if IS_LONG else usual
