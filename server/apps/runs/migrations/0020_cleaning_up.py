"""Cuts tell whether they go over what is cut already; what is kept of how a plan stands tells its tools."""

from django.db import migrations

from ._documents import NewFacts

FACTS = NewFacts(
    cut={"cleans": False}, rules={"machine_limits": "narrowed", "kept_back_pct": 33.0, "uncertainty_mm": 0.003}
)


def forget(apps, _):
    """What is kept of how plans stand lacks their tools: it is computed again."""
    apps.get_model("runs", "Run").objects.update(stands_on="")


class Migration(migrations.Migration):
    dependencies = [("runs", "0019_by_the_clock")]
    operations = [
        migrations.RunPython(FACTS.fill, migrations.RunPython.noop),
        migrations.RunPython(forget, migrations.RunPython.noop),
    ]
