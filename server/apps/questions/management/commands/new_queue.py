"""Make the queue anew, empty, where a database was put back without one."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand
from django.db import connection, transaction
from django.db.migrations.loader import MigrationLoader
from procrastinate.contrib.django import app

QUEUE = "procrastinate"


class Command(BaseCommand):
    help = __doc__

    @transaction.atomic
    def handle(self, *args: Any, **options: Any) -> None:
        loader = MigrationLoader(connection)
        own = [key for key in loader.disk_migrations if key[0] == QUEUE]
        with connection.cursor() as cursor:
            cursor.execute(app.schema_manager.get_schema())
            cursor.execute("DELETE FROM django_migrations WHERE app = %s", [QUEUE])
            # As its migrations would have made it, one by one.
            cursor.executemany("INSERT INTO django_migrations (app, name, applied) VALUES (%s, %s, now())", sorted(own))
