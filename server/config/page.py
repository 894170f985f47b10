"""The one page of the application, the demo's signing in, and what a browser needs to keep cards without network."""

from __future__ import annotations

import json
from functools import lru_cache
from typing import Any

from django.conf import settings
from django.contrib.auth import login
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import render
from django.templatetags.static import static
from django.views.decorators.cache import never_cache
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_safe

from server.foundation.loopback import on_loopback
from server.foundation.queries import demo_person, is_demo


@lru_cache(maxsize=1)
def _entry(stamp: float) -> dict[str, Any]:
    """Script and styles of the built application; `stamp` is the build's time, so a new build is seen."""
    manifest = json.loads((settings.WEB_BUILD / ".vite" / "manifest.json").read_text())
    entry = manifest["index.html"]
    fonts = [f for f in entry.get("assets", []) if f.endswith(".woff2")]
    return {"script": entry["file"], "styles": entry.get("css", []), "fonts": fonts}


@require_safe
@ensure_csrf_cookie
def page(request: HttpRequest) -> HttpResponse:
    """The page. In demo mode, on loopback, a visitor is signed in here as the demo's planner."""
    if not request.user.is_authenticated and on_loopback(request) and is_demo():
        planner = demo_person()
        if planner is not None:
            login(request, planner, backend="server.foundation.entering.ByName")
    stamp = (settings.WEB_BUILD / ".vite" / "manifest.json").stat().st_mtime
    response = render(request, "page.html", _entry(stamp) | {"token_cookie": settings.CSRF_COOKIE_NAME})
    response["Cache-Control"] = "no-store"
    return response


@never_cache
@require_safe
def keeper(request: HttpRequest) -> HttpResponse:
    """The service worker that keeps cards. It stands at the root, since it answers for the addresses below its own."""
    return HttpResponse((settings.WEB_BUILD / "keeper.js").read_bytes(), content_type="text/javascript; charset=utf-8")


@never_cache
@require_safe
def manifest(request: HttpRequest) -> HttpResponse:
    """What a tablet puts on its home screen."""
    told = {
        "name": "Noble Anvil",
        "short_name": "Noble Anvil",
        "start_url": "/",
        "display": "standalone",
        "background_color": "#f5f2ea",
        "theme_color": "#f5f2ea",
        "icons": [{"src": static("mark.svg"), "type": "image/svg+xml", "sizes": "any"}],
    }
    return JsonResponse(told, content_type="application/manifest+json")
