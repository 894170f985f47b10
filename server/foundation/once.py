"""What is sent twice is kept once: by its key, and only where it is the very same thing of the same person."""

from __future__ import annotations

import json
from hashlib import sha256
from typing import Any
from uuid import UUID

from server.foundation.models import Person, Sent
from server.foundation.problems import Conflict

ANOTHER = "This was sent under a key that something else was sent under before. Nothing was kept: do it again."


def digest_of(*said: Any) -> str:
    """What tells one thing that was sent from another."""
    return sha256(json.dumps(said, sort_keys=True, default=str).encode()).hexdigest()


def was_sent(key: UUID, person: Person, said: str) -> bool:
    """Whether this very thing was kept under its key already; else it is now noted that it is, in this transaction.

    Whoever sends it at the same moment waits for the first. Raises Conflict where the key was used for something else,
    or by somebody else.
    """
    sent, is_new = Sent.objects.get_or_create(key=key, defaults={"by": person, "said": said})
    if not is_new and (sent.by_id, sent.said) != (person.pk, said):
        raise Conflict(ANOTHER)
    return not is_new
