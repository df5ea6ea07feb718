"""Small helpers of the templates, available in all of them."""

import json
from typing import Any

from django import template
from django.utils.html import format_html

register = template.Library()


@register.simple_tag
def icon(name: str) -> str:
    """A 16 px stroke icon of our own: {% icon "name" %} refers to templates/parts/sprite.html."""
    return format_html('<svg class="ic" aria-hidden="true"><use href="#i-{}"/></svg>', name)


@register.filter
def json_text(value: Any) -> str:
    """The value as JSON, to be escaped like any text."""
    return json.dumps(value)


@register.filter
def unlocalized(value: float) -> str:
    """A number as style sheets write it."""
    return f"{value:g}"
