"""The jaw-boring program, traced by a small interpreter: what it cuts, what it never touches."""

from __future__ import annotations

import re
from dataclasses import dataclass, field, replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.programs.jaw_boring import Boring, Dialect, Pocket, moves_of, program_text
from calc.tests.plans import plan, shelf_with

DIALECT = Dialect("O", 12, "G95", "G92", "M30", "M03")
STEP = 0.05  # mm along Z, of the trace


@dataclass
class Trace:
    """An ISO 6983 interpreter for what these programs use: G00, G01, G90, G97, X as a diameter, Z, F, S."""

    text: str
    x: float | None = None
    z: float | None = None
    segments: list[tuple[str, float, float, float, float]] = field(default_factory=list)
    words: list[str] = field(default_factory=list)

    def run(self) -> Trace:
        mode = "G00"
        for line in self.text.splitlines():
            code = re.sub(r"\([^)]*\)", "", line).strip()
            assert re.fullmatch(r"([A-Z%][-+]?\d*\.?\d*\s*)*", code), line
            words = re.findall(r"([A-Z%])([-+]?\d*\.?\d*)", code)
            self.words += ["".join(w) for w in words]
            for letter, number in words:
                if letter == "G" and number in ("00", "01"):
                    mode = f"G{number}"
            to = {letter: float(number) for letter, number in words if letter in "XZ"}
            if not to:
                continue
            x, z = to.get("X", self.x), to.get("Z", self.z)
            if self.x is not None and self.z is not None and x is not None and z is not None:
                self.segments.append((mode, self.x, self.z, x, z))
            self.x, self.z = x, z
        return self

    def samples(self, mode):
        """(x, z) of every segment of a mode, closely spaced."""
        for kind, x0, z0, x1, z1 in self.segments:
            if kind != mode:
                continue
            count = max(2, int(max(abs(z1 - z0), abs(x1 - x0)) / STEP))
            for i in range(count + 1):
                yield x0 + (x1 - x0) * i / count, z0 + (z1 - z0) * i / count


def traced(boring: Boring, system="metric") -> Trace:
    return Trace(program_text(boring, DIALECT, ["Bohrung Ø84 – Test"], system)).run()


def outside(**more):
    given = {
        "side": "od",
        "pockets": (Pocket(84.0, 20.0, 1.5, 0.4, 0.03),),
        "start_mm": 68.0,
        "depth_of_cut_mm": 1.0,
        "feed_mm_rev": 0.12,
        "speed_m_min": 80.0,
        "limit_rpm": 750.0,
    }
    return Boring(**(given | more))


def deepest(trace: Trace, sign: int, z: float) -> float | None:
    """The widest (outside) or slimmest (inside) diameter cut at a depth."""
    found = [x for x, zz in trace.samples("G01") if abs(zz - z) <= STEP]
    return (max if sign > 0 else min)(found, default=None)


def test_it_cuts_the_planned_wall_taper_floor_and_groove():
    trace = traced(outside())
    # Wall: 84 at the face, 84 + 0.03·z/20 inward, to where the groove begins at 18.5.
    for depth in (0.2, 5.0, 10.0, 18.0):
        assert deepest(trace, 1, -depth) == pytest.approx(84 + 0.03 * depth / 20, abs=0.002)
    # Groove at the floor: 0.4 into the wall of 84.03, per side.
    assert deepest(trace, 1, -19.9) == pytest.approx(84.03 + 0.8, abs=0.002)
    assert min(z for _, z in trace.samples("G01")) == pytest.approx(-20.0)
    # The floor is faced from the groove back to where boring began.
    on_floor = [x for x, z in trace.samples("G01") if abs(z + 20) < 1e-6]
    assert (min(on_floor), max(on_floor)) == (pytest.approx(68.0), pytest.approx(84.83, abs=0.002))


def test_it_never_cuts_more_than_planned():
    trace = traced(outside())
    for x, z in trace.samples("G01"):
        in_groove = z <= -18.5 + 1e-6
        assert x <= (84.83 if in_groove else 84 + 0.03 * max(0.0, -z) / 20) + 0.002
        assert z >= -20 - 1e-6


def rapids_are_free(trace: Trace, sign: int, start: float) -> None:
    """No rapid move enters metal that is not cut yet: the free diameter at each depth grows as the program goes."""
    free: dict[int, float] = {}
    for kind, x0, z0, x1, z1 in trace.segments:
        count = max(2, int(max(abs(z1 - z0), abs(x1 - x0)) / STEP))
        for i in range(count + 1):
            x, z = x0 + (x1 - x0) * i / count, z0 + (z1 - z0) * i / count
            if z >= 0:
                continue
            cell = int(-z / STEP)
            if kind == "G01":
                free[cell] = max(sign * x, free.get(cell, sign * start))
            else:
                near = max(free.get(c, sign * start) for c in (cell - 1, cell, cell + 1))
                assert sign * x <= near + 0.01, (x, z)


@pytest.mark.parametrize(
    "boring",
    [
        outside(),
        outside(pockets=(Pocket(122.0, 14.0, 1.5, 0.3), Pocket(84.0, 22.0, 1.5, 0.6, 0.02))),
        Boring("id", (Pocket(148.0, 12.0, 1.5, 0.6, 0.02),), 153.0, 1.0, 0.12, 80.0, 700.0),
    ],
    ids=["one pocket", "two pockets", "inside"],
)
def test_rapids_stay_in_the_air_and_the_end_is_in_front(boring):
    trace = traced(boring)
    rapids_are_free(trace, boring.sign, boring.start_mm)
    assert trace.z == 50.0
    first = trace.segments[0]
    assert first[0] == "G00" and first[2] == 50.0  # across only once it stands in front


def test_two_pockets_are_each_where_they_belong():
    trace = traced(outside(pockets=(Pocket(122.0, 14.0, 1.5, 0.3), Pocket(84.0, 22.0, 1.5, 0.6))))
    assert deepest(trace, 1, -6.0) == pytest.approx(122.0, abs=0.002)
    assert deepest(trace, 1, -25.0) == pytest.approx(84.0, abs=0.002)
    assert min(z for _, z in trace.samples("G01")) == pytest.approx(-36.0)


def test_inside_grip_is_turned_smaller_at_the_floor():
    trace = traced(Boring("id", (Pocket(148.0, 12.0, 1.5, 0.6, 0.04),), 153.0, 1.0, 0.12, 80.0, 700.0))
    assert deepest(trace, -1, -1.0) == pytest.approx(148 - 0.04 / 12, abs=0.002)
    assert deepest(trace, -1, -10.0) == pytest.approx(148 - 0.04 * 10 / 12, abs=0.002)
    assert min(x for x, _ in trace.samples("G01")) == pytest.approx(148 - 0.04 - 1.2, abs=0.002)


def test_the_ring_is_kept_out_of():
    """Ring B, 95 inside: whatever stands before the jaws' face stays within 95 less twice the clearance 3."""
    trace = traced(outside())
    before = [x for mode in ("G00", "G01") for x, z in trace.samples(mode) if z > 0]
    assert max(before) <= 95 - 6


def test_words_speed_and_header():
    text = program_text(outside(), DIALECT, ["Ø84 – 20 °C"], "metric")
    lines = text.splitlines()
    assert lines[0] == "O12"
    assert "(DIA 84 - 20 DEGC)" in lines
    assert "G92 S750" in lines
    assert "G97 S303 M03" in lines  # 1000·80 / (π·84) = 303.15
    assert lines[-2:] == ["M05", "M30"]
    assert text.isascii() and not re.search(r"\bT\d", text)
    assert outside(limit_rpm=200.0).rpm == 200


def test_inches_are_the_same_moves_divided():
    metric, inch = traced(outside()), traced(outside(), "inch")
    for a, b in zip(metric.segments, inch.segments, strict=True):
        for one, two in zip(a[1:], b[1:], strict=True):
            assert two == pytest.approx(one / 25.4, abs=6e-5)
    assert "UNITS INCH" in program_text(outside(), DIALECT, [], "inch")


@given(st.floats(40, 150), st.floats(2, 40), st.floats(0.3, 4), st.floats(0, 0.1))
def test_any_pocket_is_cut_to_size_and_left_by_the_way_it_was_entered(diameter, depth, cut, taper):
    start = diameter - 14
    boring = outside(pockets=(Pocket(diameter, depth, 1.5, 0.4, taper),), start_mm=start, depth_of_cut_mm=cut)
    moves = moves_of(boring)
    assert max(m.x_mm for m in moves) == pytest.approx(diameter + taper + 0.8)
    assert min(m.z_mm for m in moves) == -depth
    steps = [
        b.x_mm - a.x_mm
        for a, b in zip(moves, moves[4:], strict=False)
        if a.note.startswith("pass") and b.note.startswith("pass")
    ]
    assert all(s <= 2 * cut + 1e-6 for s in steps)
    assert (moves[0].z_mm, moves[-1].z_mm) == (50.0, 50.0)


def program(result):
    return result.program(result.stop("jaws"))


def test_the_plan_asks_for_what_it_does_not_know_and_refuses_while_stopped():
    words = program(plan())
    assert not words.ready and words.boring is not None
    said = " ".join(str(r) for r in words.reasons)
    assert "feed per turn" in said and "program number" in said and "spindle turns" in said and "close on" in said
    stopped = program(plan(setups__s1__hold__depth_mm=39.0))
    assert any("stopped" in str(r) for r in stopped.reasons)
    assert program(plan(shelf_with(blank=None))).boring is None


@pytest.mark.parametrize("plug_mm", [20.0, 60.0, 76.0])
def test_a_plug_at_the_bottom_is_never_touched(plug_mm):
    """Its top lies at the last floor, 12 deep: no move goes within 3 a side of it, at feed or in rapid."""
    trace = traced(outside(pockets=(Pocket(84.0, 12.0, 1.5, 0.6),), start_mm=40.0, plug_mm=plug_mm))
    deep = [x for code in ("G00", "G01") for x, z in trace.samples(code) if z <= -12.0 + STEP]
    assert min(deep) >= plug_mm + 6.0 - 1e-6
    assert max(x for x, _ in trace.samples("G01")) >= 84.0  # and the wall is bored all the same


def test_what_a_control_lacks_has_a_way_to_where_it_is_written():
    machine = shelf_with().machine
    (way,) = plan().stop("jaws").links
    assert (way.kind, way.key) == ("machine", machine.key)
    assert machine.name in way.words
    words = {"feed_word": "G95", "clamp_word": "G92", "program_word": "O", "end_word": "M30"}
    told = shelf_with(machine=replace(machine, **words))
    assert plan(told).stop("jaws").links == ()
