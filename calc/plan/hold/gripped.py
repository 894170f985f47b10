"""What is gripped, how far it stands out, and with which friction: the same for jaws and collets."""

from __future__ import annotations

from calc.cuts.part_off import width_for
from calc.errors import FieldProblem
from calc.plan.document import Document, Setup, setup_path
from calc.plan.hold.inputs import PAIRS
from calc.plan.outcome import Asked, Missing
from calc.plan.part.solve import PART, PartFigures
from calc.plan.sides.solve import STOCK_GRIPS, SidesFigures, is_bar_work
from calc.profile.body import End
from calc.profile.grips import Grip
from calc.quantities import Sentence
from calc.tools.kinds.groove_insert import GrooveInsert
from calc.working import Step, Working, typical

BEHIND_MM = 3.0  # typical: from the kerf to the jaws
WIDEST_KERF_MM = 4.0


def grip_of(document: Document, sides: SidesFigures, index: int) -> Grip:
    """What a set-up grips: as decided, else the best that is fit. Raises Missing or CalcError."""
    path, grips = f"{setup_path(document, index)}.hold.grip", sides.grips(index)
    key = document.setups[index].hold.grip
    if key:
        found = next((g for g in grips if g.key == key), None)
        if found is None:
            words = "There is no such place on the part any more: choose what is gripped."
            if key in STOCK_GRIPS:
                raise Missing(("part.stock.diameter_mm", "Stock diameter"))
            raise FieldProblem(path, words)
    else:
        found = next((g for g in grips if g.fit), None)
        if found is None and index == 0 and document.part.stock.diameter_mm is None:
            raise Missing(("part.stock.diameter_mm", "Stock diameter"))
    if found is None:
        raise FieldProblem(
            path, "Nothing on this end is fit to be gripped: see why at Sides, and choose the other end first."
        )
    if not found.fit:
        raise FieldProblem(
            path, Sentence("{g} cannot be gripped from this end: {why}.", g=found.name, why=found.why_not or "")
        )
    return found


def centre_hole(setup: Setup, part: PartFigures, held: End) -> float:
    """Diameter [mm] at the face of what a live centre stands in: the hole drilled for it, else the part's bore; 0
    without a centre.
    """
    if not setup.hold.live_centre:
        return 0.0
    if setup.hold.centre_hole_mm is not None:
        return setup.hold.centre_hole_mm
    return part.body.bore_at(part.length_mm if held == "a" else 0.0)


def kerf_of(asked: Asked, part: PartFigures) -> float:
    """How wide the blade is that parts the piece off a bar [mm]."""
    kerf = width_for(part.stock.diameter_mm or 0.0) or WIDEST_KERF_MM
    for cut in asked.setup.cuts:
        if cut.kind == "part":
            tool = asked.shelf.tools.tool(cut.tool) if cut.tool else None
            width = tool.edge.width_mm if tool is not None and isinstance(tool.edge, GrooveInsert) else cut.width_mm
            kerf = width or kerf
    return kerf


def stick_out(asked: Asked) -> float | None:
    """How far a bar stands out of what holds it [mm]: as entered, else part, stock on its faces, kerf and a little;
    None for what is no bar.
    """
    if not is_bar_work(asked.document, asked.index):
        return None
    entered, part = asked.setup.hold.stick_out_mm, asked.need(PART)
    if entered is not None:
        return entered
    return part.length_mm + part.face_stock_mm + left_behind(asked) + kerf_of(asked, part) + BEHIND_MM


def left_behind(asked: Asked) -> float:
    """Stock [mm] that stays on a parted piece for a second side to face."""
    return asked.need(PART).face_stock_mm if len(asked.document.setups) > 1 else 0.0


def raw_behind(asked: Asked, grip: Grip) -> float:
    """Stock on the face that is held [mm], which is taken off on the next side."""
    raw = asked.index == 0 and not grip.finished and stick_out(asked) is None
    return asked.need(PART).face_stock_mm if raw else 0.0


def rubs(asked: Asked, pair: str) -> tuple[float, tuple[Step, ...]]:
    """(friction of a pair of surfaces, how it came about)."""
    w = Working()
    friction = w.step(
        "μ",
        "Friction of the pair",
        "μ_0 * k_m",
        "",
        typical(PAIRS[pair]),
        μ_0=getattr(asked.rules, f"friction_{pair}"),
        k_m=asked.need(PART).material.friction_multiplier,
    )
    return friction, tuple(w.steps)
