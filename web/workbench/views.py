"""The workbench: the page, its edits, its frames, and the numbers that it draws from."""

import json
from dataclasses import replace
from typing import Any

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import redirect, render
from django.utils.text import slugify
from django.views.decorators.http import require_GET, require_POST

from balletto.intents.typed_values import NotUnderstood
from balletto.picture.frame import Picture
from balletto.picture.preset_preview import PRESET_FRAMES, SCENE_FRAMES, staged
from balletto.scene import files
from balletto.scene.errors import SceneError
from balletto.scene.files import json_of
from balletto.scene.moving.presets import presets, without
from balletto.scene.values import measures
from balletto.scene.values.quantities import (
    QuantityContext,
    QuantityError,
    number_of,
    read_quantity,
)
from web.library.bundle import bundle, document_in
from web.library.store import folder_of, opened
from web.pictures import frames
from web.pictures.films import film_response
from web.pictures.looks import address
from web.projects import history
from web.projects.access import own_scene
from web.projects.forms import SceneFileForm
from web.projects.models import Revision
from web.projects.nesting import renewals

from .answers import (
    answer_parts,
    base_of,
    changed_elsewhere,
    refused,
    request_of,
    seen_of,
    walk,
)
from .edits.edit_requests import EditRequest
from .edits.requested_edits import requested_edit
from .json_views import numbers_with
from .view_model import PageSelection, WorkbenchView

MOST_REVISIONS = 300  # that the list of the history shows
MOST_IN_A_RUN = 16


@require_GET
def workbench(request: HttpRequest, scene_id: int) -> HttpResponse:
    """The page."""
    scene = own_scene(request, scene_id)
    head = history.newest(scene)
    view = WorkbenchView(request, scene, head, PageSelection.of(request.GET))
    # The page asks for what is new: looking at a scene changes nothing.
    is_behind = bool(renewals(scene, head.document, request.user.pk))
    context = {"view": view, "file_form": SceneFileForm(), "is_behind": is_behind}
    return render(request, "workbench/workbench.html", context)


@require_GET
def parts(request: HttpRequest, scene_id: int) -> HttpResponse:
    """The parts that depend on the selection, for the scene as it is now."""
    scene = own_scene(request, scene_id)
    return answer_parts(request, scene, history.newest(scene), PageSelection.of(request.GET))


@require_POST
def edit(request: HttpRequest, scene_id: int) -> HttpResponse:
    """Makes an edit and answers with the changed parts; or, for a preview, keeps nothing.

    Values: `base`, the revision that the page shows; `edit`, JSON; `preview`, if it is one.
    409 if the scene has changed since, 422 with the faults if the edit is not possible.
    """
    scene = own_scene(request, scene_id)
    try:
        wanted = json_of(request.POST.get("edit", ""))
    except ValueError:
        return refused("The edit is not JSON.")
    try:
        asked = EditRequest(request, scene, PageSelection.of(request.POST))
        if request.POST.get("preview"):
            return _preview(asked, requested_edit(asked, wanted, seen_of(request)))
        before = asked.data
        revision = _once(request, asked, wanted)
    except history.ChangedElsewhere:
        return changed_elsewhere()
    except NotUnderstood as error:
        return JsonResponse({"message": str(error), "typed": True}, status=422)
    except SceneError as error:
        return refused(str(error))
    scene.refresh_from_db(fields=history.CHANGED_FIELDS)
    return answer_parts(
        request, scene, revision, _selection_after(request, wanted, before, revision)
    )


def _once(request: HttpRequest, asked: EditRequest, wanted: Any) -> Revision:
    def made() -> Revision:
        base = base_of(request)
        if asked.scene.head != base:
            raise history.ChangedElsewhere
        edit = requested_edit(asked, wanted, seen_of(request))
        return history.record(asked.scene.pk, base, edit, request.user)

    return history.once(asked.scene.pk, request_of(request), made)


@require_GET
def read(request: HttpRequest, scene_id: int) -> HttpResponse:
    """What a text means that is typed where a frame or a number of frames stands: `text`, in the
    measure `of` (one of READ); `now` is what stands there. 422 if it is not understood."""
    scene = own_scene(request, scene_id)
    measure = READ.get(request.GET.get("of", ""), measures.FRAMES)
    rate = float(frames.document_at(scene, scene.digest).frames_a_second)
    try:
        context = QuantityContext(rate=rate, now=number_of(request.GET.get("now", "")))
        value = read_quantity(request.GET.get("text", ""), measure, context)
    except QuantityError as error:
        return refused(str(error))
    return JsonResponse({"value": value})


READ = {"frame": measures.FRAME, "frames": measures.FRAMES, "length": measures.LENGTH}


def _preview(asked: EditRequest, wanted: dict[str, Any]) -> HttpResponse:
    """A form with the frame at the playhead as an edit would make it, and the numbers of the names
    `also`; the address of that in X-Digest. One answer, so that the picture follows a hand."""
    request, scene = asked.http_request, asked.scene
    if scene.head != base_of(request):
        return changed_elsewhere()
    applied = history.preview(asked.revision, wanted)
    digest = history.digest_of(applied.document)
    frames.keep_preview(scene.pk, digest, applied.document)
    seen = address(digest, scene.project.owner_id, lambda: applied.document)
    number = min(asked.selection.frame, applied.scene.length - 1)
    folder = folder_of(scene.project.owner_id)
    shown = applied.scene.in_folder(folder)
    found = frames.Frames(f"{scene.pk}:{seen}", lambda: shown, _box(request.POST))
    parts = {"frame": found.found([number])[number], **numbers_with(shown, number, request.POST)}
    response = frames.as_form(parts)
    response["X-Digest"] = seen
    return response


def _box(data: Any) -> int:
    """The width of the box that a frame is to fit into."""
    box = data.get("box", "")
    return int(box) if box.isdecimal() and len(box) < 6 else frames.BOXES[1]


def _selection_after(
    request: HttpRequest, wanted: dict[str, Any], before: dict[str, Any], revision: Revision
) -> PageSelection:
    """After an edit what was added is selected, alone; otherwise the selection stays."""
    selection = PageSelection.of(request.POST)
    layers = revision.document.get("layers", [])
    if wanted.get("name") in ("add-move", "say"):
        title = next((layer for layer in layers if layer["id"] == wanted.get("layer")), None)
        if title and _has_more_moves(title, before):
            move = title["moves"][-1]["id"]
            return replace(selection, layer=title["id"], move=move)
    known = {layer["id"] for layer in before.get("layers", [])}
    new = [layer for layer in layers if layer["id"] not in known]
    inside = {layer["id"] for layer in new}
    # A group is selected without what is in it: that goes along.
    added = [layer["id"] for layer in new if layer.get("group") not in inside]
    if not added or wanted.get("name") in ("replace-scene", "changes"):
        return selection
    first, *also = reversed(added)
    return replace(selection, layer=first, also=tuple(also), move="", letters=None)


def _has_more_moves(layer: dict[str, Any], before: dict[str, Any]) -> bool:
    """Whether a layer has a move that it had not."""
    then = next((each for each in before.get("layers", []) if each["id"] == layer["id"]), {})
    return len(layer.get("moves", [])) > len(then.get("moves", []))


@require_POST
def undo(request: HttpRequest, scene_id: int) -> HttpResponse:
    """Takes the last edit back."""
    return walk(request, scene_id, history.undo)


@require_POST
def redo(request: HttpRequest, scene_id: int) -> HttpResponse:
    """Makes the last edit that was taken back again."""
    return walk(request, scene_id, history.redo)


@require_GET
def history_list(request: HttpRequest, scene_id: int) -> HttpResponse:
    """What was done to the scene, newest first."""
    scene = own_scene(request, scene_id)
    revisions = history.entries(scene, MOST_REVISIONS)
    context = {"revisions": revisions, "head": scene.head}
    return render(request, "workbench/_history.html", context)


@require_POST
def back(request: HttpRequest, scene_id: int, number: int) -> HttpResponse:
    """Makes the scene what it was at a revision."""

    def step(scene: int, base: int, author: Any) -> Revision:
        try:
            return history.go_back(scene, base, number, author)
        except Revision.DoesNotExist:
            raise Http404 from None

    return walk(request, scene_id, step)


@require_GET
def frame(request: HttpRequest, scene_id: int, digest: str, number: int) -> HttpResponse:
    """A frame of the scene as it was at a digest, fitted into the box `box`."""
    scene = own_scene(request, scene_id)
    return frames.frames_at(scene, digest, _box(request.GET)).response(number)


@require_GET
def frame_run(
    request: HttpRequest, scene_id: int, digest: str, number: int, count: int
) -> HttpResponse:
    """`count` frames from a number on, in one answer."""
    numbers = list(range(number, number + min(count, MOST_IN_A_RUN)))
    scene = own_scene(request, scene_id)
    return frames.frames_at(scene, digest, _box(request.GET)).run_response(numbers)


@require_GET
def poster(request: HttpRequest, scene_id: int, digest: str) -> HttpResponse:
    """A small picture of the scene, from two thirds of its length on, when titles have landed."""
    scene = own_scene(request, scene_id)
    number = frames.document_at(scene, digest).length * 2 // 3
    return frames.frames_at(scene, digest, frames.BOXES[0]).response(number)


@require_GET
def scene_preview_strip(request: HttpRequest, scene_id: int, digest: str) -> HttpResponse:
    """The scene from its start to its end in some small frames, one below the other."""
    scene = own_scene(request, scene_id)
    now = frames.address_now(scene, digest)
    key = f"{scene.pk}:{now}"

    def ready() -> Picture:
        return frames.picture(key, lambda: frames.scene_of(scene, digest))

    return film_response(key, ready, SCENE_FRAMES, is_kept=digest == now)


@require_GET
def film(request: HttpRequest, scene_id: int, digest: str, layer: str, preset: str) -> HttpResponse:
    """A preset moving on the words of a layer: its frames one below the other."""
    scene = own_scene(request, scene_id)
    if preset not in presets():
        raise Http404
    document = frames.document_of(scene, digest)
    owner = scene.project.owner_id
    left_out = request.GET.get("without", "").split(",")
    shown = without(presets()[preset], left_out)
    try:
        stage = staged(document, layer, shown, lambda data: opened(data, owner))
    except KeyError:
        raise Http404 from None
    # By what is seen in it: most edits change no film, and a hundred may be looked at after each.
    alone = files.to_data(stage)
    key = f"{owner}:{address(history.digest_of(alone), owner, lambda: alone)}"
    is_kept = digest == frames.address_now(scene, digest)
    return film_response(key, lambda: Picture(stage), PRESET_FRAMES, is_kept)


@require_GET
def download(request: HttpRequest, scene_id: int) -> HttpResponse:
    """The scene as a file; with ?files in a ZIP with the files that it shows."""
    scene = own_scene(request, scene_id)
    document = history.newest(scene).document
    text, name = files.to_text(document), slugify(scene.name) or "scene"
    if "files" in request.GET:
        shown = opened(document, scene.project.owner_id)
        response = HttpResponse(bundle(shown, text, name), content_type="application/zip")
        response["Content-Disposition"] = f'attachment; filename="{name}.zip"'
        return response
    response = HttpResponse(text, content_type="application/json; charset=utf-8")
    response["Content-Disposition"] = f'attachment; filename="{name}.balletto.json"'
    return response


@require_POST
def upload(request: HttpRequest, scene_id: int) -> HttpResponse:
    """Puts an uploaded scene in place of this one, as an edit that can be undone."""
    scene = own_scene(request, scene_id)
    form = SceneFileForm(request.POST, request.FILES)
    faults: list[Any] = []
    if form.is_valid():
        file = form.cleaned_data["file"]
        try:
            document = document_in(file, request.user)
            wanted = {"name": "replace-scene", "document": document, "file": file.name[:80]}
            history.record(scene.pk, base_of(request), wanted, request.user)
        except SceneError as error:
            faults = error.faults
        except history.ChangedElsewhere:
            messages.error(request, json.loads(changed_elsewhere().content)["message"])
    else:
        messages.error(request, " ".join(form.errors.get("file", [])))
    if faults:
        context = {"scene": scene, "faults": faults, "file": form.cleaned_data["file"].name}
        return render(request, "workbench/refused_file.html", context, status=400)
    return redirect("workbench", scene.pk)
