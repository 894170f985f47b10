"""Who asks for a change, and how: what every change of a plan is given."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any
from uuid import UUID

from calc.quantities import System
from server.apps.runs.queries.look import Look


@dataclass(frozen=True)
class Asked:
    """Who asks, what their screen shows, with the key that keeps it once, having looked at which draft; `said` tells
    what is asked for from everything else (server.foundation.once).
    """

    person: Any
    look: Look
    key: UUID
    base_revision: int
    said: str

    @property
    def system(self) -> System:
        """The units shown."""
        return self.look.system
