"""How long an edge lasts, and how many a run takes: calculator `tool-life`."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Generic

from calc import terms
from calc.cuts.economic_speed import GILBERT, LEAST_LIFE_MIN, MOST_LIFE_MIN, Known, cheapest, fastest
from calc.describing import calculator
from calc.errors import FieldError
from calc.fields import Checked, Quantity
from calc.quantities import Figure, Sentence
from calc.results import Explained, Found
from calc.working import N, Source, Steps, Working, typical

TAYLOR = Source("typical", "extended Taylor; exponents of feed and depth typical (ISO 3685)")
COUNTED = typical("60 min, the most that is counted")
# Typical Taylor exponents by what the edge is made of.
EXPONENTS = {"coated": 0.25, "uncoated": 0.20, "hss": 0.12}


@dataclass(frozen=True)
class ToolLifeInput(Checked):
    """Input of `tool-life`."""

    speed_m_min: Annotated[float, terms.SURFACE_SPEED]
    feed_mm_rev: Annotated[float, terms.FEED]
    depth_mm: Annotated[float, terms.DEPTH_OF_CUT]
    speed_ref: Annotated[
        float, Quantity("Speed for 15 min", "m/min", "At the reference feed and depth", above=0, high=3000)
    ]
    cut_minutes: Annotated[float, Quantity("Time in cut", "min", "Of one piece", above=0, high=100_000)]
    quantity: Annotated[int, terms.PIECES]
    edges_per_insert: Annotated[int, Quantity("Edges of an insert", "", "", low=1, high=64, whole=True)] = 1
    feed_ref: Annotated[float, Quantity("Reference feed", "mm/rev", "", above=0, high=5)] = 0.3
    depth_ref: Annotated[float, Quantity("Reference depth", "mm", "", above=0, high=50)] = 2.0
    exponent: Annotated[float, terms.TAYLOR_EXPONENT] = 0.25
    machine_per_min: Annotated[
        float | None, Quantity("Machine's minute costs", "", "In the shop's money", above=0, high=100_000)
    ] = None
    edge_cost: Annotated[float | None, Quantity("An edge costs", "", "In the same money", low=0, high=100_000)] = None
    change_min: Annotated[float | None, terms.EDGE_CHANGE] = None

    def contradictions(self) -> Iterator[FieldError]:
        if self.machine_per_min is not None and (self.edge_cost is None or self.change_min is None):
            name = "edge_cost" if self.edge_cost is None else "change_min"
            yield FieldError(name, Sentence("The cheapest speed needs this as well."))


@dataclass(frozen=True, slots=True, kw_only=True)
class ToolLifeResult(Explained):
    """How long an edge lasts, whole pieces from it, edges and inserts for the run, and the speeds of Gilbert."""

    life_min: Annotated[float, Found("Life of an edge", "min", "down")]
    pieces_per_edge: Annotated[int, Found("Pieces per edge")]
    edges: Annotated[int, Found("Edges for the run")]
    inserts: Annotated[int, Found("Inserts for the run")]
    cheapest_m_min: Annotated[float | None, Found("Cheapest speed", "m/min")]
    fastest_m_min: Annotated[float | None, Found("Fastest speed", "m/min")]


@dataclass(frozen=True, eq=False)
class Worn(Generic[N]):
    """What wears an edge: feed [mm/rev], depth [mm per side]; and at which of both the reference speed was told."""

    feed: N
    depth: N
    feed_ref: float
    depth_ref: float


def reference_here(w: Steps[N], speed_ref: float, worn: Worn[N]) -> N:
    """Speed [m/min] that lasts fifteen minutes at this feed and depth.

    >>> reference_here(Working(), 200.0, Worn(0.3, 2.0, 0.3, 2.0))
    200.0

    Reference: Taylor, extended by feed and depth.
    """
    return w.step(
        "v_15",
        "Speed for 15 minutes here",
        "v_r * (f_r/f)**0.30 * (a_r/a)**0.12",
        "m/min",
        TAYLOR,
        v_r=speed_ref,
        f_r=worn.feed_ref,
        f=worn.feed,
        a_r=worn.depth_ref,
        a=worn.depth,
    )


def edge_life(w: Steps[N], reference: N, speed: N, exponent: float) -> N:
    """Life of an edge [min] at a speed, from the speed [m/min] that lasts fifteen; exponent 0.05…0.9.

    >>> edge_life(Working(), 200.0, 200.0, 0.25)
    15.0

    Reference: Taylor.
    """
    return w.step("T", "Life of an edge", "15 * (v_15/v)**(1/n)", "min", TAYLOR, v_15=reference, v=speed, n=exponent)


@calculator(ToolLifeInput)
def tool_life(given: ToolLifeInput) -> ToolLifeResult:
    """How long an edge lasts at a speed, feed and depth, and how many edges a run takes.

    Parameters
        {parameters}
    Returns
        life_min [min]; pieces_per_edge, whole; edges and inserts for the run;
        cheapest_m_min, fastest_m_min [m/min], None where their figures are not given
    Raises
        CalcError for values outside these ranges
    Validity
        Steady cutting; the law is fitted around 15 minutes: under five it is outside its range, and no life over an
        hour is counted.
    Example
        >>> r = tool_life(ToolLifeInput(200, 0.3, 2, speed_ref=200, cut_minutes=4, quantity=100, edges_per_insert=4))
        >>> r.life_min, r.pieces_per_edge, r.edges, r.inserts
        (15.0, 3, 34, 9)

    Reference
        Taylor, extended by feed and depth; Gilbert's minimum-cost speed
    """
    w = Working()
    worn = Worn(given.feed_mm_rev, given.depth_mm, given.feed_ref, given.depth_ref)
    v15 = reference_here(w, given.speed_ref, worn)
    life = edge_life(w, v15, given.speed_m_min, given.exponent)
    if life > MOST_LIFE_MIN:
        life = w.step("T_c", "Life that is counted", "min(T, T_m)", "min", COUNTED, T=life, T_m=MOST_LIFE_MIN)
        w.note(
            "info",
            "life-counted",
            "{t} is the most that is counted: the law is fitted around a quarter of an hour.",
            t=Figure(MOST_LIFE_MIN, "min"),
        )
    share = w.step("N_e", "Pieces from an edge", "T / t_c", "", GILBERT, T=life, t_c=given.cut_minutes)
    pieces = math.floor(min(share, 1e9) + 1e-9)
    if pieces < 1:
        w.note(
            "stop",
            "edge-too-short",
            "An edge lasts {t} and one piece takes {c}: it does not last one piece. Slow down.",
            t=Figure(life, "min", "down"),
            c=Figure(given.cut_minutes, "min", "up"),
        )
    edges = math.ceil(given.quantity / (pieces or max(share, 1e-9)))
    inserts = math.ceil(edges / given.edges_per_insert)
    if pieces and life < LEAST_LIFE_MIN:
        w.note(
            "info",
            "life-outside-law",
            "A life of {t} is under the five minutes from which the law is good.",
            t=Figure(life, "min", "down"),
        )
    cheapest, fastest = _gilbert(given, v15, w)
    return ToolLifeResult(
        life_min=life,
        pieces_per_edge=pieces,
        edges=edges,
        inserts=inserts,
        cheapest_m_min=cheapest,
        fastest_m_min=fastest,
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )


def _gilbert(given: ToolLifeInput, v15: float, w: Working) -> tuple[float | None, float | None]:
    """(cheapest, fastest) speed; each None where its figures are not given."""
    known, change = Known(given.exponent, v15), given.change_min
    if change is None:
        return None, None
    _, fast = fastest(w, known, change)
    if given.machine_per_min is None or given.edge_cost is None:
        return None, fast
    return cheapest(w, known, change, given.edge_cost, given.machine_per_min)[1], fast
