from django.apps import AppConfig


class FoundationConfig(AppConfig):
    name = "server.foundation"
    label = "foundation"
