import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from calc.chuck.fit import GaugePoint, GripFitInput, grip_fit
from calc.errors import CalcError


def run(pairs, side="od", k=None):
    return grip_fit(GripFitInput(side, tuple(GaugePoint(n, f) for n, f in pairs), k))


def codes(result):
    return {n.code for n in result.notes}


def test_three_points_by_hand():
    # x = n² in 10⁶: 0, 1, 4 with 40, 37, 31 kN: mean x 5/3, mean F 36, S_xx = 26/3, S_xy = -19 → k = 57/26.
    found = run([(0, 40_000), (1000, 37_000), (2000, 31_000)])
    assert found.k_n_per_rpm2 * 1e6 == pytest.approx(57_000 / 26)
    assert found.static_grip_n == pytest.approx(36_000 + 57_000 / 26 * 5 / 3)
    assert sum(found.residuals_n) == pytest.approx(0, abs=1e-6)
    assert found.transmission is None
    assert found.outliers == ()


@settings(max_examples=60, deadline=None)
@given(
    st.sampled_from(["od", "id"]),
    st.floats(5_000, 200_000),
    st.floats(1e-5, 4e-3),
    st.lists(st.integers(0, 15), min_size=4, max_size=30, unique=True),
)
def test_known_synthetic_data_is_found_again(side, static, k, hundreds):
    sign = -1 if side == "od" else 1
    pairs = [(100 * h, static + sign * k * (100 * h) ** 2) for h in hundreds]
    if any(f < 0 for _, f in pairs):
        return
    found = run(pairs, side, 2 * k)
    assert found.static_grip_n == pytest.approx(static, rel=1e-6)
    assert found.k_n_per_rpm2 == pytest.approx(k, rel=1e-5, abs=1e-10)
    assert found.transmission == pytest.approx(0.5, rel=1e-5)
    assert found.outliers == ()
    assert "transmission-odd" in codes(found)


def test_noise_leaves_the_truth_within_its_own_error():
    # Deterministic “noise” of ±200 N, orthogonal to the fit: it changes neither figure.
    speeds = [500, 1000, 1500, 2000, 2500, 3000]
    noise = [200, -300, 40, 60, 100, -100]
    x = [n * n for n in speeds]
    mean = sum(x) / 6
    slope = sum((a - mean) * b for a, b in zip(x, noise, strict=True)) / sum((a - mean) ** 2 for a in x)
    level = sum(noise) / 6
    pairs = [(n, 50_000 - 0.003 * n * n + e) for n, e in zip(speeds, noise, strict=True)]
    found = run(pairs, k=0.003)
    assert found.k_n_per_rpm2 == pytest.approx(0.003 - slope)
    assert found.static_grip_n == pytest.approx(50_000 + level - slope * mean)


def test_an_outlier_is_told_and_which():
    pairs = [(n, 40_000 - 0.002 * n * n) for n in range(0, 3001, 300)]
    pairs = [(n, f + (60 if i % 2 else -60)) for i, (n, f) in enumerate(pairs)]
    pairs[6] = (pairs[6][0], pairs[6][1] + 6000)
    found = run(pairs, k=0.002)
    assert found.outliers == (6,)
    assert {"outliers"} <= codes(found)


@pytest.mark.parametrize(("share", "odd"), [(0.59, True), (0.6001, False), (1.1999, False), (1.21, True)])
def test_transmission_is_warned_outside_its_usual_range(share, odd):
    found = run([(n, 60_000 - 0.001 * share * n * n) for n in (0, 1000, 2000, 3000)], k=0.001)
    assert ("transmission-odd" in codes(found)) is odd


def test_a_poor_fit_a_wrong_direction_and_a_level_line():
    assert "poor-fit" in codes(run([(0, 40_000), (1000, 30_000), (2000, 41_000), (3000, 20_000)]))
    assert "wrong-way" in codes(run([(0, 30_000), (1000, 31_000), (2000, 34_000)]))
    level = run([(0, 30_000), (1000, 30_000), (2000, 30_000)])
    assert (level.k_n_per_rpm2, level.r_squared) == (0, 1)
    assert math.isclose(level.static_grip_n, 30_000)


def test_too_few_speeds_are_refused_in_words():
    with pytest.raises(CalcError, match="2 different speeds"):
        run([(0, 1000), (0, 1010), (500, 900)])
    with pytest.raises(CalcError, match="within 100 rpm"):
        run([(1000, 1000), (1010, 1010), (1050, 900)])
