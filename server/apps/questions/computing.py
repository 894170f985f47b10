"""What runs in the process that computes: it can be ended at any moment, and takes nothing with it."""

from __future__ import annotations

import os

from server.ending import end_with

NICE = 10  # a light question of somebody else comes first


def begin(worker: int) -> None:
    """Before the first question: stand back behind light questions, and end when the worker does, however it ends.

    `worker` is the process id of the one that hands out the questions.
    """
    os.nice(NICE)
    end_with(worker)


def ready() -> None:
    """Nothing: the process is there."""


def do_chore(name: str) -> bool:
    """Do something that is done again and again; gives whether there is more of it."""
    from django.db import close_old_connections
    from django.utils.module_loading import import_string

    close_old_connections()
    return bool(import_string(name)())


def compute(key: str) -> None:
    """Answer a question."""
    from django.db import close_old_connections

    from server.apps.questions.actions.answer import answer, begun

    close_old_connections()
    question = begun(key)
    if question is not None:
        answer(question)
