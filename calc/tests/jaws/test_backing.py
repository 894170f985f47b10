"""What the jaws close on: worked examples, the order of testing, and the reasons."""

from __future__ import annotations

from typing import Any

import pytest

from calc.errors import CalcError
from calc.jaws.backing import BoringPlug, BoringRing, JawBackingInput, JawBackingResult, jaw_backing

A = BoringRing("A", 85, 130, 6, 800)
B = BoringRing("B", 95, 140, 6, 750)


def found(
    side: Any, diameter: float, rings: tuple[BoringRing, ...] = (A, B), plug: float | None = 60
) -> JawBackingResult:
    return jaw_backing(JawBackingInput(side, diameter, 18, rings, BoringPlug(plug) if plug else None, 3))


def why(result: JawBackingResult) -> dict[str, str]:
    return {r.name: str(r.why) for r in result.rejected}


def test_worked_examples() -> None:
    r = found("od", 84)
    assert (r.choice, r.ring, r.bore_pressure_bar, r.bore_max_rpm) == ("ring", "B", 6, 750)
    r = found("od", 118)
    assert (r.choice, r.ring, r.bore_pressure_bar, r.bore_max_rpm) == ("plug", None, 18, None)
    assert (found("id", 148).choice, found("id", 148).ring) == ("ring", "A")
    assert found("id", 100).choice == "groove-ring"


def test_each_ring_that_fails_says_why() -> None:
    r = found("od", 84)
    assert "Ø85" in why(r)["A"] and "90" in why(r)["A"]  # 84 + 2·3 must pass
    assert "comes in to" in why(found("id", 100))["A"]


def test_of_the_rings_that_fit_pressure_comes_before_speed_before_room() -> None:
    strong = BoringRing("strong", 120, 160, 10, 500)
    assert found("od", 84, (B, strong)).ring == "strong"
    fast = BoringRing("fast", 130, 160, 6, 900)
    assert found("od", 84, (B, fast)).ring == "fast"
    near = BoringRing("near", 92, 140, 6, 750)
    assert found("od", 84, (B, near)).ring == "near"
    # More pressure than the part is held with is no gain: 10 and 20 bar are alike at 8.
    twenty = BoringRing("twenty", 96, 150, 20, 400)
    assert jaw_backing(JawBackingInput("od", 84, 8, (strong, twenty), None, 3)).ring == "strong"


def test_a_ring_without_its_limits_is_never_used() -> None:
    unknown = BoringRing("unknown", 100, 140)
    r = found("od", 84, (unknown,), None)
    assert r.choice is None
    assert "not on its record" in why(r)["unknown"]
    assert {n.code for n in r.notes if n.level == "stop"} == {"nothing-to-close-on"}


def test_a_plug_must_leave_the_cutting_path_clear() -> None:
    assert found("od", 118, plug=112).choice == "plug"  # 118 − 6, just
    r = found("od", 118, plug=112.1)
    assert r.choice is None and "blocks the cutting path" in why(r)["plug"]


def test_the_plug_is_told_in_two_stages() -> None:
    steps = [str(s) for s in found("od", 118).steps]
    assert "seat" in steps[0] and "production pressure" in " ".join(steps)
    assert "A" in steps[0] or "B" in steps[0]
    assert "no-seat-ring" in {n.code for n in found("od", 118, plug=100).notes}  # no ring passes 106


def test_inside_grip_never_takes_the_plug() -> None:
    assert found("id", 100, plug=40).choice == "groove-ring"


def test_a_ring_inside_out_is_refused() -> None:
    with pytest.raises(CalcError, match="below its outer"):
        BoringRing("x", 90, 90)


def test_where_both_fit_the_house_rule_may_match_production_with_a_plug() -> None:
    asked = JawBackingInput("od", 84, 18, (A, B), BoringPlug(60), 3, "plug")
    r = jaw_backing(asked)
    assert (r.choice, r.bore_pressure_bar) == ("plug", 18)
    assert why(r)["B"] == "fits; a plug matches the production pressure"
    # Its seat is bored on a ring of 66 mm at least, and the tool passes it: else the ring stays.
    tight = BoringRing("T", 65, 140, 6, 750)
    assert jaw_backing(JawBackingInput("od", 60, 18, (tight,), BoringPlug(60), 3, "plug")).choice != "plug"
    assert jaw_backing(JawBackingInput("od", 84, 18, (A, B), BoringPlug(79), 3, "plug")).choice == "ring"
    assert jaw_backing(JawBackingInput("od", 84, 18, (A, B), None, 3, "plug")).choice == "ring"
    assert jaw_backing(JawBackingInput("id", 148, 18, (A, B), None, 3, "plug")).choice == "ring"
