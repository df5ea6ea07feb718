"""The caret of a title that is typed. The data only; balletto.motion.turns says where it stands."""

from typing import Annotated

from pydantic import Field

from ..model import Color, Counts, Distance, Frames, Identifier, Model, Number
from ..values import measures
from ..values.wording import Said, Wording

Blink = Annotated[float, Number("a number of seconds", Counts.SECONDS, gt=0, le=60)]


class Caret(Model):
    """A bar behind the last unit in reading order whose turn in a `move` has come, `width` px wide:
    solid for one `blink` (in seconds) after each turn, then seen for half of each. It is there
    `from` a frame `to` another, or as long as its title."""

    move: Identifier
    width: Distance = 6
    color: Color = "#FFFFFF"
    blink: Blink = 1
    first: Frames | None = Field(None, alias="from")
    end: Frames | None = Field(None, alias="to")


CARET = Wording(
    "Caret",
    "A caret of {width}, {color}, blinking every {blink}.",
    {
        "width": Said("Width of the caret", measures.LENGTH_PX, 6),
        "color": Said("Colour of the caret", is_color=True),
        "blink": Said("Blink of the caret", measures.SECONDS, 1),
    },
)
