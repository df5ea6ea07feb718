# A request of the page that is sent again is made once.

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("projects", "0003_takes")]

    operations = [
        migrations.AddField(
            "revision", "request", models.CharField(max_length=40, null=True)
        ),
        migrations.AddConstraint(
            "revision",
            models.UniqueConstraint(
                fields=["scene", "request"], name="one_revision_a_request"
            ),
        ),
    ]
