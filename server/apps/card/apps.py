"""Django's entry."""

from django.apps import AppConfig


class CardConfig(AppConfig):
    name = "server.apps.card"
    label = "card"
