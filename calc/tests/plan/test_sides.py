"""What is fit to be gripped, which end first, and two pockets in one set."""

from __future__ import annotations

from dataclasses import replace

import pytest

from calc.plan.compute import compute
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.document import Setup, another_side
from calc.plan.force.inputs import Force
from calc.plan.hold.inputs import Hold
from calc.plan.hold.solve import HOLD
from calc.plan.jaws.solve import JAWS
from calc.plan.part.inputs import Stock
from calc.plan.paths import replaced
from calc.plan.sides.inputs import Sides
from calc.plan.sides.solve import SIDES
from calc.profile.body import body_of
from calc.profile.grips import finished_grips
from calc.shelf.ring import Ring
from calc.shelf.taken import SetupShelf, Shelf
from calc.tests.plans import DOCUMENT, MACHINE, MATERIAL, NO_TOOLS, SHELF, TALL, TOOTHED, plan, steps, tables, unsettled


def grips(outside, inside=(), held="a"):
    body = body_of(steps(*outside), steps(*inside, stem="i"), (), 0.0)
    return {g.key: g for g in finished_grips(body, held)}


def test_each_diameter_says_why_it_is_fit_or_not():
    found = grips(
        ["Hub: 84 h7 x 40 r1", "Flange: 118 x 14", "M24: M24x1.5 x 20", "Neck: groove 20 x 4", "Cone: 30>20 x 6"],
        ["Bore: 52 x 30"],
    )
    assert found["outside:o1"].fit
    assert (found["outside:o1"].offset_mm, found["outside:o1"].plain_mm) == (
        0.0,
        39.0,
    )  # the corner radius is kept clear
    assert "threaded" in str(found["outside:o3"].why_not)
    assert "groove" in str(found["outside:o4"].why_not)
    assert "tapered" in str(found["outside:o5"].why_not)
    assert found["inside:i1"].fit and found["inside:i1"].side == "id"


def test_a_larger_step_before_it_keeps_the_jaws_away():
    from_b = grips(["Spigot: 84 x 40", "Flange: 118 x 14"], held="b")
    assert from_b["outside:o2"].fit
    assert "Flange, Ø118, is larger" in str(from_b["outside:o1"].why_not)
    from_a = grips(["Nose: 40 x 10", "Spigot: 84 x 40", "Flange: 118 x 14"])
    assert from_a["outside:o2"].fit and from_a["outside:o2"].offset_mm == 10.0


def test_the_wall_is_the_rings_own_whatever_its_edges():
    ring = grips(["Rim: 168 x 32 c0.5"], ["Bore: 148 through c0.5"])
    assert ring["outside:o1"].wall_mm == pytest.approx(10.0)
    assert ring["inside:i1"].wall_mm == pytest.approx(10.0)
    assert grips(["Bar: 40 x 60 c1"])["outside:o1"].solid


def test_a_threads_plain_rest_can_be_gripped():
    assert grips(["Stud: M24x1.5 x 60 on 20"])["outside:o1"].fit
    assert not grips(["Stud: M24x1.5 x 22 on 20"])["outside:o1"].fit


def test_the_order_that_leaves_more_to_hold_is_proposed_and_the_setter_decides():
    sides = plan(sides__first_end="proposed").figures[0][SIDES]
    # Spigot first: the second side is held on 40 mm finished to limits; flange first: on 14 mm without limits.
    assert sides.proposed == "a" and sides.orders["a"].score > sides.orders["b"].score
    assert sides.orders["a"].best(1).key == "outside:o1"
    assert sides.orders["b"].best(1).key == "outside:o2"
    decided = plan(sides__first_end="b")
    assert "order-other" in {n.code for n in decided.stop("sides").notes}
    table = tables(decided, "sides")["orders"]
    assert table.head[1:] == ("spigot end first, proposed", "flange end first")


def test_without_the_stock_the_first_side_asks_for_it():
    two = replaced(DOCUMENT, "part.stock", Stock())
    result = compute(replaced(two, "setups.s1.hold.grip", "stock"), SHELF)
    assert "stock diameter missing" in str(result.stop("hold").line)


def two_sided(**more):
    first = Setup(
        "One",
        hold=Hold(grip="stock", depth_mm=12.0),
        force=Force(pressure_bar=20.0, condition="today"),
        clamp_rpm=500.0,
        cuts=(PlannedCut("Spigot", "turn", 122.0, 84.0, speed_m_min=100.0, feed_mm_rev=0.2, depth_mm=1.5),),
        id="s1",
    )
    cuts = tuple(replace(c, id="") for c in DOCUMENT.setups[0].cuts)
    second = replace(DOCUMENT.setups[0], hold=Hold(grip="outside:o1", depth_mm=20.0), cuts=cuts, id="s2")
    tube = replace(DOCUMENT.part, stock=Stock(diameter_mm=122.0, bore_mm=52.0))
    document = replace(DOCUMENT, part=tube, setups=(first, second), sides=Sides("a", True))
    for path, value in more.items():
        document = replaced(document, path.replace("__", "."), value)
    tall = replace(TALL, face_radius_mm=20.0)
    on = SetupShelf(TOOTHED, tall, (tall,), rings=(Ring("d", "Ring D", 140, 190, 5, 600),))
    return compute(document, Shelf(MACHINE, MATERIAL, (on, on)))


def test_two_pockets_share_the_tooth_of_the_smaller_and_stand_one_below_the_other():
    result = two_sided()
    outer, inner = (f[HOLD] for f in result.figures)
    assert (outer.mount.tooth, inner.mount.tooth) == (10, 10)  # of Ø84: 35 = 20 + 10·1.5
    assert (outer.mouth_mm, inner.mouth_mm) == (0.0, 12.0)
    # Middle of the grip above the guide: 15 + 70 − 12/2 and 15 + 70 − 12 − 20/2.
    assert (outer.grip_height_mm, inner.grip_height_mm) == (79.0, 63.0)
    assert inner.pocket.floor_mm == pytest.approx(70 - 20 - 12 - 20)
    assert outer.other.bore_diameter_mm == 84.0 and inner.other.bore_diameter_mm == 122.0
    masses = {f[JAWS].mass.mass_kg for f in result.figures}
    assert len(masses) == 1  # one and the same jaw
    assert unsettled(result) == NO_TOOLS


def test_the_flange_must_go_into_the_outer_pocket_or_stand_before_it():
    inside = two_sided(setups__s1__hold__depth_mm=14.0, setups__s2__hold__depth_mm=30.0)
    assert "inside-outer-pocket" in {n.code for n in inside.stop("hold", 1).notes}  # 14 + 30 > 40
    assert "inside-outer-pocket" not in {n.code for n in two_sided().stop("hold", 1).notes}


def test_one_set_for_both_sides_is_proposed_where_it_suits():
    apart = two_sided(sides__two_step=False)
    assert "two-step-suits" in {n.code for n in apart.stop("sides").notes}
    assert "two-step-suits" not in {n.code for n in two_sided().stop("sides").notes}


def test_two_pockets_need_two_outside_diameters():
    same = two_sided(setups__s1__hold__grip="outside:o2", part__profile__outside__o2__diameter_mm=85.0)
    assert any("about the same diameter" in str(s.line) for s in same.stops)


def test_a_further_side_takes_over_what_it_shares_with_the_first_and_nothing_else():
    """How the shop cuts jaws and what is known of the chuck; not pressure, hold, or which way a spindle turns."""
    jaws = replace(DOCUMENT.setups[0].jaws, ring_clearance_mm=4.5, boring_feed_mm_rev=0.09, spindle="M04", program=77)
    force = Force(pressure_bar=20.0, condition="today", user_max_rpm=1800.0)
    first = replace(DOCUMENT.setups[0], jaws=jaws, force=force, clamp_rpm=900.0)
    further = another_side(first, "Side 2")
    assert (further.jaws.ring_clearance_mm, further.jaws.boring_feed_mm_rev) == (4.5, 0.09)
    assert (further.force.condition, further.force.user_max_rpm) == ("today", 1800.0)
    assert (further.jaws.spindle, further.jaws.program, further.force.pressure_bar) == ("ask", None, None)
    assert (further.hold, further.cuts, further.clamp_rpm, further.name) == (Hold(), (), None, "Side 2")
