"""A card on paper: HTML with its own fonts, made into a PDF; the same card makes the same file but for its date."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from functools import lru_cache
from io import BytesIO
from typing import Any, Literal

from django.conf import settings
from django.template.loader import render_to_string
from django.utils import timezone

from calc.card.picture import svg_of
from calc.plan.scenes import section
from calc.plan.view import View
from server.apps.card.schemas import CardOut, CodeOut

Paper = Literal["A4", "Letter"]
PAPERS = {"A4": "A4 portrait", "Letter": "Letter portrait"}
FONTS = settings.ROOT / "web" / "src" / "app" / "fonts"
PICTURE_MM = 86
FACTS = ("bore", "depth", "grip", "stick_out", "height")
FOOT = "An aid: the makers' documents, local regulations and a qualified person's judgement come first."


@dataclass(frozen=True)
class Sheet:
    """A page behind the card: its title, and lines of cells. `is_part`: it goes on where the one before it ends."""

    title: str
    lines: Sequence[Sequence[str]] = ()
    is_part: bool = False


@dataclass(frozen=True)
class Printed:
    """What a card is printed with: the paper, the address that its code opens, whether it is a draft's."""

    paper: Paper
    address: str
    is_draft: bool = False
    sheets: Sequence[Sheet] = ()


def _code(address: str) -> str:
    """The QR code of an address, as SVG."""
    import segno

    out = BytesIO()
    segno.make(address, error="m", micro=False).save(out, kind="svg", xmldecl=False, svgns=True, nl=False, scale=4)
    return out.getvalue().decode()


def code_squares(address: str) -> CodeOut:
    """The QR code of an address as dark squares, for a page that the browser prints."""
    import segno

    rows = [bytes(row) for row in segno.make(address, error="m", micro=False).matrix_iter(border=0)]
    path = "".join(f"M{x} {y}h1v1h-1z" for y, row in enumerate(rows) for x, dark in enumerate(row) if dark)
    return CodeOut(size=len(rows), path=path, address=address)


def _in_css(text: str) -> str:
    """Text as it may stand in a string of a style sheet within a page."""
    return "".join(c if c.isalnum() or c in " .,-:/" else f"\\{ord(c):x} " for c in text)


def html_of(page: CardOut, views: Sequence[View], printed: Printed, at: datetime) -> str:
    """The card as HTML."""
    release = page.release
    title = "draft" if printed.is_draft else f"release {release.number}"
    who = f"{release.number}, by {release.by}, {release.at:%-d %b %Y %H:%M} UTC"
    marks = {m.step: m for m in page.marks if m.state != "open"}
    read = {r.step: r.shown for r in page.readings}
    many = len(page.sides) > 1
    return render_to_string(
        "card.html",
        {
            "page": page,
            "title": title,
            "running": _in_css(f"{page.drawing_number} {page.name}"[:90]),
            "foot": _in_css(f"{FOOT} Printed {at:%-d %b %Y}."),
            "kind": "Draft" if printed.is_draft else "Release",
            "who": "not released" if printed.is_draft else who,
            "paper": PAPERS[printed.paper],
            "is_draft": printed.is_draft,
            "qr": _code(printed.address),
            "address": printed.address,
            "sides": [
                {
                    "name": name,
                    "to_set": [f for f in page.card.to_set if f.side == place],
                    "picture": svg_of(section(views[place]), page.units, PICTURE_MM, FACTS, f"-{place}"),
                }
                for place, name in enumerate(page.sides)
            ],
            "steps": [
                {
                    "step": step,
                    "mark": marks.get(step.id),
                    "read": read.get(step.id, ""),
                    "side": page.sides[step.side] if many and step.side is not None else "",
                }
                for step in page.card.steps
            ],
            "sheets": printed.sheets,
        },
    )


@lru_cache(maxsize=1)
def _fonts() -> Any:
    from weasyprint.text.fonts import FontConfiguration

    return FontConfiguration()


def pdf_of(page: CardOut, views: Sequence[View], printed: Printed) -> bytes:
    """The card as PDF, fonts embedded."""
    from weasyprint import HTML

    at = timezone.now()
    made: bytes = HTML(string=html_of(page, views, printed, at), base_url=f"{FONTS}/").write_pdf(
        font_config=_fonts(), pdf_identifier=b"noble-anvil"
    )
    return made
