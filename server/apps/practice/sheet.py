"""Ten exercises on paper, their answers on the back."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Any, Literal

from django.conf import settings
from django.template.loader import render_to_string

from calc.card.picture import plain_svg
from calc.illustrated.graph import Graph
from calc.practice.exercise import Choice, Exercise
from calc.practice.kinds import GENERATOR, KINDS
from calc.quantities import System, shown_as
from calc.scene.shapes import Scene

Paper = Literal["A4", "Letter"]
MANY = 10
PICTURE_MM, WITH_DIMENSIONS_MM = 58, 76  # wide: figures on it are to be read at arm's length
FONTS = settings.ROOT / "web" / "src" / "app" / "fonts"
LETTERS = "abcdefgh"


@dataclass(frozen=True)
class Which:
    """Which sheet: its seed and level, the units it is read in, the paper."""

    seed: int
    level: int
    units: System
    paper: Paper


def exercises(which: Which) -> list[tuple[str, Exercise]]:
    """Ten exercises of ten kinds, in the order of the work; what needs a chart to be read from is for the screen."""
    made = [(k.title, k.exercise(which.seed, which.level)) for k in KINDS.values()]
    kept = [(title, one) for title, one in made if not isinstance(one.picture, Graph)]
    step = which.seed % len(kept)
    turned = sorted(range(len(kept)), key=lambda i: (i * 7 + step) % len(kept))[:MANY]
    return [kept[i] for i in sorted(turned)]


def html_of(which: Which) -> str:
    """The sheet as HTML."""
    return render_to_string(
        "practice.html",
        {
            "paper": f"{which.paper} portrait",
            "seed": which.seed,
            "level": which.level,
            "generator": GENERATOR,
            "exercises": [
                _shown(number, title, one, which.units) for number, (title, one) in enumerate(exercises(which), start=1)
            ],
        },
    )


def _shown(number: int, title: str, one: Exercise, system: System) -> dict[str, Any]:
    answer = one.answer
    options, right, unit = [], "", ""
    if isinstance(answer, Choice):
        options = [(LETTERS[i], o.words.text(system)) for i, o in enumerate(answer.options)]
        place = answer.options.index(answer.right)
        right = f"{LETTERS[place]}) {answer.right.words.text(system)} {answer.right.why.text(system)}"
    else:
        right, unit = answer.figure.text(system), shown_as(answer.unit, system).unit
    picture = one.picture
    return {
        "number": number,
        "title": title,
        "ask": one.ask.text(system),
        "known": [(k.label, k.value.text(system)) for k in one.known],
        "options": options,
        "label": "" if isinstance(answer, Choice) else answer.label,
        "unit": unit,
        "picture": _drawn(picture, system, f"-{number}") if isinstance(picture, Scene) else "",
        "right": right,
        "rule": one.rule.text(system),
    }


def _drawn(picture: Scene, system: System, name: str) -> str:
    return plain_svg(picture, system, WITH_DIMENSIONS_MM if picture.dimensions else PICTURE_MM, name)


@lru_cache(maxsize=1)
def _fonts() -> Any:
    from weasyprint.text.fonts import FontConfiguration

    return FontConfiguration()


def pdf_of(which: Which) -> bytes:
    """The sheet as PDF, the same for the same seed."""
    from weasyprint import HTML

    made: bytes = HTML(string=html_of(which), base_url=f"{FONTS}/").write_pdf(
        font_config=_fonts(), pdf_identifier=b"noble-anvil-practice"
    )
    return made
