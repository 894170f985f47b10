"""A run's whole folder as one PDF: card, releases, readings, the working of every figure. Made by a worker."""

from __future__ import annotations

from base64 import b64decode, b64encode
from collections.abc import Iterator
from typing import Any
from uuid import UUID

from django.utils.text import get_valid_filename

from calc.quantities import System
from server.apps.card.models import Mark, Reading
from server.apps.card.paper import Printed, Sheet, pdf_of
from server.apps.card.queries.cards import OneCard, card_page
from server.apps.card.schemas import FolderIn, FolderOut
from server.apps.questions.actions.ask import ask
from server.apps.questions.kind import Arguments, Found, QuestionKind, Tell
from server.apps.questions.queries.standing import found_by
from server.apps.questions.schemas import QuestionOut
from server.apps.runs.queries.find import run_by_id
from server.apps.runs.queries.releases import every_release, standing_release, working_of
from server.foundation.roles import require_sees_drafts

SECONDS = 90.0


def ask_for_folder(run_id: int, given: FolderIn, origin: str, person: Any) -> QuestionOut:
    """Ask for the folder of the release that stands; `origin` is where the application is served.

    Raises NotAllowed, NotFound.
    """
    require_sees_drafts(person)
    standing_release(run_by_id(run_id))
    arguments = {"run": run_id, "units": given.units, "paper": given.paper, "origin": origin}
    return ask(FOLDER, arguments | {"key": str(given.key)}, given.key, person)


def folder_of(run_id: int, key: UUID, person: Any) -> tuple[str, bytes]:
    """(file name, PDF) of a folder that was made. Raises NotAllowed, NotFound; Conflict where more was done since."""
    require_sees_drafts(person)
    kept = found_by(key, FOLDER.name, {"run": run_id}, _basis({"run": run_id}), person)
    return str(kept["name"]), b64decode(kept["pdf"])


def _basis(arguments: Arguments) -> str:
    """A folder is of a release and of what was done at the machine until then."""
    release = standing_release(run_by_id(arguments["run"]))
    marks, readings = (rows.filter(release__run=release.run_id).count() for rows in (Mark.objects, Reading.objects))
    return f"{release.number} {marks} {readings}"


def _make(arguments: Arguments, person: Any, tell: Tell) -> Found:
    run_id, system = arguments["run"], arguments["units"]
    tell(0, 2)
    one = card_page(run_id, None, system, person)
    address = f"{arguments['origin']}/runs/{run_id}/card"
    sheets = tuple(_sheets(run_id, one, system))
    tell(1, 2)
    pdf = pdf_of(one.page, one.views, Printed(arguments["paper"], address, sheets=sheets))
    name = get_valid_filename(f"{one.page.drawing_number}-folder.pdf"[-80:])
    href = f"/api/runs/{run_id}/folder/{arguments['key']}.pdf"
    answer = FolderOut(release=one.page.release.number, size=len(pdf), href=href)
    return Found(answer, {"name": name, "pdf": b64encode(pdf).decode()})


def _sheets(run_id: int, one: OneCard, system: System) -> Iterator[Sheet]:
    run = run_by_id(run_id)
    releases = every_release(run)
    yield Sheet(
        "Releases",
        [
            (f"Release {r.number}", f"{r.at:%-d %b %Y %H:%M} UTC, by {r.by.username}", r.note or "no note")
            for r in releases
        ],
    )
    titles = {s.id: s.title for s in one.page.card.steps}
    readings = Reading.objects.filter(release__run=run.pk).select_related("by", "release")
    shown = {(r.step, r.at): r.shown for r in one.page.readings}
    yield Sheet(
        "Readings",
        [
            (
                f"{r.at:%-d %b %Y %H:%M} UTC",
                f"release {r.release.number}: {titles.get(r.step, r.step)}",
                shown.get((r.step, r.at), "") or ", ".join(map(str, r.typed.values() or r.values.values())),
                r.by.username + (f", {r.instrument}" if r.instrument else ""),
                " ".join(r.told[system]["told"]["words"]),
            )
            for r in readings
        ]
        or [("Nothing was read yet.",)],
    )
    release = next(r for r in releases if r.number == one.page.release.number)
    stop = ""
    for worked in working_of(release, system):
        title, stop = worked.answer if worked.stop == stop else f"{worked.stop}: {worked.answer}", worked.stop
        lines = [
            (s["label"], f"{s['symbol']} = {s['formula']}", s["substituted"], f"{s['value']} {s['unit']}", s["source"])
            for s in worked.steps
        ]
        yield Sheet(title, lines, is_part=True)


FOLDER = QuestionKind("folder", FolderOut, _basis, _make, lambda a: f"folder {a['run']}", SECONDS)
