"""A lot as it is read at the machine, in one unit system."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass

from calc.card.readings.size import FinishAsk, SizeAsk
from calc.limits.chart import SIGMAS, WORDS, Stretch
from calc.quantities import Figure, Sentence, System, counted, from_core, shown_as
from calc.running.edges import EdgeClock
from calc.running.entry import READ, shown
from calc.running.lot import Dimension
from calc.running.standing import Check, LotStanding
from calc.running.story import WHY, Story
from calc.running.watch import Standing, Watched
from calc.said.stop import StepSaid, steps_said

AHEAD = 30  # pieces that a forecast is drawn for, at most
OFFSET_PLACES = (3, 4)


@dataclass(frozen=True)
class CheckSaid:
    """The next check: in so many pieces, of what, and why then."""

    pieces: int
    dimensions: list[str]
    names: str
    why: str


@dataclass(frozen=True)
class EdgeClockSaid:
    """The clock of an edge; `share`: of its life that is used, none where nobody knows how long it lasts;
    `spares`: what the shelf has and the rest of the lot takes, `short`: that is not enough.
    """

    key: str
    station: int
    name: str
    on_it: int
    lasts: int | None
    left: int | None
    share: float | None
    told: str
    fresh: list[str]
    spares: str
    short: bool


@dataclass(frozen=True)
class StretchSaid:
    """A stretch of a chart: its first and last piece, the line at both, and how far its limits are off it, if known."""

    first: int
    last: int
    begins: float
    ends: float
    half: float | None


@dataclass(frozen=True)
class SignSaid:
    """A piece that stands out, and how."""

    piece: int
    words: str


@dataclass(frozen=True)
class ForecastSaid:
    """Where the line goes: from its last piece to a later one, by the slope and by both ends of its interval."""

    first: int
    last: int
    now: float
    likely: float
    low: float
    high: float


@dataclass(frozen=True)
class MarkSaid:
    """Something that was changed after a piece."""

    piece: int
    words: str


@dataclass(frozen=True)
class RunChartSaid:
    """The pieces of a dimension [unit shown], its limits, and what is told of them; `limit_in`, `limit_sure`: pieces
    to the limit, by the slope and for sure; `limit_when`: when the sure ones are made.
    """

    pieces: list[int]
    values: list[float]
    print_low: float | None
    print_high: float | None
    work_low: float | None
    work_high: float | None
    stretches: list[StretchSaid]
    signs: list[SignSaid]
    marks: list[MarkSaid]
    forecast: ForecastSaid | None
    limit_in: int | None
    limit_sure: int | None
    limit_when: str


@dataclass(frozen=True)
class AdviceSaid:
    """What to add to an offset, signed, or that it is left alone; why, and how that came about."""

    number: str
    unit: str
    amount_mm: float
    where: str
    why: str
    told: str
    steps: list[StepSaid]


@dataclass(frozen=True)
class WatchedSaid:
    """A dimension with how it stands: `last` is what was measured last."""

    id: str
    name: str
    title: str
    kind: str
    unit: str
    expected: str
    edge: str
    level: Standing
    told: str
    due: int
    why: str
    last: str
    chart: RunChartSaid
    advice: AdviceSaid | None


@dataclass(frozen=True)
class LotSaid:
    """A lot as it stands."""

    check: CheckSaid | None
    edges: list[EdgeClockSaid]
    dimensions: list[WatchedSaid]
    stops: list[str]


def title_of(dimension: Dimension, system: System) -> str:
    """What a dimension is called: a size with its diameter, a finish as Ra."""
    ask = dimension.ask
    if isinstance(ask, SizeAsk):
        return f"{ask.name} Ø {Figure(ask.nominal_mm, 'mm', exact=True).number(system)}"
    return f"{ask.name} Ra" if isinstance(ask, FinishAsk) else ask.name


def lot_said(standing: LotStanding, system: System, stock: Mapping[str, int], when: Callable[[int], str]) -> LotSaid:
    """A lot in a unit system; `stock`: how many of each insert are on the shelf, by its key; `when`: by the clock, when
    so many more pieces are made.
    """
    titles = {d.id: title_of(d, system) for d in standing.lot.dimensions}
    return LotSaid(
        _check(standing.check, titles, system),
        [_edge(clock, standing, system, stock.get(clock.edge.insert)) for clock in standing.edges],
        [_dimension(w, standing, titles[w.dimension.id], system, when) for w in standing.watched],
        [s.text(system) for s in standing.stops],
    )


def _check(check: Check | None, titles: dict[str, str], system: System) -> CheckSaid | None:
    if check is None:
        return None
    names = " · ".join(titles[d] for d in check.dimensions)
    return CheckSaid(check.pieces, list(check.dimensions), names, check.why.text(system))


def _edge(clock: EdgeClock, standing: LotStanding, system: System, stock: int | None) -> EdgeClockSaid:
    share = None if not clock.lasts or clock.left is None else min(1.0, 1 - clock.left / clock.lasts)
    if clock.lasts is None:
        told = f"{counted(clock.on_it, 'piece')} on it; nobody knows yet how many one lasts"
    else:
        whose = "as edges here really lasted" if clock.learnt else "by the plan"
        told = f"{clock.on_it} of {counted(clock.lasts, 'piece')}, {whose}"
    if clock.carried:
        told += f"; the lot before wore {clock.carried:.0%} of it off"
    if clock.lived:
        told += f"; {_before(clock.lived[-2:])}"
    fresh = [_offset(standing, w, system) for w in standing.watched if w.dimension.edge == clock.edge.key]
    return EdgeClockSaid(
        clock.edge.key,
        clock.edge.station,
        clock.edge.name,
        clock.on_it,
        clock.lasts,
        clock.left,
        share,
        told,
        [f for f in fresh if f],
        *_spares(clock, standing.left, stock),
    )


def _spares(clock: EdgeClock, left: int, stock: int | None) -> tuple[str, bool]:
    """(what the shelf has and what the rest takes, whether that is not enough)."""
    needed = clock.inserts_for(left)
    if stock is None or needed is None:
        return ("" if stock is None else f"{stock} on the shelf"), False
    short = needed > stock
    return f"{stock} on the shelf, the rest takes {needed}{': not enough' if short else ''}", short


def _before(lived: tuple[tuple[int, str], ...]) -> str:
    """How many pieces the edges before did; why they were changed where it was not only that they were due."""
    did = " and ".join(str(n) if why == "due" else f"{n} ({WHY[why]})" for n, why in lived)
    return f"the {'edge' if len(lived) == 1 else 'two edges'} before did {did}"


def _offset(standing: LotStanding, watched: Watched, system: System) -> str:
    """What goes with a fresh edge at a dimension's offset; nothing where nothing does."""
    if not watched.fresh_mm:
        return ""
    amount = signed(watched.fresh_mm, system)
    return f"X {amount} on tool {_station(standing, watched)}: it takes back what the worn edge had asked for"


def signed(mm: float, system: System) -> str:
    """An offset with its sign and unit."""
    figure = Figure(mm, "mm", places=OFFSET_PLACES)
    return f"{'+' if mm > 0 else ''}{figure.text(system)}"


def _station(standing: LotStanding, watched: Watched) -> int:
    edge = standing.lot.edge(watched.dimension.edge)
    assert edge is not None  # every dimension is cut by one
    return edge.station


def _dimension(
    watched: Watched, standing: LotStanding, title: str, system: System, when: Callable[[int], str]
) -> WatchedSaid:
    of, sizes = watched.dimension, watched.sizes
    expected = of.ask.expected
    return WatchedSaid(
        of.id,
        of.ask.name,
        title,
        of.kind,
        Figure(0.0, READ[of.kind].unit).unit_shown(system) if of.kind != "thread" else "",
        expected.text(system) if expected is not None else "",
        of.edge,
        watched.level,
        watched.told.text(system),
        watched.due,
        watched.why.text(system),
        shown(of, sizes.values[-1]).text(system) if sizes.values else "",
        _chart(watched, standing.story, system, when),
        _advice(watched, standing, system),
    )


def _advice(watched: Watched, standing: LotStanding, system: System) -> AdviceSaid | None:
    advice = watched.advice
    if advice is None:
        return None
    station, after = _station(standing, watched), standing.story.counted
    figure = Figure(advice.offset_mm, "mm", places=OFFSET_PLACES)
    number = f"{'+' if advice.offset_mm > 0 else ''}{figure.number(system)}" if advice.offset_mm else ""
    return AdviceSaid(
        number,
        figure.unit_shown(system),
        advice.offset_mm,
        f"tool {station}, wear offset, X as a diameter",
        advice.why.text(system),
        f"after piece {after}: X {number} on tool {station}" if number else "",
        steps_said(advice.steps),
    )


def _chart(watched: Watched, story: Story, system: System, when: Callable[[int], str]) -> RunChartSaid:
    of, sizes = watched.dimension, watched.sizes
    unit = READ[of.kind].unit if of.kind != "thread" else ""
    scale = shown_as(unit, system)

    def plain(value: float | None) -> float | None:
        return None if value is None else round(from_core(value, unit, scale), 7)

    def sure(value: float) -> float:
        return round(from_core(value, unit, scale), 7)

    low_high: tuple[float | None, float | None] = (None, None)
    working = low_high
    if isinstance(of.ask, SizeAsk):
        low_high, working = of.ask.print_mm, of.ask.working_mm
    elif isinstance(of.ask, FinishAsk):
        low_high = (None, of.ask.print_um)
    drift, last = watched.drift, sizes.pieces[-1] if sizes.pieces else 0
    forecast = None
    if drift is not None and watched.stretches and watched.stretches[-1].drift is not None:
        ahead = min(AHEAD, max(1, drift.pieces_left or AHEAD))
        now = drift.fitted_now_mm
        ends = (now + s * ahead for s in (drift.slope_mm, drift.slope_low_mm, drift.slope_high_mm))
        forecast = ForecastSaid(last, last + ahead, sure(now), *(sure(e) for e in ends))
    return RunChartSaid(
        list(sizes.pieces),
        [sure(v) for v in sizes.values],
        plain(low_high[0]),
        plain(low_high[1]),
        plain(working[0]),
        plain(working[1]),
        [_stretch(s, sizes.pieces, sure) for s in watched.stretches],
        [SignSaid(sizes.pieces[i], WORDS[sign]) for s in watched.stretches for i, sign in s.signs],
        list(_marks(watched, story, system)),
        forecast,
        drift.pieces_left if drift else None,
        drift.pieces_left_sure if drift else None,
        when(drift.pieces_left_sure) if drift and drift.pieces_left_sure else "",
    )


def _stretch(stretch: Stretch, pieces: tuple[int, ...], sure: Callable[[float], float]) -> StretchSaid:
    half = None if stretch.sigma_mm is None else sure(SIGMAS * stretch.sigma_mm)
    first, last = pieces[stretch.first], pieces[stretch.first + stretch.count - 1]
    return StretchSaid(first, last, sure(stretch.line_mm[0]), sure(stretch.line_mm[1]), half)


def _marks(watched: Watched, story: Story, system: System) -> Iterator[MarkSaid]:
    """What was changed within the pieces that are shown."""
    first = watched.sizes.pieces[0] if watched.sizes.pieces else 0
    for change in story.changes:
        if change.edge == watched.dimension.edge and change.after + 1 >= first:
            what = "fresh edge" if change.kind == "edge" else f"X {signed(change.amount_mm, system)}"
            yield MarkSaid(change.after, what)


def value_said(dimension: Dimension, value: float, system: System) -> str:
    """A value of a dimension in words."""
    found: Figure | Sentence = shown(dimension, value)
    return found.text(system)
