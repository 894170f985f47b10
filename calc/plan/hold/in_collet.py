"""A bar or a part held in a collet: nothing is bored; its size, its range and its bearing length tell all."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from calc.chuck.collet import range_note
from calc.errors import FieldProblem
from calc.plan.hold.figures import ColletHold
from calc.plan.hold.gripped import centre_hole, grip_of, raw_behind, rubs, stick_out
from calc.plan.hold.inputs import Hold
from calc.plan.hold.judged import judged
from calc.plan.outcome import Asked, Missing
from calc.plan.part.solve import PART, PartFigures
from calc.plan.sides.solve import SIDES
from calc.profile.grips import Grip
from calc.quantities import Figure, Sentence
from calc.shelf.chuck import Chuck
from calc.shelf.collet import FORMS, Collet
from calc.working import Note, Working, derived

NOSE = derived("Collets")
COCKS = 0.5  # typical: gripped over less of its bearing length a collet closes at its nose alone
LEAST_HELD_MM = 3.0


def hold_in_collet(asked: Asked, chuck: Chuck) -> ColletHold:
    """Figures of one set-up's hold in a collet. Raises Missing, Waiting or CalcError."""
    setup, part, sides = asked.setup, asked.need(PART), asked.need(SIDES)
    if asked.document.one_set:
        raise FieldProblem("sides.two_step", "A collet holds one size: two pockets in one set are for soft jaws.")
    grip, collet = grip_of(asked.document, sides, asked.index), _chosen(asked)
    out = stick_out(asked)
    length = part.length_mm + raw_behind(asked, grip)
    held = collet.bearing_mm if out is not None else _held(asked, grip, collet)
    w = Working()
    height = w.step("h", "It acts at the nose", "h_n", "mm", NOSE, h_n=0.0)
    pair = "collet" if collet.face == "smooth" else "collet_serrated"
    friction, steps = rubs(asked, pair)
    deep = grip.offset_mm + held
    made = ColletHold(
        chuck=_held_to(chuck, collet),
        collet=collet,
        grip=grip,
        held_end=sides.held_end(asked.index),
        held_mm=held,
        touches_mm=held if out is not None else held - grip.edge_mm,
        wrap_deg=360.0 / chuck.jaws,
        work_length_mm=length + part.face_stock_mm,
        grip_height_mm=height,
        length_mm=length,
        face_stock_mm=part.face_stock_mm,
        beyond_mm=length - deep if out is None else out - part.face_stock_mm,
        stick_out_mm=out,
        centre_mm=centre_hole(setup, part, sides.held_end(asked.index)),
        surfaces=pair,
        friction=friction,
        height_steps=tuple(w.steps),
        friction_steps=steps,
        notes=(),
    )
    return replace(made, notes=(*_notes(made, setup.hold, part), *judged(made, setup, part)))


def _held_to(chuck: Chuck, collet: Collet) -> Chuck:
    """The chuck, with no more grip than its collet may have."""
    if collet.max_grip_n is None or collet.max_grip_n >= chuck.force.max_grip_n:
        return chuck
    return replace(chuck, force=replace(chuck.force, max_grip_n=collet.max_grip_n))


def _chosen(asked: Asked) -> Collet:
    collet, path = asked.taken.collet, f"{asked.at}.collet"
    if collet is None:
        raise Missing((path, "Collet"))
    if collet.key not in {c.key for c in asked.taken.collets}:
        chuck = asked.taken.chuck
        words = Sentence("{b} does not fit {c}; choose one that does.", b=collet.name, c=chuck.name if chuck else "")
        raise FieldProblem(path, words)
    return collet


def _held(asked: Asked, grip: Grip, collet: Collet) -> float:
    """How much of a part is held [mm]: as deep as is entered, else as it goes in."""
    most = min(grip.length_mm, collet.bearing_mm)
    entered, path = asked.setup.hold.depth_mm, f"{asked.at}.hold.depth_mm"
    held = most if entered is None else entered - grip.offset_mm
    if held > most + 1e-9:
        words = Sentence(
            "Give {x} or less: {p} of it is plain, and the collet bears over {b}.",
            x=Figure(grip.offset_mm + most, "mm", "down", exact=True),
            p=Figure(grip.length_mm, "mm", "down"),
            b=Figure(collet.bearing_mm, "mm", "down"),
        )
        raise FieldProblem(path, words)
    if held - grip.edge_mm < LEAST_HELD_MM:
        words = Sentence("Only {x} of it would be held: let it go in deeper.", x=Figure(max(0.0, held), "mm", "down"))
        raise FieldProblem(path, words)
    return held


def _notes(hold: ColletHold, entered: Hold, part: PartFigures) -> Iterator[Note]:
    collet, grip, seat = hold.collet, hold.grip, entered.seat
    wanted = "round" if grip.finished or grip.side == "id" else part.stock.section
    if grip.side == "id":
        yield Note("stop", "collet-inside", "A collet closes from outside: grip an outside diameter.")
    elif wanted != collet.form:
        words = "This collet's hole is {f} and what it is to hold is {s}: take a {s} collet."
        yield Note("stop", "collet-form", words, f=FORMS[collet.form], s=wanted)
    outside = range_note(collet.nominal_mm, collet.range_mm, grip.smallest_mm, grip.largest_mm)
    if outside is not None:
        yield outside
    if collet.face == "serrated" and grip.finished:
        words = "A serrated collet marks {g}, which is finished: take a smooth one."
        yield Note("stop", "marks-finished", words, g=grip.name)
    loose = seat == "none" or hold.stick_out_mm is not None
    if hold.held_mm < COCKS * collet.bearing_mm:
        yield Note(
            "caution",
            "collet-cocks",
            "Held over {x} of the {b} that the collet bears over: it cocks. Put a plug of the same size behind, or "
            "take a shorter collet.",
            x=Figure(hold.held_mm, "mm", "down"),
            b=Figure(collet.bearing_mm, "mm"),
        )
    if loose:
        words = "Nothing carries the axial force but grip: it counts against slipping."
        yield Note("caution", "not-seated", words)
    stays = hold.stick_out_mm is not None and entered.bar_stop == "stays"
    if loose and hold.chuck.draws == "back" and not stays:
        yield Note(
            "caution",
            "draws-back",
            "Closing, the collet draws the bar back with it: set lengths against a stop that stays, or after closing.",
        )
    if hold.stick_out_mm is None and seat == "none":
        words = "A short piece needs a stop behind it in the collet: seat it on one."
        yield Note("caution", "stop-behind", words)
    if grip.finished:
        words = "{g} is held where it was finished: the collet runs out {r}."
        yield Note("info", "collet-runs-out", words, g=grip.name, r=Figure(collet.runout_mm, "mm", "up", (3, 4)))
