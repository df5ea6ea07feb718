"""Ways of speaking: tables that pair them with our wording.

    pop in ; pops in = home ; 0 % of its size ; overshoot

On the left, ways of speaking, parted by " ; ": words, (this|or that), [what may be left out],
$names of groups of words (groups.txt), and slots for values: <t> a time, <k> one with its unit, <p>
a length, <a> an angle, <s> a share, <g> and <l> these with their units, <n> a number, <x> times,
<m> thousandths of the size, <c> a colour, <q> words within marks, <e> a curve, <d> two sides, <h>
so many a second, <w> a word of the title, <y> any word, <i> a letter,
<o> what a layer may be.
On the right what is meant: our wording, with {t} and so on for values, and what needs more than
words ("home", "@way up {p}"), which the readers of this folder know.
"""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache, cached_property
from importlib.resources import files
from itertools import chain, takewhile

from ..scene.layers.nouns import NOUNS

# The tables of what is said together: of moves, of their changes, and of looks in the order in
# which they are tried.
EFFECTS = (
    "glow", "shutter", "blur", "grade", "shadow", "caret", "trail", "smear", "hatch", "displace",
)  # fmt: skip
MOVE_TABLES, CHANGE_TABLES = (
    ("moves", "times", "eases"),
    ("sooner.changes", "changes", "times", "eases"),
)
FLOATING = ("floating",)
LOOK_TABLES = (
    ("sooner.looks",), ("windows.window",), ("windows.matte",), ("windows.mask",),
    *((f"effects.{name}",) for name in EFFECTS), ("places",), ("copies",), ("scenes",),
    ("styles", "letters"),
    ("styles", "places", "spans"), ("layers.title", "styles", "places", "spans"),
    ("layers.shape", "places", "spans", "copies"), ("layers.file", "places", "spans"),
    ("flurries",),
)  # fmt: skip
ASK_TABLES = ("asks.several",), ("asks.sure",), ("asks.alone",)
ALL_TABLES = tuple(
    dict.fromkeys(
        (*chain(*ASK_TABLES), *MOVE_TABLES, *FLOATING, *CHANGE_TABLES, *chain(*LOOK_TABLES))
    )
)

_SLOTS = {
    "t": r"[TN]s?\d+", "k": r"Ts?\d+", "p": r"[PN]s?\d+", "a": r"[AN]s?\d+",
    "s": r"[SN]s?\d+", "l": r"Ss?\d+", "g": r"As?\d+", "n": r"Ns?\d+",
    "x": r"X\d+", "m": r"[MNSP]s?\d+", "c": r"C\d+", "q": r"Q\d+", "e": r"E\d+",
    "v": r"[NPASTMX]s?\d+", "d": r"D\d+", "h": r"H\d+", "w": r"[a-z][\w’']*",
    "y": r"[a-z][\w’']*", "i": r"[a-z](?= )",
    "o": "(?:it|" + "|".join(chain(NOUNS, *NOUNS.values())) + ")",
}  # fmt: skip


# In a first word: a part of it that is one of several or may be left out, or a value.
_NOT_PLAIN = re.compile(r"[^|:]\(\?:|\)[^|)]|(?<!\()\?|[\\\[]")


@dataclass(frozen=True)
class Way:
    """One way of speaking: what finds it, by its first word and whole, and what it means. Patterns
    are made when they are needed first: a line needs but a few of thousands."""

    first: str
    whole: str
    means: tuple[str, ...]
    words: str

    @cached_property
    def pattern(self) -> re.Pattern[str]:
        """What finds it."""
        return re.compile(self.whole)

    @cached_property
    def _firsts(self) -> frozenset[str] | None:
        """The words that it may begin with, if they are plain."""
        if _NOT_PLAIN.search(self.first):
            return None
        return frozenset(self.first.replace("(?:", "").replace(")", "").split("|"))

    def may_begin_with(self, sign: str) -> bool:
        """Whether a sign may be its first."""
        if self._firsts is not None:
            return sign in self._firsts
        return re.fullmatch(self.first, sign) is not None


_PART = re.compile(r"\[\w+\]")


@cache
def table(name: str) -> tuple[Way, ...]:
    """The ways of a table, as its file says them: of the part [glow] alone for "effects.glow"."""
    return tuple(way for line in _lines_of(name) for way in _ways(line))


def _lines_of(name: str) -> list[str]:
    file, _, part = name.partition(".")
    text = files(__package__).joinpath("tables").joinpath(f"{file}.txt").read_text(encoding="utf-8")
    lines = [line.strip() for line in text.splitlines()]
    if part:
        lines = lines[lines.index(f"[{part}]") + 1 :]
        lines = list(takewhile(lambda line: not _PART.fullmatch(line), lines))
    return lines


@cache
def _groups() -> dict[str, str]:
    """Words that may stand for each other, by the name of their group."""
    lines = (line for line in _lines_of("groups") if line and not line.startswith("#"))
    return {name: words.strip() for name, _, words in (line.partition(" = ") for line in lines)}


def _ways(line: str) -> Iterator[Way]:
    if not line or line.startswith("#"):
        return
    left, _, right = line.partition(" = ")
    left = re.sub(r"\$(\w+)", lambda group: f"({_groups()[group[1]]})", left)
    means = tuple(part.strip() for part in right.split(" ; ") if part.strip())
    for words in left.split(" ; "):
        first, whole = _compiled(words.strip())
        yield Way(first, whole, means, words)


def _compiled(words: str) -> tuple[str, str]:
    """A way of speaking as regular expressions on the signs of a row, each with a space behind: of
    its first word, and of all."""
    masked = words.replace("\\(", "«").replace("\\)", "»")
    first = re.sub(r"<(\w)>", lambda slot: _SLOTS[slot[1]], _first_of(masked))
    return _unmasked(first), _unmasked(_with_slots(_row(masked)))


def _with_slots(pattern: str) -> str:
    """A pattern with groups for its slots: "p", and "p2" for the second of that kind."""
    counts: dict[str, int] = {}

    def slot(match: re.Match[str]) -> str:
        name = match[1]
        counts[name] = counts.get(name, 0) + 1
        group = name if counts[name] == 1 else f"{name}{counts[name]}"
        return f"(?P<{group}>{_SLOTS[name]})"

    return re.sub(r"<(\w)>", slot, pattern)


def _unmasked(pattern: str) -> str:
    return pattern.replace("«", re.escape("(")).replace("»", re.escape(")"))


def _item(item: str) -> str:
    """One word, a group of them, or what may be left out."""
    if left_out := re.fullmatch(r"\[(.*)\]\??", item):
        return f"(?:{_any_of(left_out[1])})?"
    if group := re.fullmatch(r"\((.*)\)(\??)", item):
        return f"(?:{_any_of(group[1])}){group[2]}"
    return f"{_ended(item)} "


def _any_of(parts: str) -> str:
    """Whichever of some parts, what has more words first."""
    longest_first = sorted(_parts_of(parts, "|"), key=lambda part: -part.count(" "))
    return "|".join(map(_row, longest_first))


def _row(words: str) -> str:
    return "".join(map(_item, _parts_of(words, " ")))


@cache
def _verbs() -> frozenset[str]:
    lines = (line for line in _lines_of("verbs") if not line.startswith("#"))
    return frozenset(word for line in lines for word in line.split())


def forms_of(verb: str) -> tuple[str, ...]:
    """A verb as it is conjugated, with some forms besides that nobody writes: "stop", "stops",
    "stoping", "stopping", "stoped", "stopped"."""
    stems = {verb.removesuffix("e"), verb + verb[-1]} if verb[-1] not in "aiouy" else {verb}
    third = verb[:-1] + "ies" if verb[-1] == "y" and verb[-2] not in "aeou" else ""
    return (
        verb, f"{verb}s", f"{verb}es", *filter(None, [third]), f"{verb}ing", f"{verb}ed",
        *(f"{stem}{ending}" for stem in sorted(stems) for ending in ("ing", "ed")),
    )  # fmt: skip


def _ended(word: str) -> str:
    """A word with endings that may be left out: "drop[s]", "wind[ -]up", "between[ them]"; a verb
    in all its forms."""
    if word in _verbs():
        return f"(?:{'|'.join(dict.fromkeys(forms_of(word)))})"
    word = re.sub(r"\[ -\]\??", " (?:- )?", word)
    word = re.sub(r"\[([^\]]*)\]\??", lambda m: f"(?:{m[1].replace(':', ' :')})?", word)
    return re.sub(r"\((?!\?)", "(?:", word)


def _parts_of(text: str, mark: str) -> list[str]:
    """The parts of a text between marks, but for those within brackets."""
    parts, depth = [""], 0
    for letter in text:
        depth += (letter in "[(") - (letter in "])")
        if letter == mark and not depth:
            parts.append("")
        else:
            parts[-1] += letter
    return [part for part in parts if part]


_ENDINGS = re.compile(r"([a-z’']+)([(\[])([a-z|]+)[)\]](\??)([a-z]*)")


def words_of(way: Way) -> set[str]:
    """The words that a way of speaking is made of, with all their endings."""
    text = re.sub(r"<\w>", " ", way.words)
    found: set[str] = set()
    for start, bracket, endings, mark, rest in _ENDINGS.findall(text):
        found |= {f"{start}{ending}{rest}" for ending in endings.split("|")}
        if bracket == "[" or mark:
            found.add(start + rest)
    text = _ENDINGS.sub(" ", text)
    found |= {word[:-1] for word in re.findall(r"[a-z]+(?=\?)", text)}
    found |= set(re.findall(r"[a-z][\w’']*", text))
    return found | {form for word in found & _verbs() for form in forms_of(word)}


def _first_of(words: str) -> str:
    """The first word of a way of speaking, whichever it is, as a regular expression."""
    firsts = []
    for item in _parts_of(words, " "):
        group = re.fullmatch(r"[\[(](.*)[\])](\??)", item)
        if group is None:
            firsts.append(_ended(item).split(" ")[0])
            break
        firsts += [_first_of(each) for each in _parts_of(group[1], "|")]
        if item[0] == "(" and not group[2]:
            break
    return "|".join(firsts)


@cache
def noise() -> frozenset[str]:
    """Words and signs without a meaning of their own."""
    lines = (line for line in _lines_of("noise") if not line.startswith("#"))
    return frozenset(word for line in lines for word in line.split())
