"""What the workbench answers: the changed parts of the page, or why nothing was changed."""

import json
from typing import Any

from django.http import HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import render

from web.projects import history
from web.projects.access import own_scene
from web.projects.models import Revision, Scene

from .view_model import PageSelection, WorkbenchView


def answer_parts(
    request: HttpRequest, scene: Scene, revision: Revision, selection: PageSelection
) -> HttpResponse:
    """The parts of the page that show the scene, the selection and the history."""
    view = WorkbenchView(request, scene, revision, selection)
    response = render(request, "workbench/_parts.html", {"view": view})
    response["X-Revision"], response["X-Digest"] = revision.number, view.address
    response["X-Selection"] = json.dumps(view.selected_now)
    return response


def walk(request: HttpRequest, scene_id: int, step: Any) -> HttpResponse:
    """Takes a step in the history: `step` gets the scene's key, the revision that the page shows
    and the person, and gives the revision that is the newest then."""
    scene = own_scene(request, scene_id)

    def taken() -> Revision:
        return step(scene.pk, base_of(request), request.user)

    try:
        revision = history.once(scene.pk, request_of(request), taken)
    except history.ChangedElsewhere:
        return changed_elsewhere()
    except history.NothingToDo as error:
        return refused(str(error))
    scene.refresh_from_db(fields=history.CHANGED_FIELDS)
    return answer_parts(request, scene, revision, PageSelection.of(request.POST))


def base_of(request: HttpRequest) -> int:
    """The number of the revision that the page goes by; 0 if it does not say."""
    return _number_in(request.POST.get("base", ""))


def seen_of(request: HttpRequest) -> int:
    """The number of the revision that the parts of the page showed when the hand acted."""
    return _number_in(request.POST.get("seen", ""))


def _number_in(text: str) -> int:
    return int(text) if text.isdecimal() and len(text) < 10 else 0


def request_of(request: HttpRequest) -> str:
    """What the page calls this request, so that it is not done twice when it is sent again."""
    return request.POST.get("request", "")[:40]


def changed_elsewhere() -> JsonResponse:
    """That the page shows an older state than the newest."""
    told = (
        "This scene was changed in another tab or by a newer page. The newest state is shown now; "
        "your last change was not made, so nothing is overwritten."
    )
    return JsonResponse({"message": told}, status=409)


def refused(message: str) -> JsonResponse:
    """That something cannot be done, and why."""
    return JsonResponse({"message": message}, status=422)
