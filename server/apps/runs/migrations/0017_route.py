"""Plans have a stop Route: their rules say what a piece, a run and a set-up take beside the cutting. What is
kept of how plans stand lacks it, and is computed again.
"""

from django.db import migrations

from ._documents import NewFacts

FACTS = NewFacts(
    rules={
        "utilisation_pct": 85.0,
        "scrap_pct": 2.0,
        "chuck_s": 2.0,
        "door_s": 4.0,
        "load_s": 20.0,
        "load_s_kg": 2.0,
        "bar_feed_s": 4.0,
        "transfer_s": 6.0,
        "catch_s": 2.0,
        "bar_change_min": 3.0,
        "mount_min": 10.0,
        "bore_min": 15.0,
        "tool_min": 4.0,
        "touch_min": 1.0,
        "prove_min": 15.0,
        "first_off_min": 15.0,
    }
)


def forget(apps, _):
    """What is kept counts no more."""
    apps.get_model("runs", "Run").objects.update(stands_on="")


class Migration(migrations.Migration):
    dependencies = [("runs", "0016_bench_figures")]
    operations = [
        migrations.RunPython(FACTS.fill, migrations.RunPython.noop),
        migrations.RunPython(forget, migrations.RunPython.noop),
    ]
