"""The first piece: its size at 20 °C, and which way the offset moves."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.errors import CalcError
from calc.limits.first_off import FirstOffInput, first_off


def corrected(size, target, **more):
    return first_off(FirstOffInput(size, target, **more))


def test_a_hot_piece_of_duplex():
    # 84.031/(1 + 13e-6·15) = 84.0146; 83.982 − 84.0146.
    found = corrected(84.031, 83.982, expansion_1e6_k=13, part_temp_c=35)
    assert (round(found.at_20_mm, 4), round(found.correction_mm, 4)) == (84.0146, -0.0326)


@pytest.mark.parametrize(
    ("size", "of", "moves"),
    [
        (50.02, "diameter", -0.02),  # an outside too large: the tool goes in
        (49.98, "diameter", +0.02),  # a bore too small: its tool goes outward, X+ as well
        (30.05, "from-chuck", -0.05),  # too long: the face is cut nearer to the chuck, Z−
        (12.03, "from-face", +0.03),  # the shoulder lies too deep: the tool stays further out, Z+
        (11.97, "from-face", -0.03),
    ],
)
def test_which_way_the_offset_moves(size, of, moves):
    target = {"diameter": 50.0, "from-chuck": 30.0, "from-face": 12.0}[of]
    assert corrected(size, target, measured=of).correction_mm == pytest.approx(moves)


@given(st.floats(1, 500), st.floats(-0.2, 0.2), st.floats(0, 30), st.floats(10, 60))
def test_with_the_correction_the_next_piece_has_the_target(target, off, expansion, temperature):
    found = corrected(target + off, target, expansion_1e6_k=expansion, part_temp_c=temperature)
    assert found.at_20_mm + found.correction_mm == pytest.approx(target, abs=1e-9)
    assert (found.at_20_mm <= target + off) == (temperature >= 20 or expansion == 0 or found.at_20_mm == target + off)


def test_at_twenty_degrees_it_is_as_measured_and_on_size_nothing_moves():
    assert corrected(40.0, 40.0, part_temp_c=20.0).at_20_mm == 40.0
    assert [n.code for n in corrected(40.0003, 40.0).notes] == ["on-size"]
    assert corrected(40.0006, 40.0).notes == ()


def test_another_dimension_is_asked_after():
    with pytest.raises(CalcError) as refused:
        corrected(84.0, 30.0)
    assert refused.value.errors[0].field == "measured_mm"
