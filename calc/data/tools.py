"""The starting shelf of tools: generic items in plain standard designations, every figure typical, nothing in stock.

Built from short tables, so that a family is changed in one line. Windows and grades are what such inserts usually have.
"""

from __future__ import annotations

from typing import Any

Row = dict[str, Any]

# Family: designation stem, thickness figures, corners, and grades.
STEEL, STAINLESS, IRON, BRIGHT, HEAT = (
    "P10-P30 M15-M25",
    "M15-M35 S10-S25 P30-P45",
    "K05-K25 P10-P20",
    "N05-N25",
    "S10-S30 M20-M35",
)
# Breaker by purpose: (feed from, to, depth from, to) for a corner of 0.8 mm; feeds go with the corner.
WINDOWS = {"rough": (0.2, 0.5, 1.0, 5.0), "medium": (0.12, 0.35, 0.5, 3.5), "finish": (0.06, 0.25, 0.2, 1.5)}
GRADES = {
    "steel": (STEEL, "coated", "honed", 6.0),
    "stainless": (STAINLESS, "coated", "honed", 12.0),
    "iron": (IRON, "coated", "honed", 2.0),
    "bright": (BRIGHT, "none", "sharp", 20.0),
    "heat": (HEAT, "coated", "honed", 10.0),
}
# (stem, corner, purpose, grade)
INSERTS = [
    *(
        ("CNMG 1204", r, p, g)
        for g in ("steel", "stainless")
        for r, p in (("04", "finish"), ("08", "medium"), ("08", "rough"), ("12", "rough"))
    ),
    *(("CNMG 1204", r, "medium", g) for g in ("iron", "heat") for r in ("08", "12")),
    *(
        ("WNMG 0804", r, p, g)
        for g in ("steel", "stainless")
        for r, p in (("04", "finish"), ("08", "medium"), ("12", "rough"))
    ),
    *(("DNMG 1506", r, p, g) for g in ("steel", "stainless") for r, p in (("04", "finish"), ("08", "medium"))),
    *(("SNMG 1204", r, "rough", g) for g in ("steel", "iron") for r in ("08", "12")),
    *(("TNMG 1604", r, "medium", "steel") for r in ("04", "08")),
    *(("VNMG 1604", r, "finish", g) for g in ("steel", "stainless") for r in ("04", "08")),
    *(("CCMT 09T3", r, p, g) for g in ("steel", "stainless") for r, p in (("04", "finish"), ("08", "medium"))),
    *(("CCMT 0602", r, "finish", g) for g in ("steel", "stainless") for r in ("02", "04")),
    *(("CCGT 09T3", r, "finish", "bright") for r in ("02", "04", "08")),
    *(("CCGT 09T3", r, "medium", "bright") for r in ("04", "08")),
    *(("CCGT 0602", r, "finish", "bright") for r in ("02", "04")),
    ("CCGT 0602", "04", "medium", "bright"),
    *(("DCMT 11T3", r, "finish", g) for g in ("steel", "stainless") for r in ("04", "08")),
    *(("DCGT 11T3", r, "finish", "bright") for r in ("02", "04")),
    *(("VCGT 1604", r, "finish", "bright") for r in ("04", "08")),
    *(("VBMT 1604", r, "finish", g) for g in ("steel", "stainless") for r in ("04", "08")),
    ("CNGG 1204", "04", "finish", "heat"),
    ("DNGG 1506", "04", "finish", "heat"),
    ("RCMT 1204", "M0", "rough", "steel"),
]


def _word(grade: str, purpose: str) -> str:
    return f"{purpose}, {grade}"


def inserts() -> list[Row]:
    """Turning inserts."""
    rows = []
    for stem, corner, purpose, grade in INSERTS:
        application, coating, edge, rake = GRADES[grade]
        r = 6.0 if corner == "M0" else int(corner) / 10
        f1, f2, a1, a2 = WINDOWS[purpose]
        times = min(1.4, max(0.4, r / 0.8)) ** 0.6
        small = 0.6 if stem.split()[1].startswith("06") else 0.8 if stem[1] == "C" or stem[1] == "B" else 1.0
        rows.append(
            {
                "key": f"{stem.replace(' ', '')}{corner}-{purpose}-{grade}".lower(),
                "name": f"{stem}{corner} {_word(grade, purpose)}",
                "code": f"{stem}{corner}",
                "application": application,
                "coating": coating,
                "edge": edge,
                "rake_deg": rake,
                "purpose": purpose,
                "feed_min": round(f1 * times, 3),
                "feed_max": round(f2 * times, 3),
                "depth_min": round(max(0.1, a1 * small * min(1, r / 0.8)), 2),
                "depth_max": round(a2 * small, 2),
                "substrate": "carbide",
                "stock": 0,
            }
        )
    return rows


# Seat of an insert by its stem, with the holders that take it: (word, approach, sides).
OUTSIDE = [
    ("CN 1204", "80° rhombic", 95.0),
    ("WN 0804", "trigon", 95.0),
    ("DN 1506", "55° rhombic", 93.0),
    ("SN 1204", "square", 75.0),
    ("TN 1604", "triangle", 91.0),
    ("VN 1604", "35° rhombic", 93.0),
    ("CC 09T3", "80° rhombic, screwed", 95.0),
    ("DC 11T3", "55° rhombic, screwed", 93.0),
    ("VB 1604", "35° rhombic, screwed", 93.0),
    ("VC 1604", "35° rhombic, screwed", 93.0),
    ("RC 1204", "round", 90.0),
]
SHANKS = (20.0, 25.0)
# (bar, least bore, seat, metal, coolant)
BARS = [
    (6.0, 7.2, "CC 0602", "carbide"),
    (8.0, 11.0, "CC 0602", "steel"),
    (8.0, 11.0, "CC 0602", "carbide"),
    (10.0, 13.5, "CC 0602", "steel"),
    (10.0, 13.5, "CC 0602", "carbide"),
    (12.0, 16.0, "CC 0602", "steel"),
    (12.0, 16.0, "CC 0602", "carbide"),
    (16.0, 20.0, "CC 09T3", "steel"),
    (16.0, 20.0, "CC 09T3", "carbide"),
    (20.0, 25.0, "CC 09T3", "steel"),
    (20.0, 25.0, "DC 11T3", "steel"),
    (25.0, 32.0, "CC 09T3", "steel"),
    (25.0, 32.0, "CN 1204", "steel"),
    (32.0, 40.0, "CN 1204", "steel"),
    (32.0, 40.0, "DN 1506", "steel"),
    (32.0, 40.0, "CN 1204", "heavy"),
    (40.0, 50.0, "CN 1204", "steel"),
]
OVERHANG = {"steel": 4.0, "carbide": 6.0, "heavy": 8.0}


def holders() -> list[Row]:
    """Holders and bars."""
    rows: list[Row] = []
    for seat, word, approach in OUTSIDE:
        for shank in SHANKS:
            rows.append(
                {
                    "key": f"{seat.replace(' ', '').lower()}-out-{shank:g}",
                    "name": f"{word} {seat}, {shank:g} shank",
                    "seat": seat,
                    "shank_mm": shank,
                    "approach_deg": approach,
                    "side": "outside",
                    "use": "turning",
                    "coolant": "through",
                }
            )
    for bar, least, seat, metal in BARS:
        approach = 93.0 if seat.startswith("D") else 95.0
        word = {"steel": "steel bar", "carbide": "carbide bar", "heavy": "damped bar"}[metal]
        rows.append(
            {
                "key": f"{seat.replace(' ', '').lower()}-bar-{bar:g}-{metal}",
                "name": f"Ø{bar:g} {word} {seat}",
                "seat": seat,
                "shank_mm": bar,
                "approach_deg": approach,
                "side": "inside",
                "use": "turning",
                "reach_mm": bar * OVERHANG[metal],
                "min_bore_mm": least,
                "metal": metal,
                "coolant": "through",
            }
        )
    for shank in SHANKS:
        for seat, plunge in (("G 2", 12.0), ("G 3", 16.0), ("G 4", 20.0)):
            rows.append(
                {
                    "key": f"{seat.replace(' ', '').lower()}-out-{shank:g}",
                    "name": f"groover {seat}, {shank:g} shank",
                    "seat": seat,
                    "shank_mm": shank,
                    "approach_deg": 90.0,
                    "side": "outside",
                    "use": "grooving",
                    "reach_mm": plunge,
                    "hand": "neutral",
                }
            )
        rows.append(
            {
                "key": f"t16e-out-{shank:g}",
                "name": f"threading T 16 E, {shank:g} shank",
                "seat": "T 16 E",
                "shank_mm": shank,
                "approach_deg": 90.0,
                "side": "outside",
                "use": "threading",
                "hand": "neutral",
            }
        )
    for bar, least, seat in ((12.0, 15.0, "T 11 I"), (16.0, 20.0, "T 16 I"), (25.0, 30.0, "T 16 I")):
        rows.append(
            {
                "key": f"t-bar-{bar:g}",
                "name": f"Ø{bar:g} threading bar {seat}",
                "seat": seat,
                "shank_mm": bar,
                "approach_deg": 90.0,
                "side": "inside",
                "use": "threading",
                "reach_mm": bar * 4,
                "min_bore_mm": least,
                "hand": "neutral",
            }
        )
    rows.append(
        {
            "key": "g-bar-20",
            "name": "Ø20 grooving bar GI 2",
            "seat": "GI 2",
            "shank_mm": 20.0,
            "approach_deg": 90.0,
            "side": "inside",
            "use": "grooving",
            "reach_mm": 60.0,
            "min_bore_mm": 26.0,
            "hand": "neutral",
        }
    )
    return rows


def groove_inserts() -> list[Row]:
    """Inserts that groove and part off."""
    every = "P15-P40 M20-M35 K15-K30 N10-N25 S15-S30"
    rows = []
    for width, f1, f2 in ((2.0, 0.04, 0.12), (3.0, 0.05, 0.16), (4.0, 0.06, 0.2)):
        rows.append(
            {
                "key": f"g-{width:g}",
                "name": f"groove {width:g} wide",
                "seat": f"G {width:g}",
                "width_mm": width,
                "application": every,
                "feed_min": f1,
                "feed_max": f2,
                "corner_radius_mm": 0.2,
                "use": "groove",
                "rake_deg": 8.0,
            }
        )
        rows.append(
            {
                "key": f"p-{width:g}",
                "name": f"part-off {width:g} wide",
                "seat": f"B {width:g}",
                "width_mm": width,
                "application": every,
                "feed_min": f1,
                "feed_max": f2,
                "corner_radius_mm": 0.2,
                "use": "part",
                "edges": 1,
                "rake_deg": 12.0,
            }
        )
    rows.append(
        {
            "key": "gi-2",
            "name": "inside groove 2 wide",
            "seat": "GI 2",
            "width_mm": 2.0,
            "application": every,
            "feed_min": 0.03,
            "feed_max": 0.1,
            "corner_radius_mm": 0.2,
            "use": "groove",
            "rake_deg": 8.0,
        }
    )
    return rows


def thread_inserts() -> list[Row]:
    """Threading inserts: full profiles of common pitches, and partial ones."""
    every = "P15-P40 M20-M35 K15-K30 N10-N25 S15-S30"
    rows: list[Row] = []
    for pitch in (1.0, 1.25, 1.5, 2.0):
        for side, seat in (("outside", "T 16 E"), ("inside", "T 16 I")):
            rows.append(
                {
                    "key": f"m{pitch:g}-{side}".replace(".", ""),
                    "name": f"60° full, pitch {pitch:g}, {side}",
                    "seat": seat,
                    "angle_deg": 60.0,
                    "pitch_min_mm": pitch,
                    "pitch_max_mm": pitch,
                    "application": every,
                    "side": side,
                    "profile": "full",
                }
            )
    for per_inch in (16, 12):
        pitch = 25.4 / per_inch
        rows.append(
            {
                "key": f"un{per_inch}-outside",
                "name": f"60° full, {per_inch} per inch, outside",
                "seat": "T 16 E",
                "angle_deg": 60.0,
                "pitch_min_mm": pitch,
                "pitch_max_mm": pitch,
                "application": every,
                "side": "outside",
                "profile": "full",
            }
        )
    for angle, side, seat in (
        (60.0, "outside", "T 16 E"),
        (60.0, "inside", "T 16 I"),
        (60.0, "inside", "T 11 I"),
        (55.0, "outside", "T 16 E"),
    ):
        rows.append(
            {
                "key": f"partial-{angle:g}-{side}-{seat.split()[1]}",
                "name": f"{angle:g}° partial, {side}, {seat}",
                "seat": seat,
                "angle_deg": angle,
                "pitch_min_mm": 0.5,
                "pitch_max_mm": 3.0,
                "application": every,
                "side": side,
                "profile": "partial",
            }
        )
    return rows


def drills() -> list[Row]:
    """Drills: solid carbide, then indexable ones."""
    rows: list[Row] = []
    for d in (5, 6, 6.8, 8, 8.5, 9, 10, 10.2, 12, 12.5, 13, 13.5, 14, 15.5, 16):
        rows.append(
            {
                "key": f"drill-{d:g}".replace(".", "-"),
                "name": f"drill Ø{d:g}, carbide",
                "diameter_mm": float(d),
                "reach_mm": 5.0 * d,
                "application": "P10-P40 M15-M35 K10-K30 N10-N25",
                "feed_min": round(0.008 * d, 3),
                "feed_max": round(0.02 * d, 3),
            }
        )
    for d in (18, 20, 22, 25, 28, 32, 36, 40, 46, 48):
        rows.append(
            {
                "key": f"drill-{d:g}",
                "name": f"drill Ø{d:g}, indexable",
                "diameter_mm": float(d),
                "reach_mm": 3.0 * d,
                "application": "P15-P40 M20-M35 K15-K30 N10-N25 S20-S30",
                "feed_min": 0.05,
                "feed_max": 0.16,
            }
        )
    return rows


def blades() -> list[Row]:
    """Part-off blades in their blocks."""
    return [
        {
            "key": f"blade-{width:g}-{shank:g}",
            "name": f"blade {width:g} in a {shank:g} block",
            "seat": f"B {width:g}",
            "reach_mm": reach,
            "shank_mm": shank,
            "coolant": "through",
        }
        for shank in SHANKS
        for width, reach in ((2.0, 16.0), (3.0, 32.0), (4.0, 45.0))
    ]


def starting_tools() -> dict[str, list[Row]]:
    """Every row of the starting shelf, by kind."""
    return {
        "insert": inserts(),
        "groove_insert": groove_inserts(),
        "thread_insert": thread_inserts(),
        "holder": holders(),
        "drill": drills(),
        "blade": blades(),
    }
