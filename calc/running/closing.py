"""A lot at its end: what was planned beside what really happened, and what of it is worth keeping."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from statistics import median_low

from calc.card.readings.size import SizeAsk
from calc.limits.capability import LEAST as CAPABLE_FROM
from calc.limits.capability import MOST, CapabilityInput, CapabilityResult, capability
from calc.limits.chart import Stretch
from calc.notebook.proven import Proven
from calc.plan.compute import PlanResult
from calc.plan.cuts.solve import CUTS, CutFigures
from calc.plan.cuts.tooling import situation_of
from calc.plan.part.solve import PART
from calc.quantities import Figure, Sentence, counted
from calc.running.edges import EdgeClock
from calc.running.lot import Dimension, Lot
from calc.running.pace import Pace
from calc.running.standing import LotStanding
from calc.running.story import LIVED, STOPPED

REMARK_MOST = 200  # letters


@dataclass(frozen=True)
class Beside:
    """Something planned beside what it came to, in words; empty where nobody knows."""

    what: Sentence
    planned: Sentence
    real: Sentence


@dataclass(frozen=True)
class Kept:
    """How a dimension kept its print: None where fewer than two pieces were measured. `stable`: nothing stood out."""

    dimension: Dimension
    found: CapabilityResult | None
    stable: bool


@dataclass(frozen=True)
class Worked:
    """A cut that made the lot, as it would be written into the notebook. `key`: set-up and cut."""

    key: str
    name: str
    proven: Proven


@dataclass(frozen=True)
class Closing:
    """A lot's end."""

    rows: tuple[Beside, ...]
    kept: tuple[Kept, ...]
    worked: tuple[Worked, ...]


def closing_of(
    standing: LotStanding,
    pace: Pace,
    values: Mapping[str, Sequence[float]],
    stops: Mapping[str, float],
    made: PlanResult,
    on: str,
) -> Closing:
    """A lot's end: `values`: everything measured, by dimension [core unit]; `stops`: minutes by reason; `made`: the
    release; `on`: the day, such as 2026-11-29.

    Reference: docs/method.md, “Running”
    """
    kept = tuple(_kept(w.dimension, w.stretches, values.get(w.dimension.id, ())) for w in standing.watched)
    rows = (*_pieces(standing, pace), *_edges(standing.edges), *_stops(stops))
    return Closing(rows, kept, tuple(_worked(standing, made, on)))


def _text(words: str, **parts: Figure | str) -> Sentence:
    return Sentence(words, **parts)


def _pieces(standing: LotStanding, pace: Pace) -> Iterator[Beside]:
    lot, story = standing.lot, standing.story
    yield Beside(_text("Good pieces"), _text("{n}", n=str(lot.quantity)), _text("{n}", n=str(story.good)))
    planned = max(0, lot.stock - lot.quantity)
    yield Beside(_text("Scrap"), _text("{n}", n=str(planned)), _text("{n}", n=str(story.scrap)))
    minutes = Figure(lot.minutes_planned, "min", places=(2, 2))
    real = _text("{n}", n=Figure(pace.minutes, "min", places=(2, 2))) if pace.seen else _text("too few pieces to tell")
    yield Beside(_text("From one piece to the next, stops with it"), _text("{n}", n=minutes), real)


def _edges(edges: Sequence[EdgeClock]) -> Iterator[Beside]:
    for clock in sorted(edges, key=lambda c: c.edge.station):
        planned = clock.edge.per_edge
        lived = [n for n, why in clock.lived if why in LIVED]
        said = _text("{n}", n=counted(planned, "piece")) if planned else _text("not known")
        if lived:
            real = _text("{n}, of {m}", n=counted(median_low(lived), "piece"), m=counted(len(lived), "edge"))
        elif clock.lived:
            real = _text("{m} changed when due, not worn out", m=counted(len(clock.lived), "edge"))
        else:
            real = _text("the first edge has made {n}", n=counted(clock.on_it, "piece"))
        what = _text("Edge of tool {n}, {e}", n=str(clock.edge.station), e=clock.edge.name)
        yield Beside(what, said, real)


def _stops(stops: Mapping[str, float]) -> Iterator[Beside]:
    for why, minutes in sorted(stops.items(), key=lambda one: -one[1]):
        if minutes >= 0.5:
            real = _text("{n}", n=Figure(minutes, "min", places=(0, 0)))
            yield Beside(_text("Stood still: {w}", w=STOPPED[why]), _text(""), real)


def _kept(dimension: Dimension, stretches: Sequence[Stretch], values: Sequence[float]) -> Kept:
    stable = not any(s.signs or s.drift is not None for s in stretches)
    if not isinstance(dimension.ask, SizeAsk) or len(values) < 2:
        return Kept(dimension, None, stable)
    return Kept(dimension, capability(CapabilityInput(tuple(values[-MOST:]), *dimension.ask.print_mm)), stable)


def kept_words(kept: Kept) -> Sentence:
    """How a dimension kept its print, in words."""
    if kept.found is None:
        return Sentence("too few were measured to tell")
    found, spec = kept.found, "mm"
    said: dict[str, Figure | str] = {
        "n": counted(found.n, "piece"),
        "m": Figure(found.mean_mm, spec, places=(4, 5)),
        "s": Figure(found.sd_mm, spec, "up", places=(4, 5)),
    }
    words = "mean {m}, spread {s}, of {n}"
    if found.cpk is None:
        return Sentence(words + (f"; Cpk takes {CAPABLE_FROM}" if found.n < CAPABLE_FROM else ""), **said)
    # What drifts or jumps tells of this run alone.
    said |= {"c": Figure(found.cpk, "", "down", (2, 2)), "k": "Cpk" if kept.stable else "Ppk"}
    assert found.cpk_low is not None
    said["l"] = Figure(found.cpk_low, "", "down", (2, 2))
    return Sentence(words + "; {k} {c}, at least {l}", **said)


def _worked(standing: LotStanding, made: PlanResult, on: str) -> Iterator[Worked]:
    """Every cut of the lot's sides with its true figures, and what its edge really did."""
    lived = {key: clock for clock in standing.edges for key in clock.edge.keys}
    for side in standing.lot.sides:
        view = made.views[side]
        cuts, part = view[CUTS], view[PART]
        if cuts is None or part is None:
            continue
        for cut in cuts.cuts:
            now = situation_of(cut.planned, cut.tool, part)
            key = f"{view.setup.id}.{cut.id}"
            yield Worked(
                key,
                cut.name,
                Proven(
                    kind=cut.planned.kind,
                    material=now.material,
                    speed_m_min=cut.planned.speed_m_min or cut.result.speed_m_min,
                    feed_mm_rev=cut.planned.feed_mm_rev or 0.1,
                    iso_group=now.iso_group,  # type: ignore[arg-type] # a material's group is one of them
                    stage=cut.planned.stage,
                    diameter_mm=now.diameter_mm,
                    depth_mm=cut.planned.depth_mm,
                    machine=now.machine,
                    insert=now.insert,
                    holder=now.holder,
                    remarks=_remark(standing.lot, standing, cut, lived.get(key))[:REMARK_MOST],
                    on=on,
                ),
            )


def _remark(lot: Lot, standing: LotStanding, cut: CutFigures, clock: EdgeClock | None) -> str:
    """How many pieces it made, and how long its edge lasted."""
    words = f"{counted(standing.story.good, 'good piece')} of {lot.name}"
    lived = [n for n, why in clock.lived if why in LIVED] if clock else []
    if lived:
        pieces = median_low(lived)
        minutes = Figure(pieces * cut.minutes, "min", places=(0, 0)).text()
        words += f"; an edge did {counted(pieces, 'piece')}, {minutes} in this cut, of {counted(len(lived), 'edge')}"
    return words
