"""Operations moved, split and given other figures, as plain data."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.errors import CalcError
from calc.plan.order import moved_item, split_item, with_figures
from calc.reading import read, write
from calc.tests.plans import DOCUMENT

PLAIN = write(DOCUMENT)
PATH = "setups.0.cuts"


def names(items):
    return [i["name"] for i in items]


def cut(name, kind, a, b, **more):
    return {"name": name, "kind": kind, "from_diameter_mm": a, "to_diameter_mm": b} | more


def with_cuts(*cuts):
    from calc.plan.planned_cut import PlannedCut

    setup = PLAIN["setups"][0] | {"cuts": [write(read(PlannedCut, c)) for c in cuts]}
    return PLAIN | {"setups": [setup]}


FIVE = with_cuts(*(cut(f"Cut {i}", "turn", 60.0 - i, 50.0 - i) for i in range(5)))


@given(st.integers(0, 4), st.integers(0, 4))
def test_a_move_keeps_every_cut_and_moved_back_is_as_it_was(index, to):
    items = moved_item(FIVE, PATH, index, to)
    assert sorted(names(items)) == sorted(names(FIVE["setups"][0]["cuts"]))
    assert items[to]["name"] == f"Cut {index}"
    again = FIVE | {"setups": [FIVE["setups"][0] | {"cuts": items}]}
    assert moved_item(again, PATH, to, index) == FIVE["setups"][0]["cuts"]


@pytest.mark.parametrize(
    ("index", "to", "says"),
    [(5, 0, "no such cut"), (-1, 0, "no such cut"), (0, 5, "at the end"), (0, -1, "at the end")],
)
def test_beyond_the_ends_there_is_nothing(index, to, says):
    with pytest.raises(CalcError, match=says):
        moved_item(FIVE, PATH, index, to)


@pytest.mark.parametrize(
    ("path", "says"),
    [("part.profile.outside", "Only operations"), ("nowhere", "no such list"), ("setups.1.cuts", "no such list")],
)
def test_only_operations_are_moved(path, says):
    with pytest.raises(CalcError, match=says):
        moved_item(FIVE, path, 0, 0)


def test_a_split_leaves_what_finishing_wants_outside_and_inside():
    out = split_item(with_cuts(cut("Pin", "turn", 60.0, 50.0, depth_mm=2.0, tool="x/y")), PATH, 0, 0.5)
    assert [(i["from_diameter_mm"], i["to_diameter_mm"], i["stage"]) for i in out] == [
        (60, 51, "rough"),
        (51, 50, "finish"),
    ]
    assert (out[0]["tool"], out[1]["tool"], out[1]["depth_mm"]) == ("x/y", "", 0.5)
    inside = split_item(with_cuts(cut("Hole", "bore", 20.0, 24.0, depth_mm=1.0)), PATH, 0, 0.4)
    assert [(i["from_diameter_mm"], i["to_diameter_mm"]) for i in inside] == [(20, 23.2), (23.2, 24)]


def test_names_of_the_halves_are_free_and_fit():
    long = "A name that is as long as a name of a cut may ever be"[:40]
    document = with_cuts(
        cut(long, "turn", 60.0, 50.0), cut("Pin, roughing", "turn", 60.0, 55.0), cut("Pin", "turn", 50.0, 40.0)
    )
    made = names(split_item(document, PATH, 0, 0.5)) + names(split_item(document, PATH, 2, 0.5))
    assert len({n.casefold() for n in names(split_item(document, PATH, 2, 0.5))}) == 4
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
        split_item(with_cuts(one), PATH, 0, 0.5)


def test_a_full_plan_takes_no_more():
    with pytest.raises(CalcError, match="take one out first"):
        split_item(with_cuts(*(cut(f"Cut {i}", "turn", 60.0, 50.0) for i in range(40))), PATH, 0, 0.5)


def test_other_figures_are_checked_as_any_entry():
    changed = with_figures(FIVE, PATH, 1, {"speed_m_min": 210.0, "rpm": None})
    assert changed[1]["speed_m_min"] == 210.0
    assert changed[0] == FIVE["setups"][0]["cuts"][0]
    with pytest.raises(CalcError) as refused:
        with_figures(FIVE, PATH, 1, {"feed_mm_rev": 99.0})
    assert refused.value.errors[0].field == PATH
