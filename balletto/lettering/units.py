"""The words of a text, as Unicode Standard Annex 29 tells them apart."""

import re
from functools import lru_cache

from uniseg.wordbreak import words as word_pieces

from ..scene.letters.characters import characters_of

# Scripts written without spaces: Thai, Lao, Myanmar, Khmer, kana and Han.
_NO_SPACES = re.compile(
    "[\u0e00-\u0eff\u1000-\u109f\u1780-\u17ff\u3040-\u30ff\u31f0-\u31ff\u3400-\u9fff\uf900-\ufaff]"
)


def is_blank(character: str) -> bool:
    """Whether a character is white space, and so takes no part in moves."""
    return character.isspace()


@lru_cache(maxsize=1024)
def word_lengths(text: str) -> tuple[int, ...]:
    """Lengths, in characters, of the words of a text without white space.

    The word pieces of UAX 29 are joined, so that punctuation stays with its word; between two
    pieces of a script without spaces a new word begins.
    """
    words: list[str] = []
    for piece in word_pieces(text):
        both = words and _NO_SPACES.match(words[-1][-1]) and _NO_SPACES.match(piece[0])
        if words and not both:
            words[-1] += piece
        else:
            words.append(piece)
    return tuple(len(characters_of(word)) for word in words)


def words_of(characters: tuple[str, ...]) -> list[int]:
    """For each character the number of its word; -1 for white space."""
    numbers = [-1] * len(characters)
    word = 0
    start = 0
    while start < len(characters):
        if is_blank(characters[start]):
            start += 1
            continue
        end = start
        while end < len(characters) and not is_blank(characters[end]):
            end += 1
        for length in word_lengths("".join(characters[start:end])):
            numbers[start : start + length] = [word] * length
            start += length
            word += 1
        start = end
    return numbers
