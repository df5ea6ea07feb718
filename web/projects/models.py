"""Projects, their scenes, and the revisions that keep every state of a scene."""

from django.conf import settings
from django.db import models

from web.pictures.looks import address_at


class Project(models.Model):
    """Scenes that belong together; private to its owner."""

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="projects")
    name = models.CharField(max_length=200)
    made_at = models.DateTimeField(auto_now_add=True)
    removed_at = models.DateTimeField(null=True, db_index=True)  # lies in the bin since then

    class Meta:
        ordering = ["-made_at"]

    def __str__(self) -> str:
        return self.name


class Scene(models.Model):
    """A scene; what is in it stands in its newest revision."""

    project = models.ForeignKey(Project, models.CASCADE, related_name="scenes")
    name = models.CharField(max_length=200)
    head = models.PositiveIntegerField(default=1)  # the number of the newest revision
    digest = models.CharField(max_length=64)  # of the newest document
    made_at = models.DateTimeField(auto_now_add=True)
    changed_at = models.DateTimeField(auto_now=True)
    removed_at = models.DateTimeField(null=True, db_index=True)  # lies in the bin since then

    class Meta:
        ordering = ["made_at"]

    def __str__(self) -> str:
        return self.name

    @property
    def address(self) -> str:
        """How pictures of its newest state are asked for."""
        return address_at(self, self.digest)


class Take(models.Model):
    """A version of a scene that is kept beside others. What is in it stands in the newest revision
    that was made in it."""

    scene = models.ForeignKey(Scene, models.CASCADE, related_name="takes")
    name = models.CharField(max_length=60)
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return f"{self.scene}, {self.name}"


class Revision(models.Model):
    """One state of a scene, never changed once made.

    An undo or redo is a revision too. `state` is the number of the revision whose document this
    one has: its own for an edit, an older one for an undo. `before` is the state that an edit was
    made on, so that the states form a tree, and undo and redo walk along it.
    """

    scene = models.ForeignKey(Scene, models.CASCADE, related_name="revisions")
    number = models.PositiveIntegerField()
    state = models.PositiveIntegerField()
    before = models.PositiveIntegerField(null=True)
    label = models.CharField(max_length=300)
    edit = models.JSONField()
    inverse = models.JSONField(null=True)
    document = models.JSONField()
    digest = models.CharField(max_length=64)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, models.RESTRICT, related_name="+")
    take = models.ForeignKey(Take, models.SET_NULL, null=True, related_name="revisions")
    # What the page called the request that made it: one that is sent again is made once.
    request = models.CharField(max_length=40, null=True)  # noqa: DJ001 - null is not unique
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["number"]
        constraints = [
            models.UniqueConstraint(fields=["scene", "number"], name="one_revision_a_number"),
            models.UniqueConstraint(fields=["scene", "request"], name="one_revision_a_request"),
        ]
        indexes = [
            models.Index(fields=["scene", "digest"], name="by_digest"),
            models.Index(fields=["scene", "before"], name="by_state_before"),
        ]

    def __str__(self) -> str:
        return f"{self.scene} {self.number}: {self.label}"
