"""Renders: clips that are asked for, being drawn, or done; the segments of each; and how long they
are kept."""

import uuid

from django.conf import settings
from django.db import models
from django.db.models import Q, Sum
from django.utils.functional import cached_property

from balletto.clip.export_settings import ExportSettings, export_settings_of
from web.pictures.looks import address
from web.projects.models import Scene


class State(models.TextChoices):
    """What a render or a segment is at.

    waiting: nobody works on it yet. drawing: a worker does. finished: done, with its file.
    failed: given up, with a reason. cancelled: stopped by a person.
    """

    WAITING = "waiting"
    DRAWING = "drawing"
    FINISHED = "finished"
    FAILED = "failed"
    CANCELLED = "cancelled"


UNFINISHED = (State.WAITING, State.DRAWING)


class Renders(models.QuerySet):
    """Renders as lists need them: without their documents, which are large."""

    def listed(self) -> "Renders":
        """Each with how many of its frames are drawn, as `drawn`; the newest first."""
        drawn = Sum("segments__frames_done", filter=Q(segments__joins=False), default=0)
        # Sums leave the usual order out.
        return self.defer("document").annotate(drawn=drawn).order_by(*self.model._meta.ordering)


class Render(models.Model):
    """A clip of a scene as it was when the clip was asked for."""

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="renders")
    scene = models.ForeignKey(Scene, models.SET_NULL, null=True, related_name="renders")
    name = models.CharField(max_length=200)
    document = models.JSONField()
    digest = models.CharField(max_length=64)
    export_settings = models.JSONField()  # as balletto.clip.export_settings.ExportSettings says it
    count = models.PositiveIntegerField()  # frames that the clip has
    priority = models.IntegerField(default=0)  # the highest is drawn first
    # How many workers may draw it side by side; none before it was measured.
    workers = models.PositiveSmallIntegerField(null=True)
    state = models.CharField(max_length=10, choices=State, default=State.WAITING, db_index=True)
    reason = models.CharField(max_length=500, blank=True)  # of a failure, for people
    folder = models.UUIDField(default=uuid.uuid4)
    bytes = models.PositiveBigIntegerField(default=0)
    asked_at = models.DateTimeField(auto_now_add=True)
    started_at = models.DateTimeField(null=True)
    ended_at = models.DateTimeField(null=True)

    objects = Renders.as_manager()

    class Meta:
        ordering = ["-asked_at", "-pk"]

    def __str__(self) -> str:
        return self.name

    @property
    def address(self) -> str:
        """What its picture depends on: its document, and the files that this shows."""
        return address(self.digest, self.owner_id, lambda: self.document)

    @cached_property
    def export(self) -> ExportSettings:
        """How the clip is made."""
        return export_settings_of(self.export_settings)

    @property
    def is_unfinished(self) -> bool:
        return self.state in UNFINISHED


class Segment(models.Model):
    """A part of a render that one worker makes in one go: some of the clip's frames, or as the last
    of all the file that is put together of them, which has no frames of its own."""

    render = models.ForeignKey(Render, models.CASCADE, related_name="segments")
    number = models.PositiveIntegerField()
    joins = models.BooleanField(default=False)
    first = models.PositiveIntegerField()
    end = models.PositiveIntegerField()  # not included
    state = models.CharField(max_length=10, choices=State, default=State.WAITING)
    frames_done = models.PositiveIntegerField(default=0)
    attempts = models.PositiveIntegerField(default=0)
    worker = models.CharField(max_length=100, blank=True)  # the machine that made or makes it
    seen_at = models.DateTimeField(null=True)  # when its worker last said that it is alive

    class Meta:
        ordering = ["number"]
        constraints = [
            models.UniqueConstraint(fields=["render", "number"], name="one_segment_a_number")
        ]

    def __str__(self) -> str:
        return f"{self.render}, segment {self.number}"


class Retention(models.Model):
    """The rule of a person by which old renders go: so many days after they ended."""

    owner = models.OneToOneField(settings.AUTH_USER_MODEL, models.CASCADE, related_name="retention")
    days = models.PositiveIntegerField(null=True)  # none: they are kept for ever

    def __str__(self) -> str:
        return f"{self.owner}: {self.days or 'for ever'}"
