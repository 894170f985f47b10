"""Begin a shop in an empty database: begin_shop demo, or begin_shop real. It stays what it was begun as."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from server.apps.demo.actions import begin
from server.apps.demo.machine_side import set_half
from server.foundation.models import Shop
from server.foundation.problems import Conflict


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("kind", choices=Shop.Kind.values)
        parser.add_argument("--unless-begun", action="store_true", help="leave what an earlier version began")

    def handle(self, *args: Any, **options: Any) -> None:
        if options["unless_begun"] and Shop.objects.exists():
            return
        try:
            begin(options["kind"])
            if options["kind"] == Shop.Kind.DEMO:
                set_half()
        except Conflict as error:
            raise CommandError(str(error)) from error
        self.stdout.write(f"Began a {options['kind']} shop.")
