"""Exercises of tools and cuts: feed, chips, inserts, bars, parting off, coolant."""

from __future__ import annotations

from calc.coolant.mixing import CoolantInput, coolant
from calc.cuts.chips import ADVICE, SEEN, Seen
from calc.cuts.feed_window import Breaker, FeedWindowInput, feed_window
from calc.cuts.part_off import REACH_SPARE_MM, PartOffInput, PartOffResult, part_off
from calc.practice.draw import Draw
from calc.practice.exercise import Asked, Choice, Exercise, Known, Option, Verdict
from calc.quantities import Figure, Sentence
from calc.scene.shapes import Label, Scene, Shape, rectangle
from calc.tools.boring_bar import BoringBarInput, boring_bar
from calc.tools.insert_code import InsertCodeInput, insert_code

FEED = (3, 4)


def _mm(value: float, places: tuple[int, int] = (2, 3)) -> Figure:
    return Figure(value, "mm", places=places)


def _rev(value: float) -> Figure:
    return Figure(value, "mm/rev", places=FEED)


def feed_from_radius(draw: Draw, level: int) -> Exercise:
    """The largest feed that corner, finish and breaker allow; the least depth at which the chip breaks."""
    radius = draw.one((0.2, 0.4, 0.8, 1.2, 1.6, 2.4))
    if level == 1 and draw.yes():
        return _least_depth(radius)
    ra = draw.one((1.6, 3.2, 6.3)) if level > 1 else None
    depth = round(radius * draw.one((1.5, 2.0, 2.5)), 2)
    breaker = Breaker(0.1, draw.value(0.25, 0.5, 0.05), 0.5, 5.0) if level > 2 else None
    found = feed_window(FeedWindowInput(radius, ra, depth, breaker))
    known = [Known("Corner radius", Sentence("{r}", r=_mm(radius)))]
    if ra is not None:
        known.append(Known("The print's finish", Sentence("Ra {a}", a=Figure(ra, "um", places=(1, 0)))))
    if breaker is not None:
        words = Sentence("feed {a} to {b}", a=_rev(breaker.feed_min), b=_rev(breaker.feed_max))
        known.append(Known("The breaker", words))
    value = found.feed_max_mm_rev
    rougher = Sentence(
        "The corner is overfed: the finish is rougher than the print, the edge breaks out, and the force on the "
        "grip grows."
    )
    answer = Asked("Largest feed", "mm/rev", value, 0.03 * value, 0.12 * value, "above", rougher, FEED)
    rule = Sentence(
        "Two thirds of the corner radius at most; for a finish Ra = f²/(18·√3·r); and never over what the breaker "
        "takes. The smallest of them rules."
    )
    return Exercise(Sentence("How much may you feed at most?"), tuple(known), answer, rule, found.working)


def _least_depth(radius: float) -> Exercise:
    """How deep a pass goes at least: one below the corner leaves the chip whole."""
    found = feed_window(FeedWindowInput(radius, depth_mm=radius))
    assert found.chip_breaks is not False  # at the corner's radius it breaks
    long = Sentence("The chip does not break: it comes as a ribbon, and takes hold of part, tool and hand.")
    answer = Asked("Least depth", "mm", radius, 0.05 * radius, 0.2 * radius, "below", long, (2, 3))
    rule = Sentence("A chip breaks from a depth of the corner's radius on: leave a finishing pass that much.")
    known = (Known("Corner radius", Sentence("{r}", r=_mm(radius))),)
    return Exercise(Sentence("How deep does a pass go at least?"), known, answer, rule, found.working)


DONE = {
    "curls": "Leave it as it is.",
    "ribbon": "More feed or depth, or a tighter breaker; stop the machine to clear them.",
    "powder": "Less feed, or a more open breaker.",
    "straw": "Leave the speed: the heat leaves with the chip.",
    "blue": "Back the speed off, unless the grade is made for heat.",
    "silver": "More speed: the edge is asked too little.",
}
BY_HAND = "Pull them off with a hook while it runs."


def chips(draw: Draw, level: int) -> Exercise:
    """What the chips say."""
    seen: Seen = draw.one(("curls", "ribbon", "powder") if level == 1 else ("straw", "blue", "silver", "ribbon"))
    others = draw.some([k for k in DONE if k != seen], 2)
    # Two that say leave it are one answer in other words.
    others = [k for k in others if not ({k, seen} <= {"curls", "straw"})]
    options = [Option(seen, Sentence(DONE[seen]), "right", Sentence("{w}", w=ADVICE[seen][1]))]
    for key in others:
        options.append(Option(key, Sentence(DONE[key]), "wrong", Sentence("{w}", w=ADVICE[seen][1])))
    hands = Sentence("A ribbon takes the hook, and the hand with it. The machine is stopped first, always.")
    options.append(Option("hand", Sentence(BY_HAND), "dangerous", hands))
    known = (
        Known("Cutting", Sentence("steel, coated carbide")),
        Known("The chips", Sentence("{s}", s=SEEN.options[seen])),
    )
    ask = Sentence("Look at the chips. What do you change?")
    rule = Sentence("{w}", w=ADVICE[seen][1])
    return Exercise(ask, known, Choice(tuple(draw.mixed(options))), rule, (), _chip(seen))


def _chip(seen: Seen) -> Scene | None:
    """How chips of a shape lie; a colour is told, not drawn."""
    if seen not in ("curls", "ribbon", "powder"):
        return None
    shapes = []
    if seen == "ribbon":
        points = tuple((2.0 * i, 8 + (6 if i % 2 else -6) * (0.6 + 0.04 * i)) for i in range(28))
        shapes.append(Shape("ribbon", "path", points, closed=False))
    elif seen == "curls":
        for k in range(5):
            x, y = 6.0 + 11 * k, 5.0 + 5 * (k % 2)
            curl = tuple(
                (x + r * c, y + r * s) for r, c, s in ((3, 1, 0), (3, 0, 1), (3, -1, 0), (2.2, 0, -1), (1.6, 1, 0))
            )
            shapes.append(Shape(f"curl-{k}", "path", curl, closed=False))
    else:
        for k in range(24):
            x, y = 3 + 2.3 * k, 2.0 + (7 * k) % 13
            shapes.append(Shape(f"grain-{k}", "outline", rectangle(x, y, x + 1.4, y + 1.1)))
    words = {"ribbon": "One long band.", "curls": "Short pieces, each rolled up.", "powder": "Small crushed grains."}
    return Scene(tuple(shapes), (), (0, -4, 60, 22), (Sentence(words[seen]),))


CODES = (
    "CNMG 120408",
    "DNMG 150604",
    "CCMT 09T304",
    "TNMG 160408",
    "VBMT 160404",
    "WNMG 080412",
    "DCMT 11T308",
    "SNMG 120412",
)


def insert_name(draw: Draw, level: int) -> Exercise:
    """An insert's designation, both ways."""
    code = draw.one(CODES)
    found = insert_code(InsertCodeInput(code))
    rule = Sentence(
        "Shape, clearance, tolerance and type by letters; then in ISO the edge's length, the thickness and the "
        "corner in tenths of a millimetre; in ANSI eighths, sixteenths and sixty-fourths of an inch."
    )
    known = (Known("On the box", Sentence(code)),)
    if level == 1:
        answer = Asked("Corner radius", "mm", found.corner_radius_mm, 0.005, 0.05, places=(2, 4))
        return Exercise(Sentence("What is its corner radius?"), known, answer, rule, found.working)
    names = [
        str(insert_code(InsertCodeInput(c)).ansi if level == 2 else insert_code(InsertCodeInput(c)).iso) for c in CODES
    ]
    at = CODES.index(code)
    others = draw.some([n for i, n in enumerate(names) if i != at], 3)
    if level == 3:
        known = (Known("On the box", Sentence("{c}", c=str(found.ansi))),)
    why = Sentence("{a} and {b} are the same insert.", a=code, b=str(found.ansi))
    options = [Option(names[at], Sentence(names[at]), "right", why)]
    options += [
        Option(n, Sentence(n), "wrong", Sentence("That is another insert: read it place by place.")) for n in others
    ]
    ask = Sentence("Which is the same insert in inches?" if level == 2 else "Which is the same insert by ISO?")
    return Exercise(ask, known, Choice(tuple(draw.mixed(options))), rule, found.working)


BARS = (12.0, 16.0, 20.0, 25.0, 32.0, 40.0)
ROOM = 0.75  # of the bore: a thicker bar leaves the chips no way out (typical)


def bar_for_bore(draw: Draw, level: int) -> Exercise:
    """Which bar goes into a bore."""
    bore = draw.one((22.0, 28.0, 34.0, 42.0, 52.0))
    deep = round(bore * draw.one((1.2, 1.6, 2.0)), 0)
    fitting = [b for b in BARS if b <= ROOM * bore]
    right = max(fitting)
    force = draw.value(150, 350, 50)
    shown = sorted({right, *draw.some([b for b in BARS if b != right], 3)})
    options = []
    for bar in shown:
        found = boring_bar(BoringBarInput(bore, bar, deep, force)) if bar < bore else None
        verdict: Verdict = "right" if bar == right else "wrong"
        if found is None:
            why, verdict = Sentence("It does not go in: the bar runs into the part."), "dangerous"
        elif bar > right:
            why = Sentence("It goes in and leaves the chips no room: they jam and score the bore.")
        elif bar == right:
            why = Sentence(
                "The thickest that leaves the chips room; it bends {d} a side.", d=_mm(found.deflection_mm, (4, 5))
            )
        else:
            why = Sentence("A thicker one fits: this one bends {d} a side.", d=_mm(found.deflection_mm, (4, 5)))
        options.append(Option(f"{bar:g}", Sentence("Ø{d}", d=_mm(bar)), verdict, why))
    best = boring_bar(BoringBarInput(bore, right, deep, force))
    rule = Sentence(
        "The thickest bar that leaves a quarter of the bore for the chips: half the diameter bends sixteen times as "
        "much. Let it stand out no further than it must."
    )
    known = (
        Known("Bore", Sentence("Ø{d}", d=_mm(bore))),
        Known("Depth", Sentence("{x}", x=_mm(deep))),
        Known("Passive force", Sentence("{f}", f=Figure(force, "N"))),
    )
    return Exercise(Sentence("Which bar do you take?"), known, Choice(tuple(options)), rule, best.working)


BLADES = ((1.5, 12.0), (2.0, 17.0), (2.5, 22.0), (3.0, 26.0), (4.0, 33.0), (5.0, 45.0))  # width, reach [mm]


def _blade(draw: Draw) -> Exercise:
    """The narrowest blade that reaches the centre."""
    d = draw.value(16, 80, 2)
    wanted = d / 2 + REACH_SPARE_MM
    at = next(i for i, (_, reach) in enumerate(BLADES) if reach >= wanted)
    width = BLADES[at][0]
    options = []
    for w, reach in BLADES[max(0, at - 2) : at + 2]:
        found = _parted(d, w, wanted, reach)
        verdict: Verdict = "right" if w == width else "wrong" if found.reach_ok else "dangerous"
        why = Sentence("It reaches the centre, and wastes the least bar.")
        if verdict == "dangerous":
            why = Sentence("It does not reach: its holder runs into the bar before it is through.")
        elif verdict == "wrong":
            why = Sentence("It reaches, and turns more bar into chips: {k} a piece.", k=_mm(w - width))
        words = Sentence("{w} wide, reaches {r}", w=_mm(w), r=_mm(reach))
        options.append(Option(f"{w:g}", words, verdict, why))
    rule = Sentence(
        "The blade reaches half the diameter and {s} more; of those that do the narrowest, which costs the least bar.",
        s=_mm(REACH_SPARE_MM),
    )
    known = (Known("Parting off solid bar", Sentence("Ø{d}", d=_mm(d))),)
    best = _parted(d, width, wanted, BLADES[at][1])
    return Exercise(Sentence("Which blade do you take?"), known, Choice(tuple(options)), rule, best.working)


def _parted(diameter_mm: float, width_mm: float, out_mm: float, reach_mm: float) -> PartOffResult:
    """A blade that hangs out so far and is stated for so much, at usual figures."""
    return part_off(PartOffInput(diameter_mm, width_mm, 100.0, 0.1, 3000.0, reach_mm=out_mm, reach_max_mm=reach_mm))


def part_off_feed(draw: Draw, level: int) -> Exercise:
    """The feed near the centre; below which diameter the spindle tops out; which blade."""
    if level > 2:
        return _blade(draw)
    d, feed = draw.value(20, 60, 2), draw.value(0.08, 0.16, 0.02)
    speed, cap = draw.value(80, 160, 10), draw.value(2000, 4000, 250)
    found = part_off(PartOffInput(d, 3.0, speed, feed, cap))
    known = (
        Known("Parting off solid bar", Sentence("Ø{d}", d=_mm(d))),
        Known("Feed", Sentence("{f}", f=_rev(feed))),
        Known("Surface speed, spindle at most", Sentence("{v}, {n}", v=Figure(speed, "m/min"), n=Figure(cap, "rpm"))),
    )
    if level > 1:
        value = found.cap_diameter_mm
        answer = Asked("It tops out below", "mm", value, 0.04 * value, 0.15 * value, places=(1, 3))
        rule = Sentence(
            "The spindle reaches its highest speed where π·d·n is the surface speed; inside that the speed falls."
        )
        ask = Sentence("Below which diameter does the surface speed fall?")
        return Exercise(ask, known, answer, rule, found.working)
    shares = (("same", 1.0), ("third", 1 / 3), ("double", 2.0), ("tenth", 0.1))
    why = {
        "same": Sentence("The core breaks off and takes the corner with it: the edge stands below a speed that cuts."),
        "double": Sentence("The core is torn out and the blade with it: parting pieces fly."),
        "tenth": Sentence("So little rubs: the edge hardens the core and chips."),
        "third": Sentence("A half to a quarter of the feed: the core is cut, not torn."),
    }
    verdicts: dict[str, Verdict] = {"third": "right", "same": "dangerous", "double": "dangerous", "tenth": "wrong"}
    options = tuple(
        Option(key, Sentence("{f}", f=_rev(share * feed)), verdicts[key], why[key]) for key, share in draw.mixed(shares)
    )
    rule = Sentence(
        "From about {d} inward a half to a quarter of the feed: the surface speed falls to nothing.", d=_mm(5.0)
    )
    return Exercise(Sentence("How much do you feed near the centre?"), known, Choice(options), rule, found.working)


SCALE_MOST = 16


def refractometer(draw: Draw, level: int) -> Exercise:
    """A scale to read, its strength, and what to add."""
    reading = draw.value(2, 12, 0.5)
    factor = draw.one((1.0, 1.2, 1.5, 1.8))
    target, tank = draw.value(7, 10, 1), draw.value(100, 400, 20)
    found = coolant(CoolantInput(reading, factor, target, tank))
    known = [Known("The product's factor", Sentence("{f}", f=Figure(factor, "", places=(1, 1))))]
    rule = Sentence("Strength is the reading times the product's factor. Up: V·(c₂ − c₁)/(1 − c₂) of concentrate.")
    weak = Sentence("Too weak: rust and germs in the tank, and sore hands.")
    if level < 3 or found.add_concentrate_l <= 0:
        answer = Asked("Strength", "%", found.percent, 0.3 * factor, 0.8 * factor, "above", weak, (1, 1))
        ask = Sentence("Read the scale where light meets dark. How strong is the coolant?")
    else:
        known += [
            Known("In the tank", Sentence("{v}", v=Figure(tank, "l"))),
            Known("Wanted", Sentence("{c}", c=Figure(target, "%"))),
        ]
        value = found.add_concentrate_l
        answer = Asked("Add concentrate", "l", value, max(0.3, 0.08 * value), max(0.8, 0.2 * value), places=(1, 2))
        ask = Sentence("Read the scale where light meets dark. How much concentrate do you add?")
    return Exercise(ask, tuple(known), answer, rule, found.working, _scale(reading))


def _scale(reading: float) -> Scene:
    """The scale as it is seen through the glass: the field is dark above the line."""
    wide, step = 26.0, 4.0
    high = SCALE_MOST * step
    shapes = [
        Shape("field", "track", rectangle(0, 0, wide, high)),
        Shape("dark", "part", rectangle(0, reading * step, wide, high)),
    ]
    labels = []
    for n in range(SCALE_MOST + 1):
        long = 7.0 if n % 2 == 0 else 4.0
        shapes.append(Shape(f"mark-{n}", "outline", ((0, n * step), (long, n * step)), closed=False))
        if n % 2 == 0:
            labels.append(Label((-3, n * step - 1), Sentence(str(n)), anchor="end"))
    # The words name the marks that the line stands between, as the eye would.
    below = int(reading)
    where = f"between {below} and {below + 1}, half way" if reading != below else f"at the mark after {below - 1}"
    words = Sentence("A scale from 0 to {n}; dark above the line, which stands {w}.", n=str(SCALE_MOST), w=where)
    return Scene(tuple(shapes), (), (-12, -3, wide + 3, high + 3), (words,), tuple(labels))
