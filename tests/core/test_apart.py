"""Files that people send are read by a process of its own: what is damaged harms nobody."""

import os
import random
import re
import sys
import tempfile
from pathlib import Path
from unittest import TestCase

import numpy as np

from balletto.apart import PRELOADED, LostProcess, apart
from balletto.picture.pixels.inspection import inspected
from balletto.picture.pixels.media import MediaError

from .amounts import some
from .media import media_folder

WHOLE = ("moon.png", "photo.jpg", "orbit.mp4", "bell.wav", "spark.svg")


def doubled(number: int) -> int:
    return number * 2


def refused(word: str) -> None:
    raise MediaError(f"not {word}")


def ended() -> None:
    os.abort()


def endless() -> None:
    while True:
        pass


def imports_main_again() -> bool:
    return sys.modules["__main__"].__name__ == "__mp_main__"


def greedy() -> int:
    return len(np.ones(2**33, dtype=np.uint8))


class ApartTest(TestCase):
    def test_answers_and_faults_come_back(self):
        self.assertEqual(apart(doubled, 21), 42)
        self.assertFalse(apart(imports_main_again), "each would wait for all of the application")
        with self.assertRaisesRegex(MediaError, "not red"):
            apart(refused, "red")

    def test_what_works_apart_is_imported_once(self):
        """By the server: each process would import it anew, which takes a second."""
        root = Path(__file__).parents[2]
        found = set()
        for path in (root / "balletto").rglob("*.py"):
            if re.search(r"^from \.+apart import", path.read_text(), re.MULTILINE):
                found.add(".".join(path.relative_to(root).with_suffix("").parts))
        self.assertEqual(found, set(PRELOADED))

    def test_what_ends_or_does_not_end_is_lost_and_nothing_else(self):
        for work, told in ((ended, "ended"), (endless, "too long"), (greedy, "too much memory")):
            with self.subTest(work.__name__), self.assertRaisesRegex(LostProcess, told):
                apart(work, seconds=2 if work is endless else 40, most_bytes=2**30)
        self.assertEqual(apart(doubled, 4), 8)


class DamagedTest(TestCase):
    """Whole files are read; what was cut, flipped or lies is read or refused, in words."""

    def test_whole_files_are_read(self):
        for name in WHOLE:
            self.assertIn(inspected(media_folder() / name).kind, ("still", "video", "sound"))

    def test_damaged_files(self):
        chance = random.Random(15)
        with tempfile.TemporaryDirectory() as folder:
            for name in WHOLE:
                whole = (media_folder() / name).read_bytes()
                path = Path(folder) / name
                told = 0
                for number in range(some(24, 500)):
                    path.write_bytes(damaged(whole, chance))
                    with self.subTest(name=name, number=number):
                        try:
                            inspected(path)
                        except MediaError as error:
                            told += 1
                            self.assertIn(name, str(error))
                            self.assertNotIn(folder, str(error))
                # Damage that nothing notices would be none.
                self.assertGreater(told, 3, name)


def damaged(content: bytes, chance: random.Random) -> bytes:
    """Content that was cut, flipped here and there, or says other sizes than it has."""
    made = bytearray(content)
    kind = chance.randrange(4)
    if kind == 0:
        return bytes(made[: chance.randrange(len(made))])
    if kind == 1:
        for _ in range(chance.randint(1, 40)):
            made[chance.randrange(len(made))] ^= 1 << chance.randrange(8)
    elif kind == 2:  # the head, where sizes stand
        for _ in range(chance.randint(1, 8)):
            made[chance.randrange(min(80, len(made)))] = chance.choice((0, 1, 127, 255))
    else:
        start = chance.randrange(len(made))
        made[start : start + chance.randint(1, 4000)] = chance.randbytes(chance.randint(0, 4000))
    return bytes(made)
