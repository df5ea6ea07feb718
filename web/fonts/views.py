"""The page of fonts, the fonts that a person sends, and the files that pages load them from."""

from django.contrib import messages
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.views.decorators.http import require_GET, require_POST

from balletto.lettering.font_files import KINDS, SUFFIXES, FontFileError
from balletto.lettering.own_fonts import families_in
from web.library.font_store import fonts_folder_of, keep_fonts, remove_family
from web.library.models import FontFile
from web.projects.font_rules import css_name
from web.serving import send_file

from .specimens import choice, choices, own, shipped
from .usage import scenes_by_font


@require_GET
def fonts_page(request: HttpRequest) -> HttpResponse:
    """All families, a person's own first."""
    fonts = FontFile.objects.filter(owner=request.user)
    families = families_in(fonts_folder_of(request.user.pk))
    context = {
        "own": [*own(fonts, families, scenes_by_font(request.user) if fonts else {})],
        "shipped": shipped(),
        "kinds": KINDS,
        "suffixes": ",".join(SUFFIXES),
        "fonts_state": families.state,
    }
    return render(request, "fonts/fonts.html", context)


@require_GET
def font_list(request: HttpRequest) -> HttpResponse:
    """All families to choose from, as a part of a page."""
    families = families_in(fonts_folder_of(request.user.pk))
    context = {"own": [choice(family) for family in families.own.values()], "shipped": choices()}
    response = render(request, "fonts/_list.html", context)
    response["X-Fonts"] = families.state
    return response


@require_POST
def send(request: HttpRequest) -> HttpResponse:
    """Keeps fonts; what is wrong with some is told, the others are kept. The script of the page,
    which sends them one by one, is answered with that alone."""
    uploads = request.FILES.getlist("file")
    kept, wrong = [], []
    for upload in uploads:
        try:
            kept += keep_fonts(request.user, upload)
        except FontFileError as error:
            wrong.append(str(error))
    if request.headers.get("Accept", "").startswith("application/json"):
        return JsonResponse({"wrong": wrong}, status=422 if wrong else 200)
    for each in dict.fromkeys(font.family for font in kept):
        messages.success(request, f"“{each}” is here.")
    for each in wrong or ([] if uploads else ["Choose fonts to add."]):
        messages.error(request, each)
    return redirect("fonts")


@require_POST
def remove(request: HttpRequest) -> HttpResponse:
    """Removes a family of a person's own."""
    family = request.POST.get("family", "")
    used = scenes_by_font(request.user).get(family, [])
    if remove_family(request.user, family):
        told = f"“{family}” is removed."
        if used:
            told += f" These scenes name it, and say so: {', '.join(used[:20])}."
        messages.success(request, told)
    return redirect("fonts")


@require_GET
def font_file(request: HttpRequest, font_id: int) -> HttpResponse:
    """A font of a person's own, for their pages."""
    font = get_object_or_404(FontFile, pk=font_id, owner=request.user)
    path = fonts_folder_of(request.user.pk) / font.name
    response = send_file(request, path, font.name, False)
    response["Cache-Control"] = "private, max-age=31536000, immutable"
    return response


@require_GET
def own_rules(request: HttpRequest) -> HttpResponse:
    """One @font-face for each of a person's own fonts."""
    rules = [_rule(font) for font in FontFile.objects.filter(owner=request.user)]
    response = HttpResponse("\n".join(rules), content_type="text/css")
    response["Cache-Control"] = "private, no-cache"
    return response


def _rule(font: FontFile) -> str:
    axes = {axis["tag"]: axis for axis in font.axes}
    weight, stretch = f"{font.weight:g}", f"{font.width:g}%"
    if "wght" in axes:
        weight = f"{axes['wght']['low']:g} {axes['wght']['high']:g}"
    if "wdth" in axes:
        stretch = f"{axes['wdth']['low']:g}% {axes['wdth']['high']:g}%"
    return (
        f'@font-face {{ font-family: "{css_name(font.family)}"; font-weight: {weight}; '
        f"font-stretch: {stretch}; font-style: {'italic' if font.is_italic else 'normal'}; "
        f'font-display: block; src: url("{reverse("font-file", args=[font.pk])}"); }}'
    )
