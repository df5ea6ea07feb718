"""Invitations: each lets one person make an account."""

import hashlib
import secrets
from datetime import timedelta

from django.conf import settings
from django.db import models
from django.utils import timezone

VALID_FOR = timedelta(days=14)


class Invitation(models.Model):
    """A code that was given to somebody. What is kept is its digest: who reads the database cannot
    use it."""

    digest = models.CharField(max_length=64, unique=True)
    made_at = models.DateTimeField(auto_now_add=True)
    used_at = models.DateTimeField(null=True)
    used_by = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True)

    def __str__(self) -> str:
        return f"Invitation of {self.made_at:%d %B %Y}"


def invite() -> str:
    """The code of a new invitation, which is told this once."""
    code = secrets.token_urlsafe(16)
    Invitation.objects.create(digest=_digest(code))
    return code


def invitation_for(code: str) -> Invitation | None:
    """The invitation that a code is of, locked within the transaction; None if it was used, is too
    old, or is none."""
    since = timezone.now() - VALID_FOR
    fresh = Invitation.objects.select_for_update().filter(used_at=None, made_at__gt=since)
    return fresh.filter(digest=_digest(code.strip())).first()


def _digest(code: str) -> str:
    return hashlib.sha256(code.encode()).hexdigest()
