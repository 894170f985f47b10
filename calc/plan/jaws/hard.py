"""Stop Jaws where hard jaws hold: nothing to bore, only the tooth to mount them in."""

from __future__ import annotations

from calc.plan.hold.figures import JawHold
from calc.plan.jaws.ledger import TEETH, stroke_facts, weight_facts
from calc.plan.jaws.solve import JawsFigures
from calc.plan.stop import Amount, Answer, Entering, Fact, Stop, computed
from calc.plan.view import View
from calc.quantities import Figure, Sentence


def hard_facts(view: View, hold: JawHold) -> tuple[Fact, ...]:
    """What there is to set: the tooth; what the step is; how much stroke is left."""
    blank, mount, enter = hold.blank, hold.mount, Entering(view.at, view.setup)
    best = Sentence("empty: nearest to mid-stroke; this is {k}", k=str(mount.tooth)) if mount else None
    facts = [
        enter("tooth", "jaws.tooth", group=TEETH, source=best),
        computed(
            "depth", "The step", Amount(hold.pocket.bore_depth_mm, "mm"), "from its end to the seat", "book", TEETH
        ),
        computed("seat_width", "The seat", Amount(blank.seat_mm, "mm"), "stands in from the face", "book", group=TEETH),
    ]
    if mount is not None:
        where = "jaw at mid-stroke"
        facts.append(computed("face_radius", "Face radius", Amount(mount.face_radius_mm, "mm"), where, group=TEETH))
    return (*facts, *stroke_facts(view, entered=False), *weight_facts(view))


def hard_stop(view: View, hold: JawHold, figures: JawsFigures, state: str) -> Stop:
    """The stop as it is shown."""
    mount, stroke = hold.mount, figures.stroke
    tooth = Sentence("{k}", k=str(mount.tooth)) if mount else Sentence("not known")
    answers = (
        Answer(
            "tooth",
            "Mount in tooth",
            None,
            words=tooth,
            below=Sentence("counted from 0 at the centre; closes on Ø{d}", d=Figure(hold.grip.diameter_mm, "mm")),
            steps=mount.working if mount else (),
        ),
        Answer(
            "closing_travel",
            "Travel left to close",
            Figure(stroke.closing_travel_mm, "mm", "down"),
            below=Sentence("on diameter; {n} wanted", n=Figure(stroke.travel_wanted_mm, "mm", "up")),
            steps=stroke.working,
        ),
    )
    line = Sentence("tooth {k}, nothing to bore", k=tooth)
    return Stop("", "", state, line, hard_facts(view, hold), answers, figures.notes)  # type: ignore[arg-type]
