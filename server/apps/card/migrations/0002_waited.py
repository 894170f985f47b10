import django.utils.timezone
from django.db import migrations, models
from django.db.models import F


def came_when_done(apps, schema_editor):
    """Until now everything came as it was done."""
    for name in ("Mark", "Reading"):
        apps.get_model("card", name).objects.update(came_at=F("at"))


def came(model):
    return migrations.AddField(
        model,
        "came_at",
        models.DateTimeField(auto_now_add=True, default=django.utils.timezone.now),
        preserve_default=False,
    )


class Migration(migrations.Migration):
    dependencies = [("card", "0001_initial")]

    operations = [
        came("mark"),
        came("reading"),
        migrations.AddField(
            "reading",
            "twice",
            models.BooleanField(
                default=False, help_text="It and one of another tablet were made without knowing of each other"
            ),
        ),
        migrations.AlterField(
            "mark", "at", models.DateTimeField(help_text="When it was done, as the tablet says that it was done on")
        ),
        migrations.AlterField(
            "reading", "at", models.DateTimeField(help_text="When it was read, as the tablet says that it was read on")
        ),
        migrations.AlterModelOptions("mark", {"ordering": ["at", "pk"]}),
        migrations.AlterModelOptions("reading", {"ordering": ["at", "pk"]}),
        migrations.RunPython(came_when_done, migrations.RunPython.noop),
    ]
