"""The ledger of stop Jaws: the pocket, its teeth, the stroke, what the jaws close on, taper, set and program."""

from __future__ import annotations

from dataclasses import replace

from calc.jaws.recut import VERDICT_WORDS
from calc.plan.hold.solve import JAW_HOLD
from calc.plan.jaws.solve import JAWS
from calc.plan.stop import Amount, Entering, Fact, chosen, computed, said
from calc.plan.view import View
from calc.quantities import Figure, Sentence

POCKET, TEETH, STROKE, CLOSED, TAPER, SET, PROGRAM = (
    "The pocket",
    "On the teeth",
    "Stroke",
    "What they close on",
    "Taper",
    "This jaw set",
    "Jaw program",
)


def _pocket_facts(view: View) -> list[Fact]:
    hold, enter = view[JAW_HOLD], Entering(view.at, view.setup)
    least = enter("floor_min", "jaws.floor_min_mm", basis="typical", group=POCKET)
    clearance = enter("tool_clearance", "jaws.tool_clearance_mm", group=POCKET)
    if hold is None:
        return [least, clearance]
    pocket = hold.pocket
    verb = "Bore" if hold.side == "od" else "Turn"
    facts = [
        computed(
            "bore_diameter",
            f"{verb} to",
            Amount(pocket.bore_diameter_mm, "mm"),
            "nominal of what is gripped",
            group=POCKET,
        ),
        computed(
            "depth",
            "Deep",
            Amount(pocket.bore_depth_mm, "mm"),
            Sentence("{l} of it holds, the rest clears the part's end", l=Figure(hold.held_mm, "mm", "down"))
            if view.setup.hold.seat == "face"
            else Sentence(
                "a third of the part is {third}", third=Figure(pocket.step("t/L").values["L"] / 3, "mm", "up")
            ),
            group=POCKET,
        ),
        computed("floor", "Floor left", Amount(pocket.floor_mm, "mm", "down"), "above the bolt heads", group=POCKET),
        least,
        computed(
            "groove_width",
            "Groove width",
            Amount(pocket.groove_width_mm, "mm"),
            "along the wall",
            "typical",
            group=POCKET,
        ),
        computed(
            "groove_depth",
            "Groove depth",
            Amount(pocket.groove_depth_mm, "mm"),
            "into the wall",
            "typical",
            group=POCKET,
        ),
        computed(
            "start_diameter",
            "Start at",
            Amount(pocket.start_diameter_mm, "mm", "down" if hold.side == "od" else "up"),
            "clear of the jaw face",
            group=POCKET,
        ),
        clearance,
    ]
    if hold.other is not None:
        facts.append(
            computed(
                "other_pocket",
                "The other pocket",
                Amount(hold.other.bore_diameter_mm, "mm"),
                Sentence("{t} deep, for the other side", t=Figure(hold.other.bore_depth_mm, "mm")),
                group=POCKET,
            )
        )
    return [*facts, *weight_facts(view)]


def weight_facts(view: View) -> list[Fact]:
    """What one top jaw weighs, what stands behind the grip, and how hard its bolts are turned."""
    hold, figures, facts = view[JAW_HOLD], view[JAWS], list[Fact]()
    if hold is None:
        return facts
    chuck = hold.chuck
    if figures:
        most = chuck.heaviest_jaw_kg
        facts += [
            computed(
                "jaw_mass",
                "One top jaw",
                Amount(figures.mass.mass_kg, "kg", "up"),
                Sentence("chuck allows {m}", m=Figure(most, "kg", "down")) if most else "chuck's limit unknown",
                group=POCKET,
            ),
            computed("jaw_centre", "Its centre", Amount(figures.mass.radius_mm, "mm"), "from the axis", group=POCKET),
            computed(
                "jaw_behind",
                "Metal behind the grip",
                Amount(figures.thickness_mm, "mm", "down"),
                "radially",
                group=POCKET,
            ),
        ]
    metal = hold.blank.metal
    torque = chuck.bolt_torque_steel_nm if metal == "steel" else chuck.bolt_torque_aluminium_nm
    facts.append(
        computed(
            "bolt_torque",
            f"Jaw bolts {chuck.bolt_size}".strip(),
            Amount(torque, "N*m", "down"),
            f"chuck's book, {metal} jaws",
            "book",
            group=POCKET,
        )
    )
    return facts


def _teeth_facts(view: View) -> list[Fact]:
    hold, enter = view[JAW_HOLD], Entering(view.at, view.setup)
    mount = hold.mount if hold else None
    best = (
        Sentence("empty: the best; this is {k} of {n}", k=str(mount.tooth), n=str((hold.chuck.teeth or 1) - 1))
        if mount and hold
        else None
    )
    facts = [
        enter("tooth", "jaws.tooth", group=TEETH, source=best),
        enter("cleanup", "jaws.cleanup_mm", group=TEETH, basis="typical"),
    ]
    if mount is None:
        return facts
    facts += [
        computed("face_radius", "Face radius", Amount(mount.face_radius_mm, "mm"), "jaw at mid-stroke", group=TEETH),
        computed(
            "removed",
            "Metal to take",
            Amount(hold.removed_mm if hold else 0.0, "mm"),
            "per side, at mid-jaw",
            group=TEETH,
        ),
        computed(
            "wrap",
            "Wrap of one jaw",
            Amount(mount.wrap_deg, "deg"),
            "the arc reaches both corners" if mount.full_wrap else "not full",
            group=TEETH,
        ),
        computed(
            "tnut",
            "T-nut inside the body by",
            Amount(mount.tnut_to_body_mm, "mm", "down"),
            "never beyond it",
            group=TEETH,
        ),
    ]
    return facts


def stroke_facts(view: View, *, entered: bool = True) -> list[Fact]:
    """Where in the stroke it grips, and what is left either way; hard jaws grip where they stand."""
    hold, figures, enter = view[JAW_HOLD], view[JAWS], Entering(view.at, view.setup)
    said_of = Sentence("of the stroke used; 0.5 is the middle")
    facts = [enter("position", "jaws.position", group=STROKE, source=said_of)] if entered else []
    if figures and hold:
        s, words = figures.stroke, ("largest", "smallest") if hold.side == "od" else ("smallest", "largest")
        facts += [
            computed(
                "load_clearance",
                "Opens beyond it",
                Amount(s.load_clearance_mm, "mm", "down"),
                Sentence("{n} wanted for the {w} piece", n=Figure(s.clearance_wanted_mm, "mm", "up"), w=words[0]),
                group=STROKE,
            ),
            computed(
                "closing_travel",
                "Closes beyond it",
                Amount(s.closing_travel_mm, "mm", "down"),
                Sentence("{n} wanted for the {w} piece", n=Figure(s.travel_wanted_mm, "mm", "up"), w=words[1]),
                group=STROKE,
            ),
        ]
    return facts


def _closed_facts(view: View) -> list[Fact]:
    figures, enter = view[JAWS], Entering(view.at, view.setup)
    facts = [enter("ring_clearance", "jaws.ring_clearance_mm", group=CLOSED, basis="typical")]
    backing = figures.backing if figures else None
    if backing is None:
        return [said("backing", "Closes on", "waits", Sentence("give the gauge pressure at Force"), CLOSED), *facts]
    name = {
        "ring": backing.ring or "ring",
        "plug": "plug, two stages",
        "groove-ring": "groove ring, to be made",
        None: "nothing yet",
    }[backing.choice]
    facts.insert(0, said("backing", "Closes on", name, Sentence("why not the others: see below"), CLOSED))
    facts.insert(
        1,
        computed(
            "bore_pressure",
            "Pressure while cutting",
            Amount(backing.bore_pressure_bar, "bar", "down"),
            "as in production"
            if backing.choice == "plug"
            else "the ring's limit rules"
            if backing.choice == "ring"
            else "its record is to be made",
            "book",
            group=CLOSED,
        ),
    )
    facts.insert(
        2,
        computed(
            "bore_rpm",
            "Speed while cutting",
            Amount(backing.bore_max_rpm, "rpm", "down"),
            "at most, by the ring" if backing.bore_max_rpm else "no limit of a ring",
            "book",
            group=CLOSED,
        ),
    )
    return facts


def _taper_facts(view: View) -> list[Fact]:
    setup, figures, enter = view.setup, view[JAWS], Entering(view.at, view.setup)
    jaws = setup.jaws
    taper = figures.taper if figures else None
    facts = [
        computed(
            "taper_gap",
            "Gap at the tip, estimated",
            Amount(taper.gap_mm if taper else None, "mm", "up", (3, 4)),
            "per side; from below" if taper else "not known here",
            group=TAPER,
        ),
        enter("feeler", "jaws.feeler_mm", group=TAPER, basis="measured" if jaws.feeler_mm is not None else "entered"),
        enter("blue", "jaws.blue", group=TAPER),
    ]
    if jaws.blue in ("base", "tip"):
        facts.append(enter("taper_step", "jaws.taper_step_mm", group=TAPER, basis="typical"))
    used = figures.taper_mm if figures else None
    facts.append(
        computed(
            "taper",
            "Taper to cut, on diameter",
            Amount(used, "mm", places=(3, 4)),
            "from the feeler"
            if jaws.feeler_mm is not None
            else "estimated; the feeler rules"
            if taper
            else "measure with a feeler",
            "measured" if jaws.feeler_mm is not None else "derived",
            group=TAPER,
        )
    )
    return facts


def _set_facts(view: View) -> list[Fact]:
    at, shelf, figures, enter = view.at, view.taken, view[JAWS], Entering(view.at, view.setup)
    options = {"": "a new blank"} | {s.key: s.name for s in shelf.jaw_sets}
    one = shelf.jaw_set
    source = (
        Sentence("{d}, {where}", d=Figure(one.bored_mm, "mm"), where=one.stored or "place not noted")
        if one
        else Sentence("or a set from the shelf")
    )
    facts = [
        replace(chosen("jaw_set", f"{at}.jaw_set", one.key if one else "", options, source), group=SET, optional=True)
    ]
    if one is None:
        return facts
    keep, recut = (figures.keep, figures.recut) if figures else (None, None)
    if keep is not None:
        word = {"refit": "refit, no cutting", "recut": "re-cut", "unfit": "will not do"}[keep.verdict]
        facts.append(said("keep", "What to do", word, keep.reasons[0], SET))
        facts.append(
            computed(
                "recuts_left",
                "Re-cuts left",
                Amount(None if keep.recuts_left is None else float(keep.recuts_left), "", "down"),
                "wall left over what one takes",
                group=SET,
            )
        )
    facts += [
        enter("reading", "jaws.reading_mm", group=SET, basis="measured"),
        enter("paper", "jaws.paper_mm", group=SET, basis="typical"),
        enter("recut_limit", "jaws.recut_limit_mm", group=SET, basis="typical"),
    ]
    if recut is not None:
        facts += [
            computed(
                "set_size",
                "The jaws stand at",
                Amount(recut.size_mm, "mm", places=(3, 4)),
                "reading and paper",
                "measured",
                group=SET,
            ),
            computed(
                "removal",
                "Comes off, per side",
                Amount(recut.removal_mm, "mm", places=(3, 4)),
                VERDICT_WORDS[recut.verdict],
                group=SET,
            ),
        ]
    return facts


def _program_facts(view: View) -> list[Fact]:
    enter = Entering(view.at, view.setup)
    return [
        enter("boring_speed", "jaws.boring_speed_m_min", group=PROGRAM, basis="typical"),
        enter("boring_feed", "jaws.boring_feed_mm_rev", group=PROGRAM, basis="typical"),
        enter("boring_depth", "jaws.boring_depth_mm", group=PROGRAM, basis="typical"),
        enter("program", "jaws.program", group=PROGRAM),
        enter("spindle", "jaws.spindle", group=PROGRAM),
    ]


def ledger(view: View) -> tuple[Fact, ...]:
    """Every fact of the stop, under its headings."""
    return (
        *_pocket_facts(view),
        *_teeth_facts(view),
        *stroke_facts(view),
        *_closed_facts(view),
        *_taper_facts(view),
        *_set_facts(view),
        *_program_facts(view),
    )
