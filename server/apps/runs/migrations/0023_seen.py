"""Plans tell how long an edge of a cut really lasted, and how often a piece really came; a run how it goes."""

from django.db import migrations, models

from ._documents import NewFacts

FACTS = NewFacts(route={"seen_s": None}, cut={"lasted_pieces": None})


class Migration(migrations.Migration):
    dependencies = [("runs", "0022_finish_seen")]
    operations = [
        migrations.AddField(
            "run",
            "really",
            models.JSONField(
                null=True,
                default=None,
                blank=True,
                help_text="How it goes at the machine once pieces come: began, at [s since 1970], left_min, said",
            ),
        ),
        migrations.RunPython(FACTS.fill, migrations.RunPython.noop),
    ]
