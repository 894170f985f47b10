"""Stations of a turret: by hand, and against every arrangement there is."""

from __future__ import annotations

from itertools import permutations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from calc.errors import CalcError
from calc.route.stations import Apart, Indexing, TurretOrderInput, TurretTool
from calc.route.turret import turret_order
from calc.working import Working


def tools(names, **pinned):
    return tuple(TurretTool(n, "inside" if n.isupper() else "outside", pinned.get(n)) for n in names)


def order(stations, names, sequence, **more):
    return turret_order(TurretOrderInput(stations, tools(names, **more.pop("pinned", {})), tuple(sequence), **more))


def seconds(found, sequence, stations, *, both_ways=True):
    """Indexing of a piece by the rule as it is told, not by the code."""
    at = [found[n] for n in sequence]
    total = 0.0
    for a, b in zip(at, at[1:] + at[:1], strict=True):
        k = (b - a) % stations
        k = min(k, stations - k) if both_ways else k
        total += 0.4 + 0.1 * (k - 1) if k else 0.0
    return total


@pytest.mark.parametrize(
    ("away", "both_ways", "takes"),
    [(0, True, 0.0), (1, True, 0.4), (2, True, 0.5), (6, True, 0.9), (11, True, 0.4), (11, False, 1.4)],
)
def test_indexing_takes_the_first_step_and_each_further_one(away, both_ways, takes):
    assert Indexing(12, both_ways).seconds(Working(), away) == pytest.approx(takes)


def test_two_tools_stand_side_by_side_and_one_tool_never_indexes():
    assert order(12, "ab", "ab").index_s == pytest.approx(0.8)  # there and back
    assert order(12, "a", "a").index_s == 0
    assert order(12, "a", "aaa").working == ()


def test_a_turret_that_turns_one_way_goes_once_round():
    # a, b, c in turn: two steps of one, then on over the ten that are left, 0.4 + 9·0.1.
    assert order(12, "abc", "abc", both_ways=False).index_s == pytest.approx(0.4 + 0.4 + 1.3)


def test_six_in_turn_on_twelve_stations_by_hand():
    # A chain of six has five steps of one and comes back over five: 5·0.4 + 0.8.
    # Nothing is shorter: the stations between two neighbours sum to at least twice five.
    found = order(12, "abcdef", "abcdef")
    assert (found.index_s, found.least) == (pytest.approx(2.8), True)


@settings(deadline=None, max_examples=60)
@given(st.data())
def test_no_arrangement_takes_less(data):
    names = "abcD"[: data.draw(st.integers(2, 4))]
    stations = data.draw(st.integers(len(names), 6))
    sequence = data.draw(st.lists(st.sampled_from(names), min_size=1, max_size=9))
    kinds = tuple(
        data.draw(st.lists(st.sampled_from(["any", "outside", "inside"]), min_size=stations, max_size=stations))
    )
    both_ways = data.draw(st.booleans())

    def fits(at):
        return all(kinds[s] in ("any", "inside" if n.isupper() else "outside") for n, s in zip(names, at, strict=True))

    every = [at for at in permutations(range(stations), len(names)) if fits(at)]
    if not every:
        with pytest.raises(CalcError) as refused:
            order(stations, names, sequence, station_kinds=kinds, both_ways=both_ways)
        assert [e.field for e in refused.value.errors] == ["stations"]
        return
    found = order(stations, names, sequence, station_kinds=kinds, both_ways=both_ways)
    least = min(seconds(dict(zip(names, at, strict=True)), sequence, stations, both_ways=both_ways) for at in every)
    assert found.least
    assert found.index_s == pytest.approx(least)
    assert found.index_s == pytest.approx(seconds(found.stations, sequence, stations, both_ways=both_ways))
    assert fits([found.stations[n] - 1 for n in names])


def beside(found, pairs, stations):
    """Whether any of the pairs stands side by side."""
    return any(abs(found[a] - found[b]) in (1, stations - 1) for a, b in pairs)


@settings(max_examples=40, deadline=None)
@given(st.data())
def test_tools_that_must_not_be_neighbours_stand_apart_at_the_least_cost(data):
    names = "abcd"
    sequence = data.draw(st.lists(st.sampled_from(names), min_size=2, max_size=7))
    pairs = data.draw(st.lists(st.sampled_from(["ab", "bc", "ad"]), min_size=1, max_size=2, unique=True))
    found = order(6, names, sequence, apart=tuple(Apart(*p) for p in pairs))
    allowed = [at for p in permutations(range(1, 7), 4) if not beside(at := dict(zip(names, p, strict=True)), pairs, 6)]
    assert not beside(found.stations, pairs, 6)
    assert found.index_s == pytest.approx(min(seconds(at, sequence, 6) for at in allowed))


def test_where_nothing_else_is_left_they_are_neighbours():
    assert order(2, "ab", "ab", apart=(Apart("a", "b"),)).index_s == pytest.approx(0.8)


def test_the_order_of_use_is_told_as_it_is_where_it_would_strike():
    assert order(12, "ab", "ab", apart=(Apart("a", "b"),)).in_order_s == pytest.approx(0.8)
    assert order(12, "ab", "ab", apart=(Apart("a", "b"),)).index_s == pytest.approx(1.0)  # one free between


def test_a_tool_that_there_is_not_is_said_at_its_field():
    with pytest.raises(CalcError) as refused:
        order(12, "ab", "ab", apart=(Apart("a", "z"),))
    assert refused.value.errors[0].field == "apart.0.other"


@settings(deadline=None, max_examples=15)
@given(st.lists(st.sampled_from("abcdefghijkl"), min_size=12, max_size=30))
def test_more_than_eight_are_never_worse_than_the_order_of_use(sequence):
    names = "abcdefghijkl"
    found = order(16, names, sequence)
    assert found.index_s <= found.in_order_s + 1e-9
    assert len(set(found.stations.values())) == len(names)


def test_a_pinned_tool_stays_and_the_others_come_to_it():
    found = order(12, "abc", "abc", pinned={"b": 7})
    assert found.stations["b"] == 7
    assert max(found.stations.values()) - min(found.stations.values()) == 2


@pytest.mark.parametrize("stations", [12, 24])
def test_eight_tools_that_follow_one_another_at_random_are_proved(stations):
    sequence = "abacadaeafagahbhcgdf"
    found = order(stations, "abcdefgh", sequence)
    assert found.least
    assert found.index_s == pytest.approx(seconds(found.stations, sequence, stations))


@pytest.mark.parametrize(
    ("given_", "field"),
    [
        ({"stations": 2, "names": "abc"}, "stations"),
        ({"stations": 12, "names": "ab", "pinned": {"a": 13}}, "tools.0.pinned"),
        ({"stations": 12, "names": "ab", "pinned": {"a": 3, "b": 3}}, "tools.1.pinned"),
        ({"stations": 2, "names": "aB", "pinned": {"a": 2}, "station_kinds": ("any", "inside")}, "tools.0.pinned"),
        ({"stations": 12, "names": "aa"}, "tools.1.name"),
        ({"stations": 12, "names": "ab", "sequence": "ax"}, "sequence.1"),
        ({"stations": 3, "names": "ab", "station_kinds": ("any",)}, "station_kinds"),
    ],
)
def test_what_cannot_stand_is_said_at_its_field(given_, field):
    with pytest.raises(CalcError) as refused:
        order(**({"sequence": given_["names"]} | given_))
    assert field in [e.field for e in refused.value.errors]
