"""Stop Jaws as it is shown: its ledger, tables, steps, answers and rail line."""

from __future__ import annotations

from dataclasses import replace

from calc.fields import Text
from calc.plan.document import Setup
from calc.plan.hold import HoldFigures
from calc.plan.jaws import PIECES, JawsFigures
from calc.plan.stops import Answer, Fact, Help, Outcome, Procedure, Row, Stop, Table, chosen, computed, entered
from calc.quantities import Bare, Figure, Sentence
from calc.shelf.taken import SetupShelf

POCKET, TEETH, STROKE, CLOSED, TAPER, SET, PROGRAM = (
    "The pocket",
    "On the teeth",
    "Stroke",
    "Closed on while bored",
    "Taper",
    "This jaw set",
    "Boring",
)


def _said(name: str, label: str, words: str, source: Sentence, group: str) -> Fact:
    return Fact(name, label, words, Text(label), None, group, source=source, basis="derived")


def _pocket_facts(at: str, setup: Setup, hold: HoldFigures | None, figures: JawsFigures | None) -> list[Fact]:
    least = entered("floor_min", f"{at}.jaws.floor_min_mm", setup.jaws.floor_min_mm, basis="typical", group=POCKET)
    clearance = entered("tool_clearance", f"{at}.jaws.tool_clearance_mm", setup.jaws.tool_clearance_mm, group=POCKET)
    if hold is None:
        return [least, clearance]
    pocket, chuck = hold.pocket, hold.chuck
    verb = "Bore" if hold.side == "od" else "Turn"
    facts = [
        computed(
            "bore_diameter", f"{verb} to", pocket.bore_diameter_mm, "mm", "nominal of what is gripped", group=POCKET
        ),
        computed(
            "depth",
            "Deep",
            pocket.bore_depth_mm,
            "mm",
            Sentence("a third of the part is {third}", third=Figure(pocket.step("t/L").values["L"] / 3, "mm", "up")),
            group=POCKET,
        ),
        computed("floor", "Floor left", pocket.floor_mm, "mm", "above the bolt heads", rounding="down", group=POCKET),
        least,
        computed(
            "groove_width", "Groove width", pocket.groove_width_mm, "mm", "along the wall", "typical", group=POCKET
        ),
        computed(
            "groove_depth", "Groove depth", pocket.groove_depth_mm, "mm", "into the wall", "typical", group=POCKET
        ),
        computed(
            "start_diameter",
            "Start at",
            pocket.start_diameter_mm,
            "mm",
            "clear of the jaw face",
            rounding="down" if hold.side == "od" else "up",
            group=POCKET,
        ),
        clearance,
    ]
    if hold.other is not None:
        facts.append(
            computed(
                "other_pocket",
                "The other pocket",
                hold.other.bore_diameter_mm,
                "mm",
                Sentence("{t} deep, for the other side", t=Figure(hold.other.bore_depth_mm, "mm")),
                group=POCKET,
            )
        )
    if figures:
        most = chuck.heaviest_jaw_kg
        facts += [
            computed(
                "jaw_mass",
                "One top jaw",
                figures.mass.mass_kg,
                "kg",
                Sentence("chuck allows {m}", m=Figure(most, "kg", "down")) if most else "chuck's limit unknown",
                rounding="up",
                group=POCKET,
            ),
            computed("jaw_centre", "Its centre", figures.mass.radius_mm, "mm", "from the axis", group=POCKET),
            computed(
                "jaw_behind",
                "Metal behind the grip",
                figures.thickness_mm,
                "mm",
                "radially",
                rounding="down",
                group=POCKET,
            ),
        ]
    metal = hold.blank.metal
    torque = chuck.bolt_torque_steel_nm if metal == "steel" else chuck.bolt_torque_aluminium_nm
    facts.append(
        computed(
            "bolt_torque",
            f"Jaw bolts {chuck.bolt_size}".strip(),
            torque,
            "N*m",
            f"chuck's book, {metal} jaws",
            "book",
            rounding="down",
            group=POCKET,
        )
    )
    return facts


def _teeth_facts(at: str, setup: Setup, hold: HoldFigures | None) -> list[Fact]:
    mount = hold.mount if hold else None
    best = (
        Sentence("empty: the best; this is {k} of {n}", k=str(mount.tooth), n=str((hold.chuck.teeth or 1) - 1))
        if mount and hold
        else None
    )
    facts = [
        entered("tooth", f"{at}.jaws.tooth", setup.jaws.tooth, group=TEETH, source=best),
        entered("cleanup", f"{at}.jaws.cleanup_mm", setup.jaws.cleanup_mm, group=TEETH, basis="typical"),
    ]
    if mount is None:
        return facts
    facts += [
        computed("face_radius", "Face radius", mount.face_radius_mm, "mm", "jaw at mid-stroke", group=TEETH),
        computed(
            "removed", "Metal to take", hold.removed_mm if hold else 0.0, "mm", "per side, at mid-jaw", group=TEETH
        ),
        computed(
            "wrap",
            "Wrap of one jaw",
            mount.wrap_deg,
            "deg",
            "the arc reaches both corners" if mount.full_wrap else "not full",
            group=TEETH,
        ),
        computed(
            "tnut",
            "T-nut inside the body by",
            mount.tnut_to_body_mm,
            "mm",
            "never beyond it",
            rounding="down",
            group=TEETH,
        ),
    ]
    return facts


def _stroke_facts(at: str, setup: Setup, hold: HoldFigures | None, figures: JawsFigures | None) -> list[Fact]:
    facts = [
        entered(
            "position",
            f"{at}.jaws.position",
            setup.jaws.position,
            group=STROKE,
            source=Sentence("of the stroke used; 0.5 is the middle"),
        )
    ]
    if figures and hold:
        s, words = figures.stroke, ("largest", "smallest") if hold.side == "od" else ("smallest", "largest")
        facts += [
            computed(
                "load_clearance",
                "Opens beyond it",
                s.load_clearance_mm,
                "mm",
                Sentence("{n} wanted for the {w} piece", n=Figure(s.clearance_wanted_mm, "mm", "up"), w=words[0]),
                group=STROKE,
                rounding="down",
            ),
            computed(
                "closing_travel",
                "Closes beyond it",
                s.closing_travel_mm,
                "mm",
                Sentence("{n} wanted for the {w} piece", n=Figure(s.travel_wanted_mm, "mm", "up"), w=words[1]),
                group=STROKE,
                rounding="down",
            ),
        ]
    return facts


def _closed_facts(at: str, setup: Setup, figures: JawsFigures | None) -> list[Fact]:
    facts = [
        entered(
            "ring_clearance",
            f"{at}.jaws.ring_clearance_mm",
            setup.jaws.ring_clearance_mm,
            group=CLOSED,
            basis="typical",
        )
    ]
    backing = figures.backing if figures else None
    if backing is None:
        return [_said("backing", "Closes on", "waits", Sentence("give the gauge pressure at Force"), CLOSED), *facts]
    name = {
        "ring": backing.ring or "ring",
        "plug": "plug, two stages",
        "groove-ring": "groove ring, to be made",
        None: "nothing yet",
    }[backing.choice]
    facts.insert(0, _said("backing", "Closes on", name, Sentence("why not the others: see below"), CLOSED))
    facts.insert(
        1,
        computed(
            "bore_pressure",
            "Pressure while bored",
            backing.bore_pressure_bar,
            "bar",
            "as in production"
            if backing.choice == "plug"
            else "the ring's limit rules"
            if backing.choice == "ring"
            else "its record is to be made",
            "book",
            rounding="down",
            group=CLOSED,
        ),
    )
    facts.insert(
        2,
        computed(
            "bore_rpm",
            "Speed while bored",
            backing.bore_max_rpm,
            "rpm",
            "at most, by the ring" if backing.bore_max_rpm else "no limit of a ring",
            "book",
            rounding="down",
            group=CLOSED,
        ),
    )
    return facts


def _taper_facts(at: str, setup: Setup, figures: JawsFigures | None) -> list[Fact]:
    jaws = setup.jaws
    taper = figures.taper if figures else None
    facts = [
        computed(
            "taper_gap",
            "Gap at the tip, estimated",
            taper.gap_mm if taper else None,
            "mm",
            "per side; from below" if taper else "not known here",
            rounding="up",
            places=(3, 4),
            group=TAPER,
        ),
        entered(
            "feeler",
            f"{at}.jaws.feeler_mm",
            jaws.feeler_mm,
            group=TAPER,
            basis="measured" if jaws.feeler_mm is not None else "entered",
        ),
        entered("blue", f"{at}.jaws.blue", jaws.blue, group=TAPER),
    ]
    if jaws.blue in ("base", "tip"):
        facts.append(
            entered("taper_step", f"{at}.jaws.taper_step_mm", jaws.taper_step_mm, group=TAPER, basis="typical")
        )
    used = figures.taper_mm if figures else None
    facts.append(
        computed(
            "taper",
            "Taper to cut, on diameter",
            used,
            "mm",
            "from the feeler"
            if jaws.feeler_mm is not None
            else "estimated; the feeler rules"
            if taper
            else "measure with a feeler",
            "measured" if jaws.feeler_mm is not None else "derived",
            places=(3, 4),
            group=TAPER,
        )
    )
    return facts


def _set_facts(at: str, setup: Setup, shelf: SetupShelf, figures: JawsFigures | None) -> list[Fact]:
    options = {"": "a new blank"} | {s.key: s.name for s in shelf.jaw_sets}
    one = shelf.jaw_set
    source = (
        Sentence("{d}, {where}", d=Figure(one.bored_mm, "mm"), where=one.stored or "place not noted")
        if one
        else Sentence("or a set from the shelf")
    )
    facts = [
        replace(
            chosen("jaw_set", "Jaw set", f"{at}.jaw_set", one.key if one else "", options, source),
            group=SET,
            optional=True,
        )
    ]
    if one is None:
        return facts
    keep, recut = (figures.keep, figures.recut) if figures else (None, None)
    if keep is not None:
        word = {"refit": "refit, no cutting", "recut": "re-cut", "unfit": "will not do"}[keep.verdict]
        facts.append(_said("keep", "What to do", word, keep.reasons[0], SET))
        facts.append(
            computed(
                "recuts_left",
                "Re-cuts left",
                None if keep.recuts_left is None else float(keep.recuts_left),
                "",
                "wall left over what one takes",
                rounding="down",
                group=SET,
            )
        )
    facts += [
        entered("reading", f"{at}.jaws.reading_mm", setup.jaws.reading_mm, group=SET, basis="measured"),
        entered("paper", f"{at}.jaws.paper_mm", setup.jaws.paper_mm, group=SET, basis="typical"),
        entered("recut_limit", f"{at}.jaws.recut_limit_mm", setup.jaws.recut_limit_mm, group=SET, basis="typical"),
    ]
    if recut is not None:
        facts += [
            computed(
                "set_size",
                "The jaws stand at",
                recut.size_mm,
                "mm",
                "reading and paper",
                "measured",
                group=SET,
                places=(3, 4),
            ),
            computed(
                "removal",
                "Comes off, per side",
                recut.removal_mm,
                "mm",
                {"cut": "cut", "close-in": "clamp them further in first", "open-out": "open them first"}[recut.verdict],
                group=SET,
                places=(3, 4),
            ),
        ]
    return facts


def _program_facts(at: str, setup: Setup) -> list[Fact]:
    jaws = setup.jaws
    return [
        entered(
            "boring_speed", f"{at}.jaws.boring_speed_m_min", jaws.boring_speed_m_min, group=PROGRAM, basis="typical"
        ),
        entered(
            "boring_feed", f"{at}.jaws.boring_feed_mm_rev", jaws.boring_feed_mm_rev, group=PROGRAM, basis="typical"
        ),
        entered("boring_depth", f"{at}.jaws.boring_depth_mm", jaws.boring_depth_mm, group=PROGRAM, basis="typical"),
        entered("program", f"{at}.jaws.program", jaws.program, group=PROGRAM),
        entered("spindle", f"{at}.jaws.spindle", jaws.spindle, group=PROGRAM),
    ]


def _tables(at: str, hold: HoldFigures, figures: JawsFigures) -> tuple[Table, ...]:
    made = []
    if hold.mount:
        made.append(
            Table(
                "teeth",
                "Teeth compared",
                ("tooth", "face Ø", "metal", "wrap", "T-nut in by"),
                tuple(
                    Row(
                        str(n.tooth),
                        (
                            Figure(2 * n.face_radius_mm, "mm"),
                            Figure(n.removed_mm, "mm"),
                            Figure(n.wrap_deg, "deg"),
                            Figure(n.tnut_to_body_mm, "mm", "down"),
                        ),
                        n.tooth == hold.mount.tooth,
                        f"{at}.jaws.tooth",
                        n.tooth,
                        None
                        if n.clean and n.tnut_to_body_mm >= 0
                        else Sentence(
                            "T-nut outside the body" if n.tnut_to_body_mm < 0 else "does not clean up to the corners"
                        ),
                    )
                    for n in hold.mount.neighbours
                ),
                TEETH,
            )
        )
    grip = hold.grip
    rows = []
    for label, size, contact in zip(
        PIECES, (grip.smallest_mm, grip.diameter_mm, grip.largest_mm), hold.contacts, strict=True
    ):
        where = (
            {"full": "all over", "centre": "at mid-jaw", "edges": "on the corners"}[contact.mode]
            if contact
            else "not at all"
        )
        gap = Figure(contact.gap_mm if contact else 0.0, "mm", places=(4, 5))
        rows.append(Row(label, (Figure(size, "mm", places=(3, 4)), Sentence(where), gap)))
    made.append(Table("contact", "How pieces touch", ("piece", "Ø", "touches", "gap"), tuple(rows), STROKE))
    if figures.backing and figures.backing.rejected:
        made.append(
            Table(
                "rejected",
                "Not closed on",
                ("what", "why not"),
                tuple(Row(r.name, (r.why,)) for r in figures.backing.rejected),
                CLOSED,
            )
        )
    return tuple(made)


def _procedures(hold: HoldFigures, figures: JawsFigures) -> tuple[Procedure, ...]:
    made = []
    if figures.keep is not None and figures.keep.verdict == "recut" and figures.keep.clamp_mm is not None:
        made.append(
            Procedure(
                "Re-cut this set",
                (
                    Sentence("Mount on the marks: jaw 1 on master jaw 1, in the scribed tooth."),
                    Sentence(
                        "Clamp so that the jaws stand at Ø{d}, {word} than the part.",
                        d=Figure(figures.keep.clamp_mm, "mm"),
                        word="slightly less" if hold.side == "od" else "slightly more",
                    ),
                    Sentence("Touch off with paper, type the reading at “Touch-off X”."),
                    Sentence(
                        "Cut {a} per side, skim the floor 0.2 mm, break the edges.",
                        a=Figure(figures.keep.removal_mm or 0, "mm", places=(3, 4)),
                    ),
                    Sentence("Write the new size on the set's page, and check runout."),
                ),
            )
        )
    elif figures.keep is not None and figures.keep.verdict == "refit":
        made.append(
            Procedure(
                "Refit this set",
                (
                    Sentence("Clean serrations; mount on the marks, jaw 1 on master jaw 1, in the scribed tooth."),
                    Sentence("Check runout on a turned piece before the first part."),
                ),
            )
        )
    elif figures.backing and figures.backing.steps:
        made.append(Procedure("Bore the jaws", figures.backing.steps))
    if (figures.taper is not None and figures.taper.needed) or figures.taper is None:
        made.append(
            Procedure(
                "Taper: measure, then correct",
                (
                    Sentence(
                        "At full pressure on a slug or piece, try feelers at the jaw's tip; type the largest that "
                        "goes in."
                    ),
                    Sentence(
                        "Re-bore with the taper: {more} at the floor than at the tip.",
                        more="larger" if hold.side == "od" else "smaller",
                    ),
                    Sentence(
                        "Blue the mouth thinly. Blue first at the part's base: too much taper; first at the tip: too "
                        "little."
                    ),
                    Sentence("Correct by 0.01 to 0.025 mm at a time until it is even."),
                ),
            )
        )
    return tuple(made)


def jaws_stop(
    at: str,
    setup: Setup,
    shelf: SetupShelf,
    hold: HoldFigures | None,
    outcome: Outcome[JawsFigures],
    helps: tuple[Help, ...],
) -> Stop:
    """The stop as it is shown."""
    figures = outcome.value
    facts = (
        *_pocket_facts(at, setup, hold, figures),
        *_teeth_facts(at, setup, hold),
        *_stroke_facts(at, setup, hold, figures),
        *_closed_facts(at, setup, figures),
        *_taper_facts(at, setup, figures),
        *_set_facts(at, setup, shelf, figures),
        *_program_facts(at, setup),
    )
    if figures is None or hold is None:
        return Stop("jaws", "Jaws", outcome.state(()), outcome.line, facts, problems=outcome.problems)
    pocket = hold.pocket
    bore = Figure(pocket.bore_diameter_mm, "mm", places=hold.places)
    depth = Figure(pocket.bore_depth_mm, "mm")
    outside = hold.side == "od"
    answers = (
        Answer(
            "bore_diameter",
            "Bore the jaws to" if outside else "Turn the jaws to",
            bore,
            "Ø ",
            steps=(pocket.step("D_b"),),
            below=Sentence("start at Ø {s}", s=Figure(pocket.start_diameter_mm, "mm", "down" if outside else "up")),
        ),
        Answer(
            "depth",
            "Deep, with groove",
            depth,
            below=Sentence(
                "groove {w} × {d}", w=Figure(pocket.groove_width_mm, "mm"), d=Figure(pocket.groove_depth_mm, "mm")
            ),
            steps=tuple(s for s in pocket.working if s.symbol in ("t", "t_min", "b_g", "t_g", "l_g")),
        ),
        _taper_answer(setup, figures),
    )
    tail = "two pockets" if hold.other else "floor groove"
    line = Sentence("Ø {d} × {t} deep, {tail}", d=Bare(bore), t=Bare(depth), tail=tail)
    if figures.keep is not None and figures.keep.verdict != "unfit":
        line = Sentence(
            "Ø {d} × {t}, {what}",
            d=Bare(bore),
            t=Bare(depth),
            what="refit" if figures.keep.verdict == "refit" else "re-cut",
        )
    return Stop(
        "jaws",
        "Jaws",
        outcome.state(figures.notes),
        line,
        facts,
        answers,
        figures.notes,
        helps,
        tables=_tables(at, hold, figures),
        procedures=_procedures(hold, figures),
    )


def _taper_answer(setup: Setup, figures: JawsFigures) -> Answer:
    used, taper = figures.taper_mm, figures.taper
    below = (
        Sentence("{x} a side, estimated", x=Figure(taper.gap_mm, "mm", "up", (3, 4)))
        if taper
        else Sentence("measure with a feeler")
    )
    if setup.jaws.feeler_mm is not None:
        below = Sentence("from the feeler, {x} a side", x=Figure(setup.jaws.feeler_mm, "mm", places=(3, 4)))
    steps = taper.working if taper else ()
    if used is None:
        return Answer("taper", "Taper over the depth", None, words=Sentence("not known"), below=below, steps=steps)
    if used == 0:
        return Answer("taper", "Taper over the depth", None, words=Sentence("none"), below=below, steps=steps)
    return Answer("taper", "Taper over the depth", Figure(used, "mm", places=(3, 4)), below=below, steps=steps)
