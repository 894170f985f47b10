"""Answering questions from the queue: one process computes, and is ended when its question is.

`python -m server.work` runs until it is ended. What it leaves behind when it is killed, the next one
finds and asks once more.
"""

from __future__ import annotations

import asyncio
import logging
import os
import signal
import sys
import threading
from collections import Counter
from collections.abc import Iterator
from concurrent.futures import TimeoutError
from contextlib import contextmanager
from datetime import timedelta
from functools import cache

from asgiref.sync import sync_to_async
from django.db import InterfaceError, OperationalError
from django.utils import timezone

from server.apps.questions.computing import compute, do_chore
from server.apps.questions.pool import COMPUTING, DIED, Pool
from server.ending import end_with

TRIES = 2
LISTENING = 4
CHORE_S = 120.0  # of one round
RECOVER_S = 5.0
AWAY = (OperationalError, InterfaceError)


_pool = cache(Pool)
_answering: Counter[str] = Counter()


@contextmanager
def _here(key: str) -> Iterator[None]:
    """A question that is answered here: nobody has lost it."""
    _answering[key] += 1
    try:
        yield
    finally:
        _answering[key] -= 1
        if not _answering[key]:
            del _answering[key]


async def computed(key: str, seconds: float) -> None:
    """Have a question computed. Cancelled, or too late, what computes it is ended within a moment.

    What kind of question it is is not asked here: that would load all that computes into this process as well, and the
    first question would wait for it.
    """
    with _here(key):
        await _computed(key, seconds)


async def _computed(key: str, seconds: float) -> None:
    from server.apps.questions.actions.answer import give_up, tell_again

    for attempt in range(TRIES):
        future = _pool().schedule(compute, key, seconds=seconds)
        try:
            await asyncio.wrap_future(future)
        except TimeoutError:
            await sync_to_async(give_up)(key, f"It took longer than {seconds:.0f} seconds and was ended.")
        except DIED:
            if attempt + 1 < TRIES:
                await sync_to_async(tell_again)(key)
                continue
            await sync_to_async(give_up)(key, "The process that computed this ended twice. It is not asked again.")
        except asyncio.CancelledError:
            future.cancel()  # the process that computes it is ended
            raise
        return


class Cancelled(Exception):
    """Nobody waits for it any more."""


async def listened(key: str) -> None:
    """Answer a question here, which mostly waits for something outside; cancelled, it ends at its next word."""
    cancelled = threading.Event()
    try:
        with _here(key):
            await asyncio.to_thread(_listen, key, cancelled)
    except asyncio.CancelledError:
        cancelled.set()
        raise


def _listen(key: str, cancelled: threading.Event) -> None:
    from django.db import close_old_connections

    from server.apps.questions.actions.answer import answer, begun
    from server.apps.questions.models import Question

    def tell(done: int, of: int) -> None:
        if cancelled.is_set():
            raise Cancelled
        Question.objects.filter(pk=key).update(done=done, of=of)

    close_old_connections()
    try:
        question = begun(key)
        if question is not None:
            answer(question, tell)
    except Cancelled:
        pass
    finally:
        close_old_connections()


async def _do_again_and_again(name: str, rests: float) -> None:
    """Do a chore while there is something to do, and rest in between; what goes wrong once is tried again."""
    more = False
    while True:
        await asyncio.sleep(0 if more else rests)
        try:
            more = await asyncio.wrap_future(_pool().schedule(do_chore, name, seconds=CHORE_S))
        except (TimeoutError, *DIED):
            more = False
        except AWAY:
            more = False
        except Exception:
            logging.getLogger("server").exception("The chore “%s” went wrong.", name)
            more = False


def recover(older_s: float = 0.0) -> int:
    """Ask once more what nobody answers any more, because the worker or the database was killed; gives how many.

    An open question is either answered here just now, or its job waits in the queue. Those asked a moment ago
    (`older_s`) may be on their way from there to here.
    """
    from procrastinate.contrib.django import app
    from procrastinate.contrib.django.models import ProcrastinateJob

    from server.apps.questions.actions.answer import give_up, tell_again
    from server.apps.questions.actions.ask import put_in_queue
    from server.apps.questions.kind import kind_of
    from server.apps.questions.models import Question
    from server.apps.questions.queries.standing import OPEN

    waits = set(ProcrastinateJob.objects.filter(status="todo").values_list("pk", flat=True))
    here = set(_answering)
    found = 0
    asked = Question.objects.filter(state__in=OPEN, asked_at__lt=timezone.now() - timedelta(seconds=older_s))
    for question in asked.exclude(pk__in=here):
        if question.job in waits and question.state == Question.State.WAITING:
            continue
        found += 1
        if question.job is not None:
            app.job_manager.cancel_job_by_id(question.job, abort=True)
        if question.tries >= TRIES:
            give_up(str(question.pk), "The process that computed this ended twice. It is not asked again.")
            continue
        tell_again(str(question.pk))
        put_in_queue(question, kind_of(question.kind))
    return found


async def _recover_again_and_again() -> None:
    """What the database lost when it was killed is asked once more."""
    while True:
        await asyncio.sleep(RECOVER_S)
        try:
            await sync_to_async(recover)(RECOVER_S)
        except AWAY:
            pass  # it looks again
        except Exception:
            logging.getLogger("server").exception("Looking for questions that nobody answers went wrong.")


async def _work() -> bool:
    """Work until told to end; False where it ends because something of it went wrong."""
    from django.conf import settings
    from procrastinate.contrib.django import app

    worker = app.with_connector(app.connector.get_worker_connector())  # type: ignore[attr-defined] # Django's has it
    ending = asyncio.Event()
    for name in (signal.SIGTERM, signal.SIGINT):
        asyncio.get_running_loop().add_signal_handler(name, ending.set)
    async with worker.open_async():
        running = [
            asyncio.create_task(
                worker.run_worker_async(
                    queues=[queue],
                    name=queue,
                    concurrency=most,
                    install_signal_handlers=False,
                    delete_jobs="always",
                    shutdown_graceful_timeout=0.0,
                )
            )
            for queue, most in (("computing", COMPUTING), ("listening", LISTENING))
        ]
        running += [asyncio.create_task(_do_again_and_again(*chore)) for chore in settings.CHORES.items()]
        running.append(asyncio.create_task(_recover_again_and_again()))
        await asyncio.wait([asyncio.create_task(ending.wait()), *running], return_when=asyncio.FIRST_COMPLETED)
        for task in running:
            task.cancel()
        for left in await asyncio.gather(*running, return_exceptions=True):
            if isinstance(left, Exception):  # not what was told to end just now
                logging.getLogger("server").error("What answers long questions went wrong.", exc_info=left)
    return ending.is_set()


def _given(option: str) -> int | None:
    return int(sys.argv[sys.argv.index(option) + 1]) if option in sys.argv else None


def main() -> int:
    """Answer questions until ended."""
    import django

    by, tells = _given("--with"), _given("--tells")
    if by is not None:
        end_with(by)
    django.setup()
    recover()
    pool = _pool()
    waking = pool.wake()  # the first question finds a process that is there
    if tells is not None:
        waking.add_done_callback(lambda _: os.close(tells))  # read at the other end, it says that we are awake
    try:
        return 0 if asyncio.run(_work()) else 1
    finally:
        pool.stop()
