"""Stop Hold as it is shown: its facts, answers and line."""

from __future__ import annotations

from dataclasses import replace

from calc.fields import Choice
from calc.plan.document import FRICTION, SEAT, Setup
from calc.plan.hold import HoldFigures
from calc.plan.sides import SidesFigures
from calc.plan.stops import Answer, Bar, Fact, Outcome, Stop, chosen, computed, entered
from calc.quantities import Figure, Sentence
from calc.shelf.taken import SetupShelf
from calc.working import Note


def _grip_fact(at: str, setup: Setup, sides: SidesFigures | None, figures: HoldFigures | None, index: int) -> Fact:
    grips = sides.grips(index) if sides else ()
    options = {"": "the best that is fit"} | {
        g.key: f"{'inside ' if g.side == 'id' else ''}{g.name}" for g in grips if g.fit or g.key == setup.hold.grip
    }
    if setup.hold.grip and setup.hold.grip not in options:
        options[setup.hold.grip] = f"{setup.hold.grip.partition(':')[2] or 'Stock'}, not there"
    source = (
        Sentence(
            "Ø{d}; {why}",
            d=Figure(figures.grip.diameter_mm, "mm", exact=True, places=(2, 3)),
            why=figures.grip.reasons[0].sentence,
        )
        if figures
        else Sentence("what the jaws close on")
    )
    fact = entered("grip", f"{at}.hold.grip", setup.hold.grip, source=source)
    return replace(fact, spec=Choice("Grips", options, "What the jaws close on"), options=options, optional=True)


def _facts(
    at: str,
    setup: Setup,
    shelf: SetupShelf,
    figures: HoldFigures | None,
    chucks: dict[str, str],
    sides: SidesFigures | None,
    index: int,
    shared: bool,
) -> tuple[Fact, ...]:
    hold, blank, chuck = setup.hold, shelf.blank, shelf.chuck
    blanks = {b.key: b.name for b in shelf.blanks}
    facts = [_grip_fact(at, setup, sides, figures, index)]
    if not shared:
        facts += [
            chosen(
                "chuck",
                "Chuck",
                f"{at}.chuck",
                chuck.key if chuck else None,
                chucks,
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
                "Jaw blank",
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
            entered(
                "jaw_height",
                f"{at}.hold.jaw_height_mm",
                hold.jaw_height_mm,
                source=Sentence("the blank is {h}", h=Figure(blank.height_mm, "mm")) if blank else None,
            ),
        ]
    facts += [
        entered(
            "depth",
            f"{at}.hold.depth_mm",
            hold.depth_mm,
            source=Sentence("{got} here; a third rule", got=Figure(figures.pocket.bore_depth_mm, "mm"))
            if figures and hold.depth_mm is None
            else Sentence("a third of the part is the rule"),
        ),
        entered("seat", f"{at}.hold.seat", hold.seat),
        entered("live_centre", f"{at}.hold.live_centre", hold.live_centre),
        entered(
            "surfaces",
            f"{at}.hold.friction",
            hold.friction,
            source=Sentence("{pair}", pair=FRICTION.options[figures.surfaces]) if figures else None,
        ),
    ]
    if figures:
        facts += [
            computed(
                "friction",
                "Friction",
                figures.friction,
                "",
                "typical for the pair, × material",
                "typical",
                rounding="down",
                places=(3, 3),
            ),
            computed(
                "grip_length",
                "Touches over",
                figures.pocket.grip_length_mm,
                "mm",
                "depth less groove and edge",
                rounding="down",
            ),
            computed(
                "grip_height",
                "Grip height",
                figures.grip_height_mm,
                "mm",
                "middle of the grip above the guide",
                rounding="up",
            ),
        ]
    return tuple(facts)


def hold_stop(
    at: str,
    setup: Setup,
    shelf: SetupShelf,
    outcome: Outcome[HoldFigures],
    chucks: dict[str, str],
    sides: SidesFigures | None,
    index: int,
    shared: bool,
) -> Stop:
    """The stop as it is shown; `shared`: chuck and jaws are the first side's."""
    figures = outcome.value
    facts = _facts(at, setup, shelf, figures, chucks, sides, index, shared)
    if figures is None:
        return Stop("hold", "Hold", outcome.state(()), outcome.line, facts, problems=outcome.problems)
    pocket = figures.pocket
    third = pocket.step("t/L")
    answers = (
        Answer(
            "depth",
            "Grip deep",
            Figure(figures.held_mm, "mm"),
            below=Sentence("{share} of the part's length", share=Figure(100 * third.value, "%", "down")),
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
    notes = figures.notes if setup.hold.seat == "none" else (*figures.notes, seat)
    return Stop("hold", "Hold", outcome.state(notes), line, facts, answers, notes)
