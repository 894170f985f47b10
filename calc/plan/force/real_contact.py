"""What boring the jaws over or under does to roundness: the real contact, asked for separately."""

from __future__ import annotations

from calc.errors import CalcError
from calc.plan.comparing import blanks_tried
from calc.plan.force.solve import FORCE
from calc.plan.hold.solve import JAW_HOLD
from calc.plan.jaws.solve import JAWS
from calc.plan.outcome import Figures
from calc.plan.stop import Row, Table
from calc.plan.view import View
from calc.quantities import Figure, Sentence
from calc.walls.contact import wall_contact

WORDS = (
    "the elastic wall in rigid jaws that push and never pull, on diameter from the piece’s nominal. Even pressure is "
    "what the plan counts with."
)
OFF_MM = (-0.10, -0.05, 0.0, 0.05, 0.10)  # on diameter, from the piece's nominal


def _cell(figures: Figures, off: float) -> Figure | Sentence:
    force, hold = figures[FORCE], figures[JAW_HOLD]
    if force is None or hold is None or force.wall is None:
        return Sentence("–")
    try:
        found = wall_contact(force.wall.contact_input(hold.pocket.bore_diameter_mm + off))
    except CalcError:
        return Sentence("–")
    return Figure(found.out_of_round_mm, "mm", "up", (4, 5))


def contact_table(view: View) -> Table | None:
    """Out-of-round for regular and pie jaws bored a little over and under; None where there is no thin wall.

    Of each kind of jaw the one in force, else the first of the shelf that has figures.
    """
    force = view[FORCE]
    if force is None or force.wall is None:
        return None
    by_kind: dict[str, Row] = {}
    for tried in view.once(blanks_tried):
        jaws = tried.figures[JAWS]
        if tried.blank.kind in by_kind or tried.blank.is_hard or jaws is None or jaws.thickness_mm <= 0:
            continue
        cells = (*(_cell(tried.figures, off) for off in OFF_MM), _even(tried.figures))
        by_kind[tried.blank.kind] = Row(tried.blank.name, cells, tried.chosen)
    head = ("jaws bored", *(_off(off) for off in OFF_MM), "even pressure")
    return Table(
        "real-contact",
        "The real contact: out of round when bored over or under",
        head,
        tuple(by_kind.values()),
        words=WORDS,
    )


def _even(figures: Figures) -> Figure | Sentence:
    force = figures[FORCE]
    return Figure(force.wall.lobing.out_of_round_mm, "mm", "up", (4, 5)) if force and force.wall else Sentence("–")


def _off(off: float) -> str:
    return "to size" if off == 0 else f"{off * 1000:+.0f} µm".replace("-", "−")
