"""Add a person who may sign in, or give them another role or password. The first owner comes in this way."""

from __future__ import annotations

import getpass
import sys
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import transaction

from server.foundation import trail
from server.foundation.actions import checked_name, checked_password
from server.foundation.entering import lift, one_name
from server.foundation.models import Person
from server.foundation.problems import BadValue
from server.foundation.queries import is_demo


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("name")
        parser.add_argument("--role", choices=Person.Role.values, help="asked for where it is not given")

    def handle(self, *args: Any, **options: Any) -> None:
        if is_demo():
            raise CommandError(
                "This is the demo: nobody signs in here. Begin your own shop: ./anvil stop, ./anvil start --no-demo"
            )
        role = options["role"] or self._role()
        asked = getpass.getpass("Password: ") if sys.stdin.isatty() else sys.stdin.readline().rstrip("\n")
        try:
            person, made = self._keep(options["name"], role, asked)
        except BadValue as error:
            raise CommandError(error.message) from error
        self.stdout.write(f"{'Added' if made else 'Changed'} {person.username}, {person.role}.")

    def _role(self) -> str:
        """The role, asked for: what somebody may do is never taken for granted."""
        self.stdout.write(f"Role ({', '.join(Person.Role.values)}): ", ending="")
        self.stdout.flush()
        said = sys.stdin.readline().strip().lower()
        if said not in Person.Role.values:
            raise CommandError(f"Give one of these roles: {', '.join(Person.Role.values)}.")
        return said

    @transaction.atomic
    def _keep(self, name: str, role: str, password: str) -> tuple[Person, bool]:
        person = Person.objects.filter(username__iexact=one_name(name)).first()
        made = person is None
        person = person or Person(username=checked_name(name))
        person.role, person.is_active = role, True
        person.set_password(checked_password(password, person))
        person.save()
        lift(person)
        trail.note("person" if made else "password", about=f"{person.username}, {role}")
        return person, made
