"""Some letters of a title in words."""

import re

from ...scene.letters.characters import characters_of

LETTERS = "letters {} to {}"


_MARKED = str.maketrans({"\\": "\\\\", "”": "\\”", "\n": "\\n"})


def quoted(words: str) -> str:
    """Words within marks, by which they are known as such, on one line."""
    return f"“{words.translate(_MARKED)}”"


def unquoted(inside: str) -> str:
    """What stands within marks, as it was."""
    return re.sub(r"\\(.)", lambda found: "\n" if found[1] == "n" else found[1], inside)


def letters_text(text: str | None, first: int, end: int) -> str:
    """The characters from one index up to another: as they are written, if that tells which; or
    counted."""
    characters = characters_of(text) if text is not None else ()
    part = "".join(characters[first:end])
    is_known = part.strip() and "".join(characters).count(part) == 1
    is_known = is_known and len(characters_of(part)) == end - first and "\n" not in part
    return quoted(part) if is_known else LETTERS.format(first + 1, end)
