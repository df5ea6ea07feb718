"""Bundles: a scene file with the files that it shows, in one ZIP."""

import io
import shutil
import tempfile
import zipfile
import zlib
from pathlib import Path
from typing import Any

from django.conf import settings
from django.contrib.auth.models import AbstractBaseUser
from django.core.files.uploadedfile import UploadedFile

from balletto.lettering.families import FAMILIES
from balletto.lettering.font_files import SUFFIXES, FontFileError
from balletto.lettering.own_fonts import (
    INDEX,
    entry_of,
    families_of,
    fonts_named,
    index_of,
)
from balletto.picture.pixels.media import MediaError
from balletto.scene import files
from balletto.scene.document import FONTS_FOLDER, Scene
from balletto.scene.errors import SceneError
from balletto.scene.media import NAMING
from balletto.scene.naming import FONTS, renamed
from balletto.stock import STOCK

from .font_store import keep_families
from .store import keep_path

_SUFFIX = ".json"
_FONTS, _MOST_FONTS = f"{FONTS_FOLDER}/", 100
_MOST_BYTES = 2 * 1024**3  # unpacked


# RuntimeError is what an encrypted one is.
_BROKEN = (zipfile.BadZipFile, zlib.error, EOFError, OSError, NotImplementedError, RuntimeError)


def bundle(scene: Scene, text: str, name: str) -> bytes:
    """A scene file and the files that it shows as a ZIP; what is not there is left out."""
    made = io.BytesIO()
    with zipfile.ZipFile(made, "w", zipfile.ZIP_STORED) as archive:
        archive.writestr(f"{name}.balletto.json", text)
        for file in sorted({file for _, file in scene.files()} - STOCK.keys()):
            if path := scene.path_of(file):
                archive.write(path, file)
        _add_fonts(archive, scene)
    return made.getvalue()


def _add_fonts(archive: zipfile.ZipFile, scene: Scene) -> None:
    """Adds the fonts that the scene names and that do not ship, with an index of how it calls them;
    and says which may not travel."""
    own, entries, stay = families_of(scene).own, [], []
    for family in sorted({name for _, name in fonts_named(scene)} & own.keys()):
        for cut in own[family].cuts:
            if cut.may_travel:
                entries += [entry_of(path.name, family, cut) for path in cut.files]
                for path in cut.files:
                    archive.write(path, f"{_FONTS}{path.name}")
            else:
                stay.append(f"{family} {cut.style}".strip())
    if entries:
        archive.writestr(f"{_FONTS}{INDEX}", index_of(entries))
    if stay:
        told = "Their makers do not let these fonts travel with a scene:\n" + "\n".join(stay)
        archive.writestr(f"{_FONTS}not included.txt", told + "\n")


def document_in(upload: UploadedFile, owner: AbstractBaseUser) -> dict[str, Any]:
    """The document of a scene file, or of a bundle, whose files are kept for the person. SceneError
    with every fault if it is not usable."""
    if not zipfile.is_zipfile(upload):
        upload.seek(0)
        return files.to_data(files.parse(upload.read()))
    try:
        with zipfile.ZipFile(upload) as archive:
            return _unpacked(archive, owner)
    except _BROKEN as error:
        raise SceneError.at("", f"the ZIP cannot be read: {error}") from None


def _unpacked(archive: zipfile.ZipFile, owner: AbstractBaseUser) -> dict[str, Any]:
    members = [member for member in archive.infolist() if not member.is_dir()]
    scenes = [member for member in members if member.filename.endswith(_SUFFIX)]
    scenes = [member for member in scenes if not member.filename.startswith(_FONTS)]
    if len(scenes) != 1:
        told = f"one scene file (.balletto.json) is needed in the ZIP, it has {len(scenes)}"
        raise SceneError.at("", told)
    if sum(member.file_size for member in members) > _MOST_BYTES:
        raise SceneError.at("", "the ZIP is too large: it unpacks to more than 2 GB")
    if scenes[0].file_size > settings.SCENE_FILE_MAX_BYTES:
        most = settings.SCENE_FILE_MAX_BYTES // 1024**2
        raise SceneError.at("", f"the scene in the ZIP is too large: it may have {most} MB")
    scene = files.parse(archive.read(scenes[0]))  # not more than it says that it has
    shown = {file for _, file in scene.files()} - STOCK.keys()  # what ships is there already
    kept = {
        member.filename: _keep(archive, member, owner)
        for member in members
        if member.filename in shown
    }
    fonts = _keep_fonts(archive, scene, owner)
    return renamed(renamed(files.to_data(scene), kept, NAMING), fonts, FONTS)


def _keep_fonts(archive: zipfile.ZipFile, scene: Scene, owner: AbstractBaseUser) -> dict[str, str]:
    """Keeps the fonts of a ZIP that its scene names; what their families are called here, by what
    the scene calls them."""
    wanted = {name for _, name in fonts_named(scene)} - FAMILIES.keys()
    called = _called(archive) if wanted else {}
    fonts = {
        member.filename: member
        for member in archive.infolist()
        if _is_font(member) and called.get(_name_of(member), "") in {"", *wanted}
    }
    with tempfile.TemporaryDirectory() as folder:
        came = {}
        for member in [*fonts.values()][: _MOST_FONTS if wanted else 0]:
            path = Path(folder) / _name_of(member)
            _write(archive, member, path)
            came[path] = called.get(path.name, "")
        try:
            return keep_families(owner, came, wanted)
        except FontFileError as error:
            raise SceneError.at("", str(error)) from None


def _called(archive: zipfile.ZipFile) -> dict[str, str]:
    """What the scene of a ZIP calls the families of its font files, as far as that is told."""
    try:
        index = archive.getinfo(f"{_FONTS}{INDEX}")
        if index.file_size > settings.SCENE_FILE_MAX_BYTES:
            return {}
        told = files.json_of(archive.read(index).decode())["fonts"]
        return {str(entry["file"]): str(entry["family"]) for entry in told}
    except (LookupError, ValueError, TypeError):
        return {}


def _name_of(member: zipfile.ZipInfo) -> str:
    return member.filename.removeprefix(_FONTS)


def _is_font(member: zipfile.ZipInfo) -> bool:
    """Whether a file of a ZIP is a font, no larger than these may be."""
    name = _name_of(member)
    is_there = member.filename.startswith(_FONTS) and "/" not in name and "\\" not in name
    is_small = member.file_size <= settings.FONT_FILE_MAX_BYTES
    return is_there and is_small and name.lower().endswith(SUFFIXES)


def _write(archive: zipfile.ZipFile, member: zipfile.ZipInfo, path: Path) -> None:
    with path.open("wb") as file, archive.open(member) as content:
        shutil.copyfileobj(content, file)


def _keep(archive: zipfile.ZipFile, member: zipfile.ZipInfo, owner: AbstractBaseUser) -> str:
    """Keeps a file of a ZIP; the name that scenes know it by."""
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / f"came{Path(member.filename).suffix.lower()}"
        _write(archive, member, path)
        try:
            return keep_path(owner, path, member.filename).name
        except MediaError as error:
            raise SceneError.at("", str(error)) from None
