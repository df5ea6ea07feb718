"""What all kinds of eases have: how the stretch between two keys is travelled."""

from collections.abc import Callable
from typing import Annotated, Any, ClassVar

import numpy as np

from ..kinds import Kind
from ..model import Counts, Number
from ..values.measures import Measure
from ..values.wording import Said

EaseFunction = Callable[[np.ndarray], np.ndarray]

Progress = Annotated[float, Number("a number of the progress axis", Counts.PART, ge=0, le=1)]
Value = Annotated[float, Number("a number", Counts.PART, ge=-1000, le=1000)]
PROGRESS = Measure("", drag=0.005, step=0.05, low=0, high=1)
VALUE = Measure("", drag=0.005, step=0.05)


class EaseKind(Kind):
    """What all kinds have. A kind is known by its key in the file, as {"spring": 0.4}.

    title: what it is called; start: one to begin with; values: how what it says is said
    words: how these read behind its title
    is_drawn: whether it is a curve of its own, which no name and no single number tells
    """

    key: ClassVar[str]
    title: ClassVar[str]
    start: ClassVar[dict[str, Any]]
    values: ClassVar[dict[str, Said]]
    words: ClassVar[str]
    is_drawn: ClassVar[bool] = False

    @classmethod
    def name_in_files(cls) -> str | None:
        return getattr(cls, "key", None)

    def function(self) -> EaseFunction:
        """The ease as a function of s, an array of any shape with values in 0..1."""
        raise NotImplementedError
