"""The jaws that could be taken, side by side: what each keeps at speed, bends, squeezes and leaves."""

from __future__ import annotations

from dataclasses import dataclass, replace

from calc.plan.force.solve import FORCE
from calc.plan.hold.solve import HOLD, JAW_HOLD
from calc.plan.jaws.solve import JAWS
from calc.plan.outcome import Figures
from calc.plan.paths import replaced
from calc.plan.stop import Row, Table
from calc.plan.view import View
from calc.quantities import Figure, Sentence
from calc.shelf.jaw_blank import JawBlank
from calc.working import Note

MOST = 8
UNKNOWN = Sentence("–")


@dataclass(frozen=True)
class Tried:
    """A blank, and the plan with it."""

    blank: JawBlank
    figures: Figures
    chosen: bool


def _with_blank(view: View, blank: JawBlank) -> Figures:
    """The set-up's figures with another blank."""
    document, shelf = view.document, view.shelf
    at = document.jaws_of(view.index)
    setups = list(shelf.setups)
    setups[at] = replace(setups[at], blank=blank, jaw_set=None)
    # A height set for this jaw is not the other's: each blank is tried at its own.
    if document.setups[at].hold.jaw_height_mm is not None:
        document = replaced(document, f"{view.jaws_at}.hold.jaw_height_mm", None)
    return view.tried(document, replace(shelf, setups=tuple(setups)))


def blanks_tried(view: View) -> tuple[Tried, ...]:
    """Every blank of the chuck tried in this set-up, the one chosen first. To be asked for by `View.once`."""
    taken = view.taken
    if taken.blank is None or taken.chuck is None or view[JAW_HOLD] is None:
        return ()
    others = [b for b in taken.blanks if b.key != taken.blank.key][: MOST - 1]
    return (Tried(taken.blank, view.figures, True), *(Tried(b, _with_blank(view, b), False) for b in others))


def _short(note: Note, figures: Figures) -> Sentence:
    """What stops a jaw, in as few words as a table has room for."""
    force = figures[FORCE]
    wall = force.wall if force else None
    if note.code == "wall-limit" and wall is not None and wall.allowed_mm is not None and wall.limit_n is not None:
        return Sentence(
            "{a} is allowed: the wall stands {f}",
            a=Figure(wall.allowed_mm, "mm", "down", (3, 4)),
            f=Figure(wall.limit_n, "N", "down"),
        )
    return note.sentence


def _row(view: View, tried: Tried) -> Row:
    f = tried.figures
    hold, jaws, force = f[HOLD], f[JAWS], f[FORCE]
    wall = force.wall if force else None
    why = next((p.sentence for p in f.outcome(HOLD).problems), None)
    stops = [_short(n, f) for o in (hold, jaws, force) if o for n in o.notes if n.level == "stop"]
    cells: tuple[Figure | Sentence, ...] = (
        Figure(force.grip.grip_n, "N", "down") if force else UNKNOWN,
        Figure(100 * force.fastest.at_top.kept_fraction, "%", "down") if force else UNKNOWN,
        Figure(force.cap_rpm, "rpm", "down") if force else UNKNOWN,
        Figure(jaws.taper.gap_mm, "mm", "up", (3, 4)) if jaws and jaws.taper else UNKNOWN,
        Figure(wall.lobing.out_of_round_mm, "mm", "up", (3, 4))
        if wall
        else UNKNOWN
        if hold is None or force is None
        else Sentence("stiff"),
    )
    return Row(
        tried.blank.name,
        cells,
        tried.chosen,
        f"{view.jaws_at}.jaw_blank",
        tried.blank.key,
        why or (stops[0] if stops else None),
    )


def blanks_table(view: View) -> tuple[Table, ...]:
    """The jaws compared; nothing to compare with fewer than two, or before there is a hold."""
    tried = view.once(blanks_tried) if view[HOLD] is not None else ()
    if len(tried) < 2:
        return ()
    made = [_row(view, t) for t in tried]
    # The one in force first, then what would do, then what would not.
    rows = tuple(sorted(made, key=lambda r: (not r.chosen, r.why_not is not None)))
    return (
        Table(
            "blanks", "Jaws compared", ("jaws", "grip", "kept at speed", "cap", "bends a side", "out of round"), rows
        ),
    )
