"""The jaw-boring program of a set-up: whether it can be written, and its words."""

from __future__ import annotations

from dataclasses import dataclass

from calc.plan.document import Document
from calc.plan.hold import HoldFigures
from calc.plan.jaws import JawsFigures
from calc.plan.solve import Figures
from calc.plan.stops import Stop
from calc.programs.jaw_boring import Boring, Dialect, Pocket, program_text
from calc.quantities import Bare, Figure, Sentence, System
from calc.scene.jaw import pockets
from calc.shelf.machine import Machine


@dataclass(frozen=True)
class JawProgram:
    """What would be cut, None where the jaws have no figures; `reasons` keep it from being written."""

    boring: Boring | None
    reasons: tuple[Sentence, ...]

    @property
    def ready(self) -> bool:
        """It can be written."""
        return self.boring is not None and not self.reasons


WORDS = {
    "feed_word": "the word for feed per turn",
    "clamp_word": "the word for the spindle clamp",
    "program_word": "the word for the program number",
    "end_word": "the word for the end",
}


def _asked(document: Document, index: int, machine: Machine) -> list[Sentence]:
    """What the control's program needs and nobody has said yet."""
    jaws = document.setups[index].jaws
    missing = [words for name, words in WORDS.items() if not getattr(machine, name)]
    reasons = []
    if missing:
        reasons.append(
            Sentence("{m} needs, once, on its page of the shelf: {words}.", m=machine.name, words=", ".join(missing))
        )
    if jaws.program is None:
        reasons.append(Sentence("Give a program number under Boring."))
    if jaws.spindle == "ask":
        reasons.append(Sentence("Say under Boring which way the spindle turns for your boring tool."))
    return reasons


def _limit(hold: HoldFigures, jaws: JawsFigures, machine: Machine) -> float | None:
    backing = jaws.backing
    if backing is None or backing.choice not in ("ring", "plug"):
        return None
    most = min(hold.chuck.max_rpm, machine.max_rpm)
    return most if backing.bore_max_rpm is None else min(most, backing.bore_max_rpm)


def jaw_program(document: Document, figures: tuple[Figures, ...], index: int, stop: Stop) -> JawProgram:
    """The program of a set-up's jaws; of both pockets where two sides share one set. `stop`: its stop Jaws."""
    mine = figures[index]
    hold, jaws, part = mine.hold.value, mine.jaws.value, mine.part.value
    if hold is None or jaws is None or part is None:
        return JawProgram(None, (Sentence("The jaws have no figures yet: {line}.", line=stop.line),))
    facts = document.setups[index].jaws
    limit = _limit(hold, jaws, part.machine)
    reasons = []
    if stop.state == "stopped":
        reasons.append(Sentence("This stop is stopped: {line}", line=stop.line))
    if limit is None:
        reasons.append(Sentence("What the jaws close on while they are bored is not settled, so no speed is known."))
    if jaws.keep is not None and jaws.keep.verdict == "refit":
        reasons.append(Sentence("This set is refitted without cutting."))
    reasons += _asked(document, index, part.machine)
    other = next((f for i, f in enumerate(figures) if i != index), None) if hold.other else None
    tapers = {id(hold.pocket): jaws.taper_mm or 0.0}
    if other is not None and other.jaws.value is not None and hold.other is not None:
        tapers[id(hold.other)] = other.jaws.value.taper_mm or 0.0
    boring = Boring(
        side=hold.side,
        pockets=tuple(
            Pocket(p.bore_diameter_mm, p.bore_depth_mm, p.groove_width_mm, p.groove_depth_mm, tapers.get(id(p), 0.0))
            for p in pockets(hold)
        ),
        start_mm=hold.pocket.start_diameter_mm,
        depth_of_cut_mm=facts.boring_depth_mm,
        feed_mm_rev=facts.boring_feed_mm_rev,
        speed_m_min=facts.boring_speed_m_min,
        limit_rpm=limit or 1.0,
    )
    return JawProgram(boring, tuple(reasons))


def written(
    document: Document,
    figures: tuple[Figures, ...],
    index: int,
    stop: Stop,
    system: System,
    name: str,
    revision: int,
    release: int | None = None,
) -> str:
    """The program's text, of a draft or of a release.

    Raises ValueError where it is not ready: ask `jaw_program` first.
    """
    program = jaw_program(document, figures, index, stop)
    hold, jaws, part = figures[index].hold.value, figures[index].jaws.value, figures[index].part.value
    if not program.ready or program.boring is None or hold is None or jaws is None or part is None:
        raise ValueError("the program is not ready")
    facts, machine = document.setups[index].jaws, part.machine
    dialect = Dialect(
        machine.program_word, facts.program or 0, machine.feed_word, machine.clamp_word, machine.end_word, facts.spindle
    )
    header = [
        s.text(system)
        for s in _header(program.boring, hold, jaws, name, document.setups[index].name, revision, release)
    ]
    header += [n.sentence.text(system) for n in stop.notes if n.level == "caution"]
    return program_text(program.boring, dialect, header, system)


def _header(
    b: Boring, hold: HoldFigures, jaws: JawsFigures, name: str, side: str, revision: int, release: int | None
) -> list[Sentence]:
    backing = jaws.backing
    closed = backing.ring if backing and backing.choice == "ring" else "plug"
    said = [
        Sentence("DRAFT {n}, NOT RELEASED", n=str(revision))
        if release is None
        else Sentence("RELEASE {r} OF DRAFT {n}", r=str(release), n=str(revision)),
        Sentence(
            "{name}, {side}: soft jaws, {way} grip", name=name, side=side, way="outside" if b.side == "od" else "inside"
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
