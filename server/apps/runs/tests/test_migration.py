"""Runs kept as version 1 of the document, brought to version 2 with their history."""

import importlib
import uuid

from django.apps import apps

from server.apps.runs.models import Edit, Run
from server.foundation.models import Person
from server.one_sided import ONE_SIDED


def test_documents_and_edits_of_version_1_become_version_2(demo, planner):
    steps = ONE_SIDED["part"]["profile"]["outside"]
    Run.objects.filter(pk=demo.pk).update(document=ONE_SIDED, revision=2)
    by = Person.objects.get(username="planner")
    Edit.objects.create(
        run=demo, revision=1, path="part.profile.outside", old=steps[:1], new=steps, key=uuid.uuid4(), by=by
    )
    Edit.objects.create(
        run=demo,
        revision=2,
        path="part.profile.outside.1.stock_diameter_mm",
        old=120.0,
        new=122.0,
        key=uuid.uuid4(),
        by=by,
    )
    importlib.import_module("server.apps.runs.migrations.0004_documents_of_version_2").forward(apps, None)
    demo.refresh_from_db()
    assert (demo.document["version"], demo.document["part"]["stock"]["diameter_mm"]) == (2, 122.0)
    assert "stock_diameter_mm" not in Edit.objects.get(revision=1).new[0]
    assert planner.plan(demo)["verdict"] == "settled"
    # A draft that needs a fact which is no more cannot be shown, and says so.
    answer = planner.get(f"/api/runs/{demo.pk}/plan?at=1")
    assert (answer.status_code, "older form" in answer.json()["title"]) == (404, True)
