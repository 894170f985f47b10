"""Stop Tools: the right edge for every operation, from the shop's own shelf, with the reasons."""

from __future__ import annotations

from calc.plan.cuts import CutFigures, CutsFigures
from calc.plan.document import Setup
from calc.plan.pictures import Outline
from calc.plan.stops import Answer, Fact, Outcome, Row, Stop, Table, chosen
from calc.quantities import Figure, Sentence
from calc.shelf.tools import Insert
from calc.tools.choose import Choice, Ranked, choose, why_not
from calc.tools.library import Library, Tool
from calc.tools.other_rules import BOOKS
from calc.tools.outline import outline
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


def _table(at: str, i: int, cut: CutFigures, found: Choice, mine: Ranked | None) -> Table:
    path = f"{at}.cuts.{i}.tool"
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
    return Table(f"tools_{i}", title, ("tool", "score", "why"), tuple(rows), cut.name)


def _fact(at: str, i: int, tool: Tool | None, key: str, name: str, found: Choice | None) -> Fact:
    options: dict[str, str] = {r.tool.key: r.tool.name for r in found.first} if found else {}
    if key:
        options.setdefault(key, tool.name if tool else "not on the shelf any more")
    source = Sentence("from the shelf") if key else NONE
    return _grouped(chosen(f"tool_{i}", "Tool", f"{at}.cuts.{i}.tool", key or None, options, source), name)


def _grouped(fact: Fact, group: str) -> Fact:
    return Fact(
        fact.name,
        fact.label,
        fact.value,
        fact.spec,
        fact.path,
        group,
        source=fact.source,
        basis=fact.basis,
        options=fact.options,
    )


def insert_outline(i: int, cut: CutFigures) -> Outline | None:
    """The chosen turning insert as it is drawn."""
    edge = cut.tool.edge if cut.tool else None
    if not isinstance(edge, Insert):
        return None
    code = edge.decoded
    words = Sentence(
        "{c}: {s}, corner {r}, {n} edges.",
        c=edge.code,
        s=code.letters[0].meaning,
        r=Figure(code.corner_radius_mm, "mm"),
        n=str(code.edges),
    )
    letters = tuple((x.symbol, x.name, x.meaning) for x in code.letters)
    hole = 0.0 if code.type in "NRF" else code.ic_mm * 0.4
    return Outline(f"insert_{i}", edge.code, outline(code), hole, letters, words, cut.name)


def tools_stop(at: str, setup: Setup, outcome: Outcome[CutsFigures], library: Library, turret: int = 0) -> Stop:
    """The stop as it is shown: a tool for each cut, the first three with their reasons."""
    figures = outcome.value
    facts: list[Fact] = []
    if figures is None:
        for i, planned in enumerate(setup.cuts):
            facts.append(
                _fact(at, i, library.tool(planned.tool) if planned.tool else None, planned.tool, planned.name, None)
            )
        return Stop(
            "tools", "Tools", "open", outcome.line if not setup.cuts else Sentence("waiting on Cuts"), tuple(facts)
        )
    tables: list[Table] = []
    notes: list[Note] = []
    pictures: list[Outline] = []
    without = 0
    for i, cut in enumerate(figures.cuts):
        found = choice_for(cut, library)
        book = BOOKS[cut.planned.kind]
        mine = None
        if cut.tool is not None:
            mine = next((r for r in found.first if r.tool.key == cut.tool.key), None) or why_not(
                library, book, cut.job, cut.tool.key
            )
        facts.append(_fact(at, i, cut.tool, setup.cuts[i].tool, cut.name, found))
        tables.append(_table(at, i, cut, found, mine))
        if mine is not None and mine.rejected is not None:
            notes.append(
                Note(
                    "stop",
                    "tool-rejected",
                    "{cut}: {tool}: {why}.",
                    cut=cut.name,
                    tool=mine.tool.name,
                    why=mine.rejected,
                )
            )
        if not setup.cuts[i].tool:
            without += 1
            if found.fit == 0:
                notes.append(
                    Note(
                        "caution",
                        "no-tool",
                        "{cut}: no tool on the shelf does this. See why each is rejected, or put one on the shelf.",
                        cut=cut.name,
                    )
                )
        elif cut.tool is None:
            notes.append(
                Note("stop", "tool-gone", "{cut}: its tool is not on the shelf any more. Choose another.", cut=cut.name)
            )
        drawn = insert_outline(i, cut)
        if drawn is not None:
            pictures.append(drawn)
    count = len(figures.cuts)
    stations = len({s.tool for s in setup.cuts if s.tool})
    line = (
        Sentence("{n} of {m} chosen", n=str(count - without), m=str(count))
        if without
        else Sentence("{n} for {m}", n=_counted(stations, "tool"), m=_counted(count, "cut"))
    )
    w = Working()
    w.step("k", "Tools chosen", "m - u", "", ENTERED, m=float(count), u=float(without))
    w.step("s", "Different tools: a station each", "s", "", ENTERED, s=float(stations))
    answers = (
        Answer(
            "tools_chosen",
            "Tools chosen",
            Figure(float(count - without), "", places=(0, 0)),
            below=Sentence("of {n} operations", n=str(count)),
            steps=tuple(w.steps[:1]),
        ),
        Answer(
            "stations",
            "Stations taken",
            Figure(float(stations), "", places=(0, 0)),
            below=Sentence("of {n} on the turret; one tool may do several cuts", n=str(turret)),
            steps=tuple(w.steps[1:]),
        ),
    )
    if stations > turret > 0:
        notes.append(
            Note(
                "stop",
                "turret-full",
                "{n} tools for {m} stations: let one tool do two cuts.",
                n=str(stations),
                m=str(turret),
            )
        )
    if without:
        notes.append(Note("info", "by-hand", "Where no tool is chosen, the figures entered at Cuts count as they are."))
    state = outcome.state(tuple(notes))
    return Stop(
        "tools",
        "Tools",
        state,
        line,
        tuple(facts),
        answers,
        tuple(notes),
        tables=tuple(tables),
        pictures=tuple(pictures),
    )
