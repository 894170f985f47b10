"""A sound plan that practice begins from: a seal carrier, settled on both sides, of the made-up shop."""

from __future__ import annotations

from functools import cache
from pathlib import Path

from calc.plan.run_file import RunFile, read_run

FILE = Path(__file__).parent.parent / "data" / "practice_run.json"


@cache
def sound_run() -> RunFile:
    """The run with all that it takes from the shelf."""
    return read_run(FILE.read_text(encoding="utf-8"))
