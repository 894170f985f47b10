"""Thread limits against the tables that the standards publish; passes and wires by hand."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.errors import CalcError
from calc.threads.iso965 import R40, nearest_r40
from calc.threads.thread import PG, ThreadInput, thread

# ISO 965-2: major, pitch, minor (max, min) of outside 6g; pitch (max, min), minor (max, min) of inside 6H [mm].
METRIC = {
    (3, 0.5): ((2.980, 2.874), (2.655, 2.580), (2.775, 2.675), (2.599, 2.459)),
    (4, 0.7): ((3.978, 3.838), (3.523, 3.433), (3.663, 3.545), (3.422, 3.242)),
    (5, 0.8): ((4.976, 4.826), (4.456, 4.361), (4.605, 4.480), (4.334, 4.134)),
    (6, 1.0): ((5.974, 5.794), (5.324, 5.212), (5.500, 5.350), (5.153, 4.917)),
    (8, 1.25): ((7.972, 7.760), (7.160, 7.042), (7.348, 7.188), (6.912, 6.647)),
    (10, 1.5): ((9.968, 9.732), (8.994, 8.862), (9.206, 9.026), (8.676, 8.376)),
    (12, 1.75): ((11.966, 11.701), (10.829, 10.679), (11.063, 10.863), (10.441, 10.106)),
    (16, 2.0): ((15.962, 15.682), (14.663, 14.503), (14.913, 14.701), (14.210, 13.835)),
    (20, 2.5): ((19.958, 19.623), (18.334, 18.164), (18.600, 18.376), (17.744, 17.294)),
    (24, 1.5): ((23.968, 23.732), (22.994, 22.844), (23.226, 23.026), (22.676, 22.376)),
    (24, 3.0): ((23.952, 23.577), (22.003, 21.803), (22.316, 22.051), (21.252, 20.752)),
    (30, 3.5): ((29.947, 29.522), (27.674, 27.462), (28.007, 27.727), (26.771, 26.211)),
}
# ASME B1.1 table of standard series: major, pitch of 2A; pitch, minor of 2B [in].
UNIFIED = {
    (0.19, 32): ((0.1891, 0.1831), (0.1688, 0.1658), (0.1736, 0.1697), (0.164, 0.156)),
    (0.25, 20): ((0.2489, 0.2408), (0.2164, 0.2127), (0.2224, 0.2175), (0.207, 0.196)),
    (0.3125, 18): ((0.3113, 0.3026), (0.2752, 0.2712), (0.2817, 0.2764), (0.265, 0.252)),
    (0.375, 16): ((0.3737, 0.3643), (0.3331, 0.3287), (0.3401, 0.3344), (0.321, 0.307)),
    (0.5, 13): ((0.4985, 0.4876), (0.4485, 0.4435), (0.4565, 0.4500), (0.434, 0.417)),
    (0.75, 16): ((0.7485, 0.7391), (0.7079, 0.7029), (0.7159, 0.7094), (0.696, 0.682)),
    (1.0, 8): ((0.9980, 0.9830), (0.9168, 0.9100), (0.9276, 0.9188), (0.890, 0.865)),
}
INCH = 25.4


def pair(limits, unit=1.0):
    return limits.max / unit, limits.min / unit


@pytest.mark.parametrize("size", METRIC)
def test_metric_limits_are_the_published_ones(size):
    major, pitch, nut_pitch, nut_minor = METRIC[size]
    screw, nut = thread(ThreadInput("iso", *size)), thread(ThreadInput("iso", *size, internal=True))
    assert pair(screw.major) == pytest.approx(major, abs=1e-9)
    assert pair(screw.pitch_diameter) == pytest.approx(pitch, abs=1e-9)
    assert pair(nut.pitch_diameter) == pytest.approx(nut_pitch, abs=1e-9)
    assert pair(nut.minor) == pytest.approx(nut_minor, abs=1e-9)
    assert nut.major.max is None
    assert nut.major.min == size[0]


@pytest.mark.parametrize("size", UNIFIED)
def test_unified_limits_are_the_published_ones(size):
    d, n = size[0] * INCH, INCH / size[1]
    major, pitch, nut_pitch, nut_minor = UNIFIED[size]
    screw, nut = thread(ThreadInput("un", d, n)), thread(ThreadInput("un", d, n, internal=True))
    assert pair(screw.major, INCH) == pytest.approx(major, abs=1e-6)
    assert pair(screw.pitch_diameter, INCH) == pytest.approx(pitch, abs=1e-6)
    assert pair(nut.pitch_diameter, INCH) == pytest.approx(nut_pitch, abs=1e-6)
    assert pair(nut.minor, INCH) == pytest.approx(nut_minor, abs=1e-6)


@pytest.mark.parametrize(("size", "most"), [((0.75, 16), 0.6808), ((0.5, 13), 0.4152), ((0.25, 20), 0.1948)])
def test_the_largest_minor_of_an_outside_unified_thread(size, most):
    found = thread(ThreadInput("un", size[0] * INCH, INCH / size[1]))
    assert found.minor.max / INCH == pytest.approx(most, abs=1e-6)
    assert found.minor.min is None  # the standard leaves it to the tool


def unified(diameter, per_inch, grade, internal):
    found = thread(ThreadInput("un", diameter * 25.4, 25.4 / per_inch, internal, grade))
    return {
        name: tuple(None if x is None else round(x / 25.4, 4) for x in (limits.max, limits.min))
        for name, limits in (("major", found.major), ("pitch", found.pitch_diameter), ("minor", found.minor))
    }


@pytest.mark.parametrize(("size", "least"), [((0.25, 20), 0.1960), ((0.75, 16), 0.6820), ((1.0, 8), 0.8650)])
def test_the_least_minor_of_class_3b_is_published_in_three_places(size, least):
    assert unified(*size, "3B", True)["minor"][1] == least


def test_small_sizes_halves_and_allowances_are_rounded_as_published():
    assert unified(0.19, 24, "2B", True)["minor"] == (0.156, 0.145)
    assert unified(0.112, 40, "2B", True)["minor"] == (0.0939, 0.0849)  # four places below No. 6
    # Its allowance is 0.3 × 0.0055 = 0.00165, published as 0.0016.
    found = unified(0.625, 11, "2A", False)
    assert (found["major"], found["pitch"]) == ((0.6234, 0.6113), (0.5644, 0.5589))


def test_minor_of_an_outside_metric_thread():
    found = thread(ThreadInput("iso", 24, 1.5))  # the worked example
    assert pair(found.minor) == pytest.approx((22.344, 21.920), abs=1e-9)
    assert pair(thread(ThreadInput("iso", 8, 1.25)).minor) == pytest.approx((6.619, 6.272), abs=1e-9)


def test_passes_have_the_same_chip_and_end_at_the_depth():
    found = thread(ThreadInput("iso", 24, 1.5, passes=6))
    assert [round(p, 4) for p in found.pass_depths_mm] == [0.3757, 0.5312, 0.6506, 0.7513, 0.8400, 0.9202]
    areas = [b**2 - a**2 for a, b in zip((0, *found.pass_depths_mm), found.pass_depths_mm, strict=False)]
    assert areas == pytest.approx([areas[0]] * 6)  # a triangle's area goes with the square of its depth


def test_over_wires_by_hand():
    found = thread(ThreadInput("iso", 24, 1.5))
    # w = 1.5/(2 cos 30) = 0.8660; M = d2 + 3w - 0.8660*1.5: 22.994 + 2.5981 - 1.2990
    assert found.wire_mm == pytest.approx(0.86603, abs=1e-5)
    assert found.over_wires_mm == pytest.approx((24.2930, 24.1430), abs=1e-4)
    assert thread(ThreadInput("iso", 24, 1.5, internal=True)).over_wires_mm == ()


def test_a_wire_far_from_the_best_is_said():
    codes = {n.code for n in thread(ThreadInput("iso", 24, 1.5, wire_mm=1.2)).notes}
    assert "wire-unfit" in codes
    assert "wire-unfit" not in {n.code for n in thread(ThreadInput("iso", 24, 1.5, wire_mm=0.9)).notes}


def test_whitworth_trapezoidal_acme_and_conduit_give_basic_sizes_and_say_so():
    # BS 84, 1/2 in of 12: d2 = 0.4466 in, d1 = 0.3933 in
    w = thread(ThreadInput("whitworth", 12.7, INCH / 12))
    assert (w.pitch_diameter.max / INCH, w.minor.max / INCH) == pytest.approx((0.4466, 0.3933), abs=1e-4)
    # ISO 2904, Tr 20 x 4: d2 18, d3 15.5; the nut's major 20.5, minor 16
    t, nut = thread(ThreadInput("trapezoidal", 20, 4)), thread(ThreadInput("trapezoidal", 20, 4, internal=True))
    assert (t.pitch_diameter.max, t.minor.max, t.depth_mm) == (18, 15.5, 2.25)
    assert (nut.major.max, nut.minor.max) == (20.5, 16)
    # ASME B1.5, 1 in of 5: pitch 0.9, core 0.78 in
    a = thread(ThreadInput("acme", 25.4, INCH / 5))
    assert (a.pitch_diameter.max / INCH, a.minor.max / INCH) == pytest.approx((0.9, 0.78))
    p = thread(ThreadInput("pg", 18.6, INCH / 18))
    assert (p.major.max, p.minor.max) == (18.6, 17.26)
    for found in (w, t, a, p):
        assert "basic-sizes" in {n.code for n in found.notes}


@pytest.mark.parametrize("size", PG)
def test_every_conduit_size_answers_with_its_own_pitch_only(size):
    assert thread(ThreadInput("pg", size, INCH / PG[size][0])).minor.max == PG[size][1]
    with pytest.raises(CalcError, match="threads per inch"):
        thread(ThreadInput("pg", size, 1.0))


@pytest.mark.parametrize(
    ("given", "field", "words"),
    [
        ({"form": "iso", "diameter_mm": 24, "pitch_mm": 1.5, "class_": "6x"}, "class", "no class of an outside thread"),
        ({"form": "iso", "diameter_mm": 24, "pitch_mm": 1.5, "class_": "6H"}, "class", "no class of an outside thread"),
        (
            {"form": "iso", "diameter_mm": 24, "pitch_mm": 1.5, "class_": "5g"},
            "class",
            "no grade 5 for the major diameter",
        ),
        (
            {"form": "iso", "diameter_mm": 24, "pitch_mm": 1.5, "class_": "9H", "internal": True},
            "class",
            "no grade 9 for the pitch",
        ),
        (
            {"form": "un", "diameter_mm": 19.05, "pitch_mm": 1.5875, "class_": "2B"},
            "class",
            "no class of an outside unified",
        ),
        ({"form": "iso", "diameter_mm": 400, "pitch_mm": 4}, "diameter_mm", "355 mm"),
        ({"form": "iso", "diameter_mm": 40, "pitch_mm": 9}, "pitch_mm", "8 mm"),
        ({"form": "iso", "diameter_mm": 2, "pitch_mm": 2}, "pitch_mm", "smaller than its diameter"),
        ({"form": "pg", "diameter_mm": 17, "pitch_mm": 1.41}, "diameter_mm", "DIN 40430"),
        ({"form": "trapezoidal", "diameter_mm": 10, "pitch_mm": 9.8}, "pitch_mm", "no core"),
    ],
)
def test_what_no_standard_has_is_refused_at_its_field(given, field, words):
    with pytest.raises(CalcError, match=words) as refused:
        thread(ThreadInput(**given))
    assert refused.value.errors[0].field == field


def test_a_class_of_two_grades():
    # ISO 965-1: grade 5 is 0.8 of grade 6 on the pitch diameter (150 -> 118), grade 6 on the major stays.
    found = thread(ThreadInput("iso", 24, 1.5, class_="5g6g"))
    assert pair(found.major) == pytest.approx((23.968, 23.732))
    assert found.pitch_diameter.max - found.pitch_diameter.min == pytest.approx(0.118)


def test_looser_classes_have_wider_limits():
    widths = [thread(ThreadInput("iso", 24, 1.5, class_=c)).pitch_diameter for c in ("4g", "6g", "8g")]
    assert sorted(w.max - w.min for w in widths) == [w.max - w.min for w in widths]
    widths = [thread(ThreadInput("un", 19.05, 1.5875, class_=c)).pitch_diameter for c in ("3A", "2A", "1A")]
    assert sorted(w.max - w.min for w in widths) == [w.max - w.min for w in widths]


def test_engagement_outside_the_normal_group_is_said():
    # ISO 965-1, M24 x 1.5: group N from 6.3 to 19 mm, by 2.24 and 6.7 P d^0.2 of d = 22.4
    codes = lambda x: {n.code for n in thread(ThreadInput("iso", 24, 1.5, engagement_mm=x)).notes}  # noqa: E731
    assert "engagement" in codes(6.2)
    assert "engagement" not in codes(6.4)
    assert "engagement" in codes(19.0)


@given(st.floats(0.002, 900))
def test_a_preferred_number_is_never_farther_than_half_a_step(value):
    found = nearest_r40(value)
    assert abs(found / value - 1) < 0.036
    mantissa = found / 10 ** math.floor(math.log10(found) + 1e-9)
    assert min(abs(mantissa - n) for n in R40) < 1e-6
