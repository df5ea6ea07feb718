"""The words of sentences: how they are spelt alike, and which of them stand together as one."""

import re
from collections.abc import Iterable
from dataclasses import dataclass, field
from functools import lru_cache

# Words that change no meaning.
_NOISE = frozenset({"a", "an", "the", "and", "with"})
# One spelling for words that mean the same.
_ALIKE = {
    "center": "centre", "centered": "centred", "middle": "centre", "color": "colour",
    "colored": "coloured", "colors": "colours", "colorless": "colourless", "gray": "grey",
    "letter": "character", "letters": "character", "characters": "character", "glyphs": "character",
    "words": "word", "lines": "line", "titles": "title",
    "traveling": "travelling", "shuffle": "shuffled", "random": "shuffled",
    "come": "comes", "go": "goes", "start": "starts", "end": "ends", "are": "is",
    "takes": "taken", "they": "it", "their": "its", "themselves": "itself",
    "slide": "slides", "fall": "falls", "enter": "enters", "leave": "leaves", "exit": "exits",
    "arrive": "arrives", "slid": "slides", "size": "size", "sizes": "size",
}  # fmt: skip
_WORD = re.compile(r"[^\W\d_][\w'’]*")

Phrase = tuple[str, ...]


@lru_cache(maxsize=8192)
def spelt(text: str) -> Phrase:
    """The words of a text in one spelling, without those that mean nothing."""
    words = (word.lower() for word in _WORD.findall(text.replace("-", " ")))
    return tuple(_ALIKE.get(word, word) for word in words if word not in _NOISE)


@dataclass
class Lexicon:
    """Phrases, each with the name of its terminal and as people spell it; the first that is told
    of one holds."""

    phrases: dict[Phrase, str] = field(default_factory=dict)
    short: dict[Phrase, Phrase] = field(default_factory=dict)
    spelling: dict[Phrase, str] = field(default_factory=dict)
    longest: int = 1

    def add(self, texts: Iterable[str], terminal: str, is_told: bool = True) -> None:
        """Texts that stand for one terminal each; those that are not told are never suggested."""
        for text in texts:
            if phrase := spelt(text):
                self.phrases.setdefault(phrase, terminal)
                if is_told:
                    self.spelling.setdefault(phrase, text.strip(" ,;:()."))
                self.longest = max(self.longest, len(phrase))

    def add_short(self, short: str, whole: str) -> None:
        """A short form of a phrase that is known."""
        phrase = spelt(short)
        self.short[phrase] = spelt(whole)
        self.phrases.setdefault(phrase, self.phrases[spelt(whole)])
        self.spelling.setdefault(phrase, short)
        self.longest = max(self.longest, len(phrase))

    def words(self) -> list[str]:
        """All that can be typed: phrases, and single words that mean the same as others."""
        return [*self.spelling.values(), *_ALIKE]

    def found(self, words: Phrase) -> int:
        """How many of the words that come next are one phrase, the longest; 0 if none is."""
        for count in range(min(self.longest, len(words)), 0, -1):
            if words[:count] in self.phrases:
                return count
        return 0

    def meant(self, phrase: Phrase) -> Phrase:
        """A phrase in full."""
        return self.short.get(phrase, phrase)
