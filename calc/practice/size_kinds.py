"""Exercises of sizes: gauges, the first-off's offset, limits to work to."""

from __future__ import annotations

from calc.card.readings.size import ThreadAsk, ThreadEntry
from calc.limits.first_off import FirstOffInput, first_off
from calc.limits.working import WorkingLimitsInput, working_limits
from calc.practice.draw import Draw
from calc.practice.exercise import Asked, Choice, Exercise, Known, Option, Side, Verdict
from calc.quantities import Figure, Sentence

SIZE = (3, 4)


def _mm(value: float) -> Figure:
    return Figure(value, "mm", places=SIZE)


SAID = {"good": "It is good.", "cut again": "Cut it again, a little deeper.", "scrap": "It is scrap."}


def go_not_go(draw: Draw, level: int) -> Exercise:
    """A thread by its gauges."""
    metric = level == 1 or draw.yes()
    outside = draw.yes()
    go = draw.one(("all", "all", "part"))
    turns = draw.value(0, 4, 0.5) if go == "all" else 0.0
    asked = ThreadAsk(name="thread", outside=outside, system="metric" if metric else "unified", offset=5)
    told = asked.told(ThreadEntry(go, turns))  # type: ignore[arg-type]
    right = str(told.answer)
    bad: dict[tuple[str, str], tuple[Verdict, str]] = {
        ("scrap", "good"): (
            "dangerous",
            "NOT GO enters too far: the thread is too loose, and can pull out under load.",
        ),
        ("cut again", "good"): ("dangerous", "GO does not go on: whoever screws it in forces it, or breaks it."),
        ("good", "scrap"): ("wrong", "NOT GO may enter as far as that: a good piece is thrown away."),
        ("good", "cut again"): ("wrong", "It is good: cut again it becomes too loose."),
        ("scrap", "cut again"): ("wrong", "It is too deep already: cut again it is deeper still."),
        ("cut again", "scrap"): ("wrong", "There is metal left: the thread is run again, the piece held as it is."),
    }
    good = Sentence("GO goes all the way and NOT GO stops in time." if right == "good" else "{w}", w=told.words[0])
    options = tuple(
        Option(
            key,
            Sentence(words),
            *(("right", good) if key == right else (bad[right, key][0], Sentence(bad[right, key][1]))),
        )
        for key, words in SAID.items()
    )
    most = 2 if metric else 3
    kind = "metric" if metric else "unified"
    known = (
        Known("Thread", Sentence("{k}, {w}", k=kind, w="outside" if outside else "inside")),
        Known("GO", Sentence("goes all the way" if go == "all" else "stops on the way")),
        Known("NOT GO", Sentence("enters {n} turns", n=f"{turns:g}") if turns else Sentence("does not enter")),
    )
    rule = Sentence("GO goes all the way; NOT GO enters {n} turns at most, by hand and without force.", n=str(most))
    return Exercise(Sentence("What of this thread?"), known, Choice(options), rule, told.steps)


METALS = (("steel", 11.5), ("stainless", 16.5), ("aluminium", 23.5), ("duplex", 13.0))


def first_off_offset(draw: Draw, level: int) -> Exercise:
    """The correction of the offset after the first piece."""
    target = draw.value(20, 160, 0.5) + draw.value(-0.02, 0.0, 0.001)
    off = draw.value(0.006, 0.06, 0.002) * draw.one((-1, 1))
    name, alpha = draw.one(METALS)
    temp = draw.value(28, 45, 1) if level > 1 else 20.0
    along = draw.one(("from-chuck", "from-face")) if level > 2 else "diameter"
    measured = round(target + off, 3)
    found = first_off(FirstOffInput(measured, target, alpha, temp, along))  # type: ignore[arg-type]
    known = [Known("Measured", Sentence("{x}", x=_mm(measured))), Known("Aim", Sentence("{x}", x=_mm(target)))]
    if level > 1:
        known.append(Known("Piece is", Sentence("{n}, {t} °C", n=name, t=f"{temp:g}")))
    what = {
        "diameter": "a diameter, tool on the X+ side",
        "from-chuck": "a length from the chuck-side face to the cut face, in Z",
        "from-face": "a depth from the finished front face back to a shoulder, in Z",
    }[along]
    known.append(Known("It is", Sentence(what)))
    value = found.correction_mm
    side: Side = "below" if value > 0 else "above"
    double = Sentence("Towards the other side: the next piece is off by twice as much, and may be scrap at once.")
    # The wrong sign is what costs pieces.
    answer = Asked(
        "Add to the wear offset", "mm", value, 0.0015, 0.006, side if abs(value) > 0.006 else None, double, SIZE
    )
    rule = Sentence(
        "Aim less measured, at 20 °C; in X as a diameter, outside and inside alike. In Z a length from the chuck "
        "side is the same, and a depth from the front face the other way about."
    )
    return Exercise(Sentence("What do you add to the offset?"), tuple(known), answer, rule, found.working)


def narrowed(draw: Draw, level: int) -> Exercise:
    """The limits that are worked to."""
    nominal, wide = draw.value(20, 160, 1), draw.value(0.02, 0.06, 0.005)
    low = round(nominal - wide, 3)
    if level == 1:
        given = WorkingLimitsInput(low, nominal)
        known = [Known("Kept back, in total", Sentence("a third of the tolerance"))]
    else:
        unsure = draw.value(0.002, 0.005, 0.001)
        given = WorkingLimitsInput(low, nominal, uncertainty=unsure, rule="uncertainty")
        known = [Known("Measuring is unsure by", Sentence("{u} at each limit", u=_mm(unsure)))]
    found = working_limits(given)
    upper = draw.yes()
    value = found.high if upper else found.low
    out = Sentence("You work outside what you may: pieces pass here that the print refuses.")
    answer = Asked(
        "Upper limit to work to" if upper else "Lower limit to work to",
        "mm",
        value,
        0.0006,
        0.0021,
        "above" if upper else "below",
        out,
        SIZE,
    )
    rule = Sentence(
        "Narrowed by a third: a sixth of the tolerance comes off at each end. By the measuring: its uncertainty does."
    )
    prints = Known("The print", Sentence("{a} to {b}", a=_mm(low), b=_mm(nominal)))
    return Exercise(Sentence("Which limit do you work to?"), (prints, *known), answer, rule, found.working)
