"""Small helpers of the templates, available in all of them."""

import json
from typing import Any

from django import template
from django.utils.html import format_html, format_html_join

register = template.Library()


@register.simple_tag
def icon(name: str) -> str:
    """A 16 px stroke icon of our own: {% icon "name" %} refers to templates/parts/sprite.html."""
    return format_html('<svg class="ic" aria-hidden="true"><use href="#i-{}"/></svg>', name)


@register.simple_tag
def do_button(action: dict[str, Any]) -> str:
    """A small button that makes an edit: {"label", "edit"}."""
    words = '<button type="button" class="btn btn--sm" data-do="{}">{}</button>'
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


@register.filter
def unlocalized(value: float) -> str:
    """A number as style sheets write it."""
    return f"{value:g}"
