"""Listens to the machines that the shop has named (docs/machine-protocol.md): a connection each, one after another."""

from __future__ import annotations

import asyncio
import contextlib
import signal

from asgiref.sync import sync_to_async
from django.conf import settings
from django.db import OperationalError, close_old_connections

from server.apps.running.actions.heard import heard, news_for, note

GREETING = "MACHINE 1"
CONNECT_S, SILENT_S, AGAIN_S, NEWS_S = 3.0, 30.0, 3.0, 0.5
NONSENSE_MOST, LINE_MOST = 3, 200


def machines() -> dict[str, tuple[str, int]]:
    """The machines that this shop listens to: name -> (host, port). Only these are ever connected to."""
    found = {}
    for one in settings.MACHINES.split(","):
        name, _, place = one.partition("=")
        host, _, port = place.rpartition(":")
        if name.strip() and host and port.isdigit():
            found[name.strip()] = (host, int(port))
    return found


class _Told(Exception):
    """What is wrong with a machine, in a sentence."""


# All of them in one thread, one after another: what a machine says is kept in its order.
@sync_to_async
def _heard(name: str, line: str) -> str:
    close_old_connections()
    return heard(name, line)


@sync_to_async
def _note(name: str, trouble: str, *, is_heard: bool = True) -> None:
    close_old_connections()
    note(name, trouble, heard=is_heard)


@sync_to_async
def _news(name: str) -> list[str]:
    close_old_connections()
    return news_for(name)


async def _talk(name: str, place: tuple[str, int]) -> None:
    """Listen until it breaks off. Raises _Told."""
    try:
        reader, writer = await asyncio.wait_for(asyncio.open_connection(*place, limit=LINE_MOST), CONNECT_S)
    except (OSError, TimeoutError) as error:
        raise _Told(f"{name} does not answer at {place[0]}:{place[1]}. Is it switched on?") from error
    telling = asyncio.create_task(_tell(name, writer))
    try:
        greeting = await _line(name, reader)
        if not greeting.startswith(GREETING):
            raise _Told(f"What answers is no machine of this kind: it says “{greeting[:40]}”.")
        nonsense = 0
        while True:
            line = await _line(name, reader)
            trouble = await _heard(name, line)
            nonsense = nonsense + 1 if trouble else 0
            await _note(name, trouble if nonsense >= NONSENSE_MOST else "")
    finally:
        telling.cancel()
        writer.close()


async def _line(name: str, reader: asyncio.StreamReader) -> str:
    try:
        got = await asyncio.wait_for(reader.readline(), SILENT_S)
    except TimeoutError as error:
        raise _Told(f"{name} has said nothing for {SILENT_S:.0f} seconds.") from error
    except (ValueError, OSError) as error:
        raise _Told(f"{name} sends what is no line.") from error
    if not got.endswith(b"\n"):
        raise _Told(f"{name} broke off; it is listened for again.")
    return got.decode("ascii", "replace").strip()


async def _tell(name: str, writer: asyncio.StreamWriter) -> None:
    while True:
        await asyncio.sleep(NEWS_S)
        with contextlib.suppress(OperationalError):
            for line in await _news(name):
                writer.write(f"{line}\n".encode())
        with contextlib.suppress(OSError):
            await writer.drain()


async def _listen(name: str, place: tuple[str, int]) -> None:
    while True:
        with contextlib.suppress(OperationalError):  # the database is away: it is asked again
            try:
                await _talk(name, place)
            except _Told as told:
                await _note(name, str(told), is_heard=False)
        await asyncio.sleep(AGAIN_S)


async def listen() -> None:
    """Listen to every machine until told to stop."""
    listening = [asyncio.create_task(_listen(name, place)) for name, place in machines().items()]
    stop = asyncio.Event()
    for sign in (signal.SIGTERM, signal.SIGINT):
        asyncio.get_running_loop().add_signal_handler(sign, stop.set)
    await stop.wait()
    for task in listening:
        task.cancel()
