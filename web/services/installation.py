"""The installation that a command is about: the one that the environment tells of, or the local."""

import os
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from .databases import Databases
from .start import FIRST_DATABASE_PORT, ROOT, sole_owner


@contextmanager
def reached() -> Iterator[None]:
    """Makes Django ready with the database that the environment tells of, or with that of the local
    start, which has to be stopped meanwhile. ServiceError if it runs."""
    if "BALLETTO_SECRET_KEY" in os.environ:
        _set_up()
        yield
        return
    var = Path(os.environ.get("BALLETTO_VAR", ROOT / "var"))
    with sole_owner(var, "Balletto"), Databases(var, FIRST_DATABASE_PORT) as databases:
        os.environ.update(databases.environment)
        _set_up()
        yield


def _set_up() -> None:
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "web.config.settings")
    os.environ.setdefault("BALLETTO_LOG_LEVEL", "WARNING")
    import django

    django.setup()
