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

from calc.quantities import Sentence
from calc.tools.library import Library, Tool

Array = NDArray[Any]
BASE = 50.0
BUY_SHARE = 0.9  # what must be bought counts a tenth less: stock within 10 % of it is taken first
SHOWN = 3


@dataclass(frozen=True)
class Job:
    """What an operation asks of a tool; lengths and diameters in mm, None where nothing is asked.

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
    quantity: int = 1
    minutes: float = 0.0
    shank_mm: float | None = None
    bar_seat_mm: float | None = None
    turret: str = ""
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


@dataclass(frozen=True)
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


def _needed(columns: Columns, book: Book, job: Job) -> Array:
    """Whole inserts that the run takes, at about fifteen minutes an edge; at least one."""
    edges = np.maximum(columns.of(book.edges), 1)
    return np.maximum(np.ceil(job.quantity * job.minutes / 15.0 / edges - 1e-9), 1.0)


def _scores(columns: Columns, book: Book, job: Job) -> tuple[Array, Array]:
    """(score, rejected) of every tool."""
    count = len(columns.tools)
    out = np.zeros(count, dtype=bool)
    for rule in book.rules:
        out |= rule.breaks(columns, job)
    score = np.full(count, BASE)
    for preference in book.preferences:
        score = score + preference.points(columns, job)
    stock = columns.of(book.stock)
    score = score * np.where(
        stock <= 0, BUY_SHARE, np.where(stock < _needed(columns, book, job), (1 + BUY_SHARE) / 2, 1.0)
    )
    return score, out


def _explained(columns: Columns, book: Book, job: Job, i: int, score: float) -> Ranked:
    tool = columns.tools[i]
    for rule in book.rules:
        if bool(rule.breaks(columns, job)[i]):
            return Ranked(tool, score, rejected=rule.why(tool, job))
    told = [(float(p.points(columns, job)[i]), p) for p in book.preferences]
    said = [p.says(tool, job) for points, p in sorted(told, key=lambda x: -abs(x[0])) if abs(points) >= p.said_from]
    stock, needed = book.stock(tool), int(_needed(columns, book, job)[i])
    about = Sentence("{n} in stock", n=str(stock)) if stock >= needed else Sentence("must be bought") if stock <= 0 else Sentence(
        "only {n} in stock; the run takes about {m}", n=str(stock), m=str(needed))  # fmt: skip
    return Ranked(tool, score, (*(s for s in said if s is not None), about))


def choose(library: Library, book: Book, job: Job, shown: int = SHOWN) -> Choice:
    """The tools for a job, the best first; ties in the order of the shelf, so that the answer is always the same."""
    columns = _columns(library, book.tools)
    if not columns.tools:
        return Choice((), 0, 0)
    score, out = _scores(columns, book, job)
    order = np.argsort(np.where(out, -np.inf, score) * -1, kind="stable")
    fit = int((~out).sum())
    first = tuple(_explained(columns, book, job, int(i), float(score[i])) for i in order[: min(shown, fit)])
    return Choice(first, fit, len(columns.tools) - fit)


def every_tool(library: Library, book: Book, job: Job) -> tuple[Ranked, ...]:
    """Every tool of the shelf that this kind of job could ask, in order; the rejected behind, each with its rule."""
    columns = _columns(library, book.tools)
    if not columns.tools:
        return ()
    score, out = _scores(columns, book, job)
    broken = [rule.breaks(columns, job) for rule in book.rules]
    points = [p.points(columns, job) for p in book.preferences]
    order = np.argsort(np.where(out, 1e9 - score, -score), kind="stable")
    found = []
    for i in (int(i) for i in order):
        tool = columns.tools[i]
        why = next((rule.why(tool, job) for rule, mask in zip(book.rules, broken, strict=True) if mask[i]), None)
        told = sorted(
            ((float(p[i]), rule) for p, rule in zip(points, book.preferences, strict=True)), key=lambda x: -abs(x[0])
        )
        said = tuple(s for n, p in told if abs(n) >= p.said_from and (s := p.says(tool, job)) is not None)
        found.append(Ranked(tool, float(score[i]), said if why is None else (), why))
    return tuple(found)


def why_not(library: Library, book: Book, job: Job, key: str) -> Ranked | None:
    """What is to be said of one tool; None where the shelf does not put it together."""
    columns = _columns(library, book.tools)
    i = columns.index.get(key)
    if i is None:
        return None
    score, _ = _scores(columns, book, job)
    return _explained(columns, book, job, i, float(score[i]))
