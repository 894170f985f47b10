"""Every step, side, cut and departure of a plan gets an id; set-ups are found by it, and edits say in which form."""

from django.db import migrations, models

from ._documents import path_3, version_3

LINE = ("key", "title", "state", "line")


def _lines(views):
    return {units: [{n: s.get(n, "") for n in LINE} for s in view["stops"]] for units, view in views.items()}


def forward(apps, schema_editor):
    get = apps.get_model
    for run in get("runs", "Run").objects.iterator():
        run.document = version_3(run.document)
        run.typed = {now: text for path, text in run.typed.items() if (now := path_3(path, run.document) or "")}
        # Ids of items that come later are made from their edits: none of these can come again.
        run.standing = {}  # written again when the application starts
        run.save(update_fields=["document", "typed", "standing"])
        setups = run.document["setups"]
        for row in get("runs", "RunSetup").objects.filter(run=run):
            # A row without a set-up was one that had been taken out: it sleeps under the id that it would have had.
            row.item = setups[row.position]["id"] if row.position < len(setups) else f"s{row.position + 1}"
            row.save(update_fields=["item"])
    get("runs", "Edit").objects.update(form=1)
    for release in get("runs", "Release").objects.iterator():
        release.form, release.lines = 1, _lines(release.views)
        release.save(update_fields=["form", "lines"])


class Migration(migrations.Migration):
    dependencies = [("runs", "0006_documents_with_tools")]
    operations = [
        migrations.AddField(
            "run",
            "gone",
            models.JSONField(default=list, help_text="Ids of items that were taken out: never given again"),
        ),
        migrations.AddField("runsetup", "item", models.CharField(max_length=12, default="")),
        migrations.AddField(
            "release",
            "form",
            models.PositiveSmallIntegerField(default=2, help_text="Of the views; earlier ones are read as today's"),
        ),
        migrations.AddField(
            "release",
            "lines",
            models.JSONField(default=dict, help_text="Units -> the stops in one line each, for the bench"),
        ),
        migrations.AddField("edit", "form", models.PositiveSmallIntegerField(default=2)),
        migrations.AddField(
            "edit",
            "parts",
            models.JSONField(default=list, help_text="[path, old, new] of each fact, where the edit changed several"),
        ),
        migrations.AlterField(
            "release",
            "programs",
            models.JSONField(
                default=dict, help_text="Units -> set-up -> the jaw-boring program's text, where it could be written"
            ),
        ),
        migrations.RunPython(forward, migrations.RunPython.noop),
    ]
