"""Stop Hold as it is shown: its facts, answers and line."""

from __future__ import annotations

from dataclasses import replace

from calc.fields import Choice
from calc.plan.cuts.clear import GRIPPED
from calc.plan.hold.bar import bar_figures
from calc.plan.hold.figures import ColletHold, HoldFigures, JawHold
from calc.plan.hold.inputs import IN_COLLET, PAIRS, SEAT, SURFACES
from calc.plan.hold.solve import HOLD
from calc.plan.part.solve import PART
from calc.plan.sides.solve import SIDES, STOCK_GRIPS
from calc.plan.stop import Amount, Answer, Bar, Entering, Fact, Stop, chosen, computed, without_figures
from calc.plan.view import View
from calc.quantities import Bare, Figure, Sentence
from calc.shelf.collet import FORMS
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
    hold, chuck, enter = setup.hold, view.taken.chuck, Entering(at, setup)
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
            *_closing_facts(view, enter),
        ]
    facts += [
        *_depth_facts(view, enter),
        *_bar_facts(view, enter),
        *([] if figures is not None and figures.stick_out_mm is not None else [_seat_fact(view, enter)]),
        enter("live_centre", "hold.live_centre"),
        *(
            [enter("centre_hole", "hold.centre_hole_mm"), enter("centre_thrust", "hold.centre_thrust_n")]
            if hold.live_centre
            else []
        ),
        *_friction_facts(view, enter),
    ]
    return tuple(facts)


def _closing_facts(view: View, enter: Entering) -> list[Fact]:
    """What closes on the part: a collet, or top jaws at their height."""
    at, blank, chuck, collet = view.at, view.taken.blank, view.taken.chuck, view.taken.collet
    if chuck is not None and chuck.is_collet:
        collets = {c.key: c.name for c in view.taken.collets}
        words = collet.words if collet else Sentence("choose one")
        return [chosen("collet", f"{at}.collet", collet.key if collet else None, collets, words)]
    blanks = {b.key: b.name for b in view.taken.blanks}
    across = Sentence("choose one")
    if blank is not None:
        across = Sentence(
            "{m}, {w} × {l}",
            m="hard" if blank.is_hard else blank.metal,
            w=Figure(blank.width_mm, "mm", exact=True, places=(2, 3))
            if blank.width_mm is not None
            else Figure(blank.angle_deg or 0, "deg"),
            l=Figure(blank.length_mm, "mm", exact=True, places=(2, 3)),
        )
    height = Sentence("the jaw is {h}", h=Figure(blank.height_mm, "mm")) if blank else None
    return [
        chosen("blank", f"{at}.jaw_blank", blank.key if blank else None, blanks, across),
        *([] if blank is not None and blank.is_hard else [enter("jaw_height", "hold.jaw_height_mm", source=height)]),
    ]


def _depth_facts(view: View, enter: Entering) -> list[Fact]:
    """How deep it goes in; a hard jaw's step says that itself, and a bar goes through a collet."""
    figures, hold = view[HOLD], view.setup.hold
    if isinstance(figures, JawHold) and figures.blank.is_hard:
        return []
    if isinstance(figures, ColletHold):
        bears = Sentence("{x} of it is held; the collet bears over {b}", **_held_words(figures))
        return [] if figures.stick_out_mm is not None else [enter("depth", "hold.depth_mm", source=bears)]
    said = Sentence("a third of the part is the rule")
    if isinstance(figures, JawHold) and hold.depth_mm is None:
        said = Sentence("{got} here; a third rule", got=Figure(figures.pocket.bore_depth_mm, "mm"))
    return [enter("depth", "hold.depth_mm", source=said)]


def _held_words(hold: ColletHold) -> dict[str, Figure]:
    return {"x": Figure(hold.held_mm, "mm", "down"), "b": Figure(hold.collet.bearing_mm, "mm", "down")}


def _seat_fact(view: View, enter: Entering) -> Fact:
    chuck = view.taken.chuck
    fact = enter("seat", "hold.seat")
    if chuck is None or not chuck.is_collet:
        return fact
    return replace(fact, spec=IN_COLLET, options=IN_COLLET.options)


def _friction_facts(view: View, enter: Entering) -> list[Fact]:
    figures = view[HOLD]
    if figures is None:
        return [enter("surfaces", "hold.friction")]
    pair = Sentence("{pair}", pair=PAIRS[figures.surfaces])
    own = figures.surfaces not in SURFACES  # hard jaws and collets bring theirs with them
    facts = [
        *([] if own else [enter("surfaces", "hold.friction", source=pair)]),
        computed(
            "friction",
            "Friction",
            Amount(figures.friction, "", "down", (3, 3)),
            pair if own else "typical for the pair, × material",
            "typical",
        ),
        computed("grip_length", "Touches over", Amount(figures.touches_mm, "mm", "down"), _touches(view)),
    ]
    if isinstance(figures, JawHold):
        height = Amount(figures.grip_height_mm, "mm", "up")
        facts.append(computed("grip_height", "Grip height", height, "middle of the grip above the guide"))
    return facts


def _touches(view: View) -> str:
    hold = view[HOLD]
    if isinstance(hold, ColletHold):
        return "of the collet's bearing length"
    return (
        "on its shoulder: plain length less the edge"
        if view.setup.hold.seat == "face"
        else "depth less groove and edge"
    )


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
    facts = [enter("stick_out", "hold.stick_out_mm", source=said), enter("bar_stop", "hold.bar_stop")]
    bar = bar_figures(view.asked, figures, part)
    if bar is not None:
        said_of = {"x": Figure(bar.each_mm, "mm", "up"), "r": Figure(bar.remnant_mm, "mm")}
        takes = Sentence("each takes {x}; {r} is left over", **said_of)
        facts.append(computed("bar_pieces", "Pieces of a bar", Amount(float(bar.pieces), "", "down", (0, 0)), takes))
        if bar.bars is not None:
            run = Sentence("for the whole run")
            facts.append(computed("bars", "Bars", Amount(float(bar.bars), "", "up", (0, 0)), run))
    return facts


def show(view: View) -> Stop:
    """The stop as it is shown."""
    setup, outcome, facts = view.setup, view.outcome(HOLD), _facts(view)
    figures = outcome.value
    if figures is None:
        return without_figures(outcome, facts)
    answers = (_deep(view, figures), _rubs(figures), _acts(figures))
    seats = IN_COLLET if isinstance(figures, ColletHold) else SEAT
    seat = Note("info", "seat", "Seated on {seat}.", seat=seats.options[setup.hold.seat])
    loose = setup.hold.seat == "none" or figures.stick_out_mm is not None
    notes = (*figures.notes, *(view[GRIPPED] or ()), *(() if loose else (seat,)))
    return Stop("", "", outcome.state(notes), _line(figures), facts, answers, notes)


def _deep(view: View, hold: HoldFigures) -> Answer:
    held = Figure(hold.held_mm, "mm")
    if not isinstance(hold, JawHold):
        below = (
            Sentence("of the {b} that the collet bears over", b=_held_words(hold)["b"])
            if isinstance(hold, ColletHold)
            else None
        )
        return Answer("depth", "Grip deep", held, below=below)
    pocket, third = hold.pocket, hold.pocket.step("t/L")
    return Answer(
        "depth",
        "Grip deep",
        held,
        below=Sentence("held; bored {t} deep, which clears the part's end", t=Figure(pocket.bore_depth_mm, "mm"))
        if view.setup.hold.seat == "face" and not hold.blank.is_hard
        else Sentence("{share} of the part's length", share=Figure(100 * third.value, "%", "down")),
        steps=tuple(s for s in pocket.working if s.symbol in ("t", "t/L", "l_g")),
        bar=Bar(min(1.0, third.value), 1 / 3, Sentence("a third is the rule")),
    )


def _rubs(hold: HoldFigures) -> Answer:
    below = Sentence("typical, {pair}", pair=PAIRS[hold.surfaces])
    friction = Figure(hold.friction, "", "down", places=(3, 3))
    return Answer("friction", "Friction", friction, steps=hold.friction_steps, below=below)


def _acts(hold: HoldFigures) -> Answer:
    if isinstance(hold, ColletHold):
        words = Sentence("at the nose")
        return Answer("grip_height", "Grip acts", None, words=words, below=Sentence("height costs a collet nothing"))
    rated = Sentence("above the guide; chuck rated at {h}", h=Figure(hold.chuck.force.reference_height_mm, "mm"))
    height = Figure(hold.grip_height_mm, "mm", "up")
    return Answer("grip_height", "Grip acts at", height, steps=hold.height_steps, below=rated)


def _line(hold: HoldFigures) -> Sentence:
    size = Figure(hold.grip.diameter_mm, "mm", exact=True, places=(2, 3))
    if isinstance(hold, ColletHold):
        return Sentence("{f} {d} · collet", f="Ø" if not hold.flats else FORMS[hold.collet.form], d=size)
    assert isinstance(hold, JawHold)
    kind = "hard" if hold.blank.is_hard else hold.blank.metal + (" pie" if hold.blank.kind == "pie" else "")
    side = "outside" if hold.side == "od" else "inside"
    bored = Figure(hold.pocket.bore_diameter_mm, "mm", exact=True, places=(2, 3))
    return Sentence("{side} Ø {d} · {k} jaws", side=side, d=bored, k=kind)
