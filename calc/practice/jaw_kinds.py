"""Exercises of jaws: the blue, the contact, what they close on, the paper."""

from __future__ import annotations

from calc.card.readings.feeler import STEP_MM, BlueAsk, BlueEntry
from calc.jaws.backing import BoringPlug, BoringRing, JawBackingInput, jaw_backing
from calc.jaws.contact import JawContactInput, jaw_contact
from calc.jaws.recut import JawRecutInput, jaw_recut
from calc.practice.draw import Draw
from calc.practice.exercise import Asked, Choice, Exercise, Known, Option, Verdict
from calc.quantities import Figure, Sentence
from calc.scene.shapes import Label, Scene, Shape, box_of, rectangle
from calc.terms import Side

MM = (2, 3)
FINE = (3, 4)
BLUE_WORDS = {"tip": "More taper.", "base": "Less taper.", "even": "Nothing: it is done."}
BLUE_SAYS = {
    "tip": "The blue has crept in at the mouth: the tips of the jaws stand off.",
    "base": "The blue has crept in at the floor: the jaws stand off at the part's base.",
    "even": "The blue has crept in nowhere: the jaws touch all along.",
}
BLUE_BAD: dict[tuple[str, str], tuple[Verdict, str]] = {
    ("tip", "base"): ("dangerous", "The tips would stand off still more: held at its base alone, the part tilts."),
    ("tip", "even"): ("dangerous", "The tips stand off: held at its base alone, it tilts under the first heavy cut."),
    ("base", "tip"): ("dangerous", "The base would stand off still more: it is held by a line at its tip alone."),
    ("base", "even"): ("dangerous", "The base stands off: held by a line at its tip, it is pushed askew by the cut."),
    ("even", "tip"): ("wrong", "It touches all along: more taper takes the base off the part."),
    ("even", "base"): ("wrong", "It touches all along: less taper takes the tip off the part."),
}


def _mm(value: float, places: tuple[int, int] = MM) -> Figure:
    return Figure(value, "mm", places=places)


LONG, GAP, DEEP = 60.0, 6.0, 16.0  # of the picture; the gap is drawn far larger than it is
CREPT = {"tip": ((0.0, 0.0), (LONG, GAP)), "base": ((0.0, GAP), (LONG, 0.0)), "even": ((0.0, 0.0), (LONG, 0.0))}


def blued(shows: str) -> Scene:
    """A jaw above the part, floor at the left and mouth at the right: blue has crept in where they do not touch."""
    left, right = CREPT[shows]
    jaw = Shape("jaw", "jaw", (left, right, (LONG, GAP + DEEP), (0.0, GAP + DEEP)))
    part = Shape("part", "part", rectangle(0, -DEEP, LONG, 0))
    blue = {
        "tip": ((LONG / 3, 0.0), (LONG, 0.0), (LONG, GAP), (LONG / 3, GAP / 3)),
        "base": ((0.0, 0.0), (2 * LONG / 3, 0.0), (2 * LONG / 3, GAP / 3), (0.0, GAP)),
        "even": ((LONG - 1.5, 0.0), (LONG, 0.0), (LONG, 1.2)),
    }[shows]
    labels = (
        Label((0, GAP + DEEP + 3), Sentence("floor"), anchor="start"),
        Label((LONG, GAP + DEEP + 3), Sentence("mouth"), anchor="end"),
    )
    shapes = (part, jaw, Shape("blue", "removed", blue))
    box = box_of(shapes, ())
    where = {"tip": "from the mouth", "base": "from the floor", "even": "nowhere but at the rim of the mouth"}[shows]
    words = Sentence("The jaw above, the part below, floor left and mouth right. The blue has crept in {w}.", w=where)
    return Scene(shapes, (), (box[0], box[1], box[2], box[3] + 8), (words,), labels)


def read_blue(draw: Draw, level: int) -> Exercise:
    """Where the blue has crept in, and what the taper lacks."""
    shows = draw.one(("tip", "base", "even"))
    side: Side = draw.one(("od", "id")) if level > 1 else "od"
    now = draw.value(0.04, 0.16, 0.02)
    found = BlueAsk(side=side).told(BlueEntry(shows, now))  # type: ignore[arg-type] # one of the three
    options = []
    for key in ("tip", "base", "even"):
        verdict: Verdict = "right"
        why = ""
        if key != shows:
            verdict, why = BLUE_BAD[shows, key]
        said = Sentence(why or BLUE_SAYS[shows])
        options.append(Option(key, Sentence(BLUE_WORDS[key]), verdict, said))
    rule = Sentence(
        "Blue creeps in where jaw and part do not touch. At the tip: too little taper. At the base: too much. "
        "Change it by {z} on diameter, cut, and blue it again until it is even.",
        z=_mm(STEP_MM),
    )
    known = (
        Known("Gripping", Sentence("outside" if side == "od" else "inside")),
        Known("Taper in the jaws now", Sentence("{t} on diameter", t=_mm(now))),
    )
    ask = Sentence("The part was gripped at full pressure, blue round the mouth. What do you do to the jaws?")
    return Exercise(ask, known, Choice(tuple(options)), rule, found.steps, blued(shows))


def edges_or_centres(draw: Draw, level: int) -> Exercise:
    """How bored jaws touch a piece of another size."""
    side: Side = draw.one(("od", "id")) if level > 1 else "od"
    jaw = draw.value(60, 140, 0.5)
    off = draw.value(0.05, 0.4, 0.05) * draw.one((-1, 1)) if draw.value(0, 4, 1) > 0 else 0.0
    part, width = round(jaw + off, 3), draw.one((30.0, 35.0, 40.0))
    found = jaw_contact(JawContactInput(side, jaw, part, width))
    why = {
        "full": "The same radius touches all over.",
        "centre": "The jaw's arc is flatter than the piece: it touches at mid-jaw."
        if side == "od"
        else "The turned arc is sharper than the bore: it touches at mid-jaw.",
        "edges": "The jaw's arc is sharper than the piece: it touches on its corners."
        if side == "od"
        else "The turned arc is flatter than the bore: it touches on its corners.",
    }
    words = {"full": "all over", "centre": "at mid-jaw, three lines", "edges": "on the corners, six lines"}
    options = tuple(
        Option(key, Sentence(words[key]), "right" if key == found.mode else "wrong", Sentence(why[found.mode]))
        for key in ("full", "centre", "edges")
    )
    rule = Sentence(
        "Outside: a bore larger than the piece holds it at mid-jaw, a smaller one on its corners. Inside it is the "
        "other way about."
    )
    bored = "Jaws bored to" if side == "od" else "Jaws turned to"
    known = (
        Known(bored, Sentence("Ø{d}", d=_mm(jaw, FINE))),
        Known("The piece" if side == "od" else "The piece's bore", Sentence("Ø{d}", d=_mm(part, FINE))),
    )
    return Exercise(Sentence("Where do these jaws touch the piece?"), known, Choice(options), rule, found.working)


RINGS = (("A", 85, 130), ("B", 95, 140), ("C", 60, 105), ("D", 110, 160), ("E", 130, 185), ("F", 40, 80))


def which_ring(draw: Draw, level: int) -> Exercise:
    """What the jaws close on while they are bored."""
    side: Side = draw.one(("od", "id")) if level > 1 else "od"
    d = draw.value(40, 170, 2)
    rings = tuple(
        BoringRing(f"Ring {n}", i, o, draw.value(4, 10, 1), draw.value(600, 1000, 50))
        for n, i, o in sorted(draw.some(RINGS, 3))
    )
    plug = BoringPlug(draw.one((40.0, 60.0, 80.0))) if side == "od" and draw.yes() else None
    bar = draw.value(12, 24, 2)
    given = JawBackingInput(side, d, bar, rings, plug)
    found = jaw_backing(given)
    why_not = {r.name: r.why for r in found.rejected}
    right = found.ring if found.choice == "ring" and found.ring else "plug" if found.choice == "plug" else "other"
    options = []
    verdict: Verdict
    for ring in rings:
        verdict = "right" if ring.name == right else "wrong"
        why = why_not.get(ring.name, Sentence("It would do, and another one takes more pressure or speed."))
        if verdict == "right":
            why = Sentence("It leaves the tool room, and of those that do it stands the most.")
        elif "in the way" in why.text():
            verdict = "dangerous"
            why = Sentence("The boring tool runs into it: {w}.", w=why)
        words = Sentence("{n}: Ø{i} inside, Ø{o} outside", n=ring.name, i=_mm(ring.inner_mm), o=_mm(ring.outer_mm))
        options.append(Option(ring.name, words, verdict, why))
    if side == "od":
        words = Sentence("a plug of Ø{d}", d=_mm(plug.diameter_mm)) if plug else Sentence("a plug")
        verdict, why = "wrong", Sentence("A ring that fits is quicker, and stands what is needed.")
        if right == "plug":
            verdict, why = "right", Sentence("No ring leaves the tool room; the plug does, at full pressure.")
        elif plug is None:
            why = Sentence("There is none on the shelf.")
        elif plug.diameter_mm > given.largest_plug_mm:
            verdict, why = "dangerous", Sentence("The boring tool runs into the plug at the bottom.")
        options.append(Option("plug", words, verdict, why))
    last = "a ring in a groove of its own, made for it" if side == "id" else "nothing that is here: make a ring first"
    why = (
        Sentence("Nothing that is here leaves the tool room.")
        if right == "other"
        else Sentence("There is one that fits.")
    )
    options.append(Option("other", Sentence(last), "right" if right == "other" else "wrong", why))
    rule = Sentence(
        "The tool needs {c} of room a side past what the jaws close on. Of the rings that leave it, the one that "
        "takes the most pressure, then the most speed.",
        c=_mm(given.tool_clearance_mm),
    )
    known = (
        Known("Bore" if side == "od" else "Turned to", Sentence("Ø{d}", d=_mm(d))),
        Known("Gripping", Sentence("outside" if side == "od" else "inside")),
        Known("Production pressure", Sentence("{p}", p=Figure(bar, "bar"))),
        *(
            Known(
                r.name, Sentence("up to {p} and {n}", p=Figure(r.max_bar or 0, "bar"), n=Figure(r.max_rpm or 0, "rpm"))
            )
            for r in rings
        ),
    )
    ask = Sentence("What do the jaws close on while you bore them?" if side == "od" else "What do they open against?")
    return Exercise(ask, known, Choice(tuple(options)), rule, found.working)


def jaws_close(draw: Draw, level: int) -> Exercise:
    """Which way the jaws are pressed while they are bored."""
    side: Side = draw.one(("od", "id"))
    backing = draw.one(("ring", "plug")) if side == "od" else "ring"
    right = "in" if side == "od" else "out"
    wrong = Sentence(
        "Slack goes to the other side: the jaws are cut where they never stand under the part, and grip it crooked."
    )
    good = Sentence("They are cut where they will stand: pressed the same way as they will hold the part.")
    options = tuple(
        Option(key, Sentence(words), "right" if key == right else "dangerous", good if key == right else wrong)
        for key, words in (("in", "inward, closing"), ("out", "outward, opening"))
    )
    free = "no pressure at all, so that they are not bent"
    loose = Sentence("Free jaws move under the tool: the bore is neither round nor where the grip will be.")
    options = (*options, Option("free", Sentence(free), "dangerous", loose))
    rule = Sentence("Jaws are cut pressed the same way as they hold: inward to grip outside, outward to grip inside.")
    part = draw.value(40, 160, 1)
    known = (
        Known("The part is gripped", Sentence("outside, Ø{d}" if side == "od" else "inside, Ø{d}", d=_mm(part))),
        Known("Pressed on", Sentence("a " + backing)),
    )
    return Exercise(Sentence("Which way are the jaws pressed while you cut them?"), known, Choice(options), rule)


def paper(draw: Draw, level: int) -> Exercise:
    """A touch-off with paper between: the size of the jaws, or what is to be taken off."""
    side: Side = draw.one(("od", "id")) if level > 1 else "od"
    target, slip = draw.value(50, 150, 0.5), draw.one((0.05, 0.08, 0.10))
    off = draw.value(0.1, 0.6, 0.02)
    size = target - off if side == "od" else target + off
    reading = round(size - 2 * slip if side == "od" else size + 2 * slip, 3)
    found = jaw_recut(JawRecutInput(side, reading, target, slip, 0.0, 5.0))
    known: tuple[Known, ...] = (
        Known("Jaws grip", Sentence("outside" if side == "od" else "inside")),
        Known("X at touch-off, paper between", Sentence("{x}", x=_mm(reading, FINE))),
        Known("The paper", Sentence("{x}", x=_mm(slip))),
    )
    if level < 3:
        answer = Asked("The jaws are now", "mm", found.size_mm, 0.005, 2 * slip + 0.005, places=FINE)
        ask = Sentence("What diameter are the jaws now?")
    else:
        # Taken off too much cannot be put back; the jaws are then moved and cut again.
        answer = Asked(
            "To take off, per side",
            "mm",
            found.removal_mm,
            0.005,
            slip,
            "above",
            Sentence(
                "The jaws are cut past their size: the piece sits loose, at mid-jaw, and they must be moved in and "
                "bored again."
            )
            if side == "od"
            else Sentence(
                "The jaws are turned below their size: the bore sits loose, and they must be moved out and turned "
                "again."
            ),
            FINE,
        )
        known = (*known, Known("To be", Sentence("Ø{d}", d=_mm(target, FINE))))
        ask = Sentence("How much comes off, per side?")
    rule = Sentence(
        "The paper is between tool and jaw on both sides of the axis: twice its thickness is added to X in a bore, "
        "and taken from X on a turned jaw."
    )
    return Exercise(ask, known, answer, rule, found.working)
