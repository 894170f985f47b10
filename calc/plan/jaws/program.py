"""The jaw-boring program of a set-up: whether it can be written, and its words."""

from __future__ import annotations

from dataclasses import dataclass

from calc.plan.hold.figures import ColletHold, JawHold
from calc.plan.hold.solve import HOLD, JAW_HOLD
from calc.plan.hold.stand import pockets
from calc.plan.jaws.inputs import Jaws
from calc.plan.jaws.solve import JAWS, JawsFigures
from calc.plan.part.solve import PART
from calc.plan.stop import Stop
from calc.plan.view import View
from calc.programs.jaw_boring import Boring, Dialect, JawProgram, Pocket, program_text
from calc.quantities import Bare, Figure, Sentence, System
from calc.shelf.machine import Machine

WORDS = {
    "feed_word": "the word for feed per turn",
    "clamp_word": "the word for the spindle clamp",
    "program_word": "the word for the program number",
    "end_word": "the word for the end",
}


def words_missing(machine: Machine) -> list[str]:
    """What of the control's language nobody has written on the machine's page of the shelf, in words."""
    return [words for name, words in WORDS.items() if not getattr(machine, name)]


def _asked(jaws: Jaws, machine: Machine) -> list[Sentence]:
    """What the control's program needs and nobody has said yet."""
    missing = words_missing(machine)
    reasons = []
    if missing:
        reasons.append(
            Sentence("{m} needs, once, on its page of the shelf: {words}.", m=machine.name, words=", ".join(missing))
        )
    if jaws.program is None:
        reasons.append(Sentence("Give a program number under Jaw program."))
    if jaws.spindle == "ask":
        reasons.append(Sentence("Say under Jaw program which way the spindle turns for your boring tool."))
    return reasons


def _limit(hold: JawHold, jaws: JawsFigures, machine: Machine) -> float | None:
    backing = jaws.backing
    if backing is None or backing.choice not in ("ring", "plug"):
        return None
    most = min(hold.chuck.max_rpm, machine.max_rpm)
    return most if backing.bore_max_rpm is None else min(most, backing.bore_max_rpm)


def _recess(hold: JawHold) -> tuple[Pocket, ...]:
    """The recess behind the part, bored like a last pocket without groove or taper."""
    radius, deep = hold.recess_mm
    return (Pocket(2 * radius, deep, 0.0, 0.0),) if deep > 0 and radius > hold.face_radius_mm else ()


def boring_of(view: View) -> Boring | None:
    """What would be bored, both pockets where two sides share one set; None while there are no figures."""
    hold, jaws, part = view[JAW_HOLD], view[JAWS], view[PART]
    if hold is None or jaws is None or part is None:
        return None
    facts, tapers = view.setup.jaws, {id(hold.pocket): jaws.taper_mm or 0.0}
    other = next((f[JAWS] for i, f in enumerate(view.every) if i != view.index), None) if hold.other else None
    if other is not None:
        tapers[id(hold.other)] = other.taper_mm or 0.0
    return Boring(
        side=hold.side,
        pockets=tuple(
            Pocket(p.bore_diameter_mm, p.bore_depth_mm, p.groove_width_mm, p.groove_depth_mm, tapers.get(id(p), 0.0))
            for p in pockets(hold)
        )
        + _recess(hold),
        start_mm=hold.pocket.start_diameter_mm,
        depth_of_cut_mm=facts.boring_depth_mm,
        feed_mm_rev=facts.boring_feed_mm_rev,
        speed_m_min=facts.boring_speed_m_min,
        limit_rpm=_limit(hold, jaws, part.machine) or 1.0,
        plug_mm=jaws.backing.plug_mm if jaws.backing else None,
        clear_mm=facts.ring_clearance_mm,
    )


def jaw_program(view: View, stop: Stop) -> JawProgram | None:
    """The program of a set-up's jaws, and what keeps it from being written; None where nothing is bored.

    `stop`: its stop Jaws.
    """
    held = view[HOLD]
    if isinstance(held, ColletHold) or (isinstance(held, JawHold) and held.blank.is_hard):
        return None
    boring, hold, jaws, part = boring_of(view), view[JAW_HOLD], view[JAWS], view[PART]
    if boring is None or hold is None or jaws is None or part is None:
        return JawProgram(None, (Sentence("The jaws have no figures yet: {line}.", line=stop.line),))
    reasons = []
    stopped = next((n.sentence for n in stop.notes if n.level == "stop"), None)
    if stopped is not None:
        reasons.append(Sentence("This stop is stopped: {line}", line=stopped))
    if _limit(hold, jaws, part.machine) is None:
        reasons.append(Sentence("What the jaws close on while they are cut is not settled, so no speed is known."))
    if boring.plug_mm is not None and boring.floor_to_mm >= min(p.diameter_mm for p in boring.pockets):
        reasons.append(Sentence("The floor cannot be faced: the plug stands in the way of it."))
    if jaws.keep is not None and jaws.keep.verdict == "refit":
        reasons.append(Sentence("This set is refitted without cutting."))
    reasons += _asked(view.setup.jaws, part.machine)
    return JawProgram(boring, tuple(reasons))


@dataclass(frozen=True)
class Heading:
    """What stands at the head of a program: the run's name, and the draft or release that it is of."""

    name: str
    revision: int
    release: int | None = None


def written(view: View, stop: Stop, heading: Heading, system: System) -> str:
    """The program's text, of a draft or of a release.

    Raises ValueError where it is not ready: ask `jaw_program` first.
    """
    program = jaw_program(view, stop)
    part = view[PART]
    if program is None or not program.ready or program.boring is None or part is None:
        raise ValueError("the program is not ready")
    facts, machine = view.setup.jaws, part.machine
    dialect = Dialect(
        machine.program_word, facts.program or 0, machine.feed_word, machine.clamp_word, machine.end_word, facts.spindle
    )
    header = [s.text(system) for s in _header(view, program.boring, heading)]
    header += [n.sentence.text(system) for n in stop.notes if n.level == "caution"]
    return program_text(program.boring, dialect, header, system)


def _header(view: View, b: Boring, heading: Heading) -> list[Sentence]:
    hold, jaws = view[JAW_HOLD], view[JAWS]
    assert hold is not None and jaws is not None
    backing, release, revision = jaws.backing, heading.release, heading.revision
    closed = backing.ring if backing and backing.choice == "ring" else "plug"
    said = [
        Sentence("DRAFT {n}, NOT RELEASED", n=str(revision))
        if release is None
        else Sentence("RELEASE {r} OF DRAFT {n}", r=str(release), n=str(revision)),
        Sentence(
            "{name}, {side}: soft jaws, {way} grip",
            name=heading.name,
            side=view.setup.name,
            way="outside" if b.side == "od" else "inside",
        ),
        Sentence("{jaws} on {chuck}", jaws=hold.blank.name, chuck=hold.chuck.name),
    ]
    for i, p in enumerate(b.pockets, 1):
        taper = Sentence("taper {t}", t=Figure(p.taper_mm, "mm", places=(3, 4))) if p.taper_mm else Sentence("no taper")
        said.append(
            Sentence(
                "pocket {i}: Ø{d}, {t} deep, {taper}, groove {w} x {g}",
                i=str(i),
                d=Bare(Figure(p.diameter_mm, "mm", places=(3, 4))),
                t=Figure(p.depth_mm, "mm"),
                taper=taper,
                w=Figure(p.groove_width_mm, "mm"),
                g=Figure(p.groove_depth_mm, "mm"),
            )
        )
    if hold.mount is not None:
        said.append(Sentence("tooth {k}, counted from 0 at the centre", k=str(hold.mount.tooth)))
    said.append(
        Sentence(
            "jaws close on {what} at {p}",
            what=closed or "?",
            p=Figure((backing.bore_pressure_bar if backing else None) or 0.0, "bar", "down"),
        )
    )
    if jaws.taper_mm is None:
        said.append(Sentence("taper not known: measure with a feeler at full pressure"))
    said.append(Sentence("an aid: makers' documents, local rules and a qualified person come first"))
    return said
