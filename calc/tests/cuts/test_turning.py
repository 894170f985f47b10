import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.cuts.turning import CutInput, cut
from calc.errors import CalcError

C45 = CutInput(80, 0.3, 2, 0.8, 2220, 0.14, speed_m_min=200, rake_deg=-6)
# A square edge without a corner: h = f and b = a exactly.
SQUARE = CutInput(100, 0.25, 2, 0, 2000, 0.25, speed_m_min=120, approach_deg=90)


def test_published_example():
    r = cut(C45)
    assert r.chip_thickness_mm == pytest.approx(0.2297, abs=5e-5)
    assert r.chip_width_mm == pytest.approx(2.612, abs=5e-4)
    assert r.tangential_n == pytest.approx(1931, abs=0.5)


def test_a_square_edge_by_hand():
    r = cut(SQUARE)
    force = 2000 * 2 * 0.25**0.75
    assert r.chip_thickness_mm == pytest.approx(0.25)
    assert r.chip_width_mm == pytest.approx(2)
    assert r.tangential_n == pytest.approx(force)
    assert r.power_kw == pytest.approx(force * 120 / 60_000 / 0.8)
    assert r.torque_nm == pytest.approx(force * 0.05)
    assert r.feed_n == pytest.approx(force / 2)
    assert r.passive_n == pytest.approx(force / 5)  # nothing seen along the axis: the floor
    assert r.rpm == pytest.approx(120_000 / (math.pi * 100))
    assert r.feed_mm_min == pytest.approx(r.rpm * 0.25)
    assert r.ra_um is None


def test_forty_five_degrees_thins_and_widens_the_chip():
    r = cut(replace(SQUARE, approach_deg=45))
    assert r.chip_thickness_mm == pytest.approx(0.25 / math.sqrt(2))
    assert r.chip_width_mm == pytest.approx(2 * math.sqrt(2))
    assert r.feed_n == pytest.approx(r.passive_n)


def test_rake_and_wear_scale_the_force():
    base = cut(SQUARE).tangential_n
    assert cut(replace(SQUARE, rake_deg=-4)).tangential_n == pytest.approx(base * 1.15)
    assert cut(replace(SQUARE, wear=1.3)).tangential_n == pytest.approx(base * 1.3)


def test_within_the_corner_the_chip_is_continuous_with_the_one_beyond_it():
    reach = 0.8 * (1 - math.cos(math.radians(95)))
    below, above = (cut(replace(C45, depth_mm=reach + d)) for d in (-1e-7, 1e-7))
    assert below.chip_width_mm == pytest.approx(above.chip_width_mm, rel=1e-5)
    assert below.tangential_n == pytest.approx(above.tangential_n, rel=1e-5)
    assert below.passive_n == pytest.approx(above.passive_n, rel=1e-3)


def test_theoretical_finish_by_hand():
    # 0.1² / (18·√3·0.4) mm = 0.802 µm
    assert cut(replace(C45, feed_mm_rev=0.1, corner_radius_mm=0.4)).ra_um == pytest.approx(0.802, abs=5e-4)


def test_either_speed_or_rpm():
    by_rpm = cut(replace(C45, speed_m_min=None, rpm=795.77471546))
    assert by_rpm.speed_m_min == pytest.approx(200)
    for bad in ({"rpm": 100}, {"speed_m_min": None}):
        with pytest.raises(CalcError):
            replace(C45, **bad)


def test_a_surface_speed_is_held_to_the_highest_rpm_and_says_so():
    held = cut(replace(C45, max_rpm=500))
    assert held.rpm == 500
    assert held.speed_m_min == pytest.approx(math.pi * 80 * 0.5)
    assert [n.code for n in held.notes] == ["speed-held"]
    assert cut(replace(C45, max_rpm=800)).notes == ()


@pytest.mark.parametrize(("rpm", "fine"), [(499.9, True), (500.0, True), (500.1, False)])
def test_a_fixed_rpm_above_the_highest_is_refused(rpm, fine):
    change = {"speed_m_min": None, "rpm": rpm, "max_rpm": 500}
    if fine:
        assert cut(replace(C45, **change)).rpm == rpm
    else:
        with pytest.raises(CalcError) as refused:
            replace(C45, **change)
        assert refused.value.errors[0].field == "rpm"


@pytest.mark.parametrize(("feed", "said"), [(0.0501, False), (0.05, False), (0.0499, True)])
def test_a_chip_thinner_than_the_table_is_told(feed, said):
    assert bool(cut(replace(SQUARE, feed_mm_rev=feed)).notes) is said


def test_a_corner_beyond_all_measure_is_told_and_gives_no_infinite_finish():
    with pytest.raises(CalcError) as refused:
        cut(replace(C45, corner_radius_mm=5e-324))
    assert "finish cannot be computed" in refused.value.errors[0].message


@given(
    st.floats(0.05, 1), st.floats(0.1, 8), st.floats(1.01, 1.5), st.floats(45, 95), st.just(0.0) | st.floats(0.01, 1.6)
)
def test_more_feed_or_depth_never_cuts_with_less_force(feed, depth, more, approach, corner):
    base = replace(C45, feed_mm_rev=feed, depth_mm=depth, approach_deg=approach, corner_radius_mm=corner)
    force = cut(base).tangential_n
    assert cut(replace(base, feed_mm_rev=feed * more)).tangential_n > force
    assert cut(replace(base, depth_mm=depth * more)).tangential_n > force
    assert min(cut(base).feed_n, cut(base).passive_n) >= force / 5 * (1 - 1e-12)


@pytest.mark.parametrize(
    ("feed", "depth", "breaks"),
    [(0.15, 0.8, True), (0.4, 4, True), (0.149, 2, False), (0.401, 2, False), (0.3, 0.79, False), (0.3, 4.01, False)],
)
def test_the_chip_breaks_inside_the_breakers_window(feed, depth, breaks):
    from calc.cuts.feed_window import Breaker

    given = CutInput(80, feed, depth, 0.8, 2220, 0.14, speed_m_min=200, breaker=Breaker(0.15, 0.4, 0.5, 4))
    found = cut(given)
    assert found.chip_breaks is breaks
    inside = 0.15 <= feed <= 0.4 and 0.5 <= depth <= 4
    assert ("outside-breaker" in {n.code for n in found.notes}) is not inside


def test_without_a_window_only_the_corner_tells():
    assert cut(CutInput(80, 0.3, 0.5, 0.8, 2220, 0.14, speed_m_min=200)).chip_breaks is False
    assert cut(CutInput(80, 0.3, 2, 0.8, 2220, 0.14, speed_m_min=200)).chip_breaks is None


@pytest.mark.parametrize("seen", ["curls", "ribbon", "powder", "straw", "blue", "silver"])
def test_every_look_of_the_chips_has_its_advice(seen):
    notes = cut(CutInput(80, 0.3, 2, 0.8, 2220, 0.14, speed_m_min=200, chip_seen=seen)).notes
    assert [n.code for n in notes] == [f"chip-{seen}"]
    assert (notes[0].level == "caution") is (seen in ("ribbon", "powder", "blue"))
