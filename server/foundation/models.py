"""People and their roles, and what rows that people edit share."""

from __future__ import annotations

from django.contrib.auth.models import AbstractUser
from django.db import models


class Person(AbstractUser):
    """Somebody who signs in. Planners change plans, operators look."""

    class Role(models.TextChoices):
        PLANNER = "planner"
        OPERATOR = "operator"

    role = models.CharField(max_length=20, choices=Role.choices, default=Role.OPERATOR)

    class Meta:
        constraints = [
            models.CheckConstraint(condition=models.Q(role__in=["planner", "operator"]), name="person_role_known")
        ]


class Revised(models.Model):
    """A row with a revision, counted up by every change."""

    revision = models.PositiveIntegerField(default=0)

    class Meta:
        abstract = True
