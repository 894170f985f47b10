"""A run may be one reading of a card."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("gauge", "0001_initial")]

    operations = [
        migrations.AlterField(
            "gaugerun",
            "source",
            models.CharField(choices=[("typed", "typed"), ("live", "live"), ("card", "card")], max_length=5),
        )
    ]
