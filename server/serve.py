"""The web server: a few processes that answer on one socket, each started again when it ends.

A request is read whole before a thread answers it, and an answer is sent without one: whoever is slow holds up nobody.
"""

from __future__ import annotations

import argparse
import logging
import os
import select
import signal
import socket
import subprocess
import sys
import threading
import time
from contextlib import suppress
from pathlib import Path
from types import FrameType

from server.ending import end_with

PROCESSES, THREADS = 2, 4
CONNECTIONS = 400
QUIET_S = 30  # of a connection that sends nothing or takes nothing
HEADERS_MOST = 32_000
BODY_MOST = 12_000_000  # bytes; Django refuses what is larger in its own words, this stops what never ends
IN_MEMORY = 256_000  # of a body, and of an answer; the rest waits in a file
BACKLOG = 256
ROOT = Path(__file__).resolve().parents[1]
AGAIN_S, TRIES = 0.5, 5  # until a keeper is followed by another; of those that say why they cannot
BROKEN_S = 2.0  # a process that ends sooner is broken, and not started again


def _answer(listening: socket.socket) -> None:
    """Answer requests until ended."""
    from waitress.server import create_server  # type: ignore[import-untyped]

    from server.config.wsgi import application

    # Only the proxy that the shop named is believed; without one what came through one is seen as such.
    proxy = os.environ.get("NOBLE_ANVIL_PROXY") or None
    trusted = {"x-forwarded-for", "x-forwarded-proto", "x-forwarded-host"} if proxy else set()
    server = create_server(
        application,
        trusted_proxy=proxy,
        trusted_proxy_headers=trusted,
        clear_untrusted_proxy_headers=proxy is not None,
        sockets=[listening],
        threads=THREADS,
        connection_limit=CONNECTIONS,
        channel_timeout=QUIET_S,
        cleanup_interval=5,
        max_request_header_size=HEADERS_MOST,
        max_request_body_size=BODY_MOST + 1_000_000,
        inbuf_overflow=IN_MEMORY,
        outbuf_overflow=IN_MEMORY,
        asyncore_use_poll=True,
        expose_tracebacks=False,
        ident=None,
    )
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
    server.run()


def _fork(listening: socket.socket) -> int:
    parent = os.getpid()
    child = os.fork()
    if child:
        return child
    code = 1
    try:
        signal.signal(signal.SIGINT, signal.SIG_IGN)
        end_with(parent)
        _answer(listening)
        code = 0
    except SystemExit:
        code = 0
    except Exception:
        logging.getLogger("server").exception("A process of the web server ended.")
    finally:
        os._exit(code)


def keep_kept(keeper: int, port: int) -> None:
    """Have the application kept again where what keeps it is killed: nobody else is left who would notice.

    The new keeper ends this server and starts its own. Where it is killed before it could, another one is started.
    """

    def wait() -> None:
        with suppress(ProcessLookupError):  # it has ended already
            select.select([os.pidfd_open(keeper)], [], [])  # a process's descriptor can be read once it has ended
        reasons = 0
        while reasons < TRIES:
            code = _keep()
            if code == 0:
                return
            reasons += code > 0  # it ended by itself, with a reason; one that was killed is followed by another
            time.sleep(AGAIN_S)

    def _keep() -> int:
        log = Path(os.environ.get("NOBLE_ANVIL_DATA") or ROOT / ".data") / "keeping.log"
        with os.fdopen(os.open(log, os.O_WRONLY | os.O_CREAT | os.O_TRUNC | os.O_APPEND, 0o600), "a") as said:
            command = [str(ROOT / "anvil"), "start", "--port", str(port)]
            return subprocess.Popen(
                command, cwd=ROOT, stdin=subprocess.DEVNULL, stdout=said, stderr=said, start_new_session=True
            ).wait()

    threading.Thread(target=wait, daemon=True).start()


def main() -> int:
    """Serve until ended."""
    parser = argparse.ArgumentParser(prog="server.serve")
    parser.add_argument("--port", type=int, required=True)
    parser.add_argument("--processes", type=int, default=PROCESSES)
    parser.add_argument("--kept", type=int, default=0, help="the process that is started again where it is killed")
    given = parser.parse_args()
    listening = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
    listening.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    listening.bind(("127.0.0.1", given.port))
    listening.listen(BACKLOG)
    children = {_fork(listening) for _ in range(given.processes)}
    if given.kept:
        keep_kept(given.kept, given.port)  # after the children are made: a thread does not come along
    started, ending = time.monotonic(), False

    def end(_: int, __: FrameType | None) -> None:
        nonlocal ending
        ending = True
        for child in children:
            os.kill(child, signal.SIGTERM)

    signal.signal(signal.SIGTERM, end)
    signal.signal(signal.SIGINT, end)
    while children:
        child, _ = os.wait()
        children.discard(child)
        if ending:
            continue
        if time.monotonic() - started < BROKEN_S:  # it cannot even begin
            end(0, None)
            return 1
        started = time.monotonic()
        children.add(_fork(listening))
    return 0


if __name__ == "__main__":
    sys.exit(main())
