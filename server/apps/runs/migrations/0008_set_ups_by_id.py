"""A set-up is told by its id: its place is the document's."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("runs", "0007_items_with_ids")]
    operations = [
        migrations.AlterModelOptions("runsetup", {"ordering": ["pk"]}),
        migrations.RemoveConstraint("runsetup", "run_setup_once"),
        migrations.RemoveField("runsetup", "position"),
        migrations.AlterField(
            "runsetup", "item", models.CharField(max_length=12, help_text="The set-up's id in the document")
        ),
        migrations.AddConstraint("runsetup", models.UniqueConstraint(fields=["run", "item"], name="run_setup_once")),
    ]
