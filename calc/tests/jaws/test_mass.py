import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.errors import CalcError
from calc.jaws.areas import block_in_disc, sector
from calc.jaws.mass import JawMassInput, jaw_mass
from calc.reading import read


def block(width, length, height, density, face, bore, depth, side="od"):
    return jaw_mass(JawMassInput(side, "block", height, density, bore, depth, width, length, face))


def pie(inner, outer, angle, height, density, bore, depth, side="od"):
    ring = {"inner_radius_mm": inner, "outer_radius_mm": outer, "angle_deg": angle}
    return jaw_mass(JawMassInput(side, "pie", height, density, bore, depth, **ring))


@pytest.mark.parametrize(
    ("given", "mass", "radius"),
    [
        ((40, 75, 50, 7.85, 30, 42, 18.5), 1.117, 69.23),
        ((35, 70, 60, 2.7, 25, 0, 0), 0.3969, 60.00),
        ((50, 80, 40, 7.85, 35, 59, 20), 1.082, 79.64),
    ],
)
def test_published_blocks(given, mass, radius):
    result = block(*given)
    assert result.mass_kg == pytest.approx(mass, abs=0.0005)
    assert result.radius_mm == pytest.approx(radius, abs=0.005)


def test_published_pie():
    result = pie(20, 100, 118, 50, 2.7, 74, 12)
    assert result.mass_kg == pytest.approx(1.165, abs=0.0005)
    assert result.radius_mm == pytest.approx(59.37, abs=0.005)


def strips(width, near, far, radius, count=40_000):
    """A second method: thin strips across the jaw, summed along it."""
    step = (far - near) / count
    area = moment = 0.0
    for i in range(count):
        x = near + (i + 0.5) * step
        reach = min(width / 2, math.sqrt(radius**2 - x**2)) if x < radius else 0.0
        area += 2 * reach * step
        moment += 2 * reach * step * x
    return area, moment


@pytest.mark.parametrize("radius", [10, 30.5, 36, 42, 60, 104, 106, 120])
def test_the_disc_in_a_block_against_strips(radius):
    area, moment = block_in_disc(40, 30, 105, radius)
    counted, first = strips(40, 30, 105, radius)
    assert area == pytest.approx(counted, rel=1e-5, abs=1e-3)
    assert moment == pytest.approx(first, rel=1e-5, abs=0.1)


def test_limits_of_the_disc():
    assert block_in_disc(40, 30, 105, 30) == (0, 0)
    whole = block_in_disc(40, 30, 105, 500)
    assert whole[0] == pytest.approx(40 * 75)
    assert whole[1] == pytest.approx(40 * 75 * 67.5)


def test_a_half_ring_has_its_centre_at_two_thirds_sin_over_angle():
    area, moment = sector(0, 10, 180)
    assert area == pytest.approx(math.pi * 50)
    assert moment / area == pytest.approx(4 * 10 / (3 * math.pi))


def test_inside_grip_loses_what_lies_beyond_the_turned_radius():
    whole = block(40, 75, 50, 7.85, 30, 0, 0).mass_kg
    kept = block(40, 75, 50, 7.85, 30, 80, 50, "id").mass_kg
    taken = block(40, 75, 50, 7.85, 30, 80, 50, "od").mass_kg
    assert kept + taken == pytest.approx(whole)  # the two bores are each other's other half


def test_a_bore_that_takes_the_whole_jaw_leaves_nothing_whatever_the_last_bits_say():
    for width in (20.0, 33.3, 40.0, 59.9):
        with pytest.raises(CalcError, match="leaves nothing"):
            block(width, 75, 50, 7.85, 30, 139.0, 50)


# The jaw ends 105 mm out: a bore below 2 · 105 leaves metal whatever its depth, one of its corners at least.
@given(st.floats(20, 60), st.floats(31, 140), st.floats(0, 49))
def test_a_deeper_bore_is_never_heavier_and_lies_no_further_in(width, bore, depth):
    less = block(width, 75, 50, 7.85, 30, bore, depth)
    plain = block(width, 75, 50, 7.85, 30, 0, 0)
    assert less.mass_kg <= plain.mass_kg * (1 + 1e-12)
    assert less.radius_mm >= plain.radius_mm - 1e-6  # an outside bore takes the metal nearest the axis


@pytest.mark.parametrize(
    ("change", "field"),
    [({"bore_depth_mm": 51}, "bore_depth_mm"), ({"width_mm": None}, "width_mm"), ({"height_mm": 0}, "height_mm")],
)
def test_bad_jaws_name_the_field(change, field):
    given = {
        "side": "od",
        "kind": "block",
        "height_mm": 50,
        "density_kg_dm3": 7.85,
        "bore_radius_mm": 42,
        "bore_depth_mm": 18,
        "width_mm": 40,
        "length_mm": 75,
        "face_radius_mm": 30,
    } | change
    with pytest.raises(CalcError) as refused:
        read(JawMassInput, given)
    assert [e.field for e in refused.value.errors] == [field]


def test_a_bore_that_leaves_nothing_is_refused():
    with pytest.raises(CalcError):
        block(40, 75, 50, 7.85, 30, 400, 50)
