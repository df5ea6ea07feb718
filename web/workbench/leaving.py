"""What hands did that was not answered yet when the page was left: it is made without a page."""

from collections.abc import Callable
from contextlib import suppress

from django.http import HttpRequest, HttpResponse
from django.views.decorators.http import require_POST

from balletto.intents.situation import Data
from balletto.scene.errors import SceneError
from balletto.scene.files import json_of
from web.projects import history
from web.projects.access import own_scene
from web.projects.models import Revision, Scene

from .answers import base_of, refused
from .edits.edit_requests import EditRequest
from .edits.requested_edits import requested_edit
from .view_model import PageSelection

MOST_LEFT = 200  # steps that are made when a page is left
_WALKS: dict[str, Callable[..., Revision]] = {"undo": history.undo, "redo": history.redo}
_CANNOT = (SceneError, history.ChangedElsewhere, history.NothingToDo)


@require_POST
def leave(request: HttpRequest, scene_id: int) -> HttpResponse:
    """Makes the steps that were not answered yet when the page was left, in their order.

    Values: `base`; `steps`, JSON: [{"request", "layer", "frame", "seen", "edit"}, ...], or in place
    of an edit {"walk": "undo" or "redo"}. Those that were made already are not made again; what
    cannot be made is passed over: nobody is there to be told.
    """
    scene = own_scene(request, scene_id)
    try:
        steps = json_of(request.POST.get("steps", ""))
    except ValueError:
        return refused("The steps are not JSON.")
    base = base_of(request)
    for step in steps[:MOST_LEFT] if isinstance(steps, list) else []:
        if isinstance(step, dict):
            with suppress(*_CANNOT):
                base = _made(request, scene, base, step)
    return HttpResponse(status=204)


def _made(request: HttpRequest, scene: Scene, base: int, step: Data) -> int:
    """Makes one step on a revision; gives the revision on which the next is made."""
    name = str(step.get("request", ""))[:40]
    was_made = bool(name) and scene.revisions.filter(request=name).exists()
    # Asked for afterwards: the page's own request may make the step in between.
    scene.refresh_from_db(fields=history.CHANGED_FIELDS)
    if was_made:
        return scene.head
    walk = _WALKS.get(str(step.get("walk")))

    def made() -> Revision:
        if walk is not None:
            return walk(scene.pk, base, request.user)
        selection = PageSelection.of({key: str(value) for key, value in step.items()})
        seen = step.get("seen")
        asked = EditRequest(request, scene, selection)
        edit = requested_edit(asked, step.get("edit"), seen if isinstance(seen, int) else 0)
        return history.record(scene.pk, base, edit, request.user)

    return history.once(scene.pk, name, made).number
