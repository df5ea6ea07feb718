"""`bin/balletto reset-password`: a new password for somebody who has lost theirs."""

import argparse
import secrets

from balletto.command import CommandError

from .installation import reached


def add_passwords(commands: argparse._SubParsersAction) -> None:
    """Adds the command to a command line."""
    reset = commands.add_parser("reset-password", help="give an account a new password")
    reset.add_argument("name")
    reset.set_defaults(run=_reset)


def _reset(arguments: argparse.Namespace) -> None:
    """Prints the new password."""
    with reached():
        print(new_password(arguments.name))


def new_password(name: str) -> str:
    """The new password of an account; all its sessions end. CommandError if there is none."""
    from django.contrib.auth import get_user_model

    person = get_user_model().objects.filter(username=name).first()
    if person is None:
        raise CommandError(f"there is no account “{name}”: names are case-sensitive")
    password = secrets.token_urlsafe(12)
    person.set_password(password)
    person.save(update_fields=["password"])
    return password
