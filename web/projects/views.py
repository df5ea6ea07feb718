"""The projects page, new projects and new scenes."""

from django.contrib import messages
from django.db.models import Prefetch
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.views.decorators.http import require_POST

from balletto.scene.errors import SceneError
from web.library.bundle import document_in

from .access import own_project, own_scene
from .forms import ProjectForm, SceneFileForm, SceneForm
from .history import make_scene
from .models import Project, Scene


def projects(request: HttpRequest) -> HttpResponse:
    """A person's projects with a poster of each scene."""
    own = Project.objects.filter(owner=request.user)
    own = own.prefetch_related(Prefetch("scenes", Scene.objects.order_by("made_at")))
    return render(request, "projects/projects.html", {"projects": own, "form": ProjectForm()})


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
def remove_scene(request: HttpRequest, scene_id: int) -> HttpResponse:
    """Removes a scene with its history; its finished clips stay."""
    scene = own_scene(request, scene_id)
    scene.delete()
    messages.success(request, f"“{scene.name}” is removed.")
    return redirect("projects")


def new_scene(request: HttpRequest, project_id: int) -> HttpResponse:
    """Makes a scene from a size, rate and length."""
    project = own_project(request, project_id)
    form = SceneForm(request.POST or None)
    if request.method == "POST" and form.is_valid():
        scene = make_scene(project, form.document(), request.user)
        return redirect("workbench", scene.pk)
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
