"""What the line is told into which sentences are typed; and the whole scene as a text."""

from typing import Any
from urllib.parse import urlencode

from django.http import HttpRequest, JsonResponse
from django.urls import reverse
from django.utils.text import Truncator
from django.views.decorators.http import require_GET, require_http_methods

from balletto.intents.saying import AskedLine, meaning_of
from balletto.scene import files
from balletto.scene.errors import SceneError
from balletto.sentences.scenes.text import scene_as_text, scene_from_text
from balletto.understanding.asked import is_question
from web.guide.passages import found_for
from web.pictures import frames
from web.projects.access import own_scene

from .sentences.drawings import drawing_for, drawing_of

MOST_LETTERS = 4000


@require_http_methods(["GET", "POST"])
def scene_text(request: HttpRequest, scene_id: int) -> JsonResponse:
    """The whole scene as a text; or, of a text that is posted, whether it makes a scene: what it
    says, or the `fault`."""
    scene = own_scene(request, scene_id)
    if request.method == "GET":
        return JsonResponse({"text": scene_as_text(frames.document_at(scene, scene.digest))})
    try:
        made = files.from_data(scene_from_text(request.POST.get("text", "")))
    except SceneError as error:
        return JsonResponse({"fault": _sentence(str(error))})
    count = len(made.layers)
    return JsonResponse({"said": f"It says a scene of {count} layer{'s' * (count != 1)}."})


def _sentence(text: str) -> str:
    return text[:1].upper() + text[1:]


@require_GET
def saying(request: HttpRequest, scene_id: int) -> JsonResponse:
    """What the text that is typed means so far, as `meaning_of` tells it, with drawings."""
    scene = own_scene(request, scene_id)
    told = request.GET
    asked = AskedLine(
        told.get("layer", ""),
        told.get("move", ""),
        "goes_on" in told,
        told.get("current", ""),
        "several" in told,
    )
    found = meaning_of(
        frames.document_at(scene, scene.digest), told.get("text", "")[:MOST_LETTERS], asked
    )
    text = told.get("text", "")[:MOST_LETTERS]
    found["next"] = [{**each._asdict(), "drawing": drawing_for(each)} for each in found["next"]]
    if is_question(text, is_refused="fault" in found):
        found = {"values": found["values"], **_answer_to(text)}
    if "fault" in found:
        found["fault"]["drawing"] = drawing_of("meant")
    return JsonResponse(found)


def _answer_to(question: str) -> dict[str, Any]:
    """What the guide says to a question, and a sentence to try."""
    answer = next(iter(found_for(question, 1)), None)
    address = f"{reverse('guide')}?{urlencode({'find': question})}"
    if answer is None:
        told = {"text": "The guide says nothing of that by these words.", "address": address}
        return {"answer": told, "next": []}
    whole = {"start": 0, "end": len(question), "drawing": drawing_of("more")}
    tried = [{"text": answer.example, "group": "try", **whole}] if answer.example else []
    return {
        "answer": {"text": Truncator(answer.text).chars(240), "address": address},
        "next": tried,
    }
