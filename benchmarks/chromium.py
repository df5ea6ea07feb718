"""Debian's Chromium as tests, measurements and pictures of the screens start it."""

from pathlib import Path

# The browser without its own windows takes a fourth of the time of the one that has them.
_SHELL, _WHOLE = "/usr/bin/chromium-headless-shell", "/usr/bin/chromium"
CHROMIUM = _SHELL if Path(_SHELL).exists() else _WHOLE
FLAGS = [
    "--headless", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
    "--disable-background-networking", "--disable-component-update", "--disable-sync",
]  # fmt: skip
