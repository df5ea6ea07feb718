"""The Renders page: what is being drawn, what is done, watching and downloading it."""

from dataclasses import dataclass
from fractions import Fraction

from django.contrib import messages
from django.core.paginator import Paginator
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils import timezone
from django.utils.text import slugify
from django.views.decorators.http import require_POST

from balletto.clip.render import ClipError
from balletto.scene import files
from balletto.scene.document import rate_of
from web.projects.access import own_scene
from web.workbench.frames import BOXES, Frames

from . import queue, tasks
from .models import Render, State
from .serve import send_file

FILTERS = ("all", "waiting", "drawing", "finished", "failed")


def own_render(request: HttpRequest, render_id: int) -> Render:
    """The render of that number, if it is the person's own; otherwise not found."""
    return get_object_or_404(Render, pk=render_id, owner=request.user)


@dataclass(frozen=True)
class Job:
    """A render as the page shows it."""

    render: Render
    done: int

    @property
    def total(self) -> int:
        return len(self.render.frames)

    @property
    def percent(self) -> float:
        return 100 * self.done / self.total

    @property
    def size(self) -> str:
        width, height = self.render.document["size"]
        return f"{width} × {height}"

    @property
    def width(self) -> int:
        return self.render.document["size"][0]

    @property
    def height(self) -> int:
        return self.render.document["size"][1]

    @property
    def rate(self) -> str:
        return f"{float(rate_of(self.render.document['rate'])):.6g}"

    @property
    def seconds(self) -> str:
        return f"{float(Fraction(self.total) / rate_of(self.render.document['rate'])):.2f}"

    @property
    def poster_frame(self) -> int:
        return self.render.first + self.total * 2 // 3

    @property
    def took(self) -> float | None:
        """Seconds from the first frame to the end, or to now."""
        if self.render.started_at is None:
            return None
        return ((self.render.ended_at or timezone.now()) - self.render.started_at).total_seconds()

    @property
    def frames_a_second(self) -> float | None:
        took = self.took
        return self.done / took if took and self.done else None

    @property
    def seconds_left(self) -> float | None:
        speed = self.frames_a_second
        return (self.total - self.done) / speed if speed else None

    @property
    def file_name(self) -> str:
        return f"{slugify(self.render.name) or 'clip'}.mp4"


def job_of(render: Render) -> Job:
    """A render with how far it is."""
    return Job(render, queue.frames_done(render))


def _listing(request: HttpRequest) -> dict:
    own = request.user.renders.all()
    chosen = request.GET.get("state", "all")
    shown = own if chosen not in FILTERS[1:] else own.filter(state=chosen)
    page = Paginator(shown, 50).get_page(request.GET.get("page"))
    selected = request.GET.get("render", "")
    current = own.filter(pk=selected).first() if selected.isdigit() else None
    current = current or next((r for r in page if r.state == State.FINISHED), None) or own.first()
    counts = {name: own.filter(state=name).count() for name in FILTERS[1:]}
    return {
        "jobs": [job_of(render) for render in page],
        "page": page,
        "filters": [(name, own.count() if name == "all" else counts[name]) for name in FILTERS],
        "chosen": chosen if chosen in FILTERS else "all",
        "selected": job_of(current) if current else None,
        "is_busy": bool(counts["waiting"] or counts["drawing"]),
    }


def renders(request: HttpRequest) -> HttpResponse:
    """All of a person's renders, one of them to watch."""
    template = "renders/_body.html" if request.htmx else "renders/renders.html"
    return render(request, template, _listing(request))


@require_POST
def ask(request: HttpRequest, scene_id: int) -> HttpResponse:
    """Asks for a clip of a scene."""
    scene = own_scene(request, scene_id)
    try:
        asked = queue.ask(scene, request.user)
    except ClipError as error:
        messages.error(request, str(error))
        return redirect("workbench", scene.pk)
    return _in_line(asked)


@require_POST
def again(request: HttpRequest, render_id: int) -> HttpResponse:
    """Asks for the same clip once more."""
    try:
        return _in_line(queue.ask_again(own_render(request, render_id)))
    except ClipError as error:
        messages.error(request, str(error))
        return redirect("renders")


def _in_line(asked: Render) -> HttpResponse:
    try:
        tasks.start.delay(asked.pk)
    except Exception as error:  # the broker is away: say so, keep the render to try again
        queue.fail(asked, f"The render queue does not answer: {error}")
    return redirect(f"/renders/?render={asked.pk}")


@require_POST
def cancel(request: HttpRequest, render_id: int) -> HttpResponse:
    """Stops a render."""
    queue.cancel(own_render(request, render_id))
    return redirect(f"/renders/?render={render_id}")


@require_POST
def remove(request: HttpRequest, render_id: int) -> HttpResponse:
    """Removes a render and its clip."""
    own = own_render(request, render_id)
    queue.cancel(own)
    queue.remove(own)
    return redirect("renders")


def clip(request: HttpRequest, render_id: int) -> HttpResponse:
    """The finished clip, to play or, with ?download, to save."""
    own = own_render(request, render_id)
    path = queue.clip_of(own)
    if own.state != State.FINISHED or not path.exists():
        raise Http404
    return send_file(request, path, job_of(own).file_name, "download" in request.GET)


def poster(request: HttpRequest, render_id: int) -> HttpResponse:
    """A picture of the clip, from its scene as it was; ?large for watching."""
    own = own_render(request, render_id)
    box = BOXES[1 if "large" in request.GET else 0]
    found = Frames(f"render-{own.pk}", own.digest, lambda: files.from_data(own.document), box)
    return found.response(job_of(own).poster_frame)
