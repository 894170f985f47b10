"""The core's calculators, as the API reaches them."""

from __future__ import annotations

from typing import Any

from calc.catalog import CALCULATORS, Calculator
from calc.describing import json_schema


def all_calculators() -> list[Calculator]:
    """Every calculator, in the catalogue's order."""
    return list(CALCULATORS.values())


def descriptions() -> list[dict[str, Any]]:
    """Names, fields, units and ranges."""
    return [c.describe() for c in CALCULATORS.values()]


def input_schema(calculator: Calculator) -> dict[str, Any]:
    """JSON Schema of a calculator's input, from its one declaration."""
    return json_schema(calculator.input)
