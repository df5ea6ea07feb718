"""Where fonts of people are kept: each person's in a folder of their own, beside an index that
tells scenes which families there are."""

import hashlib
import json
import shutil
import tempfile
from dataclasses import asdict
from pathlib import Path

from django.conf import settings
from django.contrib.auth import get_user_model
from django.contrib.auth.models import AbstractBaseUser
from django.core.files.uploadedfile import UploadedFile
from django.db import transaction
from django.template.defaultfilters import filesizeformat

from balletto.lettering.families import FAMILIES
from balletto.lettering.font_files import SUFFIXES, FontAbout, FontFileError
from balletto.lettering.font_inspection import inspected_fonts
from balletto.lettering.own_fonts import INDEX
from web.serving import written_whole

from .models import FontFile
from .store import bytes_of, folder_of, write_to

_MARK = 24  # letters of the content's digest, which the file is called by
_OWN = " (own)"  # what tells a family from the shipped one of that name


def fonts_folder_of(owner_id: int) -> Path:
    """Where the fonts of a person lie."""
    return folder_of(owner_id) / "fonts"


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
        return keep_font_file(owner, came, Path(upload.name).name)


def keep_font_file(owner: AbstractBaseUser, path: Path, title: str) -> list[FontFile]:
    """Keeps the fonts of a file, which messages call `title`."""
    with tempfile.TemporaryDirectory() as folder:
        try:
            found = inspected_fonts(path, Path(folder))
        except FontFileError as error:
            raise FontFileError(str(error).replace(path.name, title)) from None
        with transaction.atomic():
            # One at a time: the index tells all that there are.
            get_user_model().objects.select_for_update().get(pk=owner.pk)
            kept = [_keep(owner, plain, about, title) for plain, about in found]
            write_index(owner.pk)
        return kept


def _keep(owner: AbstractBaseUser, plain: Path, about: FontAbout, title: str) -> FontFile:
    mark = hashlib.sha256(plain.read_bytes()).hexdigest()[:_MARK]
    name = f"{mark}{plain.suffix}"
    known = FontFile.objects.filter(owner=owner, name=name).first()
    if known is not None:
        return known
    family = about.family + (_OWN if about.family in FAMILIES else "")
    same = FontFile.objects.filter(
        owner=owner, family=family, weight=about.weight, width=about.width,
        is_italic=about.is_italic, style=about.style,
    )  # fmt: skip
    if same.exists():
        raise FontFileError(
            f"{title}: {family} {about.style} is here already, with other content. Remove that "
            "first, under Fonts."
        )
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
        {
            "file": font.name, "family": font.family, "style": font.style, "weight": font.weight,
            "width": font.width, "italic": font.is_italic, "kind": font.kind,
        }
        for font in FontFile.objects.filter(owner=owner_id)
    ]  # fmt: skip
    with written_whole(fonts_folder_of(owner_id) / INDEX) as coming:
        coming.write_text(json.dumps({"fonts": fonts}, ensure_ascii=False))


def remove_family(owner: AbstractBaseUser, family: str) -> int:
    """Removes a family; gives how many files it had. Scenes that name it say that it is missing."""
    with transaction.atomic():
        get_user_model().objects.select_for_update().get(pk=owner.pk)
        fonts = list(FontFile.objects.filter(owner=owner, family=family))
        FontFile.objects.filter(owner=owner, family=family).delete()
        write_index(owner.pk)
    for font in fonts:
        (fonts_folder_of(owner.pk) / font.name).unlink(missing_ok=True)
    return len(fonts)
