"""Frames for the page: drawn by the renderer, kept by the content of the scene."""

import threading
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np
from django.core.cache import cache
from django.http import Http404, HttpResponse

from balletto.picture.frame import Picture
from balletto.picture.incremental_renderer import NOTHING, IncrementalRenderer
from balletto.picture.stills import jpeg, png
from balletto.scene.document import Scene
from web.library.store import opened
from web.pictures.looks import address_at

# Frames fit into a box of one of these widths and 9/16 of it.
BOXES = (480, 960, 1440, 1920)
KEEP_FRAMES_S = 60 * 60
KEEP_PREVIEWS_S = 10 * 60
_MOST_PICTURES = 32
_BOUNDARY = "balletto-frame-8b0a7c61"  # between parts: long enough to be in none of them

_pictures: OrderedDict[str, Picture] = OrderedDict()
_lock = threading.Lock()


def picture(key: str, find_scene: Callable[[], Scene]) -> Picture:
    """The scene of that key made ready to draw; this process keeps the last few.

    The key says whose it is, so that knowing a digest gives nobody another person's scene, and all
    that it depends on; `find_scene` is asked when it is not at hand.
    """
    with _lock:
        if key in _pictures:
            _pictures.move_to_end(key)
            return _pictures[key]
    made = Picture(find_scene())
    with _lock:
        _pictures[key] = made
        while len(_pictures) > _MOST_PICTURES:
            _pictures.popitem(last=False)
    return made


def keep_preview(scene_id: int, digest: str, document: dict[str, Any]) -> None:
    """Keeps a document that is only looked at, while a value is being scrubbed."""
    cache.set(f"preview:{scene_id}:{digest}", document, KEEP_PREVIEWS_S)


def document_of(scene: Any, address: str) -> dict[str, Any]:
    """The document of a scene at an address, from its revisions or previews; or not found."""
    digest = address.partition("-")[0]
    document = cache.get(f"preview:{scene.pk}:{digest}")
    if document is None:
        revision = scene.revisions.filter(digest=digest).only("packed", "basis", "scene").first()
        if revision is None:
            raise Http404
        document = revision.document
    return document


def scene_of(scene: Any, address: str) -> Scene:
    """The same, ready to be asked."""
    return opened(document_of(scene, address), scene.project.owner_id)


def address_now(scene: Any, address: str) -> str:
    """What an address of a scene is now: its files may have gone or come since it was told."""
    return address_at(scene, address.partition("-")[0], lambda: document_of(scene, address))


def document_at(scene: Any, address: str) -> Scene:
    """The scene at an address, from the pictures that are kept if it is there."""
    key = f"{scene.pk}:{address_now(scene, address)}"
    return picture(key, lambda: scene_of(scene, address)).scene


def fitted(size: tuple[int, int], box: int) -> tuple[int, int]:
    """The size of a picture that fits into the box, never larger than it is."""
    width, height = size
    scale = min(1.0, box / width, box * 9 / 16 / height)
    return max(1, round(width * scale)), max(1, round(height * scale))


@dataclass(frozen=True)
class Frames:
    """The frames of a scene, fitted into a box.

    key: whose they are and all that they depend on; find_scene: asked when it is not at hand;
    is_lasting: whether what was asked for names all that, so that the answer holds for good
    """

    key: str
    find_scene: Callable[[], Scene]
    box: int
    is_lasting: bool = True

    def response(self, number: int) -> HttpResponse:
        """A frame as a JPEG, or a PNG where the scene is transparent."""
        kind, data = self.found([number])[number]
        return self._kept(HttpResponse(data, content_type=kind))

    def run_response(self, numbers: list[int]) -> HttpResponse:
        """Several frames in one answer, which saves what each alone costs: a form whose fields are
        called by the numbers of the frames."""
        found = self.found(numbers)
        return self._kept(as_form({str(number): part for number, part in found.items()}))

    def _kept(self, response: HttpResponse) -> HttpResponse:
        return unchanging(response) if self.is_lasting else momentary(response)

    def found(self, numbers: list[int]) -> dict[int, tuple[str, bytes]]:
        """Kind and bytes of frames, those that are kept or newly drawn; 404 if one is not there."""
        box = next((width for width in BOXES if width >= self.box), BOXES[-1])
        keys = {n: f"frame:{self.key}:{n}:{box}" for n in numbers}
        kept = cache.get_many(keys.values())
        drawn = self._drawn([n for n, key in keys.items() if key not in kept], box)
        cache.set_many({keys[n]: frame for n, frame in drawn.items()}, KEEP_FRAMES_S)
        return {n: drawn[n] if n in drawn else kept[key] for n, key in keys.items()}

    def _drawn(self, numbers: list[int], box: int) -> dict[int, tuple[str, bytes]]:
        if not numbers:
            return {}
        ready = picture(self.key, self.find_scene)
        if not all(0 <= number < ready.scene.length for number in numbers):
            raise Http404
        renderer = IncrementalRenderer(ready, fitted(ready.scene.size, box))
        drawn: dict[int, tuple[str, bytes]] = {}
        for number in numbers:
            if renderer.draw(number) != NOTHING or not drawn:
                last = _encoded(renderer.pixels, ready.scene)
            drawn[number] = last
        return drawn


def _encoded(pixels: np.ndarray, scene: Scene) -> tuple[str, bytes]:
    """Kind and bytes of a frame."""
    if scene.background.kind != "none":
        return "image/jpeg", jpeg(pixels)
    return "image/png", png(pixels, 1)


def frames_at(scene: Any, address: str, box: int) -> Frames:
    """The frames of a scene at an address."""
    now = address_now(scene, address)
    return Frames(f"{scene.pk}:{now}", lambda: scene_of(scene, address), box, now == address)


def as_form(parts: dict[str, tuple[str, bytes]]) -> HttpResponse:
    """Kinds and bytes by their names, in one answer: a form (RFC 7578) with a field for each."""
    body = b""
    for name, (kind, data) in parts.items():
        head = f'Content-Disposition: form-data; name="{name}"; filename="{name}"'
        body += f"--{_BOUNDARY}\r\n{head}\r\nContent-Type: {kind}\r\n\r\n".encode()
        body += data + b"\r\n"
    body += f"--{_BOUNDARY}--\r\n".encode()
    return HttpResponse(body, content_type=f"multipart/form-data; boundary={_BOUNDARY}")


def momentary(response: HttpResponse) -> HttpResponse:
    """An answer that may be another the next time."""
    response["Cache-Control"] = "no-store"
    return response


def unchanging(response: HttpResponse) -> HttpResponse:
    """An answer to an address that will always be answered so."""
    response["Cache-Control"] = "private, max-age=31536000, immutable"
    return response
