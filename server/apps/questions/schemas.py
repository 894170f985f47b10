"""Wire shapes of questions."""

from __future__ import annotations

from typing import Any, Literal
from uuid import UUID

from ninja import Schema
from pydantic import BaseModel

from server.foundation.schemas import Problem


class AskIn(Schema):
    """A question that takes long: its key, so that asking twice asks once."""

    key: UUID


class QuestionOut(BaseModel):
    """How a question stands: how far it has come of how much, and at the end its answer, or why there is none."""

    key: UUID
    kind: str
    state: Literal["waiting", "working", "done", "failed", "cancelled", "dropped"]
    told: str
    done: int
    of: int
    before: int
    answer: Any
    problem: Problem | None
