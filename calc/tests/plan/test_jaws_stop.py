"""Teeth, backing, taper and jaw sets within the plan."""

from __future__ import annotations

from dataclasses import replace

import pytest

from calc.jaws.keep import SetState, Wanted, keep_or_recut
from calc.plan.compute import compute
from calc.plan.hold.solve import HOLD
from calc.plan.jaws.solve import JAWS
from calc.plan.paths import replaced
from calc.shelf.jaw_set import JawSet
from calc.shelf.plug import Plug
from calc.shelf.ring import Ring
from calc.tests.plans import DOCUMENT, IN_TOOTH_0, SHELF, TOOTHED, codes, plan, shelf_with, tables

RING = Ring("b", "Ring B", 95, 140, 6, 750)


def toothed(**more):
    return plan(shelf_with(chuck=TOOTHED, blank=IN_TOOTH_0, blanks=(IN_TOOTH_0,)), **more)


def test_the_tooth_is_chosen_or_taken_and_rules_the_face():
    assert toothed().figures[0][HOLD].face_radius_mm == 35.0
    taken = toothed(setups__s1__jaws__tooth=8)
    assert taken.figures[0][HOLD].face_radius_mm == 32.0
    assert "teeth-unknown" in codes(plan(), "jaws", "caution")
    with_table = tables(toothed(), "jaws")["teeth"]
    assert [r.label for r in with_table.rows if r.chosen] == ["10"]


def test_rings_and_plug_of_the_shelf_are_asked_in_order():
    chosen = SHELF.setups[0]

    def backing(**tools):
        shelf = replace(SHELF, setups=(replace(chosen, **tools),))
        return compute(DOCUMENT, shelf).figures[0][JAWS].backing

    assert backing(rings=(RING,)).ring == "Ring B"
    small = Ring("s", "Small", 80, 120, 6, 800)
    assert backing(rings=(small,), plugs=(Plug("p", "Plug", 60), Plug("q", "Plug", 70))).plug_mm == 70
    # The jaws are mounted at 35 and half of their stroke is left: less than Ø67 is not reached.
    assert backing(rings=(small,), plugs=(Plug("p", "Plug", 60),)).choice is None
    assert backing() is None


def test_taper_is_estimated_until_the_feeler_and_the_blue_correct_it():
    chosen = SHELF.setups[0]
    shelf = replace(SHELF, setups=(replace(chosen, rings=(RING,)),))

    def taper(**facts):
        document = DOCUMENT
        for path, value in facts.items():
            document = replaced(document, f"setups.s1.jaws.{path}", value)
        return compute(document, shelf).figures[0][JAWS].taper_mm

    # ΔF of one jaw (32 − 6 bar)·2 500/3 at h = 55 − 15 = 40: well below 0.02 a side for steel 68 thick.
    assert taper() == 0.0
    assert taper(feeler_mm=0.03) == pytest.approx(0.06)
    assert taper(feeler_mm=0.03, blue="base") == pytest.approx(0.04)
    assert taper(feeler_mm=0.03, blue="tip") == pytest.approx(0.08)


STATE = SetState("od", 84.0, 22.0, 10, True, True, "", 0.0, 5.0)
WANTED = Wanted("od", 84.0, 20.0, 10, 11.0, 1.0)


@pytest.mark.parametrize(
    ("change", "verdict", "says"),
    [
        ({}, "refit", "check runout"),
        ({"same_chuck": False}, "recut", "another chuck"),
        ({"lent_to": "Lathe 5"}, "recut", "Lathe 5"),
        ({"marked": False}, "recut", "not marked"),
        ({"tooth": 9}, "recut", "tooth 9"),
        ({"damage_mm": 0.2}, "recut", "0.20"),
        ({"bored_mm": 83.5}, "recut", "bored to"),
        ({"depth_mm": 15.0}, "recut", "deep"),
        ({"side": "id"}, "unfit", "other way"),
        ({"damage_mm": 0.2, "wall_left_mm": 0.1}, "unfit", "at its end"),
        ({"damage_mm": 1.2}, "unfit", "most to take"),
        ({"bored_mm": 60.0}, "unfit", "would have to move"),
    ],
)
def test_keep_refit_or_recut(change, verdict, says):
    found = keep_or_recut(replace(STATE, **change), WANTED)
    assert found.verdict == verdict
    assert any(says in str(r) for r in found.reasons)


def test_a_recut_clamps_below_outside_and_above_inside_by_what_comes_off():
    out = keep_or_recut(replace(STATE, damage_mm=0.2), WANTED)
    assert (out.clamp_mm, out.removal_mm, out.recuts_left) == (pytest.approx(83.6), 0.2, 25)
    inside = keep_or_recut(replace(STATE, side="id", damage_mm=0.2), replace(WANTED, side="id"))
    assert inside.clamp_mm == pytest.approx(84.4)


def test_a_jaw_set_in_the_plan_tells_its_verdict_and_the_reading_moves_it():
    chosen = SHELF.setups[0]
    used = JawSet("set", "Set 1", "od", 84.0, 22.0, 4.0, tooth=0, numbers="1-1", chuck_key="c", damage_mm=0.1)
    shelf = replace(SHELF, setups=(replace(chosen, jaw_set=used, jaw_sets=(used,)),))
    jaws = compute(replaced(DOCUMENT, "setups.s1.jaws.reading_mm", 83.62), shelf).figures[0][JAWS]
    assert (jaws.keep.verdict, jaws.recut.verdict) == ("recut", "cut")
    assert jaws.recut.removal_mm == pytest.approx(0.11)
    spent = replace(used, wall_left_mm=0.05)
    stopped = compute(DOCUMENT, replace(SHELF, setups=(replace(chosen, jaw_set=spent, jaw_sets=(spent,)),)))
    assert "set-unfit" in {n.code for n in stopped.stop("jaws").notes}
