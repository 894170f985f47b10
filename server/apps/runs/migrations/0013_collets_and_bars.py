"""A set-up may take a collet; documents get the section and length of bars, and steps that keep their flats."""

import django.db.models.deletion
from django.db import migrations, models

from ._documents import NewFacts

FACTS = NewFacts(
    hold={"bar_stop": "turret"},
    stock={"section": "round", "length_mm": None},
    step={"left": "turned"},
    rules={"friction_hard": 0.30, "friction_collet": 0.12, "friction_collet_serrated": 0.20},
)


class Migration(migrations.Migration):
    dependencies = [("runs", "0012_documents_with_directions"), ("shelf", "0008_collets_and_second_spindles")]
    operations = [
        migrations.AddField(
            model_name="runsetup",
            name="collet",
            field=models.ForeignKey(
                blank=True, null=True, on_delete=django.db.models.deletion.PROTECT, to="shelf.collet"
            ),
        ),
        migrations.RunPython(FACTS.fill, migrations.RunPython.noop),
    ]
