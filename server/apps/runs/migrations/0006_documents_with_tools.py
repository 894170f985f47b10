"""Facts of tools and operations came into plan documents here; version 3 fills in what is not said, for all of them."""

from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [("runs", "0005_releases")]
    operations = []
