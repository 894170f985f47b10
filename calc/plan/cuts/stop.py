"""Stop Cuts, as the list of stops has it."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from calc.plan.cuts.at_work import at_work
from calc.plan.cuts.carried import CARRIED
from calc.plan.cuts.drawn import layers
from calc.plan.cuts.helps import cuts_helps
from calc.plan.cuts.show import show
from calc.plan.cuts.solve import CUTS
from calc.plan.cuts.tables import tables
from calc.plan.force.solve import FORCE
from calc.plan.stop_kind import Carried, Drawing, Headline, StopKind
from calc.plan.view import View
from calc.quantities import Figure, Sentence


def _carries(view: View) -> Iterator[Carried]:
    """The clamp, or where any cut has its own the clamp of every cut: a clamp counts until the next is written."""
    setup, force = view.setup, view[FORCE]

    def carried(name: str, label: str, clamp: float | None, cap: float | None) -> Carried:
        over = clamp is not None and cap is not None and clamp > cap * (1 + 1e-9)
        warning = Sentence("above the cap of {n}", n=Figure(cap, "rpm", "down")) if over and cap is not None else None
        return Carried(name, label, None if clamp is None else Figure(clamp, "rpm", "down"), 1, warning=warning)

    if all(c.clamp_rpm is None for c in setup.cuts):
        yield carried("clamp", "Clamp", setup.clamp_rpm, force.cap_rpm if force else None)
        return
    for cut in setup.cuts:
        load = force.load_of(cut.id) if force else None
        clamp = cut.rpm if cut.rpm is not None else cut.clamp_rpm or setup.clamp_rpm
        yield carried(f"clamp_{cut.id}", f"Clamp, {cut.name}", clamp, load.cap_rpm if load else None)


def _clamp(view: View) -> float | None:
    """The highest that any cut is held to; None where one is held to nothing."""
    setup = view.setup
    held = [c.rpm if c.rpm is not None else c.clamp_rpm or setup.clamp_rpm for c in setup.cuts]
    known = [n for n in held if n is not None]
    return max(known) if known and len(known) == len(held) else setup.clamp_rpm if not held else None


def _minutes(view: View) -> float | None:
    """Of all cuts; None while one of them cannot be counted."""
    cuts = view[CUTS]
    return cuts.minutes if cuts and cuts.cuts and len(cuts.cuts) == len(view.setup.cuts) else None


def _drawings(view: View) -> Iterator[Drawing]:
    if view[CARRIED] is not None:
        yield Drawing("work", "At work", ("cuts", "tools"), partial(view.keep, "work", at_work), first=True)


CUTS_STOP = StopKind(
    "cuts",
    "Cuts",
    "What each cut does",
    show,
    helps=cuts_helps,
    tables=tables,
    layers=layers,
    drawings=_drawings,
    carries=_carries,
    headlines=(
        Headline("clamp", "clamp", "rpm", "down", _clamp, place=1, told=False),
        Headline("minutes", "in cut", "min", "up", _minutes, place=4, told=False),
    ),
    panels=("operations", "proven"),
)
