"""Django's entry."""

from django.apps import AppConfig


class PracticeConfig(AppConfig):
    name = "server.apps.practice"
    label = "practice"
