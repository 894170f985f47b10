"""Runs by their id, and those that take an item of the shelf."""

from __future__ import annotations

from django.db.models import BooleanField, Count, F, Func, Q, QuerySet, TextField, Value
from django.db.models.functions import Cast, JSONObject

from calc.shelf.all_kinds import KINDS
from calc.tools.all_kinds import TOOL_KINDS
from server.apps.runs.models import Run, RunSetup
from server.apps.shelf import queries as shelf
from server.foundation.problems import NotFound

TAKEN_THROUGH = {
    "machine": ("machine_id",),
    "material": ("material_id",),
    "chuck": ("setups__chuck_id",),
    "jaw_blank": ("setups__jaw_blank_id", "setups__jaw_set__blank_id"),
    "jaw_set": ("setups__jaw_set_id",),
    "collet": ("setups__collet_id",),
}
NO_RUN = "There is no such run on the bench."


def runs() -> QuerySet[Run]:
    """Runs with their set-ups."""
    return Run.objects.prefetch_related("setups")


def runs_that_take(kind: str, item_id: int) -> QuerySet[Run]:
    """Runs that take a shelf item, each once."""
    if kind in TOOL_KINDS:
        return _that_use(item_id)
    found = Q()
    if KINDS[kind].sought:  # looked for among all that fit the chuck: a change of one can move any run on it
        found = Q(setups__chuck_id__in=shelf.fitted(kind, item_id))
    for path in TAKEN_THROUGH.get(kind, ()):
        found |= Q(**{path: item_id})
    return runs().filter(pk__in=Run.objects.filter(found).values("pk"))


def runs_taking(kind: str) -> dict[int, tuple[int, int]]:
    """(runs, sides of them) that take each item of a kind by name, by the item's id; no sides of what is a whole run's.
    None is told of what no run names.
    """
    path = TAKEN_THROUGH.get(kind, ("",))[0]
    if not path:
        return {}
    of_a_side = path.removeprefix("setups__")
    if of_a_side == path:
        whole = Run.objects.exclude(**{path: None}).order_by().values_list(path).annotate(Count("pk"))
        return {item: (plans, 0) for item, plans in whole}
    # A set-up is kept while it is out of the plan.
    id_of, side = JSONObject(id=F("item")), Value("$.setups[*] ? (@.id == $id)")
    is_there = Func(F("run__document"), side, id_of, function="jsonb_path_exists", output_field=BooleanField())
    taken = RunSetup.objects.exclude(**{of_a_side: None}).filter(is_there).order_by()
    by_side = taken.values_list(of_a_side).annotate(Count("run", distinct=True), Count("pk"))
    return {item: (plans, sides) for item, plans, sides in by_side}


def _that_use(tool_id: int) -> QuerySet[Run]:
    """Runs whose document names a tool."""
    key = shelf.tool_key(tool_id)
    named = (
        Run.objects.annotate(written=Cast("document", TextField())).filter(written__contains=key)
        if key
        else Run.objects.none()
    )
    return runs().filter(pk__in=named.values("pk"))


def run_by_id(run_id: int, *, lock: bool = False) -> Run:
    """One run; with `lock`, nobody else changes it until the transaction ends. Raises NotFound."""
    rows = runs().select_for_update() if lock else runs()
    run = rows.filter(pk=run_id).first() if run_id < 2**63 else None
    if run is None:
        raise NotFound(NO_RUN)
    return run


def run_numbered(drawing_number: str) -> Run:
    """The run of a drawing number, the first of them. Raises NotFound."""
    run = runs().filter(drawing_number=drawing_number).first()
    if run is None:
        raise NotFound(NO_RUN)
    return run


def run_to_change(run_id: int) -> Run:
    """One run, held until the transaction ends, with the shelf that it is computed from: first the shelf, as everybody
    takes it. Raises NotFound.
    """
    shelf.hold()
    return run_by_id(run_id, lock=True)


def revision_of(run_id: int) -> int:
    """A run's revision, and nothing else. Raises NotFound."""
    found = Run.objects.filter(pk=run_id).values_list("revision", flat=True).first() if run_id < 2**63 else None
    if found is None:
        raise NotFound(NO_RUN)
    return found
