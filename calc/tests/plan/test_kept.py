"""Figures that are kept between plans are those that would be found anew, whatever was asked before."""

from __future__ import annotations

import dataclasses
from collections.abc import Iterator
from contextlib import suppress
from dataclasses import replace
from functools import reduce
from typing import Any

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from calc.errors import CalcError
from calc.fields import Choice, FieldSpec, Flag, Quantity, Text, fields_of
from calc.plan.compute import PlanResult, compute
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.cuts.solve import CUTS
from calc.plan.document import Document, Setup
from calc.plan.force.inputs import Force
from calc.plan.force.solve import FORCE
from calc.plan.hold.inputs import Hold
from calc.plan.hold.solve import HOLD
from calc.plan.part.solve import PART
from calc.plan.paths import replaced
from calc.plan.scenes import drawings_of
from calc.plan.sides.inputs import Sides
from calc.plan.sides.solve import SIDES
from calc.plan.solve import forget, misses
from calc.results import as_plain
from calc.shelf.jaw_set import JawSet
from calc.shelf.plug import Plug
from calc.shelf.ring import Ring
from calc.shelf.taken import SetupShelf, Shelf
from calc.tests.plans import ALUMINIUM, DOCUMENT, MACHINE, MATERIAL, STEEL, TALL, TOOTHED


def plain_cuts() -> tuple[PlannedCut, ...]:
    """The cuts of the plan for tests, with ids still to be given."""
    return tuple(replace(c, id="") for c in DOCUMENT.setups[0].cuts)


FIRST = Setup(
    "One",
    hold=Hold(grip="stock", depth_mm=12.0),
    force=Force(pressure_bar=20.0, condition="today"),
    clamp_rpm=500.0,
    cuts=(PlannedCut("Rough", "turn", 122.0, 85.0, speed_m_min=100.0, feed_mm_rev=0.2, depth_mm=1.5),),
    id="s1",
)
SECOND = replace(DOCUMENT.setups[0], hold=Hold(grip="outside:o1", depth_mm=20.0), cuts=plain_cuts(), id="s2")
TWO = replace(DOCUMENT, setups=(FIRST, SECOND), sides=Sides("a"))
BLANKS = (STEEL, ALUMINIUM, replace(TALL, face_radius_mm=20.0))
SET = JawSet("set", "Set 1", "od", 84.0, 22.0, 4.0, tooth=0, numbers="1-1", chuck_key="c", damage_mm=0.1)
ON = SetupShelf(
    TOOTHED, BLANKS[2], BLANKS, rings=(Ring("b", "Ring B", 95, 140, 6, 750),), plugs=(Plug("p", "Plug", 60),)
)
SHELF = Shelf(MACHINE, MATERIAL, (ON, ON))

# Facts that pull on each other, with values that are fine, odd, missing or refused.
EDITS = {
    "part.quantity": [1, 500],
    "part.edge_mm": [0.0, 0.3, 1.0],
    "part.face_stock_mm": [0.0, 2.0, 5.0],
    "part.roundness_mm": [None, 0.02],
    "part.stock.diameter_mm": [None, 119.0, 122.0],
    "part.stock.smallest_mm": [None, 121.0],
    "part.profile.outside.o1.diameter_mm": [None, 80.0, 84.0],
    "part.profile.outside.o1.length_mm": [None, 10.0, 40.0],
    "part.profile.inside.i1.diameter_mm": [52.0, 70.0],
    "sides.first_end": ["a", "b", "proposed"],
    "sides.two_step": [True, False],
    "setups.s1.hold.depth_mm": [None, 12.0, 60.0],
    "setups.s1.hold.jaw_height_mm": [None, 45.0],
    "setups.s1.jaws.tooth": [None, 3],
    "setups.s1.jaws.position": [0.0, 0.5],
    "setups.s1.force.pressure_bar": [None, 4.0, 20.0, 39.0],
    "setups.s1.force.condition": ["today", "unknown", "measured"],
    "setups.s2.hold.grip": ["", "outside:o1", "outside:gone"],
    "setups.s2.hold.seat": ["floor", "none"],
    "setups.s2.hold.live_centre": [True, False],
    "setups.s2.hold.friction": ["auto", "ground"],
    "setups.s2.jaws.feeler_mm": [None, 0.03],
    "setups.s2.jaws.blue": ["none", "tip"],
    "setups.s2.jaws.reading_mm": [None, 83.62],
    "setups.s2.force.condition_measured": [None, 0.7],
    "setups.s2.force.condition_date": [None, "2026-11-20"],
    "rules.safety": [1.5, 2.5],
    "setups.s2.force.user_max_rpm": [None, 300.0],
    "setups.s2.clamp_rpm": [None, 400.0],
    "setups.s2.cuts.c2.feed_mm_rev": [None, 0.1, 0.6],
    "setups.s2.cuts.c2.rpm": [None, 900.0],
}
EDIT = st.sampled_from([(path, value) for path, values in EDITS.items() for value in values])


def shown(result: PlanResult, *, tried_too: bool = True) -> object:
    tried = [(result.helps(s), result.tables(s)) for s in result.stops] if tried_too else []
    drawn = [(d.name, d.draw()) for view in result.views for d in drawings_of(view)]
    stops = [{f.name: getattr(s, f.name) for f in dataclasses.fields(s)} for s in result.stops]
    return as_plain((stops, result.sides, result.verdict, tried, drawn))


@settings(max_examples=8, suppress_health_check=[HealthCheck.too_slow])
@given(st.lists(EDIT, min_size=1, max_size=6))
def test_after_any_edits_the_plan_is_as_if_computed_for_the_first_time(edits: list[tuple[str, object]]) -> None:
    document: Document = TWO
    for path, value in edits:
        try:
            document = replaced(document, path, value)
        except CalcError:
            continue  # refused at the field
        warm = shown(compute(document, SHELF))
        forget()
        assert shown(compute(document, SHELF)) == warm


WORDS = {
    "fit": ["h6", "g6"],
    "thread": ["M80x2"],
    "groove": ["3x1"],
    "tool": ["no-such/l25"],
    "grip": ["", "outside:o2"],
}
WORDS |= {"condition_date": ["2026-11-20"], "program": ["4711"], "feeds": ["toward"], "start": ["2026-12-01 06:00"]}
STEPS = "part.profile.outside.o1", "part.profile.inside.i1"
BESIDE = [
    (),
    tuple((f"{step}.thread", "M80x2") for step in STEPS),  # a thread's length needs a thread
    ((f"{STEPS[0]}.upper_mm", None), (f"{STEPS[0]}.lower_mm", None)),  # limits are a class or figures
]
GIVEN_ONCE = ("id", "version")  # nobody edits them


def facts(kind: type[Any], value: Any, at: str = "") -> Iterator[tuple[str, FieldSpec, Any]]:
    """Every fact of a value by its path, of a list's items the first one's."""
    for f in fields_of(kind):
        here, path = getattr(value, f.name), f"{at}{f.name}"
        if f.nested and f.many:
            for item in here[:1]:
                yield from facts(f.nested, item, f"{path}.{item.id}.")
        elif f.nested:
            yield from facts(f.nested, here, f"{path}.")
        elif f.name not in GIVEN_ONCE:
            yield path, f, here


def others(field: FieldSpec, value: Any) -> list[Any]:
    """Other values that a fact may have, as far as its own declaration says."""
    found: list[Any] = [None] if field.nullable else []
    match field.spec:
        case Quantity() as spec:
            step = 1 if spec.whole else 0.05
            found += [v for v in ((value or 0) + step, (value or 0) - step, (spec.high or 2.0) / 2) if v != value]
        case Choice() as spec:
            found += list(spec.options)
        case Flag():
            found.append(not value)
        case Text():
            found += WORDS.get(field.name, ["other"])
    return [v for v in found if v != value]


TOGETHER = 7  # facts that are edited one after the other before the plan is computed anew


def test_a_plan_computed_after_an_edit_of_any_fact_is_as_if_computed_for_the_first_time() -> None:
    never, edited, paths = [], TWO, []
    for path, field, value in facts(Document, TWO):
        # On what was edited before, or on the plan itself where that refuses it.
        after = next(accepted(edited, path, others(field, value)), None)
        if after is None and edited is not TWO:
            _as_if_new(edited, paths)
            edited, paths = TWO, []
            after = next(accepted(edited, path, others(field, value)), None)
        if after is None:
            never.append(path)
            continue
        edited, paths = after, [*paths, path]
        compute(edited, SHELF)
        if len(paths) == TOGETHER:
            _as_if_new(edited, paths)
            edited, paths = TWO, []
    _as_if_new(edited, paths)
    assert never == []


def _as_if_new(edited: Document, paths: list[str]) -> None:
    # What is tried besides is plans of their own, which the edits above are about.
    warm = shown(compute(edited, SHELF), tried_too=False)
    forget()
    assert shown(compute(edited, SHELF), tried_too=False) == warm, paths


def accepted(plan: Document, path: str, values: list[Any]) -> Iterator[Document]:
    """A plan with each of the values that is not refused at its field; some need another fact beside them."""
    for value in values:
        for beside in BESIDE:
            with suppress(CalcError):
                yield replaced(reduce(lambda d, fact: replaced(d, *fact), beside, plan), path, value)


@pytest.mark.parametrize(
    "change",
    [
        {"chuck": replace(TOOTHED, max_rpm=1000)},
        {"chuck": replace(TOOTHED, force=replace(TOOTHED.force, reference_height_mm=50))},
        {"blank": replace(BLANKS[2], density_kg_dm3=2.7)},
        {"rings": (Ring("b", "Ring B", 95, 140, 3, 750),)},
        {"plugs": ()},
        {"jaw_set": SET, "jaw_sets": (SET,)},
        {"on_machine": False},
    ],
    ids=lambda change: next(iter(change)),
)
def test_an_item_changed_on_the_shelf_is_another_item_though_its_key_stays(change: dict[str, object]) -> None:
    forget()
    before = shown(compute(TWO, SHELF))
    one = replace(ON, **change)
    shelf = Shelf(MACHINE, MATERIAL, (one, one))
    warm = shown(compute(TWO, shelf))
    assert warm != before
    forget()
    assert shown(compute(TWO, shelf)) == warm


def test_another_machine_or_material_moves_what_rests_on_it() -> None:
    base = compute(TWO, SHELF)
    slow = compute(TWO, replace(SHELF, machine=replace(MACHINE, max_rpm=800)))
    assert slow.figures[0][FORCE].cap_rpm == 800 != base.figures[0][FORCE].cap_rpm
    tough = compute(TWO, replace(SHELF, material=replace(MATERIAL, kc11=2 * MATERIAL.kc11)))
    # Kienzle: force goes with k_c1.1.
    forces = [r.figures[1][CUTS].cuts[0].result.tangential_n for r in (base, tough)]
    assert forces[1] == pytest.approx(2 * forces[0])


def test_what_the_two_sides_share_is_solved_once() -> None:
    forget()
    one, two = compute(TWO, SHELF).figures
    assert one.outcome(PART) is two.outcome(PART) and one.outcome(SIDES) is two.outcome(SIDES)
    asked = misses()
    again = compute(TWO, SHELF)
    assert misses() == asked
    assert again.figures[0].outcome(FORCE) is one.outcome(FORCE)


def test_both_pockets_are_from_one_boring() -> None:
    forget()
    shared = compute(replace(TWO, sides=Sides("a", True)), SHELF)
    assert {s.state for s in shared.stops if s.name in ("part", "sides", "force")} == {"settled"}
    outer, inner = (f[HOLD] for f in shared.figures)
    assert outer.other is inner.pocket and inner.other is outer.pocket
