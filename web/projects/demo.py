"""The demo project: the winter season of Orrery House, a made-up planetarium."""

from pathlib import Path

from django.contrib.auth import get_user_model

from balletto.scene import files
from web.library.store import keep_path

from .history import make_scene
from .models import Project, Scene
from .nesting import source_of

_SCENES = Path(__file__).parent / "demo_scenes"
_SOURCE = "demo:"  # before the name of another demo scene
PROJECT_NAME = "Orrery House winter season"


def load_demo(name: str, password: str) -> None:
    """Makes the demo account and its project; what is there already stays as it is."""
    user, is_new = get_user_model().objects.get_or_create(username=name)
    if is_new or not user.check_password(password):
        user.set_password(password)
        user.save()
    if user.projects.exists():
        return
    for path in sorted((_SCENES / "files").iterdir()):
        keep_path(user, path, path.name, path.name)
    project = Project.objects.create(owner=user, name=PROJECT_NAME)
    made: dict[str, Scene] = {}
    for path in sorted(_SCENES.glob("*.balletto.json")):
        document = files.to_data(files.parse(path.read_bytes()))
        scene = make_scene(project, _with_sources(document, made), user)
        made[scene.name] = scene


def _with_sources(document: dict, made: dict[str, Scene]) -> dict:
    """A document whose nested scenes follow those of the demo that they were copied from."""
    for used in document.get("scenes", []):
        source = made.get(used.get("source", "").removeprefix(_SOURCE))
        if source is not None:
            used["source"] = source_of(source)
    return document
