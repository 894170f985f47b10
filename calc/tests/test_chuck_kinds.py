"""What a record of a chuck or a collet must say, by what it closes."""

import pytest

from calc.errors import CalcError
from calc.shelf.chuck import CHUCK
from calc.shelf.collet import COLLET
from calc.shelf.machine import MACHINE

COLLET_CHUCK = {
    "key": "c",
    "name": "Collet chuck",
    "closes": "collet",
    "jaws": 3,
    "max_rpm": 6000,
    "max_grip_n": 85_000,
    "max_pressure_bar": 27,
    "reference_height_mm": 0,
    "guide_length_mm": 0,
    "piston_area_mm2": 9000,
    "efficiency": 0.9,
    "half_angle_deg": 8,
    "body_diameter_mm": 120,
    "body_length_mm": 84,
    "nose_mm": 78,
    "guide_to_jaw_base_mm": 0,
    "jaw_stroke_mm": 0,
    "serration_pitch_mm": 0,
    "heaviest_jaw_kg": None,
    "master_mass_kg": None,
    "master_radius_mm": None,
}


def refused(kind, row):
    with pytest.raises(CalcError) as error:
        kind.read(row)
    return {e.field for e in error.value.errors}


def test_a_collet_chuck_is_read():
    chuck = CHUCK.read(COLLET_CHUCK)
    assert (chuck.is_collet, chuck.spindle, chuck.force.half_angle_deg) == (True, "main", 8)
    assert CHUCK.line(chuck, {"machine": "Twin 2"}).startswith("Twin 2 · collets")


@pytest.mark.parametrize(
    ("changed", "field"),
    [
        ({"closes": "jaws"}, "guide_length_mm"),
        ({"closes": "jaws", "guide_length_mm": 60, "reference_height_mm": 40}, "half_angle_deg"),
        ({"jaws": 5}, "jaws"),
        ({"nose_mm": None}, "nose_mm"),
        ({"guide_length_mm": 60, "reference_height_mm": 40}, "guide_length_mm"),
    ],
)
def test_what_does_not_belong_together_is_told_at_its_field(changed, field):
    assert field in refused(CHUCK, COLLET_CHUCK | changed)


def test_a_jaw_chuck_still_needs_its_stroke_and_pitch():
    jawed = COLLET_CHUCK | {"closes": "jaws", "guide_length_mm": 60, "reference_height_mm": 40, "half_angle_deg": None}
    assert {"jaw_stroke_mm", "serration_pitch_mm"} <= refused(CHUCK, jawed | {"force_ratio": 3})


def test_a_collet_closes_by_less_than_its_size():
    row = {"key": "c", "name": "Collet 2", "nominal_mm": 2, "range_mm": 2, "bearing_mm": 12}
    assert refused(COLLET, row) == {"range_mm"}
    assert COLLET.line(COLLET.read(row | {"range_mm": 0.5, "form": "hexagon"}), {}).startswith("hexagon 1.5 to 2")


@pytest.mark.parametrize(("more", "field"), [({"second_rpm": 5000}, "second_kw"), ({"feeder_mm": 65}, "feeder_rpm")])
def test_figures_of_a_second_spindle_and_of_a_feeder_belong_together(more, field):
    machine = {"key": "m", "name": "Twin", "max_rpm": 5000, "power_kw": 11, "torque_nm": 70}
    assert field in refused(MACHINE, machine | more)
