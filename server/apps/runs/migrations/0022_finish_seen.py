"""Rules tell whether a finish is predicted with what was read at the machine."""

from django.db import migrations

from ._documents import NewFacts

FACTS = NewFacts(rules={"finish_from": "measured"})


class Migration(migrations.Migration):
    dependencies = [("runs", "0021_places")]
    operations = [migrations.RunPython(FACTS.fill, migrations.RunPython.noop)]
