"""A plan proposed whole from the print, and settled: what holds of it whatever the part."""

from dataclasses import replace
from functools import cache
from uuid import UUID

import pytest

from calc.errors import CalcError
from calc.identity import Identities
from calc.plan.compute import compute
from calc.plan.document import Mark, new_document
from calc.plan.paths import replaced, value_at
from calc.plan.proposed import by_side, looked_at, proposed
from calc.plan.run_file import read_run
from calc.reading import read, write
from calc.start.begin import begin
from calc.start.settled import settle_start
from calc.start.state import Start, Wanted
from calc.tests.plan.test_refused import FILES
from calc.tests.settle.test_whole_parts import steps
from calc.tests.tools.shelf import starting_library

PARTS = {
    "follower": (("96 x 12", "64 h8 x 26 Ra 1.6"), ("40 H7",), 100.0),
    "hub": (("70 x 24", "110 h9 x 22"), ("30 H8",), 115.0),
    "plate": (("120 x 20",), (), 124.0),
    "sleeve": (("90 x 30", "105 x 20"), ("60 H7",), 110.0),
}


def wanted(outside, inside, stock_mm, key=5):
    """What a new run of Lathe 3 is proposed from: nothing decided but what the print says."""
    run = read_run((FILES / "twin-spigot.json").read_text(encoding="utf-8"))
    empty = replace(run.shelf.setups[0], jaw_set=None, blank=None)
    part = new_document().part
    profile = replace(part.profile, outside=steps(outside, "o"), inside=steps(inside, "i"))
    stock = replace(part.stock, diameter_mm=stock_mm)
    part = replace(part, profile=profile, stock=stock, face_stock_mm=2.0, quantity=60)
    shelf = replace(run.shelf, setups=(empty,), tools=starting_library())
    begun = Start(replace(new_document(), part=part), shelf)
    return Wanted(begun, (empty,), Identities(UUID(int=key), ()))


@cache
def begun(name):
    return begin(wanted(*PARTS[name]))


@cache
def settled(name):
    return settle_start(replace(wanted(*PARTS[name], key=6), begun=begun(name)))


@pytest.mark.parametrize("name", PARTS)
def test_every_stop_has_values_to_argue_with(name):
    result = compute(begun(name).document, begun(name).shelf)
    assert not [s.key for s in result.stops if s.state == "open"]
    assert len(result.sides) == 2


@pytest.mark.parametrize("name", PARTS)
def test_it_settles_and_breaks_no_promise(name):
    result = compute(settled(name).document, settled(name).shelf)
    assert [(s.key, str(s.line)) for s in result.stops if s.state != "settled"] == []


@pytest.mark.parametrize("name", PARTS)
def test_what_differs_from_how_it_began_is_marked_and_nothing_else(name):
    """Marked: each fact of a set-up that is not as it began. Not marked: what the print says."""
    plan, marks = settled(name), proposed(settled(name).document, settled(name).shelf)
    plain = write(plan.document)
    fresh = write(new_document())["setups"][0]
    for setup in plain["setups"]:
        at = f"setups.{setup['id']}"
        for group in ("hold", "jaws", "force"):
            for fact, value in setup[group].items():
                assert (f"{at}.{group}.{fact}" in marks) == (value != fresh[group][fact]), (group, fact)
        assert all(f"{at}.cuts.{c['id']}.feed_mm_rev" in marks for c in setup["cuts"])
    assert not [m for m in marks if m.startswith("part.")]
    assert {s["id"] for s in plain["setups"]} == set(by_side(marks, tuple(s["id"] for s in plain["setups"])))


def test_marks_outlive_being_written_down():
    plan = settled("follower")
    again = read(type(plan.document), write(plan.document))
    assert proposed(again, plan.shelf) == proposed(plan.document, plan.shelf)


def test_touching_a_fact_takes_its_own_mark_away_and_undoing_that_gives_it_back():
    plan, path = settled("follower"), "setups.s1.force.pressure_bar"
    before = proposed(plan.document, plan.shelf)
    now = value_at(write(plan.document), path)
    touched = replaced(plan.document, path, now + 1)
    assert proposed(touched, plan.shelf) == before - {path}
    assert proposed(replaced(touched, path, now), plan.shelf) == before


def test_looking_at_a_side_leaves_the_other_sides_marks():
    plan = settled("follower")
    first, second = (s.id for s in plan.document.setups)
    left = replace(plan.document, proposed=looked_at(plan.document.proposed, first))
    found = proposed(left, plan.shelf)
    assert set(by_side(found, (first, second))) == {second}
    assert not [p for p in found if p.startswith("sides.")]


@pytest.mark.parametrize(
    ("path", "value"),
    [
        ("sides.first_end", "a"),
        ("setups.s1.force.pressure_bar", 22.0),
        ("setups.s1.hold.depth_mm", 15.0),
        ("setups.s1.clamp_rpm", 900.0),
        ("setups.s1.force.condition", "week"),
    ],
)
def test_what_a_person_decided_is_neither_changed_nor_marked(path, value):
    given = wanted(*PARTS["follower"])
    given = replace(given, begun=replace(given.begun, document=replaced(given.document, path, value)))
    for plan in (begin(given), settle_start(given)):
        assert value_at(write(plan.document), path) == value
        assert path not in proposed(plan.document, plan.shelf)


def test_proposing_again_changes_nothing_that_was_touched():
    plan = settled("follower")
    cut = plan.document.setups[0].cuts[0]
    path = f"setups.s1.cuts.{cut.id}.feed_mm_rev"
    touched = replaced(plan.document, path, 0.21)
    given = replace(wanted(*PARTS["follower"], key=7), begun=Start(touched, plan.shelf))
    again = settle_start(replace(given, begun=begin(given)))
    assert value_at(write(again.document), path) == 0.21
    assert [c.id for c in again.document.setups[0].cuts] == [c.id for c in plan.document.setups[0].cuts]


@pytest.mark.parametrize(
    ("path", "value", "says"),
    [
        ("part.stock.diameter_mm", None, "diameter of the stock"),
        ("part.profile.outside.o1.diameter_mm", None, "diameter of"),
        ("part.profile.outside.o2.length_mm", None, "length of"),
    ],
)
def test_what_is_missing_is_said_at_its_place(path, value, says):
    given = wanted(*PARTS["follower"])
    given = replace(given, begun=replace(given.begun, document=replaced(given.document, path, value)))
    with pytest.raises(CalcError, match=says) as refused:
        begin(given)
    assert [e.field for e in refused.value.errors] == [path]


def test_a_machine_without_anything_to_hold_with_says_so():
    given = wanted(*PARTS["follower"])
    with pytest.raises(CalcError, match="No chuck of this machine"):
        begin(replace(given, holders=()))


@pytest.mark.parametrize("facts", ["[1]", "no json", "{", "[" * 1900])
def test_a_mark_of_a_file_that_cannot_be_read_is_told(facts):
    with pytest.raises(CalcError, match="cannot be read"):
        Mark("setups.s1.hold", facts)


@pytest.mark.parametrize(
    "at", ["proposed", "setups.s1.nothing", "setups.s9", "version", "setups", "part.profile.outside"]
)
def test_a_mark_of_what_is_not_there_marks_nothing(at):
    plan = settled("follower")
    document = replace(plan.document, proposed=(*plan.document.proposed, Mark(at, '{"x":1,"chuck":"no"}')))
    assert proposed(document, plan.shelf) == proposed(plan.document, plan.shelf)
