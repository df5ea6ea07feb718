"""What every edit has, and the registry of them."""

from typing import Any, ClassVar

from pydantic import ValidationError

from ..changes import Change
from ..errors import Fault, SceneError
from ..model import Model, shown

Document = dict[str, Any]


class Edit(Model):
    """One operation with its arguments as fields."""

    edit_name: ClassVar[str] = ""
    # Whether it is of the scene as a whole, and so reaches into locked layers too.
    passes_locks: ClassVar[bool] = False

    def changes(self, document: Document) -> list[Change]:
        """The changes that this edit comes down to."""
        raise NotImplementedError

    def label(self, document: Document) -> str:
        """What the edit does, for the history: "Gap of Rise: 2 to 3"."""
        raise NotImplementedError


EDITS: dict[str, type[Edit]] = {}


def edit(name: str) -> Any:
    """Registers a class as the edit of that name."""

    def register(kind: type[Edit]) -> type[Edit]:
        kind.edit_name = name
        EDITS[name] = kind
        return kind

    return register


def parse_edit(data: Any) -> Edit:
    """The edit of plain data {"name": ..., arguments}; SceneError if it is not one."""
    arguments = dict(data) if isinstance(data, dict) else {}
    name = arguments.pop("name", None)
    if name not in EDITS:
        known = ", ".join(sorted(EDITS))
        raise SceneError.at("name", f"an edit is needed, one of {known}; got {shown(name)}")
    try:
        return EDITS[name].model_validate(arguments, strict=False)
    except ValidationError as error:
        raise SceneError(
            [Fault(".".join(map(str, item["loc"])), item["msg"]) for item in error.errors()]
        ) from None
