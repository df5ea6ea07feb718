"""The files that scenes can show or sound: a person's own, and those that ship."""

from balletto.intents.situation import ShelfFile
from balletto.stock import STOCK, StockFile

from .models import MediaFile
from .store import folder_of


def files_of(owner_id: int, most: int) -> list[ShelfFile]:
    """The newest files of a person, so many at most, and all that ship."""
    own = MediaFile.objects.filter(owner_id=owner_id)[:most]
    return [*map(_own, own), *map(_shipped, STOCK.values())]


def file_named(owner_id: int, name: str) -> ShelfFile | None:
    """The file that scenes call so; None if there is none."""
    if name in STOCK:
        return _shipped(STOCK[name])
    own = MediaFile.objects.filter(owner_id=owner_id, name=name).first()
    return own and _own(own)


def file_called(owner_id: int, title: str, kind: str) -> ShelfFile | None:
    """The file of a kind that people call so, with its ending or without; their own come first."""
    own = MediaFile.objects.filter(owner_id=owner_id, kind=kind)
    found = (
        own.filter(title__iexact=title).first()
        or own.filter(title__istartswith=f"{title}.").first()
    )
    if found is not None:
        return _own(found)
    ship = (
        each for each in STOCK.values() if (each.title.lower(), each.kind) == (title.lower(), kind)
    )
    return next(map(_shipped, ship), None)


def _own(file: MediaFile) -> ShelfFile:
    path = folder_of(file.owner_id) / file.name
    return ShelfFile(file.name, file.title, file.kind, file.width, file.height, path=path)


def _shipped(file: StockFile) -> ShelfFile:
    return ShelfFile(file.name, file.title, file.kind, *file.size, ships=True)
