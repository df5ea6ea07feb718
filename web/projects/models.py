"""Projects, their scenes, and the revisions that keep every state of a scene."""

import json
from typing import Any

from django.conf import settings
from django.db import models

from web.pictures.looks import address_at

from .packing import packed, text_of, unpacked

# Of so many revisions one is kept whole, and those after it as what differs, unless that takes more
# than this share of the bytes.
_WHOLE_EVERY = 32
_WORTH_IT = 0.5


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
    packed = models.BinaryField(editable=False)  # the document, see `packing`
    basis = models.PositiveIntegerField(null=True)  # the revision that it is packed against
    digest = models.CharField(max_length=64)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, models.RESTRICT, related_name="+")
    take = models.ForeignKey(Take, models.SET_NULL, null=True, related_name="revisions")
    # What the page called the request that made it: one that is sent again is made once.
    request = models.CharField(max_length=40, null=True)  # noqa: DJ001 - null is not unique
    made_at = models.DateTimeField(auto_now_add=True)

    _document: dict[str, Any] | None = None

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

    def save(self, *args: Any, **more: Any) -> None:
        if not self.packed:
            self._pack(text_of(self.document))
        super().save(*args, **more)

    @property
    def document(self) -> dict[str, Any]:
        """The scene as it was then."""
        if self._document is None:
            self._document = json.loads(self._text())
        return self._document

    @document.setter
    def document(self, document: dict[str, Any]) -> None:
        self._document = document

    def _pack(self, text: bytes) -> None:
        """Packs a document against the newest one that is kept whole, if that makes it small."""
        near = self.scene.revisions.filter(
            basis=None, number__gt=self.number - _WHOLE_EVERY, number__lt=self.number
        )
        whole = near.only("packed", "basis", "scene", "number").order_by("-number").first()
        if whole is not None:
            differing = packed(text, whole._text())
            if len(differing) < len(whole.packed) * _WORTH_IT:
                self.packed, self.basis = differing, whole.number
                return
        self.packed, self.basis = packed(text), None

    def _text(self) -> bytes:
        if self.basis is None:
            return unpacked(bytes(self.packed))
        whole = Revision.objects.only("packed").get(scene=self.scene_id, number=self.basis)
        return unpacked(bytes(self.packed), unpacked(bytes(whole.packed)))
