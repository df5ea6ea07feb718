"""Some letters of a title in words."""

from ...scene.letters.characters import characters_of

LETTERS = "letters {} to {}"


def quoted(words: str) -> str:
    """Words within marks, by which they are known as such."""
    return f"“{words.replace(chr(92), chr(92) * 2).replace('”', chr(92) + '”')}”"


def letters_text(text: str | None, first: int, end: int) -> str:
    """The characters from one index up to another: as they are written, if that tells which; or
    counted."""
    characters = characters_of(text) if text is not None else ()
    part = "".join(characters[first:end])
    is_known = part.strip() and "".join(characters).count(part) == 1
    is_known = is_known and len(characters_of(part)) == end - first and "\n" not in part
    return quoted(part) if is_known else LETTERS.format(first + 1, end)
