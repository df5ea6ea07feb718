"""What can be wrong with a scene, said with the place where it is.

SceneError (ValueError)     one or more faults of a scene file or of an edit
"""

from typing import NamedTuple


class Fault(NamedTuple):
    """One thing that is wrong: `path` as in `layers[2].moves[0].stagger.gap`, "" for the whole."""

    path: str
    message: str

    def __str__(self) -> str:
        return f"{self.path}: {self.message}" if self.path else self.message


class SceneError(ValueError):
    """The scene cannot be used; `faults` says what is wrong and where."""

    def __init__(self, faults: list[Fault]):
        super().__init__("\n".join(map(str, faults)))
        self.faults = faults

    @classmethod
    def at(cls, path: str, message: str) -> "SceneError":
        return cls([Fault(path, message)])
