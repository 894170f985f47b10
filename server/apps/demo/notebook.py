"""Cuts that worked at Larkspur Hydro Works: what its notebook opens with."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

DUPLEX, BRONZE, C45, ALU, STAINLESS, QT = (
    ("duplex 1.4462", "M"), ("aluminium bronze CuAl10Ni5Fe4", "N"), ("carbon steel C45", "P"), ("aluminium 6082-T6", "N"), ("stainless 1.4301", "M"),
    ("alloy steel 42CrMo4 QT", "P"),
)  # fmt: skip
L3, L5, T2 = "Lathe 3", "Lathe 5", "Twin 2"

# (days ago, material, machine, kind, stage, diameter, insert or drill, speed, feed, depth, chip, Ra, remarks)
_CUTS: list[tuple[Any, ...]] = [
    (410, DUPLEX, L3, "turn", "rough", 122, "CNMG 120412", 105, 0.30, 2.0, "curls", None, "starts quietly after the first pass"),
    (398, DUPLEX, L3, "turn", "rough", 118, "CNMG 120408", 95, 0.25, 2.0, "ribbon", None, "0.25 is too little, take 0.30"),
    (398, DUPLEX, L3, "turn", "finish", 84, "CCMT 09T304", 130, 0.12, 0.5, "curls", 1.3, ""),
    (371, DUPLEX, L3, "turn", "finish", 84, "VBMT 160404", 125, 0.10, 0.4, "ribbon", 1.1, "needs the full 0.5 of depth"),
    (371, DUPLEX, L3, "bore", "finish", 52, "CCMT 09T304", 110, 0.12, 0.5, "curls", 1.4, "Ø25 bar, no chatter"),
    (371, DUPLEX, L3, "bore", "rough", 50, "CNMG 120408", 95, 0.22, 1.5, "curls", None, ""),
    (350, DUPLEX, L3, "drill", "both", 48, "drill Ø48, indexable", 60, 0.07, None, "curls", None, "full coolant or it sings"),
    (350, DUPLEX, L3, "face", "both", 122, "CCMT 09T308", 110, 0.20, 1.0, "curls", None, ""),
    (322, DUPLEX, L5, "turn", "rough", 160, "CNMG 120412", 110, 0.35, 2.5, "curls", None, "Lathe 5 carries it easily"),
    (322, DUPLEX, L5, "groove", "both", 120, "groove 3 wide", 70, 0.07, None, "curls", None, ""),
    (300, BRONZE, L5, "turn", "finish", 168, "CCGT 09T304", 240, 0.12, 0.5, "curls", 0.9, "thin ring, sharp edge only"),
    (300, BRONZE, L5, "turn", "rough", 172, "CCGT 09T308", 200, 0.22, 1.0, "curls", None, ""),
    (300, BRONZE, L5, "bore", "rough", 146, "CCGT 09T308", 190, 0.20, 1.2, "curls", None, ""),
    (299, BRONZE, L5, "bore", "finish", 148, "CCGT 09T304", 230, 0.10, 0.5, "curls", 1.0, "last pass at half the pressure"),
    (299, BRONZE, L5, "face", "both", 174, "CCGT 09T304", 220, 0.12, 0.8, "curls", None, ""),
    (270, C45, T2, "turn", "rough", 36, "WNMG 080408", 220, 0.28, 2.0, "curls", None, ""),
    (270, C45, T2, "turn", "rough", 36, "CNMG 120408", 210, 0.28, 2.0, "curls", None, ""),
    (270, C45, T2, "turn", "finish", 34, "CCMT 09T304", 250, 0.14, 0.5, "curls", 1.9, ""),
    (270, C45, T2, "thread", "both", 24, "60° full, pitch 1.5, outside", 120, 1.5, None, "", None, "six passes, one spring pass"),
    (268, C45, T2, "drill", "both", 13, "drill Ø13, carbide", 85, 0.16, None, "curls", None, "coolant through"),
    (268, C45, T2, "bore", "finish", 14, "CCMT 060202", 110, 0.05, 0.25, "curls", 1.2, "Ø8 carbide bar, 42 deep"),
    (268, C45, T2, "groove", "both", 24, "groove 3 wide", 110, 0.08, None, "curls", None, ""),
    (268, C45, T2, "part", "both", 36, "part-off 3 wide", 120, 0.09, None, "curls", None, "slow from Ø18: the bore breaks through"),
    (240, C45, L3, "turn", "rough", 80, "CNMG 120408", 230, 0.32, 3.0, "straw", None, ""),
    (240, C45, L3, "turn", "finish", 75, "DNMG 150604", 260, 0.15, 0.5, "curls", 1.7, ""),
    (240, C45, L3, "turn", "rough", 80, "CNMG 120412", 280, 0.40, 3.0, "blue", None, "too hot: an edge lasted 9 pieces"),
    (210, ALU, T2, "turn", "rough", 38, "CCGT 09T308", 600, 0.25, 2.0, "ribbon", None, "ribbons: 0.30 next time"),
    (210, ALU, T2, "turn", "rough", 38, "CCGT 09T304", 650, 0.20, 1.5, "curls", None, ""),
    (210, ALU, T2, "turn", "finish", 32, "CCGT 09T304", 800, 0.12, 0.5, "curls", 1.1, ""),
    (210, ALU, T2, "thread", "both", 19, "60° full, 16 per inch, outside", 260, 1.5875, None, "", None, "8 passes; check with the ring"),
    (210, ALU, T2, "part", "both", 38, "part-off 3 wide", 250, 0.12, None, "curls", None, ""),
    (180, ALU, L5, "face", "both", 150, "CCGT 09T304", 700, 0.15, 1.0, "curls", None, ""),
    (150, STAINLESS, L3, "turn", "rough", 60, "CNMG 120408", 160, 0.28, 2.0, "curls", None, ""),
    (150, STAINLESS, L3, "turn", "finish", 58, "CCMT 09T304", 190, 0.12, 0.5, "ribbon", 1.5, "peck or take 0.15"),
    (150, STAINLESS, L3, "drill", "both", 20, "drill Ø20, indexable", 110, 0.08, None, "curls", None, ""),
    (150, STAINLESS, L3, "bore", "finish", 24, "CCMT 09T304", 140, 0.10, 0.4, "curls", 1.3, "Ø16 carbide bar"),
    (120, STAINLESS, T2, "part", "both", 30, "part-off 3 wide", 90, 0.06, None, "ribbon", None, "narrower insert next time"),
    (95, QT, L5, "turn", "rough", 140, "CNMG 120412", 170, 0.38, 3.0, "straw", None, ""),
    (95, QT, L5, "turn", "finish", 134, "DNMG 150608", 210, 0.20, 0.6, "curls", 2.2, ""),
    (95, QT, L5, "bore", "rough", 90, "CNMG 120408", 150, 0.28, 2.0, "curls", None, "Ø40 bar"),
    (60, DUPLEX, L3, "turn", "rough", 122, "CNMG 120412", 110, 0.32, 2.0, "curls", None, "240 seal carriers, 11 pieces an edge"),
    (60, DUPLEX, L3, "turn", "finish", 84, "CCMT 09T304", 135, 0.13, 0.5, "curls", 1.2, "240 seal carriers"),
]  # fmt: skip


def cuts(today: date) -> list[dict[str, Any]]:
    """The notebook's cuts, the oldest first."""
    found = []
    for days, (material, group), machine, kind, stage, diameter, insert, speed, feed, depth, chip, ra, remarks in _CUTS:
        found.append({
            "kind": kind, "stage": stage, "material": material, "iso_group": group, "machine": machine, "diameter_mm": float(diameter), "insert": insert,
            "speed_m_min": float(speed), "feed_mm_rev": feed, "depth_mm": depth, "chip": chip, "finish_um": ra, "remarks": remarks,
            "coolant": "through" if kind == "drill" else "flood", "on": (today - timedelta(days=days)).isoformat(),
        })  # fmt: skip
    return found
