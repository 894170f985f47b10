"""Load the demo shop, once."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand

from server.apps.demo.actions import load_demo


class Command(BaseCommand):
    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        self.stdout.write("Loaded the demo shop." if load_demo() else "The demo shop is there already.")
