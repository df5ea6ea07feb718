"""`bin/balletto reset-password`: a new password for somebody who has lost theirs."""

import argparse
import os
import secrets
from pathlib import Path

from balletto.command import CommandError

from .databases import Databases
from .start import FIRST_DATABASE_PORT, ROOT, sole_owner


def add_passwords(commands: argparse._SubParsersAction) -> None:
    """Adds the command to a command line."""
    reset = commands.add_parser("reset-password", help="give an account a new password")
    reset.add_argument("name")
    reset.set_defaults(run=_reset)


def _reset(arguments: argparse.Namespace) -> None:
    """Prints the new password. Where the environment says how the database is reached, it is that;
    else that of the local start, which has to be stopped meanwhile."""
    if "BALLETTO_SECRET_KEY" in os.environ:
        print(new_password(arguments.name))
        return
    var = Path(os.environ.get("BALLETTO_VAR", ROOT / "var"))
    with sole_owner(var, "Balletto"), Databases(var, FIRST_DATABASE_PORT) as databases:
        os.environ.update(databases.environment)
        print(new_password(arguments.name))


def new_password(name: str) -> str:
    """The new password of an account; all its sessions end. CommandError if there is none."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "web.config.settings")
    import django

    django.setup()
    from django.contrib.auth import get_user_model

    person = get_user_model().objects.filter(username=name).first()
    if person is None:
        raise CommandError(f"there is no account “{name}”: names are case-sensitive")
    password = secrets.token_urlsafe(12)
    person.set_password(password)
    person.save(update_fields=["password"])
    return password
