"""What holds an operation back: the limit whose going would save the most, those that clash, what forbids all."""

from __future__ import annotations

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from calc.quantities import Sentence
from calc.settle.candidates import Candidates, Mask

GAIN = 0.005  # less of the time than this is no gain


class Times(NamedTuple):
    """Of one operation [min]: counted with its edge changes, which is made least, and in cut alone, which is told."""

    counted: float
    minutes: float


@dataclass(frozen=True)
class Binding:
    """A limit, and the time in cut [min] there would be without it; None where that is no less: it would save edges."""

    name: str
    minutes: float | None


def kept_by(limits: dict[str, Mask], leave_out: tuple[str, ...] = ()) -> Mask:
    """Which candidates keep every limit but those left out."""
    masks = [m for name, m in limits.items() if name not in leave_out]
    kept = masks[0].copy()
    for m in masks[1:]:
        kept &= m
    return kept


def best_of(found: Candidates, leave_out: tuple[str, ...]) -> Times | None:
    """The times of the best of those that keep every limit but some; None where none does."""
    keep = kept_by(found.limits, leave_out)
    if not keep.any():
        return None
    best = np.flatnonzero(keep)[np.argmin(found.counted[keep])]
    return Times(float(found.counted[best]), float(found.minutes[best]))


def binding(found: Candidates, now: Times, gone: tuple[str, ...], lifted: dict[str, Candidates]) -> Binding | None:
    """The limit whose going would save the most time; None where none of them holds it back.

    `lifted`: the same candidates with the grip, or what the spindle may turn, out of the way.
    """
    times = [(t, name) for name, one in lifted.items() if name not in gone and (t := best_of(one, gone)) is not None]
    times += [
        (t, name) for name in found.limits if name not in gone and (t := best_of(found, (*gone, name))) is not None
    ]
    best = min(times, default=None)
    if best is None or best[0].counted >= now.counted * (1 - GAIN):
        return None
    return Binding(best[1], best[0].minutes if best[0].minutes < now.minutes * (1 - GAIN) else None)


def given_up(found: Candidates) -> tuple[str, ...]:
    """The fewest soft limits, from the last, that must go for anything to remain."""
    limits = found.limits
    gone: list[str] = []
    for name in ("", *reversed(found.soft)):
        if name:
            gone.append(name)
        if kept_by(limits, tuple(gone)).any():
            # What need not go comes back.
            for back in list(gone):
                fewer = tuple(g for g in gone if g != back)
                if kept_by(limits, fewer).any():
                    gone.remove(back)
            return tuple(gone)
    return tuple(gone)


def forbidden(name: str, limits: dict[str, Mask], gone: tuple[str, ...]) -> Sentence:
    """Why no candidate remains."""
    none = [limit for limit, mask in limits.items() if not mask.any()]
    freed = [limit for limit in limits if kept_by(limits, (*gone, limit)).any()]
    why = (none or freed or ["the plan as a whole"])[0]
    return Sentence("{cut}: no feed, depth and speed keep every limit; {why} forbids them all.", cut=name, why=why)


def holds_back(binds: Binding | None, then: Binding | None, told: dict[str, str]) -> Sentence:
    """What binds, and what would next, in words; `told`: limits that are called otherwise."""
    if binds is None:
        return Sentence("nothing holds it back within what is tried")
    first = told.get(binds.name, binds.name)
    if then is None:
        return Sentence("{b} holds it back", b=first)
    return Sentence("{b} holds it back, then {t}", b=first, t=told.get(then.name, then.name))
