"""Run several management commands one after the other: starting a process takes longer than most of them."""

from __future__ import annotations

import shlex
from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandParser


class Command(BaseCommand):
    help = __doc__
    requires_system_checks: list[str] = []

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("commands", nargs="+", help="each with its arguments, as one word")

    def handle(self, *args: Any, **options: Any) -> None:
        for command in options["commands"]:
            call_command(*shlex.split(command), stdout=self.stdout)
