"""Plans tell when their set-up begins and which tools stay, and a cut its station and its time by the clock."""

from django.db import migrations

from ._documents import NewFacts

FACTS = NewFacts(
    route={"start": None, "stay": 0, "follow": "batches"},
    cut={"station": None, "clocked_s": None},
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
