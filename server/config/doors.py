"""The outermost door: who is let through, from where, and that the API always answers in its own form."""

from __future__ import annotations

from collections.abc import Callable
from http import HTTPStatus

from django.core.exceptions import DisallowedHost
from django.http import HttpRequest, HttpResponse
from django.http.request import split_domain_port, validate_host
from django.http.response import HttpResponseBase

from server.config.away import AWAY
from server.foundation import trail
from server.foundation.problems import problem
from server.foundation.queries import is_demo

LOOPBACK = ["127.0.0.1", "localhost", "[::1]"]
# What a proxy adds to what it passes on.
PASSED_ON = (
    "HTTP_FORWARDED",
    "HTTP_VIA",
    "HTTP_X_REAL_IP",
    "HTTP_X_CLIENT_IP",
    "HTTP_TRUE_CLIENT_IP",
    "HTTP_CF_CONNECTING_IP",
)
NO_TEXT = "This address has a sign in it that no text has."
FOREIGN = "This name is none of this application's. Its address is the one that it was started with."
DEMO_ONLY_HERE = "The demo answers on its own machine only, and through no proxy: whoever opens it may do everything."


def _is_passed_on(request: HttpRequest) -> bool:
    return any(name in PASSED_ON or name.startswith("HTTP_X_FORWARDED") for name in request.META)


class Doors:
    """Middleware around everything else."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """The answer, or why there is none."""
        is_api = request.path_info.startswith("/api/")
        trail.address.set(str(request.META.get("REMOTE_ADDR", "")))
        refused = self._refused(request)
        if refused is not None:
            status, title = refused
            answer: HttpResponseBase = problem(status, title) if is_api else _plain(status, title)
        else:
            answer = self.get_response(request)
        return _for_api(answer) if is_api else answer

    def _refused(self, request: HttpRequest) -> tuple[int, str] | None:
        """Why a request is not let through; asked of reading ones too."""
        if "\x00" in request.path or "%00" in request.META.get("QUERY_STRING", ""):
            return 400, NO_TEXT
        try:
            name, _ = split_domain_port(request.get_host())
        except DisallowedHost:
            return 400, FOREIGN
        if validate_host(name, LOOPBACK) and not _is_passed_on(request):
            return None
        try:
            return (403, DEMO_ONLY_HERE) if is_demo() else None
        except AWAY:
            return 503, "The database does not answer just now: nothing was kept. It is tried again."


def _plain(status: int, title: str) -> HttpResponse:
    return HttpResponse(title, status=status, content_type="text/plain; charset=utf-8")


def _for_api(answer: HttpResponseBase) -> HttpResponseBase:
    """What the API says is kept by no cache, and a refusal is always a problem document."""
    if answer.status_code >= 400 and answer.get("Content-Type") != "application/problem+json":
        told = problem(answer.status_code, HTTPStatus(answer.status_code).phrase)
        for name in ("Allow", "Retry-After"):
            if name in answer:
                told[name] = answer[name]
        answer = told
    answer["Cache-Control"] = "no-store"
    return answer
