"""The processes that compute, in place of which new ones are made where they can no longer be asked."""

from __future__ import annotations

import logging
import multiprocessing
import os
from concurrent.futures import Future
from concurrent.futures.process import BrokenProcessPool
from threading import Lock
from typing import Any

from pebble import ProcessExpired, ProcessPool

from server.apps.questions.computing import begin, ready

COMPUTING = 2  # processes; they stand back behind light questions
ENDED_AFTER = 200  # questions: a process gives its memory back
DIED = (ProcessExpired, BrokenProcessPool)  # what a future tells where its process ended, or all of them did


class Pool:
    """Has things computed in other processes.

    Where one ends while it has nothing to do, the pool below takes itself for broken and refuses whatever comes
    after: it is given up for a new one, and what was under way in it tells that it died.
    """

    def __init__(self) -> None:
        self._context = multiprocessing.get_context("forkserver")
        self._context.set_forkserver_preload(["server.apps.questions.ready"])
        self._changing = Lock()
        self._below = self._made()

    def _made(self) -> Any:
        return ProcessPool(
            COMPUTING, max_tasks=ENDED_AFTER, initializer=begin, initargs=[os.getpid()], context=self._context
        )

    def _whole(self) -> Any:
        with self._changing:
            if not self._below.active:
                logging.getLogger("server").warning("The processes that compute had ended; others take their place.")
                self._below.stop()
                self._below = self._made()
            return self._below

    def schedule(self, function: Any, *arguments: Any, seconds: float | None = None) -> Future[Any]:
        """What `function(*arguments)` will give; ended where it takes longer than `seconds`."""
        return self._whole().schedule(function, args=arguments, timeout=seconds)  # type: ignore[no-any-return]

    def wake(self) -> Future[Any]:
        """Done once there is a process that computes."""
        return self.schedule(ready)

    def stop(self) -> None:
        """End all of them."""
        self._below.stop()
        self._below.join(2)
