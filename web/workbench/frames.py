"""Frames for the page: drawn by the renderer, kept by the content of the scene."""

import threading
from collections import OrderedDict
from collections.abc import Callable
from typing import Any

from django.core.cache import cache
from django.http import Http404, HttpResponse

from balletto.picture.frame import Picture, draw_frame
from balletto.picture.stills import jpeg, png
from balletto.scene import files
from balletto.scene.document import Scene

# Frames fit into a box of one of these widths and 9/16 of it.
BOXES = (480, 960, 1440, 1920)
KEEP_FRAMES_S = 60 * 60
KEEP_PREVIEWS_S = 10 * 60
_MOST_PICTURES = 32

_pictures: OrderedDict[str, Picture] = OrderedDict()
_lock = threading.Lock()


def picture(holder: str, digest: str, find_scene: Callable[[], Scene]) -> Picture:
    """The scene of that digest made ready to draw; this process keeps the last few.

    `holder` names whose it is, so that knowing a digest gives nobody another person's scene;
    `find_scene` is asked when it is not at hand.
    """
    key = f"{holder}:{digest}"
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


def document_of(scene: Any, digest: str) -> dict[str, Any]:
    """The document of that digest of a scene, from its revisions or previews; or not found."""
    document = cache.get(f"preview:{scene.pk}:{digest}")
    if document is None:
        revision = scene.revisions.filter(digest=digest).only("document").first()
        if revision is None:
            raise Http404
        document = revision.document
    return document


def scene_of(scene: Any, digest: str) -> Scene:
    """The same, ready to be asked."""
    return files.from_data(document_of(scene, digest))


def fitted(size: tuple[int, int], box: int) -> tuple[int, int]:
    """The size of a picture that fits into the box, never larger than it is."""
    width, height = size
    scale = min(1.0, box / width, box * 9 / 16 / height)
    return max(1, round(width * scale)), max(1, round(height * scale))


def frame_response(
    holder: str, digest: str, find_scene: Callable[[], Scene], frame: int, box: int
) -> HttpResponse:
    """A frame as a JPEG, or a PNG where the scene is transparent. It never changes."""
    box = next((width for width in BOXES if width >= box), BOXES[-1])
    key = f"frame:{holder}:{digest}:{frame}:{box}"
    kept = cache.get(key)
    if kept is None:
        ready = picture(holder, digest, find_scene)
        if not 0 <= frame < ready.scene.length:
            raise Http404
        pixels = draw_frame(ready, frame, fitted(ready.scene.size, box))
        opaque = ready.scene.background.kind != "none"
        kept = ("image/jpeg", jpeg(pixels)) if opaque else ("image/png", png(pixels, 1))
        cache.set(key, kept, KEEP_FRAMES_S)
    response = HttpResponse(kept[1], content_type=kept[0])
    response["Cache-Control"] = "private, max-age=31536000, immutable"
    return response
