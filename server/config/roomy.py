"""What a large body took is given back as soon as it has been answered."""

from __future__ import annotations

import gc

from django.http import HttpRequest, HttpResponse
from django.utils.deprecation import MiddlewareMixin

LARGE = 1_000_000  # bytes


class GiveBack(MiddlewareMixin):
    """Collects after a large request: one that failed holds its body in a circle, and the collector is in no hurry."""

    def process_response(self, request: HttpRequest, response: HttpResponse) -> HttpResponse:
        """The response as it is."""
        if int(request.META.get("CONTENT_LENGTH") or 0) > LARGE:
            request._body = b""
            gc.collect()
        return response
