"""What every page says about renders."""

from django.http import HttpRequest
from django.utils.functional import SimpleLazyObject

from .models import UNFINISHED


def unfinished_renders(request: HttpRequest) -> dict:
    """How many of the person's renders are not done yet; counted only where it is shown."""

    def count() -> int:
        if not request.user.is_authenticated:
            return 0
        return request.user.renders.filter(state__in=UNFINISHED).count()

    return {"unfinished_renders": SimpleLazyObject(count)}
