"""How questions stand, over HTTP. They are asked where they belong: at a plan, at the shelf."""

from __future__ import annotations

from uuid import UUID

from django.http import HttpRequest
from ninja import Router, Status

from server.apps.questions.actions.ask import cancel
from server.apps.questions.queries.standing import own_question, stand
from server.apps.questions.schemas import QuestionOut
from server.foundation.roles import require_sees_drafts
from server.foundation.schemas import Problem

router = Router(tags=["questions"])
REFUSALS = {401: Problem, 403: Problem, 404: Problem, 422: Problem}


@router.get("/questions/{uuid:key}", response={200: QuestionOut, **REFUSALS}, operation_id="question")
def one(request: HttpRequest, key: UUID) -> QuestionOut:
    """How one of your questions stands; its answer, once it is there."""
    require_sees_drafts(request.user)  # also of who asked it in another role
    return stand(own_question(key, request.user))


@router.delete("/questions/{uuid:key}", response={204: None, **REFUSALS}, operation_id="cancelQuestion")
def take_back(request: HttpRequest, key: UUID) -> Status[None]:
    """Take one of your questions back; what computes it is ended."""
    cancel(key, request.user)
    return Status(204, None)
