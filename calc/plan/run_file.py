"""A run as a file: its plan and everything that rests on, in JSON, to be kept, sent, read in and computed again.

The form is described in docs/run-file.md. Every later version reads it.
"""

from __future__ import annotations

import json
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated

from calc.errors import CalcError, FieldError, FieldProblem
from calc.fields import Checked, Choice, Group, Text
from calc.plan.document import Document
from calc.quantities import Sentence
from calc.reading import read, write
from calc.shelf.taken import Shelf

FORMAT = "noble-anvil-run"
LARGEST = 20_000_000  # characters


@dataclass(frozen=True)
class RunFile(Checked):
    """What a run file holds: name, number and units of the run, its plan, and what that takes from the shelf."""

    name: Annotated[str, Text("Name", "What the shop calls it", most=80)]
    drawing_number: Annotated[str, Text("Drawing number", "As on the print", most=40)]
    document: Annotated[Document, Group("Plan", "Everything that was entered")]
    shelf: Annotated[Shelf, Group("Shelf", "Everything that the plan takes")]
    units: Annotated[str, Choice("Units", {"metric": "metric", "inch": "inch"})] = "metric"
    format: Annotated[str, Text("Format", "What tells such a file", most=40)] = FORMAT

    def contradictions(self) -> Iterator[FieldError]:
        if self.format != FORMAT:
            yield FieldError("format", Sentence("This is no run of Noble Anvil: its format is not “{f}”.", f=FORMAT))
        if len(self.shelf.setups) != len(self.document.setups):
            yield FieldError(
                "shelf.setups", Sentence("Give what every set-up takes from the shelf: one entry for each.")
            )


def write_run(run: RunFile) -> str:
    """The file's text."""
    plain = write(run)
    return json.dumps({"format": plain.pop("format"), **plain}, ensure_ascii=False, indent=1, allow_nan=False) + "\n"


def read_run(text: str) -> RunFile:
    """A run from a file's text. Raises CalcError with a sentence at every field that is not right."""
    if len(text) > LARGEST:
        raise FieldProblem("file", "This file is too large for a run.")
    try:
        plain = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise FieldProblem("file", Sentence("This is not a JSON file: {e}.", e=str(error)[:120])) from error
    if not isinstance(plain, dict) or plain.get("format") != FORMAT:
        raise FieldProblem("format", Sentence("This is no run of Noble Anvil: its format is not “{f}”.", f=FORMAT))
    try:
        return read(RunFile, plain)  # type: ignore[no-any-return]
    except CalcError as error:
        raise CalcError(error.errors) from error
