"""Refuse a database that is none of ours, or that a newer version has kept: what that wrote is not known here."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand, CommandError
from django.db import connection
from django.db.migrations.loader import MigrationLoader

LEAST = {("foundation", "0001_initial"), ("runs", "0001_initial"), ("shelf", "0001_initial")}


class Command(BaseCommand):
    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        loader = MigrationLoader(connection)
        applied = set(loader.applied_migrations)
        if not applied >= LEAST:
            raise CommandError("this is no backup of Noble Anvil")
        newer = sorted(f"{app} {name}" for app, name in applied - set(loader.disk_migrations))
        if newer:
            raise CommandError(f"a newer version of Noble Anvil wrote this ({newer[0]})")
