"""The stress of a gripped wall against hand calculation, Lamé and the thin ring."""

from __future__ import annotations

import math

import pytest

from calc.errors import CalcError
from calc.walls.crushing import CrushingInput, crushing


def ring(**changed: object) -> CrushingInput:
    given: dict[str, object] = {
        "total_grip_n": 60_000.0,
        "side": "od",
        "outer_diameter_mm": 60.0,
        "inner_diameter_mm": 40.0,
        "length_mm": 20.0,
    }
    return CrushingInput(**{**given, **changed})  # type: ignore[arg-type]


def test_jaws_that_touch_at_a_point_bend_a_thin_ring_as_by_hand():
    """10 kN on 60/55 × 50: F_j 3 333.3, R 28.75; M = 3 333.3·28.75/2·(3/π − cot 60°) = 18 092 N·mm.

    6·18 092/(50·2.5²) = 347.4, and the hoop force 3 333.3/(2·50·2.5·tan 60°) = 7.7: 355.1 N/mm².
    """
    found = crushing(
        ring(total_grip_n=10_000.0, inner_diameter_mm=55.0, length_mm=50.0, uneven=True, proof_n_mm2=500.0)
    )
    assert found.stress_n_mm2 == pytest.approx(355.07, abs=0.02)
    assert found.share == pytest.approx(0.7101, abs=1e-4)


def test_two_points_are_the_ring_of_the_books():
    """Two opposite loads bend a ring by 0.3183·F·R under each: 6·0.3183·1 000·48/(10·4²) and nothing along it."""
    given = ring(total_grip_n=2_000.0, outer_diameter_mm=100.0, inner_diameter_mm=92.0, length_mm=10.0, jaws=2)
    found = crushing(ring(**{**vars(given), "uneven": True}))
    assert found.stress_n_mm2 == pytest.approx(6 * 0.31831 * 1_000 * 48 / (10 * 4**2), rel=1e-4)


@pytest.mark.parametrize(("side", "stress"), [("od", 69.28), ("id", 103.92)])
def test_jaws_all_the_way_round_are_lame(side, stress):
    """p = F/(6·R·l·sin 60°): 19.245 outside, 28.868 inside; largest hoop less radial 2·p·R_o²/(R_o² − R_i²)."""
    assert crushing(ring(side=side, wrap_deg=120.0)).stress_n_mm2 == pytest.approx(stress, abs=0.01)


@pytest.mark.parametrize("side", ["od", "id"])
@pytest.mark.parametrize("inner", [20.0, 40.0, 55.0])
@pytest.mark.parametrize("jaws", [2, 3, 6])
def test_the_stress_is_never_under_the_mean_of_the_ring(side, inner, jaws):
    """Whatever the wrap, the mean hoop stress of the wall stands: p·R/t, the pressure spread all round."""
    for wrap in (5.0, 20.0, 50.0):
        given = ring(side=side, inner_diameter_mm=inner, jaws=jaws, wrap_deg=wrap)
        mean_n_mm2 = given.total_grip_n / (2 * math.pi * given.length_mm * (given.outer_diameter_mm - inner) / 2)
        assert crushing(given).stress_n_mm2 >= mean_n_mm2


def test_a_narrow_jaw_on_a_thin_ring_is_the_point():
    """1.5 thick on R 50: as the wrap goes to nothing, even pressure bends as a point does."""
    thin = {"outer_diameter_mm": 101.5, "inner_diameter_mm": 98.5, "total_grip_n": 1_000.0}
    point = crushing(ring(**thin, uneven=True)).stress_n_mm2
    assert crushing(ring(**thin, wrap_deg=1.0)).stress_n_mm2 == pytest.approx(point, rel=0.03)
    wider = [crushing(ring(**thin, wrap_deg=wrap)).stress_n_mm2 for wrap in (10.0, 30.0, 60.0, 90.0, 120.0)]
    assert wider == sorted(wider, reverse=True)
    assert wider[0] < point


def test_the_stress_is_in_proportion_to_the_grip_and_against_length():
    once = crushing(ring()).stress_n_mm2
    assert crushing(ring(total_grip_n=120_000.0)).stress_n_mm2 == pytest.approx(2 * once)
    assert crushing(ring(length_mm=40.0)).stress_n_mm2 == pytest.approx(once / 2)


def test_the_grip_that_it_stands_is_four_fifths_of_proof():
    found = crushing(ring(proof_n_mm2=200.0))
    assert crushing(ring(total_grip_n=found.max_grip_n, proof_n_mm2=200.0)).share == pytest.approx(0.8)


@pytest.mark.parametrize(("share", "level"), [(0.49, None), (0.51, "caution"), (0.79, "caution"), (0.81, "stop")])
def test_half_of_proof_is_warned_and_four_fifths_stops(share, level):
    stands = crushing(ring(proof_n_mm2=200.0)).max_grip_n
    notes = crushing(ring(total_grip_n=stands * share / 0.8, proof_n_mm2=200.0)).notes
    assert [n.level for n in notes if n.level != "typical"][:1] == ([level] if level else [])


def test_a_wall_that_is_none_is_refused():
    with pytest.raises(CalcError):
        crushing(ring(inner_diameter_mm=60.0))
