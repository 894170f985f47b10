"""A run as a file."""

from __future__ import annotations

from django.utils.text import get_valid_filename

from calc.plan.run_file import RunFile, write_run
from server.apps.runs.convert.document import document_of, shelf_of
from server.apps.runs.models import Run
from server.apps.shelf import queries as shelf


def saved(run: Run) -> tuple[str, str]:
    """The file's name and its text. Raises CalcError where the plan contradicts itself."""
    file = RunFile(run.name, run.drawing_number, document_of(run), shelf_of(run, shelf.current()), run.units)
    return f"{get_valid_filename(run.drawing_number) or 'run'}.json", write_run(file)
