"""Every kind of exercise: one line each, in the order of the work."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from calc.practice.cut_kinds import bar_for_bore, chips, feed_from_radius, insert_name, part_off_feed, refractometer
from calc.practice.draw import Draw
from calc.practice.exercise import Exercise
from calc.practice.fault_kinds import find_fault
from calc.practice.grip_kinds import grip_left, height_costs
from calc.practice.jaw_kinds import edges_or_centres, jaws_close, paper, read_blue, which_ring
from calc.practice.order_kinds import burr_passes, drill_first, which_end
from calc.practice.size_kinds import first_off_offset, go_not_go, narrowed

GROUPS: tuple[tuple[str, str], ...] = (
    ("sides", "Sides"),
    ("jaws", "Jaws"),
    ("force", "Force"),
    ("tools", "Tools"),
    ("cuts", "Cuts"),
    ("size", "Set and run"),
    ("whole", "The whole set-up"),
)
GENERATOR = 1  # counts up where a seed would give another exercise than before
SEED_MOST = 999_999


@dataclass(frozen=True)
class Kind:
    """A kind of exercise: what it is called, the calculator it is computed by, how many levels it has."""

    name: str
    group: str
    title: str
    levels: int
    make: Callable[[Draw, int], Exercise]

    def exercise(self, seed: int, level: int) -> Exercise:
        """The exercise of a seed: 0 to 999 999. `level` is held within the kind's own."""
        level = max(1, min(self.levels, level))
        return self.make(Draw(self.name, seed, level), level)


KINDS: dict[str, Kind] = {
    k.name: k
    for k in (
        Kind("which-end", "sides", "Which end first", 2, which_end),
        Kind("read-blue", "jaws", "Read the blue", 2, read_blue),
        Kind("contact", "jaws", "Edges or centres", 2, edges_or_centres),
        Kind("ring", "jaws", "Which ring, or a plug", 2, which_ring),
        Kind("jaws-close", "jaws", "Which way the jaws are pressed", 1, jaws_close),
        Kind("paper", "jaws", "Paper touch-off", 3, paper),
        Kind("grip-left", "force", "Grip left at speed", 3, grip_left),
        Kind("height", "force", "What the height costs", 2, height_costs),
        Kind("insert-name", "tools", "Read an insert’s name", 3, insert_name),
        Kind("bar", "tools", "A bar for a bore", 1, bar_for_bore),
        Kind("drill-first", "tools", "Drill and rough bore before a finished one", 2, drill_first),
        Kind("feed", "cuts", "Feed and depth from the corner", 3, feed_from_radius),
        Kind("chips", "cuts", "What the chips say", 2, chips),
        Kind("part-off", "cuts", "Parting off", 3, part_off_feed),
        Kind("burr", "cuts", "A thread’s burr", 2, burr_passes),
        Kind("refractometer", "cuts", "Read the refractometer", 3, refractometer),
        Kind("gauges", "size", "GO and NOT GO", 2, go_not_go),
        Kind("first-off", "size", "Offset from the first-off", 3, first_off_offset),
        Kind("limits", "size", "Limits to work to", 2, narrowed),
        Kind("fault", "whole", "What is wrong here", 2, find_fault),
    )
}
