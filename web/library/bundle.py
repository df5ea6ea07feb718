"""Bundles: a scene file with the files that it shows, in one ZIP."""

import io
import shutil
import tempfile
import zipfile
import zlib
from collections.abc import Collection
from pathlib import Path
from typing import Any

from django.conf import settings
from django.contrib.auth.models import AbstractBaseUser
from django.core.files.uploadedfile import UploadedFile

from balletto.lettering.font_files import SUFFIXES, FontFileError
from balletto.lettering.own_fonts import families_of, fonts_named
from balletto.picture.media import MediaError
from balletto.scene import files
from balletto.scene.document import Scene
from balletto.scene.errors import SceneError
from balletto.scene.media import NAMING
from balletto.stock import STOCK

from .font_store import keep_family
from .store import keep_path

_SUFFIX = ".json"
_FONTS, _MOST_FONTS = "fonts/", 100
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
    """Adds the fonts that the scene names and that do not ship; and says which may not travel."""
    own, stay = families_of(scene).own, []
    for family in sorted({name for _, name in fonts_named(scene)} & own.keys()):
        for cut in own[family].cuts:
            if cut.may_travel:
                for path in cut.files:
                    archive.write(path, f"{_FONTS}{path.name}")
            else:
                stay.append(f"{family} {cut.name}".strip())
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
    fonts = _keep_fonts(archive, members, owner)
    return with_names(with_names(files.to_data(scene), kept, NAMING), fonts, ("font",))


def _keep_fonts(
    archive: zipfile.ZipFile, members: list[zipfile.ZipInfo], owner: AbstractBaseUser
) -> dict[str, str]:
    """Keeps the fonts of a ZIP; what their families are called here, by what the scene calls
    them."""
    with tempfile.TemporaryDirectory() as folder:
        paths = []
        for member in members:
            name = Path(member.filename).name
            is_font = member.filename == f"{_FONTS}{name}" and name.lower().endswith(SUFFIXES)
            if not is_font or member.file_size > settings.FONT_FILE_MAX_BYTES:
                continue
            paths.append(Path(folder) / name)
            with paths[-1].open("wb") as file, archive.open(member) as content:
                shutil.copyfileobj(content, file)
            if len(paths) == _MOST_FONTS:
                break
        try:
            return keep_family(owner, paths) if paths else {}
        except FontFileError as error:
            raise SceneError.at("", str(error)) from None


def _keep(archive: zipfile.ZipFile, member: zipfile.ZipInfo, owner: AbstractBaseUser) -> str:
    """Keeps a file of a ZIP; the name that scenes know it by."""
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / f"came{Path(member.filename).suffix.lower()}"
        with path.open("wb") as file, archive.open(member) as content:
            shutil.copyfileobj(content, file)
        try:
            return keep_path(owner, path, member.filename).name
        except MediaError as error:
            raise SceneError.at("", str(error)) from None


def with_names(document: Any, names: dict[str, str], keys: Collection[str]) -> Any:
    """Plain data of a scene with its files, or fonts, and those of scenes in it, called otherwise:
    those under the names `keys`."""
    if isinstance(document, list):
        return [with_names(item, names, keys) for item in document]
    if not isinstance(document, dict):
        return document
    return {
        key: names.get(value, value) if key in keys and isinstance(value, str)
        else with_names(value, names, keys)
        for key, value in document.items()
    }  # fmt: skip
