"""Add a person who may sign in, or give them another role or password. The first owner comes in this way."""

from __future__ import annotations

import getpass
import sys
from typing import Any

from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.core.management.base import BaseCommand, CommandError, CommandParser

from server.foundation.models import Person


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("name")
        parser.add_argument("--role", choices=Person.Role.values, default="operator")

    def handle(self, *args: Any, **options: Any) -> None:
        asked = getpass.getpass("Password: ") if sys.stdin.isatty() else sys.stdin.readline().rstrip("\n")
        try:
            validate_password(asked)
        except ValidationError as error:
            raise CommandError(" ".join(error.messages)) from error
        person, made = Person.objects.get_or_create(username=options["name"])
        person.role, person.is_active = options["role"], True
        person.set_password(asked)
        person.save()
        self.stdout.write(f"{'Added' if made else 'Changed'} {person.username}, {person.role}.")
