"""`bin/balletto`: the one command, for those who use Balletto and those who work on it."""

import argparse
import sys

from balletto import __version__
from balletto.command import CommandError, add_commands

from .services.backups import add_backups
from .services.checks import add_checks
from .services.invitations import add_invitations
from .services.passwords import add_passwords
from .services.processes import ServiceError
from .services.start import add_start


def main() -> int:
    """Runs the command of the command line; 1 if it could not be done."""
    parser = argparse.ArgumentParser(
        prog="balletto", description="Animate titles and render them as clips."
    )
    parser.add_argument("--version", action="version", version=f"Balletto {__version__}")
    commands = parser.add_subparsers(title="commands", metavar="COMMAND", required=True)
    add_start(commands)
    add_invitations(commands)
    add_passwords(commands)
    add_backups(commands)
    add_commands(commands)
    add_checks(commands)
    commands.add_parser("help", help="show this help").set_defaults(
        run=lambda _: parser.print_help()
    )
    arguments = parser.parse_args()
    try:
        return arguments.run(arguments) or 0
    except (CommandError, ServiceError) as error:
        print(error, file=sys.stderr)
        return 1
    except BrokenPipeError:  # the reader of our output had enough
        return 0
