"""The house: whoever has an idea in mind finds its room, and no room is a long corridor."""

import ast
from pathlib import Path
from unittest import TestCase

ROOT = Path(__file__).parents[2]
MOST_FILES = 15  # in a folder, besides what says what belongs in it
# Not written here, or by Django's rules.
_LEFT_OUT = ("vendor", "migrations", "templatetags", "management", "commands")


def folders():
    """All folders of code, each with its files."""
    found = {}
    for top in ("balletto", "web"):
        for path in sorted((ROOT / top).rglob("*")):
            if path.suffix in (".py", ".js") and not set(_LEFT_OUT) & set(path.parts):
                found.setdefault(path.parent, []).append(path)
    return found


class RoomsTest(TestCase):
    def test_no_folder_is_a_long_corridor(self):
        for folder, files in folders().items():
            named = [path for path in files if path.stem != "__init__"]
            self.assertLessEqual(len(named), MOST_FILES, folder.relative_to(ROOT))

    def test_every_folder_says_what_belongs_in_it(self):
        for folder, files in folders().items():
            if any(path.suffix == ".py" for path in files):
                with self.subTest(folder.relative_to(ROOT)):
                    first = (folder / "__init__.py").read_text()
                    self.assertTrue(ast.get_docstring(ast.parse(first)), "says nothing")
