"""How a lathe moves and indexes: typical for those on the shelf, until the shop gives its own."""

from django.db import migrations, models

TYPICAL = [
    "index_first_s",
    "index_further_s",
    "rapid_x_m_min",
    "rapid_z_m_min",
    "acceleration_m_s2",
    "spindle_s",
    "change_x_mm",
    "change_z_mm",
]


def mark(apps, _):
    """Nobody gave these."""
    for machine in apps.get_model("shelf", "Machine").objects.all():
        machine.typical = sorted({*machine.typical, *TYPICAL})
        machine.save(update_fields=["typical"])


class Migration(migrations.Migration):
    dependencies = [("shelf", "0008_collets_and_second_spindles")]

    operations = [
        migrations.AddField(model_name="machine", name="acceleration_m_s2", field=models.FloatField(default=3.0)),
        migrations.AddField(model_name="machine", name="change_x_mm", field=models.FloatField(default=100.0)),
        migrations.AddField(model_name="machine", name="change_z_mm", field=models.FloatField(default=150.0)),
        migrations.AddField(model_name="machine", name="index_first_s", field=models.FloatField(default=0.4)),
        migrations.AddField(model_name="machine", name="index_further_s", field=models.FloatField(default=0.1)),
        migrations.AddField(model_name="machine", name="rapid_x_m_min", field=models.FloatField(default=20.0)),
        migrations.AddField(model_name="machine", name="rapid_z_m_min", field=models.FloatField(default=24.0)),
        migrations.AddField(model_name="machine", name="spindle_s", field=models.FloatField(default=3.0)),
        migrations.AddField(
            model_name="machine",
            name="turret_turns",
            field=models.CharField(choices=[("both", "both ways"), ("one", "one way")], default="both", max_length=10),
        ),
        migrations.AddField(model_name="machine", name="turrets", field=models.PositiveSmallIntegerField(default=1)),
        migrations.RunPython(mark, migrations.RunPython.noop),
    ]
