"""Documents get the facts that came with what a plan must refuse; so do the cuts and set-ups that edits hold."""

from django.db import migrations

from ._documents import NewFacts

FACTS = NewFacts(
    hold={"stick_out_mm": None, "centre_hole_mm": None},
    jaws={"recess_mm": None},
    cut={"clamp_rpm": None},
    rules={"clearance_mm": 1.0, "edge_change_min": 2.0},
)


class Migration(migrations.Migration):
    dependencies = [("runs", "0010_releases_with_cuts_in_the_chart")]
    operations = [migrations.RunPython(FACTS.fill, migrations.RunPython.noop)]
