"""Kinds of things that are found by their folders: a module in the folder of effects, shapes, masks
or selectors is one more kind, and nothing else has to be told of it."""

from importlib import import_module
from pkgutil import iter_modules
from types import ModuleType
from typing import TYPE_CHECKING, Any, ClassVar, TypeVar, get_args

from .model import Model


class Kind(Model):
    """A part of the document that there are several kinds of, each of which says
    `kind: Literal["its-name"]`. `rank`: where it stands among those that are offered."""

    rank: ClassVar[int] = 1000

    if TYPE_CHECKING:
        kind: str

    @classmethod
    def name_in_files(cls) -> str | None:
        """What it is called in the file; None if it is what several kinds have in common."""
        field = cls.model_fields.get("kind")
        return str(get_args(field.annotation)[0]) if field else None

    @classmethod
    def type_in_scenes(cls) -> Any:
        """The type of its data: itself, or a union of the forms that it has."""
        return cls


K = TypeVar("K", bound=Kind)


def modules_in(package: str, paths: list[str]) -> list[ModuleType]:
    """All modules of a package, imported, in the order of their names."""
    names = sorted(module.name for module in iter_modules(paths))
    return [import_module(f"{package}.{name}") for name in names]


def kinds_in(package: str, paths: list[str], base: type[K]) -> dict[str, type[K]]:
    """The models of `base` in the modules of a package, by their kind, in the order in which they
    are offered."""
    found = {
        model: name
        for module in modules_in(package, paths)
        for model in vars(module).values()
        if isinstance(model, type) and issubclass(model, base) and (name := model.name_in_files())
    }
    whole = [model for model in found if not set(found) & set(model.__mro__[1:])]  # no forms of one
    return {found[model]: model for model in sorted(whole, key=lambda m: (m.rank, found[m]))}
