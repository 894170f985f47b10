"""The runs of the demo. Their operations and tools are proposed and settled by the core when the demo is loaded."""

from __future__ import annotations

from typing import Any

Plain = dict[str, Any]  # as it is kept
INCH = 25.4

SEAL_CARRIER: Plain = {
    "version": 3,
    "part": {
        "quantity": 240,
        "edge_mm": 0.3,
        "face_stock_mm": 2.0,
        "profile": {
            "outside": [
                {
                    "name": "Spigot",
                    "diameter_mm": 84.0,
                    "length_mm": 40.0,
                    "fit": "h7",
                    "ra_um": 1.6,
                    "corner_mm": 0.8,
                    "chamfer_mm": 0.5,
                },
                {"name": "Flange", "diameter_mm": 118.0, "length_mm": 14.0, "chamfer_mm": 0.5},
            ],
            "inside": [{"name": "Bore", "diameter_mm": 52.0, "fit": "H7", "ra_um": 1.6, "chamfer_mm": 0.5}],
        },
        "stock": {"form": "slug", "surface": "rough", "diameter_mm": 122.0, "smallest_mm": 121.4, "largest_mm": 123.2},
    },
    "sides": {"first_end": "a", "two_step": True},
    "setups": [
        {
            "name": "Side 1, spigot end",
            "hold": {"grip": "stock", "depth_mm": 14.0},
            "jaws": {"program": 2041, "spindle": "M03"},
            "force": {"pressure_bar": 24.0, "condition": "auto"},
            "clamp_rpm": 900.0,
        },
        {
            "name": "Side 2, flange end",
            "hold": {"grip": "outside:o1", "depth_mm": 22.0},
            "jaws": {"program": 2042, "spindle": "M03"},
            "force": {"pressure_bar": 24.0, "condition": "auto"},
            "clamp_rpm": 600.0,
        },
    ],
}

WEAR_RING: Plain = {
    "version": 3,
    "part": {
        "quantity": 90,
        "edge_mm": 0.5,
        "face_stock_mm": 1.5,
        "profile": {
            "outside": [{"name": "Rim", "diameter_mm": 168.0, "length_mm": 32.0, "fit": "h8", "ra_um": 1.6}],
            "inside": [{"name": "Bore", "diameter_mm": 148.0, "fit": "H7", "ra_um": 1.6}],
        },
        "stock": {
            "form": "casting",
            "surface": "rough",
            "diameter_mm": 174.0,
            "smallest_mm": 173.0,
            "largest_mm": 175.5,
            "bore_mm": 140.0,
        },
    },
    "sides": {"first_end": "a"},
    "setups": [
        {
            "name": "Side 1, bored",
            "hold": {"grip": "stock", "depth_mm": 11.0},
            "jaws": {"program": 2106, "recess_mm": 4.0},
            "force": {"pressure_bar": 8.0, "condition": "today"},
            "clamp_rpm": 600.0,
        },
        {
            "name": "Side 2, outside",
            "hold": {"grip": "inside:i1", "depth_mm": 12.0},
            "jaws": {"program": 2107},
            "force": {"pressure_bar": 5.0, "condition": "today"},
            "clamp_rpm": 500.0,
        },
    ],
}

GUIDE_BUSH: Plain = {
    "version": 3,
    "part": {
        "quantity": 1800,
        "edge_mm": 0.3,
        "face_stock_mm": 0.5,
        "profile": {
            "outside": [
                {
                    "name": "Thread",
                    "diameter_mm": 24.0,
                    "length_mm": 16.0,
                    "thread": "M24x1.5-6g",
                    "thread_length_mm": 14.0,
                    "chamfer_mm": 1.0,
                },
                {"name": "Relief", "diameter_mm": 21.6, "length_mm": 3.0, "groove": True},
                {
                    "name": "Collar",
                    "diameter_mm": 34.0,
                    "length_mm": 23.0,
                    "fit": "h9",
                    "ra_um": 3.2,
                    "chamfer_mm": 0.5,
                },
            ],
            "inside": [{"name": "Bore", "diameter_mm": 14.0, "fit": "H7", "ra_um": 1.6, "chamfer_mm": 0.5}],
        },
        "stock": {
            "form": "bar",
            "surface": "drawn",
            "diameter_mm": 36.0,
            "smallest_mm": 35.9,
            "largest_mm": 36.0,
            "length_mm": 3000.0,
        },
    },
    "sides": {"first_end": "a"},
    "setups": [
        {
            "name": "Bar, thread end out",
            "hold": {"grip": "stock", "seat": "none"},
            "force": {"pressure_bar": 20.0, "condition": "today"},
            "clamp_rpm": 4500.0,
        },
        {
            "name": "Second spindle, collar end out",
            "hold": {"grip": "outside:o3", "depth_mm": 35.0, "seat": "floor"},
            "force": {"pressure_bar": 16.0, "condition": "today"},
            "clamp_rpm": 4500.0,
        },
    ],
}

SIGHT_GLASS_PLUG: Plain = {
    "version": 3,
    "part": {
        "quantity": 800,
        "edge_mm": 0.2,
        "face_stock_mm": 0.5,
        "profile": {
            "outside": [
                {"name": "Thread", "diameter_mm": 20.0, "length_mm": 9.0, "thread": "M20x1.5-6g", "chamfer_mm": 1.0},
                {"name": "Relief", "diameter_mm": 17.7, "length_mm": 3.0, "groove": True},
                {"name": "Collar", "diameter_mm": 22.0, "length_mm": 8.0, "fit": "f7", "ra_um": 1.6, "chamfer_mm": 0.3},
                {"name": "Hexagon", "diameter_mm": 24.0, "length_mm": 14.0, "left": "hexagon"},
            ],
            "inside": [{"name": "Bore", "diameter_mm": 10.0, "fit": "H8", "ra_um": 1.6, "chamfer_mm": 0.3}],
        },
        "stock": {
            "form": "bar",
            "section": "hexagon",
            "surface": "drawn",
            "diameter_mm": 24.0,
            "smallest_mm": 23.87,
            "largest_mm": 24.0,
            "length_mm": 3000.0,
        },
    },
    "sides": {"first_end": "a"},
    "setups": [
        {
            "name": "Bar, thread end out",
            "hold": {"grip": "stock", "seat": "none"},
            "force": {"pressure_bar": 16.0, "condition": "today"},
            "clamp_rpm": 4500.0,
        },
        {
            "name": "Second spindle, hexagon end out",
            "hold": {"grip": "outside:o3", "seat": "floor"},
            "force": {"pressure_bar": 10.0, "condition": "today"},
            "clamp_rpm": 4500.0,
        },
    ],
}

VENT_PLUG: Plain = {
    "version": 3,
    "part": {
        "quantity": 600,
        "edge_mm": 0.01 * INCH,
        "face_stock_mm": 0.0,
        "profile": {
            "outside": [
                {
                    "name": "Bar",
                    "diameter_mm": 1.5 * INCH,
                    "length_mm": 0.875 * INCH,
                    "upper_mm": 0.0,
                    "lower_mm": -0.003 * INCH,
                },
                {"name": "Body", "diameter_mm": 1.25 * INCH, "length_mm": 0.375 * INCH},
                {"name": "Relief", "diameter_mm": 0.66 * INCH, "length_mm": 0.125 * INCH, "groove": True},
                {
                    "name": "Thread",
                    "diameter_mm": 0.75 * INCH,
                    "length_mm": 0.5 * INCH,
                    "thread": "3/4-16 UNF-2A",
                    "thread_length_mm": 0.4375 * INCH,
                    "chamfer_mm": 0.04 * INCH,
                },
            ]
        },
        "stock": {"form": "bar", "surface": "drawn", "diameter_mm": 1.5 * INCH},
    },
    "sides": {"first_end": "b"},
    "setups": [
        {
            "name": "Thread end",
            "hold": {"grip": "outside:o1", "depth_mm": 0.625 * INCH, "friction": "ground"},
            "jaws": {"floor_min_mm": 6.0, "tool_clearance_mm": 1.0},
            "force": {"pressure_bar": 18.0, "condition": "today"},
            "clamp_rpm": 3000.0,
        }
    ],
}

BEARING_CAP: Plain = {
    "version": 3,
    "part": {
        "quantity": 120,
        "edge_mm": 0.3,
        "face_stock_mm": 1.5,
        "profile": {
            "outside": [
                {
                    "name": "Spigot",
                    "diameter_mm": 80.0,
                    "length_mm": 36.0,
                    "fit": "h7",
                    "ra_um": 1.6,
                    "chamfer_mm": 0.5,
                },
                {"name": "Rim", "diameter_mm": 112.0, "length_mm": 14.0, "chamfer_mm": 1.0},
            ],
            "inside": [{"name": "Bore", "diameter_mm": 50.0, "fit": "H7", "ra_um": 1.6, "chamfer_mm": 0.5}],
        },
        "stock": {"form": "slug", "surface": "rough", "diameter_mm": 116.0, "smallest_mm": 115.5, "largest_mm": 117.0},
    },
    "sides": {"first_end": "a", "two_step": True},
    "setups": [
        {
            "name": "Side 1, spigot end",
            "hold": {"grip": "stock", "depth_mm": 12.0},
            "jaws": {"program": 2188, "spindle": "M03"},
            "force": {"pressure_bar": 24.0, "condition": "auto"},
            "clamp_rpm": 1400.0,
        },
        {
            "name": "Side 2, rim end",
            "hold": {"grip": "outside:o1", "depth_mm": 20.0},
            "jaws": {"program": 2189, "spindle": "M03"},
            "force": {"pressure_bar": 24.0, "condition": "auto"},
            "clamp_rpm": 1000.0,
        },
    ],
}

# When each set-up begins: so many days after the demo is begun, with the first shift; at a week-end, the Monday after.
BEGINS_IN_DAYS = {"LH-2041": 0, "LH-2188": 7, "LH-2107": 1, "LH-1980": 0, "LH-2266": 7, "LH-2215": 11}
CALENDAR = {
    "zone": "Europe/Berlin",
    "shifts": "Mon-Fri 06:00-14:00, 14:00-22:00",
    "breaks": "Mon-Fri 09:30-09:45, 12:00-12:30, 18:00-18:30",
    "unattended": "Mon-Thu 22:00-01:00",
    "off": "",
}

RUNS: list[Plain] = [
    {
        "drawing_number": "LH-2041",
        "name": "Seal carrier",
        "machine": "lathe-3",
        "material": "1-4462",
        "units": "metric",
        "document": SEAL_CARRIER,
        "typed": {},
        "setups": [{"chuck": "lathe-3-chuck", "jaw_blank": "l3-steel-64"}] * 2,
    },
    {
        "drawing_number": "LH-2107",
        "name": "Wear ring",
        "machine": "lathe-5",
        "material": "cual10ni5fe4",
        "units": "metric",
        "document": WEAR_RING,
        "typed": {},
        "setups": [
            {"chuck": "lathe-5-chuck", "jaw_blank": "l5-pie-outside"},
            {"chuck": "lathe-5-chuck", "jaw_blank": "l5-pie"},
        ],
    },
    {
        "drawing_number": "LH-1980",
        "name": "Guide bush",
        "machine": "twin-2",
        "material": "c45",
        "units": "metric",
        "document": GUIDE_BUSH,
        "typed": {},
        "setups": [
            {"chuck": "twin-2-collet", "collet": "collet-36"},
            {"chuck": "twin-2-second", "collet": "second-34"},
        ],
    },
    {
        "drawing_number": "LH-2266",
        "name": "Sight-glass plug",
        "machine": "twin-2",
        "material": "cuzn39pb3",
        "units": "metric",
        "document": SIGHT_GLASS_PLUG,
        "typed": {},
        "setups": [
            {"chuck": "twin-2-collet", "collet": "collet-24-hexagon"},
            {"chuck": "twin-2-second", "collet": "second-22"},
        ],
    },
    {
        "drawing_number": "LH-2215",
        "name": "Vent plug",
        "machine": "twin-2",
        "material": "6082-t6",
        "units": "inch",
        "document": VENT_PLUG,
        "setups": [{"chuck": "twin-2-chuck", "jaw_blank": "t2-steel-38", "jaw_set": "set-21"}],
        "typed": {"part.profile.outside.o1.diameter_mm": "1 1/2 in"},
    },
    {
        "drawing_number": "LH-2188",
        "name": "Bearing cap",
        "machine": "lathe-3",
        "material": "c45",
        "units": "metric",
        "document": BEARING_CAP,
        "typed": {},
        "setups": [{"chuck": "lathe-3-chuck", "jaw_blank": "l3-steel-64"}] * 2,
    },
]
