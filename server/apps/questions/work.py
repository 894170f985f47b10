"""Answering questions from the queue: one process computes, and is ended when its question is.

`python -m server.work` runs until it is ended. What it leaves behind when it is killed, the next one
finds and asks once more.
"""

from __future__ import annotations

import asyncio
import logging
import multiprocessing
import os
import signal
import sys
import threading
from concurrent.futures import TimeoutError
from functools import cache
from typing import Any

from asgiref.sync import sync_to_async

from server.apps.questions.computing import ready
from server.ending import end_with

TRIES = 2
COMPUTING = 2  # processes that compute; they stand back behind light questions
LISTENING = 4
CHORE_S = 120.0  # of one round
ENDED_AFTER = 200  # questions: a process gives its memory back


@cache
def _pool() -> Any:
    from pebble import ProcessPool

    from server.apps.questions.computing import begin

    context = multiprocessing.get_context("forkserver")
    context.set_forkserver_preload(["server.apps.questions.ready"])
    return ProcessPool(COMPUTING, max_tasks=ENDED_AFTER, initializer=begin, initargs=[os.getpid()], context=context)


async def computed(key: str) -> None:
    """Have a question computed. Cancelled, or too late, what computes it is ended within a moment."""
    from pebble import ProcessExpired

    from server.apps.questions.actions.answer import give_up, tell_again
    from server.apps.questions.computing import compute

    seconds = await sync_to_async(_seconds)(key)
    for attempt in range(TRIES):
        future = _pool().schedule(compute, args=(key,), timeout=seconds)
        try:
            await asyncio.wrap_future(future)
        except TimeoutError:
            await sync_to_async(give_up)(key, f"It took longer than {seconds:.0f} seconds and was ended.")
        except ProcessExpired:
            if attempt + 1 < TRIES:
                await sync_to_async(tell_again)(key)
                continue
            await sync_to_async(give_up)(key, "The process that computed this ended twice. It is not asked again.")
        except asyncio.CancelledError:
            future.cancel()  # the process that computes it is ended
            raise
        return


def _seconds(key: str) -> float:
    from server.apps.questions.kind import kind_of
    from server.apps.questions.models import Question

    kind = Question.objects.filter(pk=key).values_list("kind", flat=True).first()
    return kind_of(kind).seconds if kind else 1.0


class Cancelled(Exception):
    """Nobody waits for it any more."""


async def listened(key: str) -> None:
    """Answer a question here, which mostly waits for something outside; cancelled, it ends at its next word."""
    cancelled = threading.Event()
    try:
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
    from pebble import ProcessExpired

    from server.apps.questions.computing import do_chore

    more = False
    while True:
        await asyncio.sleep(0 if more else rests)
        try:
            more = await asyncio.wrap_future(_pool().schedule(do_chore, args=(name,), timeout=CHORE_S))
        except (TimeoutError, ProcessExpired):
            more = False
        except Exception:
            logging.getLogger("server").exception("The chore “%s” went wrong.", name)
            more = False


def recover() -> int:
    """Ask once more what a worker that was killed left behind; gives how many."""
    from procrastinate.contrib.django import app

    from server.apps.questions.actions.answer import give_up, tell_again
    from server.apps.questions.actions.ask import put_in_queue
    from server.apps.questions.kind import kind_of
    from server.apps.questions.models import Question

    left = list(Question.objects.filter(state=Question.State.WORKING))
    for question in left:
        if question.job is not None:
            app.job_manager.cancel_job_by_id(question.job, abort=True)
        if question.tries >= TRIES:
            give_up(str(question.pk), "The process that computed this ended twice. It is not asked again.")
            continue
        tell_again(str(question.pk))
        put_in_queue(question, kind_of(question.kind))
    return len(left)


async def _work() -> None:
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
        await asyncio.wait([asyncio.create_task(ending.wait()), *running], return_when=asyncio.FIRST_COMPLETED)
        for task in running:
            task.cancel()
        await asyncio.gather(*running, return_exceptions=True)


def main() -> int:
    """Answer questions until ended."""
    import django

    if "--with-parent" in sys.argv:
        end_with(os.getppid())
    django.setup()
    recover()
    pool = _pool()
    pool.schedule(ready)  # the first question finds a process that is there
    try:
        asyncio.run(_work())
    finally:
        pool.stop()
        pool.join(2)
    return 0
