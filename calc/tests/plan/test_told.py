"""What is missing, contradictory or not there is told at its path."""

import pytest

from calc.errors import CalcError
from calc.plan.paths import with_value
from calc.said.plan import around
from calc.tests.plans import ALUMINIUM, DOCUMENT, STEEL, plan, shelf_with, with_facts


@pytest.mark.parametrize(
    ("facts", "stop", "says", "waiting"),
    [
        ({"setups__s1__force__pressure_bar": None}, "force", "gauge pressure missing", []),
        (
            {"part__profile__outside__o1__diameter_mm": None},
            "part",
            "spigot diameter missing",
            ["hold", "jaws", "cuts"],
        ),
        ({"setups__s1__cuts__c1__feed_mm_rev": None}, "cuts", "face feed missing", ["force"]),
        ({"setups__s1__cuts": ()}, "cuts", "a cut missing", ["force"]),
        ({"setups__s1__force__condition": "measured"}, "force", "measured factor, measured on missing", []),
    ],
)
def test_what_is_missing_is_named_and_what_needs_it_waits(facts, stop, says, waiting):
    result = plan(**facts)
    assert result.stop(stop).state == "open"
    assert str(result.stop(stop).line) == says
    for name in waiting:
        assert str(result.stop(name).line).startswith("waiting on ")


def test_an_open_shelf_is_told():
    result = plan(shelf_with(chuck=None, blank=None, machine=None))
    assert str(result.stop("part").line) == "machine missing"
    assert plan(shelf_with(blank=None)).stop("hold").state == "open"


@pytest.mark.parametrize(
    ("facts", "path"),
    [
        ({"part__profile__inside__i1__diameter_mm": 84.0}, "part.profile.inside.i1.diameter_mm"),
        ({"setups__s1__hold__depth_mm": 40.5, "setups__s1__hold__jaw_height_mm": 50.0}, "setups.s1.hold.depth_mm"),
        ({"setups__s1__hold__jaw_height_mm": 50.5}, "setups.s1.hold.jaw_height_mm"),
        ({"setups__s1__hold__jaw_height_mm": 20.0}, "setups.s1.hold.jaw_height_mm"),
        ({"setups__s1__force__pressure_bar": 40.5}, "setups.s1.force.pressure_bar"),
        ({"setups__s1__force__pressure_bar": 4.0}, "setups.s1.force.pressure_bar"),
        ({"setups__s1__clamp_rpm": 4000.5}, "setups.s1.clamp_rpm"),
        ({"setups__s1__cuts__c1__rpm": 4000.5}, "setups.s1.cuts.c1.rpm"),
    ],
)
def test_a_contradiction_is_told_at_its_path(facts, path):
    result = plan(**facts)
    assert path in {p.field for p in result.problems}
    assert result.verdict == "stopped"


@pytest.mark.parametrize(
    ("path", "value"),
    [
        ("part.profile.outside.o1.lower_mm", 0.001),
        ("part.stock.bore_mm", 122.0),
        ("part.profile.outside.o1.fit", "h7"),
        ("setups.s1.cuts.c1.to_diameter_mm", 122.0),
        ("rules.safety", 1.49),
        ("setups.s1.force.condition_date", "yesterday"),
        ("part.quantity", 0),
    ],
)
def test_a_document_that_contradicts_itself_cannot_be_made(path, value):
    with pytest.raises(CalcError):
        with_facts(**{path.replace(".", "__"): value})


def test_a_chuck_or_blank_that_does_not_belong_is_told():
    assert "choose" in str(plan(shelf_with(on_machine=False)).stop("hold").line)
    assert "choose" in str(plan(shelf_with(blanks=(ALUMINIUM,))).stop("hold").line)


def test_paths_that_are_not_there_are_told():
    with pytest.raises(KeyError):
        with_value({"a": [{"id": "x1", "n": 1}]}, "a.x2.n", 0)
    with pytest.raises(KeyError):
        with_value({"a": [{"id": "x1", "n": 1}]}, "a.0.n", 0)  # a place is no id
    two = {"a": [{"id": "x1", "n": 1}, {"id": "x2", "n": 2}]}
    assert with_value(two, "a.x2.n", 5) == {"a": [{"id": "x1", "n": 1}, {"id": "x2", "n": 5}]}
    assert DOCUMENT.setups[0].hold.depth_mm == 20
    assert STEEL.height_mm == 50


LACKING = [
    {},
    {"setups__s1__force__pressure_bar": None},
    {"part__profile__outside__o1__diameter_mm": None},
    {"setups__s1__cuts": ()},
    {"setups__s1__cuts__c1__feed_mm_rev": None},
    {"setups__s1__force__condition": "measured"},
]


@pytest.mark.parametrize("facts", LACKING)
@pytest.mark.parametrize("without", [{}, {"chuck": None}, {"blank": None}, {"machine": None}])
def test_no_stop_waits_on_a_later_one_and_what_it_lacks_is_named_with_its_place(facts, without):
    result = plan(shelf_with(**without), **facts) if without else plan(**facts)
    order = [s.key for s in result.stops]
    for stop in result.stops:
        if stop.state != "open":
            assert stop.lacks == ()
            continue
        assert stop.lacks
        for lack in around(result, stop).lacks:
            assert order.index(lack.stop) <= order.index(stop.key), (stop.key, lack)
            place = next(s for s in result.stops if s.key == lack.stop)
            if lack.path is None:
                assert place.title == lack.label
                assert lack.stop != stop.key
            else:
                assert lack.path in {f.path for f in place.facts} | {one.path for one in place.lists}
