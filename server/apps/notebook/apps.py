"""The notebook."""

from django.apps import AppConfig


class NotebookConfig(AppConfig):
    name = "server.apps.notebook"
