"""Plan documents get the facts of tools and operations, each as it is while nobody said anything."""

from django.db import migrations

from calc.errors import CalcError
from calc.plan.upgrade import upgraded


def _plan(value):
    try:
        return {**value, "document": upgraded(value["document"])} if value else value
    except (CalcError, KeyError, TypeError):
        return value  # what no form fits stays as it was kept


def forward(apps, schema_editor):
    run_model, edit_model = apps.get_model("runs", "Run"), apps.get_model("runs", "Edit")
    for run in run_model.objects.iterator():
        run.document = upgraded(run.document)
        run.standing = {}  # written again when the application starts
        run.save(update_fields=["document", "standing"])
    for edit in edit_model.objects.filter(path="plan").iterator():
        edit.old, edit.new = _plan(edit.old), _plan(edit.new)
        edit.save(update_fields=["old", "new"])


class Migration(migrations.Migration):
    dependencies = [("runs", "0005_releases")]
    operations = [migrations.RunPython(forward, migrations.RunPython.noop)]
