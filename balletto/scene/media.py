"""What a scene shows from files: pictures, videos, sound; and how what moves in time is played.

Files are named in a scene, and lie beside its file. Times in them are in seconds.
"""

from typing import Annotated, Literal

from pydantic import Field, StringConstraints, model_validator
from pydantic_core import PydanticCustomError

from .model import Counts, Model, Number, needs

FileName = Annotated[
    str,
    StringConstraints(max_length=200, pattern=r"^[^./\\\x00-\x1f][^/\\\x00-\x1f]*$"),
    needs("the name of a file that lies beside the scene, without folders"),
]
# What in a scene may be the name of a file: a sound may be a layer as well.
NAMING = ("file", "sound")
Seconds = Annotated[float, Number("a number of seconds", Counts.SECONDS, ge=0, le=100_000)]
Speed = Annotated[float, Number("a speed", Counts.FACTOR, ge=0, le=100)]
# What comes when it is over: its last frame stays, it begins again, or nothing is shown.
After = Literal["hold", "loop", "gone"]


class Played(Model):
    """A part of a file that is played, from `start` to `end` (None: its own end), at a speed that
    is 1 as it was taken."""

    file: FileName
    speed: Speed = 1
    start: Seconds = 0
    end: Seconds | None = None
    after: After = "hold"

    @model_validator(mode="after")
    def _forward(self) -> "Played":
        if self.end is not None and self.end <= self.start:
            raise PydanticCustomError("needs", "what is played must end after it begins")
        return self


class Filling(Model):
    """How a picture fills another shape: all of it is seen, or it is cut off at two sides."""

    fill: Literal["whole", "filled"] = Field("filled")
