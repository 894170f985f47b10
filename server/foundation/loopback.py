"""Whether a request comes from this machine."""

from __future__ import annotations

import ipaddress

from django.http import HttpRequest


def on_loopback(request: HttpRequest) -> bool:
    """True for a loopback address; false for every other, and for what is no address."""
    try:
        return ipaddress.ip_address(request.META.get("REMOTE_ADDR", "")).is_loopback
    except ValueError:
        return False
