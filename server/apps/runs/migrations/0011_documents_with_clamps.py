"""Documents get the facts that came with what a plan must refuse; so do the cuts and set-ups that edits hold."""

from django.db import migrations

HOLD = {"stick_out_mm": None, "centre_hole_mm": None}
RULES = {"clearance_mm": 1.0, "edge_change_min": 2.0}


def _cut(cut):
    return {"clamp_rpm": None, **cut}


def _setup(setup):
    cuts = [_cut(c) for c in setup["cuts"]]
    return {**setup, "hold": {**HOLD, **setup["hold"]}, "jaws": {"recess_mm": None, **setup["jaws"]}, "cuts": cuts}


def _value(value):
    """A value that an edit holds: a cut, a set-up, a list of them, or such an item that was put in or taken out."""
    if isinstance(value, list):
        return [_value(v) for v in value]
    if isinstance(value, dict) and value.keys() == {"item", "behind"}:
        return {**value, "item": _value(value["item"])}
    if isinstance(value, dict) and {"hold", "jaws", "cuts"} <= value.keys():
        return _setup(value)
    if isinstance(value, dict) and {"kind", "speed_m_min", "feed_mm_rev"} <= value.keys():
        return _cut(value)
    return value


def _document(plain):
    return {**plain, "setups": [_setup(s) for s in plain["setups"]], "rules": {**RULES, **plain["rules"]}}


def with_new_facts(apps, schema_editor):
    # A release's document is what a draft is compared with: a fact that neither had is no difference between them.
    for model in ("Run", "Release"):
        for one in apps.get_model("runs", model).objects.all().iterator():
            one.document = _document(one.document)
            one.save(update_fields=["document"])
    for edit in apps.get_model("runs", "Edit").objects.all().iterator():
        old, new = _value(edit.old), _value(edit.new)
        parts = [[path, _value(before), _value(after)] for path, before, after in edit.parts]
        if (old, new, parts) != (edit.old, edit.new, edit.parts):
            edit.old, edit.new, edit.parts = old, new, parts
            edit.save(update_fields=["old", "new", "parts"])


class Migration(migrations.Migration):
    dependencies = [("runs", "0010_releases_with_cuts_in_the_chart")]
    operations = [migrations.RunPython(with_new_facts, migrations.RunPython.noop)]
