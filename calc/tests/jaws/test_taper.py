"""A set whose bending was measured."""

from dataclasses import replace

import pytest

from calc.jaws.taper import JawTaperInput, jaw_taper


def test_a_set_that_was_measured_bends_so_many_times_its_estimate():
    # The worked example's 0.0453 mm, one and a half times.
    given = JawTaperInput(10_000, 0, 60, 40, 40, 45, 70)
    measured = jaw_taper(replace(given, bends_times=1.5))
    assert measured.gap_mm == pytest.approx(1.5 * jaw_taper(given).gap_mm)
    assert measured.taper_on_diameter_mm == pytest.approx(2 * measured.gap_mm)
    assert {n.code for n in measured.notes} >= {"measured-bending"}
    assert not any(n.code == "lower-bound" for n in measured.notes)
    assert not jaw_taper(replace(given, bends_times=0.3)).needed  # 0.0136 a side: under 0.02
