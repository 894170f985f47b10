"""The bench shows five figures of each side: what is kept of how plans stand lacks them, and is computed again."""

from django.db import migrations, models


def forget(apps, _):
    """What is kept counts no more."""
    apps.get_model("runs", "Run").objects.update(stands_on="")


class Migration(migrations.Migration):
    dependencies = [("runs", "0015_documents_with_marks")]
    operations = [
        migrations.AddField(
            "release",
            "figures",
            models.JSONField(default=dict, help_text="Units -> what the bench shows of each side, by name"),
        ),
        migrations.AlterField(
            "run",
            "standing",
            models.JSONField(
                default=dict, help_text="Lines of the stops, what is needed, figures of the bench and the history"
            ),
        ),
        migrations.AlterField(
            "release",
            "form",
            models.PositiveSmallIntegerField(default=5, help_text="Of the views; earlier ones are read as today's"),
        ),
        migrations.RunPython(forget, migrations.RunPython.noop),
    ]
