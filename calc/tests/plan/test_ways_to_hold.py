"""Collets, hard jaws, bars with flats and a second spindle: by hand, at their limits, and what they refuse."""

from dataclasses import replace
from functools import cache
from math import pi, sqrt

import pytest

from calc.chuck.demand import CutLoad, GripDemandInput, grip_demand
from calc.plan.compute import compute
from calc.plan.cuts.solve import CUTS
from calc.plan.force.solve import FORCE
from calc.plan.hold.bar import bar_figures
from calc.plan.hold.figures import ColletHold, JawHold
from calc.plan.hold.solve import HOLD
from calc.plan.outcome import Asked
from calc.plan.part.solve import PART
from calc.plan.paths import replaced
from calc.plan.run_file import read_run
from calc.plan.scenes import section
from calc.plan.solve import solve
from calc.shelf.jaw_blank import JawBlank
from calc.tests.plan.test_refused import FILES

HARD = JawBlank(
    "hard", "hard 48 high", "steel", 34.0, 70.0, 48.0, 7.85, 20.0, 30.0, kind="hard", step_mm=12.0, seat_mm=10.0
)


@cache
def plan(name):
    return read_run((FILES / f"twin-{name}.json").read_text(encoding="utf-8"))


def changed(name, *facts, machine=None, first=None, second=None):
    """(document, shelf) of a plan with facts, and figures of its machine and of what its set-ups take, replaced."""
    run = plan(name)
    document, shelf = run.document, run.shelf
    for path, value in facts:
        document = replaced(document, path, value)
    setups = [replace(s, **(more or {})) for s, more in zip(shelf.setups, (first, second), strict=False)]
    return document, replace(shelf, machine=replace(shelf.machine, **(machine or {})), setups=tuple(setups))


def stops(*given):
    """Codes of what stops a plan, and the fields of its problems."""
    result = compute(*given)
    return {n.code for s in result.stops for n in s.notes if n.level == "stop"} | {p.field for p in result.problems}


@pytest.mark.parametrize("name", ["collet", "hexagon"])
def test_bar_work_in_a_collet_with_both_sides_made_is_settled(name):
    run = plan(name)
    result = compute(run.document, run.shelf)
    assert result.verdict == "settled"
    assert [type(f[HOLD]) for f in result.figures] == [ColletHold, ColletHold]
    assert all(f[CUTS].minutes <= 1.6 for f in result.figures)


def test_a_collet_grips_by_its_piston_and_cone():
    """27 bar on 9 000 mm² draw 24.3 kN; 0.9 of it over tan(8° + 6.843°) = 0.26503 grip 82.5 kN, at any speed."""
    run = plan("collet")
    document, shelf = changed("collet", (f"setups.{run.document.setups[0].id}.force.pressure_bar", 27.0))
    force = solve(document, shelf, 0)[FORCE]
    assert force.grip.grip_n == pytest.approx(82_520, rel=1e-3)
    assert force.grip.height_factor == 1.0
    assert {round(load.at_top.grip_n) for load in force.loads} == {round(force.grip.grip_n)}
    assert force.cap_rpm == shelf.machine.feeder_rpm  # nothing of the grip is lost: the feeder rules


def test_nothing_is_bored_and_the_stop_says_what_to_set():
    run = plan("collet")
    result = compute(run.document, run.shelf)
    jaws = result.stop("jaws")
    assert (jaws.state, str(jaws.line)) == ("settled", "Collet 36, nothing to bore")
    assert result.program(jaws) is None
    facts = {f.name: f.value for f in jaws.facts}
    assert (facts["collet_size"], facts["collet_range"], facts["collet_bearing"]) == (36.0, 35.5, 34.0)


def test_a_tool_must_clear_the_nose():
    run = plan("collet")
    parting = next(c for c in run.document.setups[0].cuts if c.kind == "part")
    at = f"setups.{run.document.setups[0].id}"
    given = changed("collet", (f"{at}.hold.stick_out_mm", parting.start_mm + 3.4))
    notes = [n for s in compute(*given).stops for n in s.notes if n.code == "hits-the-jaws"]
    assert any("the collet's nose" in n.sentence.text() for n in notes)


def test_flats_carry_the_torque():
    """A hexagon of 24: 1 000 N at Ø20 is 10 N·m; with half of each flat counted 2·1000·20/(24·tan 30°) = 2 887 N."""
    cut = CutLoad("turn", 1000.0, 0.0, 0.0, 20.0, 10.0, torque_only=True)
    found = grip_demand(GripDemandInput((cut,), 24.0, 30.0, 0.12, flats=6)).cuts[0]
    assert found.slip_n == pytest.approx(2 * 1000 * 20 / (24 / sqrt(3)))
    pushed = replace(cut, unseated_axial_n=600.0)
    both = grip_demand(GripDemandInput((pushed,), 24.0, 30.0, 0.12, flats=6)).cuts[0]
    assert both.slip_n == pytest.approx(sqrt(found.slip_n**2 + (600 / 0.12) ** 2))


def test_a_hexagon_is_counted_to_its_corners():
    run = plan("hexagon")
    part = solve(run.document, run.shelf, 0)[PART]
    assert 2 * part.held_radii_mm[0] == pytest.approx(24 * 2 / sqrt(3))
    area, density = sqrt(3) / 2 * 24**2, run.shelf.material.density_kg_dm3
    assert part.held_mass_kg == pytest.approx(area * (34 + 2 * 0.5) * density / 1e6)
    bare = replaced(run.document, "part.stock.smallest_mm", None)
    round_bar = replaced(bare, "part.profile.outside.o4.left", "turned")
    body, other = part.figures, solve(round_bar, run.shelf, 0)[PART].figures
    more = (sqrt(3) / 2 * 24**2 - pi / 4 * 24**2) * 14
    assert body.volume_mm3 - other.volume_mm3 == pytest.approx(more, rel=0.005)  # its end has no edge broken


def test_what_begins_outside_the_flats_strikes():
    run = plan("hexagon")
    cuts = {c.name: c for c in solve(run.document, run.shelf, 0)[CUTS].cuts}
    rough, then = cuts["Rough Collar, to Ø24"], cuts["Rough Collar"]
    assert rough.tangential_n / rough.result.tangential_n == pytest.approx(1.25)
    assert then.tangential_n / then.result.tangential_n == pytest.approx(1.0)


def test_pieces_of_a_bar():
    """34 long, 0.5 stock on both faces and a blade of 3: 38 a piece; (3 000 − 180)/38 = 74.2; 800 pieces of 11 bars."""
    run = plan("hexagon")
    figures = solve(run.document, run.shelf, 0)
    asked = Asked(run.document, run.shelf, 0, (figures, solve(run.document, run.shelf, 1)))
    bar = bar_figures(asked, figures[HOLD], figures[PART])
    assert (bar.each_mm, bar.pieces, bar.bars) == (pytest.approx(38.0), 74, 11)


@pytest.mark.parametrize(
    ("name", "facts", "more", "said"),
    [
        ("collet", [], {"machine": {"spindle_bore_mm": 35.9}}, "bar-too-thick"),
        ("collet", [("part.stock.largest_mm", 36.1)], {}, "collet-range"),
        ("collet", [("part.stock.smallest_mm", 35.4)], {}, "collet-range"),
        ("hexagon", [("part.stock.section", "square")], {}, "part.stock.section"),
        ("hexagon", [("part.stock.diameter_mm", 21.0), ("part.stock.smallest_mm", None)], {}, "part.stock.diameter_mm"),
        ("hexagon", [("part.stock.diameter_mm", 21.0)], {}, "part.stock.diameter_mm"),
        ("collet", [], {"machine": {"second_rpm": None, "second_kw": None, "second_nm": None}}, "setups.s2.chuck"),
        ("collet", [], {"machine": {"feeder_mm": 35.0}}, "over-the-feeder"),
        ("collet", [("part.stock.length_mm", 3300.0)], {}, "too-long-for-the-feeder"),
        ("collet", [], {"machine": {"feeder_mm": None, "feeder_rpm": None}}, "bar-leaves-spindle"),
    ],
)
def test_bad_input_is_refused_with_its_sentence(name, facts, more, said):
    assert said in stops(*changed(name, *facts, **more))


def test_a_collet_of_another_form_or_a_serrated_one_on_a_finished_surface_is_refused():
    run = plan("hexagon")
    round_one = replace(run.shelf.setups[0].collet, form="round", key="round")
    first = {"collet": round_one, "collets": (round_one,)}
    assert "collet-form" in stops(*changed("hexagon", first=first))
    serrated = replace(run.shelf.setups[1].collet, face="serrated")
    assert "marks-finished" in stops(*changed("hexagon", second={"collet": serrated, "collets": (serrated,)}))


@pytest.mark.parametrize(
    ("section", "kind", "said"),
    [("hexagon", "block", "flats-in-bored-jaws"), ("square", "hard", "flats-and-jaws"), ("hexagon", "hard", None)],
)
def test_flats_sit_on_flat_jaws_as_many_as_divide_them(section, kind, said):
    """Three jaws hold three of a hexagon's flats; a square they do not hold, and bored jaws hold neither."""
    run = plan("centre")
    blank = HARD if kind == "hard" else run.shelf.setups[0].blank
    flat = replace(run.shelf.setups[0], blank=blank, blanks=(blank,))
    facts = [("part.stock.section", section), ("setups.s1.cuts.c1.from_diameter_mm", 104.0)]
    found = stops(*changed("centre", *facts, first={"blank": flat.blank, "blanks": flat.blanks}))
    assert found & {"flats-in-bored-jaws", "flats-and-jaws"} == ({said} if said else set())


def test_hard_jaws_take_the_tooth_nearest_to_mid_stroke():
    """Faces at 30 + 1.5·k: Ø90 asks for 45, which is tooth 10; half of the stroke is used there."""
    document, shelf = changed("centre", first={"blank": HARD, "blanks": (HARD,)})
    figures = solve(document, shelf, 0)
    hold = figures[HOLD]
    assert isinstance(hold, JawHold)
    assert (hold.mount.tooth, hold.mount.face_radius_mm, hold.pocket.bore_depth_mm) == (10, 45.0, 12.0)
    assert hold.friction == pytest.approx(0.30 * shelf.material.friction_multiplier)
    result = compute(document, shelf)
    assert str(result.stop("jaws").line) == "tooth 10, nothing to bore"
    assert result.program(result.stop("jaws")) is None
    far = replaced(document, "setups.s1.jaws.tooth", 5)
    assert "hard-out-of-reach" in stops(far, shelf)


def test_hard_jaws_never_hold_a_finished_surface():
    document, shelf = changed("centre", ("setups.s1.hold.grip", "outside:o2"), first={"blank": HARD, "blanks": (HARD,)})
    assert "marks-finished" in stops(document, shelf)


def test_while_it_is_parted_off_the_lower_of_two_caps_counts():
    chuck = plan("collet").shelf.setups[1].chuck
    document, shelf = changed("collet", second={"chuck": replace(chuck, max_rpm=3000.0)})
    first, second = solve(document, shelf, 0)[FORCE], solve(document, shelf, 1)[FORCE]
    parting = next(load for load in first.loads if load.cut is not None and load.cut.planned.kind == "part")
    assert (parting.cap_rpm, parting.limit.capped_by) == (3000.0, "other")
    assert next(load for load in second.loads if load.cut is None).cap_rpm == 3000.0
    others = [load.cap_rpm for load in first.loads if load is not parting]
    assert min(others) > 3000.0


def test_a_grip_of_the_second_spindle_that_does_not_hold_the_parting_stops_both():
    run = plan("collet")
    low = (f"setups.{run.document.setups[1].id}.force.pressure_bar", 5.0)
    document, shelf = changed("collet", low)
    result = compute(document, shelf)
    assert [result.stop("force", side).state for side in (0, 1)] == ["stopped", "stopped"]


def test_the_section_draws_the_collet_its_nose_and_the_bar():
    run = plan("collet")
    result = compute(run.document, run.shelf)
    names = {s.name for s in section(result.views[0]).shapes}
    assert {"collet", "collet-below", "chuck", "bar"} <= names


def test_a_collet_that_draws_back_wants_a_stop_that_stays():
    run = plan("collet")
    at = f"setups.{run.document.setups[0].id}.hold.bar_stop"

    def cautions(stop):
        figures = solve(*changed("collet", (at, stop)), 0)
        return {n.code for n in figures[HOLD].notes if n.level == "caution"}

    assert "draws-back" in cautions("turret")
    assert "draws-back" not in cautions("stays")
    assert "no-bar-stop" in cautions("none")
    dead = replace(run.shelf.setups[0].chuck, draws="dead")
    document, shelf = changed("collet", first={"chuck": dead})
    assert "draws-back" not in {n.code for n in solve(document, shelf, 0)[HOLD].notes}


def test_the_blade_must_clear_what_the_second_spindle_holds_with():
    """A nose that stands out less brings the second chuck's body to the blade's block."""
    run = plan("collet")
    chuck = run.shelf.setups[1].chuck
    document, shelf = changed("collet", second={"chuck": replace(chuck, nose_length_mm=5.0)})
    result = compute(document, shelf)
    notes = [n for n in result.stop("cuts").notes if n.code == "hits-the-jaws"]
    assert ["Part off" in n.sentence.text() and "second spindle" in n.sentence.text() for n in notes] == [True]
    alone = changed("collet", second={"chuck": replace(chuck, nose_length_mm=5.0, spindle="main")})
    assert "hits-the-jaws" not in {n.code for n in compute(*alone).stop("cuts").notes}


def test_a_collet_is_never_closed_harder_than_it_may_be():
    collet = replace(plan("collet").shelf.setups[0].collet, max_grip_n=40_000.0)
    document, shelf = changed("collet", first={"collet": collet, "collets": (collet,)})
    assert any(f.endswith("force.pressure_bar") for f in stops(document, shelf))  # 27 bar would grip with 82.5 kN


def test_the_piece_is_parted_off_and_nothing_comes_after_it():
    run = plan("collet")
    setup = run.document.setups[0]
    others = tuple(c for c in setup.cuts if c.kind != "part")
    parting = next(c for c in setup.cuts if c.kind == "part")

    def codes(*cuts):
        document = replace(run.document, setups=(replace(setup, cuts=cuts), run.document.setups[1]))
        return {n.code for n in compute(document, run.shelf).stop("cuts").notes if n.level == "stop"}

    assert codes(*others, parting) == set()
    # The finished bore of Ø14 ends with the part; behind it Ø13 is drilled, and a ring would hold the piece.
    assert "not-parted" in codes(*others, replace(parting, to_diameter_mm=14.0))
    assert "not-parted" in codes(*others)
    assert "after-parting" in codes(*others[:-1], parting, others[-1])
