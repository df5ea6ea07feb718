"""The page of the guide, films of its examples, and trying them."""

from urllib.parse import urlencode

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.utils.html import escape
from django.utils.safestring import SafeString, mark_safe
from django.utils.text import slugify
from django.views.decorators.http import require_GET
from markdown_it import MarkdownIt

from balletto.picture.frame import Picture
from balletto.picture.preset_preview import PRESET_FRAMES
from balletto.scene import files
from web.pictures.films import film_response
from web.projects import history
from web.projects.models import Scene

from .examples import examples, shown
from .passages import found_for, parsed


@require_GET
def guide(request: HttpRequest) -> HttpResponse:
    """The guide; with ?find, what of it is about that stands above."""
    find = request.GET.get("find", "").strip()[:200]
    found = found_for(find) if find else []
    context = {"text": _text(), "sections": _sections(), "find": find, "found": found}
    return render(request, "guide/guide.html", context)


def _sections() -> list[tuple[str, str]]:
    """The headings of the guide, with their anchors."""
    tokens = parsed()
    return [
        (tokens[n + 1].content, slugify(tokens[n + 1].content))
        for n, token in enumerate(tokens)
        if token.type == "heading_open" and token.tag == "h2"
    ]


def _text() -> SafeString:
    """The guide as HTML: examples with their films, and what tries them."""
    markdown, known = MarkdownIt("commonmark").enable("table"), examples()

    def code(renderer: object, tokens: list, index: int, options: dict, env: dict) -> str:
        text = tokens[index].content
        if text not in known:
            return f"<code>{escape(text)}</code>"
        return _example(text, known.index(text), env.get("in_table", False))

    def opened(renderer: object, tokens: list, index: int, options: dict, env: dict) -> str:
        env["in_table"] = tokens[index].type == "table_open"
        return "<table>" if env["in_table"] else "</table>"

    def heading(renderer: object, tokens: list, index: int, options: dict, env: dict) -> str:
        token = tokens[index]
        return f'<{token.tag} id="{slugify(tokens[index + 1].content)}">'

    markdown.add_render_rule("code_inline", code)
    markdown.add_render_rule("table_open", opened)
    markdown.add_render_rule("table_close", opened)
    markdown.add_render_rule("heading_open", heading)
    # The title and the table of contents stand beside the text.
    tokens = parsed()
    first = next(n for n, each in enumerate(tokens) if each.tag == "h2")
    return mark_safe(markdown.renderer.render(tokens[first:], markdown.options, {}))  # noqa: S308


def _example(text: str, number: int, has_film: bool) -> str:
    """An example with what tries it; in a table also with its film."""
    film, trial = reverse("guide-film", args=[number]), reverse("guide-try", args=[number])
    shows = (
        f'<span class="film"><img loading="lazy" alt="" src="{film}"></span>' if has_film else ""
    )
    return (
        f'<span class="example">{shows}<code>{escape(text)}</code> '
        f'<a class="link-btn" href="{trial}" aria-label="Try “{escape(text)}”">Try it</a></span>'
    )


@require_GET
def film(request: HttpRequest, number: int) -> HttpResponse:
    """An example moving on a title: its frames one below the other."""
    document = shown(_numbered(number)) or {}
    key = f"guide:{history.digest_of(document)}"
    return film_response(
        key, lambda: Picture(files.from_data(document)), PRESET_FRAMES, is_kept=False
    )


@require_GET
def try_it(request: HttpRequest, number: int) -> HttpResponse:
    """Opens the scene that was worked on last, with an example in its line."""
    text = _numbered(number)
    own = Scene.objects.filter(project__owner=request.user, removed_at=None)
    last = own.filter(project__removed_at=None).order_by("-changed_at").first()
    if last is None:
        messages.info(request, f"Make a scene first, then say “{text}” in it.")
        return redirect("projects")
    return redirect(f"{reverse('workbench', args=[last.pk])}?{urlencode({'say': text})}")


def _numbered(number: int) -> str:
    try:
        return examples()[number]
    except IndexError:
        raise Http404 from None
