"""A shelf of tools for tests: the starting one, with something in stock."""

from dataclasses import replace
from functools import cache

from calc.data.tools import starting_tools
from calc.tools.all_kinds import TOOL_KINDS
from calc.tools.library import Library

ROWS = {name: kind.plural for name, kind in TOOL_KINDS.items()}


@cache
def starting_library():
    return Library.of({kind: [TOOL_KINDS[kind].read(row) for row in rows] for kind, rows in starting_tools().items()})


def stocked(**pieces):
    """The starting shelf with pieces of inserts, by key with _ for -."""
    library = starting_library()
    named = {k.replace("_", "-"): n for k, n in pieces.items()}
    return replace(library, inserts=tuple(replace(i, stock=named.get(i.key, 0)) for i in library.inserts))


def enlarged(count):
    """A shelf of about `count` items: the starting one again and again under other keys."""
    library = starting_library()
    times = count // sum(len(getattr(library, name)) for name in ROWS.values()) + 1
    more = {
        name: tuple(replace(t, key=f"{t.key}-{i}") for i in range(times) for t in getattr(library, name))
        for name in ROWS.values()
    }
    return Library(**more)
