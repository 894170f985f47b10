"""Documents say what of them was proposed and not looked at yet: nothing of those there were."""

from django.db import migrations


def fill(apps, _):
    """Into every document, and into whole plans that edits hold."""
    for model in ("Run", "Release"):
        for one in apps.get_model("runs", model).objects.all().iterator():
            one.document = {"proposed": [], **one.document}
            one.save(update_fields=["document"])
    for edit in apps.get_model("runs", "Edit").objects.filter(path="plan").iterator():
        for whole in (edit.old, edit.new):
            if whole and "document" in whole:
                whole["document"] = {"proposed": [], **whole["document"]}
        edit.save(update_fields=["old", "new"])


class Migration(migrations.Migration):
    dependencies = [("runs", "0014_standing_that_holds")]
    operations = [migrations.RunPython(fill, migrations.RunPython.noop)]
