"""A cut's feed against the corner that makes it, the finish that the print asks, and the insert's chip breaker."""

from __future__ import annotations

from calc.cuts.feed_window import FeedWindowResult
from calc.plan.cuts.inputs import PlannedCut
from calc.quantities import Figure, Sentence
from calc.working import Note

SAME = 1 + 1e-6
# A wiper is reckoned in both figures already, and nothing else leaves half of the theoretical finish.
MISSED = 2.0
CRUSHED = 1.5  # of the most that the breaker's maker states, typical: from there the edge is asked to break


def feed_notes(planned: PlannedCut, window: FeedWindowResult, ra_um: float | None) -> list[Note]:
    """What is wrong with the feed [mm/rev]; `ra_um` [µm]: the finish that the print asks here.

    Above the corner radius the edge leaves a thread with flanks and the corner carries more than it is made for: a
    stop. So is a theoretical finish of more than twice the print's, and half more than the chip breaker's maker states.
    Elsewhere above the window: a caution that names what bounds it.

    Reference: docs/method.md, “Too much feed”; the finish grows with the square of the feed.
    """
    feed, name = planned.feed_mm_rev, planned.name
    most = window.feed_max_mm_rev
    if feed is None or feed <= most * SAME:
        return []
    if feed > planned.corner_radius_mm * SAME:
        return [
            Note(
                "stop",
                "feed-over-corner",
                "{name}: a feed of {f} is more than the corner of {r}: it leaves a thread, and the corner breaks. "
                "Two thirds of the corner is the most; {m} is what this cut allows.",
                name=name,
                f=Figure(feed, "mm/rev", "up"),
                r=Figure(planned.corner_radius_mm, "mm"),
                m=Figure(most, "mm/rev", "down"),
            )
        ]
    finish = window.schools.finish
    best = finish.feed_max_mm_rev if finish else None
    if best is not None and ra_um is not None and (feed / best) ** 2 > MISSED:
        return [
            Note(
                "stop",
                "finish-missed",
                "{name}: a feed of {f} leaves Ra {ra} at best; the print asks {wanted}. Feed {m} at most.",
                name=name,
                f=Figure(feed, "mm/rev", "up"),
                ra=Figure(ra_um * (feed / best) ** 2, "um", "up"),
                wanted=Figure(ra_um, "um"),
                m=Figure(best, "mm/rev", "down"),
            )
        ]
    breaker = window.schools.breaker
    boxed = breaker.feed_max_mm_rev if breaker else None
    if boxed is not None and feed > CRUSHED * boxed * SAME:
        return [
            Note(
                "stop",
                "feed-over-breaker",
                "{name}: a feed of {f} is far above the {b} that the insert's maker states for its chip breaker: chip "
                "and edge are crushed. Feed {m} at most.",
                name=name,
                f=Figure(feed, "mm/rev", "up"),
                b=Figure(boxed, "mm/rev", "down"),
                m=Figure(most, "mm/rev", "down"),
            )
        ]
    return [
        Note(
            "caution",
            "feed-above-window",
            "{name}: a feed of {f} is above the {m} that {why}.",
            name=name,
            f=Figure(feed, "mm/rev", "up"),
            m=Figure(most, "mm/rev", "down"),
            why=_why(window),
        )
    ]


def _why(window: FeedWindowResult) -> Sentence:
    if window.bound_by == "finish":
        return Sentence("the print's finish allows")
    if window.bound_by == "breaker":
        return Sentence("its chip breaker is made for: the chip is crushed")
    return Sentence("its corner allows, two thirds of the radius")
