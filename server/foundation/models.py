"""People and their roles, and what rows that people edit share."""

from __future__ import annotations

from django.contrib.auth.models import AbstractUser
from django.db import models


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

    class Meta:
        ordering = ["username"]
        constraints = [
            models.CheckConstraint(
                condition=models.Q(role__in=["owner", "planner", "setter", "operator"]), name="person_role_known"
            )
        ]


class Revised(models.Model):
    """A row with a revision, counted up by every change."""

    revision = models.PositiveIntegerField(default=0)

    class Meta:
        abstract = True
