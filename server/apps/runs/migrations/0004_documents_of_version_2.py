"""Plan documents of version 1 become version 2: a profile of steps, stock of its own, two sides."""

from django.db import migrations

from ._documents import version_2


def forward(apps, schema_editor):
    for run in apps.get_model("runs", "Run").objects.iterator():
        run.document = version_2(run.document)
        run.standing = {}  # written again when the application starts, as after every change of the core
        run.save(update_fields=["document", "standing"])


class Migration(migrations.Migration):
    dependencies = [("runs", "0003_two_sides")]
    operations = [migrations.RunPython(forward, migrations.RunPython.noop)]
