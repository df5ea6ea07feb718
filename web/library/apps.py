"""The files of people, as an application of Django."""

from django.apps import AppConfig
from django.conf import settings

from balletto.picture.pixels.bitmap_store import BITMAPS


class LibraryConfig(AppConfig):
    """Says how much of what files show a process keeps."""

    name = "web.library"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        BITMAPS.limit(settings.PICTURES_KEPT_BYTES)
