"""Rewriting plain data of a scene by the types of its models.

Every number is met with what it counts, wherever it stands: as a plain value, in the keys of a
track, in a list. So what shifts a layer in time, or puts a scene into another picture, names no
fields, and a new field is handled by its type.
"""

from collections.abc import Iterator
from itertools import repeat
from types import UnionType
from typing import Annotated, Any, NamedTuple, Union, get_args, get_origin

from pydantic import BaseModel, Discriminator, Tag
from pydantic.fields import FieldInfo

from .model import LOCAL, Counting, Number
from .tracks import Tied

Data = dict[str, Any]
Mark = Number | Counting
Pointer = tuple[str | int, ...]


class Where(NamedTuple):
    """Where a number stands: the name of its field, and whether its frames count from the start of
    a move."""

    name: str = ""
    is_local: bool = False


_ANYWHERE = Where()


class Rewriter:
    """Goes over plain data by a type. What kinds of them change says `number`."""

    def number(self, value: Any, mark: Mark, where: Where) -> Any:
        """A number, or several that are marked together, as it is to be; itself if it stays."""
        raise NotImplementedError

    def tie(self, tie: Data, mark: Mark | None, where: Where) -> Data:
        """A tie of a value of that mark (None: a colour) as it is to be."""
        return tie

    def rewritten(self, kind: Any, data: Any, where: Where = _ANYWHERE) -> Any:
        """Data of a type, new where it changes."""
        base, marks = _split(kind)
        if LOCAL in marks:
            where = where._replace(is_local=True)
        if data is None:
            return None
        if mark := _mark_in(marks):
            return self.number(data, mark, where)
        if picked := next((mark for mark in marks if isinstance(mark, Discriminator)), None):
            return self.rewritten(_member(base, picked, data), data, where)
        if get_origin(base) in (Union, UnionType):
            return self.rewritten(_but_none(base), data, where)
        if isinstance(data, list | tuple):
            pairs = zip(_kinds_of_items(base), data, strict=False)
            return [self.rewritten(item_kind, item, where) for item_kind, item in pairs]
        if get_origin(base) is dict:
            inner = get_args(base)[1]
            return {name: self.rewritten(inner, value, where) for name, value in data.items()}
        if isinstance(base, type) and issubclass(base, BaseModel) and isinstance(data, dict):
            return self.part(base, data, where)
        return data

    def part(self, model: Any, data: Data, where: Where = _ANYWHERE) -> Data:
        """A part of the document. Numbers that are left out are said where they are not the usual
        ones any more."""
        if issubclass(model, Tied):
            return {**data, "tie": self.tie(data["tie"], mark_of_values(model), where)}
        changed = dict(data)
        for key, field in model.model_fields.items():
            here = where._replace(name=field.alias or key)
            name = key if key in data else here.name
            if name in data:
                changed[name] = self.rewritten(kind_of_field(field), data[name], here)
            elif model.replaced.get(key) not in data:
                usual = _plain(field.default)
                said = self._usual(kind_of_field(field), usual, here)
                if said != usual:
                    changed[name] = said
        return changed

    def _usual(self, kind: Any, usual: Any, where: Where) -> Any:
        """What a number that is left out would be; what is no number stays."""
        mark = mark_of(kind)
        if mark is None or usual is None or isinstance(usual, str | bool):
            return usual
        where = where._replace(is_local=where.is_local or LOCAL in _split(kind)[1])
        if isinstance(usual, list) and isinstance(mark, Number):
            return [self.number(each, mark, where) for each in usual]
        return self.number(usual, mark, where)


def kind_of_field(field: FieldInfo) -> Any:
    """The type of a field with all its marks."""
    return Annotated[(field.annotation, *field.metadata)] if field.metadata else field.annotation


def mark_of(kind: Any) -> Mark | None:
    """What the plain values of a type count; None if they are no numbers."""
    base, marks = _split(kind)
    if mark := _mark_in(marks):
        return mark
    if get_origin(base) in (Union, UnionType):
        return mark_of(_but_none(base))
    if get_origin(base) is tuple:
        return mark_of(get_args(base)[0])
    return None


def mark_of_values(model: type[BaseModel]) -> Mark | None:
    """What the values of a kind of track or tie count."""
    found = model.__pydantic_generic_metadata__["args"]
    return mark_of(found[0]) if found else None


def mark_at(kind: Any, data: Any, pointer: Pointer) -> Mark | None:
    """What the value counts that a pointer leads to from data of a type; None if no number."""
    base, marks = _split(kind)
    if mark := _mark_in(marks):
        return mark
    if not pointer:
        return mark_of(kind)
    if picked := next((mark for mark in marks if isinstance(mark, Discriminator)), None):
        base = _split(_member(base, picked, data))[0]
    elif get_origin(base) in (Union, UnionType):
        return mark_at(_but_none(base), data, pointer)
    first, *rest = pointer
    inner = _inside(base, first)
    if inner is None:
        return None
    found = data.get(first) if isinstance(data, dict) else data[int(first)] if data else None
    return mark_at(inner, found, tuple(rest))


def _inside(base: Any, name: str | int) -> Any:
    """The type of what has a name or an index within a type; None if nothing has."""
    if get_origin(base) is dict:
        return get_args(base)[1]
    if get_origin(base) is tuple:
        kinds = get_args(base)
        return kinds[0] if kinds[-1] is Ellipsis else kinds[int(name)]
    if not isinstance(base, type) or not issubclass(base, BaseModel):
        return None
    fields = base.model_fields.items()
    found = next((field for key, field in fields if name in (key, field.alias)), None)
    return found and kind_of_field(found)


def _split(kind: Any) -> tuple[Any, tuple[Any, ...]]:
    if get_origin(kind) is Annotated:
        return kind.__origin__, kind.__metadata__
    return kind, ()


def _mark_in(marks: tuple[Any, ...]) -> Mark | None:
    return next((mark for mark in marks if isinstance(mark, Number | Counting)), None)


def _member(base: Any, picked: Discriminator, data: Any) -> Any:
    """The kind of a union that is meant by the data; its plain one for what is not known."""
    members = get_args(base) if get_origin(base) in (Union, UnionType) else (base,)
    tag = picked.discriminator(data) if callable(picked.discriminator) else None
    for member in members:
        if any(isinstance(mark, Tag) and mark.tag == tag for mark in _split(member)[1]):
            return member
    return Any


def _but_none(base: Any) -> Any:
    return next(member for member in get_args(base) if member is not type(None))


def _kinds_of_items(base: Any) -> Iterator[Any]:
    kinds = get_args(base)
    if not kinds:
        return repeat(Any)
    return repeat(kinds[0]) if kinds[-1] is Ellipsis else iter(kinds)


def _plain(value: Any) -> Any:
    return list(value) if isinstance(value, tuple) else value
