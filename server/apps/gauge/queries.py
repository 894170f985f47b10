"""Reads of a chuck's gauge runs: the list with its trend, and one run with its fit."""

from __future__ import annotations

from datetime import date
from uuid import UUID

from calc.chuck.calibration import TREND_LEAST, Trend, trend_of, usable
from calc.chuck.fit import GaugePoint, GripFitInput, GripFitResult, grip_fit
from calc.chuck.speed import StackPart, pull_of
from calc.errors import CalcError
from calc.quantities import Figure, System, from_core, shown_as
from server.apps.gauge.known import measured, today
from server.apps.gauge.models import GaugeRun, Greasing, Reading
from server.apps.gauge.schemas import (
    ArrivedOut,
    ChuckGaugeOut,
    Fitted,
    GaugeFigure,
    GaugeNote,
    GaugeRunOut,
    GaugeRunPage,
    GreaseOut,
    JawSetOption,
    ReadingOut,
    TrendPoint,
)
from server.apps.house import queries as house
from server.apps.shelf import queries as shelf
from server.foundation.problems import NotFound
from server.foundation.schemas import NotedOut

__all__ = ["chuck_id_of", "chuck_page", "fit_of", "measured", "run_by_id", "run_page", "today"]

SHOWN_MOST = 600  # points of a run that a screen is sent; the fit has them all
ARRIVED_MOST = 2000
CURVE = 60
AT_REST = "One reading at rest, of a card: it gives the condition, and says nothing of speed."


def chuck_id_of(key: str) -> int:
    """The chuck's database id. Raises NotFound."""
    found = shelf.current().ids["chuck"].get(key)
    if found is None:
        raise NotFound("There is no such chuck on the shelf.")
    return found


def run_by_id(run_id: int) -> GaugeRun:
    """A gauge run. Raises NotFound."""
    found = (
        GaugeRun.objects.select_related("chuck", "jaw_set", "by").filter(pk=run_id).first() if run_id < 2**31 else None
    )
    if found is None:
        raise NotFound("There is no such gauge run any more.")
    return found


def run_by_key(key: UUID) -> GaugeRun:
    """A gauge run by the key it was sent under. Raises NotFound."""
    found = GaugeRun.objects.select_related("chuck", "jaw_set", "by").filter(key=key).first()
    if found is None:
        raise NotFound("There is no such gauge run any more.")
    return found


def calculated_k(run: GaugeRun) -> float | None:
    """The loss [N/rpm²] of all jaws by their masses; None while a mass is not known."""
    chuck = shelf.current().chucks[run.chuck_id]
    if None in (run.jaw_mass_kg, run.jaw_radius_mm, chuck.master_mass_kg, chuck.master_radius_mm):
        return None
    assert run.jaw_mass_kg is not None and run.jaw_radius_mm is not None
    assert chuck.master_mass_kg is not None and chuck.master_radius_mm is not None
    stack = (StackPart(run.jaw_mass_kg, run.jaw_radius_mm), StackPart(chuck.master_mass_kg, chuck.master_radius_mm))
    return pull_of(stack, chuck.jaws) or None


def fit_of(run: GaugeRun, readings: list[Reading]) -> GripFitResult:
    """The fit of the readings that are not left out. Raises CalcError."""
    points = tuple(GaugePoint(r.rpm, r.grip_n) for r in readings if not r.left_out)
    return grip_fit(GripFitInput(run.side, points, calculated_k(run)))  # type: ignore[arg-type]


def _plate(run: GaugeRun, system: System) -> GaugeRunOut:
    def said(value: float | None, unit: str = "", places: tuple[int, int] | None = (2, 2)) -> str:
        return "" if value is None else Figure(value, unit, "down", places).text(system)

    return GaugeRunOut(
        id=run.pk,
        on=run.on,
        by=run.by.username,
        source=run.source,
        side="od" if run.side == "od" else "id",
        note=run.note,
        jaw_set=run.jaw_set.name if run.jaw_set else "",
        kept=run.kept_at is not None,
        pressure=Figure(run.pressure_bar, "bar", exact=True).text(system),
        static=said(run.static_grip_n, "N", None),
        condition=said(run.condition),
        transmission=said(run.transmission),
        r_squared=said(run.r_squared, "", (3, 3)),
    )


def chuck_page(key: str, gauges: list[str], system: System) -> ChuckGaugeOut:
    """A chuck's greasing log and gauge runs, which run counts, and where its condition is going."""
    pk = chuck_id_of(key)
    rules, now = house.current(), today()
    runs = list(GaugeRun.objects.filter(chuck_id=pk).select_related("jaw_set", "by")[:200])
    greased = list(Greasing.objects.filter(chuck_id=pk).select_related("by")[:30])
    kept = [r for r in runs if r.kept_at is not None and r.condition is not None]
    since = greased[0].on if greased else None
    falling = [(r.on.isoformat(), r.condition or 0.0) for r in reversed(kept)]
    latest = [p for p in falling if since is None or p[0] >= since.isoformat()]
    trend = trend_of(latest if len(latest) >= TREND_LEAST else falling[-6:], rules.condition_week)
    newest = kept[0].condition if kept else None
    return ChuckGaugeOut(
        key=key,
        name=shelf.current().names["chuck"][key],
        gauges=gauges,
        today=date.fromisoformat(now),
        greased=[GreaseOut(on=g.on, by=g.by.username, note=g.note) for g in greased],
        grease=_grease_words(since.isoformat() if since else None, now),
        days=rules.gauge_days,
        runs=[_plate(r, system) for r in runs],
        counts=next((r.pk for r in kept if (r.on.toordinal() + rules.gauge_days) >= _ordinal(now)), None),
        trend=[TrendPoint(on=r.on, condition=r.condition or 0.0) for r in reversed(kept)],
        warning=_warning(newest, trend, rules.condition_week, now),
        jaw_sets=[JawSetOption(value=s.key, label=s.name) for s in shelf.current().sets_of_chuck(key)],
    )


def _warning(newest: float | None, trend: Trend | None, limit: float, now: str) -> str:
    """That the condition is too low, or when it will be; empty while neither is in sight."""
    said = Figure(limit, "", "near", (2, 2)).text()
    if newest is not None and newest < limit:
        measured = Figure(newest, "", "down", (2, 2)).text()
        return f"The condition is {measured}, below {said}: grease the chuck, and measure again."
    if trend is None or trend.below is None:
        return ""
    if trend.below <= now:
        return f"The condition is below {said} since {trend.below}: grease the chuck, and measure again."
    return f"At this rate the condition falls below {said} on {trend.below}: grease the chuck before."


def _ordinal(on: str) -> int:
    return date.fromisoformat(on).toordinal()


def _grease_words(on: str | None, now: str) -> str:
    if on is None:
        return "No greasing is on record: grease the chuck and note it."
    days = _ordinal(now) - _ordinal(on)
    return "Greased today." if days == 0 else f"Greased {days} {'day' if days == 1 else 'days'} ago: grease it today."


def arrived(run_id: int, after: int) -> ArrivedOut:
    """Readings of a run after a number of them, as many as one answer takes. Raises NotFound."""
    run = run_by_id(run_id)
    rows = run.readings.filter(number__gt=after).order_by("number").values_list("number", "rpm", "grip_n")
    found = list(rows[:ARRIVED_MOST])
    return ArrivedOut(points=[[rpm, grip] for _, rpm, grip in found], total=found[-1][0] if found else after)


def run_page(run: GaugeRun, system: System) -> GaugeRunPage:
    """One run: its readings, the fitted curve, the residuals, and what must be said about it."""
    readings = list(run.readings.all())
    unit = shown_as("N", system)
    every = max(1, len(readings) // SHOWN_MOST)
    off: dict[int, float] = {}
    fitted, problem = Fitted(), AT_REST if run.source == "card" else ""
    try:
        fit = None if problem else fit_of(run, readings)
    except CalcError as error:
        fit, problem = None, error.errors[0].sentence.text(system)
    if fit is not None:
        fitted = _fitted(run, readings, fit, system)
        used = [r.number for r in readings if not r.left_out]
        off = {n: round(from_core(by, "N", unit), 4) for n, by in zip(used, fit.residuals_n, strict=True)}
    shown = [
        ReadingOut(
            number=r.number,
            rpm=r.rpm,
            grip=round(from_core(r.grip_n, "N", unit), 4),
            left_out=r.left_out,
            off=off.get(r.number),
        )
        for r in readings[::every]
    ]
    return GaugeRunPage(
        **_plate(run, system).model_dump(),
        **fitted.model_dump(),
        problem=problem,
        unit=unit.unit,
        total=len(readings),
        readings=shown,
    )


def _fitted(run: GaugeRun, readings: list[Reading], fit: GripFitResult, system: System) -> Fitted:
    unit = shown_as("N", system)
    used = [r for r in readings if not r.left_out]
    most = max(r.rpm for r in readings)
    sign = -1 if run.side == "od" else 1
    curve = [
        [n, round(from_core(max(0.0, fit.static_grip_n + sign * fit.k_n_per_rpm2 * n * n), "N", unit), 4)]
        for n in (most * i / CURVE for i in range(CURVE + 1))
    ]
    worst = max(fit.residuals_n, key=abs)
    figures = [
        ("Grip standing still", Figure(fit.static_grip_n, "N", "down").text(system)),
        (
            "Lost with the speed" if run.side == "od" else "Gained with the speed",
            Figure(fit.k_n_per_rpm2, "N/rpm2").text(system),
        ),
        ("The curve explains", Figure(100 * max(fit.r_squared, 0.0), "%", "down", (1, 1)).text(system)),
        (
            "Transmission",
            "not known: give the jaws' mass"
            if fit.transmission is None
            else Figure(fit.transmission, "", places=(2, 2)).text(),
        ),
        ("Largest residual", Figure(abs(worst), "N", "up").text(system)),
    ]
    return Fitted(
        curve=curve,
        figures=[GaugeFigure(label=a, text=b) for a, b in figures],
        usable=usable(fit),
        outliers=[used[i].number for i in fit.outliers],
        notes=[GaugeNote(level=n.level, code=n.code, text=n.sentence.text(system)) for n in fit.notes],
    )


def noted(system: System, most: int) -> list[NotedOut]:
    """The newest gauge runs that were kept, as lines of the notebook."""
    rows = GaugeRun.objects.exclude(kept_at=None).select_related("chuck", "by")[:most]
    return [
        NotedOut(
            kind="gauge",
            of=run.chuck.name,
            words=_noted_words(run, system),
            on=run.on,
            by=run.by.username,
            href=f"/chucks/{run.chuck.key}/gauge",
        )
        for run in rows
    ]


def _noted_words(run: GaugeRun, system: System) -> str:
    words = f"grip at {Figure(run.pressure_bar, 'bar').text(system)}"
    if run.static_grip_n is not None:
        words += f": {Figure(run.static_grip_n, 'N', 'down').text(system)}"
    if run.condition is not None:
        words += f", condition {Figure(run.condition, '', 'down', (2, 2)).text(system)}"
    return words + (f"; {run.note}" if run.note else "")
