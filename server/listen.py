"""What listens to the machines, as a process: `python -m server.listen`."""

import argparse
import asyncio
import os
import sys

from server.ending import end_with


def main() -> int:
    """Listen until told to stop."""
    parser = argparse.ArgumentParser(prog="python -m server.listen")
    parser.add_argument("--with", dest="parent", type=int, help="the process that started it, with which it ends")
    given = parser.parse_args()
    if given.parent is not None:
        end_with(given.parent)
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.config.settings")
    import django

    django.setup()
    from server.apps.running.listening import listen

    asyncio.run(listen())
    return 0


if __name__ == "__main__":
    sys.exit(main())
