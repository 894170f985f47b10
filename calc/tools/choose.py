"""Choosing a tool: what the hard rules leave, ranked by preferences, each with its reason.

Rules and preferences work on columns of a whole shelf at once; sentences are made only for what is shown.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any, Literal

import numpy as np
from numpy.typing import NDArray

from calc.cuts.direction import Turns
from calc.quantities import Sentence
from calc.tools.library import Library, Tool

Array = NDArray[Any]
BASE = 50.0
BUY_SHARE = 0.9  # what must be bought counts a tenth less: stock within 10 % of it is taken first
SHOWN = 3
REASONS = 4


@dataclass(frozen=True)
class Job:
    """What an operation asks of a tool; lengths and diameters in mm, None where nothing is asked.

    `torque_nm` of the spindle and the material's k_c1.1 and m_c tell what a drill asks.
    `depth_mm` of a pass and `stock_mm` in all, per side; `reach_mm` how deep the tool goes; `most_mm` the
    largest drill; `bore_mm` the hole a bar goes into; `minutes` in cut of a piece.
    """

    kind: str
    group: str
    side: Literal["outside", "inside"] = "outside"
    stage: Literal["rough", "finish", "both"] = "both"
    depth_mm: float | None = None
    stock_mm: float | None = None
    reach_mm: float = 0.0
    bore_mm: float | None = None
    most_mm: float | None = None
    corner_mm: float | None = None
    falling_deg: float = 0.0
    square: bool = False
    ra_um: float | None = None
    width_mm: float | None = None
    diameter_mm: float = 0.0
    pitch_mm: float | None = None
    angle_deg: float = 60.0
    interrupted: bool = False
    thin: bool = False
    weak: bool = False
    feeds: Literal["chuck", "away"] = "chuck"
    turns: Turns = "M03"
    quantity: int = 1
    minutes: float = 0.0
    shank_mm: float | None = None
    bar_seat_mm: float | None = None
    turret: str = ""
    torque_nm: float | None = None
    kc11: float = 0.0
    mc: float = 0.0
    rougher: Literal["rhombic", "trigon"] = "rhombic"

    @property
    def roughs(self) -> bool:
        """It takes the bulk of the stock."""
        return self.stage == "rough"

    @property
    def finishes(self) -> bool:
        """It makes the print's surface."""
        return self.stage != "rough"


class Columns:
    """Figures of many tools, a column each, made when first asked for."""

    def __init__(self, tools: Sequence[Tool]) -> None:
        self.tools = tools
        self.index = {t.key: i for i, t in enumerate(tools)}
        self._kept: dict[Any, Array] = {}

    def of(self, get: Callable[[Tool], Any]) -> Array:
        """The column of a figure; `get` must be a module's function, so that it is known again."""
        if get not in self._kept:
            self._kept[get] = np.array([get(t) for t in self.tools])
        return self._kept[get]


@dataclass(frozen=True)
class Rule:
    """A hard rule: which tools break it, and why one does."""

    code: str
    breaks: Callable[[Columns, Job], Array]
    why: Callable[[Tool, Job], Sentence]


@dataclass(frozen=True)
class Preference:
    """Points for something, and what is said of a tool that gets at least `said_from` of them."""

    points: Callable[[Columns, Job], Array]
    says: Callable[[Tool, Job], Sentence | None]
    said_from: float = 3.0


@dataclass(frozen=True, eq=False)
class Book:
    """The rules and preferences of one kind of job, and the tools that they are asked of."""

    tools: Callable[[Library], tuple[Tool, ...]]
    rules: tuple[Rule, ...]
    preferences: tuple[Preference, ...]
    stock: Callable[[Tool], int]
    edges: Callable[[Tool], int]


@dataclass(frozen=True)
class Ranked:
    """A tool with its score and the reasons, or with the rule that rejects it."""

    tool: Tool
    score: float
    reasons: tuple[Sentence, ...] = ()
    rejected: Sentence | None = None


@dataclass(frozen=True)
class Choice:
    """The first few in order, and how many fit and how many were rejected."""

    first: tuple[Ranked, ...]
    fit: int
    rejected: int


@lru_cache(maxsize=16)
def _columns(library: Library, tools: Callable[[Library], tuple[Tool, ...]]) -> Columns:
    return Columns(tools(library))


@dataclass(frozen=True, eq=False)
class _Asked:
    """What every rule and preference says of every tool."""

    columns: Columns
    book: Book
    job: Job
    broken: tuple[Array, ...]
    points: tuple[Array, ...]
    needed: Array
    score: Array
    out: Array

    def ranked(self, i: int) -> Ranked:
        """One tool with its reasons, or the first rule that rejects it."""
        tool, score = self.columns.tools[i], float(self.score[i])
        for rule, mask in zip(self.book.rules, self.broken, strict=True):
            if mask[i]:
                return Ranked(tool, score, rejected=rule.why(tool, self.job))
        told = sorted(
            zip((float(p[i]) for p in self.points), self.book.preferences, strict=True), key=lambda x: -abs(x[0])
        )
        said = [p.says(tool, self.job) for points, p in told if abs(points) >= p.said_from]
        return Ranked(tool, score, (*[s for s in said if s is not None][:REASONS], self._stock(tool, i)))

    def _stock(self, tool: Tool, i: int) -> Sentence:
        stock, needed = self.book.stock(tool), int(self.needed[i])
        if stock <= 0:
            return Sentence("must be bought")
        if stock >= needed:
            return Sentence("{n} in stock", n=str(stock))
        return Sentence("only {n} in stock; the run takes about {m}", n=str(stock), m=str(needed))


def _ask(library: Library, book: Book, job: Job) -> _Asked:
    columns = _columns(library, book.tools)
    count = len(columns.tools)
    broken = tuple(rule.breaks(columns, job) for rule in book.rules)
    points = tuple(preference.points(columns, job) for preference in book.preferences)
    # Whole inserts that the run takes, at about fifteen minutes an edge; at least one.
    edges = np.maximum(columns.of(book.edges), 1)
    needed = np.maximum(np.ceil(job.quantity * job.minutes / 15.0 / edges - 1e-9), 1.0)
    stock = columns.of(book.stock)
    share = np.where(stock <= 0, BUY_SHARE, np.where(stock < needed, (1 + BUY_SHARE) / 2, 1.0))
    score = sum(points, np.full(count, BASE)) * share
    out = np.zeros(count, dtype=bool)
    for mask in broken:
        out |= mask
    return _Asked(columns, book, job, broken, points, needed, score, out)


@lru_cache(maxsize=512)
def choose(library: Library, book: Book, job: Job, shown: int = SHOWN) -> Choice:
    """The tools for a job, the best first; ties in the order of the shelf, so that the answer is always the same."""
    if not _columns(library, book.tools).tools:
        return Choice((), 0, 0)
    asked = _ask(library, book, job)
    fit = int((~asked.out).sum())
    order = np.argsort(np.where(asked.out, np.inf, -asked.score), kind="stable")[: min(shown, fit)]
    return Choice(tuple(asked.ranked(int(i)) for i in order), fit, len(asked.columns.tools) - fit)


def every_tool(library: Library, book: Book, job: Job) -> tuple[Ranked, ...]:
    """Every tool of the shelf that this kind of job could ask, in order; the rejected behind, each with its rule."""
    if not _columns(library, book.tools).tools:
        return ()
    asked = _ask(library, book, job)
    order = np.argsort(np.where(asked.out, 1e9 - asked.score, -asked.score), kind="stable")
    return tuple(asked.ranked(int(i)) for i in order)


def why_not(library: Library, book: Book, job: Job, key: str) -> Ranked | None:
    """What is to be said of one tool; None where the shelf does not put it together."""
    i = _columns(library, book.tools).index.get(key)
    return None if i is None else _ask(library, book, job).ranked(i)
