"""The tooth: worked examples, limit cases by hand, and what must always hold."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.jaws.position import JawPositionInput, JawPositionResult, jaw_position

BASE: dict[str, Any] = {
    "side": "od",
    "grip_diameter_mm": 84.0,
    "jaw_width_mm": 40.0,
    "face_radius_0_mm": 20.0,
    "tnut_radius_0_mm": 75.0,
    "pitch_mm": 1.5,
    "teeth": 20,
    "body_radius_mm": 105.0,
    "cleanup_mm": 1.0,
}


def found(**changes: Any) -> JawPositionResult:
    return jaw_position(JawPositionInput(**(BASE | changes)))


def codes(result: JawPositionResult) -> set[str]:
    return {n.code for n in result.notes}


def test_worked_example_outermost_tooth_with_full_wrap() -> None:
    r = found()
    assert (r.tooth, r.face_radius_mm, r.removed_mm, r.full_wrap) == (10, 35.0, 7.0, True)
    assert r.wrap_deg == pytest.approx(56.87, abs=0.005)


def test_worked_example_tnut_holds_it_further_in() -> None:
    r = found(tnut_radius_0_mm=92.0)
    assert (r.tooth, r.removed_mm) == (8, 10.0)
    assert r.tnut_to_body_mm == pytest.approx(105 - 92 - 8 * 1.5)


def test_worked_example_small_bore_has_no_full_wrap() -> None:
    r = found(grip_diameter_mm=50.0, face_radius_0_mm=17.0)
    assert (r.tooth, r.removed_mm, r.full_wrap) == (0, 8.0, False)
    assert r.wrap_deg == pytest.approx(94.31, abs=0.005)
    assert "not-full-wrap" in codes(r)


def test_worked_example_inside_takes_the_innermost_tooth() -> None:
    r = found(side="id", grip_diameter_mm=148.0, face_radius_0_mm=60.0, pitch_mm=1.5875, cleanup_mm=0.5)
    assert (r.tooth, r.face_radius_mm, r.removed_mm) == (10, 75.875, 1.875)
    assert r.wrap_deg == pytest.approx(31.36, abs=0.005)


def test_a_jaw_wider_than_the_bore_is_an_answer() -> None:
    # R = 20 = w: the arc is a half circle at most. At tooth 0 the face is at 10: chord sqrt(400 − 100).
    r = found(grip_diameter_mm=40.0, face_radius_0_mm=10.0)
    assert r.tooth == 0 and not r.full_wrap
    assert r.wrap_deg == pytest.approx(120.0)  # cos(60°) = 10/20


def test_a_face_beyond_the_bore_is_a_stop() -> None:
    r = found(grip_diameter_mm=38.0)  # R = 19, face at 20
    assert r.removed_mm == pytest.approx(-1.0)
    assert "no-metal" in codes(r)


def test_tnut_beyond_the_body_in_every_tooth() -> None:
    assert "tnut-outside" in codes(found(tnut_radius_0_mm=106.0))


def test_jaws_that_meet() -> None:
    # Face 35, tan 60° = 1.7321: 60.6 less half the width 20; a travel of 24 leaves 11·1.732 = 19.05 < 20.
    assert found(closing_travel_mm=23.0).clear
    assert not found(closing_travel_mm=24.0).clear
    assert "jaws-meet" in codes(found(closing_travel_mm=24.0))


def test_inside_uses_the_inner_end_once_the_length_is_known() -> None:
    inside = {"side": "id", "grip_diameter_mm": 148.0, "face_radius_0_mm": 60.0, "pitch_mm": 1.5875, "cleanup_mm": 0.5}
    assert "inner-end-unknown" in codes(found(**inside))
    assert found(**inside, jaw_length_mm=60.0, closing_travel_mm=4.0).clear  # 11.875·1.732 = 20.57
    assert not found(**inside, jaw_length_mm=60.0, closing_travel_mm=5.0).clear  # 10.875·1.732 = 18.84


def test_the_neighbours_are_compared() -> None:
    r = found()
    assert [n.tooth for n in r.neighbours] == [8, 9, 10, 11, 12]
    assert [n.full_wrap for n in r.neighbours] == [True, True, True, False, False]


@given(st.floats(30, 200), st.floats(5, 40), st.integers(1, 30))
def test_properties(diameter: float, face: float, teeth: int) -> None:
    r = found(grip_diameter_mm=diameter, face_radius_0_mm=face, teeth=teeth)
    assert 0 <= r.tooth < teeth
    assert r.removed_mm == pytest.approx(diameter / 2 - r.face_radius_mm)
    if r.full_wrap:
        assert r.face_radius_mm**2 + 20**2 < (diameter / 2) ** 2  # both corners stand inside the bore
        assert r.tnut_to_body_mm >= -1e-9
        after = [n for n in r.neighbours if n.tooth == r.tooth + 1]
        assert not after or not after[0].clean or after[0].tnut_to_body_mm < 0  # nothing further out would do
