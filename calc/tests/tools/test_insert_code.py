"""Insert designations both ways."""

import itertools

import pytest

from calc.errors import CalcError
from calc.tools.designation import (
    ANSI_CORNERS,
    ANSI_SIZES,
    ANSI_THICKNESSES,
    CLEARANCES,
    SHAPES,
    SIZES,
    TOLERANCES,
    TYPES,
)
from calc.tools.insert_code import InsertCodeInput, insert_code


def decode(code):
    return insert_code(InsertCodeInput(code))


# Edge figures of ISO 1832 by shape and inscribed circle, and ANSI B212.4 beside it.
PAIRS = [
    ("CNMG 120408", "CNMG 432"),
    ("CNMG 190616", "CNMG 644"),
    ("CCMT 060204", "CCMT 21.51"),
    ("CCMT 09T304", "CCMT 32.51"),
    ("DNMG 150608", "DNMG 442"),
    ("DCMT 11T308", "DCMT 32.52"),
    ("DCMT 070204", "DCMT 21.51"),
    ("SNMG 120412", "SNMG 433"),
    ("TNMG 160408", "TNMG 332"),
    ("TNMG 220408", "TNMG 432"),
    ("TCMT 110202", "TCMT 21.5.5"),
    ("VNMG 160404", "VNMG 331"),
    ("VBMT 160408", "VBMT 332"),
    ("WNMG 080408", "WNMG 432"),
    ("WNMG 060404", "WNMG 331"),
    ("TPGN 110304", "TPGN 221"),
    ("SCMT 09T308", "SCMT 32.52"),
    ("CNGA 120400", "CNGA 430"),
    ("VCGT 110302", "VCGT 22.5"),
]


@pytest.mark.parametrize(("iso", "ansi"), PAIRS)
def test_each_system_gives_the_other(iso, ansi):
    assert decode(iso).ansi == ansi
    assert decode(ansi).iso == iso
    assert (decode(iso).system, decode(ansi).system) == ("iso", "ansi")
    assert decode(iso).ic_mm == pytest.approx(decode(ansi).ic_mm)
    assert decode(iso).thickness_mm == pytest.approx(decode(ansi).thickness_mm)


def test_the_worked_example():
    found = decode("cnmg 432")
    assert (found.ic_mm, found.thickness_mm) == pytest.approx((12.70, 4.7625))
    assert found.corner_radius_mm == pytest.approx(2 * 25.4 / 64)
    assert decode("CNMG120408").corner_radius_mm == 0.8
    # l = d / sin 80
    assert found.edge_mm == pytest.approx(12.896, abs=1e-3)


@pytest.mark.parametrize(
    ("code", "ic", "edge"),
    [
        ("SNMG 120408", 12.7, 12.7),
        ("TNMG 160408", 9.525, 16.498),
        ("DNMG 150408", 12.7, 15.504),
        ("VNMG 160408", 9.525, 16.607),
        ("WNMG 080408", 12.7, 8.69),
        ("RCMT 1204M0", 12.0, 12.0),
        ("RNMG 120400", 12.7, 12.7),
    ],
)
def test_circle_and_edge_by_the_shapes_geometry(code, ic, edge):
    assert (decode(code).ic_mm, decode(code).edge_mm) == pytest.approx((ic, edge), abs=2e-3)


@pytest.mark.parametrize(
    ("code", "edges"),
    [("CNMG 120408", 4), ("CCMT 09T304", 2), ("WNMG 080408", 6), ("SNMG 120408", 8), ("TCMT 110204", 3)],
)
def test_edges_to_use(code, edges):
    assert decode(code).edges == edges


def test_every_letter_over_the_whole_table_is_explained_both_ways():
    sizes = {s: [size for size in SIZES[s].values() if size.ansi] for s in SHAPES}
    count = 0
    for shape, clearance, tolerance, kind in itertools.product(SHAPES, CLEARANCES, TOLERANCES, TYPES):
        size = sizes[shape][count % len(sizes[shape])]
        ansi = f"{shape}{clearance}{tolerance}{kind} {size.ansi}32"
        found = decode(ansi)
        again = decode(found.iso)
        assert again.ansi == ansi
        assert [x.symbol for x in again.letters[:4]] == [shape, clearance, tolerance, kind]
        assert all(x.meaning for x in again.letters)
        count += 1
    assert count == len(SHAPES) * len(CLEARANCES) * len(TOLERANCES) * len(TYPES)


def test_every_size_thickness_and_corner_reads_as_itself():
    for size, thickness, corner in itertools.product(ANSI_SIZES, ANSI_THICKNESSES, ANSI_CORNERS):
        code = f"SNMG {size}{thickness}{corner.removeprefix('0') if corner != '0' else '0'}"
        found = decode(code)
        assert found.ansi == code
        assert found.ic_mm == pytest.approx(ANSI_SIZES[size])


def test_edge_hand_and_breaker_behind_the_figures():
    found = decode("CNMG 120408EN-MF")
    assert [(x.position, x.symbol) for x in found.letters[7:]] == [(8, "E"), (9, "N"), (10, "MF")]
    assert found.breaker == "MF"


@pytest.mark.parametrize(
    ("code", "iso", "corner", "breaker"),
    [
        ("TPG 322", "TPGN 160308", 0.794, ""),  # an older inch code: no hole, no breaker, and no letter for it
        ("SNG433", "SNGN 120412", 1.191, ""),
        ("RNMG 43", "RNMG 120400", 6.35, ""),  # a round one needs no corner: its radius is its circle's
        ("CNMG 432MP", "CNMG 120408", 0.794, "MP"),  # letters straight behind the figures
        ("TNMG332K", "TNMG 160408", 0.794, "K"),
    ],
)
def test_common_inch_codes_are_read(code, iso, corner, breaker):
    found = decode(code)
    assert (found.system, found.iso, found.breaker) == ("ansi", iso, breaker)
    assert found.corner_radius_mm == pytest.approx(corner, abs=5e-4)


@pytest.mark.parametrize(
    ("code", "position", "may"),
    [
        ("XNMG 120408", "Position 1, “X”", "R, S, C"),
        ("CZMG 120408", "Position 2, “Z”", "A, B, C"),
        ("CNXG 120408", "Position 3, “X”", "A, F"),
        ("CNMZ 120408", "Position 4, “Z”", "N, R, F"),
        ("CNMG 110408", "Position 5, “11”", "12"),
        ("CNMG 128808", "Position 6, “88”", "T3"),
        ("CNMG 120477", "Position 7, “77”", "08"),
        ("CNMG 1204M0", "Position 7, “M0”", "08"),
        ("CNMG 120408?", "Position 8, “?”", "hyphen"),
        ("CNMG 932", "Position 5, “932”", "10"),
        ("CNMG 492", "Position 6, “92”", "1.2"),
        ("CNMG 439", "Position 7, “9”", "0.5"),
        ("CNMG 1204", "Position 7, “nothing”", "08"),
        ("CNMG 12", "Position 6, “nothing”", "T3"),
        ("CNMG", "Position 5, “nothing”", "ISO figures"),
        ("CN", "Position 3, “nothing”", "A, F"),
        ("", "Position 1, “nothing”", "R, S"),
    ],
)
def test_a_wrong_code_is_refused_with_the_position(code, position, may):
    with pytest.raises(CalcError) as refused:
        decode(code)
    assert position in str(refused.value)
    assert may in str(refused.value)
    assert refused.value.errors[0].field == "code"
