"""A process that ends with another one, however that one ends."""

from __future__ import annotations

import os
import select
import threading


def end_with(process: int) -> None:
    """End this process as soon as the other one has ended. It may be killed: nobody has to tell."""
    try:
        other = os.pidfd_open(process)
    except ProcessLookupError:
        os._exit(1)  # it has ended already

    def wait() -> None:
        select.select([other], [], [])  # a process's descriptor can be read once it has ended
        os._exit(1)

    threading.Thread(target=wait, daemon=True).start()
