"""The demo project: the winter season of Orrery House, a made-up planetarium."""

from pathlib import Path

from django.contrib.auth import get_user_model

from balletto.scene import files

from .history import make_scene
from .models import Project

_SCENES = Path(__file__).parent / "demo_scenes"
PROJECT_NAME = "Orrery House winter season"


def load_demo(name: str, password: str) -> None:
    """Makes the demo account and its project; what is there already stays as it is."""
    user, is_new = get_user_model().objects.get_or_create(username=name)
    if is_new or not user.check_password(password):
        user.set_password(password)
        user.save()
    if not user.projects.exists():
        project = Project.objects.create(owner=user, name=PROJECT_NAME)
        for path in sorted(_SCENES.glob("*.balletto.json")):
            make_scene(project, files.to_data(files.parse(path.read_bytes())), user)
