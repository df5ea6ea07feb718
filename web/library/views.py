"""A person's files: sent by the workbench, listed, removed."""

from pathlib import Path

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_GET, require_POST

from balletto.picture.pixels.media import MediaError, video
from balletto.picture.stills import thumbnail
from balletto.stock import STOCK, stock_path
from web.serving import send_file

from .models import MediaFile
from .store import folder_of, keep, remove


def library(request: HttpRequest) -> HttpResponse:
    """All files of a person; those sent here are added."""
    if request.method == "POST":
        for upload in request.FILES.getlist("file"):
            try:
                kept = keep(request.user, upload)
                messages.success(request, f"“{kept.title}” is added.")
            except MediaError as error:
                messages.error(request, str(error))
        return redirect("library")
    shown = {"files": request.user.media.all(), "stock": STOCK.values()}
    return render(request, "library/library.html", shown)


@require_POST
def send(request: HttpRequest) -> HttpResponse:
    """Keeps a file; answers with its name for scenes, or 422 with what is wrong with it."""
    upload = request.FILES.get("file")
    if upload is None:
        return JsonResponse({"message": "Choose a file to add."}, status=422)
    try:
        kept = keep(request.user, upload)
    except MediaError as error:
        return JsonResponse({"message": str(error)}, status=422)
    return JsonResponse({"file": kept.name, "kind": kept.kind, "title": kept.title})


def own_file(request: HttpRequest, file_id: int) -> MediaFile:
    """The file of that number, if it is the person's own; otherwise not found."""
    return get_object_or_404(MediaFile, pk=file_id, owner=request.user)


@require_GET
def show(request: HttpRequest, file_id: int) -> HttpResponse:
    """The file itself, for the page alone: what is in it may not do anything."""
    own = own_file(request, file_id)
    response = send_file(request, folder_of(own.owner_id) / own.name, own.title, False)
    response["Content-Security-Policy"] = "default-src 'none'; style-src 'unsafe-inline'; sandbox"
    return response


@require_GET
def poster(request: HttpRequest, file_id: int) -> HttpResponse:
    """The first frame of a video."""
    own = own_file(request, file_id)
    return _first_frame(folder_of(own.owner_id) / own.name)


@require_GET
def stock_poster(request: HttpRequest, name: str) -> HttpResponse:
    """The first frame of a video that ships."""
    path = stock_path(name)
    if path is None:
        raise Http404
    return _first_frame(path)


def _first_frame(path: Path) -> HttpResponse:
    try:
        pixels = video(path).at(0.0).pixels
    except MediaError:
        raise Http404 from None
    response = HttpResponse(thumbnail(pixels, _POSTER_SIDE), content_type="image/webp")
    response["Cache-Control"] = "private, max-age=86400"
    return response


_POSTER_SIDE = 640  # px


@require_GET
def show_stock(request: HttpRequest, name: str) -> HttpResponse:
    """A file that ships."""
    path = stock_path(name)
    if path is None:
        raise Http404
    return send_file(request, path, path.name, False)


@require_POST
def remove_file(request: HttpRequest, file_id: int) -> HttpResponse:
    """Removes a file."""
    own = own_file(request, file_id)
    remove(own)
    messages.success(request, f"“{own.title}” is removed. Scenes that showed it say so.")
    return redirect("library")
