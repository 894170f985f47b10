"""Who asks for a change, and how: what every change of a plan is given."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any
from uuid import UUID

from calc.quantities import System


@dataclass(frozen=True)
class Asked:
    """Who asks, in which units, with the key that keeps it once, having looked at which draft."""

    person: Any
    system: System
    key: UUID
    base_revision: int
