"""The limit analysis beside the closed form, cut by cut: asked for separately."""

from __future__ import annotations

from calc.chuck.exact import grip_exact
from calc.errors import CalcError
from calc.plan.force.demand import DEMAND
from calc.plan.stop import Row, Table
from calc.plan.view import View
from calc.quantities import Figure, Sentence

WORDS = (
    "the least grip for which any sharing of forces along the jaws, each within its friction, holds the load in its "
    "worst direction. The closed form is what the plan counts with, times the safety."
)
HEAD = ("load", "closed form", "limit analysis", "of it", "worst at")


def exact_table(view: View) -> Table | None:
    """What every load truly needs, before safety; None while the demand is not known or cannot be solved."""
    demand = view[DEMAND]
    if demand is None:
        return None
    try:
        found = grip_exact(demand.asked)
    except CalcError:
        return None
    worst = max(range(len(found.cuts)), key=lambda i: found.cuts[i].needed_n)
    rows = tuple(
        Row(
            cut.name,
            (
                Figure(cut.closed_form_n, "N", "up"),
                Figure(cut.needed_n, "N", "up"),
                Figure(100 * cut.share, "%", "up"),
                Sentence("{a} from a jaw", a=Figure(cut.angle_deg, "deg", places=(0, 0))),
            ),
            chosen=place == worst,
        )
        for place, cut in enumerate(found.cuts)
    )
    return Table("limit-analysis", "What the loads need, before safety", HEAD, rows, words=WORDS)
