"""Documents of revisions are kept compressed: where they come to stand."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("projects", "0006_author")]

    operations = [
        migrations.AddField(
            model_name="revision",
            name="packed",
            field=models.BinaryField(default=b"", editable=False),
            preserve_default=False,
        ),
        migrations.AddField(
            model_name="revision",
            name="basis",
            field=models.PositiveIntegerField(null=True),
        ),
        # May be empty, so that the way back has somewhere to write to.
        migrations.AlterField(
            model_name="revision", name="document", field=models.JSONField(null=True)
        ),
    ]
