"""The Renders page: what is being drawn, what is done, watching and downloading it; and the page
where clips are asked for."""

import hashlib
import logging
import re

from django.contrib import messages
from django.core.cache import cache
from django.core.paginator import Paginator
from django.db.models import Count
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.template.defaultfilters import filesizeformat
from django.urls import reverse
from django.views.decorators.http import require_GET, require_POST

from balletto.clip.errors import ClipError
from balletto.clip.export_settings import export_settings_of, seen_in
from balletto.clip.likely import likely_bytes
from balletto.clip.render import check
from balletto.scene.document import MAX_SIDE
from balletto.scene.files import json_of
from balletto.scene.fits import FIT_KINDS, fitted
from web.library.store import opened
from web.pictures.frames import BOXES, Frames
from web.pictures.looks import address
from web.projects.access import own_scene
from web.projects.history import newest
from web.serving import send_file

from . import queue, tasks
from .disk_space import free_bytes, set_retention
from .forms import KEPT_DAYS, RenderForm
from .models import Render, Retention, State
from .progress import progress_of, progress_of_all

log = logging.getLogger(__name__)

FILTERS = ("all", "waiting", "drawing", "finished", "failed")


def own_render(request: HttpRequest, render_id: int) -> Render:
    """The render of that number, if it is the person's own; otherwise not found."""
    return get_object_or_404(Render, pk=render_id, owner=request.user)


def _listing(request: HttpRequest) -> dict:
    own = request.user.renders.listed()
    chosen = request.GET.get("state", "all")
    shown = own if chosen not in FILTERS[1:] else own.filter(state=chosen)
    page = Paginator(shown, 50).get_page(request.GET.get("page"))
    current = _named(own, request.GET.get("render", ""))
    current = current or next((r for r in page if r.state == State.FINISHED), None) or own.first()
    beside = _named(own.filter(state=State.FINISHED), request.GET.get("beside", ""))
    counts = dict.fromkeys(FILTERS[1:], 0)
    counts |= dict(request.user.renders.order_by().values_list("state").annotate(Count("pk")))
    counts["all"] = sum(counts.values())
    rule = Retention.objects.filter(owner=request.user).first()
    return {
        "renders": progress_of_all(list(page)),
        "page": page,
        "filters": [(name, counts[name]) for name in FILTERS],
        "chosen": chosen if chosen in FILTERS else "all",
        "selected": progress_of_all([current])[0] if current else None,
        "beside": progress_of(beside) if beside and beside != current else None,
        "others": own.filter(state=State.FINISHED).exclude(pk=current.pk if current else 0)[:50],
        "is_busy": bool(counts["waiting"] or counts["drawing"]),
        "kept_days": KEPT_DAYS,
        "kept": rule.days if rule else None,
        "free": free_bytes(),
    }


def _named(renders, number: str) -> Render | None:
    return renders.filter(pk=number).first() if number.isdecimal() else None


def renders(request: HttpRequest) -> HttpResponse:
    """All of a person's renders, one of them to watch, another beside it."""
    template = "renders/_body.html" if request.htmx else "renders/renders.html"
    return render(request, template, _listing(request))


def ask(request: HttpRequest, scene_id: int) -> HttpResponse:
    """Where clips of a scene are asked for: what would be made is told before."""
    scene = own_scene(request, scene_id)
    document = opened(newest(scene).document, request.user.pk)
    data = request.POST or request.GET
    form = RenderForm(document, data if "name" in data else None)
    if not form.is_bound:
        form = RenderForm(document, form.initial)
    plans = form.plans() if form.is_valid() else []
    is_ready = bool(plans) and not any(plan.fault for plan in plans)
    if request.method == "POST" and is_ready:
        return _ask_all(request, scene, form.cleaned_data["urgent"], plans)
    context = {"scene": scene, "form": form, "plans": plans, "is_ready": is_ready}
    template = "renders/_plans.html" if request.htmx else "renders/ask.html"
    return render(request, template, context)


def _ask_all(request: HttpRequest, scene, is_urgent: bool, plans: list) -> HttpResponse:
    asked = []
    try:
        for plan in plans:
            asked.append(queue.ask(scene, request.user, plan.export, plan.name))
    except ClipError as error:
        messages.error(request, str(error))
        if not asked:
            return redirect("ask-render", scene.pk)
    if is_urgent:
        for each in reversed(asked):
            queue.put_first(each)
    return _in_line(request, asked)


@require_POST
def again(request: HttpRequest, render_id: int) -> HttpResponse:
    """Asks for the same clip once more."""
    try:
        return _in_line(request, [queue.ask_again(own_render(request, render_id))])
    except ClipError as error:
        messages.error(request, str(error))
        return redirect("renders")


def _shown(render_id: int) -> HttpResponse:
    """The page of renders, with one of them shown."""
    return redirect(f"{reverse('renders')}?render={render_id}")


def _in_line(request: HttpRequest, asked: list[Render]) -> HttpResponse:
    try:
        tasks.call_workers(len(asked))
    except Exception:  # the broker is away: what was asked for is kept, and taken up later
        log.exception("the workers cannot be called")
        told = "The render queue does not answer. The clip waits, and is drawn when it does."
        messages.warning(request, told)
    return _shown(asked[0].pk)


@require_POST
def first(request: HttpRequest, render_id: int) -> HttpResponse:
    """Puts a render before all others in line."""
    queue.put_first(own_render(request, render_id))
    return _shown(render_id)


@require_POST
def cancel(request: HttpRequest, render_id: int) -> HttpResponse:
    """Stops a render."""
    queue.cancel(own_render(request, render_id))
    return _shown(render_id)


@require_POST
def remove(request: HttpRequest, render_id: int) -> HttpResponse:
    """Removes a render and its clip."""
    own = own_render(request, render_id)
    queue.cancel(own)
    queue.remove(own)
    return redirect("renders")


@require_POST
def keep(request: HttpRequest) -> HttpResponse:
    """Sets how long the person's renders are kept."""
    days = request.POST.get("days", "")
    known = {str(each or ""): each for each, _ in KEPT_DAYS}
    if days not in known:
        messages.error(request, "Choose how long renders are kept from the list.")
    else:
        set_retention(request.user, known[days])
    return redirect("renders")


def clip(request: HttpRequest, render_id: int) -> HttpResponse:
    """The finished clip, to play or, with ?download, to save."""
    own = own_render(request, render_id)
    path = queue.clip_of(own)
    if own.state != State.FINISHED or not path.exists():
        raise Http404
    return send_file(request, path, progress_of(own).file_name, "download" in request.GET)


def poster(request: HttpRequest, render_id: int) -> HttpResponse:
    """A picture of the clip, from its scene as it was; ?large for watching."""
    own = own_render(request, render_id)
    box = BOXES[1 if "large" in request.GET else 0]

    def find_scene():
        return seen_in(opened(own.document, own.owner_id), own.export)

    seen = own.address
    lasts = request.GET.get("of") == seen
    return Frames(f"render-{own.pk}:{seen}", find_scene, box, lasts).response(
        progress_of(own).poster_frame
    )


def _whole(request: HttpRequest, name: str) -> int:
    """A whole number of the address; 0 if there is none."""
    given = request.GET.get(name, "")
    return int(given) if re.fullmatch(r"\d{1,9}", given) else 0


@require_GET
def likely(request: HttpRequest, scene_id: int) -> HttpResponse:
    """About how large a clip will be, as a few stretches of it that are made show. `how` are its
    export settings as JSON. It takes seconds the first time, and is kept."""
    scene = own_scene(request, scene_id)
    revision = newest(scene)
    document = opened(revision.document, scene.project.owner_id)
    how = request.GET.get("how", "")
    try:
        export = export_settings_of(json_of(how))
        check(document, export)
    except (ClipError, KeyError, TypeError, ValueError, IndexError):
        raise Http404 from None
    key = f"likely:{scene.address}:{hashlib.sha256(how.encode()).hexdigest()}"
    size = cache.get(key)
    if size is None:
        size = likely_bytes(document, export)
        cache.set(key, size, KEEP_LIKELY_S)
    return HttpResponse(f"about {filesizeformat(size)}")


KEEP_LIKELY_S = 7 * 24 * 60 * 60


def fit_poster(request: HttpRequest, scene_id: int) -> HttpResponse:
    """How a scene fills a picture of a size: a frame of it, small."""
    scene = own_scene(request, scene_id)
    revision = newest(scene)
    document = opened(revision.document, request.user.pk)
    width, height, at = (_whole(request, name) for name in ("width", "height", "at"))
    size, fit = (width, height), request.GET.get("fit") or None
    if not all(16 <= side <= MAX_SIDE for side in size) or fit not in (None, *FIT_KINDS):
        raise Http404
    number = min(at, document.length - 1)
    seen = address(revision.digest, request.user.pk, lambda: revision.document)
    key = f"fit-{scene.pk}-{size[0]}x{size[1]}-{fit}:{seen}"
    lasts = request.GET.get("of") == seen
    return Frames(key, lambda: fitted(document, size, fit), BOXES[0], lasts).response(number)
