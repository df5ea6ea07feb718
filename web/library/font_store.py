"""Where fonts of people are kept: each person's in a folder of their own, beside an index that
tells scenes which families there are."""

import hashlib
import shutil
import tempfile
from collections.abc import Collection, Iterator, Mapping
from contextlib import ExitStack, contextmanager
from dataclasses import asdict
from pathlib import Path
from typing import NamedTuple

from django.conf import settings
from django.contrib.auth import get_user_model
from django.contrib.auth.models import AbstractBaseUser
from django.core.files.uploadedfile import UploadedFile
from django.db import transaction
from django.template.defaultfilters import filesizeformat

from balletto.lettering.families import FAMILIES
from balletto.lettering.font_files import SUFFIXES, FontAbout, FontFileError
from balletto.lettering.font_inspection import inspected_fonts
from balletto.lettering.own_fonts import INDEX, entry_of, index_of
from balletto.scene.document import FONTS_FOLDER
from web.serving import written_whole

from .models import FontFile
from .store import bytes_of, folder_of, write_to

_MARK = 24  # letters of the content's digest, which the file is called by
_OWN = " (own)"  # what tells a family from the shipped one of that name


def fonts_folder_of(owner_id: int) -> Path:
    """Where the fonts of a person lie."""
    return folder_of(owner_id) / FONTS_FOLDER


def keep_fonts(owner: AbstractBaseUser, upload: UploadedFile) -> list[FontFile]:
    """Keeps the fonts of a file that was sent; the same font is kept once. FontFileError, with what
    would do, if it cannot be used."""
    suffix = Path(upload.name).suffix.lower()
    if suffix not in SUFFIXES:
        told = ", ".join(each[1:].upper() for each in SUFFIXES)
        raise FontFileError(f"{upload.name} is no font file; fonts are {told}.")
    most = settings.FONT_FILE_MAX_BYTES
    if upload.size > most:
        told = f"{upload.name} has {filesizeformat(upload.size)}"
        raise FontFileError(f"{told}; a font may have {filesizeformat(most)}.")
    with tempfile.TemporaryDirectory() as folder:
        came = Path(folder) / f"came{suffix}"
        write_to(came, upload.chunks())
        return _keep_all(owner, came, Path(upload.name).name)


def _keep_all(owner: AbstractBaseUser, path: Path, title: str) -> list[FontFile]:
    """Keeps the fonts of a file, which messages call `title`."""
    with _found_in(path, title) as found, _alone(owner):
        for font in found:
            if _is_another(owner, font, own_name(font.about.family)):
                raise FontFileError(
                    f"{title}: {font.about.family} {font.about.style} is here already, with other "
                    "content. Remove that first, under Fonts."
                )
        return [_keep(owner, font, own_name(font.about.family)) for font in found]


def keep_families(
    owner: AbstractBaseUser, came: Mapping[Path, str], wanted: Collection[str]
) -> dict[str, str]:
    """Keeps the fonts of files that come with a scene, as far as they are of families that it
    wants. `came` tells what the scene calls the family of a file, "" if that is what the file does.
    Where a person has others of that name these get another: gives the names by those that the
    scene knows."""
    names: dict[str, str] = {}
    with ExitStack() as stack:
        families: dict[str, list[_Found]] = {}
        for path, called in came.items():
            for font in stack.enter_context(_found_in(path, path.name)):
                families.setdefault(called or font.about.family, []).append(font)
        stack.enter_context(_alone(owner))
        for called in families.keys() & wanted:
            fonts, name, number = families[called], own_name(called), 1
            while any(_is_another(owner, font, name) for font in fonts):
                number += 1
                name = f"{fonts[0].about.family} ({number})"
            # The same may be here under another name already.
            kept = [_keep(owner, font, name) for font in fonts]
            names[called] = kept[0].family
    return names


class _Found(NamedTuple):
    """A font of a file: written plain, what it says of itself, the name that it is kept by."""

    plain: Path
    about: FontAbout
    name: str
    title: str


@contextmanager
def _found_in(path: Path, title: str) -> Iterator[list[_Found]]:
    """The fonts of a file, which messages call `title`."""
    with tempfile.TemporaryDirectory() as folder:
        try:
            found = inspected_fonts(path, Path(folder))
        except FontFileError as error:
            raise FontFileError(str(error).replace(path.name, title)) from None
        yield [_Found(plain, about, _name(plain), title) for plain, about in found]


def _name(plain: Path) -> str:
    return f"{hashlib.sha256(plain.read_bytes()).hexdigest()[:_MARK]}{plain.suffix}"


@contextmanager
def _alone(owner: AbstractBaseUser) -> Iterator[None]:
    """Has nobody else change a person's fonts meanwhile; writes down which there are then."""
    with transaction.atomic():
        get_user_model().objects.select_for_update().get(pk=owner.pk)
        yield
        write_index(owner.pk)


def own_name(family: str) -> str:
    """What a family of a person's own is called: not as one that ships."""
    return family + (_OWN if family in FAMILIES else "")


def _is_another(owner: AbstractBaseUser, font: _Found, family: str) -> bool:
    """Whether a person has another font of that family, style and weight."""
    about = font.about
    same = FontFile.objects.filter(
        owner=owner, family=family, weight=about.weight, width=about.width,
        is_italic=about.is_italic, style=about.style,
    )  # fmt: skip
    return same.exclude(name=font.name).exists()


def _keep(owner: AbstractBaseUser, font: _Found, family: str) -> FontFile:
    plain, about, name, title = font
    known = FontFile.objects.filter(owner=owner, name=name).first()
    if known is not None:
        return known
    size = plain.stat().st_size
    left = settings.MEDIA_PERSON_MAX_BYTES - bytes_of(owner)
    if size > left:
        raise FontFileError(
            f"{title} has {filesizeformat(size)}; {filesizeformat(max(left, 0))} are left for all "
            "your files: remove some under Files or Fonts."
        )
    with written_whole(fonts_folder_of(owner.pk) / name) as coming:
        shutil.copyfile(plain, coming)
    return FontFile.objects.create(
        owner=owner, name=name, family=family, style=about.style, weight=about.weight,
        width=about.width, is_italic=about.is_italic, kind=about.kind,
        axes=[asdict(axis) for axis in about.axes], features=about.features,
        scripts=about.scripts, glyphs=about.glyphs, licence=about.licence,
        embedding=about.embedding, is_colored=about.is_colored, bytes=size,
    )  # fmt: skip


def write_index(owner_id: int) -> None:
    """Writes down which fonts a person has, for scenes to read."""
    fonts = [
        entry_of(font.name, font.family, font) for font in FontFile.objects.filter(owner=owner_id)
    ]
    with written_whole(fonts_folder_of(owner_id) / INDEX) as coming:
        coming.write_text(index_of(fonts))


def remove_family(owner: AbstractBaseUser, family: str) -> int:
    """Removes a family; gives how many files it had. Scenes that name it say that it is missing."""
    with _alone(owner):
        fonts = list(FontFile.objects.filter(owner=owner, family=family))
        FontFile.objects.filter(owner=owner, family=family).delete()
    for font in fonts:
        (fonts_folder_of(owner.pk) / font.name).unlink(missing_ok=True)
    return len(fonts)
