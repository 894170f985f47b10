"""The bench of the apprentice as it is sent."""

from __future__ import annotations

from calc.errors import CalcError
from calc.practice.apprentice import Bench, Even, Standing, bring_even, standing
from calc.practice.said import KnownSaid
from calc.quantities import Figure, shown_as
from calc.reading import read
from calc.said.drawn import scene_said
from calc.said.graph import graph_said
from calc.written import parse
from server.apps.practice.schemas import ApprenticeCut, ApprenticeIn, ApprenticeOut
from server.foundation.schemas import Units

BLUE = {"tip": "blue has crept in at the mouth", "base": "blue has crept in at the floor", "even": "even"}
TAPER = (3, 4)


def apprentice(given: ApprenticeIn) -> ApprenticeOut:
    """What the chuck answers. Raises CalcError at the field."""
    bench: Bench = read(
        Bench,
        {"pressure_bar": given.pressure_bar, "height_mm": given.height_mm, "rpm": given.rpm, "grease": given.grease},
    )
    tapers = tuple(_taper(text, i, given.units) for i, text in enumerate(given.tapers))
    return _out(bench, standing(bench), bring_even(bench, given.seed, tapers), given.units)


def _taper(text: str, place: int, units: Units) -> float:
    """A taper as it was written. Raises CalcError at its line."""
    try:
        value = parse(text, "mm", units, "taper")
    except CalcError as error:
        raise error.renamed({"taper": f"tapers.{place}"}) from error
    return max(0.0, min(value, 4.0))


def _out(bench: Bench, found: Standing, even: Even, units: Units) -> ApprenticeOut:
    def said(label: str, figure: Figure) -> KnownSaid:
        return KnownSaid(label, figure.text(units))

    return ApprenticeOut(
        shown=[
            said("Gauge pressure", Figure(bench.pressure_bar, "bar")),
            said("Grip height", Figure(bench.height_mm, "mm", places=(0, 2))),
            said("Spindle speed", Figure(bench.rpm, "rpm")),
        ],
        figures=[
            said("Grip at this speed", Figure(found.left.grip_n, "N", "down")),
            said("Standing still", Figure(found.grip.grip_n, "N", "down")),
            said("One jaw", Figure(found.grip.per_jaw_n, "N", "down")),
            said("The ring comes out of round by", Figure(found.wall.out_of_round_mm, "mm", "up", (4, 5))),
            said("Taper by the estimate, on diameter", Figure(found.estimate_mm, "mm", places=TAPER)),
        ],
        told=[t.text(units) for t in found.told],
        curve=None if found.curve is None else graph_said(found.curve, units),
        wall=None if found.squeezed is None else scene_said(found.squeezed, units),
        unit=shown_as("mm", units).unit,
        cuts=[
            ApprenticeCut(taper=Figure(c.taper_mm, "mm", places=TAPER).text(units), shows=BLUE[c.shows])
            for c in even.cuts
        ],
        blue=None if even.picture is None else scene_said(even.picture, units),
        done=even.done,
        words=even.told.text(units),
    )
