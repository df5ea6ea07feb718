"""`bin/balletto start`: everything that the application needs, until Ctrl-C."""

import argparse
import fcntl
import os
import signal
import socket
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path

from .databases import Databases
from .processes import Service, ServiceError, free_port, is_free

ROOT = Path(__file__).resolve().parents[2]
FIRST_DATABASE_PORT = 33061
DEMO_NAME = "orrery"
_ANYWHERE = ("0.0.0.0", "::")
_LOOPBACK = ("127.0.0.1", "localhost", "::1")


def add_start(commands: argparse._SubParsersAction) -> None:
    """Adds the start command to a command line."""
    start = commands.add_parser("start", help="start the application and print its address")
    start.add_argument(
        "--host", default="127.0.0.1", help="address to listen on (default: this machine only)"
    )
    start.add_argument(
        "--port", type=int, default=8300, help="port (default 8300, or the next free one)"
    )
    start.add_argument("--no-demo", action="store_true", help="leave out the demo project")
    start.set_defaults(run=start_all)


@contextmanager
def sole_owner(var: Path, what: str) -> Iterator[None]:
    """Holds a lock on a data folder; ServiceError if another process has it."""
    var.mkdir(parents=True, exist_ok=True)
    with (var / "lock").open("w") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            raise ServiceError(
                f"{what} is running from this folder already: stop it first"
            ) from None
        yield


def start_all(arguments: argparse.Namespace) -> None:
    """Starts all services and stays until told to stop."""
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
    # Shells have the programs that they start in the background ignore it.
    signal.signal(signal.SIGINT, signal.default_int_handler)
    var = Path(os.environ.get("BALLETTO_VAR", ROOT / "var"))
    with sole_owner(var, "Balletto"), Databases(var, FIRST_DATABASE_PORT) as databases:
        port = _port(arguments.port, arguments.host)
        os.environ.update(databases.environment)
        os.environ.update(_hosts(arguments.host, port))
        with_demo = not arguments.no_demo
        if with_demo and arguments.host in _LOOPBACK:
            os.environ["BALLETTO_DEMO_NAME"] = DEMO_NAME
            os.environ["BALLETTO_DEMO_PASSWORD"] = databases.secrets["DEMO_PASSWORD"]
        prepare(databases.secrets["DEMO_PASSWORD"] if with_demo else None)
        services = [web_server(var, arguments.host, port), render_worker(var)]
        try:
            for service in services:
                service.start()
            address = f"http://{_shown(arguments.host)}:{port}/"
            services[0].wait_for(lambda: _is_up(address))
            _greet(address, databases.secrets["DEMO_PASSWORD"] if with_demo else None)
            _watch([*databases.services, *services])
        except KeyboardInterrupt:
            print("\nStopping.")
        finally:
            for service in services:
                service.stop()


def prepare(demo_password: str | None) -> None:
    """Brings the database up to date, collects static files, and makes the demo project."""
    os.environ["DJANGO_SETTINGS_MODULE"] = "web.config.settings"
    os.environ.setdefault("BALLETTO_LOG_LEVEL", "WARNING")
    import django
    from django.core.management import call_command

    django.setup()
    call_command("migrate", verbosity=0)
    call_command("collectstatic", verbosity=0, interactive=False, clear=True)
    if demo_password is not None:
        from web.projects.demo import load_demo

        load_demo(DEMO_NAME, demo_password)


def web_server(var: Path, host: str, port: int) -> Service:
    """gunicorn: processes, since drawing holds Python's lock, each with threads for what waits. It
    gives way to a browser on the same machine: frames drawn ahead are no use if none is shown.
    Connections are not kept: kept ones stay with a process, so that one draws while others rest."""
    cores = len(os.sched_getaffinity(0))
    bind = f"[{host}]:{port}" if ":" in host else f"{host}:{port}"
    return Service(
        "The web server",
        [
            *("nice", "-n", "5", sys.executable, "-m", "gunicorn", "web.config.wsgi"),
            *("--bind", bind, "--worker-class", "gthread", "--threads", "4"),
            *("--workers", str(max(2, cores)), "--timeout", "60", "--preload"),
            *("--worker-tmp-dir", "/dev/shm", "--keep-alive", "0", "--no-control-socket"),
        ],
        var / "log" / "web.log",
    )


def render_worker(var: Path, environment: dict[str, str] | None = None) -> Service:
    """The Celery worker that renders clips, with the clock that takes up lost renders."""
    cores = len(os.sched_getaffinity(0))
    return Service(
        "The render worker",
        [
            *(sys.executable, "-m", "celery", "--app", "web.config.celery", "worker", "--beat"),
            *("--schedule", str(var / "celery-schedule"), "--concurrency", str(max(2, cores))),
            *("--loglevel", "WARNING", "--without-gossip", "--without-mingle"),
        ],
        var / "log" / "worker.log",
        environment,
    )


def _port(wanted: int, host: str) -> int:
    if is_free(wanted, host):
        return wanted
    port = free_port(wanted + 1, host)
    print(f"Port {wanted} is taken; using {port}.")
    return port


def _shown(host: str) -> str:
    if host in _ANYWHERE:
        return "127.0.0.1"
    return f"[{host}]" if ":" in host else host


def _hosts(host: str, port: int) -> dict[str, str]:
    """Requests are answered for the names of this machine, or those that BALLETTO_HOSTS says, never
    for any: a name that somebody else gives it could lead its links elsewhere."""
    names = ["localhost", "127.0.0.1", "[::1]"]
    if host not in _LOOPBACK:
        said = os.environ.get("BALLETTO_HOSTS", "")
        names += said.split(",") if said else _own_names(host)
    return {"BALLETTO_HOSTS": ",".join(dict.fromkeys(names)), "BALLETTO_PORT": str(port)}


def _own_names(host: str) -> list[str]:
    """What a machine is called on its network, as far as it knows."""
    names = [socket.gethostname(), socket.getfqdn()]
    if host not in _ANYWHERE:
        return [*names, f"[{host}]" if ":" in host else host]
    with suppress(OSError):
        names += [str(found[4][0]) for found in socket.getaddrinfo(names[0], None, socket.AF_INET)]
    with suppress(OSError), socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        probe.connect(("192.0.2.1", 9))  # sends nothing: it tells by which address it would go
        names.append(probe.getsockname()[0])
    return names


def _is_up(address: str) -> bool:
    try:
        urllib.request.urlopen(address + "accounts/sign-in/", timeout=5).close()
    except (urllib.error.URLError, OSError):
        return False
    return True


def _greet(address: str, demo_password: str | None) -> None:
    print(f"Balletto is at {address}")
    if demo_password is not None:
        print(f"Demo account: {DEMO_NAME}, password {demo_password}")
    print("Ctrl-C stops it.", flush=True)


def _watch(services: list[Service]) -> None:
    """Starts again whatever ends by itself."""
    while True:
        time.sleep(1)
        for service in services:
            if not service.is_running:
                print(f"{service.name} ended and is started again; see {service.log}.", flush=True)
                service.start()
