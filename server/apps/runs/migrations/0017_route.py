"""Plans have a stop Route: what is kept of how they stand lacks it, and is computed again."""

from django.db import migrations


def forget(apps, _):
    """What is kept counts no more."""
    apps.get_model("runs", "Run").objects.update(stands_on="")


class Migration(migrations.Migration):
    dependencies = [("runs", "0016_bench_figures")]
    operations = [migrations.RunPython(forget, migrations.RunPython.noop)]
