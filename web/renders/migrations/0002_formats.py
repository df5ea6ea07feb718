"""Renders in any format, put together by a segment of their own, in an order, kept by a rule."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models


def keep_renders(apps, schema_editor):
    """Renders so far are MP4s of their scenes; their segments count the frames of the clip."""
    for render in apps.get_model("renders", "Render").objects.iterator():
        document = render.document
        render.making = {
            "format": "mp4",
            "size": document["size"],
            "rate": document["rate"],
            "frames": [render.first, render.end],
            "fit": None,
            "quality": 80,
            "loops": 0,
        }
        render.count = render.end - render.first
        render.workers = 1
        render.save(update_fields=["making", "count", "workers"])
        segments = render.segments.all()
        segments.update(first=models.F("first") - render.first, end=models.F("end") - render.first)
        if render.state in ("waiting", "drawing"):
            number = segments.count()
            render.segments.create(number=number, joins=True, first=0, end=0)


class Migration(migrations.Migration):
    dependencies = [
        ("renders", "0001_initial"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.AddField("render", "making", models.JSONField(default=dict)),
        migrations.AddField("render", "count", models.PositiveIntegerField(default=0)),
        migrations.AddField("render", "priority", models.IntegerField(default=0)),
        migrations.AddField("render", "workers", models.PositiveSmallIntegerField(null=True)),
        migrations.AddField("segment", "joins", models.BooleanField(default=False)),
        migrations.AddField("segment", "worker", models.CharField(max_length=100, blank=True, default=""), preserve_default=False),
        migrations.RunPython(keep_renders, migrations.RunPython.noop),
        migrations.RemoveField("render", "first"),
        migrations.RemoveField("render", "end"),
        migrations.AlterField("render", "making", models.JSONField()),
        migrations.AlterField("render", "count", models.PositiveIntegerField()),
        migrations.CreateModel(
            name="Keeping",
            fields=[
                ("id", models.BigAutoField(primary_key=True, serialize=False, verbose_name="ID", auto_created=True)),
                ("days", models.PositiveIntegerField(null=True)),
                (
                    "owner",
                    models.OneToOneField(
                        on_delete=django.db.models.deletion.CASCADE,
                        related_name="keeping",
                        to=settings.AUTH_USER_MODEL,
                    ),
                ),
            ],
        ),
    ]
