"""Lines, contour and body: hand-calculated volumes and centres, corners, walls, refusals."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.errors import CalcError
from calc.profile.body import Body, body_figures, body_of
from calc.profile.lines import read_line, read_lines, write_line
from calc.profile.steps import TurnedStep


def step(line: str, system: Any = "metric") -> TurnedStep:
    return read_line(line, system, "Step")


Lines = Sequence[str]


def body(outside: Lines, inside: Lines = (), inside_b: Lines = (), edge: float = 0.0) -> Body:
    return body_of([step(s) for s in outside], [step(s) for s in inside], [step(s) for s in inside_b], edge)


# --- lines ---------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("line", "facts"),
    [
        (
            "Spigot: 84 h7 x 40 Ra 1.6 c0.3",
            {"name": "Spigot", "diameter_mm": 84, "fit": "h7", "length_mm": 40, "ra_um": 1.6, "chamfer_mm": 0.3},
        ),
        ("118 0/-0.1 x 14 r0.4", {"upper_mm": 0, "lower_mm": -0.1, "corner_mm": 0.4}),
        ("Ø52 H7 through", {"diameter_mm": 52, "fit": "H7", "length_mm": None}),
        ("52 H7 thru", {"length_mm": None}),
        ("M24x1.5 6g x 20 on 16", {"thread": "M24x1.5-6g", "diameter_mm": 24, "length_mm": 20, "thread_length_mm": 16}),
        ("M24 x 20", {"thread": "M24", "length_mm": 20}),
        ("3/4-16 UNF-2A x 18", {"thread": "3/4-16 UNF-2A", "diameter_mm": 19.05}),
        ("60>50 x 12", {"diameter_mm": 60, "end_diameter_mm": 50}),
        ("60>50 x 12 arc -25", {"arc_mm": -25}),
        ("groove 20 x 3", {"groove": True, "diameter_mm": 20}),
        ("84 ±0.05 × 30 chamfer 1 x 45°", {"upper_mm": 0.05, "lower_mm": -0.05, "chamfer_mm": 1}),
        ("84 +0.02 -0.01 x 3 round 0.5", {"upper_mm": 0.02, "lower_mm": -0.01, "round_mm": 0.5}),
        ("1 3/16 in x 3/4 in", {"diameter_mm": 30.1625, "upper_mm": None}),
        ("84 0.02/0 x 3", {"upper_mm": 0.02, "lower_mm": 0}),
        ("1 7/16 in h7 x 3/4 in", {"diameter_mm": 36.5125, "length_mm": 19.05}),
        ("Ø84h7x40", {"diameter_mm": 84, "fit": "h7", "length_mm": 40}),
        ("84H7*40", {"diameter_mm": 84, "fit": "H7", "length_mm": 40}),
        ("84js6x40 c0.3x45", {"fit": "js6", "length_mm": 40, "chamfer_mm": 0.3}),
        ("groove 20x3", {"groove": True, "length_mm": 3}),
        ("84,5 x 12,25", {"diameter_mm": 84.5, "length_mm": 12.25}),
    ],
)
def test_what_a_setter_writes(line: str, facts: dict[str, Any]) -> None:
    found = step(line)
    assert {name: getattr(found, name) for name in facts} == facts


def test_inch_lines_are_in_inches() -> None:
    found = read_line("1.500 +0/-.003 x .875 c1/64 Ra 63", "inch", "Bar")
    assert (found.diameter_mm, found.length_mm) == (pytest.approx(38.1), pytest.approx(22.225))
    assert found.lower_mm == pytest.approx(-0.0762)
    assert found.chamfer_mm == pytest.approx(25.4 / 64)
    assert found.ra_um == pytest.approx(63 * 0.0254)


@pytest.mark.parametrize(
    ("line", "says"),
    [
        ("84,500 x 3", "two ways"),
        ("G1/2 x 20", "pipe thread"),
        ("30 x 20 Rz 6.3", "Ra that the print allows"),
        ("1 7/16 x 20", "looks like inches"),
        ("hello x 3", "cannot be read"),
        ("84 h7 x 40 blah", "blah"),
        ("84 h19 x 3", "not a tolerance class"),
        ("84 x 40 x 30", "cannot be read"),
        ("x 30", "begins with its diameter|cannot be read"),
        ("M24x1.5 x 20 on 30", "longer than its step"),
        ("60>50>40 x 3", "two diameters"),
        ("84 -0.1/0 x 2 c1 round 1", "not both"),
        (": 3 x 4", "name before the colon"),
        ("84 x 3 on 2", "needs its thread"),
        ("60>50 x 10 c1", "step of its own"),
        ("60 x 40 arc 10", "radius of"),
    ],
)
def test_what_cannot_be_read_is_told(line: str, says: str) -> None:
    with pytest.raises(CalcError, match=says):
        step(line)


def test_a_pasted_list_answers_every_line() -> None:
    answers = read_lines("Spigot: 84 h7 x 40\n\nFlange: 118 xx 14\r\nSpigot: 50 x 2\n", "metric")
    assert [(a.number, a.step is not None) for a in answers] == [(1, True), (3, False), (4, True)]
    assert "cannot be read" in answers[1].problem.message  # type: ignore[union-attr]
    with pytest.raises(CalcError, match="60 lines"):
        read_lines("10 x 1\n" * 61, "metric")


figures = st.floats(0.1, 400).map(lambda x: round(x, 3))


@given(
    figures,
    figures,
    st.sampled_from(["", "h7", "js9", "K6"]),
    st.booleans(),
    st.none() | st.floats(0.1, 3).map(lambda x: round(x, 2)),
    st.sampled_from(["metric", "inch"]),
)
def test_a_line_reads_back_as_the_same_step(
    d: float, length: float, fit: str, groove: bool, edge: float | None, system: Any
) -> None:
    made = TurnedStep("Step", d, length, fit=fit, groove=groove, chamfer_mm=edge, ra_um=1.6)
    again = read_line(write_line(made, system), system, "other")
    assert again.name == "Step" and again.fit == fit and again.groove == groove
    for name in ("diameter_mm", "length_mm", "chamfer_mm", "ra_um"):
        assert getattr(again, name) == (
            None if getattr(made, name) is None else pytest.approx(getattr(made, name), rel=1e-7)
        )


# --- body ----------------------------------------------------------------------------------------


def test_two_cylinders_and_a_through_bore_by_hand() -> None:
    b = body(["84 x 40", "118 x 14"], ["52 through"])
    f = body_figures(b, 7.8)
    volume = math.pi / 4 * (84**2 * 40 + 118**2 * 14 - 52**2 * 54)
    moment = math.pi / 4 * (84**2 * 40 * 20 + 118**2 * 14 * 47 - 52**2 * 54 * 27)
    assert b.length_mm == 54
    assert f.volume_mm3 == pytest.approx(volume)
    assert f.mass_kg == pytest.approx(volume * 7.8e-6)
    assert f.centre_mm == pytest.approx(moment / volume)


def test_a_cone_is_a_third_of_its_cylinder() -> None:
    f = body_figures(body(["0.0001>60 x 40"]), 1.0)
    assert f.volume_mm3 == pytest.approx(math.pi * 30**2 * 40 / 3, rel=1e-5)
    assert f.centre_mm == pytest.approx(30, rel=1e-5)  # three quarters from the point


def test_a_half_circle_turned_is_a_ball() -> None:
    f = body_figures(body(["0.00002>0.00002 x 50 arc 25"]), 1.0)
    assert f.volume_mm3 == pytest.approx(4 / 3 * math.pi * 25**3, rel=1e-5)
    assert f.centre_mm == pytest.approx(25)


def test_chamfer_and_round_take_off_what_pappus_says() -> None:
    # A 2 mm chamfer: triangle of area 2 at radius 20 − 2/3. A round: the square's corner less the quarter circle,
    # area (1 − π/4)·2², its centre of area 2·(1 − (5/6 − π/4)/(1 − π/4))… told by: ∫(corner) = r²(1 − π/4), x̄ = r(10
    # − 3π)/(3(4 − π)).
    whole = math.pi * 20**2 * 30
    chamfered = body_figures(body(["40 x 30 c2"]), 1.0).volume_mm3
    assert whole - chamfered == pytest.approx(2 * 2 * math.pi * (20 - 2 / 3) * 2)
    area, off = 4 * (1 - math.pi / 4), 2 * (10 - 3 * math.pi) / (3 * (4 - math.pi))
    rounded = body_figures(body(["40 x 30 round 2"]), 1.0).volume_mm3
    assert whole - rounded == pytest.approx(2 * 2 * math.pi * (20 - off) * area)


def test_corner_radius_leaves_metal_at_the_shoulder() -> None:
    sharp = body_figures(body(["40 x 30", "60 x 10"]), 1.0).volume_mm3
    filled = body_figures(body(["40 x 30 r2", "60 x 10"]), 1.0).volume_mm3
    area, off = 4 * (1 - math.pi / 4), 2 * (10 - 3 * math.pi) / (3 * (4 - math.pi))
    assert filled - sharp == pytest.approx(2 * math.pi * (20 + off) * area)


def test_bores_from_both_ends_meet() -> None:
    b = body(["60 x 50"], ["30 x 20", "20 through"], ["40 x 10"])
    volume = math.pi / 4 * (60**2 * 50 - 30**2 * 20 - 20**2 * 20 - 40**2 * 10)
    assert body_figures(b, 1.0).volume_mm3 == pytest.approx(volume)
    assert [b.bore_at(z) for z in (5, 30, 45)] == [30, 20, 40]
    assert b.wall_between(0, 50) == pytest.approx(10)
    assert b.wall_between(21, 39) == pytest.approx(20)


def test_profile_and_its_mirror_image_weigh_the_same() -> None:
    one = body_figures(body(["40 x 30 r1 c0.5", "60>50 x 8", "70 x 10 round 1"], ["20 through"]), 7.85)
    two = body_figures(body(["70 x 10 round 1", "50>60 x 8", "40 x 30 r1 c0.5"], [], ["20 through"]), 7.85)
    assert one.volume_mm3 == pytest.approx(two.volume_mm3)
    assert one.centre_mm == pytest.approx(48 - two.centre_mm)


def test_corners_and_flanks() -> None:
    f = body_figures(body(["40 x 30 r1.2", "50 x 5", "60 x 10", "45 x 6 r0.8"]), 1.0)
    assert (f.smallest_corner_mm, f.sharp_corners) == (0.8, 1)
    assert f.falling_deg == {"a": 0.0, "b": 0.0}  # both ends only rise to the largest step
    undercut = body_figures(body(["40 x 10", "30 x 5", "60 x 10"]), 1.0)
    assert undercut.falling_deg == {"a": 90.0, "b": 0.0}
    assert body_figures(body(["40 x 10", "groove 30 x 5", "60 x 10"]), 1.0).falling_deg["a"] == 0.0
    sloped = body_figures(body(["40>30 x 5", "60 x 10"]), 1.0)
    assert sloped.falling_deg["a"] == pytest.approx(45.0)


@pytest.mark.parametrize(
    ("outside", "inside", "inside_b", "field", "says"),
    [
        (["50 x 20"], ["50 through"], [], "inside.0.diameter_mm", "smaller than"),
        (["40 x 20", "80 x 10"], [], ["60 x 12"], "inside_b.0.diameter_mm", "smaller than"),
        (["50 x 20"], ["30 x 21"], [], "inside.0.length_mm", "longer than the part"),
        (["50 x 20"], ["30 x 15"], ["20 x 6"], "inside_b.0.length_mm", "overlap"),
        (["50 x 20"], ["30 through", "20 x 3"], [], "inside.0.length_mm", "Only the last"),
        (["50 x 20"], ["30 through"], ["20 through"], "inside_b.0.length_mm", "goes through"),
        (["50 x 2 c1.5"], [], [], "outside.0.chamfer_mm", "do not fit"),
        (["50 x 20 r3", "54 x 10"], [], [], "outside.0.corner_mm", "2\u00a0mm high"),
    ],
)
def test_wrong_profiles_are_told_at_the_step(outside: Any, inside: Any, inside_b: Any, field: str, says: str) -> None:
    with pytest.raises(CalcError, match=says) as caught:
        body(outside, inside, inside_b)
    assert field in {e.field for e in caught.value.errors}


@pytest.mark.parametrize(("edge_mm", "fits"), [(4.9, True), (5.1, False)])
def test_an_edge_is_no_larger_than_the_radius_of_its_step(edge_mm: float, fits: bool) -> None:
    outside = [step(f"Pin: 10 x 30 c{edge_mm}"), step("Flange: 40 x 10")]
    if fits:
        assert body_of(outside, [], [], 0.0).length_mm == 40
        return
    with pytest.raises(CalcError, match="larger than the radius of"):
        body_of(outside, [], [], 0.0)


@pytest.mark.parametrize(
    ("text", "inside", "names"),
    [
        ("96 x 12\n64 h8 x 26", False, ["Flange", "Spigot"]),
        ("36.5 x 60", False, ["Body"]),
        ("20 x 8\n40 x 60\n20 x 8", False, ["Spigot", "Body", "Spigot 2"]),
        ("M24x1.5-6g x 16\ngroove 21.6 x 3\n34 h9 x 23", False, ["Thread", "Groove", "Body"]),
        ("hex 24 x 14\n18 x 20", False, ["Hexagon", "Spigot"]),
        ("Spigot: 30 x 5\n64 x 26\n96 x 12", False, ["Spigot", "Spigot 2", "Flange"]),
        ("40 H7", True, ["Bore"]),
        ("40 H7 x 20\n30", True, ["Bore", "Bore 2"]),
    ],
)
def test_a_step_without_a_name_is_called_by_what_it_is(text: str, inside: bool, names: list[str]) -> None:
    found = [a.step for a in read_lines(text, "metric", inside=inside)]
    assert [s.name for s in found if s is not None] == names
