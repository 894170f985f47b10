"""Thin walls: Lamé and thin-ring limits, the worked example, reciprocity, and the one-sided contact."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.errors import CalcError
from calc.walls.contact import WallContactInput, WallContactResult, wall_contact
from calc.walls.lobing import WallLobingInput, wall_lobing
from calc.walls.ring import even_response, wall_response


def lobing(**changes: Any) -> Any:
    base = {
        "total_grip_n": 30_000.0,
        "side": "od",
        "outer_diameter_mm": 110.0,
        "inner_diameter_mm": 90.0,
        "length_mm": 10.0,
        "modulus_gpa": 200.0,
        "poisson": 0.3,
        "jaws": 3,
        "wrap_deg": 50.0,
    }
    return wall_lobing(WallLobingInput(**(base | changes)))


def contact(jaw: float, **changes: Any) -> WallContactResult:
    base = {
        "total_grip_n": 30_000.0,
        "side": "od",
        "outer_diameter_mm": 110.0,
        "inner_diameter_mm": 90.0,
        "length_mm": 10.0,
        "modulus_gpa": 200.0,
        "poisson": 0.3,
        "jaws": 3,
        "wrap_deg": 50.0,
    }
    return wall_contact(WallContactInput(jaw_diameter_mm=jaw, **(base | changes)))


def test_worked_example() -> None:
    assert lobing().out_of_round_mm == pytest.approx(0.1816, abs=5e-5)


@pytest.mark.parametrize("m", [2, 3, 6])
def test_a_very_thin_ring_follows_the_inextensional_ring(m: int) -> None:
    # w = a_m R⁴ / (E I (m² − 1)²) per unit length, I = t³/12: both walls move alike.
    inner, outer = 99.9, 100.1
    walls = wall_response(np.array([m]), inner, outer, "od", 200e3, 0.3)
    ring = 100.0**4 / (200e3 * 0.2**3 / 12 * (m * m - 1) ** 2)
    for wall in walls:
        assert -wall[0] == pytest.approx(ring, rel=0.01)


def test_even_pressure_is_lame() -> None:
    # Published for a thick cylinder, plane stress: b = 2a, p outside: u_a = −2·p·a·b²/(E(b² − a²)) = −8/3·p·a/E.
    inner, outer = even_response(50, 100, "od", 200e3, 0.3)
    assert inner == pytest.approx(-8 / 3 * 50 / 200e3)
    assert outer == pytest.approx(-100 / 200e3 * (5 / 3 - 0.3))


def test_walls_are_free_and_loaded_as_said_by_reciprocity() -> None:
    # Maxwell: the inner wall's move under outside pressure and the outer wall's under inside pressure
    # agree once each pressure is weighted by its own circumference.
    for m in (3, 9, 60):
        under_outside = wall_response(np.array([m]), 45, 55, "od", 200e3, 0.3)[0][0]
        under_inside = wall_response(np.array([m]), 45, 55, "id", 200e3, 0.3)[1][0]
        assert -under_outside / 55 == pytest.approx(under_inside / 45, rel=1e-9)


@given(st.floats(1.2, 12), st.sampled_from([3, 4, 6]), st.sampled_from(["od", "id"]))
def test_point_loads_bound_and_force_scales(wall: float, jaws: int, side: Any) -> None:
    r = lobing(inner_diameter_mm=110 - 2 * wall, jaws=jaws, side=side, allowed_mm=0.01)
    assert 0 < r.out_of_round_mm <= r.out_of_round_point_mm
    # Half of the grip, half of the lobes; at the grip the wall stands, exactly what is allowed.
    again = lobing(inner_diameter_mm=110 - 2 * wall, jaws=jaws, side=side, total_grip_n=r.max_grip_n)
    assert again.out_of_round_mm == pytest.approx(0.01)


def test_more_wrap_and_more_jaws_press_less_out_of_round() -> None:
    wraps = [lobing(wrap_deg=a).out_of_round_mm for a in (1, 20, 50, 80, 118)]
    assert wraps == sorted(wraps, reverse=True)
    assert lobing(wrap_deg=1).out_of_round_mm == pytest.approx(lobing().out_of_round_point_mm, rel=2e-3)
    assert lobing(wrap_deg=120).out_of_round_mm == pytest.approx(
        0.0, abs=0.002
    )  # three half-turns of even push, all but the chuck's own direction
    assert lobing(jaws=6, wrap_deg=25).out_of_round_mm < lobing().out_of_round_mm / 4


def test_the_shape_has_as_many_lobes_as_jaws() -> None:
    inner = [p.inner_mm for p in lobing().shape[:-1]]
    dips = sum(a > b < c for a, b, c in zip(inner[-1:] + inner[:-1], inner, inner[1:] + inner[:1], strict=True))
    assert dips == 3
    assert inner[0] == min(inner)  # pushed in under the middle of a jaw


def test_refusals() -> None:
    with pytest.raises(CalcError, match="smaller than the outside"):
        lobing(inner_diameter_mm=110.0)
    with pytest.raises(CalcError, match="120"):
        lobing(wrap_deg=121.0)


def test_contact_of_a_far_too_large_bore_is_a_point_load() -> None:
    assert contact(140).out_of_round_mm == pytest.approx(lobing().out_of_round_point_mm, rel=0.01)


def test_contact_of_a_far_too_small_bore_is_two_lines_a_jaw() -> None:
    # Forces on both corners of the arc: pressure waves a_m = z·F_j cos(mβ) / (π R l cos β), F_j along the jaw.
    beta, m = np.radians(25), 3 * np.arange(1, 41)
    waves = 10_000 * 3 * np.cos(m * beta) / (np.pi * 55 * 10 * np.cos(beta))
    inner, _ = wall_response(m, 45, 55, "od", 200e3, 0.3)
    shape = np.cos(np.radians(np.arange(0, 361, 3))[:, None] * m) @ (waves * inner)
    assert contact(100).out_of_round_mm == pytest.approx(float(np.ptp(shape)), rel=0.02)


@pytest.mark.parametrize("jaw", [109.8, 110.0, 110.3, 112.0])
def test_contact_pushes_never_pulls_and_carries_the_force(jaw: float) -> None:
    r = contact(jaw)
    assert all(p.pressure_mpa >= 0 and p.gap_mm >= -1e-9 for p in r.contact)
    assert all(p.pressure_mpa == 0 or p.gap_mm < 1e-9 for p in r.contact)
    edges = np.radians(25) * (1 - (1 - np.linspace(0, 1, len(r.contact) + 1)) ** 1.5)
    along = sum(p.pressure_mpa * w for p, w in zip(r.contact, np.diff(np.sin(edges)), strict=True)) * 2 * 55 * 10
    assert along == pytest.approx(10_000)


def test_contact_in_regular_jaws_bored_to_size_is_below_even_pressure() -> None:
    assert contact(110).out_of_round_mm < lobing().out_of_round_mm


def test_contact_in_pie_jaws_worsens_quickly_off_size() -> None:
    """A tenth off on diameter costs a factor of two and more; a stiff wall cannot follow the arc."""
    best = min(contact(110 + d / 100, wrap_deg=118.0).out_of_round_mm for d in range(-8, 9, 2))
    for off in (-0.15, 0.15):
        assert contact(110 + off, wrap_deg=118.0).out_of_round_mm > 2 * best


def test_contact_inside_mirrors_outside() -> None:
    oversize, undersize = contact(92, side="id"), contact(88, side="id")
    assert undersize.out_of_round_mm > oversize.out_of_round_mm  # a jaw turned too small touches at its middle alone
    assert undersize.contact[0].pressure_mpa > 0 and oversize.contact[0].pressure_mpa == 0
