"""Stop Tools: the right edge for every operation, from the shop's own shelf, with the reasons."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from functools import lru_cache

from calc.plan.cuts.inputs import PlannedCut
from calc.plan.cuts.solve import CUTS, CUTS_KEPT, CutFigures
from calc.plan.pictures import Outline
from calc.plan.stop import Answer, Fact, Lack, Row, Stop, Table, chosen
from calc.plan.view import View
from calc.quantities import Figure, Sentence, counted
from calc.tools.choose import Choice, Ranked, choose, why_not
from calc.tools.kinds.insert import Insert
from calc.tools.library import Library, Tool
from calc.tools.outline import outline
from calc.tools.rules.all_rules import BOOKS
from calc.working import ENTERED, Note, Working

NONE = Sentence("{w}", w="choose one below: its figures then count")


def _counted(n: int, what: str) -> str:
    return f"1 {what}" if n == 1 else f"{n} {what}s"


def choice_for(cut: CutFigures, library: Library) -> Choice:
    """The tools that the shelf offers for a cut."""
    return choose(library, BOOKS[cut.planned.kind], cut.job)


def _reasons(ranked: Ranked) -> Sentence:
    said = {f"r{i}": s for i, s in enumerate(ranked.reasons)}
    return Sentence("; ".join("{" + name + "}" for name in said), **said) if said else Sentence("fits")


def _table(at: str, cut: CutFigures, found: Choice, mine: Ranked | None) -> Table:
    path = f"{at}.cuts.{cut.id}.tool"
    rows = [
        Row(
            r.tool.name,
            (Figure(r.score, "", places=(0, 0)), _reasons(r)),
            cut.planned.tool == r.tool.key,
            path,
            r.tool.key,
        )
        for r in found.first
    ]
    if mine is not None and all(r.tool.key != mine.tool.key for r in found.first):
        rows.append(
            Row(mine.tool.name, (Figure(mine.score, "", places=(0, 0)), _reasons(mine)), True, why_not=mine.rejected)
        )
    title = f"{found.fit} of {found.fit + found.rejected} tools fit"
    return Table(f"tools_{cut.id}", title, ("tool", "score", "why"), tuple(rows), cut.id)


def _fact(at: str, planned: PlannedCut, tool: Tool | None, found: Choice | None) -> Fact:
    options: dict[str, str] = {r.tool.key: r.tool.name for r in found.first} if found else {}
    key = planned.tool
    if key:
        options.setdefault(key, tool.name if tool else "not on the shelf any more")
    source = Sentence("from the shelf") if key else NONE
    fact = chosen(f"tool_{planned.id}", f"{at}.cuts.{planned.id}.tool", key or None, options, source)
    return replace(fact, group=planned.id)


@lru_cache(maxsize=CUTS_KEPT)
def insert_outline(cut: CutFigures) -> Outline | None:
    """The chosen turning insert as it is drawn."""
    edge = cut.tool.edge if cut.tool else None
    if not isinstance(edge, Insert):
        return None
    code = edge.decoded
    words = Sentence(
        "{c}: {s}, corner {r}, {n}.",
        c=edge.code,
        s=code.letters[0].meaning,
        r=Figure(code.corner_radius_mm, "mm"),
        n=counted(code.edges, "edge"),
    )
    letters = tuple((x.symbol, x.name, x.meaning) for x in code.letters)
    hole = 0.0 if code.type in "NRF" else code.ic_mm * 0.4
    return Outline(f"insert_{cut.id}", edge.code, outline(code), hole, letters, words, cut.id)


@dataclass(frozen=True)
class _Shown:
    """A cut with the tools that the shelf offers for it, and its own among them."""

    cut: CutFigures
    found: Choice
    mine: Ranked | None

    @property
    def without(self) -> bool:
        """No tool is chosen."""
        return not self.cut.planned.tool


@lru_cache(maxsize=CUTS_KEPT)
def _looked_at(cut: CutFigures, library: Library) -> _Shown:
    found, mine = choice_for(cut, library), None
    if cut.tool is not None:
        known = next((r for r in found.first if r.tool.key == cut.tool.key), None)
        mine = known or why_not(library, BOOKS[cut.planned.kind], cut.job, cut.tool.key)
    return _Shown(cut, found, mine)


def _notes_of(one: _Shown) -> Iterator[Note]:
    cut, mine = one.cut, one.mine
    if mine is not None and mine.rejected is not None:
        words = "{cut}: {tool}: {why}."
        yield Note("stop", "tool-rejected", words, cut=cut.name, tool=mine.tool.name, why=mine.rejected)
    if one.without and one.found.fit == 0:
        words = "{cut}: no tool on the shelf does this. See why each is rejected, or put one on the shelf."
        yield Note("caution", "no-tool", words, cut=cut.name)
    if not one.without and cut.tool is None:
        words = "{cut}: its tool is not on the shelf any more. Choose another."
        yield Note("stop", "tool-gone", words, cut=cut.name)


def _whole_notes(stations: int, turret: int, without: int) -> Iterator[Note]:
    if stations > turret > 0:
        words = "{n} for {m}: let one tool do two cuts."
        yield Note("stop", "turret-full", words, n=counted(stations, "tool"), m=counted(turret, "station"))
    if without:
        words = (
            "Where no tool is chosen, the figures entered at Cuts count as they are, and whether one clears the jaws "
            "and reaches the cut is not known."
        )
        yield Note("info", "by-hand", words)


def _answers(count: int, without: int, stations: int, turret: int) -> tuple[Answer, ...]:
    w = Working()
    w.step("k", "Tools chosen", "m - u", "", ENTERED, m=float(count), u=float(without))
    w.step("s", "Different tools: a station each", "s", "", ENTERED, s=float(stations))
    chosen_now, taken = (Figure(float(n), "", places=(0, 0)) for n in (count - without, stations))
    of, room = Sentence("of {n}", n=counted(count, "operation")), "of {n} on the turret; one tool may do several cuts"
    return (
        Answer("tools_chosen", "Tools chosen", chosen_now, below=of, steps=tuple(w.steps[:1])),
        Answer("stations", "Stations taken", taken, below=Sentence(room, n=str(turret)), steps=tuple(w.steps[1:])),
    )


def _lacking(at: str, shown: Iterable[_Shown]) -> tuple[Lack, ...]:
    """Nobody stands beside a cut without a tool: what reaches it, clears the jaws and breaks its chip is not known."""
    return tuple(Lack(f"Tool of {one.cut.name}", f"{at}.cuts.{one.cut.id}.tool") for one in shown if one.without)


def show(view: View) -> Stop:
    """The stop as it is shown: a tool for each cut, the first three with their reasons."""
    setup, outcome, library, machine = view.setup, view.outcome(CUTS), view.shelf.tools, view.shelf.machine
    figures, headings = outcome.value, {c.id: c.name for c in setup.cuts}
    if figures is None:
        tools = {c.id: library.tool(c.tool) if c.tool else None for c in setup.cuts}
        facts = tuple(_fact(view.at, c, tools[c.id], None) for c in setup.cuts)
        line = Sentence("waiting on Cuts") if setup.cuts else outcome.line
        return Stop("", "", "open", line, facts, lacks=(Lack("Cuts"),), headings=headings)
    turret = machine.turret_stations if machine else 0
    shown = [_looked_at(cut, library) for cut in figures.cuts]
    count, without = len(shown), sum(one.without for one in shown)
    stations = len({c.tool for c in setup.cuts if c.tool})
    notes = (*(n for one in shown for n in _notes_of(one)), *_whole_notes(stations, turret, without))
    line = (
        Sentence("{n} of {m} chosen", n=str(count - without), m=str(count))
        if without
        else Sentence("{n} for {m}", n=_counted(stations, "tool"), m=_counted(count, "cut"))
    )
    state, lacking = outcome.state(notes), _lacking(view.at, shown)
    return Stop(
        "",
        "",
        "open" if lacking and state == "settled" else state,
        line,
        tuple(_fact(view.at, one.cut.planned, one.cut.tool, one.found) for one in shown),
        _answers(count, without, stations, turret),
        notes,
        pictures=tuple(drawn for one in shown if (drawn := insert_outline(one.cut)) is not None),
        headings=headings,
        lacks=lacking,
    )


def tables(view: View) -> tuple[Table, ...]:
    """The first three tools for each cut, with their reasons."""
    figures, library = view[CUTS], view.shelf.tools
    shown = [_looked_at(cut, library) for cut in figures.cuts] if figures else []
    return tuple(_table(view.at, one.cut, one.found, one.mine) for one in shown)
