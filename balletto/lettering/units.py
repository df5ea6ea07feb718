"""The words of a text, as Unicode Standard Annex 29 tells them apart."""

import re
from functools import lru_cache

from uniseg.wordbreak import words as word_pieces

from ..scene.characters import characters_of

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
    place = 0
    while place < len(characters):
        if is_blank(characters[place]):
            place += 1
            continue
        end = place
        while end < len(characters) and not is_blank(characters[end]):
            end += 1
        for length in word_lengths("".join(characters[place:end])):
            numbers[place : place + length] = [word] * length
            place += length
            word += 1
        place = end
    return numbers
