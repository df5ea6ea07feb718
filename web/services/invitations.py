"""`bin/balletto invite`: lets somebody make an account where this takes an invitation."""

import argparse

from .installation import reached


def add_invitations(commands: argparse._SubParsersAction) -> None:
    """Adds the command to a command line."""
    invite = commands.add_parser("invite", help="let somebody make an account")
    invite.set_defaults(run=_invite)


def _invite(arguments: argparse.Namespace) -> None:
    """Prints where an account is made, and with what code."""
    with reached():
        from django.urls import reverse

        from web.accounts.models import VALID_FOR, invite

        code = invite()
        print(f"{reverse('sign-up')}?invitation={code}")
        print(f"For one account, within {VALID_FOR.days} days: send it with the address before it.")
