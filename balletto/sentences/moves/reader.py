"""Reading a move: clauses in any order, as people type them."""

from dataclasses import dataclass, field

from ...scene.values.measures import DEGREES, PIXELS
from ..language.rules import Pattern
from ..language.terms import Literal, NumberOf, Option, Reading, ReadValues, StringOf
from ..layers.reader import form_reader, shape_heads
from ..layers.shapes import A_PATH
from ..titles.reader import StyleReader
from .clauses import CLAUSES, Clause, NotSaid, nouns
from .draft import MoveDraft
from .selectors import COMBINE, SelectorRead, selector_patterns
from .wording import BECOMES, THERE

BECOMING = Option(
    "leads",
    (*BECOMES.items(), *(("away", words) for words in ("become", "turns into", "turn into"))),
)
# What a value without a name says of a shake: "shaken by 6 px and 3°".
_SHAKEN = (
    (("rotation",), DEGREES, ("°", "deg")),
    (("x", "y"), PIXELS, ("px", "pixel")),
)


@dataclass
class MoveReader:
    """Reads the atoms of a move into a draft of it.

    places: where in the text each thing was said
    said: the clauses that were read; in_selector: whether the last of them was of a selector
    """

    reading: Reading
    draft: MoveDraft
    places: dict[str, tuple[int, int]] = field(default_factory=dict)
    said: set[str] = field(default_factory=set)
    in_selector: bool = False

    @property
    def is_known(self) -> bool:
        """Whether it says where it leads."""
        return bool(self.draft.pose or self.draft.becomes) or self.draft.is_nowhere

    def step(self) -> bool:
        """Reads what comes next; False if it is not understood."""
        start = self.reading.at
        self.in_selector = self._selector()
        if not (self.in_selector or self._becoming() or self._clause() or self._bare()):
            return False
        end = self.reading.at - 1
        atoms = self.reading.atoms
        for name in self._touched:
            self.places[name] = (atoms[start].start, atoms[end].end)
        return True

    _touched: tuple[str, ...] = ()
    _open: int = 0

    # Selectors

    def _selector(self) -> bool:
        selectors = self.draft.selectors
        if selectors and selectors[self._open].step(self.reading):
            self._touched = (f"reach[{self._open}]",)
            return True
        start = self.reading.at
        joined: ReadValues = {}
        is_another = bool(selectors) and COMBINE.take(self.reading, joined)
        Literal("by").take(self.reading, {})
        for patterns in selector_patterns(nouns()):
            for head in patterns.heads:
                values = head.match(self.reading)
                if values is not None:
                    self._begin(
                        SelectorRead(patterns, {**values, **joined}, set(values)), is_another
                    )
                    return True
        self.reading.at = start
        return False

    def _begin(self, read: SelectorRead, is_another: bool) -> None:
        """A selector that is said first, or once more: then it changes the one that was said, if it
        is not joined to that ("times a wave")."""
        selectors = self.draft.selectors
        same = [at for at, said in enumerate(selectors) if said.of is read.of and not is_another]
        if same:
            self._open = same[-1]
            read.values = {**selectors[self._open].values, **read.values}
            selectors[self._open] = read
        else:
            self._open = len(selectors)
            selectors.append(read)
        self._touched = (f"reach[{self._open}]",)

    # What it becomes

    def _becoming(self) -> bool:
        """“becomes “GOODBYE”, there red”, “becomes a star with 5 corners”."""
        start = self.reading.at
        verb: ReadValues = {}
        if self.draft.becomes is None and BECOMING.take(self.reading, verb):
            found = self._text() or self._shape()
            if found is not None:
                self.draft.becomes = found
                if "shape" in found:
                    self.draft.data.setdefault("unit", "layer")
                self.draft.leads = self.draft.leads or verb["leads"]
                self._touched = ("becomes",)
                return True
        self.reading.at = start
        return False

    def _text(self) -> ReadValues | None:
        words: ReadValues = {}
        if not StringOf("text").take(self.reading, words):
            self.reading.expect(StringOf("text"))
            return None
        before = self.reading.at
        if Literal(THERE).take(self.reading, {}):
            style = StyleReader(self.reading)
            while self.reading.atom() is not None and style.step():
                pass
            if style.style:
                return {**words, "style": style.data()}
            self.reading.at = before
        return words

    def _shape(self) -> ReadValues | None:
        path: ReadValues = {}
        if Literal(A_PATH).take(self.reading, {}) and StringOf("path").take(self.reading, path):
            return {"shape": {"kind": "path", **path}}
        for head in shape_heads():
            values = head.pattern.match(self.reading)
            if values is not None:
                form = form_reader(self.reading, head, values)
                while self.reading.atom() is not None and form.step():
                    pass
                return {"shape": {"kind": head.shape, **form.values}}
        return None

    # Clauses

    def _clause(self) -> bool:
        return any(self._read(clause) for clause in CLAUSES)

    def _read(self, clause: Clause) -> bool:
        """Whether a clause is what comes next, and means something."""
        start = self.reading.at
        values = clause.pattern.match(self.reading)
        if values is None:
            return False
        try:
            clause.act(self.draft, values)
        except NotSaid as refused:
            self.reading.refuse(str(refused))
            self.reading.at -= 1  # what was read last is what does not fit
            self.reading.expect(clause.pattern.elements[-1])
            self.reading.at = start
            return False
        self._touched = (clause.name,) if clause.name else ()
        self.said.add(clause.name)
        return True

    def _bare(self) -> bool:
        """A value whose meaning is that of the words before it."""
        atom = self.reading.atom()
        if atom is None or not atom.is_plain or not self.draft.by or not self.draft.selectors:
            return False
        for names, measure, units in _SHAKEN:
            is_meant = any(unit in atom.raw for unit in units)
            number = Pattern((NumberOf("value", measure, is_plain=True),))
            if is_meant and (values := number.match(self.reading) or {}):
                for name in names:
                    self.draft.set_pose(name, values["value"])
                self._touched = tuple(f"pose.{name}" for name in names)
                return True
        return False
