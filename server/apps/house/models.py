"""The house rules, one row for each time they were changed."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class HouseRules(models.Model):
    """The shop's rules from a revision on. Never altered: a change is a new row. Revision 1, the trade's, has none."""

    number = models.PositiveIntegerField(primary_key=True)
    values = models.JSONField(help_text="calc.rules.Rules")
    reason = models.CharField(max_length=200)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-number"]
