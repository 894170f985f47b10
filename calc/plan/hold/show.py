"""Stop Hold as it is shown: its facts, answers and line."""

from __future__ import annotations

from dataclasses import replace

from calc.fields import Choice
from calc.plan.cuts.clear import GRIPPED
from calc.plan.hold.inputs import FRICTION, SEAT
from calc.plan.hold.solve import HOLD
from calc.plan.part.solve import PART
from calc.plan.sides.solve import SIDES, STOCK_GRIPS
from calc.plan.stop import Amount, Answer, Bar, Entering, Fact, Stop, chosen, computed, without_figures
from calc.plan.view import View
from calc.quantities import Bare, Figure, Sentence
from calc.working import Note


def _grip_fact(view: View) -> Fact:
    setup, sides, figures = view.setup, view[SIDES], view[HOLD]
    grips = sides.grips(view.index) if sides else ()
    options = {"": "the best that is fit"} | {
        g.key: f"{'inside ' if g.side == 'id' else ''}{g.name}" for g in grips if g.fit or g.key == setup.hold.grip
    }
    if setup.hold.grip and setup.hold.grip not in options:
        options[setup.hold.grip] = "Stock, not there" if setup.hold.grip in STOCK_GRIPS else "not there any more"
    source = (
        Sentence(
            "Ø{d}; {why}",
            d=Figure(figures.grip.diameter_mm, "mm", exact=True, places=(2, 3)),
            why=figures.grip.reasons[0].sentence,
        )
        if figures
        else Sentence("what the jaws close on")
    )
    fact = Entering(view.at, setup)("grip", "hold.grip", source=source)
    return replace(fact, spec=Choice("Grips", options, "What the jaws close on"), options=options, optional=True)


def _facts(view: View) -> tuple[Fact, ...]:
    at, setup, figures = view.at, view.setup, view[HOLD]
    hold, blank, chuck, enter = setup.hold, view.taken.blank, view.taken.chuck, Entering(at, setup)
    blanks = {b.key: b.name for b in view.taken.blanks}
    facts = [_grip_fact(view)]
    if not view.shares_jaws:
        facts += [
            chosen(
                "chuck",
                f"{at}.chuck",
                chuck.key if chuck else None,
                view.names["chuck"],
                Sentence(
                    "{rpm}, {bar}, {grip}",
                    rpm=Figure(chuck.max_rpm, "rpm"),
                    bar=Figure(chuck.force.max_pressure_bar, "bar", "down"),
                    grip=Figure(chuck.force.max_grip_n, "N", "down"),
                )
                if chuck
                else Sentence("choose one"),
            ),
            chosen(
                "blank",
                f"{at}.jaw_blank",
                blank.key if blank else None,
                blanks,
                Sentence(
                    "{m}, {w} × {l}",
                    m=blank.metal,
                    w=Figure(blank.width_mm, "mm", exact=True, places=(2, 3))
                    if blank.width_mm is not None
                    else Figure(blank.angle_deg or 0, "deg"),
                    l=Figure(blank.length_mm, "mm", exact=True, places=(2, 3)),
                )
                if blank
                else Sentence("choose one"),
            ),
            enter(
                "jaw_height",
                "hold.jaw_height_mm",
                source=Sentence("the blank is {h}", h=Figure(blank.height_mm, "mm")) if blank else None,
            ),
        ]
    facts += [
        enter(
            "depth",
            "hold.depth_mm",
            source=Sentence("{got} here; a third rule", got=Figure(figures.pocket.bore_depth_mm, "mm"))
            if figures and hold.depth_mm is None
            else Sentence("a third of the part is the rule"),
        ),
        *_bar_facts(view, enter),
        *([] if figures is not None and figures.stick_out_mm is not None else [enter("seat", "hold.seat")]),
        enter("live_centre", "hold.live_centre"),
        *(
            [enter("centre_hole", "hold.centre_hole_mm"), enter("centre_thrust", "hold.centre_thrust_n")]
            if hold.live_centre
            else []
        ),
        enter(
            "surfaces",
            "hold.friction",
            source=Sentence("{pair}", pair=FRICTION.options[figures.surfaces]) if figures else None,
        ),
    ]
    if figures:
        facts += [
            computed(
                "friction",
                "Friction",
                Amount(figures.friction, "", "down", (3, 3)),
                "typical for the pair, × material",
                "typical",
            ),
            computed(
                "grip_length",
                "Touches over",
                Amount(figures.pocket.grip_length_mm, "mm", "down"),
                "on its shoulder: plain length less the edge"
                if view.setup.hold.seat == "face"
                else "depth less groove and edge",
            ),
            computed(
                "grip_height",
                "Grip height",
                Amount(figures.grip_height_mm, "mm", "up"),
                "middle of the grip above the guide",
            ),
        ]
    return tuple(facts)


def _bar_facts(view: View, enter: Entering) -> list[Fact]:
    """How far a bar stands out, and what of it is needed."""
    figures, part = view[HOLD], view[PART]
    if figures is None or part is None or figures.stick_out_mm is None:
        return []
    said = Sentence(
        "{got} here: part {l}, face stock {f}, the rest kerf and room",
        got=Figure(figures.stick_out_mm, "mm"),
        l=Bare(Figure(part.length_mm, "mm")),
        f=Bare(Figure(part.face_stock_mm, "mm")),
    )
    return [enter("stick_out", "hold.stick_out_mm", source=said)]


def show(view: View) -> Stop:
    """The stop as it is shown."""
    setup, outcome, facts = view.setup, view.outcome(HOLD), _facts(view)
    figures = outcome.value
    if figures is None:
        return without_figures(outcome, facts)
    pocket = figures.pocket
    third = pocket.step("t/L")
    answers = (
        Answer(
            "depth",
            "Grip deep",
            Figure(figures.held_mm, "mm"),
            below=Sentence("held; bored {t} deep, which clears the part's end", t=Figure(pocket.bore_depth_mm, "mm"))
            if setup.hold.seat == "face"
            else Sentence("{share} of the part's length", share=Figure(100 * third.value, "%", "down")),
            steps=tuple(s for s in pocket.working if s.symbol in ("t", "t/L", "l_g")),
            bar=Bar(min(1.0, third.value), 1 / 3, Sentence("a third is the rule")),
        ),
        Answer(
            "friction",
            "Friction",
            Figure(figures.friction, "", "down", places=(3, 3)),
            steps=figures.friction_steps,
            below=Sentence("typical, {pair}", pair=FRICTION.options[figures.surfaces]),
        ),
        Answer(
            "grip_height",
            "Grip acts at",
            Figure(figures.grip_height_mm, "mm", "up"),
            steps=figures.height_steps,
            below=Sentence(
                "above the guide; chuck rated at {h}", h=Figure(figures.chuck.force.reference_height_mm, "mm")
            ),
        ),
    )
    line = Sentence(
        "{side} Ø {d} · {m}{pie} jaws",
        side="outside" if figures.side == "od" else "inside",
        d=Figure(pocket.bore_diameter_mm, "mm", exact=True, places=(2, 3)),
        m=figures.blank.metal,
        pie=" pie" if figures.blank.kind == "pie" else "",
    )
    seat = Note("info", "seat", "Seated on {seat}.", seat=SEAT.options[setup.hold.seat])
    loose = setup.hold.seat == "none" or figures.stick_out_mm is not None
    notes = (*figures.notes, *(view[GRIPPED] or ()), *(() if loose else (seat,)))
    return Stop("", "", outcome.state(notes), line, facts, answers, notes)
