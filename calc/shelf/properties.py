"""Columns of tool files: property codes of ISO 13399 where the standard has one, the field's own name elsewhere.

The mapping is written out in docs/tool-columns.md.
"""

from __future__ import annotations

CODES: dict[str, dict[str, str]] = {
    "insert": {"depth_max": "APMX"},
    "groove_insert": {"width_mm": "CW", "corner_radius_mm": "RE", "edges": "CEDC", "rake_deg": "GAMO"},
    "thread_insert": {"pitch_min_mm": "TPN", "pitch_max_mm": "TPX", "edges": "CEDC"},
    "holder": {
        "shank_mm": "H",
        "approach_deg": "KAPR",
        "hand": "HAND",
        "reach_mm": "LPR",
        "min_bore_mm": "DMIN1",
        "coolant": "CSP",
    },
    "drill": {"diameter_mm": "DC", "reach_mm": "LU", "point_deg": "SIG", "coolant": "CSP"},
    "blade": {"reach_mm": "CDX", "shank_mm": "H", "coolant": "CSP"},
}


def column(kind: str, name: str) -> str:
    """The column a field is written in.

    >>> column("drill", "diameter_mm"), column("drill", "feed_min"), column("chuck", "jaws")
    ('DC', 'feed_min', 'jaws')
    """
    return CODES.get(kind, {}).get(name, name)


def field_of(kind: str, column_name: str) -> str:
    """The field that a column is; the name itself where it is no code of this kind.

    >>> field_of("drill", "DC"), field_of("drill", "diameter_mm")
    ('diameter_mm', 'diameter_mm')
    """
    back = {code: name for name, code in CODES.get(kind, {}).items()}
    return back.get(column_name, column_name)
