"""Django's entry."""

from django.apps import AppConfig


class HouseConfig(AppConfig):
    name = "server.apps.house"
    label = "house"
