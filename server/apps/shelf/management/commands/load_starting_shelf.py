"""Put the starting materials and tools on an empty shelf."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand

from server.apps.shelf.actions.load import load_starting_materials, load_starting_tools


class Command(BaseCommand):
    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        self.stdout.write(f"{load_starting_materials()} materials and {load_starting_tools()} tools came in.")
