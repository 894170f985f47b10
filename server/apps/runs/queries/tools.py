"""A planned cut of a run with its figures, and the tools that could do it."""

from __future__ import annotations

from calc.plan.cuts.solve import CUTS, CutFigures
from calc.plan.part.solve import PART, PartFigures
from calc.plan.paths import place_of
from calc.plan.solve import solve
from calc.quantities import System
from calc.tools.choose import every_tool
from calc.tools.rules.all_rules import BOOKS
from server.apps.runs.convert.document import document_of, shelf_of
from server.apps.runs.models import Run
from server.apps.runs.queries.find import run_by_id
from server.apps.runs.queries.plan import place_of_setup
from server.apps.runs.schemas import ToolOut, ToolsOut
from server.apps.shelf import queries as shelf
from server.foundation.problems import Conflict, NotFound

SHOWN = 60


def cut_of(run_id: int, setup: str, cut: str) -> tuple[Run, CutFigures, PartFigures]:
    """(run, figures, part) of a planned cut. Raises NotFound, or Conflict while it has no figures."""
    run = run_by_id(run_id)
    document = document_of(run)
    index = place_of_setup(document, setup)
    try:
        place = place_of(document.setups[index].cuts, cut)
    except KeyError as error:
        raise NotFound("There is no such operation in this plan.") from error
    figures = solve(document, shelf_of(run, shelf.current()), index)
    cuts, part = figures[CUTS], figures[PART]
    if cuts is None or part is None:
        raise Conflict("This operation has no figures yet: complete Cuts first.")
    return run, cuts.cuts[place], part


def tools_of(run_id: int, setup: str, cut: str, find: str, system: System) -> ToolsOut:
    """Every tool that the shelf could put to a cut, in order, the rejected with the rule that rejects each.

    Raises NotFound.
    """
    run, one, _ = cut_of(run_id, setup, cut)
    words = find.casefold().split()
    found = [
        r
        for r in every_tool(shelf.current().tools, BOOKS[one.planned.kind], one.job)
        if all(w in r.tool.name.casefold() for w in words)
    ]
    fit = sum(r.rejected is None for r in found)
    return ToolsOut(
        revision=run.revision,
        cut=one.name,
        path=f"setups.{setup}.cuts.{cut}.tool",
        fit=fit,
        rejected=len(found) - fit,
        tools=[
            ToolOut(
                key=r.tool.key,
                name=r.tool.name,
                score=round(r.score),
                chosen=r.tool.key == one.planned.tool,
                why=[s.text(system) for s in r.reasons],
                rejected=r.rejected.text(system) if r.rejected else "",
            )
            for r in found[:SHOWN]
        ],
    )
