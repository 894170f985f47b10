"""./anvil plan RUN_OR_FILE [--set PATH=VALUE …] [--side N] [--export FILE]: a plan computed without server or database.

RUN_OR_FILE is a run of the demo by its drawing number, or a run file. In PATH an item of a list is its id, its number
counted from 0, or its name in quotes; VALUE is what a setter types, in the run's units. Prints JSON; bad input exits 2.
"""

from __future__ import annotations

import argparse
import json
import re
import sys
from dataclasses import replace
from pathlib import Path
from typing import Any
from uuid import UUID

from calc.describing import Json
from calc.errors import CalcError, FieldProblem
from calc.identity import Identities, ids_in
from calc.plan.compute import PlanResult, compute
from calc.plan.cuts.solve import CUTS
from calc.plan.document import Document
from calc.plan.edits import with_change
from calc.plan.entry import Entry, Known, value_of
from calc.plan.force.held import LoadHeld
from calc.plan.force.solve import FORCE
from calc.plan.hold.solve import HOLD, JAW_HOLD
from calc.plan.run_file import RunFile, read_run, write_run
from calc.quantities import Sentence, System
from calc.reading import read, write
from calc.rules import Rules

DIGITS = 9  # behind the point: what a float cannot say exactly is not told
PART = re.compile(r'"((?:[^"\\]|\\.)*)"|([^.]+)')


class _Parser(argparse.ArgumentParser):
    def error(self, message: str) -> Any:
        raise FieldProblem("arguments", Sentence("{m}. {u}", m=message, u=self.format_usage().strip()))


def _parser() -> _Parser:
    parser = _Parser(prog="anvil plan", description=__doc__, add_help=True)
    parser.add_argument("run", metavar="RUN_OR_FILE")
    parser.add_argument("--set", metavar="PATH=VALUE", action="append", default=[], dest="changes")
    parser.add_argument("--side", metavar="N", type=int, help="only this side, counted from 0")
    parser.add_argument("--export", metavar="FILE", help="write the run, with the changes, as a run file")
    return parser


def opened(name: str) -> RunFile:
    """The run that is asked for. Raises CalcError."""
    from server.apps.demo.values import demo_run

    path = Path(name)
    if path.is_file():
        try:
            return read_run(path.read_text(encoding="utf-8"))
        except (OSError, UnicodeDecodeError) as error:
            raise FieldProblem("file", Sentence("This file cannot be read: {e}.", e=str(error))) from error
    found = demo_run(name)
    if found is None:
        raise FieldProblem("run", Sentence("There is no file and no run of the demo called “{n}”.", n=name))
    return RunFile(found.name, found.drawing_number, found.document, found.shelf, found.units)


def _item(items: list[Any], said: str, quoted: bool, path: str) -> str:
    """The id of an item that is named by its id, its number or its quoted name. Raises FieldProblem."""
    if not quoted:
        if any(i["id"] == said for i in items):
            return said
        if said.isdigit() and int(said) < len(items):
            return str(items[int(said)]["id"])
    named = [i["id"] for i in items if quoted and i["name"] == said]
    if len(named) > 1:
        raise FieldProblem(path, Sentence("{n} items are called “{s}”: name one by its id.", n=str(len(named)), s=said))
    if not named:
        raise FieldProblem(path, Sentence("There is no item “{s}” here.", s=said))
    return str(named[0])


def resolved(document: Any, path: str) -> str:
    """A path as it is typed, as the plan's own path of ids. `document` is plain data. Raises FieldProblem."""
    here: Any = document
    found = []
    for match in PART.finditer(path):
        quoted, said = match[1] is not None, (match[1] if match[1] is not None else match[2])
        if isinstance(here, list):
            said = _item(here, said, quoted, path)
            here = next(i for i in here if i["id"] == said)
        elif isinstance(here, dict) and said in here and not quoted:
            here = here[said]
        else:
            raise FieldProblem(path, "There is no such fact in this plan.")
        found.append(said)
    return ".".join(found)


def changed(document: Document, change: str, system: System) -> Document:
    """The plan with one fact changed, typed as on the screen. Raises CalcError at the path."""
    path, equals, text = change.partition("=")
    if not equals:
        raise FieldProblem("--set", Sentence("Write PATH=VALUE, not “{c}”.", c=change))
    plain = write(document)
    where = resolved(plain, path.strip())
    value = _picked(text)
    entry = Entry(where, None if isinstance(value, bool) else text, value if isinstance(value, bool) else None, system)
    known = Known(plain, lambda *_: False, lambda: write(Rules()), Identities(UUID(int=0), ids_in(plain)))
    made: Document = read(Document, with_change(plain, where, value_of(entry, known)))
    return made


def _picked(text: str) -> str | bool:
    return {"true": True, "false": False, "yes": True, "no": False}.get(text.strip().casefold(), text)


def _figures(result: PlanResult, index: int) -> Json:
    """The figures of a side in core units, null while they are not known."""
    figures, setup = result.figures[index], result.views[index].setup
    hold, bored, force, cuts = figures[HOLD], figures[JAW_HOLD], figures[FORCE], figures[CUTS]
    told = {
        "pressure_bar": setup.force.pressure_bar,
        "clamp_rpm": setup.clamp_rpm,
        "bore_mm": bored.pocket.bore_diameter_mm if bored else None,
        "depth_mm": hold.deep_mm if hold else None,
        "minutes_in_cut": cuts.minutes if cuts else None,
        "kept_fraction": force.fastest.at_top.kept_fraction if force else None,
        "corner": force.weakest.held_corner if force else None,
    }
    cuts_told = [_load(load) for load in force.loads] if force else []
    return {"index": index} | {n: _rounded(v) for n, v in told.items()} | {"loads": cuts_told}


def _rounded(value: float | None) -> float | None:
    return None if value is None else round(value, DIGITS)


def _load(load: LoadHeld) -> Json:
    """One load at its own speed; of a cut with its id and the clamp that counts for it."""
    figures = {
        "clamp_rpm": load.cut.clamp_rpm if load.cut else None,
        "top_rpm": load.top_rpm,
        "cap_rpm": load.cap_rpm,
        "kept_fraction": load.at_top.kept_fraction,
        "held": load.held,
        "corner": load.held_corner,
    }
    return {"cut": load.cut.id if load.cut else None, "name": load.name} | {n: _rounded(v) for n, v in figures.items()}


def told(result: PlanResult, side: int | None) -> Json:
    """What is printed: the verdict, every stop in its line with its notes, the figures of each side."""
    return {
        "verdict": result.verdict,
        "stops": [
            {
                "key": s.key,
                "side": s.side,
                "state": s.state,
                "line": s.line.text("metric"),
                "notes": [{"level": n.level, "code": n.code, "text": n.sentence.text("metric")} for n in s.notes],
            }
            for s in result.stops
            if side is None or s.side in (None, side)
        ],
        "sides": [_figures(result, s.index) for s in result.sides if side is None or s.index == side],
    }


def run(arguments: list[str]) -> Json:
    """Do what is asked; gives what is to be printed. Raises CalcError."""
    asked = _parser().parse_args(arguments)
    found = opened(asked.run)
    system: System = "inch" if found.units == "inch" else "metric"
    document = found.document
    for change in asked.changes:
        document = changed(document, change, system)
    found = replace(found, document=document)
    if asked.side is not None and not 0 <= asked.side < len(document.setups):
        raise FieldProblem("--side", "There is no such side in this plan; the first is 0.")
    result = compute(document, found.shelf)
    if asked.export:
        try:
            Path(asked.export).write_text(write_run(found), encoding="utf-8")
        except OSError as error:
            raise FieldProblem("--export", Sentence("The file cannot be written: {e}.", e=str(error))) from error
    return told(result, asked.side)


def main(arguments: list[str]) -> int:
    """Run the command; gives the exit code."""
    try:
        answer = run(arguments)
    except CalcError as error:
        print(
            json.dumps({"errors": [{"field": e.field, "message": e.message} for e in error.errors]}, ensure_ascii=False)
        )
        return 2
    print(json.dumps(answer, ensure_ascii=False, indent=2, allow_nan=False))
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
