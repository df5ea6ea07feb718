"""Films for pages: a scene in some small frames, one below the other."""

from collections.abc import Callable

from django.core.cache import cache
from django.http import HttpResponse

from balletto.picture.frame import Picture
from balletto.picture.preset_preview import film_of
from balletto.picture.stills import jpeg

from . import frames


def film_response(
    key: str, ready: Callable[[], Picture], count: int, is_kept: bool
) -> HttpResponse:
    """A film of a picture as `count` frames, drawn if there is none of that key."""
    key = f"film-of-{count}:{key}"
    data = cache.get(key)
    if data is None:
        data = jpeg(film_of(ready(), count))
        cache.set(key, data, frames.KEEP_FRAMES_S)
    kept = frames.unchanging if is_kept else frames.momentary
    return kept(HttpResponse(data, content_type="image/jpeg"))
