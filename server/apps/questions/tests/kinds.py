"""Kinds of questions for tests of the worker: slow ones, and some that bring down what computes them."""

from __future__ import annotations

import os
import signal
import time

from pydantic import BaseModel

from server.apps.questions.kind import Found, QuestionKind
from server.apps.questions.models import Question


class Word(BaseModel):
    """An answer."""

    pid: int


def slow(arguments, person, tell):
    """Take ten seconds."""
    for done in range(100):
        tell(done, 100)
        time.sleep(0.1)
    return Found(Word(pid=os.getpid()))


def quick(arguments, person, tell):
    """Answer at once."""
    return Found(Word(pid=os.getpid()))


def stuck(arguments, person, tell):
    """Compute without end, and listen to nothing."""
    while True:
        sum(range(10_000_000))


def dying(arguments, person, tell):
    """Bring the process down as often as it is told to."""
    if Question.objects.get(key=arguments["key"]).tries <= arguments["times"]:
        os.kill(os.getpid(), signal.SIGKILL)
    return Found(Word(pid=os.getpid()))


def broken(arguments, person, tell):
    """Fail as no person could make it."""
    raise RuntimeError("broken on purpose")


def _kind(find, seconds=60.0, **more):
    name = find.__name__
    return QuestionKind(name, Word, lambda _: "", find, lambda a: f"{name} {a.get('key')}", seconds, **more)


ALL_KINDS = (_kind(slow), _kind(quick), _kind(stuck, 1.0), _kind(dying), _kind(broken))
