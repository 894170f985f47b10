"""The house rules and the shop's calendar, one row for each time they were changed."""

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


class ShopCalendar(models.Model):
    """When the shop works, from a revision on. Never altered: a change is a new row. It counts for every plan at once:
    a day off that was forgotten is off for all.
    """

    number = models.PositiveIntegerField(primary_key=True)
    values = models.JSONField(help_text="calc.calendar.calendar.Calendar, without what a file brings")
    file = models.TextField(blank=True, help_text="iCalendar text, as it was given; empty: none")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-number"]
