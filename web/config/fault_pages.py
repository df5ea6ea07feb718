"""What a browser is shown where a page cannot be: what went wrong, and what to do. These pages need
neither the database nor who asks."""

import sys
from dataclasses import dataclass
from typing import Any

from django.db import InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse
from django.template.loader import get_template
from redis.exceptions import ConnectionError as RedisAway
from redis.exceptions import TimeoutError as RedisSlow

_AWAY = (OperationalError, InterfaceError, RedisAway, RedisSlow)
_AGAIN_S = 3  # until a page that could not be shown is asked for again by itself


@dataclass(frozen=True)
class FaultPage:
    """What went wrong, and what to do."""

    status: int
    title: str
    told: str


NOT_FOUND = FaultPage(
    404,
    "Nothing is here",
    "What this address named was removed, or belongs to another account.",
)
REFUSED = FaultPage(403, "This is not allowed", "The account that you use may not open this.")
TOO_OLD = FaultPage(
    403,
    "This page was open for too long",
    "Nothing was changed. Go back, load the page anew, and do it again.",
)
UNREADABLE = FaultPage(
    400, "This cannot be read", "The address or what was sent with it is damaged."
)
BROKEN = FaultPage(
    500,
    "Balletto has a fault here",
    "It was written into the log, and nothing that was kept is lost: go back and try again.",
)
AWAY = FaultPage(
    503,
    "One moment",
    "What keeps the scenes does not answer just now. Nothing that was kept is lost.",
)


def _shown(request: HttpRequest, fault: FaultPage) -> HttpResponse:
    # A form is not sent again by itself.
    again_s = _AGAIN_S if fault is AWAY and request.method == "GET" else None
    context = {"request": request, "fault": fault, "again_s": again_s}
    response = HttpResponse(get_template("fault.html").render(context), status=fault.status)
    if fault is AWAY:
        response["Retry-After"] = str(_AGAIN_S)
    return response


def not_found(request: HttpRequest, exception: Any) -> HttpResponse:
    """For addresses of nothing."""
    return _shown(request, NOT_FOUND)


def refused(request: HttpRequest, exception: Any) -> HttpResponse:
    """For what an account may not do."""
    return _shown(request, REFUSED)


def too_old(request: HttpRequest, reason: str = "") -> HttpResponse:
    """For forms whose token is not this browser's any more."""
    return _shown(request, TOO_OLD)


def unreadable(request: HttpRequest, exception: Any) -> HttpResponse:
    """For requests that are none."""
    return _shown(request, UNREADABLE)


def broken(request: HttpRequest) -> HttpResponse:
    """For errors that nobody expected: of ours, or of what is not there just now."""
    return _shown(request, AWAY if isinstance(sys.exc_info()[1], _AWAY) else BROKEN)
