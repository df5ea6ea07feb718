"""What is said of a sentence that is not understood: where, what, and what would do."""

import re
from collections.abc import Iterable
from dataclasses import replace

from rapidfuzz import fuzz, process

from .terms import Element, Needed, Reading
from .tokens import Atom, SayingError

MOST_SUGGESTIONS = 3
_MOST_WORDS = 5  # of a phrase that may be meant
_WORD = re.compile(r"[^\W\d_][\w'’]*")


def fault_of(text: str, reading: Reading) -> SayingError:
    """The fault of a text that was read as far as it was understood."""
    place = max((at for at in reading.expected if at >= reading.at), default=reading.at)
    needed = reading.expected.get(place, [])
    if place >= len(reading.atoms):
        return _missing(reading, [each.element for each in needed])
    atom = reading.atoms[place]
    if atom.kind == "unknown":
        return _unknown(text, atom, reading, needed)
    if refused := next((each.refused for each in needed if each.refused), ""):
        return SayingError(f"“{atom.raw}”: {refused}", atom.start, atom.end)
    if needed:
        here = [words for each in needed for words in each.element.told()]
        typed, words = _nearest(text, atom.start, here, ())
        words = words or _told([each.element for each in needed], atom.raw)
        end = max(atom.end, atom.start + len(typed))
        atom = replace(atom, raw=text[atom.start : end], end=end)
        told = f"“{atom.raw}” is not understood here: {_or(words)} would do"
        return SayingError(told, atom.start, atom.end, words)
    if atom.is_plain:
        words = _with_its_way(atom)
        told = f"“{atom.raw}” of what? {_or(words)} would do"
        return SayingError(told, atom.start, atom.end, words)
    return SayingError(f"“{atom.raw}” is not understood here", atom.start, atom.end)


def _missing(reading: Reading, needed: list[Element]) -> SayingError:
    """Something has to follow at the end."""
    last = reading.atoms[-1]
    words = _with_its_way(last) if last.is_plain else _told(needed, "")
    what = f": {_or(words)} would do" if words else ": say where to, “100 below” or “fade”"
    return SayingError(f"something is missing behind “{last.raw}”{what}", last.end, last.end, words)


def _unknown(text: str, atom: Atom, reading: Reading, needed: list[Needed]) -> SayingError:
    """A word that is not known: what it is most like, first of what is needed there."""
    here = [words for each in needed for words in each.element.told()]
    typed, words = _nearest(text, atom.start, here, reading.reader.lexicon.words())
    end = atom.start + len(typed) if words else atom.end
    raw = text[atom.start : end]
    if not words and here:
        words = tuple(dict.fromkeys(here))[:MOST_SUGGESTIONS]
    told = f"“{raw}” is not understood here"
    if words:
        told += f": is {_or(words)} meant?"
    return SayingError(told, atom.start, end, words)


def _nearest(
    text: str, start: int, here: list[str], others: Iterable[str]
) -> tuple[str, tuple[str, ...]]:
    """The words from a place on that are most like something that fits here, or else like others,
    and what that is."""
    low = {words.lower(): words for words in reversed([*here, *others])}
    best: tuple[float, str, tuple[str, ...]] = (0.0, "", ())
    ends = [found.end() for found in _WORD.finditer(text, start)][:_MOST_WORDS]
    for end in ends:
        typed = text[start:end]
        likely = [each for each in _likest(typed.lower(), low, 65) if each[0] != typed.lower()]
        if likely and likely[0][1] > best[0] + 2:
            best = (likely[0][1], typed, tuple(low[words] for words, _ in likely))
    return best[1], best[2][:MOST_SUGGESTIONS]


def _likest(typed: str, known: Iterable[str], cutoff: float) -> list[tuple[str, float]]:
    """What is most like what was typed, the likest first, each with its likeness from 0 to 100; one
    more than is suggested, since it may be the same."""
    scores = process.extract(typed, list(known), scorer=fuzz.ratio, limit=None, score_cutoff=cutoff)
    found = sorted(((likeness, words) for words, likeness, _ in scores), reverse=True)
    return [(words, likeness) for likeness, words in found[: MOST_SUGGESTIONS + 1]]


def _told(needed: list[Element], raw: str) -> tuple[str, ...]:
    """What may stand there: what is most like what does, else the first of all."""
    words = list(dict.fromkeys(words for element in needed for words in element.told()))
    near = [word for word, _ in _likest(raw.lower(), words, 60)] if raw else []
    return tuple((near or words)[:MOST_SUGGESTIONS])


def _with_its_way(atom: Atom) -> tuple[str, ...]:
    """A number with words that say what it is, by its unit."""
    if "°" in atom.raw:
        return tuple(f"{verb} {atom.raw}" for verb in ("turned", "tipped", "swung"))
    behind = ("opaque", "of its size", "of the way") if "%" in atom.raw else ("below", "left")
    return tuple(f"{atom.raw} {words}" for words in behind)


def _or(words: tuple[str, ...]) -> str:
    said = [word if word.startswith("“") else f"“{word}”" for word in words]
    return " or ".join([", ".join(said[:-1]), said[-1]] if said[:-1] else said)
