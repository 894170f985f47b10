"""What a person confirms by name before a plan goes to the machine: what holds always, and what this plan tells."""

from __future__ import annotations

from dataclasses import dataclass

from calc.plan.compute import PlanResult
from calc.plan.document import Document
from calc.quantities import Sentence


@dataclass(frozen=True)
class Caution:
    """One thing to confirm. `code` is stable; `where` is the stop that tells it, empty for what always holds."""

    code: str
    sentence: Sentence
    where: str = ""


ALWAYS = (
    ("limits", "The chuck's stated speed, pressure and jaw weight are not exceeded."),
    ("t-nuts", "T-nuts lie inside the body, bolts are tightened as the chuck's maker says."),
    ("guards", "The cover plate is on and the guards are shut."),
    ("gauge", "The grip is checked with a gauge at intervals, and after a crash."),
    ("stand-clear", "Jaws and part can be thrown: the first spin-up is slow, and everybody stands clear."),
    ("chips", "Chips are hot and sharp: never by hand, and long ribbons stop the machine."),
    ("coolant", "Coolant mist is kept from lungs and skin."),
    (
        "aid",
        "This plan is an aid: the makers' documents, local regulations and a qualified person's judgement come first.",
    ),
)
COVERED = {"never-exceed", "chips"}  # notes that say what is confirmed above


def _of_this_part(document: Document) -> list[Caution]:
    found = []
    profile = document.part.profile
    if document.part.edge_mm <= 0 or any(s.chamfer_mm == 0 for s in (*profile.outside, *profile.inside)):
        found.append(Caution("sharp", Sentence("Edges without a chamfer, and freshly bored jaws, cut hands.")))
    if any(s.force.offset_mm > 0 for s in document.setups) or document.part.stock.form == "casting":
        found.append(
            Caution(
                "unbalance", Sentence("The part is out of balance: the speed is raised in steps, watching for shake.")
            )
        )
    return found


def cautions_of(document: Document, result: PlanResult) -> tuple[Caution, ...]:
    """Everything to confirm before this plan is released, each thing once."""
    found = [Caution(code, Sentence(words)) for code, words in ALWAYS] + _of_this_part(document)
    seen: set[tuple[str, str]] = set()
    for stop in result.stops:
        where = stop.place(len(document.setups))
        for note in stop.notes:
            key = (note.code, note.text)
            if note.level == "caution" and note.code not in COVERED and key not in seen:
                seen.add(key)
                found.append(
                    Caution(
                        f"{stop.key}:{note.code}:{sum(c.code.startswith(f'{stop.key}:{note.code}:') for c in found)}",
                        note.sentence,
                        where,
                    )
                )
    return tuple(found)
