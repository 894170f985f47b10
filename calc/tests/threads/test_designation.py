"""Thread names: ISO 261 and ASME B1.1 sizes by hand, and what names no thread."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.threads.designation import COARSE, designation


@pytest.mark.parametrize(
    ("text", "written", "major", "pitch"),
    [
        ("M24x1.5-6g", "M24x1.5-6g", 24.0, 1.5),
        ("M24×1.5 6g", "M24x1.5-6g", 24.0, 1.5),
        ("M 10", "M10", 10.0, 1.5),  # coarse, ISO 261
        ("M8 6H", "M8-6H", 8.0, 1.25),
        ("M12x1.25 5g6g", "M12x1.25-5g6g", 12.0, 1.25),
        ("M16-LH", "M16-LH", 16.0, 2.0),
        ("3/4-16 UNF-2A", "3/4-16 UNF-2A", 19.05, 25.4 / 16),
        ("1 1/2-6 UNC", "1 1/2-6 UNC", 38.1, 25.4 / 6),
        ("1/4-20UNC 2B", "1/4-20 UNC-2B", 6.35, 1.27),
        ("#10-32 UNF", "#10-32 UNF", 0.190 * 25.4, 25.4 / 32),  # #n is 0.060 + 0.013·n in
        ("0.5-13 UNC LH", "0.5-13 UNC-LH", 12.7, 25.4 / 13),
    ],
)
def test_sizes_and_spelling(text: str, written: str, major: float, pitch: float) -> None:
    found = designation(text)
    assert found is not None
    assert (found.text, found.major_mm, found.pitch_mm) == (written, pytest.approx(major), pytest.approx(pitch))


@pytest.mark.parametrize(
    "text",
    [
        "",
        "24",
        "M",
        "Mx1.5",
        "M24x",
        "M24x0",
        "M24x24",
        "M24 9z",
        "M11",
        "m24",
        "3/0-16 UNF",
        "3/4-0 UNF",
        "3/4-1 UNF",
        "3/4-16",
        "3/4-16 UNF-4A",
        "G1/2",
        "84 h7",
    ],
)
def test_what_names_no_thread(text: str) -> None:
    assert designation(text) is None


@pytest.mark.parametrize("major", COARSE)
def test_every_coarse_size_is_known_without_its_pitch(major: float) -> None:
    found = designation(f"M{major:g}")
    assert found is not None
    assert (found.major_mm, found.pitch_mm) == (major, COARSE[major])
    assert found == designation(f"  M{major:g} ")


@given(st.integers(3, 300), st.sampled_from([0.5, 0.75, 1, 1.5, 2, 3]), st.sampled_from(["", "6g", "6H"]))
def test_a_name_reads_back_as_itself(major: int, pitch: float, grade: str) -> None:
    found = designation(f"M{major}x{pitch:g}{'-' if grade else ''}{grade}")
    if pitch < major:
        assert found is not None and designation(found.text) == found
