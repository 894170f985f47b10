"""Tools at stations of a turret for the least index time: calculator `turret-order`."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from calc.describing import calculator
from calc.results import Explained, Found
from calc.route.arranging import Search, improved, in_order_of_use
from calc.route.stations import TURRET, Turret, TurretOrderInput, indexing_of
from calc.working import Working

EXACT_UP_TO = 8  # tools; beyond, an order is improved as long as it can be


@dataclass(frozen=True, slots=True, kw_only=True)
class TurretOrderResult(Explained):
    """Where each tool stands, and what indexing takes for a piece."""

    stations: Annotated[dict[str, int], Found("Stations")]
    index_s: Annotated[float, Found("Indexing, a piece", "s", "up", places=(2, 2))]
    in_order_s: Annotated[float, Found("In the order of use", "s", "up", places=(2, 2))]
    least: Annotated[bool, Found("No order takes less")]


@calculator(TurretOrderInput)
def turret_order(given: TurretOrderInput) -> TurretOrderResult:
    """The station of each tool for the least index time of a piece, back to the first tool included.

    Parameters
        {parameters}
    Returns
        stations: name -> number; index_s [s] of a piece; in_order_s [s], what the order of use would take;
        least: no other arrangement takes less, proved up to 8 tools
    Raises
        CalcError: two tools of one name or at one station, a tool that there is not, a station that does not take what
        is pinned to it, fewer stations than tools
    Validity
        Changes between tools only; what the slide does meanwhile is not in it. Tools of `apart` are neighbours only
        where pins or too few stations leave nothing else.
    Example
        >>> from calc.route.stations import TurretTool
        >>> tools = tuple(TurretTool(n) for n in "abc")
        >>> r = turret_order(TurretOrderInput(12, tools, ("a", "b", "c", "b")))
        >>> r.stations, round(r.index_s, 2)
        ({'a': 1, 'b': 2, 'c': 3}, 1.6)

    Reference
        derived in docs/method.md, “Stations of the turret”
    """
    turret = Turret(given)
    used = in_order_of_use(turret)
    search = Search(turret, improved(turret, used))
    least = search.run() if len(given.tools) <= EXACT_UP_TO else False
    w, total = Working(), 0.0
    for i, j, often in turret.changes:
        away = (search.best[j] - search.best[i]) % given.stations
        one = indexing_of(given).seconds(w, away, f"{given.tools[i].name} to {given.tools[j].name}")
        label = "Indexing of a piece so far"
        total = w.step("t_i", label, "t_i + m*t_x", "s", TURRET, t_i=total, m=float(often), t_x=one)
    stations = {t.name: search.best[i] + 1 for i, t in enumerate(given.tools)}
    return TurretOrderResult(
        stations=stations,
        index_s=total,
        in_order_s=turret.indexing(used),
        least=least,
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )
