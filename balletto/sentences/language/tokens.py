"""Atoms of a sentence that was typed: its words, values, orders and eases, each with its place."""

import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from importlib.resources import files
from typing import Any

from lark import Lark, Token, Tree
from lark.exceptions import UnexpectedInput
from lark.lexer import Lexer

from ...scene.eases import EASE_KINDS
from ...scene.moving.ease_words import TRACK_EASES
from ...scene.orders import ORDERS
from ...scene.values.measures import FRAME, FRAMES, PIXELS, PLAIN
from ...scene.values.quantity_reader import QuantityError
from ..wording.pieces import BEYOND
from .ease_rules import ease_literals, ease_of_kind, ease_rules, units_of_eases
from .letters import unquoted
from .lexicon import Lexicon, Phrase, spelt
from .numbers import number_in

MOST_LETTERS = 4000

# Units as they are typed behind a number. "times" and "x" are words in sentences.
_UNITS = (
    "px", "pixels", "pixel", "°", "degrees", "degree", "deg", "%", "percent", "‰", "thousandths",
    "permille", "seconds", "second", "sec", "s", "ms", "milliseconds", "frames", "frame", "f",
    "hz", "hertz", "db", "×",
)  # fmt: skip
_DIRECTIONS = (
    "left", "right", "above", "below", "nearer", "deeper", "up", "closer", "farther", "further",
    "louder", "softer",
)  # fmt: skip
_NUMBER = r"[-−–]?(?:\d+(?::\d+){1,2}|\d+(?:[.,]\d+)?|[.]\d+)"
_TOKEN = re.compile(
    rf"""\s*(?:(?P<STRING>“(?:[^”\\]|\\.)*”|"[^"]*")|(?P<COLOR>\#[0-9A-Fa-f]{{3,8}})
    |(?P<NUMBER>{_NUMBER}(?:\s*(?:/s\b|(?:UNITS)(?!\w)))?)
    |(?P<LPAR>\()|(?P<RPAR>\))|(?P<COMMA>[,;])|(?P<skip>[.:]|-)|(?P<word>x(?=\d)|[^\W\d_][\w'’]*)
    |(?P<UNKNOWN>\S))""",
    re.VERBOSE,
)


class SayingError(ValueError):
    """What is typed is not understood from `start` to `end`. The message says what and what to do,
    `suggestions` what could stand there instead."""

    def __init__(self, message: str, start: int, end: int, suggestions: tuple[str, ...] = ()):
        super().__init__(message)
        self.start, self.end, self.suggestions = start, end, suggestions


@dataclass(frozen=True)
class Atom:
    """One of `kind`: word, value, color, string, order, ease, listed, unknown; from `start` to
    `end` of the text.

    phrase: its words in one spelling; raw: as it was typed; parts: what it is made of, by kind
    is_parted: whether a comma stands before it
    """

    kind: str
    phrase: Phrase
    raw: str
    start: int
    end: int
    parts: Any = None
    is_parted: bool = False

    @property
    def is_plain(self) -> bool:
        """Whether it is a number alone."""
        return self.kind == "value" and self.parts is None


class _Words:
    """Where tokens are cut: phrases by the lexicon, numbers with their units."""

    def __init__(self, lexicon: Lexicon, units: frozenset[str]):
        self._lexicon = lexicon
        listed = sorted({*_UNITS, *units, *units_of_eases()}, key=len, reverse=True)
        pattern = _TOKEN.pattern.replace("UNITS", "|".join(map(re.escape, listed)))
        self._token = re.compile(pattern, re.VERBOSE | re.IGNORECASE)

    def tokens(self, text: str) -> Iterator[Token]:
        """The terminals of a text."""
        at = 0
        while found := self._token.match(text, at):
            kind = found.lastgroup or ""
            at = found.end()
            if kind == "word":
                token, at = self._phrase(text, found.start(kind))
                if token is not None:
                    yield token
            elif kind != "skip":
                yield _token(kind, text, found.start(kind), at)

    def _phrase(self, text: str, start: int) -> tuple[Token | None, int]:
        """The longest phrase that begins at a place, and where it ends."""
        words, ends = _words_from(text, start, self._lexicon.longest)
        if not words:
            return None, ends[0]
        count = self._lexicon.found(words)
        end = ends[max(count, 1) - 1]
        name = self._lexicon.phrases[words[:count]] if count else "UNKNOWN"
        return _token(name, text, start, end), end


def _token(kind: str, text: str, start: int, end: int) -> Token:
    return Token(kind, text[start:end], start_pos=start, end_pos=end)


_NEXT = re.compile(r"[\s-]*(x(?=\d)|[^\W\d_][\w'’]*)")  # "1920x1080" has an x


def _words_from(text: str, start: int, most: int) -> tuple[Phrase, list[int]]:
    """Words from a place on in one spelling, and where each ends; noise before them is left out."""
    words: list[str] = []
    ends: list[int] = []
    at = start
    while len(words) < most and (found := _NEXT.match(text, at)):
        at = found.end()
        if alike := spelt(found[1]):
            words += alike
            ends.append(at)
        elif not words:
            return (), [at]  # a word that means nothing
    return tuple(words), ends


class Atoms:
    """Reads texts into atoms. `phrases` are the words of the sentences that there are, `quiet`
    those that are never suggested, `units` what stands behind their numbers."""

    def __init__(
        self,
        phrases: list[str],
        quiet: list[str],
        short: dict[str, str],
        units: frozenset[str],
    ):
        self.lexicon = Lexicon()
        self._eases = {spelt(words): ease for ease, words in TRACK_EASES if isinstance(ease, str)}
        self._add_terminals(phrases, quiet)
        for words, whole in short.items():
            self.lexicon.add_short(words, whole)
        lexer = _Words(self.lexicon, units)

        class PhraseLexer(Lexer):
            def __init__(self, _: Any):
                pass

            def lex(self, text: Any) -> Iterator[Token]:  # type: ignore[override]
                return lexer.tokens(text)  # a lexer of one's own is given the text

        self._lark = Lark(self._grammar(), parser="lalr", lexer=PhraseLexer, keep_all_tokens=True,
                          propagate_positions=True, maybe_placeholders=False)  # fmt: skip

    def _add_terminals(self, phrases: list[str], quiet: list[str]) -> None:
        lexicon = self.lexicon
        self._fixed = {
            "AT": "at", "THEN": "then", "FRAME": "frame", "ACROSS": "across", "DOWN": "down",
            "BY": "by", "BEFORE": "before them", "AFTER": "after them", "TIED": "tied to",
            "TIMES": "times", "PLUS": "plus", "LATER": "later",
        }  # fmt: skip
        for number, words in enumerate(ease_literals()):
            self._fixed[f"EASE_{number}"] = words
        for name, words in self._fixed.items():
            lexicon.add([words], name)
        lexicon.add((words for _, words in BEYOND), "BEYOND")
        lexicon.add((words for ease, words in TRACK_EASES if isinstance(ease, str)), "EASE")
        needs = {"seed": "SEEDED", "ranks": "RANKED", "point": "POINTED"}
        for order in ORDERS.values():
            lexicon.add([order.words], needs.get(order.needs, "ORDER"))
        lexicon.add(_DIRECTIONS, "DIRECTION")
        lexicon.add(phrases, "WORD")
        lexicon.add(quiet, "WORD", is_told=False)

    def _grammar(self) -> str:
        """The grammar with what comes from the kinds that there are. Fixed words are terminals by
        name, since the lexer tells them apart."""
        text = files(__package__).joinpath("grammar.lark").read_text()
        names = {self.lexicon.phrases[spelt(words)]: words for words in self._fixed.values()}
        for name, words in names.items():
            text = text.replace(f'"{words}"', name)
        text = text.replace('"("', "LPAR").replace('")"', "RPAR").replace('","', "COMMA")
        rules = ease_rules(self.lexicon)
        titles = {self.lexicon.phrases[spelt(kind.title)] for kind in EASE_KINDS.values()}
        plain = [name for name in names if name not in titles]
        declared = {
            "NUMBER", "DIRECTION", "COLOR", "STRING", "UNKNOWN", "WORD", "ORDER", "SEEDED",
            "RANKED", "POINTED", "EASE", "BEYOND", "LPAR", "RPAR", "COMMA", *names,
        }  # fmt: skip
        return "\n".join(
            [
                text,
                f"ease_kind: {' | '.join(rules)}",
                f"plain_word: {' | '.join(plain)}",
                f"%declare {' '.join(sorted(declared))}",
            ]
        )

    def read(self, text: str) -> list[Atom]:
        """The atoms of a text; SayingError where parentheses are broken, or it is too long."""
        if len(text) > MOST_LETTERS:
            raise SayingError(
                f"at most {MOST_LETTERS} letters can be read, got {len(text)}", MOST_LETTERS,
                len(text),
            )  # fmt: skip
        try:
            tree = self._lark.parse(text)
        except UnexpectedInput as fault:
            raise _broken(text, fault) from None
        return [self._atom(part, text) for part in tree.children if isinstance(part, Tree)]

    def _atom(self, tree: Any, text: str) -> Atom:
        tokens = list(tree.scan_values(lambda _: True))
        start, end = tokens[0].start_pos or 0, tokens[-1].end_pos or 0
        raw = text[start:end]
        try:
            return self._made(tree, tokens, text, start, end)
        except QuantityError as refused:  # of an ease that has values
            raise SayingError(f"“{raw}”: {refused}", start, end) from None

    def _made(self, tree: Any, tokens: list[Token], text: str, start: int, end: int) -> Atom:
        raw = text[start:end]
        phrase = self.lexicon.meant(spelt(raw))
        parts: Any = None
        if tree.data == "value" and isinstance(tree.children[0], Tree):
            parts = tree.children[0]
        elif tree.data == "ease":
            parts = self._ease(tree.children[0])
        elif tree.data in ("order", "listed"):
            parts = tokens
        elif tree.data == "string":
            parts = unquoted(raw[1:-1])
        is_parted = text[:start].rstrip().endswith((",", ";"))
        return Atom(str(tree.data), phrase, raw, start, end, parts, is_parted)

    def _ease(self, child: Any) -> Any:
        """The ease of a rule `ease`, as plain data."""
        if isinstance(child, Tree) and child.data == "ease":
            child = child.children[0]
        if isinstance(child, Token):
            return self._eases[self.lexicon.meant(spelt(child))]
        return ease_of_kind(child)

    # Courses and ties, as plain data

    def course(self, tree: Any, value: Callable[[Any], Any], rate: float) -> dict[str, Any]:
        """The keys of a course; `value` reads what stands at a key from its tokens."""
        keys: list[dict[str, Any]] = []
        beyond: dict[str, Any] = {}
        for part in tree.children:
            if not isinstance(part, Tree):
                continue
            if part.data == "beyond":
                when, how = (str(each) for each in part.children)
                side, words = spelt(when)[0], spelt(how)
                beyond[side] = next(name for name, said in BEYOND if spelt(said) == words)
                continue
            keyed, _, time, *ease = part.children
            key = {"at": number_in(str(time.children[-1]), FRAME, rate), "value": value(keyed)}
            if ease:
                key["ease"] = self._ease(ease[0])
            keys.append(key)
        return {"keys": keys, **beyond}


def tie_of(tree: Any, rate: float) -> dict[str, Any]:
    """What a value follows, as plain data."""
    tokens = [token for token in tree.children if isinstance(token, Token)]
    tie: dict[str, Any] = {}
    for before, token in zip([None, *tokens], tokens, strict=False):
        if token.type == "STRING":
            tie["to"] = unquoted(token[1:-1])
        elif token.type == "NUMBER" and before is not None and before.type == "TIMES":
            tie["gain"] = number_in(token, PLAIN, rate)
        elif token.type == "NUMBER" and before is not None and before.type == "PLUS":
            tie["plus"] = number_in(token, PLAIN, rate)
        elif token.type == "NUMBER":
            tie["delay"] = number_in(token, FRAMES, rate)
    return {"tie": tie}


def point_of(keyed: Any, rate: float) -> list[float]:
    """Two numbers of pixels."""
    return [number_in(token, PIXELS, rate) for token in keyed.children if token.type == "NUMBER"]


def _broken(text: str, fault: UnexpectedInput) -> SayingError:
    token = getattr(fault, "token", None)
    start = len(text) if token is None or token.type == "$END" else token.start_pos or 0
    opened = text.rfind("(", 0, start)
    if start >= len(text.rstrip()) and opened >= 0:
        return SayingError("a “)” is missing for this one", opened, opened + 1, (")",))
    what = str(token) if token is not None else ""
    if opened < 0 or text.count("(", 0, start) == text.count(")", 0, start):
        return SayingError(f"“{what}” is not understood here", start, start + max(len(what), 1))
    told = f"“{what}” is not understood within the parentheses: say “(100 at 0, then 0 at 20)”"
    return SayingError(told, start, start + max(len(what), 1), ("at", "then", ")"))
