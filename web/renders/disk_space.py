"""Room on the disk: how much a clip may need, whether it is there, and old renders that go."""

import shutil
from datetime import timedelta
from pathlib import Path

from django.conf import settings
from django.contrib.auth.models import AbstractBaseUser
from django.template.defaultfilters import filesizeformat
from django.utils import timezone

from balletto.clip.errors import ClipError
from balletto.clip.export_settings import ExportSettings
from balletto.clip.formats import FORMATS
from balletto.clip.pieces import CollectedPieces

from .models import UNFINISHED, Render, Retention

# Bytes a pixel of lossless pieces, which are needed while the file is put together.
_LOSSLESS = 0.8


def rough_bytes(export: ExportSettings, count: int) -> float:
    """Roughly how large a clip of so many frames becomes, to see whether there is room: of what it
    is like `balletto.clip.likely` tells more."""
    width, height = export.size
    return FORMATS[export.format].bytes_a_pixel * width * height * count


def check_disk_space(export: ExportSettings, count: int) -> None:
    """ClipError if the disk has no room for a clip and its pieces, and some to spare."""
    width, height = export.size
    is_collected = isinstance(FORMATS[export.format].pieces, CollectedPieces)
    pieces = _LOSSLESS * width * height * count if is_collected else 0
    needed = 2 * rough_bytes(export, count) + pieces
    free = free_bytes()
    if free < needed + settings.RENDER_SPARE_BYTES:
        raise ClipError(
            f"The disk has {filesizeformat(free)} left, and this clip may need "
            f"{filesizeformat(needed)}, with {filesizeformat(settings.RENDER_SPARE_BYTES)} to be "
            "left free. Remove old renders, or choose fewer frames or a smaller size."
        )


def free_bytes() -> int:
    """What is free where renders are kept."""
    folder = Path(settings.MEDIA_ROOT)
    folder.mkdir(parents=True, exist_ok=True)
    return shutil.disk_usage(folder).free


def set_retention(owner: AbstractBaseUser, days: int | None) -> None:
    """Sets a person's rule: renders go so many days after they ended, or never."""
    Retention.objects.update_or_create(owner=owner, defaults={"days": days})


def old_renders() -> list[Render]:
    """The renders that by the rules of their owners are to go."""
    old: list[Render] = []
    for rule in Retention.objects.exclude(days=None):
        ended = timezone.now() - timedelta(days=rule.days)
        own = Render.objects.filter(owner=rule.owner_id, ended_at__lt=ended)
        old += own.exclude(state__in=UNFINISHED)
    return old
