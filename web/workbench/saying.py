"""What the line is told into which sentences are typed."""

from django.http import HttpRequest, JsonResponse
from django.views.decorators.http import require_GET

from balletto.intents.saying import Asked, meaning_of
from web.pictures import frames
from web.projects.access import own_scene

from .sentences.drawings import drawing_for, drawing_of

MOST_LETTERS = 4000


@require_GET
def saying(request: HttpRequest, scene_id: int) -> JsonResponse:
    """What the text that is typed means so far, as `meaning_of` tells it, with drawings."""
    scene = own_scene(request, scene_id)
    told = request.GET
    asked = Asked(
        told.get("layer", ""),
        told.get("move", ""),
        "goes_on" in told,
        told.get("current", ""),
    )
    found = meaning_of(
        frames.document_at(scene, scene.digest), told.get("text", "")[:MOST_LETTERS], asked
    )
    found["next"] = [{**each._asdict(), "drawing": drawing_for(each)} for each in found["next"]]
    if "fault" in found:
        found["fault"]["drawing"] = drawing_of("meant")
    return JsonResponse(found)
