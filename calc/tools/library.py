"""All tools of a shelf, and the ways they go together."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Annotated, Any

from calc.fields import Group
from calc.tools.all_kinds import TOOL_KINDS
from calc.tools.kinds.blade import Blade
from calc.tools.kinds.drill import Drill
from calc.tools.kinds.groove_insert import GrooveInsert
from calc.tools.kinds.holder import Holder
from calc.tools.kinds.insert import Insert
from calc.tools.kinds.thread_insert import ThreadInsert

Cutting = Insert | GrooveInsert | ThreadInsert | Drill
Carrying = Holder | Blade
Seated = Insert | GrooveInsert | ThreadInsert  # what a carrier of its seat takes
JOINT = "/"
MOST = 50_000  # tools of a kind


@dataclass(frozen=True)
class Tool:
    """A tool ready to use: what cuts, and what carries it (None: a drill carries itself)."""

    edge: Cutting
    carrier: Carrying | None = None

    @property
    def key(self) -> str:
        """How a plan names it: the keys of both, "cnmg120408/l25"."""
        return self.edge.key if self.carrier is None else f"{self.edge.key}{JOINT}{self.carrier.key}"

    @property
    def name(self) -> str:
        """How a setter names it."""
        return self.edge.name if self.carrier is None else f"{self.edge.name} on {self.carrier.name}"


@dataclass(frozen=True, eq=False)  # a shelf is itself: compared at every key that is pressed
class Library:
    """The tools of a shelf by kind."""

    inserts: Annotated[tuple[Insert, ...], Group("Inserts", most=MOST)] = ()
    groove_inserts: Annotated[tuple[GrooveInsert, ...], Group("Grooving inserts", most=MOST)] = ()
    thread_inserts: Annotated[tuple[ThreadInsert, ...], Group("Threading inserts", most=MOST)] = ()
    holders: Annotated[tuple[Holder, ...], Group("Holders and bars", most=MOST)] = ()
    drills: Annotated[tuple[Drill, ...], Group("Drills", most=MOST)] = ()
    blades: Annotated[tuple[Blade, ...], Group("Blades", most=MOST)] = ()

    @classmethod
    def of(cls, kinds: Mapping[str, Iterable[Any]]) -> Library:
        """A library from its tools by kind."""
        return cls(**{TOOL_KINDS[kind].plural: tuple(tools) for kind, tools in kinds.items()})

    def of_kind(self, kind: str) -> tuple[Any, ...]:
        """Its tools of a kind."""
        found: tuple[Any, ...] = getattr(self, TOOL_KINDS[kind].plural)
        return found

    def with_kind(self, kind: str, tools: Iterable[Any]) -> Library:
        """The same with other tools of a kind."""
        return replace(self, **{TOOL_KINDS[kind].plural: tuple(tools)})

    def of_tools(self, keys: Iterable[str]) -> Library:
        """The same with what these tools are made of alone, by the keys that plans name them by."""
        parts = {part for key in keys for part in key.split(JOINT)}
        return replace(
            self,
            **{
                kind.plural: tuple(t for t in getattr(self, kind.plural) if t.key in parts)
                for kind in TOOL_KINDS.values()
            },
        )

    @cached_property
    def edges(self) -> dict[str, Cutting]:
        """Everything that cuts, by key."""
        every: tuple[Cutting, ...] = (*self.inserts, *self.groove_inserts, *self.thread_inserts, *self.drills)
        return {e.key: e for e in every}

    @cached_property
    def carriers(self) -> dict[str, Carrying]:
        """Everything that carries an edge, by key."""
        every: tuple[Carrying, ...] = (*self.holders, *self.blades)
        return {c.key: c for c in every}

    @cached_property
    def turning(self) -> tuple[Tool, ...]:
        """Every turning insert in every holder of its seat."""
        return self._pairs(self.inserts, [h for h in self.holders if h.use == "turning"])

    @cached_property
    def grooving(self) -> tuple[Tool, ...]:
        """Every grooving insert in every holder of its seat."""
        return self._pairs(
            [i for i in self.groove_inserts if i.use != "part"], [h for h in self.holders if h.use == "grooving"]
        )

    @cached_property
    def threading(self) -> tuple[Tool, ...]:
        """Every threading insert in every holder of its seat."""
        return self._pairs(self.thread_inserts, [h for h in self.holders if h.use == "threading"])

    @cached_property
    def parting(self) -> tuple[Tool, ...]:
        """Every parting insert in every blade of its seat, and in groovers of its seat."""
        inserts = [i for i in self.groove_inserts if i.use != "groove"]
        return self._pairs(
            inserts, [*self.blades, *(h for h in self.holders if h.use == "grooving" and h.side == "outside")]
        )

    @cached_property
    def drilling(self) -> tuple[Tool, ...]:
        """Every drill."""
        return tuple(Tool(d) for d in self.drills)

    @staticmethod
    def _pairs(edges: Iterable[Seated], carriers: Iterable[Carrying]) -> tuple[Tool, ...]:
        by_seat = defaultdict(list)
        for carrier in carriers:
            by_seat[carrier.seat.upper()].append(carrier)
        return tuple(Tool(e, c) for e in edges for c in by_seat[e.seat.upper()])

    def tool(self, key: str) -> Tool | None:
        """The tool a plan names; None where a part of it is not on the shelf, or does not fit any more."""
        first, _, second = key.partition(JOINT)
        edge = self.edges.get(first)
        if edge is None:
            return None
        if not second:
            return Tool(edge) if isinstance(edge, Drill) else None
        carrier = self.carriers.get(second)
        if carrier is None or isinstance(edge, Drill) or carrier.seat.upper() != edge.seat.upper():
            return None
        return Tool(edge, carrier)


EMPTY = Library()
