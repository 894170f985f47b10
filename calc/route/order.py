"""The order of a side's operations, checked in words."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from calc.working import Note


@dataclass(frozen=True)
class Work:
    """An operation as its order is looked at: its name, kind and stage, whether it works in a bore, and whether it
    goes over what is cut already.
    """

    name: str
    kind: str
    stage: str
    inside: bool
    cleans: bool = False

    @property
    def springs(self) -> bool:
        """It is one more pass of a thread."""
        return self.cleans and self.kind == "thread"


def _told(code: str, words: str, cut: Work, other: Work) -> Note:
    return Note("caution", code, words, cut=cut.name, other=other.name)


def _pair(first: Work, second: Work) -> Note | None:
    """What is wrong where `first` comes before `second`."""
    same = first.inside == second.inside
    if second.cleans and first.kind != "part":
        return _before_the_last(first, second) if same else None
    if first.cleans:
        return _too_early(first, second) if same else None
    if first.kind == "part":
        return _told("part-off-first", "{cut} parts the piece off before {other}: put it last.", first, second)
    if (
        same
        and first.kind in ("turn", "bore")
        and first.kind == second.kind
        and first.stage == "finish"
        and second.stage == "rough"
    ):
        return _told(
            "finish-before-rough",
            "{cut} finishes before {other} roughs: all roughing of a side comes first.",
            first,
            second,
        )
    if first.kind == "bore" and second.kind == "drill":
        return _told("bore-before-drill", "{cut} bores before {other} drills the hole.", first, second)
    if same and first.kind == "thread" and second.kind in ("turn", "bore") and second.stage != "finish":
        return _told("thread-early", "{cut} threads before {other} turns its diameter.", first, second)
    if first.kind in ("turn", "bore") and first.stage == "finish" and second.kind == "face":
        return _told(
            "face-late", "{cut} finishes before {other}: face first, lengths are measured from there.", first, second
        )
    return None


def _before_the_last(first: Work, second: Work) -> Note | None:
    """What is wrong where `second` cleans up: the spring pass comes last, since every other throws a burr into it."""
    if first.springs and not second.springs:
        words = "{cut} goes through the thread before {other}, which throws a burr into it again: put it last."
        return _told("spring-early", words, first, second)
    return None


def _too_early(first: Work, second: Work) -> Note | None:
    """What is wrong where something is cleaned up before what throws its burr."""
    if second.kind == "thread" or (first.springs and second.kind == "groove"):
        return _told("cleans-early", "{cut} cleans up before {other} throws its burr: put it behind.", first, second)
    return None


def sequence_notes(cuts: Sequence[Work]) -> list[Note]:
    """What is wrong with the order, each once for a cut, in words."""
    found: list[Note] = []
    for i, first in enumerate(cuts):
        note = next((n for second in cuts[i + 1 :] if (n := _pair(first, second)) is not None), None)
        if note is not None:
            found.append(note)
    return found
