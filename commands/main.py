"""The list of commands."""

from __future__ import annotations

import os
from collections.abc import Callable

from commands.places import PYTHON, ROOT, environment, say


def _start(arguments: list[str]) -> int:
    from commands.start import start

    return start(arguments)


def _stop(arguments: list[str]) -> int:
    from commands.start import stop

    return stop(arguments)


def _status(arguments: list[str]) -> int:
    from commands.status import status

    return status(arguments)


def _fuzz(arguments: list[str]) -> int:
    from commands.quality import with_app

    return with_app("bench.fuzz", arguments)


def _person(arguments: list[str]) -> int:
    from commands.start import manage

    return manage(["person", *arguments])


def _backup(arguments: list[str]) -> int:
    from commands.keeping import backup

    return backup(arguments)


def _restore(arguments: list[str]) -> int:
    from commands.keeping import restore

    return restore(arguments)


def _torture(arguments: list[str]) -> int:
    from commands.quality import torture

    return torture(arguments)


def _calc(arguments: list[str]) -> int:
    if not PYTHON.exists():
        from commands.setup import ensure_debian, ensure_python

        ensure_debian(browser=False)
        ensure_python()
    # Replaced by the core itself: nothing of this command is left in the way of its input and output.
    os.chdir(ROOT)
    os.execve(PYTHON, [str(PYTHON), "-m", "calc", *arguments], environment())


def _plan(arguments: list[str]) -> int:
    if not PYTHON.exists():
        from commands.setup import ensure_debian, ensure_python

        ensure_debian(browser=False)
        ensure_python()
    # Paths are those of where it is called from.
    os.execve(PYTHON, [str(PYTHON), "-m", "commands.plan", *arguments], environment(PYTHONPATH=str(ROOT)))


def _test(arguments: list[str]) -> int:
    from commands.quality import test

    return test(arguments)


def _device(module: str) -> Callable[[list[str]], int]:
    def go(arguments: list[str]) -> int:
        import subprocess

        from commands.places import PYTHON, environment
        from commands.setup import ensure

        ensure()
        return subprocess.run([str(PYTHON), "-m", module, *arguments], env=environment(), check=False).returncode

    return go


def _check(arguments: list[str]) -> int:
    from commands.quality import check

    return check(arguments)


def _format(arguments: list[str]) -> int:
    from commands.quality import tidy

    return tidy(arguments)


def _with_app(module: str) -> Callable[[list[str]], int]:
    def go(arguments: list[str]) -> int:
        from commands.quality import with_app

        return with_app(module, arguments)

    return go


COMMANDS: dict[str, tuple[Callable[[list[str]], int], str]] = {
    "start": (_start, "set up and serve the application (--port N, --no-demo for a shop of your own)"),
    "stop": (_stop, "end what runs, however it was started"),
    "status": (_status, "what runs, where, and how full it is"),
    "backup": (_backup, "write everything into FILE"),
    "restore": (_restore, "put FILE back in place of what is there"),
    "test": (_test, "run every test, or some: ./anvil test -k NAME"),
    "check": (_check, "format, lint, types, import rules, API document"),
    "format": (_format, "write formatting, the API document and its TypeScript types"),
    "calc": (_calc, "one calculator: ./anvil calc NAME < input.json; without NAME, the list"),
    "plan": (_plan, "a plan without server or database: ./anvil plan RUN_OR_FILE [--set PATH=VALUE] [--side N]"),
    "bench": (_with_app("bench.run"), "measure speed and memory; prints a table"),
    "torture": (_torture, "kill server, workers and database at random under edits, and prove that none is lost"),
    "fuzz": (_fuzz, "send N seeded requests, most of them wrong, and prove that none is answered by a failure"),
    "shots": (_with_app("bench.shots"), "make the pictures in docs/screenshots"),
    "gauge": (
        _device("devices.gauge"),
        "a simulated grip gauge on loopback; --help tells what it can be made to do wrong",
    ),
    "instrument": (
        _device("devices.instrument"),
        "a simulated instrument on loopback: size, indicator or coolant; --help tells its faults",
    ),
    "machine": (_device("devices.machine"), "a simulated lathe on loopback that counts; --help tells its faults"),
    "person": (_person, "add somebody who signs in: ./anvil person NAME; asks for role and password"),
}


def main(arguments: list[str]) -> int:
    """Run one command; gives the exit code."""
    name, *rest = arguments or ["help"]
    if name in COMMANDS:
        return COMMANDS[name][0](rest)
    say("Noble Anvil: ./anvil COMMAND\n")
    for command, (_, what) in COMMANDS.items():
        say(f"  {command:8} {what}")
    return 0 if name in ("help", "--help", "-h") else 2
