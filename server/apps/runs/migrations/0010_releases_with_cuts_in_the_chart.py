"""Releases from now on have their cuts in the chart; those of before keep their form and are read as today's."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("runs", "0009_releases_in_parts")]
    operations = [
        migrations.AlterField(
            model_name="release",
            name="form",
            field=models.PositiveSmallIntegerField(
                default=4, help_text="Of the views; earlier ones are read as today's"
            ),
        )
    ]
