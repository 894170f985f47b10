"""The trail: who came in, who did not, and what was done to the shop's doors, rules and plans."""

from __future__ import annotations

from contextvars import ContextVar
from typing import Any

from server.foundation.models import Person, TrailEntry

# What is noted, as an owner reads it.
WORDS = {
    "signed-in": "signed in",
    "refused": "could not sign in",
    "resting": "was kept waiting after too many wrong passwords",
    "signed-out": "signed out",
    "everywhere": "ended every session",
    "password": "set a new password",
    "lifted": "let sign in again at once",
    "person": "added",
    "role": "gave another role",
    "closed": "closed the account",
    "opened": "opened the account again",
    "rules": "changed house rules",
    "calendar": "changed the shop's calendar",
    "released": "released a plan",
    "run-deleted": "took a run off for good",
    "backup": "wrote a backup",
    "restored": "put a backup back",
    "begun": "began the shop",
}
AT_THE_MACHINE = "the command line"  # who it was where nobody is signed in and no name was given
KEPT = 20_000  # entries; the oldest go first
SHOWN = 100
# Where the request at hand comes from; "" where there is none, such as on the command line.
address: ContextVar[str] = ContextVar("address", default="")


def note(what: str, by: Any = None, about: str = "", name: str = "") -> None:
    """Note something that happened, within the transaction that does it."""
    assert what in WORDS
    TrailEntry.objects.create(
        what=what,
        by=by if isinstance(by, Person) else None,
        name=(name or ("" if isinstance(by, Person) else AT_THE_MACHINE))[:60].replace("\x00", ""),
        about=about[:200].replace("\x00", ""),
        address=address.get()[:45],
    )


def entries(before: int | None) -> list[TrailEntry]:
    """The newest entries, or those before one of them."""
    found = TrailEntry.objects.select_related("by").order_by("-pk")
    return list((found if before is None else found.filter(pk__lt=before))[:SHOWN])


def bound() -> int:
    """Let go of the oldest entries where there are more than are kept; gives how many."""
    oldest = TrailEntry.objects.order_by("-pk").values_list("pk", flat=True)[KEPT : KEPT + 1].first()
    return TrailEntry.objects.filter(pk__lte=oldest).delete()[0] if oldest else 0
