"""Exercises of grip: what speed leaves, what the height costs."""

from __future__ import annotations

from calc.chuck.book import ChartPoint, ChuckForce
from calc.chuck.grip import ChuckGripInput, chuck_grip
from calc.chuck.speed import GripAtSpeedInput, StackPart, grip_at_speed
from calc.illustrated.graph import Axis, Graph, line_of
from calc.practice.draw import Draw
from calc.practice.exercise import Asked, Choice, Exercise, Known, Option, Verdict
from calc.quantities import Figure, Sentence

THROWN = Sentence(
    "You would count on grip that is not there: at this speed the part can leave the chuck. Stand clear, start "
    "slow, and put a clamp on the spindle."
)
LIFT = 1.15  # times what is drawn
READ_WITHIN = 0.06  # of the static grip: as well as a chart is read
FIGURED_WITHIN = 0.02


def _n(value: float) -> Figure:
    return Figure(value, "N")


def grip_left(draw: Draw, level: int) -> Exercise:
    """What is left of the grip at a speed: off a chart, or by the masses."""
    static = draw.value(30_000, 80_000, 2_000)
    mass, radius = draw.value(1.2, 2.6, 0.1), draw.value(55, 80, 1)
    rpm = draw.value(1000, 2000, 100)
    outside = level < 3 or draw.yes()
    given = GripAtSpeedInput(static, "od" if outside else "id", (StackPart(mass, radius),), rpm)
    found = grip_at_speed(given)
    loss = found.centrifugal_n / rpm**2
    # A chart is read at twice the speed as well, so that the answer does not stand at its end.
    most = 1.4 * rpm
    sign = -1 if outside else 1
    curve = line_of("", 0, most, lambda n: max(0.0, static + sign * loss * n * n))
    top = LIFT * max(y for _, y in curve.points)
    words = Sentence("Grip over the speed, from {a} standing still.", a=_n(static))
    chart = Graph(Axis("spindle speed", "rpm", 0, most), Axis("grip", "N", 0, top), (curve,), words)
    known = [
        Known("Grip standing still, all jaws", Sentence("{f}", f=_n(static))),
        Known("Gripping", Sentence("outside" if outside else "inside")),
        Known("Spindle speed", Sentence("{n}", n=Figure(rpm, "rpm"))),
    ]
    if level > 1:
        known[1:1] = [
            Known("Jaws", Sentence("3")),
            Known("Mass of one jaw with all that flies with it", Sentence("{m}", m=Figure(mass, "kg", places=(2, 2)))),
            Known("Its centre from the axis", Sentence("{r}", r=Figure(radius, "mm", places=(1, 3)))),
        ]
    within = (READ_WITHIN if level == 1 else FIGURED_WITHIN) * static
    answer = Asked("Grip left, all jaws", "N", found.grip_n, within, 2.5 * within, "above" if outside else None, THROWN)
    rule = Sentence(
        "Outside, speed takes the jaws' centrifugal force from the grip: with twice the speed four times as much. "
        "Inside it adds as much, and nobody counts on it."
    )
    ask = Sentence("How much grip is there at this speed?")
    return Exercise(ask, tuple(known), answer, rule, found.working, chart if level == 1 else None)


def _chuck(most: float, high: float, guide: float) -> ChuckForce:
    return ChuckForce(most, 30, high, guide, 0.08, (ChartPoint(5, most / 6), ChartPoint(30, most)))


def height_costs(draw: Draw, level: int) -> Exercise:
    """What a taller jaw costs of the grip; whether more pressure may win it back."""
    chuck = _chuck(draw.value(60_000, 120_000, 5_000), draw.value(35, 60, 5), draw.value(70, 100, 5))
    height = round(chuck.reference_height_mm * draw.value(1.4, 2.4, 0.2), 1)
    bar = draw.value(15, 24, 3) if level == 1 else 24.0
    found = chuck_grip(ChuckGripInput(bar, height, chuck))
    charted = chuck_grip(ChuckGripInput(bar, chuck.reference_height_mm, chuck)).grip_n
    known = (
        Known("By the chart at this pressure", Sentence("{f}", f=_n(charted))),
        Known("Its reference height", Sentence("{h}", h=Figure(chuck.reference_height_mm, "mm"))),
        Known("You grip at", Sentence("{h}", h=Figure(height, "mm"))),
        Known("Length of the guide", Sentence("{g}", g=Figure(chuck.guide_length_mm, "mm"))),
        Known("Friction in it", Sentence("0.08")),
    )
    rule = Sentence(
        "The higher the grip, the more the guides jam: it loses by (1 + 3 μ h₀/ℓ)/(1 + 3 μ h/ℓ). And the chuck is "
        "rated for a moment: at twice the height it may give half the force."
    )
    if level == 1:
        within = 0.02 * charted
        answer = Asked("Grip there, all jaws", "N", found.grip_n, within, 2.5 * within, "above", THROWN)
        return Exercise(Sentence("How much grip is there at this height?"), known, answer, rule, found.working)
    over = found.overloaded
    words = {
        "more": "Yes: turn the pressure up until the chart's grip is there again.",
        "less": "No: the chuck would carry more than its rated moment. Shorter jaws, a longer grip, or less grip.",
        "fine": "It may stay as it is: within the rated moment.",
    }
    right = "less" if over else "fine"
    bends = Sentence(
        "The jaws bend more than the grip grows, and the chuck carries more than it is rated for: guides wear, "
        "bolts can give."
    )
    verdicts: dict[str, tuple[Verdict, Sentence]] = {
        "more": ("dangerous", bends),
        "less": ("wrong", Sentence("At this height it still may give what it gives.")),
        "fine": ("dangerous", bends),
    }
    good = Sentence("At this height it may give {a}; it gives {f}.", a=_n(found.allowable_grip_n), f=_n(found.grip_n))
    options = tuple(
        Option(key, Sentence(words[key]), *(("right", good) if key == right else verdicts[key])) for key in words
    )
    most = Known("The chuck's rated grip", Sentence("{f}", f=_n(chuck.max_grip_n)))
    ask = Sentence("The height has cost grip. May you win it back by pressure?")
    return Exercise(ask, (*known, most), Choice(options), rule, found.working)
