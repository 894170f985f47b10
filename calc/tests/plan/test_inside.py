"""Inside grip and thin walls within the plan."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest

from calc.plan.compute import view_of
from calc.plan.force.real_contact import contact_table
from calc.plan.force.solve import FORCE
from calc.tests.plans import PIE, STEEL, codes, drawn, helps, ring_inputs, ring_plan


def test_inside_grip_gains_with_speed_and_the_gain_is_not_credited():
    force = ring_plan(PIE).figures[0][FORCE]
    assert force.fastest.at_top.grip_n > force.grip.grip_n
    assert force.worst.held == pytest.approx(force.grip.grip_n / (force.asked.nominal.required_grip_n / 2))
    assert force.wall.given.total_grip_n == force.fastest.at_top.grip_n  # the wall is held against the highest grip
    chart = drawn(ring_plan(PIE), "chart").curves[0].points
    assert chart[-1][1] > chart[0][1]


def test_inside_the_cap_is_where_the_gain_reaches_what_the_wall_stands():
    force = ring_plan(PIE).figures[0][FORCE]
    limit, moment = force.wall.limit_n, sum(p.mass_kg * p.radius_mm for p in force.stack) / 1000
    by_hand = 60 / (2 * math.pi) * math.sqrt((limit - force.grip.grip_n) / (3 * moment))
    assert (force.lowest.limit.capped_by, force.cap_rpm) == ("wall", pytest.approx(by_hand))
    faster = ring_plan(PIE, setups__s1__clamp_rpm=2000.0, setups__s1__cuts__c1__rpm=by_hand + 1)
    assert "over-cap" in codes(faster, "force")
    solid = ring_plan(PIE, setups__s1__cuts__c1__to_diameter_mm=168.5).figures[0][FORCE]
    assert solid.lowest.limit.capped_by != "wall"  # nothing is finished here


def test_regular_jaws_stop_at_the_wall_where_pie_jaws_do_not():
    regular, pie = ring_plan(None), ring_plan(PIE)
    assert "wall-limit" in codes(regular, "force")
    assert "wall-limit" not in codes(pie, "force")
    table = next(t for t in pie.tables(pie.stop("hold")) if t.name == "blanks")
    assert len(table.rows) == 2
    assert any("pie" in str(h.label) for h in helps(regular, "force"))


def test_the_wall_stands_exactly_what_is_allowed():
    wall = ring_plan(None).figures[0][FORCE].wall
    # h8 of 168: 0.063 wide, a third is 0.021.
    assert wall.allowed_mm == pytest.approx(0.021)
    share = wall.limit_n / wall.given.total_grip_n
    assert wall.lobing.out_of_round_mm * share == pytest.approx(0.021)
    rounder = ring_plan(None, part__roundness_mm=0.03).figures[0][FORCE].wall
    assert rounder.allowed_mm == pytest.approx(0.01)


def test_a_wall_that_is_not_finished_here_has_no_limit():
    roughed = ring_plan(None, setups__s1__cuts__c1__to_diameter_mm=168.5)
    assert "wall-limit" not in codes(roughed, "force")
    assert roughed.figures[0][FORCE].wall.allowed_mm is None


def test_the_guides_moment_is_checked_at_the_highest_speed():
    tall = ring_plan(replace(PIE, height_mm=120.0), pressure=39.0)
    assert {"guide-moment", "chuck-overloaded", "overloaded"} & codes(tall, "force")


def test_the_real_contact_is_a_table_of_both_kinds_of_jaw():
    table = contact_table(view_of(*ring_inputs(PIE, 6.0), 0))
    assert [r.label for r in table.rows] == ["pie", STEEL.name]
    assert len(table.head) == 7
    pie = [c.value for c in table.rows[0].cells]
    assert min(pie[:5]) < pie[0] and min(pie[:5]) < pie[4]  # off size either way is worse
