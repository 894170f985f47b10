"""Operations moved, split and given other figures, as plain data."""

from uuid import UUID

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.errors import CalcError
from calc.identity import Identities, ids_in
from calc.plan import edits
from calc.plan.paths import value_at
from calc.reading import read, write
from calc.tests.plans import DOCUMENT

PLAIN = write(DOCUMENT)
PATH = "setups.s1.cuts"


def names(items):
    return [i["name"] for i in items]


def cut(name, kind, a, b, **more):
    return {"name": name, "kind": kind, "from_diameter_mm": a, "to_diameter_mm": b} | more


def with_cuts(*cuts):
    from calc.plan.cuts.inputs import PlannedCut

    made = [write(read(PlannedCut, c)) | {"id": f"c{n}"} for n, c in enumerate(cuts, 1)]
    setup = PLAIN["setups"][0] | {"cuts": made}
    return PLAIN | {"setups": [setup]}


FIVE = with_cuts(*(cut(f"Cut {i}", "turn", 60.0 - i, 50.0 - i) for i in range(5)))


def ids():
    return Identities(UUID(int=9), ids_in(FIVE))


def done(document, changes):
    for change in changes:
        document = edits.with_change(document, change.path, change.new)
    return value_at(document, PATH)


@given(st.integers(0, 4), st.integers(0, 4))
def test_a_move_keeps_every_cut_and_moved_back_is_as_it_was(index, to):
    before = value_at(FIVE, PATH)
    path, others = f"{PATH}.c{index + 1}", [c["id"] for c in before if c["id"] != f"c{index + 1}"]
    behind = others[to - 1] if to else edits.FIRST
    if edits.behind_of(FIVE, path) == behind:
        return
    change = edits.move(FIVE, path, behind)
    moved = edits.with_change(FIVE, change.path, change.new)
    items = value_at(moved, PATH)
    assert sorted(names(items)) == sorted(names(before))
    assert items[to]["id"] == f"c{index + 1}"
    assert edits.with_change(moved, change.path, edits.state_at(FIVE, change.path, "")) == FIVE


@pytest.mark.parametrize(
    ("path", "behind", "says"),
    [
        (f"{PATH}.c9", "", "no such cut"),
        (f"{PATH}.c1", "c9", "there already"),
        (f"{PATH}.c1", "", "there already"),
        (f"{PATH}.c1", "c1", "there already"),
        ("part.profile.outside.o1", "", "Only operations"),
        ("nowhere", "", "Only operations"),
    ],
)
def test_what_is_not_moved_says_why(path, behind, says):
    with pytest.raises(CalcError, match=says):
        edits.move(FIVE, path, behind)


def test_a_split_leaves_what_finishing_wants_outside_and_inside():
    pin = with_cuts(cut("Pin", "turn", 60.0, 50.0, depth_mm=2.0, tool="x/y"))
    out = done(pin, edits.split(pin, f"{PATH}.c1", 0.5, ids()))
    assert [(i["from_diameter_mm"], i["to_diameter_mm"], i["stage"]) for i in out] == [
        (60, 51, "rough"),
        (51, 50, "finish"),
    ]
    assert (out[0]["tool"], out[1]["tool"], out[1]["depth_mm"]) == ("x/y", "", 0.5)
    hole = with_cuts(cut("Hole", "bore", 20.0, 24.0, depth_mm=1.0))
    inside = done(hole, edits.split(hole, f"{PATH}.c1", 0.4, ids()))
    assert [(i["from_diameter_mm"], i["to_diameter_mm"]) for i in inside] == [(20, 23.2), (23.2, 24)]


def test_a_split_is_taken_back_part_by_part():
    pin = with_cuts(cut("Pin", "turn", 60.0, 50.0), cut("Face", "face", 60.0, 0.0))
    document, back = pin, []
    for change in edits.split(pin, f"{PATH}.c1", 0.5, ids()):
        back.append(edits.Change(change.path, edits.state_at(document, change.path, change.new)))
        document = edits.with_change(document, change.path, change.new)
    assert len(value_at(document, PATH)) == 3
    for change in reversed(back):
        document = edits.with_change(document, change.path, change.new)
    assert document == pin


def test_names_of_the_halves_fit():
    long = with_cuts(cut("A name that is as long as a name of a cut may ever be"[:40], "turn", 60.0, 50.0))
    made = names(done(long, edits.split(long, f"{PATH}.c1", 0.5, ids())))
    assert all(len(n) <= 40 for n in made)


@pytest.mark.parametrize(
    ("one", "says"),
    [
        (cut("Face", "face", 60.0, 0.0), "Turning and boring"),
        (cut("Open", "turn", None, 50.0), "both diameters"),
        (cut("Thin", "turn", 51.0, 50.0), "too little stock"),
    ],
)
def test_what_is_no_two_cuts_stays_one(one, says):
    with pytest.raises(CalcError, match=says):
        edits.split(with_cuts(one), f"{PATH}.c1", 0.5, ids())


def test_a_full_plan_takes_no_more():
    full = with_cuts(*(cut(f"Cut {i}", "turn", 60.0, 50.0) for i in range(40)))
    with pytest.raises(CalcError, match="take one out first"):
        edits.split(full, f"{PATH}.c1", 0.5, ids())


def test_other_figures_are_checked_as_any_entry():
    changes = edits.with_figures(FIVE, f"{PATH}.c2", {"speed_m_min": 210.0, "rpm": None})
    assert changes == [edits.Change(f"{PATH}.c2.speed_m_min", 210.0)]
    with pytest.raises(CalcError) as refused:
        edits.with_figures(FIVE, f"{PATH}.c2", {"feed_mm_rev": 99.0})
    assert refused.value.errors[0].field == PATH
