"""What is wrong with this set-up: a sound plan with a fault planted that it would refuse, or that costs money."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import lru_cache

from calc.plan.compute import PlanResult, compute
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.cuts.solve import CUTS
from calc.plan.document import Document, Setup
from calc.plan.force.solve import FORCE
from calc.plan.part.drawn import drawings
from calc.plan.part.solve import PART
from calc.practice.draw import Draw
from calc.practice.exercise import Choice, Exercise, Known, Option, Verdict
from calc.practice.sound_plan import sound_run
from calc.quantities import Figure, Sentence
from calc.scene.shapes import Scene

FACE, ROUGHER = "c1", "c3"
Plant = Callable[[Document, float], Document]


@dataclass(frozen=True)
class Fault:
    """A fault: how it is planted, how hard (one of a few), the stop that refuses it with one of its codes (none: it
    only costs money), and what it would do at the machine.
    """

    name: str
    words: str
    does: str
    plant: Plant
    hard: tuple[float, ...]
    stop: str
    codes: tuple[str, ...]


def _setup(document: Document, **changes: object) -> Document:
    first, *rest = document.setups
    return replace(document, setups=(replace(first, **changes), *rest))  # type: ignore[arg-type]


def _cut(document: Document, which: str, change: Callable[[PlannedCut], PlannedCut]) -> Document:
    cuts = tuple(change(c) if c.id == which else c for c in document.setups[0].cuts)
    return _setup(document, cuts=cuts)


def _pressure(document: Document, share: float) -> Document:
    force = document.setups[0].force
    assert force.pressure_bar is not None  # of the sound plan
    return _setup(document, force=replace(force, pressure_bar=round(force.pressure_bar * share, 1)))


def _clamp(document: Document, times: float) -> Document:
    return _cut(document, FACE, lambda c: replace(c, clamp_rpm=round((c.clamp_rpm or 0) * times, -1)))


def _feed(document: Document, times: float) -> Document:
    return _cut(document, ROUGHER, lambda c: replace(c, feed_mm_rev=round((c.feed_mm_rev or 0) * times, 3)))


def _hand(document: Document, _: float) -> Document:
    return _cut(document, ROUGHER, lambda c: replace(c, turns="M04"))


def _deep(document: Document, mm: float) -> Document:
    return _setup(document, hold=replace(document.setups[0].hold, depth_mm=mm))


def _stroke(document: Document, at: float) -> Document:
    return _setup(document, jaws=replace(document.setups[0].jaws, position=at))


def _slow(document: Document, share: float) -> Document:
    return _cut(document, ROUGHER, lambda c: replace(c, speed_m_min=round((c.speed_m_min or 0) * share)))


FAULTS: tuple[Fault, ...] = (
    Fault(
        "pressure",
        "The pressure is too low for this cut.",
        "The part turns in the jaws, tilts and is thrown.",
        _pressure,
        (0.3, 0.35, 0.4),
        "force",
        ("grip-too-small", "little-grip-kept"),
    ),
    Fault(
        "clamp",
        "The spindle clamp of the facing is above what the grip allows.",
        "At that speed the jaws have let go: the part is thrown.",
        _clamp,
        (1.4, 1.6, 1.8),
        "force",
        ("over-cap",),
    ),
    Fault(
        "feed",
        "The rough turning is fed harder than spindle and grip stand.",
        "The spindle stalls in the cut, or the part slips in the jaws.",
        _feed,
        (2.0, 2.3, 2.6),
        "cuts",
        ("spindle-too-weak", "feed-above-window"),
    ),
    Fault(
        "hand",
        "The spindle turns the wrong way for the rough turning's tool.",
        "The edge rubs with its back: it breaks, and can tear the part out.",
        _hand,
        (1.0,),
        "cuts",
        ("wrong-way",),
    ),
    Fault(
        "deep",
        "The part is gripped deeper than it is plain.",
        "The shoulder lands on the jaws before the part is seated: it is held crooked.",
        _deep,
        (22.0, 30.0, 40.0),
        "hold",
        (),
    ),
    Fault(
        "stroke",
        "The jaws have no stroke left to close on the smallest piece.",
        "They come to the end of their stroke before they grip: the gauge shows pressure, the part is loose.",
        _stroke,
        (0.98, 1.0),
        "jaws",
        (),
    ),
    Fault(
        "slow",
        "Nothing is unsafe: the rough turning runs at half the speed that its edge could.",
        "It costs minutes on every piece.",
        _slow,
        (0.4, 0.5),
        "",
        (),
    ),
)
BY_NAME = {f.name: f for f in FAULTS}


@lru_cache(maxsize=64)
def planted(name: str, hard: float) -> PlanResult:
    """The sound plan with a fault in it; none: the sound plan."""
    run = sound_run()
    return compute(run.document if name == "" else BY_NAME[name].plant(run.document, hard), run.shelf)


def stopped_by(result: PlanResult) -> dict[str, tuple[str, ...]]:
    """The stops that refuse a plan, with the codes of what they say; what it only waits for is not among them."""
    found: dict[str, tuple[str, ...]] = {}
    for stop in result.stops:
        if stop.state == "stopped":
            codes = tuple(n.code for n in stop.notes if n.level == "stop")
            found[stop.name] = (*found.get(stop.name, ()), *codes)
    return found


def find_fault(draw: Draw, level: int) -> Exercise:
    """What is wrong with a set-up."""
    pool = [f for f in FAULTS if level > 1 or f.stop]
    fault = draw.one(pool)
    hard = draw.one(fault.hard)
    result, sound = planted(fault.name, hard), planted("", 0.0)
    refused = stopped_by(result)
    every = (stopped_by(planted(fault.name, h)) for h in fault.hard)
    said_so = {code for one in every for codes in one.values() for code in codes}
    # What the plan says too because of the fault is no wrong answer.
    others = draw.some([f for f in pool if f.name != fault.name and not said_so & set(f.codes)], 3)
    options = []
    for one in draw.mixed([fault, *others]):
        if one.name == fault.name:
            options.append(Option(one.name, Sentence(one.words), "right", Sentence(one.does)))
            continue
        # Who says that it is only slow lets a part fly; who looks for the wrong danger finds none.
        verdict: Verdict = "dangerous" if one.name == "slow" and fault.stop else "wrong"
        why = Sentence("That is as it should be here. What is wrong: {w}", w=fault.does)
        options.append(Option(one.name, Sentence(one.words), verdict, why))
    rule = (
        _plans_own(result)
        if refused
        else Sentence("Not everything that is wrong is dangerous: an edge that is asked too little costs money.")
    )
    known = _shown(result.views[0].setup, result, sound)
    ask = Sentence("What is wrong with side 1 of this set-up?")
    return Exercise(ask, tuple(known), Choice(tuple(options)), rule, picture=_part_drawn(sound))


def _part_drawn(sound: PlanResult) -> Scene:
    """The part in its stock: what a setter has before them whatever is wrong with the set-up."""
    scene = next(iter(drawings(sound.views[0]))).draw()
    assert isinstance(scene, Scene)
    return scene


def _plans_own(result: PlanResult) -> Sentence:
    """What a plan that is refused says of itself first: at a fact, or at its stop."""
    for stop in result.stops:
        if stop.state == "stopped":
            said = [e.sentence for e in stop.problems] + [n.sentence for n in stop.notes if n.level == "stop"]
            if said:
                return said[0]
    raise AssertionError("a stop that is refused says why")


def _shown(setup: Setup, result: PlanResult, sound: PlanResult) -> list[Known]:
    """What stands on the setter's sheet: the same lines whatever is wrong."""
    part, force, cuts = sound.views[0][PART], sound.views[0][FORCE], sound.views[0][CUTS]
    assert part is not None and force is not None and cuts is not None  # the plan is sound
    rough = next(c for c in setup.cuts if c.id == ROUGHER)
    face = next(c for c in setup.cuts if c.id == FACE)
    stock = result.views[0].document.part.stock
    worst = max(force.loads, key=lambda load: load.needed_n)

    def mm(value: float | None) -> Figure:
        return Figure(value or 0.0, "mm", places=(2, 3))

    def rev(value: float | None) -> Figure:
        return Figure(value or 0.0, "mm/rev", places=(3, 4))

    return [
        Known("Part", Sentence("seal carrier, duplex, slug Ø{d}", d=mm(stock.diameter_mm))),
        Known(
            "Held on", Sentence("raw stock, {x} deep; plain for {y}", x=mm(setup.hold.depth_mm or 0.0), y=mm(PLAIN_MM))
        ),
        Known("Gauge pressure", Sentence("{p}", p=Figure(setup.force.pressure_bar or 0.0, "bar"))),
        Known("Grip a bar of it gives", Sentence("{f}", f=Figure(force.grip.grip_n / force.pressure_bar, "N", "down"))),
        Known("Needed by the hardest cut as planned", Sentence("{f}", f=Figure(worst.needed_n, "N", "up"))),
        Known("Speed takes at 1 000 rpm", Sentence("{f}", f=Figure(force.loss * 1e6, "N", "up"))),
        Known("Jaws grip at", Sentence("{p} % of the stroke used", p=f"{100 * setup.jaws.position:g}")),
        Known(
            "Rough turning",
            Sentence(
                "{v}, {f}, {a} deep, clamp {n}, spindle {m}",
                v=Figure(rough.speed_m_min or 0.0, "m/min"),
                f=rev(rough.feed_mm_rev),
                a=mm(rough.depth_mm),
                n=Figure(rough.clamp_rpm or 0.0, "rpm"),
                m=rough.turns,
            ),
        ),
        Known(
            "Facing, to the bore",
            Sentence(
                "{v}, {f}, clamp {n}, spindle {m}",
                v=Figure(face.speed_m_min or 0.0, "m/min"),
                f=rev(face.feed_mm_rev),
                n=Figure(face.clamp_rpm or 0.0, "rpm"),
                m=face.turns,
            ),
        ),
    ]


PLAIN_MM = 15.0  # of the raw stock in the jaws, as the sound plan has it
