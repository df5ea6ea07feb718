"""Small helpers of the templates, available in all of them."""

import json
from functools import lru_cache
from pathlib import Path
from typing import Any

from django import template
from django.contrib.staticfiles import finders
from django.templatetags.static import static
from django.utils.html import format_html, format_html_join

from balletto.lettering.families import FAMILIES, FOLDER
from web.workbench.sentences.drawings import drawing_of

register = template.Library()


@register.simple_tag
def icon(name: str) -> str:
    """A 16 px stroke icon of our own: {% icon "name" %} refers to templates/parts/sprite.html."""
    return format_html('<svg class="ic" aria-hidden="true"><use href="#i-{}"/></svg>', name)


@register.simple_tag
def came_button(path: str) -> str:
    """A small button that puts a part back to what it was when it was added."""
    return do_button({"label": "as it came", "edit": {"name": "as-it-came", "path": path}})


@register.simple_tag
def do_button(action: dict[str, Any]) -> str:
    """A small button that makes an edit: {"label", "edit"}."""
    words = '<button type="button" class="btn btn--sm" data-do="{}">{}</button>'
    return format_html(words, json.dumps(action["edit"]), action["label"])


@register.simple_tag
def do_offer(action: dict[str, Any], group: str) -> str:
    """What a sentence can go on with: a button with a drawing that makes an edit."""
    words = (
        '<button type="button" class="offer" data-do="{}"><svg class="drawn" viewBox="0 0 36 20" '
        'aria-hidden="true"><path d="{}"/></svg>{}</button>'
    )
    drawing = drawing_of(action.get("drawing", group))
    return format_html(words, json.dumps(action["edit"]), drawing, action["label"])


@register.simple_tag
def do_option(action: dict[str, Any]) -> str:
    """An entry of a list that makes an edit."""
    words = '<button type="button" role="option" aria-selected="false" data-do="{}">{}</button>'
    return format_html(words, json.dumps(action["edit"]), action["label"])


@register.simple_tag
def do_icon(name: str, label: str, edit: dict[str, Any]) -> str:
    """A small button with an icon that makes an edit."""
    return format_html(
        '<button type="button" class="icon-btn sm" aria-label="{}" title="{}" data-do="{}">{}'
        "</button>",
        label,
        label,
        json.dumps(edit),
        icon(name),
    )


@register.simple_tag
def options(named: list[tuple[str, str]]) -> str:
    """The options of a list: values with how they are called."""
    return format_html_join("", '<option value="{}">{}</option>', named)


@register.simple_tag
@lru_cache
def module_preloads(folder: str) -> str:
    """Lets a browser ask for all scripts of a folder at once, not first for those that import
    others."""
    scripts = sorted(Path(finders.find(folder)).glob("*.js"))
    links = ((static(f"{folder}/{script.name}"),) for script in scripts)
    return format_html_join("\n", '<link rel="modulepreload" href="{}">', links)


@register.simple_tag
def font_preload(family: str) -> str:
    """Lets a browser ask for the letters of a family that are needed most before it has read the
    style sheets, so that the page is not laid out twice."""
    address = static(f"fonts/{FAMILIES[family].files[0].relative_to(FOLDER)}")
    link = '<link rel="preload" href="{}" as="font" type="font/woff2" crossorigin>'
    return format_html(link, address)


@register.filter
def unlocalized(value: float) -> str:
    """A number as style sheets write it."""
    return f"{value:g}"
