"""What a plan must refuse: each as a plan file with the note that stops it, beside a twin just inside the limit."""

import csv
from dataclasses import replace
from functools import cache
from pathlib import Path

import pytest

from calc.plan.compute import compute
from calc.plan.force.chart import force_chart
from calc.plan.force.solve import FORCE
from calc.plan.hold.solve import HOLD
from calc.plan.paths import replaced, without
from calc.plan.run_file import read_run
from calc.tests.plans import NO_TOOLS, unsettled

FILES = Path(__file__).parent / "refused"


def rows():
    with (FILES / "cases.csv").open(encoding="utf-8") as file:
        return list(csv.DictReader(line for line in file if not line.startswith("#")))


@cache
def computed(name):
    run = read_run((FILES / f"{name}.json").read_text(encoding="utf-8"))
    return compute(run.document, run.shelf)


@pytest.mark.parametrize("row", rows(), ids=lambda row: row["plan"])
def test_it_is_stopped_where_and_why_it_is_told(row):
    result = computed(row["plan"])
    stop = next(s for s in result.stops if s.key == row["stop"])
    assert stop.state == "stopped"
    note = next(n for n in stop.notes if n.code == row["code"])
    assert note.level == "stop"
    assert len(note.text) > 30  # a sentence with its figures
    assert result.verdict == "stopped"


@pytest.mark.parametrize("twin", sorted({row["twin"] for row in rows()}))
def test_its_twin_is_settled(twin):
    result = computed(f"twin-{twin}")
    assert [(s.key, n.code) for s in result.stops for n in s.notes if n.level == "stop"] == []
    assert unsettled(result) <= NO_TOOLS


def test_every_refused_plan_has_help_where_a_single_change_would_do():
    helped = {row["plan"] for row in rows() if any(h.settles for h in _helps(row))}
    never = {
        "tube-60-55",  # no pressure of the chart both holds it and leaves it whole
        "bronze-30-bar",
        "plug-not-reached",  # another plug, which has to be made first
        "wear-ring-unbored",  # a cut to be put in, on the other side
    }
    assert {row["plan"] for row in rows()} - helped == never


@pytest.mark.parametrize(
    ("plan", "name"), [("parting-in-the-jaws", "Part off"), ("wear-ring-bores-its-grip", "Rebore")]
)
def test_a_cut_in_the_way_is_offered_to_be_taken_out_and_the_plan_settles_without_it(plan, name):
    row = next(r for r in rows() if r["plan"] == plan)
    help_of = next(h for h in _helps(row) if h.takes_out)
    assert (str(help_of.label), help_of.settles) == (f"Take {name} out", True)
    run = read_run((FILES / f"{plan}.json").read_text(encoding="utf-8"))
    left = without(run.document, help_of.path)
    assert [
        c.name for s in run.document.setups for c in s.cuts if c not in [k for t in left.setups for k in t.cuts]
    ] == [name]
    stop = next(s for s in compute(left, run.shelf).stops if s.key == row["stop"])
    assert stop.state == "settled"


def test_taking_out_is_offered_last_and_never_of_the_only_cut():
    offered = [h for h in _helps(next(r for r in rows() if r["plan"] == "spigot-58")) if h.settles]
    assert offered and not offered[0].takes_out
    run = read_run((FILES / "parting-in-the-jaws.json").read_text(encoding="utf-8"))
    cuts = run.document.setups[0].cuts
    alone = replaced(run.document, f"setups.{run.document.setups[0].id}.cuts", (cuts[-1],))
    result = compute(alone, run.shelf)
    stop = next(s for s in result.stops if s.key == "cuts-s1")
    assert not any(h.takes_out for h in result.helps(stop))


def test_what_is_not_there_cannot_be_taken_out():
    run = read_run((FILES / "twin-spigot.json").read_text(encoding="utf-8"))
    with pytest.raises(KeyError):
        without(run.document, f"setups.{run.document.setups[0].id}.cuts.nowhere")


def _helps(row):
    result = computed(row["plan"])
    return result.helps(next(s for s in result.stops if s.key == row["stop"]))


def test_a_speed_settled_to_its_clamp_is_held_down_by_the_clamp():
    """284 m/min at Ø19.05 is 4 745 rpm, its clamp 4 740."""
    stop = next(s for s in computed("twin-kept").stops if s.key == "cuts-s1")
    said = next(str(n.text) for n in stop.notes if n.code == "below-window" and str(n.text).startswith("Finish Thread"))
    assert "its clamp holds it down" in said


@pytest.mark.parametrize("name", ["twin-spigot", "twin-flange", "twin-wear-ring", "grip-kept", "twin-tube"])
def test_no_limit_far_above_presses_the_curves_flat(name):
    """The highest curve fills more than half of the picture, whatever wall and chuck stand; what is in it is seen."""
    for view in computed(name).views:
        force, hold = view[FORCE], view[HOLD]
        chart = force_chart(view, force, hold)
        highest = max(y for line in (*(c.points for c in chart.curves), chart.demand) for _, y in line)
        assert highest <= chart.force_most_n <= 1.6 * 1.08 * highest
        assert all(0 <= p.needed_n <= chart.force_most_n for p in chart.points)


@pytest.mark.parametrize(("pitch", "stops"), [(1.5, []), (1.502, []), (1.51, ["other-pitch"]), (3.0, ["other-pitch"])])
def test_a_thread_cut_at_another_pitch_than_its_name_says_is_stopped(pitch, stops):
    run = read_run((FILES / "twin-collet.json").read_text(encoding="utf-8"))  # M24x1.5
    first, *rest = run.document.setups
    cuts = tuple(replace(c, feed_mm_rev=pitch) if c.kind == "thread" else c for c in first.cuts)
    result = compute(replace(run.document, setups=(replace(first, cuts=cuts), *rest)), run.shelf)
    assert [n.code for s in result.stops for n in s.notes if n.level == "stop"] == stops
