"""Stroke, contact, taper and re-cut: worked examples, limit cases by hand, properties."""

from __future__ import annotations

import math
from typing import Any

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from calc.errors import CalcError
from calc.jaws.contact import JawContactInput, jaw_contact
from calc.jaws.recut import JawRecutInput, jaw_recut
from calc.jaws.stroke import JawStrokeInput, jaw_stroke
from calc.jaws.taper import JawTaperInput, jaw_taper


@pytest.mark.parametrize(
    ("side", "p", "sizes", "opens", "closes", "ok"),
    [
        ("od", 0.5, (122, 123.2, 121.4), 5.5, 5.5, True),
        ("od", 0.1, (122, 123.2, 121.4), 1.1, 9.9, False),
        ("id", 0.9, (148, 148.05, 147.9), 9.9, 1.1, True),
    ],
)
def test_stroke_worked_examples(
    side: Any, p: float, sizes: tuple[float, float, float], opens: float, closes: float, ok: bool
) -> None:
    r = jaw_stroke(JawStrokeInput(side, 5.5, p, *sizes))
    assert r.load_clearance_mm == pytest.approx(opens)
    assert r.closing_travel_mm == pytest.approx(closes)
    assert r.ok is ok


def test_stroke_wants_by_hand() -> None:
    # Outside: 123.2 − 122 + 1.0 to load, 122 − 121.4 + 0.5 to grip. Inside the other way round.
    out = jaw_stroke(JawStrokeInput("od", 5.5, 0.5, 122, 123.2, 121.4))
    assert (out.clearance_wanted_mm, out.travel_wanted_mm) == (pytest.approx(2.2), pytest.approx(1.1))
    inside = jaw_stroke(JawStrokeInput("id", 5.5, 0.5, 148, 148.05, 147.9))
    assert (inside.clearance_wanted_mm, inside.travel_wanted_mm) == (pytest.approx(1.1), pytest.approx(0.55))


def test_stroke_ends_and_zero_spread() -> None:
    released = jaw_stroke(JawStrokeInput("od", 5.0, 0.0, 100, 100, 100))
    assert (released.load_clearance_mm, released.closing_travel_mm) == (0.0, 10.0)
    assert [n.level for n in released.notes if n.code == "hard-to-load"] == [
        "caution"
    ]  # a piece of exact size still goes in
    clamped = jaw_stroke(JawStrokeInput("od", 5.0, 1.0, 100, 101, 99))
    assert [n.level for n in clamped.notes if n.code == "no-travel-left"] == ["stop"]


@given(st.floats(0.5, 30), st.floats(0, 1))
def test_stroke_opening_and_closing_share_the_stroke(stroke: float, p: float) -> None:
    r = jaw_stroke(JawStrokeInput("od", stroke, p, 100, 100, 100))
    assert r.load_clearance_mm + r.closing_travel_mm == pytest.approx(2 * stroke)


def test_contact_worked_examples() -> None:
    assert jaw_contact(JawContactInput("od", 100, 99.8, 40)).mode == "centre"
    r = jaw_contact(JawContactInput("od", 99.8, 100, 40))
    assert (r.mode, round(r.gap_mm, 4)) == ("edges", 0.0091)


def test_contact_same_size_touches_all_over() -> None:
    r = jaw_contact(JawContactInput("id", 84, 84, 40))
    assert (r.mode, r.gap_mm) == ("full", 0.0)


def test_contact_edges_by_plain_geometry() -> None:
    # Corners of a jaw bored Ø80 (w = 30): height sqrt(1600 − 900) = 26.458. Piece Ø100 on them: 40.
    # The jaw's bore then tops out at 40 − 26.458 + 40 = 53.542 and the piece at 50.
    r = jaw_contact(JawContactInput("od", 80, 100, 60))
    assert r.gap_mm == pytest.approx(40 - math.sqrt(700) + 40 - 50)


def test_contact_inside_swaps_the_cases() -> None:
    assert jaw_contact(JawContactInput("id", 99.8, 100, 40)).mode == "centre"
    assert jaw_contact(JawContactInput("id", 100.2, 100, 40)).mode == "edges"


def test_contact_jaw_wider_than_its_bore_needs_the_wrap() -> None:
    with pytest.raises(CalcError, match="give the wrap"):
        jaw_contact(JawContactInput("od", 39, 38.9, 40))
    assert jaw_contact(JawContactInput("od", 39, 38.9, 40, wrap_deg=120)).mode == "centre"
    with pytest.raises(CalcError, match="falls between"):
        jaw_contact(JawContactInput("od", 84, 39, 40))


@given(st.sampled_from(["od", "id"]), st.floats(60, 200), st.floats(-1, 1), st.floats(5, 50))
def test_contact_gap_is_never_negative_and_grows_with_the_difference(
    side: Any, d: float, off: float, width: float
) -> None:
    assume(abs(off) > 1e-3)
    near, far = (jaw_contact(JawContactInput(side, d + k * off, d, width)).gap_mm for k in (1, 2))
    assert 0 <= near <= far


def test_taper_worked_example() -> None:
    r = jaw_taper(JawTaperInput(10_000, 0, 60, 40, 40, 45, 70))
    assert r.gap_mm == pytest.approx(0.0453, abs=5e-5)
    assert r.taper_on_diameter_mm == pytest.approx(2 * r.gap_mm)
    assert r.needed


def test_taper_needs_nothing_at_equal_pressure_and_refuses_a_long_grip() -> None:
    r = jaw_taper(JawTaperInput(8_000, 8_000, 60, 40, 40, 45, 70))
    assert (r.gap_mm, r.needed) == (0.0, False)
    with pytest.raises(CalcError, match="twice the lever"):
        jaw_taper(JawTaperInput(8_000, 0, 20, 40.1, 40, 45, 70))


def test_taper_steel_bends_less_by_the_moduli_where_the_root_is_stiff() -> None:
    # With a root that does not give, the gap goes with 1/E of the jaw alone.
    soft = jaw_taper(JawTaperInput(8_000, 0, 60, 20, 40, 45, 70, 1000))
    stiff = jaw_taper(JawTaperInput(8_000, 0, 60, 20, 40, 45, 210, 1000))
    root = 8000 * 20 / 40 * 4.5 * 60 / (1000e3 * 45**2)
    assert (soft.gap_mm - root) / (stiff.gap_mm - root) == pytest.approx(3.0)


@pytest.mark.parametrize(
    ("given", "found", "verdict"),
    [
        (("od", 83.62, 84), (83.78, 0.11, 0.0), "cut"),
        (("od", 83.86, 84), (84.02, -0.01, 0.22), "close-in"),
        (("od", 81.50, 84), (81.66, 1.17, 0.34), "open-out"),
        (("id", 148.60, 148), (148.44, 0.22, 0.0), "cut"),
        (("id", 148.20, 148), (148.04, 0.02, 0.16), "open-out"),
    ],
)
def test_recut_worked_examples(given: Any, found: tuple[float, ...], verdict: str) -> None:
    r = jaw_recut(JawRecutInput(*given, 0.08, 0.10, 1.0))
    size, removal, move = found
    assert (r.size_mm, r.removal_mm, r.move_mm) == (pytest.approx(size), pytest.approx(removal), pytest.approx(move))
    assert r.verdict == verdict


@given(st.sampled_from(["od", "id"]), st.floats(70, 98), st.floats(0.05, 0.5))
def test_after_the_move_the_same_reading_leads_to_a_cut(side: Any, reading: float, damage: float) -> None:
    """Moving the jaws by what is told puts the removal exactly on the bound it had missed."""
    first = jaw_recut(JawRecutInput(side, reading, 84, 0.08, damage, 1.0))
    shift = {"cut": 0, "close-in": -1, "open-out": 1}[first.verdict] * first.move_mm
    again = jaw_recut(JawRecutInput(side, reading + shift, 84, 0.08, damage, 1.0))
    assert again.verdict == "cut" or again.move_mm < 1e-6


def test_recuts_left_counts_whole_cuts() -> None:
    r = jaw_recut(JawRecutInput("od", 83.62, 84, wall_left_mm=0.5))  # 0.11 a cut
    assert r.recuts_left == 4
    assert "no-recut-left" in {n.code for n in jaw_recut(JawRecutInput("od", 83.62, 84, wall_left_mm=0.1)).notes}
    with pytest.raises(CalcError, match="allow more"):
        jaw_recut(JawRecutInput("od", 83.62, 84, damage_mm=1.2))
