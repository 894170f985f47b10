"""Boring bars."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.tools.boring_bar import BoringBarInput, boring_bar


def bar(**changed):
    return boring_bar(BoringBarInput(**{"bore_mm": 30, "bar_mm": 20, "overhang_mm": 60, "force_n": 200} | changed))


def test_deflection_by_hand():
    # I = pi 20^4/64 = 7853.98; 200*60^3/(3*210000*7853.98)
    assert bar().deflection_mm == pytest.approx(200 * 216000 / (3 * 210000 * 7853.98), rel=1e-6)
    assert bar().overhang_ratio == 3


@pytest.mark.parametrize(("gpa", "most"), [(210, 80), (299, 80), (300, 160), (450, 160), (451, 120), (560, 120)])
def test_overhang_by_what_the_bar_is_made_of(gpa, most):
    assert bar(modulus_gpa=gpa, overhang_mm=most, force_n=0).ok
    over = bar(modulus_gpa=gpa, overhang_mm=most + 0.1, force_n=0)
    assert not over.ok
    assert "bar-out-too-far" in {n.code for n in over.notes}


def test_room_for_chips():
    assert bar(bar_mm=21, overhang_mm=60).ok
    assert not bar(bar_mm=21.1, overhang_mm=60).ok


def test_the_bend_counts_twice_against_a_quarter_of_the_tolerance():
    bend = bar().deflection_mm
    assert bar(tolerance_mm=8 * bend * 1.001).ok
    assert not bar(tolerance_mm=8 * bend * 0.999).ok


def test_chatter_hint_by_hand():
    k = 3 * 210000 * math.pi * 20**4 / 64 / 60**3
    assert bar(kc_n_mm2=2000).stable_width_mm == pytest.approx(2 * k * 0.02 * 1.02 / 2000)
    assert bar().stable_width_mm is None


@given(st.floats(5, 100), st.floats(1.01, 3))
def test_longer_bends_with_the_cube_and_thicker_with_the_fourth_power(overhang, times):
    one = bar(overhang_mm=overhang).deflection_mm
    assert bar(overhang_mm=overhang * times).deflection_mm == pytest.approx(one * times**3)
    assert bar(overhang_mm=overhang, bar_mm=20 * times).deflection_mm == pytest.approx(one / times**4)
