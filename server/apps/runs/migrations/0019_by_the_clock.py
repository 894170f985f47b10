"""Plans tell when their set-up begins and which tools stay, a cut its station and its time by the clock; rules what a
minute and an edge cost, and whether a check stops the machine.
"""

from django.db import migrations

from ._documents import NewFacts

FACTS = NewFacts(
    route={"start": None, "stay": 0, "follow": "batches", "order": ""},
    cut={"station": None, "peck_mm": None, "clocked_s": None},
    rules={"check_pieces": 20, "check_s": 0.0, "minute_cost": 0.0, "edge_cost": 0.0},
)


def forget(apps, _):
    """What is kept of how plans stand lacks their minutes: it is computed again."""
    apps.get_model("runs", "Run").objects.update(stands_on="")


class Migration(migrations.Migration):
    dependencies = [("runs", "0018_continues")]
    operations = [
        migrations.RunPython(FACTS.fill, migrations.RunPython.noop),
        migrations.RunPython(forget, migrations.RunPython.noop),
    ]
