"""Note on the trail what a command did: trail WHAT [ABOUT]."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from server.foundation import trail


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("what", choices=sorted(trail.WORDS))
        parser.add_argument("about", nargs="?", default="")

    def handle(self, *args: Any, **options: Any) -> None:
        trail.note(options["what"], about=options["about"])
