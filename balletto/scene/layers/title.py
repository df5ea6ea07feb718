"""Titles: layers of text."""

from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from ..letters.along import Along
from ..letters.caret import Caret
from ..letters.style import RunStyle, Style
from ..letters.windows import Window
from ..model import MAX_TEXT, Model, TextIndex, needs
from ..moving.moves import Move
from .base import Layer


class Run(Model):
    """A style for the characters `from` to `to` (not included), counted with white space."""

    first: TextIndex = Field(alias="from")
    end: TextIndex = Field(alias="to")
    style: RunStyle

    @model_validator(mode="after")
    def _forward(self) -> "Run":
        if self.end <= self.first:
            raise PydanticCustomError("needs", "a run must end after it begins")
        return self


class Title(Layer):
    """A layer of text.

    With `hold_center`, each line is shifted so that what can be seen of it stays centred. Letters
    are drawn in `draw_order`: as they are read, the first in front, or the nearer in front. With a
    `window` they are seen within that alone. Where moves draw outlines, the contours of a letter
    come one after another, or with `drawn_each` all at once. A `caret` goes with a move. Its lines
    are straight, or stand `along` the outline of a shape.
    """

    rank: ClassVar = 0
    title: ClassVar = "Title"
    has_outlines: ClassVar = True

    kind: Literal["title"]
    text: Annotated[str, Field(max_length=MAX_TEXT), needs("a text of at most 10,000 letters")]
    style: Style = Style()
    runs: tuple[Run, ...] = ()
    hold_center: bool = False
    draw_order: Literal["reading", "reverse", "depth"] = "reading"
    drawn_each: bool = False
    window: Window | None = None
    caret: Caret | None = None
    along: Along | None = None
    moves: tuple[Move, ...] = Field((), max_length=100)

    @property
    def words(self) -> str:
        """The text on one line."""
        return " ".join(self.text.split())

    def style_at(self, index: int) -> dict[str, Any]:
        """The whole style, as plain data, of the letter at an index of the text."""
        whole = self.style.model_dump()
        own = next((run.style for run in self.runs if run.first <= index < run.end), None)
        said = own.model_dump(exclude_none=True) if own else {}
        tagged = {name: {**whole[name], **said.get(name, {})} for name in ("axes", "features")}
        return {**whole, **said, **tagged}

    @property
    def nameless(self) -> str:
        return "Empty title"
