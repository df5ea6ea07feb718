"""Where files of people are kept: each person's in a folder of their own, which the scenes read."""

import hashlib
import shutil
import tempfile
from collections.abc import Iterable
from pathlib import Path
from typing import Any

from django.conf import settings
from django.contrib.auth.models import AbstractBaseUser
from django.core.files.uploadedfile import UploadedFile
from django.db.models import Sum
from django.template.defaultfilters import filesizeformat
from django.utils.text import slugify

from balletto.picture.pixels.inspection import inspected
from balletto.picture.pixels.media import MediaError
from balletto.scene import files
from balletto.scene.document import Scene
from web.serving import written_whole

from .models import FontFile, MediaFile

_MARK = 12  # letters of the content's digest in a name


def folder_of(owner_id: int) -> Path:
    """Where the files of a person lie."""
    return Path(settings.MEDIA_ROOT) / "files" / str(owner_id)


def opened(document: dict[str, Any], owner_id: int) -> Scene:
    """The scene of a document of a person, with their files at hand."""
    return files.from_data(document).in_folder(folder_of(owner_id))


def keep(owner: AbstractBaseUser, upload: UploadedFile) -> MediaFile:
    """Keeps a file that was sent; the same content is kept once. MediaError, with what would do, if
    it is none that scenes can show."""
    if upload.size > settings.MEDIA_FILE_MAX_BYTES:
        most, has = filesizeformat(settings.MEDIA_FILE_MAX_BYTES), filesizeformat(upload.size)
        raise MediaError(f"{upload.name} has {has}; a file may have {most}.")
    with tempfile.TemporaryDirectory() as folder:
        came = Path(folder) / f"came{Path(upload.name).suffix.lower()}"
        came.write_bytes(b"") if upload.size == 0 else write_to(came, upload.chunks())
        return keep_path(owner, came, Path(upload.name).name)


def keep_path(owner: AbstractBaseUser, path: Path, title: str, name: str = "") -> MediaFile:
    """Keeps a copy of a file, under a name that scenes know it by or one of its own."""
    try:
        found = inspected(path)
    except MediaError as error:
        raise MediaError(str(error).replace(path.name, title)) from None
    name = name or _name(path, title)
    place = folder_of(owner.pk) / name
    if not place.exists():
        _check_room(owner, path, title)
        with written_whole(place) as coming:
            shutil.copyfile(path, coming)
    width, height = (round(side) for side in found.size)
    facts = {"title": title[:200], "kind": found.kind, "bytes": place.stat().st_size}
    sides = {"width": width, "height": height, "seconds": found.seconds}
    kept, _ = MediaFile.objects.get_or_create(owner=owner, name=name, defaults={**facts, **sides})
    return kept


def bytes_of(owner: AbstractBaseUser) -> int:
    """How many bytes the files and fonts of a person have."""
    return sum(
        kind.objects.filter(owner=owner).aggregate(all=Sum("bytes", default=0))["all"]
        for kind in (MediaFile, FontFile)
    )


def _check_room(owner: AbstractBaseUser, path: Path, title: str) -> None:
    """MediaError if a person's files would have more bytes than they may."""
    own, most, size = bytes_of(owner), settings.MEDIA_PERSON_MAX_BYTES, path.stat().st_size
    if own + size > most:
        raise MediaError(
            f"{title} has {filesizeformat(size)}; of {filesizeformat(most)} for all your files "
            f"{filesizeformat(max(most - own, 0))} are left: remove some under Files."
        )


def _name(path: Path, title: str) -> str:
    with path.open("rb") as file:
        mark = hashlib.file_digest(file, "sha256").hexdigest()[:_MARK]
    return f"{slugify(Path(title).stem)[:80] or 'file'}-{mark}{path.suffix.lower()}"


def write_to(path: Path, chunks: Iterable[bytes]) -> None:
    """Writes a file in parts."""
    with path.open("wb") as file:
        for chunk in chunks:
            file.write(chunk)


def remove(kept: MediaFile) -> None:
    """Removes a file; scenes that show it say so."""
    (folder_of(kept.owner_id) / kept.name).unlink(missing_ok=True)
    kept.delete()
