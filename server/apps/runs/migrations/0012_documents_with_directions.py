"""Documents get the spindle's direction of each cut and a live centre's thrust."""

from django.db import migrations

from ._documents import NewFacts

FACTS = NewFacts(hold={"centre_thrust_n": None}, cut={"turns": "M03"})


class Migration(migrations.Migration):
    dependencies = [("runs", "0011_documents_with_clamps")]
    operations = [migrations.RunPython(FACTS.fill, migrations.RunPython.noop)]
