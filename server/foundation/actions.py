"""Changes to people."""

from __future__ import annotations

from server.foundation.models import Person


def load_person(name: str, role: str) -> bool:
    """Add somebody who cannot sign in with a password; gives whether they were added now."""
    person, made = Person.objects.get_or_create(username=name, defaults={"role": role})
    if made:
        person.set_unusable_password()
        person.save()
    return made
