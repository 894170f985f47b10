"""Put the starting materials on an empty shelf."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand

from server.apps.shelf.actions.load import load_starting_materials


class Command(BaseCommand):
    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        self.stdout.write(f"{load_starting_materials()} materials came in.")
