"""The sound of a scene, mixed once for each of its states and kept for a while."""

from pathlib import Path

from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse
from django.views.decorators.http import require_GET

from balletto.clip.errors import ClipError
from balletto.clip.mixing import has_sound, mixed
from balletto.clip.sound import write_wav
from balletto.scene.document import Scene
from web.pictures.frames import address_now, document_at, momentary, unchanging
from web.projects.access import own_scene
from web.serving import send_file, written_whole

_KEPT = 20  # sounds, for players that ask for them part by part


@require_GET
def sound(request: HttpRequest, scene_id: int, digest: str) -> HttpResponse:
    """All that is heard in the scene, as a WAV; not found if nothing is, or a file is broken."""
    scene = own_scene(request, scene_id)
    now = address_now(scene, digest)
    path = Path(settings.VAR) / "sound" / f"{scene.pk}-{now}.wav"
    if not path.exists():
        document = document_at(scene, digest)
        if not has_sound(document):
            raise Http404
        try:
            _keep(path, document)
        except ClipError as error:
            raise Http404 from error
    kept = unchanging if now == digest else momentary
    return kept(send_file(request, path, "sound.wav", False))


def _keep(path: Path, document: Scene) -> None:
    with written_whole(path) as coming:
        write_wav(coming, mixed(document))
    known = sorted(path.parent.glob("*.wav"), key=lambda each: each.stat().st_mtime)
    for old in known[:-_KEPT]:
        old.unlink(missing_ok=True)
