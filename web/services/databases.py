"""MariaDB and Redis on the loopback address, with data of their own below one folder.

A server that runs on the machine already is never touched: these have their own folders, ports
and passwords.
"""

import json
import os
import pwd
import secrets
import shutil
import subprocess
import tempfile
from pathlib import Path

from .processes import Service, ServiceError, answers, free_port

_CARELESS = ("--innodb-flush-log-at-trx-commit=0", "--skip-innodb-doublewrite", "--sync-frm=0")
_SECRET_NAMES = ("SECRET_KEY", "DATABASE_PASSWORD", "REDIS_PASSWORD", "DEMO_PASSWORD")


def secrets_of(var: Path) -> dict[str, str]:
    """Keys and passwords of this installation, made when first asked for."""
    path = var / "secrets.json"
    if path.exists():
        return json.loads(path.read_text())
    made = {name: secrets.token_urlsafe(32) for name in _SECRET_NAMES}
    made["DEMO_PASSWORD"] = secrets.token_urlsafe(9)
    path.parent.mkdir(parents=True, exist_ok=True)
    with os.fdopen(os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "w") as file:
        json.dump(made, file)
    return made


class Databases:
    """MariaDB and Redis below `var`. Use as a context: they stop at its end.

    `environment` holds the settings with which the application finds them. What is not
    `is_lasting`, as for tests, does not wait for the disk.
    """

    def __init__(self, var: Path, first_port: int, is_lasting: bool = True):
        self._var = var
        self._is_lasting = is_lasting
        self._first_port = first_port
        self.services: list[Service] = []
        # Socket paths are limited to 107 bytes, which a deep folder would pass.
        self._sockets = Path(tempfile.mkdtemp(prefix="balletto-"))
        self.secrets = secrets_of(var)
        self.environment: dict[str, str] = {}

    def __enter__(self) -> "Databases":
        try:
            mariadb_port = self._start_mariadb()
            redis_port = self._start_redis(mariadb_port + 1)
        except BaseException:
            self.__exit__()
            raise
        self.environment = {
            "BALLETTO_VAR": str(self._var),
            "BALLETTO_SECRET_KEY": self.secrets["SECRET_KEY"],
            "BALLETTO_DATABASE_PORT": str(mariadb_port),
            "BALLETTO_DATABASE_PASSWORD": self.secrets["DATABASE_PASSWORD"],
            "BALLETTO_REDIS_URL": f"redis://:{self.secrets['REDIS_PASSWORD']}@127.0.0.1:{redis_port}/0",
        }
        return self

    def __exit__(self, *_: object) -> None:
        for service in reversed(self.services):
            service.stop()
        shutil.rmtree(self._sockets, ignore_errors=True)

    def _start_mariadb(self) -> int:
        data, temporary = self._var / "mariadb", self._var / "mariadb-tmp"
        temporary.mkdir(parents=True, exist_ok=True)
        user = pwd.getpwuid(os.getuid()).pw_name
        if not (data / "mysql").is_dir():
            self._make_mariadb(data, temporary, user)
        port = free_port(self._first_port)
        socket = self._sockets / "mariadb.sock"
        prepare = self._var / "mariadb-init.sql"
        prepare.touch(mode=0o600)
        prepare.write_text(self._users())
        service = Service(
            "MariaDB",
            [
                "mariadbd",
                "--no-defaults",
                f"--datadir={data}",
                f"--tmpdir={temporary}",
                f"--user={user}",
                "--bind-address=127.0.0.1",
                f"--port={port}",
                f"--socket={socket}",
                f"--pid-file={socket.parent / 'mariadb.pid'}",
                f"--init-file={prepare}",
                "--skip-name-resolve",
                "--skip-log-bin",
                "--character-set-server=utf8mb4",
                "--collation-server=utf8mb4_unicode_ci",
                "--innodb-buffer-pool-size=128M",
                "--max-allowed-packet=64M",
                *([] if self._is_lasting else _CARELESS),
            ],
            self._var / "log" / "mariadb.log",
        )
        self.services.append(service)
        service.start()
        service.wait_for(lambda: answers(port))
        return port

    def _make_mariadb(self, data: Path, temporary: Path, user: str) -> None:
        """Makes the files of an empty server. Its temporary tables have a folder of their own: a
        server that starts takes those of all servers out of the folder that it is given."""
        data.mkdir(parents=True, exist_ok=True)
        made = subprocess.run(
            [
                "mariadb-install-db",
                "--no-defaults",
                f"--datadir={data}",
                f"--tmpdir={temporary}",
                f"--user={user}",
                "--skip-test-db",
                "--auth-root-authentication-method=socket",
            ],
            capture_output=True,
            text=True,
        )
        if made.returncode:
            raise ServiceError(f"MariaDB's data could not be made in {data}:\n{made.stderr}")

    def _users(self) -> str:
        password = self.secrets["DATABASE_PASSWORD"]  # letters, digits, - and _ alone
        return (
            "CREATE DATABASE IF NOT EXISTS balletto;\n"
            "CREATE USER IF NOT EXISTS 'balletto'@'127.0.0.1';\n"
            f"ALTER USER 'balletto'@'127.0.0.1' IDENTIFIED BY '{password}';\n"
            "GRANT ALL ON `balletto`.* TO 'balletto'@'127.0.0.1';\n"
            "GRANT ALL ON `test\\_balletto%`.* TO 'balletto'@'127.0.0.1';\n"
        )

    def _start_redis(self, wanted: int) -> int:
        port = free_port(wanted)
        folder = self._var / "redis"
        folder.mkdir(parents=True, exist_ok=True)
        lines = [
            "bind 127.0.0.1",
            f"port {port}",
            f'dir "{folder}"',
            f"requirepass {self.secrets['REDIS_PASSWORD']}",
            'save ""',
            "maxmemory 512mb",
            "maxmemory-policy volatile-lru",  # cached frames may go, what is queued may not
        ]
        service = Service(
            "Redis",
            ["redis-server", "-"],
            self._var / "log" / "redis.log",
            stdin="\n".join(lines).encode(),
        )
        self.services.append(service)
        service.start()
        service.wait_for(lambda: answers(port))
        return port
