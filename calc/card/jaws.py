"""Steps that make a side's jaws: cleaned, mounted, closed on something, cut, measured, tapered."""

from __future__ import annotations

from collections.abc import Iterator

from calc.card.readings.feeler import BlueAsk, FeelerAsk
from calc.card.readings.jaws import JawSizeAsk, TouchOffAsk
from calc.card.side import PLACES, STOPPED, Maker
from calc.card.step import CardStep
from calc.plan.hold.figures import JawHold
from calc.plan.jaws.solve import JawsFigures
from calc.quantities import Bare, Figure, Sentence

INSIDE = Sentence("A T-nut beyond the body flies out, and the jaw with it.")
HANDS = Sentence("Freshly cut jaws cut hands.")


def mounted(make: Maker, hold: JawHold, jaws: JawsFigures) -> Iterator[CardStep]:
    """Jaws on their teeth, chuck clean and greased, bolts tight."""
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


def cut(make: Maker, hold: JawHold, jaws: JawsFigures) -> Iterator[CardStep]:
    """Jaws cut for the first time or again, or put back as they were."""
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
    yield size(make, hold, jaws)
    yield make.one(
        "deburr",
        "Break the edges",
        "File or stone every edge that was cut, mouth and floor.",
        kind="caution",
        caution=HANDS,
    )
    yield from tapered(make, hold, jaws)


def _ring(make: Maker, jaws: JawsFigures) -> str:
    """The key of the ring that the jaws close on while they are cut; empty where it is none of the shelf."""
    named = jaws.backing.ring if jaws.backing is not None else None
    return next((r.key for r in make.view.taken.rings if r.name == named), "")


def size(make: Maker, hold: JawHold, jaws: JawsFigures) -> CardStep:
    """Jaws measured as they were cut."""
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
            ring_key=_ring(make, jaws),
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


def tapered(make: Maker, hold: JawHold, jaws: JawsFigures) -> Iterator[CardStep]:
    """How the jaws touch at full pressure: by feeler, then by blue."""
    taper, bar, used = jaws.taper, make.force.pressure_bar, make.view.taken.jaw_set
    if taper is not None and not taper.needed and jaws.backing is not None and jaws.backing.choice == "plug":
        yield make.one("blue", "Blue round the mouth", *_BLUE, lights=("taper", "depth"), ask=_blue(make, hold, jaws))
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
            ring_key=_ring(make, jaws),
        ),
    )
    yield make.one("blue", "Blue round the mouth", *_BLUE, lights=("taper", "depth"), ask=_blue(make, hold, jaws))


_BLUE = (
    Sentence("Blue the jaws thinly round the mouth. Clamp a turned piece once at full pressure, and take it out."),
    Sentence("Choose the picture that it looks like."),
)


def _blue(make: Maker, hold: JawHold, jaws: JawsFigures) -> BlueAsk:
    return BlueAsk(side=hold.side, of=make.at, ring_key=_ring(make, jaws))
