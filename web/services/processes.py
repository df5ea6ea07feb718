"""Processes that the commands start: they end with the command, whatever ends it."""

import os
import socket
import subprocess
import time
from collections.abc import Callable
from pathlib import Path

from web.parents import end_with_parent


class ServiceError(Exception):
    """A service could not be started; the message says which, and where its log is."""


def _end_with_command() -> None:
    os.setpgrp()  # Ctrl-C reaches the command alone, which then stops its services in order
    end_with_parent()


class Service:
    """A program that runs in the background, with its output in a log file.

    `stdin` is written to it on each start.
    """

    def __init__(
        self,
        name: str,
        command: list[str],
        log: Path,
        environment: dict[str, str] | None = None,
        stdin: bytes = b"",
    ):
        self.name, self.command, self.log, self.stdin = name, command, log, stdin
        self.environment = {**os.environ, **(environment or {})}
        self.process: subprocess.Popen | None = None

    def start(self) -> None:
        """Starts the program."""
        self.log.parent.mkdir(parents=True, exist_ok=True)
        with self.log.open("ab") as log:
            self.process = subprocess.Popen(
                self.command,
                stdin=subprocess.PIPE,
                stdout=log,
                stderr=log,
                env=self.environment,
                preexec_fn=_end_with_command,
            )
        if self.process.stdin:
            self.process.stdin.write(self.stdin)
            self.process.stdin.close()

    @property
    def is_running(self) -> bool:
        return self.process is not None and self.process.poll() is None

    def wait_for(self, is_ready: Callable[[], bool], seconds: float = 60) -> None:
        """Waits until `is_ready`; ServiceError, with the end of the log, if that fails."""
        end = time.monotonic() + seconds
        while time.monotonic() < end and self.is_running:
            if is_ready():
                return
            time.sleep(0.05)
        lines = self.log.read_text(errors="replace").splitlines()[-8:]
        raise ServiceError(
            f"{self.name} did not start; its log {self.log} ends:\n" + "\n".join(lines)
        )

    def stop(self, seconds: float = 20) -> None:
        """Asks the program to end, and ends it if it does not."""
        if not self.is_running or self.process is None:
            return
        self.process.terminate()
        try:
            self.process.wait(seconds)
        except subprocess.TimeoutExpired:
            self.process.kill()
            self.process.wait()


def is_free(port: int, host: str = "127.0.0.1") -> bool:
    """Whether nobody listens on a port of this machine."""
    family = socket.AF_INET6 if ":" in host else socket.AF_INET
    with socket.socket(family) as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((host, port))
        except OSError:
            return False
    return True


def free_port(wanted: int, host: str = "127.0.0.1") -> int:
    """The first free port from `wanted` on."""
    for port in range(wanted, wanted + 1000):
        if is_free(port, host):
            return port
    raise ServiceError(f"no port from {wanted} to {wanted + 999} is free")


def answers(port: int, host: str = "127.0.0.1") -> bool:
    """Whether somebody listens on a port."""
    try:
        with socket.create_connection((host, port), timeout=1):
            return True
    except OSError:
        return False
