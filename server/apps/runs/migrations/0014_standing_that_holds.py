"""Runs say for which day their standing holds; releases are found by their own words."""

from django.db import migrations, models
from django.db.models import F


def words_of_releases(apps, _):
    """What a release's name plate says, as it was frozen."""
    Release = apps.get_model("runs", "Release")
    for release in Release.objects.annotate(plate=F("views__metric__run")).defer("views", "programs", "document"):
        plate = release.plate or {}
        said = (plate.get(name) for name in ("drawing_number", "name", "machine", "setup"))
        release.words = " ".join(str(word or "") for word in said).lower()
        release.save(update_fields=["words"])


class Migration(migrations.Migration):
    dependencies = [("runs", "0013_collets_and_bars"), ("shelf", "0008_collets_and_second_spindles")]

    operations = [
        migrations.AddField(
            model_name="release",
            name="words",
            field=models.TextField(
                default="", help_text="What it is found by, in small letters: its own, not the draft's"
            ),
        ),
        migrations.AddField(
            model_name="run",
            name="stands_on",
            field=models.CharField(
                blank=True,
                default="",
                help_text="The day `standing` holds for; none: the shelf has changed",
                max_length=10,
            ),
        ),
        migrations.AddIndex(model_name="run", index=models.Index(fields=["stands_on"], name="run_stands_on")),
        migrations.RunPython(words_of_releases, migrations.RunPython.noop),
    ]
