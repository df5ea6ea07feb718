"""Makes the files that ship: `python -m balletto.stock.make`."""

from . import FOLDER
from .backgrounds import write_backgrounds
from .sounds import MADE, made

if __name__ == "__main__":
    FOLDER.mkdir(exist_ok=True)
    for name in MADE:
        (FOLDER / f"{name}.wav").write_bytes(made(name))
    write_backgrounds(FOLDER)
