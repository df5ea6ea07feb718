"""Documents of revisions stand packed alone."""

from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [("projects", "0008_pack")]

    operations = [migrations.RemoveField(model_name="revision", name="document")]
