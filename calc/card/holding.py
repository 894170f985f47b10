"""Steps that make a side's hold: jaws, collet or second spindle, pressure and grip, a piece put in and held true."""

from __future__ import annotations

from collections.abc import Iterator

from calc.card.jaws import cut, mounted, size, tapered
from calc.card.readings.grip import GripAsk
from calc.card.readings.pressure import PressureAsk
from calc.card.readings.runout import RunoutAsk
from calc.card.side import STOPPED, Maker
from calc.card.step import CardStep
from calc.plan.hold.figures import ColletHold, HoldFigures, JawHold
from calc.plan.jaws.solve import JAWS
from calc.plan.view import View
from calc.quantities import Bare, Figure, Sentence

TRUE_MM = 0.02  # typical: what soft jaws cut in place, and a refitted set, run out
HARD_MM = 0.10  # typical: what hard jaws do


def holding(view: View, first_in_set: bool) -> Iterator[CardStep]:
    """A side's steps up to a part that is held true; `first_in_set`: its jaws are not mounted yet."""
    make = Maker(view)
    hold = make.hold
    if isinstance(hold, ColletHold):
        yield from _collet(make, hold)
    elif isinstance(hold, JawHold):
        jaws = view[JAWS]
        assert jaws is not None
        if first_in_set:
            yield from mounted(make, hold, jaws)
            yield from cut(make, hold, jaws) if not hold.blank.is_hard else ()
        elif not hold.blank.is_hard:  # its pocket was cut with the other one
            yield size(make, hold, jaws)
            yield from tapered(make, hold, jaws)
    yield from _held(make, hold)


def _collet(make: Maker, hold: ColletHold) -> Iterator[CardStep]:
    collet, chuck = hold.collet, hold.chuck
    yield make.one(
        "clean",
        "Clean cone, key and thread",
        "A chip in the cone is run-out in the part.",
        caution=STOPPED,
        lights=("collet",),
    )
    yield make.one(
        "put-in",
        "Put the collet in",
        Sentence(
            "{c}: it closes from {a} to {b}. Nothing else goes into it.",
            c=collet.name,
            a=Bare(Figure(collet.least_mm, "mm", "up", exact=True, places=(2, 3))),
            b=Figure(collet.nominal_mm, "mm", "down", exact=True, places=(2, 3)),
        ),
        lights=("collet",),
    )
    yield make.one(
        "draw",
        "Set the draw-tube",
        "So that it closes on the work before the end of its travel, with travel left.",
        kind="caution",
        caution=Sentence("A collet at the end of its travel holds nothing."),
    )
    if chuck.draws == "back":
        yield make.one(
            "stop-behind",
            "Put the stop in",
            "This collet draws the work back as it closes: lengths hold only against a stop.",
        )


def _held(make: Maker, hold: HoldFigures) -> Iterator[CardStep]:
    """The pressure, the grip, a part put in, and how true it runs."""
    view, force = make.view, make.force
    at_rest = force.grip.grip_n
    needed = max((_at_rest(at_rest, load.counted_n, load.counted_n / load.held) for load in force.loads), default=0.0)
    wanted = max((_at_rest(at_rest, load.counted_n, load.needed_n) for load in force.loads), default=0.0)
    yield make.one(
        "pressure",
        "Set the production pressure",
        Sentence("{p} at the gauge, closed on the work.", p=Figure(force.pressure_bar, "bar", "down")),
        lights=("pressure",),
        place="hold",
        ask=PressureAsk(planned_bar=force.pressure_bar, path=f"setups.{view.setup.id}.force.pressure_bar", of=make.at),
    )
    if not isinstance(hold, ColletHold):
        yield make.one(
            "grip",
            "Measure the grip",
            "With the grip gauge, spindle at rest, at the production pressure.",
            "At intervals, after a crash, and when the chuck has stood for long. Else skip it, and say why.",
            place="hold",
            ask=GripAsk(
                predicted_n=at_rest,
                needed_n=needed,
                wanted_n=wanted,
                pressure_bar=force.pressure_bar,
                height_mm=hold.grip_height_mm,
                chuck=hold.chuck.force,
                side=hold.side,
                jaw=(jaws.mass.mass_kg, jaws.mass.radius_mm) if (jaws := view[JAWS]) else None,
                of=make.at,
            ),
        )
    if hold.chuck.spindle == "second":
        yield make.one(
            "transfer",
            "Set the transfer",
            Sentence("The second spindle closes on {g}, {x} of it.", g=hold.grip.name, x=Figure(hold.held_mm, "mm")),
            "It waits until both turn alike; both stay closed while the blade goes through.",
            "Then it draws back with the piece: look that nothing hangs on.",
            kind="caution",
            caution=Sentence("Try it first without a bar, step by step, a hand on feed hold."),
            lights=("grip",),
            place="hold",
        )
    else:
        yield make.one("load", "Put a piece in", *_loading(view, hold), lights=("grip",), place="hold")
    allowed, why = _allowed(hold)
    yield make.one(
        "runout",
        "Indicator on the piece",
        "On a turned surface near the jaws where there is one, spindle turned by hand. Read the whole swing.",
        lights=("grip",),
        place="hold",
        ask=RunoutAsk(allowed_mm=allowed, why=why, of=make.at),
    )


def _at_rest(static_n: float, counted_n: float, need_n: float) -> float:
    """The grip at rest [N] that leaves `need_n` at the speed at which `counted_n` is left of `static_n`."""
    return need_n + max(0.0, static_n - counted_n)


def _loading(view: View, hold: HoldFigures) -> Iterator[Sentence]:
    grip = hold.grip
    d = Figure(grip.diameter_mm, "mm", places=hold.places)
    yield Sentence("Held on: {g}, Ø{d}.", g=grip.name, d=Bare(d))
    if hold.stick_out_mm is not None:
        yield Sentence("Let the bar stand out {x}.", x=Figure(hold.stick_out_mm, "mm"))
    elif view.setup.hold.seat != "none":
        yield Sentence("Press it onto its seat, tap it home, and feel that nothing is under it.")
    yield Sentence("It stands {x} out of what holds it.", x=Figure(hold.out_mm, "mm"))


def _allowed(hold: HoldFigures) -> tuple[float, str]:
    if isinstance(hold, ColletHold):
        return hold.collet.runout_mm, "the collet's own"
    if isinstance(hold, JawHold) and hold.blank.is_hard:
        return HARD_MM, "typical of hard jaws"
    return TRUE_MM, "typical of jaws cut in place"
