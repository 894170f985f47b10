"""The house rules: what a shop has settled on where the trade leaves it open. All typical until the shop says
otherwise.

A plan keeps the rules it is computed under (`Document.rules`), so a rule that changes moves no plan by itself.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from calc import terms
from calc.fields import Checked, Choice, Quantity

RAW_STOCK = Choice(
    "Pocket for raw stock",
    {
        "nominal": "nominal stock",
        "middle": "measured middle of the batch",
        "largest": "largest piece: always three centres",
    },
    "Nominal asks nothing of the batch; the middle splits the error; bored for the largest, every piece touches on "
    "its centre line",
)

JAW_BORING = Choice(
    "Jaw boring pressure",
    {
        "ring": "up to the ring's limit, then taper if the estimate says so",
        "plug": "match production with a plug, where one seats",
    },
    "A ring takes one set-up; a plug takes two, and bores the jaws as far bent as the part will find them",
)


ROUGHER = Choice(
    "Rougher",
    {"rhombic": "80° rhombic: robust, four edges", "trigon": "trigon: six edges, slightly weaker"},
    "Which shape the shop roughs with where both do",
)
MACHINE_LIMITS = Choice(
    "Limits at the machine",
    {
        "print": "the print's",
        "narrowed": "narrowed by a share",
        "uncertainty": "the print's less measurement uncertainty",
    },
    "What a piece is judged by at the machine; never wider than the print",
)
THREAD_RELIEF = Choice(
    "Thread relief",
    {"groove": "groove first, then thread into it", "thread": "thread, then groove and clean up"},
    "The first runs out into the groove; the second finds the thread's end and needs a spring pass",
)
PART_START = Choice(
    "Part-off start",
    {"mid": "middle speed, low feed", "top": "top of both, where it is held rigid and near the jaws"},
    "The first for a job that has not proven itself; the second saves time when the hold is known",
)
FINISH_FROM = Choice(
    "Finish predicted",
    {"measured": "by feed and corner, times what was measured", "theory": "by feed and corner alone"},
    "The first where a first piece's finish was read with that edge in that material",
)
FIRST_SPEED = Choice(
    "First speed",
    {"proven": "the shop's own proven cut, then the material's window", "window": "the material's window"},
    "What a proposed operation starts from",
)


@dataclass(frozen=True)
class Rules(Checked):
    """The rules in force. `number` is the shop's revision that they are; 1 is what a shop begins with."""

    number: Annotated[int, Quantity("Revision", "", "Of the house rules", low=1, high=1_000_000, whole=True)] = 1
    safety: Annotated[
        float,
        terms.SAFETY.called(
            "Safety on the grip",
            "Covers what the figures do not know; below 1.5 the closed form may fall short of the true need",
        ),
    ] = 2.0
    worn: Annotated[
        float,
        Quantity(
            "Worn edge",
            "",
            "Cutting force of a worn edge over a fresh one; grip and power are planned for it",
            low=1,
            high=3,
        ),
    ] = 1.3
    interrupted: Annotated[
        float, Quantity("Interrupted cut", "", "On the tangential force of a cut that strikes", low=1, high=3)
    ] = 1.25
    friction_turned: Annotated[
        float,
        Quantity(
            "Friction, turned part",
            "",
            "Smooth soft jaw on a turned steel part, flood coolant in it",
            low=0.02,
            high=0.6,
        ),
    ] = 0.10
    friction_ground: Annotated[
        float,
        Quantity(
            "Friction, ground or drawn", "", "Smooth soft jaw on a ground or drawn steel part", low=0.02, high=0.6
        ),
    ] = 0.07
    friction_rough: Annotated[
        float,
        Quantity("Friction, rough stock", "", "Smooth soft jaw on rolled, sawn or cast steel", low=0.02, high=0.6),
    ] = 0.15
    friction_hard: Annotated[
        float, Quantity("Friction, hard jaws", "", "Serrated hard jaw on turned or drawn steel", low=0.02, high=0.6)
    ] = 0.30
    friction_collet: Annotated[
        float, Quantity("Friction, smooth collet", "", "On turned or drawn steel", low=0.02, high=0.6)
    ] = 0.12
    friction_collet_serrated: Annotated[
        float, Quantity("Friction, serrated collet", "", "On turned or drawn steel", low=0.02, high=0.6)
    ] = 0.20
    condition_today: Annotated[
        float, Quantity("Greased today", "", "Share of the book's grip that is counted", low=0.05, high=1)
    ] = 1.0
    condition_week: Annotated[
        float, Quantity("Greased within a week", "", "Share of the book's grip that is counted", low=0.05, high=1)
    ] = 0.85
    condition_unknown: Annotated[
        float,
        Quantity(
            "Grease unknown or older",
            "",
            "A chuck without its daily grease can lose half its force or more",
            low=0.05,
            high=1,
        ),
    ] = 0.5
    corner_friction_pct: Annotated[
        float, Quantity("Worst corner: less friction", "%", "Below the pair's typical friction", low=0, high=80)
    ] = 25.0
    corner_condition_pct: Annotated[
        float, Quantity("Worst corner: less grip", "%", "Below the chuck's condition as counted", low=0, high=80)
    ] = 15.0
    corner_force_pct: Annotated[
        float, Quantity("Worst corner: more force", "%", "Above the cutting force as computed", low=0, high=200)
    ] = 20.0
    wall_share_pct: Annotated[
        float,
        Quantity(
            "Out-of-round allowed",
            "%",
            "Of the roundness, or of the machined limits: a third leaves the rest to everything else",
            low=1,
            high=100,
        ),
    ] = 100 / 3
    gauge_days: Annotated[
        int,
        Quantity(
            "A gauge run counts for", "", "Days; after that the greasing log counts again", low=1, high=2000, whole=True
        ),
    ] = 90
    jaw_boring: Annotated[Literal["ring", "plug"], JAW_BORING] = "ring"
    clearance_mm: Annotated[
        float,
        Quantity("Clear of the jaws", "mm", "Least distance of a tool from jaws, chuck and centre", low=0.2, high=20),
    ] = 1.0
    edge_change_min: Annotated[
        float,
        Quantity(
            "Edge change", "min", "To turn or change one edge; counts in what settling takes for quick", low=0, high=60
        ),
    ] = 2.0
    rougher: Annotated[Literal["rhombic", "trigon"], ROUGHER] = "rhombic"
    thread_relief: Annotated[Literal["groove", "thread"], THREAD_RELIEF] = "groove"
    part_start: Annotated[Literal["mid", "top"], PART_START] = "mid"
    first_speed: Annotated[Literal["proven", "window"], FIRST_SPEED] = "proven"
    finish_stock_mm: Annotated[
        float, Quantity("Left for finishing", "mm", "Per side, after roughing", low=0.05, high=5)
    ] = 0.5
    least_life_min: Annotated[
        float, Quantity("Least edge life", "min", "What settling for quick asks of an edge", low=1, high=60)
    ] = 5.0
    machine_limits: Annotated[Literal["print", "narrowed", "uncertainty"], MACHINE_LIMITS] = "narrowed"
    kept_back_pct: Annotated[
        float, Quantity("Kept back", "%", "Of a tolerance, half at each end, where limits are narrowed", 0, 95)
    ] = 33.0
    uncertainty_mm: Annotated[
        float, Quantity("Uncertainty", "mm", "Of measuring at the machine, at each limit", 0, 1, places=(4, 5))
    ] = 0.003
    finish_from: Annotated[Literal["measured", "theory"], FINISH_FROM] = "measured"
    raw_stock: Annotated[Literal["nominal", "middle", "largest"], RAW_STOCK] = "nominal"
    utilisation_pct: Annotated[
        float, Quantity("Machine in use", "%", "Of the time that a run is on it, stops that are counted apart", 10, 100)
    ] = 85.0
    scrap_pct: Annotated[float, Quantity("Scrap", "%", "Made besides the good pieces", low=0, high=50)] = 2.0
    chuck_s: Annotated[float, Quantity("Chuck", "s", "To open and close it", low=0, high=600)] = 2.0
    door_s: Annotated[float, Quantity("Door", "s", "To open and close it", low=0, high=600)] = 4.0
    load_s: Annotated[float, Quantity("Load by hand", "s", "To take a piece out and put one in", low=0, high=3600)] = (
        20.0
    )
    load_s_kg: Annotated[float, Quantity("Load by hand, for each kg", "s", "More for its weight", low=0, high=600)] = (
        2.0
    )
    bar_feed_s: Annotated[float, Quantity("Bar feed", "s", "Of one piece", low=0, high=600)] = 4.0
    transfer_s: Annotated[
        float, Quantity("Transfer", "s", "The second spindle comes, closes, and goes with the piece", low=0, high=600)
    ] = 6.0
    catch_s: Annotated[float, Quantity("Catch", "s", "A parted or finished piece", low=0, high=600)] = 2.0
    bar_change_min: Annotated[float, Quantity("Bar change", "min", "Remnant out, new bar in", low=0, high=120)] = 3.0
    mount_min: Annotated[
        float, Quantity("Jaws or collet mounted", "min", "Cleaned, mounted, torqued, greased", low=0, high=600)
    ] = 10.0
    bore_min: Annotated[
        float, Quantity("Jaws bored", "min", "With ring or plug, groove and edges", low=0, high=600)
    ] = 15.0
    tool_min: Annotated[float, Quantity("A tool put in", "min", "With its edge", low=0, high=600)] = 4.0
    touch_min: Annotated[float, Quantity("A tool touched off", "min", "In X and Z", low=0, high=600)] = 1.0
    check_pieces: Annotated[
        int, Quantity("A check every", "", "So many pieces, while the run goes on", low=1, high=10_000, whole=True)
    ] = 20
    check_s: Annotated[
        float, Quantity("A check stops for", "s", "0: the machine runs on meanwhile", low=0, high=3600)
    ] = 0.0
    minute_cost: Annotated[
        float,
        Quantity("Price of a minute", "", "Machine and person, in the shop's money; 0: none is counted", 0, 100_000),
    ] = 0.0
    edge_cost: Annotated[
        float, Quantity("An edge costs", "", "In the same money; counts where a minute costs something", 0, 100_000)
    ] = 0.0
    prove_min: Annotated[float, Quantity("Program proved", "min", "Dry and block by block", low=0, high=3000)] = 15.0
    first_off_min: Annotated[float, Quantity("First-off", "min", "Made and measured", low=0, high=3000)] = 15.0

    @property
    def heavier(self) -> float:
        """Cutting force at the worst credible corner, over the planned one."""
        return 1 + self.corner_force_pct / 100


# What a single plan may depart from, with its reason.
PLAN_RULES = (
    "safety",
    "worn",
    "interrupted",
    "friction_turned",
    "friction_ground",
    "friction_rough",
    "friction_hard",
    "friction_collet",
    "friction_collet_serrated",
    "corner_friction_pct",
    "corner_condition_pct",
    "corner_force_pct",
    "wall_share_pct",
)
