"""What a person confirms by name before a plan goes to the machine: what holds always, and what this plan tells."""

from __future__ import annotations

from dataclasses import dataclass
from hashlib import blake2s

from calc.plan.compute import PlanResult
from calc.plan.document import Document
from calc.quantities import Sentence


@dataclass(frozen=True)
class Told:
    """A sentence of a caution, and the stops that say it; empty for what always holds."""

    sentence: Sentence
    where: str = ""


@dataclass(frozen=True)
class Caution:
    """One thing to confirm: all that is said of it, each sentence with its places. `code` is stable.

    `general`: it holds for every plan, and is signed with the others of its kind as one statement.
    """

    code: str
    told: tuple[Told, ...]
    general: bool = False


ALWAYS = (
    ("limits", "The stated speed and pressure of chuck and boring ring, and the jaw weight, are not exceeded."),
    (
        "t-nuts",
        "Serrations and T-slots are clean, T-nuts lie inside the body, bolts are tightened as the chuck's maker says.",
    ),
    ("deburr", "Bored edges are broken before the part is loaded: freshly bored jaws cut hands."),
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
COVERED = {"never-exceed", "chips", "mounting", "deburr", "ring-limits"}  # notes that say what is confirmed above


def _of_this_part(document: Document) -> list[Caution]:
    found = []
    profile = document.part.profile
    if document.part.edge_mm <= 0 or any(s.chamfer_mm == 0 for s in (*profile.outside, *profile.inside)):
        found.append(Caution("sharp", (Told(Sentence("Edges without a chamfer cut hands.")),)))
    if any(s.force.offset_mm > 0 for s in document.setups) or document.part.stock.form == "casting":
        found.append(
            Caution(
                "unbalance",
                (Told(Sentence("The part is out of balance: the speed is raised in steps, watching for shake.")),),
            )
        )
    return found


def cautions_of(document: Document, result: PlanResult) -> tuple[Caution, ...]:
    """Everything to confirm before this plan is released, each thing once: what several stops say stands together."""
    found = [Caution(code, (Told(Sentence(words)),), general=True) for code, words in ALWAYS] + _of_this_part(document)
    told: dict[str, dict[str, list[str]]] = {}
    sentences: dict[str, Sentence] = {}
    for stop in result.stops:
        where = stop.place(document.side_names)
        for note in stop.notes:
            if note.level == "caution" and note.code not in COVERED:
                sentences.setdefault(note.text, note.sentence)
                places = told.setdefault(note.code, {}).setdefault(note.text, [])
                if where not in places:
                    places.append(where)
    for name, texts in told.items():
        # With what it says: a figure that moved since it was shown is another thing to confirm.
        code = f"{name}-{blake2s(chr(10).join(texts).encode(), digest_size=4).hexdigest()}"
        found.append(Caution(code, tuple(Told(sentences[text], "; ".join(at)) for text, at in texts.items())))
    return tuple(found)
