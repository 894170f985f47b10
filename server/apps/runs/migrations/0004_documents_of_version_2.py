"""Plan documents of version 1 become version 2: a profile of steps, stock of its own, two sides."""

from django.db import migrations

from calc.errors import CalcError
from calc.plan.upgrade import upgraded, upgraded_steps

STEPS = "part.profile.outside"


def _value(path, value):
    """An edit's value in the form of today; what no form fits stays as it was kept."""
    try:
        if path == "plan" and value:
            return {**value, "document": upgraded(value["document"])}
    except (CalcError, KeyError, TypeError):
        return value
    return upgraded_steps(value) if path == STEPS and isinstance(value, list) else value


def forward(apps, schema_editor):
    run_model, edit_model = apps.get_model("runs", "Run"), apps.get_model("runs", "Edit")
    for run in run_model.objects.iterator():
        run.document = upgraded(run.document)
        run.standing = {}  # written again when the application starts, as after every change of the core
        run.save(update_fields=["document", "standing"])
    for edit in edit_model.objects.filter(path__in=["plan", STEPS]).iterator():
        edit.old, edit.new = _value(edit.path, edit.old), _value(edit.path, edit.new)
        edit.save(update_fields=["old", "new"])


class Migration(migrations.Migration):
    dependencies = [("runs", "0003_two_sides")]
    operations = [migrations.RunPython(forward, migrations.RunPython.noop)]
