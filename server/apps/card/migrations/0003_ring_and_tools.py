"""A reading is kept against the ring and the tool that it tells of, too."""

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("card", "0002_waited"), ("shelf", "0012_bends_times")]

    operations = [
        migrations.AddField(
            "reading",
            "ring",
            models.ForeignKey(
                blank=True,
                help_text="What the jaws were cut on",
                null=True,
                on_delete=django.db.models.deletion.PROTECT,
                to="shelf.ring",
            ),
        ),
        migrations.AddField(
            "reading",
            "tools",
            models.ManyToManyField(help_text="The edge that it tells of, and what carries it", to="shelf.tool"),
        ),
    ]
