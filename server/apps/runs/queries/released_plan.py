"""A release as the core's values: its plan, and what that took from the shelf."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from uuid import UUID

from calc.errors import CalcError
from calc.plan.compute import PlanResult, compute
from calc.plan.document import Document
from calc.reading import read
from calc.shelf.taken import Shelf
from server.apps.runs.models import Release
from server.foundation.problems import NotFound

KEPT = 32  # releases, which never change
TOO_OLD = "This release was made before there were cards. Release the plan again, then open its card."


@dataclass(frozen=True)
class ReleasedPlan:
    """A plan as it was released."""

    document: Document
    shelf: Shelf


@lru_cache(maxsize=KEPT)
def released_plan(release: UUID) -> ReleasedPlan:
    """The plan of a release, by its key. Raises NotFound for one that kept nothing of the shelf."""
    document, taken = Release.objects.values_list("document", "taken").get(key=release)
    if not taken:
        raise NotFound(TOO_OLD)
    try:
        return ReleasedPlan(read(Document, document), read(Shelf, taken))
    except CalcError as error:
        raise NotFound(TOO_OLD) from error


@lru_cache(maxsize=KEPT)
def released_result(release: UUID) -> PlanResult:
    """A release computed as it was, by its key. Raises NotFound."""
    plan = released_plan(release)
    return compute(plan.document, plan.shelf)
