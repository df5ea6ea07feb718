# What is removed lies in a bin first.

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("projects", "0004_request")]

    operations = [
        migrations.AddField(
            model, "removed_at", models.DateTimeField(null=True, db_index=True)
        )
        for model in ("project", "scene")
    ]
