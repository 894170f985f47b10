"""The limit analysis beside the closed form, cut by cut: asked for separately."""

from __future__ import annotations

from calc.chuck.exact import grip_exact
from calc.errors import CalcError
from calc.plan.document import Document
from calc.plan.solve import solve
from calc.plan.stops import Row, Table
from calc.quantities import Figure, Sentence
from calc.shelf.taken import Shelf

HEAD = ("load", "closed form", "limit analysis", "of it", "worst at")


def exact_table(document: Document, shelf: Shelf, index: int) -> Table | None:
    """What every load truly needs, before safety; None while the demand is not known or cannot be solved."""
    demand = solve(document, shelf, index).demand.value
    if demand is None:
        return None
    try:
        found = grip_exact(demand.asked)
    except CalcError:
        return None
    rows = tuple(
        Row(
            cut.name,
            (
                Figure(cut.closed_form_n, "N", "up"),
                Figure(cut.needed_n, "N", "up"),
                Figure(100 * cut.share, "%", "up"),
                Sentence("{a} from a jaw", a=Figure(cut.angle_deg, "deg", places=(0, 0))),
            ),
            chosen=cut.name == found.governing_cut,
        )
        for cut in found.cuts
    )
    return Table("limit-analysis", "What the loads need, before safety", HEAD, rows)
