"""Which tools stay on the turret from the run that stands before on the machine."""

from __future__ import annotations

from calc.plan.route.inputs import when
from calc.quantities import counted
from server.apps.runs.models import Run
from server.apps.runs.queries.board import Row, rows
from server.apps.runs.queries.standing import as_they_stand
from server.apps.runs.schemas import StaysOut

NO_MACHINE = "Choose a machine first: tools stay from the run before on it."
NONE_BEFORE = "No run stands before this one on its machine: every tool is put in."


def stays(run: Run) -> StaysOut:
    """What stays: tools that both runs take from the shelf. The run before is the last that begins before this one;
    where this one has no start, the last on the board.
    """
    found, _ = as_they_stand(lambda: [run])
    mine, now = set(found[0].standing["turret"]), run.document["route"].get("stay", 0)
    if run.machine_id is None:
        return StaysOut(tools=0, now=now, told=NO_MACHINE)
    before = _before(run, rows(run.machine_id))
    if before is None:
        return StaysOut(tools=0, now=now, told=NONE_BEFORE)
    other, _ = as_they_stand(lambda: Run.objects.filter(pk=before.pk).prefetch_related("setups"))
    name = f"{before.drawing_number} {before.name}"
    if not other:  # taken off in the meantime
        return StaysOut(tools=0, now=now, told=NONE_BEFORE)
    same = len(mine & set(other[0].standing["turret"]))
    of = f"{same} of {counted(len(mine), 'tool')} {'stays' if same == 1 else 'stay'}"
    told = f"{name} stands before it on this machine: {of}."
    return StaysOut(tools=same, now=now, told=told)


def _before(run: Run, every: list[Row]) -> Row | None:
    own = when(run.document["route"].get("start") or "")
    others = [(start, row) for row in every if row.pk != run.pk and (start := when(row.start or "")) is not None]
    earlier = [(start, row) for start, row in others if own is None or (start, row.pk) < (own, run.pk)]
    return max(earlier, key=lambda one: (one[0], one[1].pk))[1] if earlier else None
