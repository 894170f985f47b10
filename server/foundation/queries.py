"""Reads of people."""

from __future__ import annotations

from server.foundation.models import Person, Shop
from server.foundation.problems import NotFound


def is_demo() -> bool:
    """Whether this is the demo. That is kept with its data: nothing that the application is started with changes it."""
    return Shop.objects.filter(kind=Shop.Kind.DEMO).exists()


def demo_person(role: str = "planner") -> Person | None:
    """The demo's person of a role, who exists only where the demo was loaded. Their name is their role."""
    return Person.objects.filter(username=role, role=role, is_active=True).first()


def people() -> list[Person]:
    """Everybody, by name."""
    return list(Person.objects.all())


def person_by_id(person_id: int) -> Person:
    """One person, held until the transaction ends. Raises NotFound."""
    found = Person.objects.select_for_update().filter(pk=person_id).first() if person_id < 2**63 else None
    if found is None:
        raise NotFound("There is no such person.")
    return found
