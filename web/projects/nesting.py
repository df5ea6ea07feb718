"""Scenes of a project within one another: which may be used where, and kept up to date."""

from balletto.scene.edits import apply
from balletto.scene.edits.structure.nested import sources_of
from balletto.scene.errors import SceneError

from . import history
from .models import Scene


def source_of(scene: Scene) -> str:
    """What a document calls a scene that it uses: in no other installation it means another."""
    return f"{scene.pk}-{scene.made_at.timestamp():.6f}"


def scene_of(source: str, owner_id: int) -> Scene | None:
    """The scene of a person that a document used; None if it is gone, or was of somebody else."""
    number = source.partition("-")[0]
    if not number.isdecimal() or len(number) > 12:
        return None
    own = {"project__owner": owner_id, "removed_at": None, "project__removed_at": None}
    scene = Scene.objects.filter(pk=int(number), **own).first()
    return scene if scene and source_of(scene) == source else None


def usable(scene: Scene, other: Scene) -> dict:
    """The document of another scene, to be used in this one. SceneError, by name, if that would be
    a circle."""
    document = history.newest(other).document
    if other.pk == scene.pk:
        raise SceneError.at("scene", f"“{scene.name}” cannot be used in itself")
    way = sources_of(document).get(source_of(scene))
    if way is not None:
        told = f"“{other.name}” uses “{way}”: they cannot be in each other"
        raise SceneError.at("scene", told)
    return document


def offered(scene: Scene) -> list[Scene]:
    """The other scenes of the project, to be used in this one."""
    return list(
        scene.project.scenes.filter(removed_at=None)
        .exclude(pk=scene.pk)
        .only("name", "project")
        .order_by("name")[:60]
    )


def renewals(scene: Scene, document: dict, owner_id: int) -> list[dict]:
    """The edits that bring the scenes that a document uses up to date with what they are now; none
    if they are. A source that is gone, that now uses this one, or that does not fit any more, stays
    as it was."""
    edits = []
    for used in document.get("scenes", []):
        source = used.get("source") or ""
        other = scene_of(source, owner_id)
        if other is None:
            continue
        try:
            now = usable(scene, other)
            if now != used["scene"]:
                edit = {"name": "renew-scene", "source": source, "document": now}
                document = apply(document, edit).document
                edits.append(edit)
        except SceneError:
            continue
    return edits
