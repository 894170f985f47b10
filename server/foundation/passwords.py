"""What no password may be, beside short and common."""

from __future__ import annotations

import re
from typing import Any

from django.core.exceptions import ValidationError


class NotBlank:
    """Refuses a password of blanks, and one with a sign that cannot be typed again."""

    def validate(self, password: str, user: Any = None) -> None:  # noqa: ARG002 - Django's form of it
        """Raise ValidationError."""
        if len("".join(password.split())) < 4:
            raise ValidationError("Blanks alone make no password: use letters, figures and signs.")
        if not password.isprintable():
            raise ValidationError("This password has a sign in it that cannot be typed again.")

    def get_help_text(self) -> str:
        """What is asked for."""
        return "Not of blanks."


class NotRepeated:
    """Refuses one piece again and again, as “xyxyxyxyxy”, and the name again and again."""

    def validate(self, password: str, user: Any = None) -> None:
        """Raise ValidationError."""
        said = re.sub(r"[\s._@+-]+", "", password.casefold())
        name = re.sub(r"[\s._@+-]+", "", str(getattr(user, "username", "") or "").casefold())
        if len(name) >= 2 and len(said.replace(name, "")) < 4:
            raise ValidationError("This is little more than the name: use something else.")
        if re.fullmatch(r"(.{1,8}?)\1+.{0,3}", said) and len(set(said)) < len(said) / 2 + 1:
            raise ValidationError("This repeats one piece over and over: use several words instead.")

    def get_help_text(self) -> str:
        """What is asked for."""
        return "Not one piece or the name repeated."
