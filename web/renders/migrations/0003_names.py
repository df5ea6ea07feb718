import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("renders", "0002_formats")]
    operations = [
        migrations.RenameField("render", "making", "export_settings"),
        migrations.RenameModel("Keeping", "Retention"),
        migrations.AlterField(
            "retention",
            "owner",
            models.OneToOneField(
                on_delete=django.db.models.deletion.CASCADE,
                related_name="retention",
                to=settings.AUTH_USER_MODEL,
            ),
        ),
    ]
