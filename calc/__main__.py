"""Command line of the core: `anvil calc NAME < input.json`, result as JSON on standard output.

Exit 0 with the result, 2 with {"errors": [{"field", "message"}]}. Without NAME the calculators are
listed; with NAME and --fields its input fields are. `--units inch` prints its answers in inch units.
"""

from __future__ import annotations

import io
import json
import sys
from dataclasses import asdict
from typing import Any

from calc.catalog import CALCULATORS
from calc.describing import Json
from calc.errors import CalcError
from calc.quantities import System


def _say(answer: Any) -> None:
    print(json.dumps(answer, ensure_ascii=False, indent=2, allow_nan=False))


def _short(row: Json) -> Json:
    """A field without what it has not."""
    inner = {"fields": [_short(f) for f in row["fields"]]} if row["fields"] else {}
    return {name: value for name, value in row.items() if value is not None} | inner


def _refuse(field: str, message: str) -> int:
    _say({"errors": [{"field": field, "message": message}]})
    return 2


def _units(flags: list[str]) -> System | None:
    match flags:
        case [] | ["--units", "metric"]:
            return "metric"
        case ["--units", "inch"]:
            return "inch"
    return None


def main(arguments: list[str]) -> int:
    """Run the command; gives the exit code."""
    if isinstance(sys.stdout, io.TextIOWrapper):
        sys.stdout.reconfigure(encoding="utf-8", errors="backslashreplace")  # whatever was typed can be quoted back
    if not arguments:
        _say({"calculators": [{"name": c.name, "summary": c.summary} for c in CALCULATORS.values()]})
        return 0
    name, *flags = arguments
    calculator = CALCULATORS.get(name)
    if calculator is None:
        return _refuse("name", f"There is no calculator “{name}”; there are {', '.join(CALCULATORS)}.")
    if flags == ["--fields"]:
        _say({"name": name, "summary": calculator.summary, "fields": [_short(asdict(f)) for f in calculator.fields]})
        return 0
    system = _units(flags)
    if system is None:
        return _refuse("", f"There is no “{' '.join(flags)}”; there are --fields, --units metric and --units inch.")
    try:
        data = json.load(sys.stdin)
    except (json.JSONDecodeError, UnicodeDecodeError) as error:
        return _refuse("", f"The input is not JSON: {error}.")
    try:
        _say(calculator.answer(data, system))
    except CalcError as error:
        _say({"errors": [{"field": e.field, "message": e.message} for e in error.errors]})
        return 2
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
