"""Reads of releases: what must be confirmed, what was released, and what differs between two of them."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from typing import Any
from uuid import UUID

from django.db.models import QuerySet

from calc.plan.cautions import cautions_of
from calc.plan.compute import PlanResult
from calc.quantities import System
from server.apps.house import queries as house
from server.apps.runs.convert.document import document_of
from server.apps.runs.convert.plates import release_plate, run_plate
from server.apps.runs.convert.released import Plain, frozen
from server.apps.runs.models import Release, Run
from server.apps.runs.queries.look import Look
from server.apps.runs.queries.plan import computed, whole_view
from server.apps.runs.schemas import CautionLine, CautionOut, DifferenceOut, DifferencesOut, ReleasesOut
from server.apps.shelf import queries as shelf
from server.foundation.problems import NotAllowed, NotFound
from server.foundation.roles import sees_drafts

# Megabytes, which are read where they are asked for and nowhere else.
NAMES_KEPT = 64
HEAVY = ("views", "programs", "document", "taken", "lines", "figures")


def _light(run: Run) -> QuerySet[Release]:
    return run.releases.select_related("by").defer(*HEAVY)


def latest(run: Run) -> Release | None:
    """The release that stands."""
    return _light(run).first()


def latest_number(run: Run) -> int | None:
    """The number of the release that stands."""
    return run.releases.values_list("number", flat=True).first()


def release_of(run: Run, number: int, *, lock: bool = False) -> Release:
    """A release by its number; with `lock`, nobody else adds to it until the transaction ends. Raises NotFound."""
    rows = _light(run).filter(number=number)
    found = (rows.select_for_update(of=("self",)) if lock else rows).first()
    if found is None:
        raise NotFound("There is no such release of this run.")
    return found


def every_release(run: Run) -> list[Release]:
    """Every release of a run, the latest first."""
    return list(_light(run))


def released_before(run: Run) -> Iterator[Release]:
    """Every release of a part, by its drawing number: the run's own first, each the latest first."""
    yield from _light(run).order_by("-number")
    others = Release.objects.filter(run__drawing_number=run.drawing_number).exclude(run=run.pk)
    yield from others.defer(*HEAVY).order_by("-at")


def release_for(run: Run, number: int | None, person: Any) -> Release:
    """A release by its number, the one that stands where none is given; who sees only what is released sees no other.

    Raises NotFound, NotAllowed.
    """
    standing = standing_release(run)
    found = standing if number in (None, standing.number) else release_of(run, number)
    if found.number != standing.number and not sees_drafts(person):
        raise NotAllowed(f"Release {number} was replaced: release {standing.number} is the one to work by.")
    return found


def released_view(release: Release, look: Look) -> Plain:
    """The plan as it was released, whole, to look at; nothing of it is computed again."""
    return frozen(release, look.system) | {
        "at": release.revision,
        "release": release_plate(release).model_dump(mode="json"),
        "may_edit": False,
        "undo": False,
        "redo": False,
        "rules": None,
    }


def names_of(release: Release, system: System) -> tuple[str, str]:
    """(name, drawing number) of the run as it was released: what it is called since is the draft's."""
    return _names(release.key, system)


@lru_cache(maxsize=NAMES_KEPT)  # a release never changes, and its views are megabytes
def _names(key: UUID, system: System) -> tuple[str, str]:
    plate = Release.objects.values_list(f"views__{system}__run", flat=True).get(key=key)
    return str(plate["name"]), str(plate["drawing_number"])


def standing_release(run: Run) -> Release:
    """The release that stands, for who sees nothing else. Raises NotFound."""
    found = latest(run)
    if found is None:
        raise NotFound("Nothing of this run is released yet. Ask its planner.")
    return found


def program(release: Release, setup: str, system: System) -> str:
    """The jaw-boring program that was released with a side. Raises NotFound."""
    programs = release.programs[system]
    # Earlier releases kept them by the place of the side.
    places = {s["id"]: str(s["index"]) for s in frozen(release, system)["sides"]}
    text = programs.get(setup) or programs.get(places.get(setup, ""))
    if text is None:
        raise NotFound("No jaw-boring program was released with this side.")
    return str(text)


@dataclass(frozen=True)
class Worked:
    """How a figure of a release came about: where it stands, what it is, and its lines."""

    stop: str
    answer: str
    steps: list[Plain]


def working_of(release: Release, system: System) -> list[Worked]:
    """The working of every figure of a release, as it was frozen, in the order of the stops."""
    view = frozen(release, system)
    parts = {part["name"]: part for part in view["parts"]}
    found = []
    for stop in view["stops"]:
        for answer in (parts.get(f"stop:{stop['key']}") or {"stop": {"answers": []}})["stop"]["answers"]:
            steps = (parts.get(f"working:{stop['key']}:{answer['name']}") or {"steps": []})["steps"]
            said = " ".join(filter(None, (f"{answer['prefix']}{answer['number']}", answer["unit"])))
            side = f", side {stop['side'] + 1}" if stop["side"] is not None else ""
            if steps:
                found.append(Worked(f"{stop['title']}{side}", f"{answer['label']}: {said}", steps))
    return found


def reasons_against(run: Run, result: PlanResult, rules: int) -> list[str]:
    """What keeps a plan from being released."""
    reasons, verdict = [], result.verdict
    left = [s.title for s in result.sides if s.id in result.left_to_look_at]
    if left:
        reasons.append(
            f"{' and '.join(left)} still {'has' if len(left) == 1 else 'have'} values that were proposed: look at "
            "them, then say that they look right."
        )
    if verdict == "stopped":
        reasons.append("A stop of the plan is stopped: settle it first.")
    if verdict == "open":
        reasons.append("A stop of the plan is still open: give what it lacks first.")
    if rules != house.current().number:
        reasons.append("The house rules changed since: take today's rules into the plan, and look at what they move.")
    if run.put_away:
        reasons.append("This run is put away. Bring it back to the bench first.")
    standing = latest(run)
    if standing is not None and standing.revision == run.revision:
        reasons.append(f"This draft is release {standing.number} already, by {standing.by.username}.")
    return reasons


def page(run: Run, system: System) -> ReleasesOut:
    """What releasing asks, and every release there was."""
    on_shelf = shelf.current()
    result = computed(run, on_shelf)
    document = document_of(run)
    every = _light(run)
    return ReleasesOut(
        run=run_plate(run, on_shelf),
        revision=run.revision,
        rules=document.rules.number,
        verdict=result.verdict,
        reasons=reasons_against(run, result, document.rules.number),
        cautions=[
            CautionOut(
                code=c.code,
                general=c.general,
                lines=[CautionLine(text=t.sentence.text(system), where=t.where) for t in c.told],
            )
            for c in cautions_of(document, result)
        ],
        releases=[release_plate(r) for r in every],
    )


Lines = dict[tuple[str, str], str]


def _lines(view: Plain) -> Lines:
    """Every figure of a plan view in words, by (stop, what)."""
    many = len(view["sides"]) > 1
    pages = {part["name"]: part["stop"] for part in view["parts"] if part.get("stop")}
    found: Lines = {}
    for stop in view["stops"]:
        title, side, page = stop["title"], stop["side"], pages[f"stop:{stop['key']}"]
        where = title if side is None or not many else f"{title}, side {side + 1}"
        titles = {h["key"]: h["title"] for h in page["headings"]}
        for fact in page["facts"]:
            group = fact["group"]
            label = f"{titles.get(group, group)}: {fact['label']}" if group else fact["label"]
            found[where, label] = f"{fact['text']} {fact['unit']}".strip() or "–"
        for answer in page["answers"]:
            found[where, answer["label"]] = f"{answer['prefix']}{answer['number']} {answer['unit']}".strip()
    return found


def compare(run: Run, one: int, other: int | None, system: System) -> DifferencesOut:
    """What differs from a release to another one, or to the draft there is. Raises NotFound."""
    before = _lines(frozen(release_of(run, one), system))
    if other is None:
        on_shelf = shelf.current()
        after = _lines(whole_view(run, computed(run, on_shelf), on_shelf, system))
    else:
        after = _lines(frozen(release_of(run, other), system))
    keys = [*before, *(k for k in after if k not in before)]
    rows = [
        DifferenceOut(
            stop=where, label=label, before=before.get((where, label), "–"), after=after.get((where, label), "–")
        )
        for where, label in keys
        if before.get((where, label)) != after.get((where, label))
    ]
    return DifferencesOut(before=one, after=other, rows=rows)
