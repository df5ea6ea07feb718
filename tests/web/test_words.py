"""The page of words says what is in the code."""

import re
from itertools import chain

from django.test import SimpleTestCase

from web.services.start import ROOT

FOLDERS = (("balletto", "*.py"), ("web", "*.py"), ("web", "*.js"))


# Classes, and names for types; those of numbers in models, which say what they count, are local.
_CLASS = re.compile(r"^class ([A-Z]\w+)", re.MULTILINE)
_TYPE = re.compile(r"^([A-Z][a-z]\w+) = ((?:dict|list|tuple|Callable|Literal)\[.*)$", re.MULTILINE)


class WordsTest(SimpleTestCase):
    def test_every_name_on_the_page_exists(self):
        code = "\n".join(
            path.read_text()
            for path in chain(*((ROOT / folder).rglob(kind) for folder, kind in FOLDERS))
            if "vendor" not in path.parts
        )
        names = set(re.findall(r"`([^`]+)`", (ROOT / "docs" / "words.md").read_text()))
        self.assertGreater(len(names), 50)
        for name in sorted(names - {"code"}):
            with self.subTest(name):
                if "/" in name:
                    self.assertTrue((ROOT / name).exists())
                else:
                    self.assertRegex(code, rf"\b{name}\b")

    def test_a_name_means_one_thing(self):
        """No two classes are called the same, nor is a class called as another type is."""
        found = {}
        for path in chain(*((ROOT / folder).rglob("*.py") for folder in ("balletto", "web"))):
            if "migrations" in path.parts:
                continue
            text = path.read_text()
            for name in _CLASS.findall(text):
                found.setdefault(name, []).append(str(path.relative_to(ROOT)))
            for name, meant in _TYPE.findall(text):
                found.setdefault(name, []).append(meant)
        # A scene is a document, and its record in the database.
        several = {name: sorted(set(meant)) for name, meant in found.items() if name != "Scene"}
        self.assertEqual({n: meant for n, meant in several.items() if len(meant) > 1}, {})

    def test_no_name_of_the_code_stands_on_a_page(self):
        """What is read on pages is words: a renaming once put a class where "Asked" stood."""
        for path in sorted((ROOT / "web" / "templates").rglob("*.html")):
            text = re.sub(r"{[%#{].*?[%#}]}", "", path.read_text(), flags=re.DOTALL)
            read = re.findall(r">([^<>]+)<", text)
            read += re.findall(r'(?:aria-label|title|placeholder)="([^"]*)"', text)
            names = [word for each in read for word in re.findall(r"\b[A-Z][a-z]+[A-Z]\w*", each)]
            self.assertEqual(set(names) - {"WebP"}, set(), path)
