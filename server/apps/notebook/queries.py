"""Reads of the notebook: its pages, its file, and what is like a planned cut."""

from __future__ import annotations

import csv
import io
import operator
from functools import reduce
from typing import Any
from uuid import UUID

from django.db.models import Q, QuerySet

from calc.fields import Choice, Quantity
from calc.notebook.proven import Proven, Situation, most_like
from calc.plan.cuts.solve import CutFigures
from calc.plan.cuts.tooling import situation_of
from calc.quantities import System, shown_as
from server.apps.card.queries import noted as card
from server.apps.gauge import queries as gauge
from server.apps.notebook import convert
from server.apps.notebook.models import ProvenCut
from server.apps.notebook.schemas import (
    EverythingAsk,
    EverythingOut,
    LikeLine,
    LikeOut,
    NotebookAsk,
    NotebookField,
    NotebookOption,
    NotebookOut,
    ProvenLine,
)
from server.apps.running.queries import noted as running
from server.apps.runs.queries.tools import cut_of
from server.apps.shelf.queries import noted as jaws
from server.foundation.problems import NotFound
from server.foundation.schemas import NotedOut
from server.foundation.sheets import cell

PAGE = 30
SHOWN = 100  # of everything, the newest
LOOKED_AT = 2000  # rows of the kind that are compared with a planned cut, the newest first
SEARCHED = ("material", "machine", "insert", "holder", "remarks", "kind")


def _found(find: str, kind: str, group: str, *, drafts: bool = True) -> QuerySet[ProvenCut]:
    rows = ProvenCut.objects.select_related("by")
    # PostgreSQL takes no such sign in a text.
    find, kind, group = (words.replace("\x00", " ") for words in (find, kind, group))
    searched = (*SEARCHED, "run_name") if drafts else SEARCHED
    if kind:
        rows = rows.filter(kind=kind)
    if group:
        rows = rows.filter(iso_group=group)
    for word in find.split():
        rows = rows.filter(reduce(operator.or_, (Q(**{f"{n}__icontains": word}) for n in searched)))
    return rows


def line(row: ProvenCut, system: System, *, drafts: bool = True) -> ProvenLine:
    """A proven cut as a line; with the run it was kept from for who sees drafts, whose words that name may be."""
    return ProvenLine(
        id=row.pk,
        said=convert.words(convert.value(row), system),
        run=row.run_name if drafts else "",
        by=row.by.username if row.by else "",
        at=row.at,
    )


def form(system: System) -> list[NotebookField]:
    """The fields of a proven cut that is written by hand."""
    found = []
    for name, field in convert.FIELDS.items():
        spec = field.spec
        options = (
            [NotebookOption(value=k, label=v) for k, v in spec.options.items()] if isinstance(spec, Choice) else None
        )
        found.append(
            NotebookField(
                name=name,
                label=spec.label,
                help=spec.help,
                unit=shown_as(spec.unit, system).unit if isinstance(spec, Quantity) else "",
                kind="quantity" if isinstance(spec, Quantity) else "choice" if options else "text",
                options=options,
                required=field.required,
            )
        )
    return found


def page(asked: NotebookAsk, *, drafts: bool) -> NotebookOut:
    """A page of the notebook, the newest first."""
    rows, number, system = _found(asked.find, asked.kind, asked.group, drafts=drafts), asked.page, asked.units
    count = rows.count()
    return NotebookOut(
        lines=[line(r, system, drafts=drafts) for r in rows[number * PAGE : (number + 1) * PAGE]],
        count=count,
        page=number,
        pages=max(1, -(-count // PAGE)),
        fields=form(system),
    )


def row_by_key(key: UUID) -> ProvenCut:
    """One row by the key it was sent under. Raises NotFound."""
    row = ProvenCut.with_taken_out.filter(key=key).first()
    if row is None:
        raise NotFound("There is no such cut in the notebook any more.")
    return row


def row_by_id(pk: int, *, taken_out: bool = False) -> ProvenCut:
    """One row of the notebook, or of those taken out. Raises NotFound."""
    row = ProvenCut.with_taken_out.filter(pk=pk, taken_out=taken_out).first() if pk < 2**63 else None
    if row is None:
        raise NotFound("There is no such cut in the notebook any more.")
    return row


def planned(run_id: int, setup: str, cut: str) -> tuple[Any, CutFigures, Situation]:
    """(run, figures, situation) of a planned cut. Raises NotFound or Conflict."""
    run, figures, part = cut_of(run_id, setup, cut)
    now = situation_of(figures.planned, figures.tool, part)
    return run, figures, now


def like(run_id: int, setup: str, cut: str, system: System) -> LikeOut:
    """Proven cuts like a planned one, the most like first, each with why."""
    run, figures, now = planned(run_id, setup, cut)
    rows = {convert.value(r): r for r in reversed(_found("", now.kind, "")[:LOOKED_AT])}
    return LikeOut(
        revision=run.revision,
        cut=figures.name,
        cuts=[
            LikeLine(
                **line(rows[x.proven], system).model_dump(),
                score=round(x.score),
                why=[r.text(system) for r in x.reasons],
            )
            for x in most_like(now, rows)
        ],
    )


def proven_of(kind: str | None = None) -> tuple[Proven, ...]:
    """What the notebook holds, the newest first."""
    return tuple(convert.value(r) for r in _found("", kind or "", "")[:LOOKED_AT])


def file() -> str:
    """The whole notebook as CSV, figures in core units."""
    out = io.StringIO()
    names = list(convert.FIELDS)
    writer = csv.DictWriter(out, names, lineterminator="\r\n")
    writer.writeheader()
    for row in ProvenCut.objects.order_by("pk").iterator():
        value = convert.value(row)
        writer.writerow({n: _cell(getattr(value, n)) for n in names})
    return out.getvalue()


def _cell(value: Any) -> str:
    if value is None:
        return ""
    if isinstance(value, float):
        return repr(value).removesuffix(".0")
    return cell(str(value))


def words_of(value: Proven, system: System) -> str:
    """A proven cut in a line."""
    said = convert.words(value, system)
    return " · ".join(said[n] for n in ("speed_m_min", "feed_mm_rev", "depth_mm", "insert") if said[n])


def everything(asked: EverythingAsk) -> EverythingOut:
    """The newest of everything that was noted at the machines, found by any words."""
    system = asked.units
    lines = [
        *(_noted(row, system) for row in _found("", "", "")[:LOOKED_AT]),
        *running.noted(LOOKED_AT),
        *card.noted(system, LOOKED_AT),
        *gauge.noted(system, LOOKED_AT),
        *jaws.noted(system, LOOKED_AT),
    ]
    words = asked.find.lower().split()
    found = [
        one
        for one in lines
        if (not asked.kind or one.kind == asked.kind)
        and all(word in f"{one.of} {one.words} {one.by}".lower() for word in words)
    ]
    found.sort(key=lambda one: one.on, reverse=True)
    return EverythingOut(lines=found[:SHOWN], count=len(found), due=card.coolant_due())


def _noted(row: ProvenCut, system: System) -> NotedOut:
    value = convert.value(row)
    said = convert.words(value, system)
    words = " · ".join(filter(None, (said["kind"], words_of(value, system), value.remarks)))
    return NotedOut(
        kind="cut",
        of=" on ".join(filter(None, (value.material, value.machine))),
        words=words,
        on=row.on or row.at.date(),
        by=row.by.username if row.by else "",
        href="/notebook",
    )
