"""Threads and grooves by the shop's school, with the cuts that take their burr."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from calc.plan.cuts.cleaning import BURR_MM
from calc.plan.cuts.inputs import PlannedCut
from calc.propose.figures import tooled
from calc.propose.side import Side, called
from calc.threads.chip import DEPTH_EXTERNAL, DEPTH_INTERNAL
from calc.threads.designation import designation
from calc.tools.kinds.thread_insert import ThreadInsert

EDGE_MM = 0.3  # typical: how far the edges at both ends of a thread are broken
RUN_OUT = 3.0  # pitches: a groove that begins within them of a thread's end is its relief


def threads_and_grooves(side: Side) -> list[PlannedCut]:
    """Grooves and threads in the order of the shop's school, each thread with what follows it.

    Groove first: the relief, the thread into it, a spring pass. Thread first: the thread; its relief; its diameter
    once more, where the insert does not cut the crest; the edges at both ends; a spring pass. A bore without a relief
    is bored once more before the spring pass. A thread with neither relief nor bore has a spring pass alone.

    Reference: docs/method.md, “Threads and their burr”.
    """
    grooves, threads = _grooves(side), _threads(side)
    if side.rules.thread_relief == "groove":
        return [*grooves, *(cut for thread in threads for cut in _made(thread, None, side))]
    made: list[PlannedCut] = []
    left = list(grooves)
    for thread in threads:
        relief = next((g for g in left if _relieves(g, thread)), None)
        if relief is not None:
            left.remove(relief)
        made += _made(thread, relief, side)
    return [*left, *made]


def _relieves(groove: PlannedCut, thread: PlannedCut) -> bool:
    end = thread.start_mm + (thread.length_mm or 0.0)
    reach = end + RUN_OUT * (thread.feed_mm_rev or 0.0)
    return groove.inside == thread.inside and thread.start_mm < groove.start_mm <= reach


def _made(thread: PlannedCut, relief: PlannedCut | None, side: Side) -> Iterator[PlannedCut]:
    """A thread, its relief where that is cut after it, and what takes their burr."""
    cut = tooled(thread, side)
    yield cut
    if relief is not None:
        relief = tooled(relief, side)
        yield relief
    if relief is not None or thread.inside:
        if not _cuts_the_crest(cut, side):
            yield _crest_again(thread)
        if relief is not None:
            yield _edges_broken(thread, relief)
    yield replace(cut, name=f"Spring pass, {thread.name}", cleans=True)


def _cuts_the_crest(cut: PlannedCut, side: Side) -> bool:
    tool = side.library.tool(cut.tool) if cut.tool else None
    return tool is not None and isinstance(tool.edge, ThreadInsert) and tool.edge.profile == "full"


def _crest_again(thread: PlannedCut) -> PlannedCut:
    """The diameter that the thread was cut into, once more: a burr stands on it."""
    crest, sign = thread.from_diameter_mm or 0.0, -1.0 if thread.inside else 1.0
    return PlannedCut(
        f"{'Bore' if thread.inside else 'Turn'} again, {thread.name}",
        "bore" if thread.inside else "turn",
        round(crest + sign * 2 * BURR_MM, 3),
        crest,
        depth_mm=BURR_MM,
        stage="finish",
        cleans=True,
        start_mm=thread.start_mm,
        length_mm=thread.length_mm,
    )


def _edges_broken(thread: PlannedCut, relief: PlannedCut) -> PlannedCut:
    """The edges at both ends of a thread, with the groover that cut its relief."""
    crest, sign = thread.from_diameter_mm or 0.0, 1.0 if thread.inside else -1.0
    return PlannedCut(
        f"Break edges, {thread.name}",
        "groove",
        crest,
        round(crest + sign * 2 * EDGE_MM, 3),
        width_mm=relief.width_mm,
        tool=relief.tool,
        cleans=True,
        start_mm=thread.start_mm,
        length_mm=round(relief.start_mm - thread.start_mm, 3),
    )


def _grooves(side: Side) -> list[PlannedCut]:
    """The grooves, outside and inside."""
    found = []
    for steps, sign in ((side.outside, 1.0), (side.inside, -1.0)):
        for i, span in enumerate(steps):
            if not span.step.groove:
                continue
            d = span.step.diameter_mm or 0.0
            beside = [s.step.diameter_mm or 0.0 for s in (*steps[max(0, i - 1) : i], *steps[i + 1 : i + 2])]
            # Of what stands beside it, the nearer one is where the plunge begins to cut.
            proud = [b for b in beside if sign * (b - d) > 0]
            if not proud:
                continue
            width = round(span.end - span.start, 3)
            found.append(
                PlannedCut(
                    called("Groove", span),
                    "groove",
                    min(proud, key=lambda b: sign * b),
                    d,
                    width_mm=width,
                    start_mm=round(span.start, 3),
                    length_mm=width,
                )
            )
    return found


def _threads(side: Side) -> list[PlannedCut]:
    """The threads, outside and inside."""
    found = []
    for inside, steps in ((False, side.outside), (True, side.inside)):
        for span in steps:
            named = designation(span.step.thread) if span.step.thread else None
            if named is None:
                continue
            root = round(named.major_mm - 2 * (DEPTH_INTERNAL if inside else DEPTH_EXTERNAL) * named.pitch_mm, 3)
            a, b = (root, named.major_mm) if inside else (named.major_mm, root)
            long = span.step.thread_length_mm or span.end - span.start
            found.append(
                PlannedCut(
                    called("Thread", span),
                    "thread",
                    a,
                    b,
                    feed_mm_rev=round(named.pitch_mm, 6),
                    thread=span.step.thread,
                    start_mm=round(span.start, 3),
                    length_mm=round(long, 3),
                )
            )
    return found
