"""What is asked of the notebook for a plan."""

from __future__ import annotations

from ninja import Field

from server.apps.runs.asks import BasedKeyed


class ProvenTake(BasedKeyed):
    """A proven cut's figures to take into a plan."""

    proven: int = Field(ge=1)
