"""The version of the drawing: another one may draw the same scene otherwise."""

import hashlib
from functools import cache
from importlib.metadata import version
from pathlib import Path

# What draws besides this package.
_LIBRARIES = ("skia-python", "numpy", "uharfbuzz", "pillow", "opencv-python-headless")


@cache
def drawing_version() -> str:
    """A name for what draws here: all of this package, its fonts, the libraries it draws with."""
    package = Path(__file__).parents[1]
    told = hashlib.sha256()
    for path in sorted(package.rglob("*.py")):
        told.update(path.read_bytes())
    for path in sorted((package / "lettering" / "fonts").rglob("*.woff2")):
        told.update(f"{path.name} {path.stat().st_size}".encode())
    for library in _LIBRARIES:
        told.update(f"{library} {version(library)}".encode())
    return told.hexdigest()
