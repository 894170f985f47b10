"""Choosing tools: each hard rule at its limit, the preferences, and what is said."""

import dataclasses

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from calc.tests.tools.shelf import starting_library, stocked
from calc.tools.choose import Job, choose, every_tool, why_not
from calc.tools.kinds.insert import Insert
from calc.tools.library import Library
from calc.tools.rules.all_rules import BOOKS

LIB = starting_library()
ROUGH = Job("turn", "P", stage="rough", depth_mm=2.0, stock_mm=10, square=True, shank_mm=25, quantity=100, minutes=2)
FINISH = Job("turn", "P", stage="finish", depth_mm=0.5, square=True, ra_um=1.6, shank_mm=25)
BORE = Job("bore", "M", side="inside", stage="finish", depth_mm=0.5, bore_mm=30, reach_mm=40, bar_seat_mm=40)


def pick(job, library=LIB):
    return choose(library, BOOKS[job.kind], job)


def best(job, library=LIB):
    return pick(job, library).first[0].tool


def why(job, key, library=LIB):
    return str(why_not(library, BOOKS[job.kind], job, key).rejected)


def told(job, library=LIB):
    return " ".join(str(r) for r in pick(job, library).first[0].reasons)


def test_the_two_rougher_schools_pick_differently_and_say_so():
    rhombic, trigon = ROUGH, dataclasses.replace(ROUGH, rougher="trigon")
    assert best(rhombic).edge.decoded.shape == "C"
    assert best(trigon).edge.decoded.shape == "W"
    assert "the shop's rougher" in told(rhombic)
    assert "the shop's rougher" in told(trigon)


def test_roughing_takes_a_larger_corner_than_finishing():
    assert best(ROUGH).edge.decoded.corner_radius_mm > best(FINISH).edge.decoded.corner_radius_mm


@pytest.mark.parametrize("corner", [0.39, 0.4, 0.79, 0.8, 1.2])
def test_no_corner_above_the_prints_on_finishing(corner):
    job = dataclasses.replace(FINISH, corner_mm=corner)
    for ranked in every_tool(LIB, BOOKS["turn"], job):
        if ranked.rejected is None:
            assert ranked.tool.edge.decoded.corner_radius_mm <= corner
    # Roughing is not held to it.
    assert best(dataclasses.replace(ROUGH, corner_mm=corner)).edge.decoded.corner_radius_mm > 0.39


def test_the_falling_contour_asks_for_a_slender_point():
    # 55° at 93°: 180 - 93 - 55 - 2 = 30° down; 35° at 93°: 50°; 80° at 95°: 3°.
    assert best(dataclasses.replace(FINISH, falling_deg=3)).edge.decoded.shape in "CWDV"
    assert best(dataclasses.replace(FINISH, falling_deg=29.9)).edge.decoded.shape in "DV"
    assert best(dataclasses.replace(FINISH, falling_deg=30.1)).edge.decoded.shape == "V"
    assert pick(dataclasses.replace(FINISH, falling_deg=50.1)).fit == 0
    assert "the contour falls" in why(
        dataclasses.replace(FINISH, falling_deg=10), "ccmt09t304-finish-steel/cc09t3-out-25"
    )


def test_depth_is_held_to_the_usable_edge():
    # CNMG 12: two thirds of 12.896 across 95°: 8.565 mm
    at = dataclasses.replace(ROUGH, depth_mm=8.56)
    over = dataclasses.replace(ROUGH, depth_mm=8.57)
    key = "cnmg120412-rough-steel/cn1204-out-25"
    assert why_not(LIB, BOOKS["turn"], at, key).rejected is None
    assert "its edge stands" in why(over, key)


def test_heavy_roughing_never_with_a_slender_point():
    key = "dnmg150608-medium-steel/dn1506-out-25"
    assert "does not rough" in why(ROUGH, key)
    assert why_not(LIB, BOOKS["turn"], dataclasses.replace(ROUGH, depth_mm=1.9), key).rejected is None


@pytest.mark.parametrize(("bore", "fits"), [(28.571, False), (28.572, True)])
def test_a_bar_leaves_room_for_chips(bore, fits):
    # 20 / 0.7 = 28.5714
    key = "ccmt09t304-finish-stainless/cc09t3-bar-20-steel"
    found = why_not(LIB, BOOKS["bore"], dataclasses.replace(BORE, bore_mm=bore), key)
    assert (found.rejected is None) is fits


@pytest.mark.parametrize(("metal", "most"), [("steel", 64), ("carbide", 96)])
def test_a_bar_is_not_out_farther_than_its_metal_stands(metal, most):
    key = f"ccmt09t304-finish-stainless/cc09t3-bar-16-{metal}"
    assert why_not(LIB, BOOKS["bore"], dataclasses.replace(BORE, reach_mm=most), key).rejected is None
    assert why_not(LIB, BOOKS["bore"], dataclasses.replace(BORE, reach_mm=most + 0.1), key).rejected is not None


def test_the_stiffest_bar_that_fits_comes_first():
    def stiffness(tool):  # of a round bar: E D^4
        return tool.carrier.modulus_gpa * tool.carrier.shank_mm**4

    fit = [r.tool for r in every_tool(LIB, BOOKS["bore"], BORE) if r.rejected is None]
    assert stiffness(best(BORE)) == max(stiffness(t) for t in fit)


def test_a_small_bore_gets_a_single_sided_positive_edge():
    edge = best(dataclasses.replace(BORE, bore_mm=13, reach_mm=40)).edge.decoded
    assert edge.clearance_deg > 0
    assert not edge.double_sided


def test_aluminium_gets_a_bright_ground_edge():
    edge = best(dataclasses.replace(FINISH, group="N")).edge
    assert edge.coating == "none"
    assert edge.decoded.ground


def test_an_interrupted_cut_gets_a_tougher_grade_than_a_smooth_one():
    def toughness(job):
        low, high = best(job).edge.groups["M"]
        return (low + high) / 2

    job = dataclasses.replace(ROUGH, group="M")
    assert toughness(dataclasses.replace(job, interrupted=True)) >= toughness(job)
    assert "tough grade" in told(dataclasses.replace(job, interrupted=True))


def test_thin_parts_and_weak_machines_get_a_smaller_corner():
    thin = dataclasses.replace(ROUGH, thin=True)
    assert best(thin).edge.decoded.corner_radius_mm < best(ROUGH).edge.decoded.corner_radius_mm
    assert (
        best(dataclasses.replace(ROUGH, weak=True)).edge.decoded.corner_radius_mm
        < best(ROUGH).edge.decoded.corner_radius_mm
    )


def test_the_shelf_comes_first_within_a_tenth():
    bought = pick(FINISH).first
    other = bought[1].tool
    shelf = stocked(**{other.edge.key.replace("-", "_"): 50})
    assert best(FINISH, shelf).edge.key == other.edge.key
    assert "50 in stock" in told(FINISH, shelf)


def test_a_score_more_than_a_tenth_lower_does_not_win_by_stock():
    worst = [r for r in every_tool(LIB, BOOKS["turn"], FINISH) if r.rejected is None][-1]
    best_score = pick(FINISH).first[0].score
    assert worst.score < 0.9 * best_score
    shelf = stocked(**{worst.tool.edge.key.replace("-", "_"): 50})
    assert best(FINISH, shelf).edge.key != worst.tool.edge.key


def test_stock_is_held_against_what_the_run_takes():
    # 100 pieces of 2 min at 15 min an edge, four edges: 3.33 -> 4 inserts
    few, enough = stocked(cnmg120412_rough_steel=3), stocked(cnmg120412_rough_steel=4)
    assert "only 3 in stock; the run takes about 4" in " ".join(
        map(str, why_not(few, BOOKS["turn"], ROUGH, "cnmg120412-rough-steel/cn1204-out-25").reasons)
    )
    assert "4 in stock" in " ".join(
        map(str, why_not(enough, BOOKS["turn"], ROUGH, "cnmg120412-rough-steel/cn1204-out-25").reasons)
    )


def test_turret_shank_hand_and_grade_each_reject_with_their_reason():
    key = "cnmg120412-rough-steel/cn1204-out-25"
    assert "the turret takes 20" in why(dataclasses.replace(ROUGH, shank_mm=20), key)
    assert "away from the chuck in M03 needs left" in why(dataclasses.replace(ROUGH, feeds="away"), key)
    assert "not for ISO N" in why(dataclasses.replace(ROUGH, group="N"), key)
    assert "it works outside" in why(dataclasses.replace(BORE, group="P"), key)
    assert "round edge" in why(ROUGH, "rcmt1204m0-rough-steel/rc1204-out-25")
    assert "approaching at 75" in why(ROUGH, "snmg120408-rough-steel/sn1204-out-25")


def test_the_largest_drill_that_print_and_spindle_allow():
    job = Job("drill", "M", most_mm=51, reach_mm=58)
    assert best(job).edge.diameter_mm == 48
    weak = dataclasses.replace(job, torque_nm=60, kc11=2650 * 1.3, mc=0.21)
    small = best(weak).edge
    assert small.diameter_mm < 48
    # by hand: h = 0.025 sin 70 = 0.0235, k_c = 3445 h^-0.21 = 7573; M = k_c 0.05 d^2/8000
    assert 7573 * 0.05 * small.diameter_mm**2 / 8000 <= 60
    assert "the spindle has 60" in why(weak, "drill-48")
    assert "drills 65" in why(dataclasses.replace(job, reach_mm=66), "drill-13")


def test_a_full_profile_of_the_pitch_before_a_partial_one():
    job = Job("thread", "P", pitch_mm=1.5, shank_mm=20)
    assert best(job).edge.profile == "full"
    odd = dataclasses.replace(job, pitch_mm=1.75)
    assert best(odd).edge.profile == "partial"
    assert "turn the crest" in told(odd)
    assert pick(dataclasses.replace(job, angle_deg=55, pitch_mm=4)).fit == 0


def test_a_blade_in_a_block_reaches_past_the_centre():
    job = Job("part", "P", diameter_mm=36, stock_mm=18, shank_mm=20)
    assert best(job).edge.width_mm == 3
    assert "a blade in a block" in told(job)
    assert "past the centre takes 20" in why(job, "p-2/blade-2-20")


def test_a_groove_takes_no_wider_edge():
    job = Job("groove", "P", width_mm=3, stock_mm=1.2, shank_mm=20)
    assert best(job).edge.width_mm == 3
    assert "one plunge" in told(job)
    assert best(dataclasses.replace(job, width_mm=2.9)).edge.width_mm == 2


def test_an_empty_shelf_offers_nothing():
    for kind in BOOKS:
        found = choose(Library(), BOOKS[kind], Job(kind, "P"))
        assert (found.first, found.fit, found.rejected) == ((), 0, 0)
        assert every_tool(Library(), BOOKS[kind], Job(kind, "P")) == ()


def test_what_the_shelf_does_not_put_together_is_no_tool():
    assert why_not(LIB, BOOKS["turn"], ROUGH, "cnmg120412-rough-steel/wn0804-out-25") is None
    assert LIB.tool("cnmg120412-rough-steel/wn0804-out-25") is None
    assert LIB.tool("cnmg120412-rough-steel") is None
    assert LIB.tool("drill-13").edge.diameter_mm == 13


@settings(max_examples=60, deadline=None)
@given(
    st.sampled_from(["turn", "face", "bore"]),
    st.sampled_from("PMKNS"),
    st.sampled_from(["rough", "finish", "both"]),
    st.floats(0.1, 9),
    st.floats(0, 80),
    st.booleans(),
    st.booleans(),
)
def test_the_order_falls_and_every_rejected_one_says_why(kind, group, stage, depth, falling, square, thin):
    side = "inside" if kind == "bore" else "outside"
    job = Job(
        kind,
        group,
        side=side,
        stage=stage,
        depth_mm=depth,
        falling_deg=falling,
        square=square,
        thin=thin,
        bore_mm=60,
        reach_mm=50,
    )
    found = every_tool(LIB, BOOKS[kind], job)
    fit = [r for r in found if r.rejected is None]
    assert [r.score for r in fit] == sorted((r.score for r in fit), reverse=True)
    assert all(str(r.rejected) for r in found[len(fit) :])
    assert pick(job).first == tuple(fit[:3])


def test_every_starting_insert_is_what_its_code_says():
    for insert in LIB.inserts:
        assert isinstance(insert, Insert)
        assert insert.decoded.corner_radius_mm > 0
        assert insert.seat[:2] == insert.code[:2]
    assert (
        140
        <= sum(
            len(getattr(LIB, n)) for n in ("inserts", "groove_inserts", "thread_inserts", "holders", "drills", "blades")
        )
        <= 180
    )
