"""Rewriting plain data of a scene by the types of its models.

Every number is met with what it counts, wherever it stands: as a plain value, in the keys of a
track, in a list. So what shifts a layer in time, or puts a scene into another picture, names no
fields, and a new field is handled by its type.
"""

from collections.abc import Callable, Iterable
from functools import cache
from itertools import repeat
from types import UnionType
from typing import Annotated, Any, NamedTuple, Union, get_args, get_origin

from pydantic import BaseModel, Discriminator, Tag
from pydantic.fields import FieldInfo

from .model import LOCAL, Counting, Number
from .values.tracks import Tied

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
        if data is None:
            return None
        type_ = _type_of(kind)
        if type_.is_local:
            where = where._replace(is_local=True)
        if type_.mark:
            return self.number(data, type_.mark, where)
        if type_.pick or type_.is_optional:
            return self.rewritten(type_.member(data), data, where)
        if isinstance(data, list | tuple):
            return [
                self.rewritten(item_kind, item, where)
                for item_kind, item in zip(type_.kinds_of_items(), data, strict=False)
            ]
        if type_.values is not None:
            return {name: self.rewritten(type_.values, each, where) for name, each in data.items()}
        if type_.model is not None and isinstance(data, dict):
            return self.part(type_.model, data, where)
        return data

    def part(self, model: Any, data: Data, where: Where = _ANYWHERE) -> Data:
        """A part of the document. Numbers that are left out are said where they are not the usual
        ones any more."""
        if issubclass(model, Tied):
            return {**data, "tie": self.tie(data["tie"], mark_of_values(model), where)}
        changed = dict(data)
        for field in _fields_of(model):
            here = Where(field.name, where.is_local)
            name = field.key if field.key in data else field.name
            if name in data:
                changed[name] = self.rewritten(field.kind, data[name], here)
            elif field.mark and model.replaced.get(field.key) not in data:
                said = self._usual(field, field.mark, here)
                if said != field.usual:
                    changed[name] = said
        return changed

    def _usual(self, field: "_Field", mark: Mark, where: Where) -> Any:
        """What a number that is left out would be; None if there is none then."""
        where = where._replace(is_local=where.is_local or _type_of(field.kind).is_local)
        if isinstance(field.usual, list) and isinstance(mark, Number):
            return [self.number(each, mark, where) for each in field.usual]
        return None if field.usual is None else self.number(field.usual, mark, where)


class _Field(NamedTuple):
    """A field of a model; `usual`: its number, or its numbers, where it is left out, or None."""

    key: str
    name: str
    kind: Any
    mark: Mark | None
    usual: Any


@cache
def _fields_of(model: type[BaseModel]) -> tuple[_Field, ...]:
    made = []
    for key, field in model.model_fields.items():
        kind, usual = kind_of_field(field), field.default
        mark = mark_of(kind)
        is_number = mark is not None and isinstance(usual, int | float | tuple)
        usual = (list(usual) if isinstance(usual, tuple) else usual) if is_number else None
        made.append(_Field(key, field.alias or key, kind, mark, usual))
    return tuple(made)


def kind_of_field(field: FieldInfo) -> Any:
    """The type of a field with all its marks."""
    return Annotated[(field.annotation, *field.metadata)] if field.metadata else field.annotation


def mark_of(kind: Any) -> Mark | None:
    """What the plain values of a type count; None if they are no numbers."""
    type_ = _type_of(kind)
    if type_.mark:
        return type_.mark
    if type_.members or type_.items:
        return mark_of((type_.members or type_.items)[0])
    return None


def mark_of_values(model: type[BaseModel]) -> Mark | None:
    """What the values of a kind of track or tie count."""
    found = model.__pydantic_generic_metadata__["args"]
    return mark_of(found[0]) if found else None


def mark_at(kind: Any, data: Any, pointer: Pointer) -> Mark | None:
    """What the value counts that a pointer leads to from data of a type; None if no number."""
    type_ = _type_of(kind)
    if type_.mark:
        return type_.mark
    if not pointer:
        return mark_of(kind)
    if type_.pick or type_.is_optional:
        return mark_at(type_.member(data), data, pointer)
    first, *rest = pointer
    inner = type_.inside(first)
    if inner is None:
        return None
    found = data.get(first) if isinstance(data, dict) else data[int(first)] if data else None
    return mark_at(inner, found, tuple(rest))


class _Type(NamedTuple):
    """A type taken apart: what it counts; the members of a union, and what picks one by its tag;
    the kinds of items of a tuple, of which the only one may be that of `many`; the kind of the
    values of an object; the model of a part. The rest is empty."""

    mark: Mark | None = None
    is_local: bool = False
    pick: Callable[[Any], Any] | None = None
    members: tuple[Any, ...] = ()
    items: tuple[Any, ...] = ()
    are_many: bool = False
    values: Any = None
    model: type[BaseModel] | None = None

    @property
    def is_optional(self) -> bool:
        """Whether it is a type or None."""
        return bool(self.members) and self.pick is None

    def member(self, data: Any) -> Any:
        """The kind of a union that is meant by the data."""
        if self.pick is None:
            return self.members[0]
        tag = self.pick(data)
        return next((kind for kind in self.members if Tag(tag) in _split(kind)[1]), Any)

    def kinds_of_items(self) -> Iterable[Any]:
        """The kinds of the items of a list, as many as there may be."""
        return repeat(self.items[0] if self.items else Any) if self.are_many else self.items

    def inside(self, name: str | int) -> Any:
        """The kind of what has a name or an index within it; None if nothing has."""
        if self.values is not None:
            return self.values
        if self.items:
            return self.items[0 if self.are_many else int(name)]
        fields = _fields_of(self.model) if self.model else ()
        return next((field.kind for field in fields if name in (field.key, field.name)), None)


# By the identity of a kind, which is kept with it: types are made once, and slow to compare.
_types: dict[int, tuple[Any, _Type]] = {}


def _type_of(kind: Any) -> _Type:
    known = _types.get(id(kind))
    if known is None:
        known = _types[id(kind)] = (kind, _taken_apart(kind))
    return known[1]


def _taken_apart(kind: Any) -> _Type:
    base, marks = _split(kind)
    own = _Type(
        next((mark for mark in marks if isinstance(mark, Number | Counting)), None),
        LOCAL in marks,
    )
    picked = next((mark for mark in marks if isinstance(mark, Discriminator)), None)
    origin, arguments = get_origin(base), get_args(base)
    if picked is not None and callable(picked.discriminator):
        is_union = origin in (Union, UnionType)
        return own._replace(pick=picked.discriminator, members=arguments if is_union else (base,))
    if origin in (Union, UnionType):
        return own._replace(members=tuple(each for each in arguments if each is not type(None)))
    if origin is tuple:
        are_many = arguments[-1] is Ellipsis
        return own._replace(items=arguments[:1] if are_many else arguments, are_many=are_many)
    if origin is dict:
        return own._replace(values=arguments[1])
    if isinstance(base, type) and issubclass(base, BaseModel):
        return own._replace(model=base)
    return own._replace(are_many=True)


def _split(kind: Any) -> tuple[Any, tuple[Any, ...]]:
    if get_origin(kind) is Annotated:
        return kind.__origin__, kind.__metadata__
    return kind, ()
