"""Releases from now on are frozen in parts; those of before keep their form and are read as today's."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("runs", "0008_set_ups_by_id")]
    operations = [
        migrations.AlterField(
            model_name="release",
            name="form",
            field=models.PositiveSmallIntegerField(
                default=3, help_text="Of the views; earlier ones are read as today's"
            ),
        )
    ]
