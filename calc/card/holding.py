"""Steps that make a side's hold: jaws cleaned, mounted, cut, checked; hard jaws; a collet; the second spindle."""

from __future__ import annotations

from collections.abc import Iterator

from calc.card.ask import Ask
from calc.card.readings.feeler import BlueAsk, FeelerAsk
from calc.card.readings.grip import GripAsk
from calc.card.readings.jaws import JawSizeAsk, TouchOffAsk
from calc.card.readings.pressure import PressureAsk
from calc.card.readings.runout import RunoutAsk
from calc.card.step import CardStep
from calc.plan.force.solve import FORCE
from calc.plan.hold.figures import ColletHold, HoldFigures, JawHold
from calc.plan.hold.solve import HOLD
from calc.plan.jaws.solve import JAWS, JawsFigures
from calc.plan.view import View
from calc.quantities import Bare, Figure, Sentence

TRUE_MM = 0.02  # typical: what soft jaws cut in place, and a refitted set, run out
HARD_MM = 0.10  # typical: what hard jaws do
PLACES = (3, 4)


class Maker:
    """Makes the steps of one side; ids begin with the set-up's own."""

    def __init__(self, view: View) -> None:
        self.view, self.index, self.at = view, view.index, view.setup.id
        hold, force = view[HOLD], view[FORCE]
        assert hold is not None and force is not None  # a released plan is settled
        self.hold, self.force = hold, force

    def one(self, name: str, title: str, *words: Sentence | str, **more: object) -> CardStep:
        """A step of this side."""
        said = tuple(w if isinstance(w, Sentence) else Sentence(w) for w in words)
        ask = more.get("ask")
        kind = "read" if isinstance(ask, Ask) else more.pop("kind", "do")
        return CardStep(
            f"{self.at}.{name}",
            str(more.pop("place", "jaws")),
            title,
            said,
            self.index,
            kind,  # type: ignore[arg-type] # one of the kinds
            **more,  # type: ignore[arg-type] # the rest of a step's fields
        )


STOPPED = Sentence("Spindle stopped, door open, nobody at the pedal but you.")
INSIDE = Sentence("A T-nut beyond the body flies out, and the jaw with it.")
HANDS = Sentence("Freshly cut jaws cut hands.")


def holding(view: View, first_in_set: bool) -> Iterator[CardStep]:
    """A side's steps up to a part that is held true; `first_in_set`: its jaws are not mounted yet."""
    make = Maker(view)
    hold = make.hold
    if isinstance(hold, ColletHold):
        yield from _collet(make, hold)
    elif isinstance(hold, JawHold):
        jaws = view[JAWS]
        assert jaws is not None
        if first_in_set:
            yield from _mounted(make, hold, jaws)
            yield from _cut(make, hold, jaws) if not hold.blank.is_hard else ()
        elif not hold.blank.is_hard:  # its pocket was cut with the other one
            yield _size(make, hold)
            yield from _tapered(make, hold, jaws)
    yield from _held(make, hold)


def _mounted(make: Maker, hold: JawHold, jaws: JawsFigures) -> Iterator[CardStep]:
    chuck, blank = hold.chuck, hold.blank
    yield make.one(
        "clean",
        "Clean serrations, slots and master jaws",
        "Brush out serrations, T-slots and master jaws, then wipe them. A chip under a jaw is run-out in every piece.",
        caution=STOPPED,
        lights=("jaw",),
    )
    yield make.one(
        "grease",
        "Grease the chuck",
        "Grease every nipple with the chuck's own grease, and open and close it ten times.",
    )
    keep = jaws.keep
    used = make.view.taken.jaw_set
    if used is not None and keep is not None and keep.verdict in ("refit", "recut"):
        where = Sentence("On the scribed tooth, jaw 1 on master jaw 1: {s}.", s=used.name)
    elif hold.mount is not None:
        where = Sentence(
            "On tooth {k}, counted from 0 outward from the middle, all alike: the face then stands {r} from the axis.",
            k=str(hold.mount.tooth),
            r=Figure(hold.mount.face_radius_mm, "mm"),
        )
    else:
        where = Sentence("On the tooth that the jaws' own marks say, all alike.")
    yield make.one(
        "mount",
        "Mount the jaws",
        Sentence("{b}. Each jaw on the master jaw of its own number.", b=blank.name),
        where,
        "T-nuts inside the chuck's body, every one.",
        kind="caution",
        caution=INSIDE,
        lights=("tooth", "jaw"),
    )
    torque = chuck.bolt_torque_aluminium_nm if blank.metal == "aluminium" else chuck.bolt_torque_steel_nm
    said = (
        Sentence("{m} for {b}, crosswise, in two goes.", m=Figure(torque, "N*m"), b=chuck.bolt_size or "the jaw bolts")
        if torque is not None
        else Sentence("The chuck's record has no torque: as its maker's book says, less for aluminium jaws.")
    )
    yield make.one("torque", "Tighten the bolts", said, kind="caution", caution=INSIDE)


def _cut(make: Maker, hold: JawHold, jaws: JawsFigures) -> Iterator[CardStep]:
    keep = jaws.keep
    if keep is not None and keep.verdict == "refit":
        yield make.one(
            "marks",
            "Look at the marks",
            "The set is put back as it was cut: same chuck, same teeth, same master jaws. Nothing is cut.",
        )
        return
    if keep is not None and keep.verdict == "recut":
        yield from _recut(make, hold, jaws)
    else:
        yield from _closed_on(make, hold, jaws)
    ring = jaws.backing.bore_max_rpm if jaws.backing else None
    words = [
        Sentence(
            "{what} to Ø{d}, {x} deep.",
            what="Bore" if hold.side == "od" else "Turn",
            d=Bare(Figure(hold.pocket.bore_diameter_mm, "mm", places=PLACES)),
            x=Figure(hold.pocket.bore_depth_mm, "mm"),
        )
    ]
    if hold.other is not None:
        d, x = Figure(hold.other.bore_diameter_mm, "mm", places=PLACES), Figure(hold.other.bore_depth_mm, "mm")
        words.append(Sentence("In the same go the other pocket: Ø{d}, {x} deep.", d=Bare(d), x=x))
    if ring is not None:
        words.append(Sentence("Clamp the spindle at {n}: the ring stands no more.", n=Figure(ring, "rpm", "down")))
    words.append(Sentence("Jaws are an interrupted cut: light passes, doors shut."))
    yield make.one(
        "cut",
        "Bore the jaws" if hold.side == "od" else "Turn the jaws",
        *words,
        kind="caution",
        caution=Sentence("First spin slow, everybody clear of the plane of the jaws."),
        lights=("bore", "depth"),
    )
    yield make.one(
        "groove",
        "Cut the floor groove",
        Sentence(
            "{w} wide along the wall, {d} into it, so that a sharp edge seats.",
            w=Figure(hold.pocket.groove_width_mm, "mm"),
            d=Figure(hold.pocket.groove_depth_mm, "mm"),
        ),
        lights=("groove",),
    )
    yield _size(make, hold)
    yield make.one(
        "deburr",
        "Break the edges",
        "File or stone every edge that was cut, mouth and floor.",
        kind="caution",
        caution=HANDS,
    )
    yield from _tapered(make, hold, jaws)


def _size(make: Maker, hold: JawHold) -> CardStep:
    return make.one(
        "jaw-size",
        "Measure the jaws",
        Sentence(
            "Clamped on what they were cut on, where they grip, {x} deep.", x=Figure(hold.pocket.bore_depth_mm, "mm")
        ),
        lights=("bore",),
        ask=JawSizeAsk(
            side=hold.side,
            planned_mm=hold.pocket.bore_diameter_mm,
            jaw_width_mm=hold.width_mm,
            pieces_mm=(hold.grip.smallest_mm, hold.grip.largest_mm),
            of=make.at,
        ),
    )


def _recut(make: Maker, hold: JawHold, jaws: JawsFigures) -> Iterator[CardStep]:
    keep, used = jaws.keep, make.view.taken.jaw_set
    assert keep is not None and used is not None
    clamp = keep.clamp_mm or hold.pocket.bore_diameter_mm
    yield make.one(
        "clamp-near",
        "Clamp them near their size",
        Sentence(
            "On a slug or ring, so that they stand at about Ø{d}, {w} than the part.",
            d=Figure(clamp, "mm"),
            w="slightly less" if hold.side == "od" else "slightly more",
        ),
        lights=("bore",),
    )
    yield make.one(
        "touch-off",
        "Touch off with paper",
        "Bring a tip up until a slip of paper is just held between it and a jaw; write X.",
        caution=Sentence("By hand wheel, spindle locked."),
        lights=("bore",),
        ask=TouchOffAsk(
            side=hold.side,
            target_mm=hold.pocket.bore_diameter_mm,
            damage_mm=used.damage_mm or 0.1,
            predicted_mm=clamp,
            of=make.at,
        ),
    )


CLOSED_ON = {"ring": "Close on the ring", "plug": "Seat and clamp the plug", "groove-ring": "Make the ring's groove"}


def _closed_on(make: Maker, hold: JawHold, jaws: JawsFigures) -> Iterator[CardStep]:
    backing = jaws.backing
    if backing is None or backing.choice is None:
        yield make.one(
            "close-on",
            "Close on something that fits",
            "No ring or plug of the shelf is planned: close the jaws the way they will hold, on a ring or plug whose "
            "limits you know.",
            kind="caution",
            caution=Sentence("A ring without its limits on record is never used."),
        )
    else:
        yield make.one(
            "close-on", CLOSED_ON[backing.choice], *backing.steps[:-1] or backing.steps, lights=("ring", "plug")
        )
    used = Figure(100 * make.view.setup.jaws.position, "%")
    yield make.one(
        "stroke",
        "Stroke where it was planned",
        Sentence("With the jaws closed on it the master jaws stand at {p} of their stroke.", p=used),
        "Too far either way: mount the jaws on another tooth.",
        lights=("stroke",),
    )


def _tapered(make: Maker, hold: JawHold, jaws: JawsFigures) -> Iterator[CardStep]:
    taper, bar, used = jaws.taper, make.force.pressure_bar, make.view.taken.jaw_set
    if taper is not None and not taper.needed and jaws.backing is not None and jaws.backing.choice == "plug":
        yield make.one("blue", "Blue round the mouth", *_BLUE, lights=("taper", "depth"), ask=_blue(make, hold))
        return
    yield make.one(
        "feeler",
        "Feeler gauge at the jaw's tip",
        Sentence("Clamp a turned slug or piece at the full {p}.", p=Figure(bar, "bar")),
        "Try the gauge between jaw and part, at the open end, on each jaw. Write the thickest leaf that goes in.",
        caution=STOPPED,
        lights=("taper", "depth"),
        ask=FeelerAsk(
            side=hold.side,
            depth_mm=hold.pocket.bore_depth_mm,
            predicted_mm=taper.gap_mm if taper is not None else None,
            set_key=used.key if used is not None else "",
            bends_times=used.bends_times if used is not None else None,
            of=make.at,
        ),
    )
    yield make.one("blue", "Blue round the mouth", *_BLUE, lights=("taper", "depth"), ask=_blue(make, hold))


_BLUE = (
    Sentence("Blue the jaws thinly round the mouth. Clamp a turned piece once at full pressure, and take it out."),
    Sentence("Choose the picture that it looks like."),
)


def _blue(make: Maker, hold: JawHold) -> BlueAsk:
    return BlueAsk(side=hold.side, of=make.at)


def _collet(make: Maker, hold: ColletHold) -> Iterator[CardStep]:
    collet, chuck = hold.collet, hold.chuck
    yield make.one(
        "clean",
        "Clean cone, key and thread",
        "A chip in the cone is run-out in the part.",
        caution=STOPPED,
        lights=("collet",),
    )
    yield make.one(
        "put-in",
        "Put the collet in",
        Sentence(
            "{c}: it closes from {a} to {b}. Nothing else goes into it.",
            c=collet.name,
            a=Bare(Figure(collet.least_mm, "mm", "up", exact=True, places=(2, 3))),
            b=Figure(collet.nominal_mm, "mm", "down", exact=True, places=(2, 3)),
        ),
        lights=("collet",),
    )
    yield make.one(
        "draw",
        "Set the draw-tube",
        "So that it closes on the work before the end of its travel, with travel left.",
        kind="caution",
        caution=Sentence("A collet at the end of its travel holds nothing."),
    )
    if chuck.draws == "back":
        yield make.one(
            "stop-behind",
            "Put the stop in",
            "This collet draws the work back as it closes: lengths hold only against a stop.",
        )


def _held(make: Maker, hold: HoldFigures) -> Iterator[CardStep]:
    """The pressure, the grip, a part put in, and how true it runs."""
    view, force = make.view, make.force
    at_rest = force.grip.grip_n
    needed = max((_at_rest(at_rest, load.counted_n, load.counted_n / load.held) for load in force.loads), default=0.0)
    wanted = max((_at_rest(at_rest, load.counted_n, load.needed_n) for load in force.loads), default=0.0)
    yield make.one(
        "pressure",
        "Set the production pressure",
        Sentence("{p} at the gauge, closed on the work.", p=Figure(force.pressure_bar, "bar", "down")),
        lights=("pressure",),
        place="hold",
        ask=PressureAsk(planned_bar=force.pressure_bar, path=f"setups.{view.setup.id}.force.pressure_bar", of=make.at),
    )
    if not isinstance(hold, ColletHold):
        yield make.one(
            "grip",
            "Measure the grip",
            "With the grip gauge, spindle at rest, at the production pressure.",
            "At intervals, after a crash, and when the chuck has stood for long. Else skip it, and say why.",
            place="hold",
            ask=GripAsk(predicted_n=at_rest, needed_n=needed, wanted_n=wanted, condition=force.condition, of=make.at),
        )
    if hold.chuck.spindle == "second":
        yield make.one(
            "transfer",
            "Set the transfer",
            Sentence("The second spindle closes on {g}, {x} of it.", g=hold.grip.name, x=Figure(hold.held_mm, "mm")),
            "It waits until both turn alike; both stay closed while the blade goes through.",
            "Then it draws back with the piece: look that nothing hangs on.",
            kind="caution",
            caution=Sentence("Try it first without a bar, step by step, a hand on feed hold."),
            lights=("grip",),
            place="hold",
        )
    else:
        yield make.one("load", "Put a piece in", *_loading(view, hold), lights=("grip",), place="hold")
    allowed, why = _allowed(hold)
    yield make.one(
        "runout",
        "Indicator on the piece",
        "On a turned surface near the jaws where there is one, spindle turned by hand. Read the whole swing.",
        lights=("grip",),
        place="hold",
        ask=RunoutAsk(allowed_mm=allowed, why=why, of=make.at),
    )


def _at_rest(static_n: float, counted_n: float, need_n: float) -> float:
    """The grip at rest [N] that leaves `need_n` at the speed at which `counted_n` is left of `static_n`."""
    return need_n + max(0.0, static_n - counted_n)


def _loading(view: View, hold: HoldFigures) -> Iterator[Sentence]:
    grip = hold.grip
    d = Figure(grip.diameter_mm, "mm", places=hold.places)
    yield Sentence("Held on: {g}, Ø{d}.", g=grip.name, d=Bare(d))
    if hold.stick_out_mm is not None:
        yield Sentence("Let the bar stand out {x}.", x=Figure(hold.stick_out_mm, "mm"))
    elif view.setup.hold.seat != "none":
        yield Sentence("Press it onto its seat, tap it home, and feel that nothing is under it.")
    yield Sentence("It stands {x} out of what holds it.", x=Figure(hold.out_mm, "mm"))


def _allowed(hold: HoldFigures) -> tuple[float, str]:
    if isinstance(hold, ColletHold):
        return hold.collet.runout_mm, "the collet's own"
    if isinstance(hold, JawHold) and hold.blank.is_hard:
        return HARD_MM, "typical of hard jaws"
    return TRUE_MM, "typical of jaws cut in place"
