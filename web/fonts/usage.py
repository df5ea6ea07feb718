"""Which scenes of a person use which fonts."""

from django.contrib.auth.models import AbstractBaseUser
from django.core.cache import cache

from balletto.scene.naming import FONTS, named
from web.projects.models import Scene

_KEEP_S = 24 * 60 * 60


def scenes_by_font(owner: AbstractBaseUser) -> dict[str, list[str]]:
    """The names of a person's scenes, by the fonts that they name as they are now."""
    scenes = list(Scene.objects.filter(project__owner=owner).order_by("name"))
    kept = cache.get_many([_key(scene) for scene in scenes])
    found: dict[str, list[str]] = {}
    new = {}
    for scene in scenes:
        fonts = kept.get(_key(scene))
        if fonts is None:
            fonts = new[_key(scene)] = _fonts_of(scene)
        for font in fonts:
            found.setdefault(font, []).append(scene.name)
    cache.set_many(new, _KEEP_S)
    return found


def _key(scene: Scene) -> str:
    return f"fonts-in:{scene.digest}"


def _fonts_of(scene: Scene) -> list[str]:
    document = scene.revisions.get(number=scene.head).document
    return sorted({name for _, name in named(document, FONTS)})
