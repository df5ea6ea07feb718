"""The projects page: projects and scenes made, named, found, copied, moved and removed."""

import re

from django.contrib import messages
from django.db.models import Prefetch, Q
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.views.decorators.http import require_GET, require_POST

from balletto.picture.preset_preview import SCENE_FRAMES
from balletto.scene.edits.structure.layers import next_name
from balletto.scene.errors import SceneError
from balletto.scene.starts import new_title
from web.library.bundle import document_in

from . import bin
from .access import own_project, own_scene
from .forms import SIZES, ProjectForm, SceneFileForm, SceneForm
from .history import make_scene, newest
from .models import Project, Scene


def projects(request: HttpRequest) -> HttpResponse:
    """A person's projects with a poster of each scene; with ?find, the scenes called so."""
    find = request.GET.get("find", "").strip()[:200]
    scenes = Scene.objects.filter(removed_at=None).order_by("made_at")
    own = Project.objects.filter(owner=request.user, removed_at=None)
    if find:
        scenes = scenes.filter(Q(name__icontains=find) | Q(project__name__icontains=find))
        own = own.filter(scenes__in=scenes).distinct()
    own = own.prefetch_related(Prefetch("scenes", scenes))
    context = {
        "projects": own,
        "form": ProjectForm(),
        "find": find,
        "sizes": SIZES[:-1],
        "film_frames": SCENE_FRAMES,
        "in_bin": len(bin.contents(request.user)),
    }
    return render(request, "projects/projects.html", context)


@require_POST
def new_project(request: HttpRequest) -> HttpResponse:
    """Makes a project."""
    form = ProjectForm(request.POST)
    if form.is_valid():
        Project.objects.create(owner=request.user, name=form.cleaned_data["name"])
    else:
        messages.error(request, "A project needs a name of at most 200 letters.")
    return redirect("projects")


@require_POST
def rename_project(request: HttpRequest, project_id: int) -> HttpResponse:
    """Gives a project another name."""
    project = own_project(request, project_id)
    form = ProjectForm(request.POST)
    if form.is_valid():
        project.name = form.cleaned_data["name"]
        project.save(update_fields=["name"])
    else:
        messages.error(request, "A project needs a name of at most 200 letters.")
    return redirect("projects")


@require_POST
def remove_project(request: HttpRequest, project_id: int) -> HttpResponse:
    """Puts a project with all its scenes into the bin."""
    return _removed(request, own_project(request, project_id))


@require_POST
def remove_scene(request: HttpRequest, scene_id: int) -> HttpResponse:
    """Puts a scene with its history into the bin; its finished clips stay."""
    return _removed(request, own_scene(request, scene_id))


def _removed(request: HttpRequest, thing: Project | Scene) -> HttpResponse:
    bin.remove(thing)
    told = f"“{thing.name}” lies in the bin for {bin.KEPT_DAYS} days and can be brought back."
    messages.success(request, told)
    return redirect("projects")


@require_POST
def duplicate_scene(request: HttpRequest, scene_id: int) -> HttpResponse:
    """Makes a scene like another, beside it, under a name of its own."""
    scene = own_scene(request, scene_id)
    taken = [{"name": name} for name in scene.project.scenes.values_list("name", flat=True)]
    document = {**newest(scene).document, "name": next_name(scene.name, taken)}
    copy = make_scene(scene.project, document, request.user)
    messages.success(request, f"“{copy.name}” is made.")
    return redirect("projects")


@require_POST
def move_scene(request: HttpRequest, scene_id: int) -> HttpResponse:
    """Puts a scene into another project."""
    scene = own_scene(request, scene_id)
    number = request.POST.get("project", "")
    project = own_project(request, int(number) if re.fullmatch(r"\d{1,9}", number) else 0)
    scene.project = project
    scene.save(update_fields=["project"])
    messages.success(request, f"“{scene.name}” is in “{project.name}” now.")
    return redirect("projects")


@require_GET
def bin_page(request: HttpRequest) -> HttpResponse:
    """What was removed, and can be brought back."""
    things = [
        {"thing": thing, "is_scene": isinstance(thing, Scene), "goes_at": bin.goes_at(thing)}
        for thing in bin.contents(request.user)
    ]
    return render(request, "projects/bin.html", {"things": things, "days": bin.KEPT_DAYS})


@require_POST
def restore_scene(request: HttpRequest, scene_id: int) -> HttpResponse:
    """Brings a scene back from the bin."""
    scenes = Scene.objects.exclude(removed_at=None, project__removed_at=None)
    return _restored(request, get_object_or_404(scenes, pk=scene_id, project__owner=request.user))


@require_POST
def restore_project(request: HttpRequest, project_id: int) -> HttpResponse:
    """Brings a project back from the bin, with all that was in it."""
    projects = Project.objects.exclude(removed_at=None)
    return _restored(request, get_object_or_404(projects, pk=project_id, owner=request.user))


def _restored(request: HttpRequest, thing: Project | Scene) -> HttpResponse:
    bin.restore(thing)
    messages.success(request, f"“{thing.name}” is back.")
    return redirect("projects")


@require_POST
def open_new_scene(request: HttpRequest, project_id: int) -> HttpResponse:
    """Makes a scene of a usual size with a title, and opens it with the words to be typed over."""
    project = own_project(request, project_id)
    usual = {name: field.initial for name, field in SceneForm.base_fields.items()}
    form = SceneForm({**usual, "size": request.POST.get("size", SIZES[0][0])})
    if not form.is_valid():
        messages.error(request, "Choose a size from the list.")
        return redirect("projects")
    document = form.document()
    document["layers"] = [{"id": "t1", **new_title(document)}]
    scene = make_scene(project, document, request.user)
    return _opened(request, scene, "new")


def _opened(request: HttpRequest, scene: Scene, *told: str) -> HttpResponse:
    """To a scene that was just made; beside a person's first one stand the first steps."""
    is_first = Scene.objects.filter(project__owner=request.user).count() == 1
    query = "&".join([*told, *(["first"] if is_first else [])])
    return redirect(f"{reverse('workbench', args=[scene.pk])}{'?' if query else ''}{query}")


def new_scene(request: HttpRequest, project_id: int) -> HttpResponse:
    """Makes a scene from a size, rate and length."""
    project = own_project(request, project_id)
    form = SceneForm(request.POST or None)
    if request.method == "POST" and form.is_valid():
        return _opened(request, make_scene(project, form.document(), request.user))
    context = {"project": project, "form": form, "file_form": SceneFileForm()}
    return render(request, "projects/new_scene.html", context)


@require_POST
def scene_from_file(request: HttpRequest, project_id: int) -> HttpResponse:
    """Makes a scene from an uploaded file, or says every fault of it."""
    project = own_project(request, project_id)
    form = SceneFileForm(request.POST, request.FILES)
    faults = []
    if form.is_valid():
        try:
            document = document_in(form.cleaned_data["file"], request.user)
            return redirect("workbench", make_scene(project, document, request.user).pk)
        except SceneError as error:
            faults = error.faults
    context = {"project": project, "form": SceneForm(), "file_form": form, "faults": faults}
    return render(request, "projects/new_scene.html", context, status=400)
