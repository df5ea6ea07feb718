"""Files that scenes show or sound."""

from django.conf import settings
from django.db import models

from balletto.lettering.font_files import RESTRICTED


class MediaFile(models.Model):
    """A picture, video or sound of a person's own. `name` is what scenes call it: that of the file
    as it came (`title`), with a mark of its content, so that it never means another."""

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="media")
    name = models.CharField(max_length=120)
    title = models.CharField(max_length=200)
    kind = models.CharField(max_length=10)  # still, video or sound
    bytes = models.PositiveBigIntegerField()
    width = models.PositiveIntegerField(default=0)
    height = models.PositiveIntegerField(default=0)
    seconds = models.FloatField(default=0)
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-made_at", "-pk"]
        constraints = [models.UniqueConstraint(fields=["owner", "name"], name="one_file_a_name")]

    def __str__(self) -> str:
        return self.title

    @property
    def about(self) -> str:
        """What it is, in a few words."""
        size = f"{self.width} × {self.height}" if self.width else ""
        lasts = f"{self.seconds:.1f} s" if self.seconds else ""
        return ", ".join(part for part in (size, lasts) if part)


class FontFile(models.Model):
    """A font of a person's own, in a file of its own. `name` is that of the file, a mark of its
    content; scenes know a font by its family."""

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="fonts")
    name = models.CharField(max_length=60)
    family = models.CharField(max_length=100)
    style = models.CharField(max_length=100)
    weight = models.FloatField()
    width = models.FloatField()
    is_italic = models.BooleanField()
    kind = models.CharField(max_length=10)
    axes = models.JSONField(default=list)  # tag, name, low, default, high
    features = models.JSONField(default=list)
    scripts = models.JSONField(default=list)
    glyphs = models.PositiveIntegerField()
    licence = models.CharField(max_length=400, blank=True)
    embedding = models.CharField(max_length=12)
    is_colored = models.BooleanField(default=False)
    bytes = models.PositiveBigIntegerField()
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["family", "is_italic", "width", "weight", "pk"]
        constraints = [models.UniqueConstraint(fields=["owner", "name"], name="one_font_a_name")]

    def __str__(self) -> str:
        return f"{self.family} {self.style}"

    @property
    def may_travel(self) -> bool:
        """Whether its maker lets it travel with a scene."""
        return self.embedding != RESTRICTED
