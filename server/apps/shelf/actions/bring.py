"""Bring an item onto the shelf that comes with a run file; what stands there already stays as it is."""

from __future__ import annotations

from dataclasses import dataclass

from calc.errors import FieldProblem
from calc.fields import Quantity
from calc.item import Item
from calc.quantities import Sentence
from calc.shelf.all_kinds import KINDS
from server.apps.shelf import convert
from server.apps.shelf.actions.load import renew
from server.apps.shelf.convert import Links
from server.apps.shelf.models import ShelfChange
from server.apps.shelf.queries.rows import rows_of
from server.apps.shelf.queries.words import label
from server.foundation.models import Person

OWN = ("stock", "stored", "lent_to")  # of this shop, whatever the file says
LABELS_TOLD = 3


@dataclass(frozen=True)
class Bring:
    """An item of a file: its kind, its value, what it belongs to by key, and where in the file it stands."""

    kind: str
    item: Item
    links: Links
    at: str


def bring(given: Bring, by: Person) -> str:
    """Put the item on the shelf where none has its key; gives a sentence where there is something to tell.

    An item of the same key stays as it is, and is told where its figures are others than the file's. Raises CalcError
    at the item's place in the file where it can be neither.
    """
    kind = KINDS[given.kind]
    row = rows_of(kind.name).filter(key=given.item.key).first() if convert.is_key(given.item.key) else None
    if row is not None:
        mine, theirs = convert.flat(row), kind.flat(given.item)
        differs = [n for n in mine if n not in OWN and mine[n] != theirs[n]]
        if kind.chart and convert.chart_of(row) != kind.chart_of(given.item):
            differs.append("chart")
        return _differing(kind.noun, row.name, [label(kind, n) for n in differs])
    _refuse(given)
    row = convert.model_of(kind.name)(key=given.item.key)
    convert.write(row, kind, kind.flat(given.item), given.links)
    # Figures of another shop are not this shop's own until somebody says so.
    row.typical = sorted(f.name for f in kind.fields if isinstance(f.field.spec, Quantity) and f.name not in OWN)
    row.revision = 1
    row.save()
    convert.write_parts(row, kind, given.links, kind.chart_of(given.item))
    changes = {n: [None, v] for n, v in kind.flat(given.item).items()}
    ShelfChange.objects.create(kind=kind.name, item_key=row.key, revision=1, changes=changes, by=by)
    renew()
    return f"{kind.noun.capitalize()} “{row.name}” was put on the shelf from the file, its figures typical."


def _differing(noun: str, name: str, labels: list[str]) -> str:
    if not labels:
        return ""
    told = ", ".join(labels[:LABELS_TOLD]) + (" and more" if len(labels) > LABELS_TOLD else "")
    return f"{noun.capitalize()} “{name}”: the shelf's own figures are used; the file has others ({told})."


def _refuse(given: Bring) -> None:
    """Raise CalcError where the item cannot be put on the shelf."""
    kind, item = KINDS[given.kind], given.item
    if not convert.is_key(item.key):
        words = Sentence("The key of {n} must be small letters, figures and - only.", n=item.name)
    elif convert.model_of(given.kind)._default_manager.filter(key=item.key).exists():
        words = Sentence("The key {k} belongs to another kind of tool on this shelf.", k=item.key)
    elif rows_of(given.kind).filter(name__iexact=item.name).exists():
        words = Sentence(
            "There is a {w} “{n}” on this shelf under another key: rename one of them, here or in the file.",
            w=kind.noun,
            n=item.name,
        )
    else:
        return
    raise FieldProblem(given.at, words)
