"""The views of a set-up's drawing: the part alone, the section, and what each stop needs to see besides them."""

from __future__ import annotations

from calc.plan.document import Document
from calc.plan.solve import Figures
from calc.programs.jaw_boring import Boring
from calc.scene.contact import contact_view
from calc.scene.front import front
from calc.scene.part import part_view
from calc.scene.section import section
from calc.scene.shapes import Scene
from calc.scene.travel import travel_view
from calc.scene.wall import wall_view
from calc.shelf.taken import SetupShelf


def scenes_of(
    document: Document, figures: Figures, index: int, shelf: SetupShelf, boring: Boring | None
) -> tuple[Scene, ...]:
    """Every view there are figures for; the section always."""
    part = figures.part.value
    made = [part_view(part, document)] if part is not None else []
    made.append(section(document, figures, index, shelf, boring))
    hold, jaws, force = figures.hold.value, figures.jaws.value, figures.force.value
    if hold is not None:
        made.append(front(hold))
    if hold is not None and jaws is not None:
        made += [contact_view(hold), travel_view(hold, jaws)]
    if hold is not None and force is not None and force.wall is not None:
        made.append(wall_view(hold, force.wall))
    return tuple(made)
