"""A cut that is taken out can be put back."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("notebook", "0001_initial")]
    operations = [migrations.AddField("provencut", "taken_out", models.BooleanField(default=False))]
