"""The starting table of work materials."""

from __future__ import annotations

import csv
from pathlib import Path

WORDS = ("key", "name", "iso_group")


def starting_materials() -> list[dict[str, str | float]]:
    """Every material of the table, as plain rows; figures are typical."""
    with (Path(__file__).parent / "materials.csv").open(encoding="utf-8") as file:
        rows = csv.DictReader(line for line in file if not line.startswith("#"))
        return [{k: v if k in WORDS else float(v) for k, v in row.items()} for row in rows]
