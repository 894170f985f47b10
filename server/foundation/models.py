"""People and their roles, and what rows that people edit share."""

from __future__ import annotations

from django.conf import settings
from django.contrib.auth.models import AbstractUser
from django.db import models
from django.db.models.functions import Lower
from django.utils.crypto import salted_hmac


class Person(AbstractUser):
    """Somebody who signs in.

    Owners manage people, and do what planners do; planners change plans and the shelf; setters change the
    chuck's condition and what is measured; operators look.
    """

    class Role(models.TextChoices):
        OWNER = "owner"
        PLANNER = "planner"
        SETTER = "setter"
        OPERATOR = "operator"

    role = models.CharField(max_length=20, choices=Role.choices, default=Role.OPERATOR)
    sign_outs = models.PositiveIntegerField(default=0, help_text="Counted up to end every session there is")

    class Meta:
        ordering = ["username"]
        constraints = [
            models.CheckConstraint(
                condition=models.Q(role__in=["owner", "planner", "setter", "operator"]), name="person_role_known"
            ),
            models.UniqueConstraint(Lower("username"), name="person_name_once"),
        ]

    def get_session_auth_hash(self) -> str:
        """What a session is bound to: it ends with a new password, and when the person signs out everywhere."""
        salt = "server.foundation.models.Person.session"
        return salted_hmac(salt, f"{self.password} {self.sign_outs}", algorithm="sha256").hexdigest()


class Shop(models.Model):
    """What this database holds, from its first day on: the demo, or the shop of real people. One row."""

    class Kind(models.TextChoices):
        DEMO = "demo"
        REAL = "real"

    kind = models.CharField(max_length=4, choices=Kind.choices)
    begun_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.CheckConstraint(condition=models.Q(pk=1), name="shop_only_one")]


class Sent(models.Model):
    """A change as it was sent, by the key that its sender made for it."""

    key = models.UUIDField(primary_key=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    said = models.CharField(max_length=64, help_text="Digest of where it was sent and what it said")
    at = models.DateTimeField(auto_now_add=True)


class TrailEntry(models.Model):
    """Something that happened to the doors or the rules of the shop. Read by owners; nothing in the application
    changes one.
    """

    at = models.DateTimeField(auto_now_add=True, db_index=True)
    what = models.CharField(max_length=20)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.PROTECT, related_name="+")
    name = models.CharField(max_length=60, blank=True, help_text="As it was given, where nobody is signed in")
    about = models.CharField(max_length=200, blank=True)
    address = models.CharField(max_length=45, blank=True)

    class Meta:
        ordering = ["-pk"]


class Revised(models.Model):
    """A row with a revision, counted up by every change."""

    revision = models.PositiveIntegerField(default=0)

    class Meta:
        abstract = True
