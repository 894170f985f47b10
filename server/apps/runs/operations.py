"""Wire shapes of operations: tools to choose from, and what settling found."""

from __future__ import annotations

from pydantic import BaseModel


class ToolOut(BaseModel):
    """A tool with its score and reasons, or the rule that rejects it."""

    key: str
    name: str
    score: int
    chosen: bool
    why: list[str]
    rejected: str


class ToolsOut(BaseModel):
    """The tools for a cut, the best first; `path` is where the chosen one is kept."""

    revision: int
    cut: str
    path: str
    fit: int
    rejected: int
    tools: list[ToolOut]


class SettledCut(BaseModel):
    """A cut settled: minutes before and after, what binds (and the minutes without it), what would bind then."""

    index: int
    name: str
    words: str
    before: float
    after: float
    binds: str
    without: float | None
    then: str
    gives_up: list[str]
    tried: int


class SettledOut(BaseModel):
    """What settling found, at which draft."""

    revision: int
    words: str
    cuts: list[SettledCut]
