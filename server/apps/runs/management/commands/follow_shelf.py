"""Write again how every run stands, after the rules that compute it have changed."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand

from server.apps.runs.actions.follow_shelf import follow_all


class Command(BaseCommand):
    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        self.stdout.write(f"{follow_all()} runs looked at.")
