"""What is read of a plan is seen, and what was found is given again exactly while that reads the same."""

from __future__ import annotations

import dataclasses
from collections.abc import Iterable
from dataclasses import replace
from typing import Any

import pytest

from calc.plan.compute import PlanResult, compute
from calc.plan.paths import replaced
from calc.plan.scenes import drawings_of
from calc.plan.solve import forget, misses
from calc.plan.watched import Kept, Watched, again, watched, whole
from calc.tests.plans import DOCUMENT, SHELF, plan

PRESSURE = "setups.s1.force.pressure_bar"


def reads(find: Any, of: Any = DOCUMENT) -> list[tuple[Any, ...]]:
    told: list[tuple[Any, ...]] = []
    find(watched(of, "document", lambda at, _: told.append(at)))
    return told


def test_a_fact_is_told_when_it_is_read_and_no_other() -> None:
    assert reads(lambda d: d.setups[0].force.pressure_bar) == [("document", "setups", 0, "force", "pressure_bar")]
    assert reads(lambda d: d.setups[0].force) == []  # a section by itself says nothing yet
    assert reads(lambda d: d.part.profile.outside) == [("document", "part", "profile")]  # read whole


def test_what_a_section_works_out_reads_its_facts() -> None:
    assert reads(lambda d: d.one_set) == [("document", "sides", "two_step")]  # the second is asked only after a yes
    shared = replace(DOCUMENT, sides=replace(DOCUMENT.sides, two_step=True))
    assert ("document", "setups", len) in reads(lambda d: d.jaws_of(0), shared)
    assert reads(lambda d: d.in_force) == [("document", "in_force")]


def test_a_section_is_no_value() -> None:
    seen: Any = watched(DOCUMENT, "document", lambda *_: None)
    with pytest.raises(TypeError):
        seen == DOCUMENT  # noqa: B015 - comparing is what is refused
    with pytest.raises(TypeError):
        hash(seen)
    with pytest.raises(TypeError):
        replace(seen.setups[0].hold, depth_mm=3.0)
    assert whole(seen.setups[0].hold) is DOCUMENT.setups[0].hold
    assert reads(lambda d: whole(d.setups[0].hold)) == [("document", "setups", 0, "hold")]


def test_a_read_is_found_again_in_another_plan() -> None:
    other = replaced(DOCUMENT, PRESSURE, 21.0)
    (read,) = reads(lambda d: d.setups[0].force.pressure_bar)
    assert again(other, read) == 21.0
    assert again(other, ("document", "setups", len)) == 1


def test_a_way_taken_only_for_some_values_is_kept_for_those() -> None:
    """What is read depends on what was read before it: each way is kept apart."""
    kept: Kept[str] = Kept(8)
    facts = {"kind": "a", "a": 1, "b": 2}
    found: list[str] = []

    def ask() -> str:
        def find(tell: Any) -> str:
            def read(name: str) -> Any:
                tell((name,), facts[name])
                return facts[name]

            found.append("found")
            return f"{read('kind')}{read(str(read('kind')))}"

        return kept.get(lambda read: facts[read[0]], find)

    assert (ask(), ask(), len(found)) == ("a1", "a1", 1)
    facts["b"] = 3  # not read
    assert (ask(), len(found)) == ("a1", 1)
    facts["kind"] = "b"
    assert (ask(), len(found)) == ("b3", 2)
    facts["kind"] = "a"
    assert (ask(), len(found)) == ("a1", 2)
    facts["a"] = 9
    assert (ask(), len(found)) == ("a9", 3)


def test_no_more_is_kept_than_is_allowed() -> None:
    kept: Kept[int] = Kept(3)
    for n in range(10):
        assert kept.get(lambda _, n=n: n, lambda tell, n=n: (tell(("n",), n), n)[1]) == n  # type: ignore[misc]
    assert kept.misses == 10
    assert kept.get(lambda _: 9, lambda _: -1) == 9  # the last is there
    assert kept.get(lambda _: 0, lambda _: -1) == -1  # the first is not


def test_a_pressure_moves_only_what_read_it() -> None:
    """The part, the sides, the cuts and their tools have nothing to do with the gauge."""
    before, after = plan(), compute(replaced(DOCUMENT, PRESSURE, 33.0), SHELF)
    same = {a.name for a, b in zip(before.stops, after.stops, strict=True) if a is b}
    assert {"part", "sides", "tools"} <= same
    assert not {"force", "jaws"} & same  # the taper over the depth is from the force that bends the jaw


def test_asking_for_the_same_plan_finds_nothing_anew() -> None:
    forget()
    first = plan()
    asked = misses()
    assert all(a is b for a, b in zip(first.stops, plan().stops, strict=True))
    assert misses() == asked


def pieces(value: Any, seen: set[int]) -> Iterable[Any]:
    """Everything a value is made of."""
    if id(value) in seen:
        return
    seen.add(id(value))
    yield value
    if dataclasses.is_dataclass(value):
        for one in dataclasses.fields(value):
            yield from pieces(getattr(value, one.name), seen)
    elif isinstance(value, dict):
        for one in value.values():
            yield from pieces(one, seen)
    elif isinstance(value, list | tuple):
        for one in value:
            yield from pieces(one, seen)


def every(result: PlanResult) -> list[Any]:
    drawn = [d.draw() for view in result.views for d in drawings_of(view)]
    return [result.stops, result.sides, drawn, [(result.helps(s), result.tables(s)) for s in result.stops]]


def test_nothing_that_is_found_holds_on_to_what_it_was_read_from() -> None:
    found = list(pieces(every(plan()), set()))
    assert len(found) > 1000
    assert not [one for one in found if type(one) is Watched]
