"""Reads of releases: what must be confirmed, what was released, and what differs between two of them."""

from __future__ import annotations

from calc.plan.cautions import cautions_of
from calc.quantities import System
from server.apps.house import queries as house
from server.apps.runs.convert.document import document_of
from server.apps.runs.convert.plates import release_plate, run_plate
from server.apps.runs.convert.released import as_of_today
from server.apps.runs.models import Release, Run
from server.apps.runs.queries.plan import computed, looker, read_by
from server.apps.runs.schemas import CautionOut, DifferenceOut, DifferencesOut, PlanOut, ReleasesOut
from server.apps.shelf import queries as shelf
from server.foundation.problems import NotFound


def latest(run: Run) -> Release | None:
    """The release that stands."""
    return run.releases.select_related("by").first()


def release_of(run: Run, number: int) -> Release:
    """A release by its number. Raises NotFound."""
    found = run.releases.select_related("by").filter(number=number).first()
    if found is None:
        raise NotFound("There is no such release of this run.")
    return found


def _frozen(release: Release, system: System) -> PlanOut:
    view = release.views[system]
    return PlanOut.model_validate(as_of_today(view, release.document) if release.form == 1 else view)


def released_view(release: Release, system: System) -> PlanOut:
    """The plan as it was released, to look at; nothing of it is computed again."""
    view = _frozen(release, system)
    view.at, view.release = release.revision, release_plate(release)
    view.may_edit = view.undo = view.redo = False
    view.rules = None
    return view


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
    places = {s.id: str(s.index) for s in _frozen(release, system).sides}
    text = programs.get(setup) or programs.get(places.get(setup, ""))
    if text is None:
        raise NotFound("No jaw-boring program was released with this side.")
    return str(text)


def reasons_against(run: Run, verdict: str, rules: int) -> list[str]:
    """What keeps a plan from being released."""
    reasons = []
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
    every = run.releases.select_related("by").defer("views", "programs", "document")
    return ReleasesOut(
        run=run_plate(run, on_shelf),
        revision=run.revision,
        rules=document.rules.number,
        verdict=result.verdict,
        reasons=reasons_against(run, result.verdict, document.rules.number),
        cautions=[
            CautionOut(code=c.code, text=c.sentence.text(system), where=c.where) for c in cautions_of(document, result)
        ],
        releases=[release_plate(r) for r in every],
    )


Lines = dict[tuple[str, str], str]


def _lines(view: PlanOut) -> Lines:
    """Every figure of a plan view in words, by (stop, what)."""
    many = len(view.sides) > 1
    found: Lines = {}
    for stop in view.stops:
        where = stop.title if stop.side is None or not many else f"{stop.title}, side {stop.side + 1}"
        titles = {h.key: h.title for h in stop.headings}
        for fact in stop.facts:
            label = f"{titles.get(fact.group, fact.group)}: {fact.label}" if fact.group else fact.label
            found[where, label] = f"{fact.text} {fact.unit}".strip() or "–"
        for answer in stop.answers:
            found[where, answer.label] = f"{answer.prefix}{answer.number} {answer.unit}".strip()
    return found


def compare(run: Run, one: int, other: int | None, system: System) -> DifferencesOut:
    """What differs from a release to another one, or to the draft there is. Raises NotFound."""
    before = _lines(_frozen(release_of(run, one), system))
    if other is None:
        on_shelf = shelf.current()
        after = _lines(read_by(run, computed(run, on_shelf), on_shelf, looker(run, system)))
    else:
        after = _lines(_frozen(release_of(run, other), system))
    keys = [*before, *(k for k in after if k not in before)]
    rows = [
        DifferenceOut(
            stop=where, label=label, before=before.get((where, label), "–"), after=after.get((where, label), "–")
        )
        for where, label in keys
        if before.get((where, label)) != after.get((where, label))
    ]
    return DifferencesOut(before=one, after=other, rows=rows)
