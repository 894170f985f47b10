"""Stop Jaws as it is shown: its answers, tables, what to do at the machine, and its rail line."""

from __future__ import annotations

from calc.plan.document import Setup
from calc.plan.hold.figures import ColletHold, JawHold
from calc.plan.hold.solve import HOLD, JAW_HOLD
from calc.plan.jaws.collet import collet_stop
from calc.plan.jaws.hard import hard_stop
from calc.plan.jaws.ledger import CLOSED, STROKE, TEETH, ledger
from calc.plan.jaws.program import words_missing
from calc.plan.jaws.solve import JAWS, PIECES, JawsFigures
from calc.plan.stop import Answer, Link, Procedure, Row, Stop, Table, without_figures
from calc.plan.view import View
from calc.quantities import Bare, Figure, Sentence


def tables(view: View) -> tuple[Table, ...]:
    """Teeth and pieces compared, what the jaws close on and why not on others."""
    at, hold, figures = view.at, view[JAW_HOLD], view[JAWS]
    made: list[Table] = []
    if hold is None or figures is None or hold.blank.is_hard:
        return ()
    if hold.mount:
        made.append(
            Table(
                "teeth",
                "Teeth compared",
                ("tooth", "face Ø", "metal", "wrap", "T-nut in by"),
                tuple(
                    Row(
                        str(n.tooth),
                        (
                            Figure(2 * n.face_radius_mm, "mm"),
                            Figure(n.removed_mm, "mm"),
                            Figure(n.wrap_deg, "deg"),
                            Figure(n.tnut_to_body_mm, "mm", "down"),
                        ),
                        n.tooth == hold.mount.tooth,
                        f"{at}.jaws.tooth",
                        n.tooth,
                        None
                        if n.clean and n.tnut_to_body_mm >= 0
                        else Sentence(
                            "T-nut outside the body" if n.tnut_to_body_mm < 0 else "does not clean up to the corners"
                        ),
                    )
                    for n in hold.mount.neighbours
                ),
                TEETH,
            )
        )
    grip = hold.grip
    rows = []
    for label, size, contact in zip(
        PIECES, (grip.smallest_mm, grip.diameter_mm, grip.largest_mm), hold.contacts, strict=True
    ):
        where = (
            {"full": "all over", "centre": "at mid-jaw", "edges": "on the corners"}[contact.mode]
            if contact
            else "not at all"
        )
        gap = Figure(contact.gap_mm if contact else 0.0, "mm", places=(4, 5))
        rows.append(Row(label, (Figure(size, "mm", places=(3, 4)), Sentence(where), gap)))
    made.append(Table("contact", "How pieces touch", ("piece", "Ø", "touches", "gap"), tuple(rows), STROKE))
    if figures.backing and figures.backing.rejected:
        made.append(
            Table(
                "rejected",
                "Not closed on",
                ("what", "why not"),
                tuple(Row(r.name, (r.why,)) for r in figures.backing.rejected),
                CLOSED,
            )
        )
    return tuple(made)


def _procedures(hold: JawHold, figures: JawsFigures) -> tuple[Procedure, ...]:
    made = []
    if figures.keep is not None and figures.keep.verdict == "recut" and figures.keep.clamp_mm is not None:
        made.append(
            Procedure(
                "Re-cut this set",
                (
                    Sentence("Mount on the marks: jaw 1 on master jaw 1, in the scribed tooth."),
                    Sentence(
                        "Clamp so that the jaws stand at Ø{d}, {word} than the part.",
                        d=Figure(figures.keep.clamp_mm, "mm"),
                        word="slightly less" if hold.side == "od" else "slightly more",
                    ),
                    Sentence("Touch off with paper, type the reading at “Touch-off X”."),
                    Sentence(
                        "Cut {a} per side, skim the floor 0.2 mm, break the edges.",
                        a=Figure(figures.keep.removal_mm or 0, "mm", places=(3, 4)),
                    ),
                    Sentence("Write the new size on the set's page, and check runout."),
                ),
            )
        )
    elif figures.keep is not None and figures.keep.verdict == "refit":
        made.append(
            Procedure(
                "Refit this set",
                (
                    Sentence("Clean serrations; mount on the marks, jaw 1 on master jaw 1, in the scribed tooth."),
                    Sentence("Check runout on a turned piece before the first part."),
                ),
            )
        )
    elif figures.backing and figures.backing.steps:
        made.append(Procedure("Bore the jaws" if hold.side == "od" else "Turn the jaws", figures.backing.steps))
    if (figures.taper is not None and figures.taper.needed) or figures.taper is None:
        made.append(
            Procedure(
                "Taper: measure, then correct",
                (
                    Sentence(
                        "At full pressure on a slug or piece, try feelers at the jaw's tip; type the largest that "
                        "goes in."
                    ),
                    Sentence(
                        "{again} them with the taper: {more} at the floor than at the tip.",
                        again="Re-bore" if hold.side == "od" else "Turn",
                        more="larger" if hold.side == "od" else "smaller",
                    ),
                    Sentence(
                        "Blue the mouth thinly. Blue first at the part's base: too much taper; first at the tip: too "
                        "little."
                    ),
                    Sentence("Correct by 0.01 to 0.025 mm at a time until it is even."),
                ),
            )
        )
    return tuple(made)


def show(view: View) -> Stop:
    """The stop as it is shown."""
    held = view.outcome(HOLD)
    if isinstance(held.value, ColletHold):
        return collet_stop(held.value)
    setup, hold, outcome = view.setup, view[JAW_HOLD], view.outcome(JAWS)
    figures, facts = outcome.value, ledger(view)
    if figures is None or hold is None:
        return without_figures(outcome, facts)
    if hold.blank.is_hard:
        return hard_stop(view, hold, figures, outcome.state(figures.notes))
    pocket = hold.pocket
    bore = Figure(pocket.bore_diameter_mm, "mm", places=hold.places)
    depth = Figure(pocket.bore_depth_mm, "mm")
    outside = hold.side == "od"
    answers = (
        Answer(
            "bore_diameter",
            "Bore the jaws to" if outside else "Turn the jaws to",
            bore,
            "Ø ",
            steps=(pocket.step("D_b"),),
            below=Sentence("start at Ø {s}", s=Figure(pocket.start_diameter_mm, "mm", "down" if outside else "up")),
        ),
        Answer(
            "depth",
            "Deep, with groove",
            depth,
            below=Sentence(
                "groove {w} × {d}", w=Figure(pocket.groove_width_mm, "mm"), d=Figure(pocket.groove_depth_mm, "mm")
            ),
            steps=tuple(s for s in pocket.working if s.symbol in ("t", "t_min", "b_g", "t_g", "l_g")),
        ),
        _taper_answer(setup, figures),
    )
    tail = "two pockets" if hold.other else "floor groove"
    line = Sentence("Ø {d} × {t} deep, {tail}", d=Bare(bore), t=Bare(depth), tail=tail)
    if figures.keep is not None and figures.keep.verdict != "unfit":
        line = Sentence(
            "Ø {d} × {t}, {what}",
            d=Bare(bore),
            t=Bare(depth),
            what="refit" if figures.keep.verdict == "refit" else "re-cut",
        )
    return Stop(
        "",
        "",
        outcome.state(figures.notes),
        line,
        facts,
        answers,
        figures.notes,
        procedures=_procedures(hold, figures),
        links=_ways(view),
    )


def _ways(view: View) -> tuple[Link, ...]:
    machine = view.shelf.machine
    if machine is None or not words_missing(machine):
        return ()
    return (Link(f"Write what the control of {machine.name} reads", "machine", machine.key),)


def _taper_answer(setup: Setup, figures: JawsFigures) -> Answer:
    used, taper = figures.taper_mm, figures.taper
    below = (
        Sentence("{x} a side, estimated", x=Figure(taper.gap_mm, "mm", "up", (3, 4)))
        if taper
        else Sentence("measure with a feeler")
    )
    if setup.jaws.feeler_mm is not None:
        below = Sentence("from the feeler, {x} a side", x=Figure(setup.jaws.feeler_mm, "mm", places=(3, 4)))
    steps = taper.working if taper else ()
    if used is None:
        return Answer("taper", "Taper over the depth", None, words=Sentence("not known"), below=below, steps=steps)
    if used == 0:
        return Answer("taper", "Taper over the depth", None, words=Sentence("none"), below=below, steps=steps)
    return Answer("taper", "Taper over the depth", Figure(used, "mm", places=(3, 4)), below=below, steps=steps)
