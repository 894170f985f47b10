"""Addresses: the API under /api/, what keeps cards without network, every other is the one page of the application."""

from django.http import HttpRequest, HttpResponse
from django.urls import path, re_path

from server.config.api import api
from server.config.page import keeper, manifest, page
from server.foundation.problems import problem


def no_such_address(request: HttpRequest) -> HttpResponse:
    """Any other address of the API: told in its own form, not as a page."""
    return problem(404, "There is nothing at this address.")


urlpatterns = [
    path("api/", api.urls),
    re_path(r"^api/", no_such_address),
    path("keeper.js", keeper),
    path("manifest.webmanifest", manifest),
    re_path(r"^(?!api/|static/).*$", page),
]
