"""`bin/balletto backup` and `restore`: all that an installation keeps, in one file.

A TAR of the database as SQL and of the files that people sent. Clips that were made are left out:
they can be made again.
"""

import argparse
import io
import subprocess
import tarfile
import tempfile
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path

from balletto.command import CommandError
from web.serving import written_whole

from .installation import reached

_DATABASE, _FILES = "database.sql", "files"


def add_backups(commands: argparse._SubParsersAction) -> None:
    """Adds both commands to a command line."""
    kept = commands.add_parser("backup", help="write all that is kept to a file")
    kept.add_argument("file", type=Path)
    kept.set_defaults(run=lambda arguments: _reached(backup, arguments.file))
    back = commands.add_parser("restore", help="bring back what a backup holds, in place of all")
    back.add_argument("file", type=Path)
    back.set_defaults(run=lambda arguments: _reached(restore, arguments.file))


def _reached(work: Callable[[Path], str], file: Path) -> None:
    with reached():
        print(work(file))


def backup(file: Path) -> str:
    """Writes a backup, and says how large it is. The database comes first: a file that is sent
    meanwhile is in it without being needed; none that is needed is left out."""
    files = _media()
    with tempfile.TemporaryDirectory() as folder:
        dump = Path(folder) / _DATABASE
        with dump.open("wb") as output:
            _run(
                ["mariadb-dump", "--single-transaction", "--skip-comments", "--hex-blob"],
                stdout=output,
            )
        try:
            with written_whole(file) as coming, tarfile.open(coming, "w") as archive:
                archive.add(dump, _DATABASE)
                if files.is_dir():
                    archive.add(files, _FILES, filter=_without_parts)
        except OSError as error:
            raise CommandError(f"{file} cannot be written: {error.strerror}") from None
    return f"{file}: {file.stat().st_size:,} bytes"


def restore(file: Path) -> str:
    """Puts what a backup holds in place of all that is there, and says so. What is no backup is
    refused before anything is changed."""
    files = _media()
    try:
        with (
            tarfile.open(file) as archive,
            tempfile.TemporaryDirectory(dir=_beside(files)) as folder,
        ):
            archive.extractall(folder, filter="data")
            came = Path(folder)
            if not (came / _DATABASE).is_file():
                raise CommandError(f"{file} is no backup of Balletto: it has no database")
            with (came / _DATABASE).open("rb") as content:
                _run(["mariadb"], stdin=content)
            _put_in_place(came / _FILES, files, came / "before")
    except (OSError, tarfile.TarError) as error:
        raise CommandError(f"{file} cannot be read as a backup: {error}") from None
    return f"{file} is brought back."


def _put_in_place(came: Path, files: Path, before: Path) -> None:
    if files.exists():
        files.rename(before)
    if came.is_dir():
        came.rename(files)


def _media() -> Path:
    from django.conf import settings

    return Path(settings.MEDIA_ROOT) / "files"


def _beside(files: Path) -> Path:
    """A folder on the same disk, so that putting in place is renaming."""
    files.parent.mkdir(parents=True, exist_ok=True)
    return files.parent


def _without_parts(member: tarfile.TarInfo) -> tarfile.TarInfo | None:
    return None if member.name.endswith(".part") else member


def _run(command: list[str], **pipes: io.BufferedIOBase) -> None:
    """Runs a program of the database on ours; CommandError with what it says if it fails."""
    with _options() as options:
        from django.db import connection

        words = [command[0], f"--defaults-extra-file={options}", *command[1:]]
        words.append(str(connection.settings_dict["NAME"]))
        done = subprocess.run(words, stderr=subprocess.PIPE, **pipes)
    if done.returncode:
        raise CommandError(f"{command[0]} failed: {done.stderr.decode(errors='replace')[:500]}")


@contextmanager
def _options() -> Iterator[Path]:
    """A file with how the database is reached, which no list of processes shows."""
    from django.db import connection

    known = connection.settings_dict
    with tempfile.NamedTemporaryFile("w", suffix=".cnf") as file:  # readable by its owner alone
        file.write(
            f"[client]\nuser={known['USER']}\npassword={known['PASSWORD']}\nhost={known['HOST']}\n"
            f"port={known['PORT']}\n"
        )
        file.flush()
        yield Path(file.name)
