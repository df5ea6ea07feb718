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

from balletto.picture.media import MediaError
from balletto.scene import files
from balletto.scene.document import Scene
from balletto.scene.errors import SceneError
from balletto.scene.media import NAMING
from balletto.stock import STOCK

from .store import keep_path

_SUFFIX = ".json"
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
    return made.getvalue()


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
    return with_files(files.to_data(scene), kept)


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


def with_files(document: Any, names: dict[str, str]) -> Any:
    """Plain data of a scene with its files, and those of scenes in it, called otherwise."""
    if isinstance(document, list):
        return [with_files(item, names) for item in document]
    if not isinstance(document, dict):
        return document
    return {
        key: names.get(value, value) if key in NAMING and isinstance(value, str)
        else with_files(value, names)
        for key, value in document.items()
    }  # fmt: skip
