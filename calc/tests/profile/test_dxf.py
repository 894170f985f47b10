"""DXF in and out: our own drawing reads back as the same steps; wrong drawings are told with the place."""

from __future__ import annotations

import io
import itertools
from typing import Any

import ezdxf
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from calc.errors import CalcError
from calc.profile.body import body_figures, body_of
from calc.profile.drawing import write_dxf, write_svg
from calc.profile.dxf import DrawnProfile, Question, read_drawing
from calc.profile.lines import read_line


def steps(*lines: str) -> list[Any]:
    return [read_line(line, "metric", f"Step {i}") for i, line in enumerate(lines, 1)]


def drawn(add: Any, unit: int = 4) -> str:
    """A drawing made by `add(modelspace)`."""
    drawing = ezdxf.new("R2010", units=unit)
    add(drawing.modelspace(), drawing)
    out = io.StringIO()
    drawing.write(out)
    return out.getvalue()


def lines(points: list[tuple[float, float]], layer: str = "0") -> Any:
    def add(space: Any, _: Any) -> None:
        for a, b in itertools.pairwise(points):
            space.add_line(a, b, dxfattribs={"layer": layer})

    return add


SQUARE = [(0, 0), (0, 20), (30, 20), (30, 30), (40, 30), (40, 0), (0, 0)]


def profile(text: str, **more: Any) -> DrawnProfile:
    found = read_drawing(text, **more)
    assert isinstance(found, DrawnProfile)
    return found


def sizes(found: tuple[Any, ...]) -> list[tuple[float, float | None]]:
    return [(s.diameter_mm, s.length_mm) for s in found]


def test_a_plain_closed_profile() -> None:
    found = profile(drawn(lines(SQUARE)))
    assert sizes(found.outside) == [(40, 30), (60, 10)]
    assert (found.inside, found.inside_b) == ((), ())


def test_it_does_not_matter_where_it_is_drawn_or_in_which_order() -> None:
    moved = [(x + 100, y) for x, y in SQUARE]
    backward = drawn(lines(list(reversed(moved))))
    assert sizes(profile(backward).outside) == [(40, 30), (60, 10)]


def test_inches_are_read_as_inches_and_a_drawing_without_units_asks() -> None:
    small = [(x / 25.4, y / 25.4) for x, y in SQUARE]
    assert sizes(profile(drawn(lines(small), unit=1)).outside) == [
        (pytest.approx(40, abs=1e-4), pytest.approx(30, abs=1e-4)),
        (pytest.approx(60, abs=1e-4), pytest.approx(10, abs=1e-4)),
    ]
    assert read_drawing(drawn(lines(SQUARE), unit=0)) == Question((), ("mm", "in"))
    assert sizes(profile(drawn(lines(SQUARE), unit=0), unit="mm").outside)[0] == (40, 30)


def test_several_layers_ask_which() -> None:
    def add(space: Any, drawing: Any) -> None:
        lines(SQUARE, "PART")(space, drawing)
        lines([(0, 40), (40, 40)], "FRAME")(space, drawing)
        space.add_text("not a line", dxfattribs={"layer": "NOTES"})

    text = drawn(add)
    assert read_drawing(text) == Question(("FRAME", "PART"), ())
    assert sizes(profile(text, layer="PART").outside) == [(40, 30), (60, 10)]
    with pytest.raises(CalcError, match="no layer"):
        read_drawing(text, layer="OTHER")


def test_an_open_line_is_the_outside_of_a_solid_part() -> None:
    found = profile(drawn(lines([(0, 20), (30, 20), (30, 30), (40, 30)])))
    assert sizes(found.outside) == [(40, 30), (60, 10)]
    assert "solid" in str(found.notes[0])


CASES = [
    (["84 x 40 r0.8 c0.5", "118 x 14 c0.5"], ["52 through"], []),
    (["40 x 30 round 1", "60>50 x 12", "70 x 10"], ["20 x 15", "12 through"], []),
    (["60 x 50"], ["30 x 20"], ["40 x 10"]),
    (["60 x 50"], [], []),
    (["40 x 20", "groove 34 x 4", "44 x 20", "40>60 x 15 arc 80"], [], ["20 x 30"]),
]


@pytest.mark.parametrize(("outside", "inside", "inside_b"), CASES)
def test_what_is_written_reads_back_with_the_same_body(
    outside: list[str], inside: list[str], inside_b: list[str]
) -> None:
    one = body_of(steps(*outside), steps(*inside), steps(*inside_b), 0.0)
    found = profile(write_dxf(one), layer="PROFILE")
    two = body_of(found.outside, found.inside, found.inside_b, 0.0)
    assert sizes(found.outside) == [
        (pytest.approx(s.step.diameter_mm), pytest.approx(s.end - s.start)) for s in one.outside
    ]
    a, b = body_figures(one, 7.85), body_figures(two, 7.85)
    assert b.volume_mm3 == pytest.approx(a.volume_mm3, rel=1e-6)
    assert b.centre_mm == pytest.approx(a.centre_mm, rel=1e-6)


@settings(deadline=None, max_examples=25)
@given(st.lists(st.tuples(st.integers(20, 90), st.integers(3, 40)), min_size=1, max_size=6), st.integers(0, 15))
def test_any_stepped_shaft_reads_back(given_steps: list[tuple[int, int]], bore: int) -> None:
    merged = [s for i, s in enumerate(given_steps) if i == 0 or s[0] != given_steps[i - 1][0]]
    one = body_of(steps(*(f"{d} x {n}" for d, n in merged)), steps(*([f"{bore} through"] if bore else [])), [], 0.0)
    found = profile(write_dxf(one), layer="PROFILE")
    assert sizes(found.outside) == [(pytest.approx(d), pytest.approx(n)) for d, n in merged]
    assert sizes(found.inside) == ([(pytest.approx(bore), None)] if bore else [])


def test_svg_is_true_to_size_and_closed() -> None:
    text = write_svg(body_of(steps("84 x 40 r0.8", "118 x 14"), steps("52 through"), [], 0.0))
    assert 'width="64.000mm"' in text and "A0.8000 0.8000" in text and text.count("Z") == 1


def spline(space: Any, drawing: Any) -> None:
    lines(SQUARE)(space, drawing)
    space.add_spline([(0, 0), (5, 5), (10, 0)])


def block(space: Any, drawing: Any) -> None:
    drawing.blocks.new("PART").add_line((0, 0), (1, 1))
    lines(SQUARE)(space, drawing)
    space.add_blockref("PART", (7, 8))


def branch(space: Any, drawing: Any) -> None:
    lines(SQUARE)(space, drawing)
    space.add_line((30, 20), (35, 25))


def gap(space: Any, drawing: Any) -> None:
    lines(SQUARE[:3])(space, drawing)
    lines([(30, 20.5), *SQUARE[3:]])(space, drawing)
    space.add_line((100, 1), (120, 1))


WRONG = [
    ("", "empty"),
    ("hello", "not a DXF"),
    ("0\nSECTION\n2\nENTITIES\n0\nLINE\n", "not a DXF|no lines"),
    (drawn(spline), "spline at"),
    (drawn(block), "block at.*7"),
    (drawn(branch), "3 lines meet at"),
    (drawn(gap), "open at.*0.5"),
    (drawn(lines([(0, -5), (0, 20), (30, 20), (30, -5), (0, -5)])), "below the axis"),
    (drawn(lambda s, d: s.add_circle((0, 0), 5)), "CIRCLE at"),
    (drawn(lambda s, d: None), "no lines"),
    (drawn(lines([(0, 0), (0, 20)])), "no length|no lines"),
    (drawn(lines([(0, 0), (0, 2000), (30, 2000), (30, 0), (0, 0)])), "larger than"),
    (drawn(lines([(0, 10), (20, 10), (20, 15), (10, 15), (10, 20), (40, 20)])), "turns back"),
]


@pytest.mark.parametrize(("text", "says"), WRONG, ids=range(len(WRONG)))
def test_wrong_drawings_get_a_sentence(text: str, says: str) -> None:
    with pytest.raises(CalcError, match=says):
        read_drawing(text)


def test_a_file_of_fifty_megabytes_is_refused_at_once() -> None:
    with pytest.raises(CalcError, match="too large"):
        read_drawing("0\n" * 25_000_000)


STEPPED = [(0.0, 0.0), (0.0, 10.0), (20.0, 10.0), (20.0, 20.0), (50.0, 20.0), (50.0, 0.0)]


def outside_of(text: str, **asked: Any) -> list[tuple[float, float]]:
    found = read_drawing(text, **asked)
    assert isinstance(found, DrawnProfile)
    return [(s.diameter_mm, s.length_mm) for s in found.outside]


def stepped(scale: float = 1.0, **attributes: Any) -> Any:
    def add(space: Any, _: Any) -> None:
        points = [(x * scale, y * abs(scale)) for x, y in STEPPED]
        space.add_lwpolyline(points, close=True, dxfattribs=attributes)

    return add


@pytest.mark.parametrize(("unit", "scale"), [(4, 1.0), (5, 0.1), (6, 0.001)])
def test_millimetres_centimetres_and_metres_are_read_as_such(unit: int, scale: float) -> None:
    assert outside_of(drawn(stepped(scale), unit)) == [(pytest.approx(20), pytest.approx(20)), (40, pytest.approx(30))]


def test_a_unit_that_no_part_is_drawn_in_is_named() -> None:
    with pytest.raises(CalcError, match="The drawing is in feet"):
        read_drawing(drawn(stepped(), 2))


def test_what_is_drawn_mirrored_is_read_as_it_is_seen() -> None:
    # Its extrusion points away: x runs the other way, and an arc turns the other way.
    assert outside_of(drawn(stepped(-1.0, extrusion=(0, 0, -1)))) == [(20.0, 20.0), (40.0, 30.0)]

    def quarter(mirrored: bool) -> Any:
        def add(space: Any, _: Any) -> None:
            for a, b in (((0, 0), (0, 8)), ((2, 10), (20, 10)), ((20, 10), (20, 0)), ((20, 0), (0, 0))):
                space.add_line(a, b)
            if mirrored:
                space.add_arc((-2, 8), 2, 0, 90, dxfattribs={"extrusion": (0, 0, -1)})
            else:
                space.add_arc((2, 8), 2, 90, 180)

        return add

    plain, seen = (read_drawing(drawn(quarter(m))) for m in (False, True))
    assert isinstance(plain, DrawnProfile) and isinstance(seen, DrawnProfile)
    assert plain.outside == seen.outside
    assert seen.outside[0].round_mm == pytest.approx(2.0)


def test_what_is_tilted_is_refused() -> None:
    with pytest.raises(CalcError, match="tilted out of the drawing's plane"):
        read_drawing(drawn(stepped(1.0, extrusion=(0, 1, 0))))


def test_an_outline_with_a_gap_is_no_open_outside() -> None:
    def add(space: Any, _: Any) -> None:
        for a, b in itertools.pairwise([*STEPPED, STEPPED[0]]):
            space.add_line(a, (49.5, 20.0) if b == (50.0, 20.0) else b)

    with pytest.raises(CalcError, match=r"gap at .*0\.500"):
        read_drawing(drawn(add))


def test_an_entity_that_nobody_knows_is_named() -> None:
    strange = "ENTITIES\n  0\nFOOBAR\n  5\nABC\n100\nAcDbEntity\n  8\n0\n 10\n1.0\n 20\n2.0\n 30\n0.0\n"
    text = drawn(stepped()).replace("ENTITIES\n", strange, 1)
    with pytest.raises(CalcError, match="There is a FOOBAR"):
        read_drawing(text)


@pytest.mark.parametrize("text", [drawn(lines(SQUARE), unit=6), drawn(lines(SQUARE)).replace("$INSUNITS", "$NOTHING")])
def test_a_unit_that_nobody_chose_is_asked(text: str) -> None:
    """Metres are what drawing programs write unasked; a file that says nothing says nothing."""
    assert read_drawing(text) == Question((), ("mm", "in"))
    assert sizes(profile(text, unit="mm").outside) == [(40, 30), (60, 10)]
