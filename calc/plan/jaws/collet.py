"""Stop Jaws where a collet holds: nothing to bore, only what to put in, and what it closes on."""

from __future__ import annotations

from calc.plan.hold.figures import ColletHold
from calc.plan.stop import Amount, Answer, Fact, Procedure, Stop, computed, said
from calc.quantities import Bare, Figure, Sentence
from calc.shelf.chuck import DRAWS
from calc.shelf.collet import FORMS

PUT_IN = Procedure(
    "Put the collet in",
    (
        Sentence("Clean cone, key and thread; a chip in the cone is run-out in the part."),
        Sentence("Set the draw-tube so that it closes on the bar before the end of its travel."),
        Sentence("Indicate a ground pin at the nose before the first part."),
    ),
)


def collet_facts(hold: ColletHold) -> tuple[Fact, ...]:
    """What there is to set: size, range, bearing length."""
    collet, chuck = hold.collet, hold.chuck
    return (
        said("collet", "Collet", collet.name, Sentence("{f}, {s}", f=FORMS[collet.form], s=collet.face), ""),
        computed("collet_size", "Closes on", Amount(hold.grip.diameter_mm, "mm"), Sentence("nominal of what it grips")),
        computed(
            "collet_range",
            "Its range, from",
            Amount(collet.least_mm, "mm", "up"),
            Sentence("to {b}", b=Figure(collet.nominal_mm, "mm", "down", exact=True, places=(2, 3))),
            "book",
        ),
        computed(
            "collet_bearing",
            "Bears over",
            Amount(collet.bearing_mm, "mm", "down"),
            Sentence("{x} of it on the part", x=Figure(hold.held_mm, "mm", "down")),
            "book",
        ),
        computed("collet_runout", "Runs out", Amount(collet.runout_mm, "mm", "up", (3, 4)), "at its nose", "typical"),
        said("collet_draws", "Closing", DRAWS.options[chuck.draws], Sentence("{c}", c=chuck.name), ""),
    )


def collet_stop(hold: ColletHold) -> Stop:
    """The stop as it is shown."""
    collet = hold.collet
    size = Figure(hold.grip.diameter_mm, "mm", places=hold.places)
    answers = (
        Answer(
            "collet_size",
            "Collet for",
            size,
            "Ø " if not collet.flats else "",
            below=Sentence(
                "it closes on {a} to {b}",
                a=Bare(Figure(collet.least_mm, "mm", "up", exact=True, places=(2, 3))),
                b=Figure(collet.nominal_mm, "mm", "down", exact=True, places=(2, 3)),
            ),
        ),
        Answer(
            "collet_bearing",
            "Holds over",
            Figure(hold.held_mm, "mm", "down"),
            below=Sentence("of {b} that it bears over", b=Figure(collet.bearing_mm, "mm", "down")),
        ),
    )
    line = Sentence("{c}, nothing to bore", c=collet.name)
    return Stop("", "", "settled", line, collet_facts(hold), answers, (), procedures=(PUT_IN,))
